#include "scopes/counting.hpp"

#include <algorithm>
#include <array>
#include <hwy/cache_control.h>
#include <numeric>

namespace kasuri::scopes {
namespace {

constexpr std::size_t block = 2048; ///< values whose bins are found together
constexpr std::size_t rows_ahead = 4;
constexpr std::size_t widest_stripe = 256; ///< columns that are counted together; a row of them is found at once

/// Neighbours are mostly alike: each goes to a table of its own and waits for no other.
constexpr std::size_t level_tables = 8;

std::size_t slots_of(const Bins& bins) { return static_cast<std::size_t>(bins.count) + 3; } // with those outside

/// Adds a table of slots to counts, its bins to those from `first` on.
void add(const std::uint32_t* table, std::size_t slots, Counts& into, std::size_t first) {
    const std::size_t bins = slots - 3;
    into.below += table[0];
    for (std::size_t i = 0; i < bins; ++i)
        into.bins[first + i] += table[i + 1];
    into.above += table[bins + 1];
    into.nan += table[bins + 2];
}

} // namespace

std::uint64_t Counts::total() const { return std::accumulate(bins.begin(), bins.end(), below + above + nan); }

LevelCounter::LevelCounter(const Bins& levels)
    : find_(levels), slots_(slots_of(levels)), tables_(level_tables * slots_) {}

void LevelCounter::add(std::span<const float> values) {
    std::array<std::int32_t, block> bins;
    for (std::size_t begin = 0; begin < values.size(); begin += block) {
        const std::size_t count = std::min(block, values.size() - begin);
        find_(values.data() + begin, count, bins.data());
        for (std::size_t i = 0; i < count; ++i)
            ++tables_[(i % level_tables) * slots_ + static_cast<std::size_t>(bins[i])];
    }
}

void LevelCounter::tell(Counts& into) const {
    into.bins.resize(std::max(into.bins.size(), slots_ - 3));
    for (std::size_t table = 0; table < level_tables; ++table)
        scopes::add(tables_.data() + table * slots_, slots_, into, 0);
}

ColumnCounter::ColumnCounter(int width, int columns, const Bins& levels)
    : find_(levels), width_(static_cast<std::size_t>(width)), groups_(static_cast<std::size_t>(columns)),
      slots_(slots_of(levels)), tables_(groups_ * slots_) {
    const auto group_of = [&](std::size_t x) { return x * groups_ / width_; };
    // Counting neighbours one after the other would wait for the count before, so a stripe is gone through group by
    // group.
    for (std::size_t left = 0; left < width_; left += widest_stripe) {
        Stripe stripe{left, std::min(width_, left + widest_stripe), {}, {}};
        std::vector<std::size_t> seen(group_of(stripe.right - 1) - group_of(left) + 1);
        std::vector<std::array<std::size_t, 2>> sorted; // which in its group, which column
        for (std::size_t x = left; x < stripe.right; ++x)
            sorted.push_back({seen[group_of(x) - group_of(left)]++, x});
        std::sort(sorted.begin(), sorted.end());
        for (const auto& [place, x] : sorted) {
            stripe.order.push_back(static_cast<std::uint32_t>(x - left));
            stripe.start.push_back(static_cast<std::uint32_t>(group_of(x) * slots_));
        }
        stripes_.push_back(std::move(stripe));
    }
}

void ColumnCounter::add(std::span<const float> rows) {
    std::array<std::int32_t, block> bins;
    const std::size_t height = rows.size() / width_;
    std::uint32_t* const tables = tables_.data();
    for (const Stripe& stripe : stripes_) {
        const std::size_t count = stripe.right - stripe.left;
        const std::uint32_t *const order = stripe.order.data(), *const start = stripe.start.data();
        for (std::size_t row = 0; row < height; ++row) {
            const float* const values = rows.data() + row * width_ + stripe.left;
            // The next rows of the stripe lie in other pages, where the processor does not look ahead by itself.
            if (row + rows_ahead < height)
                for (std::size_t i = 0; i < count; i += 16)
                    hwy::Prefetch(values + rows_ahead * width_ + i);
            find_(values, count, bins.data());
            for (std::size_t i = 0; i < count; ++i)
                ++tables[start[i] + static_cast<std::size_t>(bins[order[i]])];
        }
    }
}

void ColumnCounter::tell(Counts& into) const {
    const std::size_t levels = slots_ - 3;
    into.bins.resize(std::max(into.bins.size(), groups_ * levels));
    for (std::size_t group = 0; group < groups_; ++group)
        scopes::add(tables_.data() + group * slots_, slots_, into, group * levels);
}

// A rim of cells takes what leaves the plane, so that counting has no branches.
PlaneCounter::PlaneCounter(const Bins& across, const Bins& up)
    : find_x_(across), find_y_(up), columns_(static_cast<std::size_t>(across.count)),
      rows_(static_cast<std::size_t>(up.count)), cells_((columns_ + 3) * (rows_ + 3)) {}

void PlaneCounter::add(std::span<const float> x, std::span<const float> y) {
    const std::size_t wide = columns_ + 3;
    std::array<std::int32_t, block> at_x, at_y;
    for (std::size_t begin = 0; begin < x.size(); begin += block) {
        const std::size_t count = std::min(block, x.size() - begin);
        find_x_(x.data() + begin, count, at_x.data());
        find_y_(y.data() + begin, count, at_y.data());
        for (std::size_t i = 0; i < count; ++i)
            ++cells_[static_cast<std::size_t>(at_y[i]) * wide + static_cast<std::size_t>(at_x[i])];
    }
}

void PlaneCounter::tell(Counts& into) const {
    const std::size_t wide = columns_ + 3;
    into.bins.resize(std::max(into.bins.size(), columns_ * rows_));
    for (std::size_t row = 0; row < rows_ + 3; ++row)
        for (std::size_t column = 0; column < wide; ++column) {
            const std::uint32_t found = cells_[row * wide + column];
            if (row == rows_ + 2 || column == columns_ + 2)
                into.nan += found;
            else if (row == 0 || row == rows_ + 1 || column == 0 || column == columns_ + 1)
                into.above += found;
            else
                into.bins[(row - 1) * columns_ + column - 1] += found;
        }
}

} // namespace kasuri::scopes
