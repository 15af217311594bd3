#pragma once
#include <array>
#include <string_view>
#include <vector>

namespace kasuri::builtins {

/// The graph of a function of numbers over its argument x, its other arguments as in its first worked case: lines of
/// x, y, interrupted where there is no number and where it jumps. `steps` pieces from `low` to `high`. Empty if there
/// is no such function, or it is not of that form.
std::vector<std::vector<std::array<double, 2>>> curve_of(std::string_view name, double low, double high, int steps);

} // namespace kasuri::builtins
