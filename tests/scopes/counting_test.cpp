#include "scopes/counting.hpp"
#include "support/support.hpp"

#include <limits>
#include <random>

using namespace kasuri;
using namespace kasuri::scopes;
using namespace kasuri::test;

namespace {

/// The slow truth, by the definition of bins, in double precision.
int bin_of(double value, const Bins& bins) {
    if (value == bins.high)
        return bins.count - 1;
    return static_cast<int>(std::floor((value - bins.low) / (bins.high - bins.low) * bins.count));
}

std::vector<float> wild(std::size_t count, unsigned seed) {
    std::mt19937 random(seed);
    std::uniform_real_distribution<float> even(-0.5f, 2.0f);
    std::vector<float> values(count);
    for (float& value : values) {
        value = even(random);
        switch (random() % 97) {
        case 0: value = std::numeric_limits<float>::quiet_NaN(); break;
        case 1: value = std::numeric_limits<float>::infinity(); break;
        case 2: value = -std::numeric_limits<float>::infinity(); break;
        case 3: value = 0; break;
        case 4: value = 1; break;
        case 5: value = 1e30f; break;
        default: break;
        }
    }
    return values;
}

/// What a counter tells of values that come in parts.
template <class Counter>
Counts counted_in_parts(Counter counter, std::span<const float> values, std::size_t part) {
    for (std::size_t first = 0; first < values.size(); first += part)
        counter.add(values.subspan(first, std::min(part, values.size() - first)));
    Counts counts;
    counter.tell(counts);
    return counts;
}

} // namespace

TEST_CASE("levels are counted as a slow count counts them, and nothing is lost", "[scopes]") {
    // Powers of two, so that no rounding moves a value across an edge.
    const Bins bins{-0.25, 1.75, 256};
    for (const std::size_t count : {0u, 1u, 7u, 4096u, 100'003u}) {
        const std::vector<float> values = wild(count, 7);
        Counts slow(256);
        const Counts fast = counted_in_parts(LevelCounter(bins), values, 5000);
        for (const float value : values) {
            if (std::isnan(value))
                ++slow.nan;
            else if (static_cast<double>(value) < bins.low)
                ++slow.below;
            else if (static_cast<double>(value) > bins.high)
                ++slow.above;
            else
                ++slow.bins[static_cast<std::size_t>(bin_of(static_cast<double>(value), bins))];
        }
        CHECK(fast.bins == slow.bins);
        CHECK(fast.below == slow.below);
        CHECK(fast.above == slow.above);
        CHECK(fast.nan == slow.nan);
        CHECK(fast.total() == count);
    }
}

TEST_CASE("columns are counted as a slow count counts them, for widths that do not divide", "[scopes]") {
    const Bins bins{0, 1, 64};
    for (const auto [width, height, columns] :
         {std::array{100, 37, 33}, std::array{3001, 5, 480}, std::array{5, 400, 200}, std::array{1, 1, 1}}) {
        const std::vector<float> values = wild(static_cast<std::size_t>(width * height), 11);
        const Counts fast =
            counted_in_parts(ColumnCounter(width, columns, bins), values, 3 * static_cast<std::size_t>(width));
        std::vector<std::uint32_t> slow(static_cast<std::size_t>(columns) * 64);
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) {
                const auto value = static_cast<double>(values[static_cast<std::size_t>(y * width + x)]);
                if (value >= 0 && value <= 1)
                    ++slow[static_cast<std::size_t>(x * columns / width) * 64 +
                           static_cast<std::size_t>(bin_of(value, bins))];
            }
        CHECK(fast.bins == slow);
        CHECK(fast.total() == values.size());
    }
}

TEST_CASE("pairs are counted as a slow count counts them", "[scopes]") {
    const Bins across{-0.5, 1.5, 50}, up{0, 1, 20};
    const std::vector<float> x = wild(20'001, 3), y = wild(20'001, 4);
    PlaneCounter counter(across, up);
    counter.add(std::span(x).first(7000), std::span(y).first(7000));
    counter.add(std::span(x).subspan(7000), std::span(y).subspan(7000));
    Counts fast;
    counter.tell(fast);
    Counts slow(1000);
    for (std::size_t i = 0; i < x.size(); ++i) {
        const auto a = static_cast<double>(x[i]), b = static_cast<double>(y[i]);
        if (std::isnan(a) || std::isnan(b))
            ++slow.nan;
        else if (a < across.low || a > across.high || b < up.low || b > up.high)
            ++slow.above;
        else
            ++slow.bins[static_cast<std::size_t>(bin_of(b, up) * 50 + bin_of(static_cast<double>(x[i]), across))];
    }
    CHECK(fast.nan == slow.nan);
    CHECK(fast.above == slow.above);
    // Widths of bins that are no powers of two: a value within rounding of an edge may fall to either side.
    std::uint64_t moved = 0;
    for (std::size_t i = 0; i < 1000; ++i)
        moved += static_cast<std::uint64_t>(
            std::abs(static_cast<std::int64_t>(fast.bins[i]) - static_cast<std::int64_t>(slow.bins[i])));
    CHECK(moved <= 6);
    CHECK(fast.total() == x.size());
}

TEST_CASE("several counters add up to one", "[scopes]") {
    const std::vector<float> values(1000, 0.5f);
    Counts counts;
    for (int i = 0; i < 2; ++i) {
        LevelCounter counter({0, 1, 4});
        counter.add(values);
        counter.tell(counts);
    }
    CHECK(counts.bins[2] == 2000);
    CHECK(counts.total() == 2000);
}
