#include "scopes/counting.hpp"

#include "base/parallel.hpp"
#include "scopes/finder.hpp"

#include <algorithm>
#include <hwy/cache_control.h>
#include <mutex>
#include <numeric>
#include <thread>

namespace kasuri::scopes {
namespace {

constexpr std::size_t block = 2048; ///< values whose bins are found together
constexpr std::size_t rows_ahead = 4;
constexpr std::size_t band = 256; ///< columns that are counted together; a row of them is found at once

/// Counts pieces on all cores, each into counts of its own, and adds them up: whole numbers, so the order does not
/// matter.
template <class Piece>
bool in_pieces(std::size_t count, std::size_t unit, std::size_t bins, Counts& into, const CancelToken& cancel,
               Piece&& piece) {
    into.bins.resize(bins);
    const std::size_t threads = std::max(1u, std::thread::hardware_concurrency());
    // Large pieces: clearing and adding bins costs more than counting a few values. Some for each core: one may be busy
    // painting.
    const std::size_t worth = 9 * bins / std::max<std::size_t>(1, unit), fair = count / threads + 1;
    const std::size_t grain = std::max(count / (4 * threads) + 1, std::min(worth, fair));
    std::mutex mutex;
    return parallel_ranges(count, grain, cancel,
                           [&](std::size_t first, std::size_t last) {
                               Counts own(bins);
                               piece(first, last, own);
                               const std::lock_guard lock(mutex);
                               into += own;
                           }) &&
        !cancel.cancelled();
}

} // namespace

Counts& Counts::operator+=(const Counts& other) {
    if (bins.size() < other.bins.size())
        bins.resize(other.bins.size());
    for (std::size_t i = 0; i < other.bins.size(); ++i)
        bins[i] += other.bins[i];
    below += other.below;
    above += other.above;
    nan += other.nan;
    return *this;
}

std::uint64_t Counts::total() const { return std::accumulate(bins.begin(), bins.end(), below + above + nan); }

bool count_levels(std::span<const float> values, const Bins& levels, Counts& into, const CancelToken& cancel) {
    const Finder find(levels);
    const auto step = static_cast<std::size_t>(levels.count), slots = step + 3;
    return in_pieces((values.size() + block - 1) / block, block, step, into, cancel,
                     [&](std::size_t first, std::size_t last, Counts& own) {
                         constexpr std::size_t tables =
                             8; // neighbours are mostly alike: each goes to a table of its own and waits for no other
                         std::vector<std::uint32_t> all(tables * slots);
                         std::array<std::int32_t, block> bins;
                         for (std::size_t piece = first; piece < last && !cancel.cancelled(); ++piece) {
                             const std::size_t begin = piece * block, count = std::min(block, values.size() - begin);
                             find(values.data() + begin, count, bins.data());
                             for (std::size_t i = 0; i < count; ++i)
                                 ++all[(i % tables) * slots + static_cast<std::size_t>(bins[i])];
                         }
                         for (std::size_t table = 0; table < tables; ++table) {
                             const std::uint32_t* of = all.data() + table * slots;
                             own.below += of[0];
                             for (std::size_t i = 0; i < step; ++i)
                                 own.bins[i] += of[i + 1];
                             own.above += of[step + 1];
                             own.nan += of[step + 2];
                         }
                     });
}

bool count_columns(std::span<const float> values, int width, int columns, const Bins& levels, Counts& into,
                   const CancelToken& cancel) {
    const auto across = static_cast<std::size_t>(width), groups = static_cast<std::size_t>(columns),
               step = static_cast<std::size_t>(levels.count);
    const std::size_t slots = step + 3; // with those that fall into no bin
    const auto group_of = [&](std::size_t x) { return x * groups / across; };
    const Finder find(levels);
    const std::size_t rows = (values.size() + across - 1) / across;
    return in_pieces(rows, across, groups * step, into, cancel, [&](std::size_t first, std::size_t last, Counts& own) {
        std::array<std::int32_t, block> bins;
        // Down a band of columns at a time, whose counts stay close at hand. Neighbours are mostly alike: counting them
        // one after the other would wait for the count before, so the band is gone through group by group.
        for (std::size_t left = 0; left < across; left += band) {
            const std::size_t right = std::min(across, left + band), first_group = group_of(left),
                              of_band = group_of(right - 1) - first_group + 1;
            std::vector<std::uint32_t> all(of_band * slots), order, start;
            std::vector<std::size_t> seen(of_band);
            std::vector<std::array<std::size_t, 2>> sorted; // which in its group, which column
            for (std::size_t x = left; x < right; ++x)
                sorted.push_back({seen[group_of(x) - first_group]++, x});
            std::sort(sorted.begin(), sorted.end());
            for (const auto& [place, x] : sorted) {
                order.push_back(static_cast<std::uint32_t>(x - left));
                start.push_back(static_cast<std::uint32_t>((group_of(x) - first_group) * slots));
            }
            for (std::size_t row = first; row < last && !cancel.cancelled(); ++row) {
                const std::size_t at = row * across + left;
                if (at >= values.size())
                    break;
                const std::size_t count = std::min(right - left, values.size() - at);
                // The next rows of the band lie in other pages, where the processor does not look ahead by itself.
                if (const std::size_t ahead = at + rows_ahead * across; ahead + count <= values.size())
                    for (std::size_t i = 0; i < count; i += 16)
                        hwy::Prefetch(values.data() + ahead + i);
                find(values.data() + at, count, bins.data());
                if (count == order.size())
                    for (std::size_t i = 0; i < count; ++i)
                        ++all[start[i] + static_cast<std::size_t>(bins[order[i]])];
                else // the end of a row that is not whole
                    for (std::size_t i = 0; i < order.size(); ++i)
                        if (order[i] < count)
                            ++all[start[i] + static_cast<std::size_t>(bins[order[i]])];
            }
            for (std::size_t group = 0; group < of_band; ++group) {
                const std::uint32_t* of = all.data() + group * slots;
                std::uint32_t* to = own.bins.data() + (first_group + group) * step;
                own.below += of[0];
                for (std::size_t i = 0; i < step; ++i) // a group may lie in two bands
                    to[i] += of[i + 1];
                own.above += of[step + 1];
                own.nan += of[step + 2];
            }
        }
    });
}

bool count_plane(std::span<const float> x, std::span<const float> y, const Bins& across, const Bins& up, Counts& into,
                 const CancelToken& cancel) {
    const Finder find_x(across), find_y(up);
    const auto columns = static_cast<std::size_t>(across.count), rows = static_cast<std::size_t>(up.count);
    const std::size_t blocks = (x.size() + block - 1) / block;
    return in_pieces(blocks, block, columns * rows, into, cancel,
                     [&](std::size_t first, std::size_t last, Counts& own) {
                         // A rim of cells takes what leaves the plane, so that counting has no branches.
                         const std::size_t wide = columns + 3;
                         std::vector<std::uint32_t> all(wide * (rows + 3));
                         std::array<std::int32_t, block> at_x, at_y;
                         for (std::size_t piece = first; piece < last && !cancel.cancelled(); ++piece) {
                             const std::size_t begin = piece * block, count = std::min(block, x.size() - begin);
                             find_x(x.data() + begin, count, at_x.data());
                             find_y(y.data() + begin, count, at_y.data());
                             for (std::size_t i = 0; i < count; ++i)
                                 ++all[static_cast<std::size_t>(at_y[i]) * wide + static_cast<std::size_t>(at_x[i])];
                         }
                         for (std::size_t row = 0; row < rows + 3; ++row)
                             for (std::size_t column = 0; column < wide; ++column) {
                                 const std::uint32_t found = all[row * wide + column];
                                 if (row == rows + 2 || column == columns + 2)
                                     own.nan += found;
                                 else if (row == 0 || row == rows + 1 || column == 0 || column == columns + 1)
                                     own.above += found;
                                 else
                                     own.bins[(row - 1) * columns + column - 1] += found;
                             }
                     });
}

} // namespace kasuri::scopes
