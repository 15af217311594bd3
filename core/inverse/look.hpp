#pragma once
#include "document/look_file.hpp"
#include "inverse/invert.hpp"

namespace kasuri::inverse {

/// What became of one step.
struct StepBack {
    std::size_t step = 0; ///< of the look, from 0
    std::string label{};  ///< of it, or its number
    std::string text{};   ///< its rule with how it was laid over, of which `back` speaks
    Back back{};
    std::string fault{}; ///< why nothing was tried: it is a LUT, it reads earlier steps, its rule has a fault
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
                        const CancelToken& cancel = {});

} // namespace kasuri::inverse
