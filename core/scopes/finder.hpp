#pragma once
#include "scopes/counting.hpp"

namespace kasuri::scopes {

/// The bins of values: 0 below, 1 .. count in, count + 1 above, count + 2 NaN. Vector code of whatever the machine has.
class Finder {
public:
    explicit Finder(const Bins& bins)
        : low_(static_cast<float>(bins.low)), high_(static_cast<float>(bins.high)),
          scale_(static_cast<float>(bins.count / (bins.high - bins.low))), count_(bins.count) {}
    /// `found` has room for `count` numbers, rounded up to a multiple of 64.
    void operator()(const float* values, std::size_t count, std::int32_t* found) const;

private:
    float low_, high_, scale_;
    std::int32_t count_;
};

} // namespace kasuri::scopes
