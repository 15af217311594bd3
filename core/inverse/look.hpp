#pragma once
#include "document/look_file.hpp"
#include "inverse/invert.hpp"

namespace kasuri::inverse {

/// A table in the place of a rule: a step that takes off approximately, and what is to be known of it, a line each.
struct TableBack {
    document::LookStep step;
    std::vector<std::string> words{};
};

struct LookOptions {
    /// Makes a table of the way back from one step with how it is laid over; the error says why there is none. Empty:
    /// there are no tables, and a LUT stands in the way.
    std::function<Result<TableBack>(const document::LookStep&, const CancelToken&)> table{};
    /// Also for rules that cannot be solved; else for LUTs alone. Where a step has no table either, one of all steps.
    bool tables_for_rules = false;
    bool whole = true; ///< false: steps of a longer look, by themselves: what they read of earlier ones is not there
};

/// What became of one step.
struct StepBack {
    std::size_t step = 0; ///< of the look, from 0
    std::string label{};  ///< of it, or its number
    std::string text{};   ///< its rule with how it was laid over, of which `back` speaks
    Back back{};
    std::string fault{}; ///< why nothing was tried: it is a LUT, it reads earlier steps, its rule has a fault
    std::vector<std::string> table{}; ///< words of the table that stands for it; empty: there is none
    bool found() const { return back.found || !table.empty(); }
};

/// The way back from a look: a look of its steps' ways back, the last first.
struct LookBack {
    bool found = false;
    document::Look look{};
    std::vector<StepBack> steps{}; ///< in the order of the way back
    /// Measured through both looks, whole: how far a colour from 0 to 1 comes to lie from itself on 4096 colours.
    double largest = 0;
    std::array<double, 3> at{};
};

/// A step's rule with how it is laid over what comes into it, as one rule at the step's values. The error: it is a LUT
/// or a look, its mask grows or is softened.
Result<std::string> as_one_rule(const document::LookStep& step);

/// `folder`: of the look's file. Steps that are off are left out. The error: the look itself cannot be made; it was
/// called off.
Result<LookBack> invert(const document::Look& look, const std::filesystem::path& folder,
                        const LookOptions& options = {}, const CancelToken& cancel = {});

} // namespace kasuri::inverse
