#pragma once
#include <span>
#include <string_view>
#include <vector>

namespace kasuri {

/// A number that something is made or measured with: its usual value and what it may be.
struct Setting {
    std::string_view name;
    std::string_view doc;
    double value; ///< usual
    double low, high;
    bool whole = false; ///< only whole numbers make sense
    std::span<const std::string_view> choices =
        {}; ///< what the whole numbers from 0 on mean, where they stand for something
};

/// Values of settings, in their order; those that are left out, or NaN, are the usual ones.
using Values = std::span<const double>;

/// All of them: the given values, within their ranges, and the usual ones for the rest.
std::vector<double> completed(std::span<const Setting> settings, Values given);

} // namespace kasuri
