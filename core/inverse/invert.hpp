#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "inverse/solve.hpp"
#include "lang/check.hpp"
#include "subject/subject.hpp"

#include <functional>
#include <span>

namespace kasuri::inverse {

/// Two colours that the rule makes one.
struct Meeting {
    std::array<double, 3> a{}, b{}, made{};
};

/// A parameter whose way there and back does not work over all of its range.
struct Narrowed {
    std::string name;
    double low = 0, high = 1; ///< where it does
};

struct Options {
    /// What the `undoes` line calls the rule; empty: the way back has no such line.
    std::string file{};
    /// What the rule's own `use` reads.
    std::function<Result<std::string>(const std::string&)> open{};
};

/// The way back from a rule, or why there is none.
struct Back {
    bool found = false;
    std::string text{}; ///< the rule that takes it off: ordinary, readable, with the same parameters
    std::vector<Obstacle> losses{}, ranges{}, obstacles{};
    /// Measured on that text: how far a colour from 0 to 1 comes to lie from itself, on 4096 colours, at the values
    /// that were asked for, and over all that its parameters allow.
    double largest = 0, largest_anywhere = 0;
    std::size_t settings = 0;
    std::array<double, 3> at{};         ///< where it is largest
    std::vector<Narrowed> narrowed{};   ///< parameters whose ranges it has made smaller
    bool at_values = false;             ///< it has no parameters, for it holds at these values alone
    std::vector<std::string> without{}; ///< options that have no way back: "kept = true"
    bool everywhere = false;            ///< it holds over all that its parameters allow, and promises so
    double noise = 1;                   ///< how many times as loud noise gets on the way back, at most
    std::optional<Meeting> meeting{};   ///< shown where something is lost
};

/// What counts as having come back, where a rule says nothing else.
inline constexpr double as_good_as_back = 1e-4;

/// Works out the way back from a rule at these values, whose text is `text`, measures it, and narrows parameters to
/// where it works. Errors: it reads earlier steps of a look, it is too long, it was called off.
Result<Back> invert(const lang::Rule& rule, std::string_view text, std::span<const double> values,
                    const Options& options = {}, const CancelToken& cancel = {});

/// Two colours between 0 and 1 that the rule makes one (to 1e-5) although they are plainly apart; nothing if none are
/// found. `back`: its way back, which may name such colours; may be null.
std::optional<Meeting> meeting(const subject::Subject& rule, const subject::Subject* back);

/// Colours in the middle of so many even steps from 0 to 1 along each channel.
std::vector<std::array<double, 3>> lattice(int steps);

/// What a subject makes of colours; further pictures are what subject/further.hpp takes them to be first.
std::vector<std::array<double, 3>> results(const subject::Subject& of, std::span<const std::array<double, 3>> colours);

/// As one line: "line 4: clamp(rgb, 0, 1): what is outside of the limits there".
std::string told(const Obstacle& obstacle, std::string_view text);

} // namespace kasuri::inverse
