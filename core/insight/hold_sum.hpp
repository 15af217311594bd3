#pragma once
#include <array>
#include <span>
#include <string_view>

namespace kasuri::insight {

using MixRow = std::array<double, 3>; ///< weights of r, g, b in one output channel

/// One way for a row of weights to keep its sum while one of them is changed.
struct SumHold {
    std::string_view name;
    std::string_view doc;
    /// `row` with weight `edited` made `value`; `own` is the output's own channel.
    MixRow (*changed)(MixRow row, std::size_t own, std::size_t edited, double value);
};

/// free, shared, own, other, divided: in this order.
std::span<const SumHold> sum_holds();

} // namespace kasuri::insight
