#include "insight/hold_sum.hpp"
#include "insight/solve.hpp"
#include "support/support.hpp"

#include <cmath>
#include <random>

using namespace kasuri::insight;

namespace {
constexpr std::array<double, 3> bt709 = {0.2126, 0.7152, 0.0722}; // ITU-R BT.709-6, item 3.2

double kept(const Affine& map, std::size_t column) {
    double sum = 0;
    for (std::size_t row = 0; row < 3; ++row)
        sum += bt709[row] * map.matrix[row][column];
    return sum;
}
} // namespace

TEST_CASE("three wishes that a matrix can meet are met, by the numbers of the inverse", "[insight]") {
    // The wishes are the columns of the matrix, at the primaries.
    const std::vector<Wish> wishes = {
        {{1, 0, 0}, {0.5, 0.25, 0}}, {{0, 1, 0}, {0, 1, 0.125}}, {{0, 0, 1}, {0.25, 0, 1}}};
    const Solved solved = solve(wishes);
    const Affine wanted{{{{0.5, 0, 0.25}, {0.25, 1, 0}, {0, 0.125, 1}}}, {}};
    for (std::size_t row = 0; row < 3; ++row)
        for (std::size_t i = 0; i < 3; ++i)
            CHECK(solved.map.matrix[row][i] == Approx(wanted.matrix[row][i]).margin(1e-12));
    CHECK(solved.largest < 1e-12);
    CHECK(solved.map.offset == std::array<double, 3>{});
}

TEST_CASE("many wishes are met in the least squares, as the normal equations say", "[insight]") {
    // One channel of r, s wishes r -> k r with two wishes that differ: 1 -> 2 and 2 -> 3. Least squares by hand: (1*2 +
    // 2*3) / (1 + 4) = 1.6.
    const Solved solved = solve(std::vector<Wish>{{{1, 0, 0}, {2, 0, 0}}, {{2, 0, 0}, {3, 0, 0}}});
    CHECK(solved.map.matrix[0][0] == Approx(1.6));
    CHECK(solved.residuals[0] == Approx(0.4));
    CHECK(solved.residuals[1] == Approx(0.2));
    CHECK(solved.rms == Approx(std::sqrt((0.16 + 0.04) / 2)));
    // What nobody wished for stays: g and b as they were.
    CHECK(solved.map.matrix[1] == std::array<double, 3>{0, 1, 0});
    CHECK(solved.map.matrix[0][1] == Approx(0).margin(1e-12));
    CHECK(solve({}).map.is_identity());
}

TEST_CASE("what is demanded holds exactly, whatever is wished", "[insight]") {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> number(0, 1);
    for (int round = 0; round < 30; ++round) {
        std::vector<Wish> wishes(static_cast<std::size_t>(1 + round));
        for (Wish& wish : wishes)
            for (std::size_t c = 0; c < 3; ++c) {
                wish.from[c] = number(random);
                wish.to[c] = number(random);
            }
        const Solved free = solve(wishes), rows = solve(wishes, {false, true, {}}),
                     both = solve(wishes, {false, true, bt709}), moved = solve(wishes, {true, false, {}});
        for (const double sum : rows.map.row_sums())
            CHECK(sum == Approx(1).margin(1e-10));
        for (std::size_t c = 0; c < 3; ++c) {
            CHECK(both.map.row_sums()[c] == Approx(1).margin(1e-10));
            CHECK(kept(both.map, c) == Approx(bt709[c]).margin(1e-10));
        }
        // More freedom is never worse, and no small step away is better.
        CHECK(free.rms <= rows.rms + 1e-12);
        CHECK(rows.rms <= both.rms + 1e-12);
        CHECK(moved.rms <= free.rms + 1e-12);
        Affine other = free.map;
        other.matrix[static_cast<std::size_t>(round % 3)][1] += 1e-3;
        double squares = 0;
        for (const Wish& wish : wishes) {
            const auto made = other(wish.from);
            for (std::size_t c = 0; c < 3; ++c)
                squares += (made[c] - wish.to[c]) * (made[c] - wish.to[c]);
        }
        CHECK(std::sqrt(squares / static_cast<double>(wishes.size())) >= free.rms - 1e-12);
    }
}

TEST_CASE("a row keeps its sum in the way that was chosen", "[insight]") {
    const auto changed = [](std::size_t how, MixRow row, std::size_t own, std::size_t edited, double value) {
        return sum_holds()[how].changed(row, own, edited, value);
    };
    const MixRow row = {0.5, 0.25, 0.25};
    // By hand, for the row of output r whose weight of g becomes 0.75.
    CHECK(changed(0, row, 0, 1, 0.75) == MixRow{0.5, 0.75, 0.25});
    CHECK(changed(1, row, 0, 1, 0.75) == MixRow{0.25, 0.75, 0});
    CHECK(changed(2, row, 0, 1, 0.75) == MixRow{0, 0.75, 0.25});
    CHECK(changed(3, row, 0, 1, 0.75) == MixRow{0.5, 0.75, -0.25});
    CHECK(changed(4, row, 0, 1, 1.25) == MixRow{0.25, 0.625, 0.125});
    CHECK(changed(4, {0, 0, 0}, 0, 1, 0) == MixRow{0, 0, 0});
    for (std::size_t how = 1; how < 4; ++how)
        for (std::size_t own = 0; own < 3; ++own)
            for (std::size_t edited = 0; edited < 3; ++edited) {
                const MixRow after = changed(how, {0.3, 0.9, -0.4}, own, edited, 0.7);
                CHECK(after[edited] == 0.7);
                CHECK(after[0] + after[1] + after[2] == Approx(0.8));
            }
}
