#pragma once
#include "scopes/finder.hpp"

#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

namespace kasuri::scopes {

/// How often values fell into bins, and what fell into none of them.
struct Counts {
    std::vector<std::uint32_t> bins;
    std::uint64_t below = 0, above = 0; ///< infinities too
    std::uint64_t nan = 0;

    Counts() = default;
    explicit Counts(std::size_t bins_of_it) : bins(bins_of_it) {}
    std::uint64_t total() const; ///< everything that was counted, in bins or not
};

/// Histogram: every value counted once. Counters are of one thread: where several count, each has its own, and they
/// tell one after the other, in any order.
class LevelCounter {
public:
    explicit LevelCounter(const Bins& levels);
    void add(std::span<const float> values);
    /// Adds what was counted to `into`.
    void tell(Counts& into) const;

private:
    Finder find_;
    std::size_t slots_;
    std::vector<std::uint32_t> tables_;
};

/// Waveform: for every column of a picture of `width`, how often each level occurs. Columns of the picture are gathered
/// into `columns` even groups; bins are level by level within a group: group * levels.count + level.
class ColumnCounter {
public:
    ColumnCounter(int width, int columns, const Bins& levels);
    /// Whole rows.
    void add(std::span<const float> rows);
    void tell(Counts& into) const;

private:
    /// Columns that are counted together, whose counts stay close at hand.
    struct Stripe {
        std::size_t left, right;
        std::vector<std::uint32_t> order; ///< of its columns
        std::vector<std::uint32_t> start; ///< of the table of each in that order
    };
    Finder find_;
    std::size_t width_, groups_, slots_;
    std::vector<Stripe> stripes_;
    std::vector<std::uint32_t> tables_;
};

/// Plane: how often pairs fall into each cell: row * across.count + column, rows upwards. Pairs that leave the plane in
/// any direction count as above, pairs with a NaN as nan.
class PlaneCounter {
public:
    PlaneCounter(const Bins& across, const Bins& up);
    void add(std::span<const float> x, std::span<const float> y);
    void tell(Counts& into) const;

private:
    Finder find_x_, find_y_;
    std::size_t columns_, rows_;
    std::vector<std::uint32_t> cells_;
};

} // namespace kasuri::scopes
