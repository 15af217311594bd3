#pragma once
#include "base/cancel.hpp"

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

namespace kasuri::scopes {

/// Even bins between two values: bin i holds low + i * width up to low + (i + 1) * width, the last one `high` too.
struct Bins {
    double low = 0;
    double high = 1;
    int count = 1;

    double middle(int bin) const { return low + (bin + 0.5) * (high - low) / count; }
};

/// How often values fell into bins, and what fell into none of them.
struct Counts {
    std::vector<std::uint32_t> bins;
    std::uint64_t below = 0, above = 0; ///< infinities too
    std::uint64_t nan = 0;

    Counts() = default;
    explicit Counts(std::size_t bins_of_it) : bins(bins_of_it) {}
    Counts& operator+=(const Counts& other);
    std::uint64_t total() const; ///< everything that was counted, in bins or not
};

/// Histogram: every value counted once. False if called off.
bool count_levels(std::span<const float> values, const Bins& levels, Counts& into, const CancelToken& cancel = {});

/// Waveform: for every column of a picture of `width`, how often each level occurs. Columns of the picture are gathered
/// into `columns` even groups; bins are level by level within a column: column * levels.count + level.
bool count_columns(std::span<const float> values, int width, int columns, const Bins& levels, Counts& into,
                   const CancelToken& cancel = {});

/// Plane: how often pairs fall into each cell: row * across.count + column, rows upwards. Pairs that leave the plane in
/// any direction count as above, pairs with a NaN as nan.
bool count_plane(std::span<const float> x, std::span<const float> y, const Bins& across, const Bins& up, Counts& into,
                 const CancelToken& cancel = {});

} // namespace kasuri::scopes
