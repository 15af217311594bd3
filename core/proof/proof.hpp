#pragma once
#include "base/cancel.hpp"
#include "engine/program.hpp"
#include "image/image.hpp"
#include "insight/bounds.hpp"
#include "lang/rule.hpp"
#include "subject/further.hpp"

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
struct Task {
    const subject::Subject& subject; ///< at the values that are measured
    std::vector<double> usual;       ///< the values at which it is as it was meant: a rule's defaults
    const engine::Program& program;  ///< of four outputs, between its spaces
    CancelToken cancel;
    std::size_t variation = 0;                        ///< of further pictures (subject/further.hpp),
    std::span<const float> sources{};                 ///< and what they are then
    const lang::Rule* other = nullptr;                ///< of functions that compare
    std::span<const std::array<double, 3>> colours{}; ///< of functions of colours, in what the subject takes
    engine::ProgramPtr* slopes_kept = nullptr;        ///< where `slopes` keeps it for further sets of values

    /// The program of the subject's Jacobian, made when it is asked for.
    engine::ProgramPtr slopes() const;
    /// What the subject makes of a picture; nothing if cancelled.
    std::optional<image::Picture> applied(const image::Picture& picture) const;
};

/// One row: a statement about rules that can be measured.
struct Function {
    std::string_view name;  ///< in the language: neutral
    std::string_view title; ///< when a rule says no title: greys stay grey
    std::string_view doc;
    double limit;                                       ///< when a rule says none; passed if figure <= limit
    bool at_defaults;                                   ///< measured at the defaults only
    std::optional<Measurement> (*measure)(const Task&); ///< nothing if cancelled
    bool usual = false;                                 ///< offered to a rule that promises nothing
    /// Whether it is certain for every finite colour, by algebra (insight/algebra), in exact arithmetic: for the
    /// values, and where they play no part for all of them. Null: it can only be measured.
    bool (*shown)(const Task&) = nullptr;
    bool compares = false; ///< with another filter, whose name stands behind
    /// It is measured on the colours behind `on`, and its figure is the better the larger it is.
    bool of_colours = false;
    /// Whether interval arithmetic keeps the figure at or below `limit` for every colour of the cube or the ramp that
    /// `doc` names, not only those that are measured. Null: it cannot be asked.
    bool (*bounded)(const insight::Bounds& of, double limit) = nullptr;
};

/// All proof functions; by name: null if there is none.
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
    bool proved = false; ///< it passed, and is certain for all colours; what was measured is rounding alone
    /// Algebra shows it wherever the rule gives numbers at all. If it did not pass, what was measured is no number.
    bool shown = false;
    bool bounded = false;        ///< it passed, and interval arithmetic bounds it for every colour that `doc` names,
    bool bounded_values = false; ///< and for every value of every parameter
    Place worst;
    std::vector<double> values; ///< the parameter values of the worst case
    std::string at;             ///< the same with names, and what further pictures were: "meet = 1, matte = 0.5"
    std::size_t samples = 0;
    int settings = 0;                  ///< at how many sets of values
    std::vector<std::string> varied{}; ///< further pictures that were taken to be this and that: there is none
    int variations = 1;                ///< how many things they were taken to be
    bool of_look = false;              ///< as a whole
    bool offered = false;              ///< nobody promised it: whether it holds is told, and judges nothing
    std::string space{};               ///< of the numbers of the worst place
};

/// The rule's own proof lines, or those that are offered if it has none.
std::vector<lang::ProofLine> lines_of(const lang::Rule& rule);

/// Defaults, every preset, each parameter at either end (a choice at every option), all low, all high: without repeats.
std::vector<std::vector<double>> settings_of(const lang::Rule& rule);

/// Measures one line over the given sets of values (those that go by defaults: over the defaults alone) and over
/// what further pictures are taken to be. `statements`: the rule that the line stands in, where that is not the
/// subject's own; then the subject is measured at its own values. Nothing if cancelled.
std::optional<Outcome> check(const subject::Subject& subject, const lang::ProofLine& line,
                             std::span<const std::vector<double>> settings, const CancelToken& cancel = {},
                             const lang::Rule* statements = nullptr);

/// The same of a condition written in the rule: true for every pixel of its target (the lattice where none is named)?
/// Where it compares two numbers, figure and limit are those of the pixel that comes closest to breaking it or breaks
/// it most; otherwise the figure counts the pixels where it is false.
std::optional<Outcome> check_condition(const subject::Subject& subject, const lang::ProofLine& line,
                                       std::span<const std::vector<double>> settings, const CancelToken& cancel,
                                       const lang::Rule* statements);

/// How an outcome is known, in a few words: "proved; rounding measured: 4913 colours at 3 settings".
std::string how_known(const Outcome& outcome);

/// "meet = 0.5, matte = 1": for the worst place.
std::string settings_text(const subject::Subject& subject, std::span<const double> values,
                          std::span<const float> sources);

/// What stands between figure and limit when a proof fails.
std::string opposite(const std::string& relation);

/// One line for people: "pass  greys stay grey  2.4e-08 <= 0.0001".
std::string report(const Outcome& outcome);

} // namespace kasuri::proof
