#pragma once
#include <cstddef>
#include <cstdint>

namespace kasuri::scopes {

/// Even bins between two values: bin i holds low + i * width up to low + (i + 1) * width, the last one `high` too.
struct Bins {
    double low = 0;
    double high = 1;
    int count = 1;

    double middle(int bin) const { return low + (bin + 0.5) * (high - low) / count; }
};

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
