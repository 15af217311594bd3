#pragma once
#include "colour/space.hpp"
#include "inverse/table.hpp"

#include <optional>
#include <set>
#include <string>
#include <vector>

namespace kasuri::inverse {

/// What stands in the way, or what is lost on the way.
struct Obstacle {
    Span span{};      ///< of the part of the rule; empty if it is nowhere in its own text
    std::string part; ///< it, as it would be written
    std::string why;  ///< a sentence
};

/// Functions that are written for the way back: one unknown number in a formula of its own is found by halving.
struct Functions {
    std::map<std::string, std::string> names{}; ///< by what they solve
    /// Of each its name and its text, with what it needs beside earlier ones.
    std::vector<std::pair<std::string, std::string>> texts{};
};

struct Solution {
    bool found = false;
    bool scaled = false;       ///< by `keep luminance`, and taken to have grown with its input
    TermId rgb = 0, alpha = 0; ///< of given channels, if found
    Functions functions{};
    std::vector<Obstacle> losses{};    ///< found all the same: on what is not lost
    std::vector<Obstacle> ranges{};    ///< numbers that are found by looking for them, and where
    std::vector<Obstacle> obstacles{}; ///< not found: why
};

/// Parts by which something may be lost, whatever can be solved: rounding, other pixels, one number for three.
std::vector<Obstacle> lossy_parts(const Terms& terms, const std::array<TermId, 4>& out);

/// Adds it unless the same part is there.
void add_once(std::vector<Obstacle>& to, Obstacle obstacle);

/// Solves out = given for the channels that came in. What is known spreads: from the result of an operation with one
/// unknown operand to that operand (table.hpp), from its operands to the result; up to three sums of multiples of
/// unknowns are solved together (linear.cpp); one unknown in a formula of its own is found by halving (halving.cpp); a
/// choice that is known is followed both ways. `by_scale`: what `keep luminance` has scaled is scaled back by a number
/// that is looked for; else it is taken to have grown with its input, which is right for a matrix of light.
Solution solve(Terms& terms, const std::array<TermId, 4>& out, const colour::Space& space, bool by_scale = false);

/// Where a number is looked for.
struct Range {
    double low = 0, high = 1;
    bool cyclic = false; ///< a hue: high is the same as low
};
Range range_of(const Terms& terms, TermId what);
/// Stand for the number that is looked for in a formula, and for one that is taken to be known until it is found.
TermId sought(Terms& terms);
TermId taken(Terms& terms);
/// The number in the place of `x` for which the formula gives `value`, as a call of functions that are written for it;
/// nothing if they would be too long.
std::optional<TermId> looked_for(Terms& terms, Functions& functions, TermId formula, TermId x, TermId value,
                                 const Range& range);

/// A colour in the place of `colour` for which the formula gives `value`: what is missing is added again and again. It
/// comes closer where the rule changes colours less than by as much as they are apart (a contraction; S. Banach, 1922).
std::optional<TermId> closed_in_on(Terms& terms, Functions& functions, TermId formula, TermId colour, TermId value);

/// A value as a sum of multiples of unknown floats.
struct Sum {
    std::map<TermId, TermId> factors{}; ///< by the unknown
    TermId constant = 0;
};

/// r, g and b that come out as sums of multiples of r, g and b that come in and a constant, none of which a channel has
/// a part in; nothing if they are no such sums.
std::optional<std::array<Sum, 3>> sums_of(Terms& terms, const std::array<TermId, 4>& out, const colour::Space& space);

/// The state of one attempt.
class Solver {
public:
    Solver(Terms& terms, const colour::Space& space, Functions& functions);

    void learn(TermId id, TermId value);
    /// All that follows from what is known.
    void run();
    /// The expression of a part whose unknowns are all known.
    std::optional<TermId> seen(TermId id);
    bool knows(TermId id) const { return known_.contains(id); }
    /// What is known but not by all of its own parts: equations that are still open.
    std::vector<TermId> open();
    /// The same by single numbers, with the components of colours.
    std::set<TermId> open_floats();

    Terms& t;
    const colour::Space& space;
    std::vector<Obstacle> losses, ranges;
    Functions& functions;
    std::optional<TermId> assumed{}; ///< a number that is taken to be known: what it is made of says nothing

    void look_within(TermId id, const Range& range);

private:
    void follow(TermId id);
    void follow_call(TermId id, TermId value);
    void lose(TermId id, std::string_view what);
    Obstacle obstacle(TermId id, std::string why) const;
    bool solve_sums();
    bool solve_sums(const std::set<TermId>& stops);
    std::vector<TermId> unknown_colours();
    bool solve_by_halving();

    std::map<TermId, TermId> known_;
    std::map<TermId, TermId> seen_;
};

} // namespace kasuri::inverse
