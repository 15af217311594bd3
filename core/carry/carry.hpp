#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "document/look_file.hpp"

#include <array>
#include <functional>
#include <string>
#include <string_view>

namespace kasuri::carry {

struct Options {
    /// What the `equals` line calls the rule; empty: there is no such line.
    std::string file{};
    /// What the rule's own `use` reads.
    std::function<Result<std::string>(const std::string&)> open{};
};

/// A rule in another space.
struct Carried {
    std::string text{};
    bool matrix = false; ///< it was found to be one, and is written so
    /// Measured on that text, against what it came from, at the defaults: the largest difference of a channel in the
    /// new space, relative above 1, on 4096 colours from 0 to 1 and 4913 from -1 to 16 of it, as far as they are from
    /// -1 to 16 in the old one.
    double largest = 0;
    std::array<double, 3> at{};
    std::size_t colours = 0; ///< how many those are
};

/// The rule, whose text is given, for the working space `to`. Parameters, presets, functions and sources stay as they
/// are written; of its proofs those stay that say the same of any numbers and hold in the new ones, measured; the
/// others, which speak of the old numbers, go; and a proof that it equals its source comes. Errors: a fault in the
/// rule, no such space, a space of a config (it has no functions of its own).
Result<Carried> carried(std::string_view text, std::string_view to, const Options& options = {});

struct CarriedLook {
    document::Look look{};
    double largest = 0; ///< of the whole look, as above; the old space is that of its first step
    std::array<double, 3> at{};
    std::size_t colours = 0;
};

/// Every step for the working space `to`; opacity, blend mode and mask become statements of its rule, for they worked
/// on the old numbers. The error names the step.
Result<CarriedLook> carried(const document::Look& look, const std::filesystem::path& folder, std::string_view to);

} // namespace kasuri::carry
