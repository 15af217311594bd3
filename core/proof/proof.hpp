#pragma once
#include "base/cancel.hpp"
#include "engine/program.hpp"
#include "handover/subject.hpp"
#include "image/image.hpp"
#include "lang/rule.hpp"

#include <array>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::proof {

/// The worst case that a proof met.
struct Place {
    std::string target; ///< name of a target, or "lattice"
    int index = 0;      ///< pixel of it
    int count = 0;      ///< how many pixels it was measured on
    std::array<float, 4> before{};
    std::array<float, 4> after{};
};

/// What a proof function found for one set of values. A NaN anywhere makes the figure infinite.
struct Measurement {
    double figure = 0;
    Place worst;
    std::size_t samples = 0;
};

/// What a proof function is given.
struct Subject {
    const lang::Rule& rule;
    const engine::Program& program; ///< of four outputs, in the rule's working space
    std::vector<double> values;     ///< of the parameters
    CancelToken cancel;
    const lang::Rule* other = nullptr;         ///< of functions that compare
    engine::ProgramPtr* slopes_kept = nullptr; ///< where `slopes` keeps it for further sets of values
    const handover::Subject* look = nullptr;   ///< if the statements are about a look: it, at its values. Then `rule`
                                               ///< changes nothing and `values` are empty

    /// What algebra is asked about.
    insight::Formula formula() const;

    /// The program of the rule's Jacobian, made when it is asked for.
    engine::ProgramPtr slopes() const;
};

/// One row: a statement about rules that can be measured.
struct Function {
    std::string_view name;  ///< in the language: neutral
    std::string_view title; ///< when a rule says no title: greys stay grey
    std::string_view doc;
    double limit;                                          ///< when a rule says none; passed if figure <= limit
    bool at_defaults;                                      ///< measured at the defaults only
    std::optional<Measurement> (*measure)(const Subject&); ///< nothing if cancelled
    bool usual = false;                                    ///< stands in for the proofs of a rule that has none
    /// Whether it is certain for every finite colour, by algebra (insight/algebra), in exact arithmetic: for the
    /// values, and where they play no part for all of them. Null: it can only be measured.
    bool (*shown)(const Subject&) = nullptr;
    bool compares = false; ///< with another filter, whose name stands behind
};

std::span<const Function* const> functions();
const Function* find(std::string_view name);

/// The builtin vocabulary together with the names of the proof functions.
const lang::Vocabulary& vocabulary();

/// A checked statement.
struct Outcome {
    std::string title;
    std::string function; ///< empty: a condition written in the rule
    double figure = 0;
    double limit = 0;
    std::string relation = "<="; ///< how figure and limit stand when it passes
    std::string doc;             ///< what was measured
    bool passed = false;
    bool proved = false; ///< certain for all colours; what was measured is rounding alone
    Place worst;
    std::vector<double> values; ///< the parameter values of the worst case
    std::size_t samples = 0;
    int settings = 0;     ///< at how many sets of values
    bool of_look = false; ///< as a whole
    std::string space{};  ///< of the numbers of the worst place
};

/// The rule's own proof lines, or all functions if it has none.
std::vector<lang::ProofLine> lines_of(const lang::Rule& rule);

/// Defaults, every preset, each parameter at either end (a choice at every option), all low, all high: without repeats.
std::vector<std::vector<double>> settings_of(const lang::Rule& rule);

/// Measures one line (about `rule`, or about `look` if there is one) over the given sets of values (those that go by
/// defaults: over the defaults alone).
std::optional<Outcome> check(const lang::Rule& rule, const engine::Program& program, const lang::ProofLine& line,
                             std::span<const std::vector<double>> settings, const CancelToken& cancel = {},
                             const handover::Subject* look = nullptr);

/// A condition written in the rule: true for every pixel of its target (the lattice where none is named)? Where it
/// compares two numbers, figure and limit are those of the pixel that comes closest to breaking it or breaks it
/// most; otherwise the figure counts the pixels where it is false.
std::optional<Outcome> check_condition(const lang::Rule& rule, const lang::ProofLine& line,
                                       std::span<const std::vector<double>> settings, const CancelToken& cancel,
                                       const handover::Subject* look = nullptr);

/// What stands between figure and limit when a proof fails.
std::string opposite(const std::string& relation);

/// One line for people: "pass  greys stay grey  2.4e-08 <= 0.0001".
std::string report(const lang::Rule& rule, const Outcome& outcome);

} // namespace kasuri::proof
