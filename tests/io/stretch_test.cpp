#include "io/stretch.hpp"

#include <catch2/catch.hpp>

using namespace kasuri;

TEST_CASE("stretching keeps values between their neighbours, single channels single, and sizes that fit as they are",
          "[io]") {
    const image::Picture small = image::generated(4, 2, [](int x, int y) {
        return std::array<double, 3>{x * 1.0, y * 1.0, 7.0};
    });
    const image::Picture large = io::stretched(small, 16, 8);
    CHECK(large.width == 16);
    CHECK(large.height == 8);
    CHECK_FALSE(large.planes[3]);
    for (int x = 0; x + 1 < 16; ++x)
        CHECK(large.at(x, 3)[0] <= large.at(x + 1, 3)[0] + 1e-6f);
    for (int x = 2; x < 14;
         ++x) // linear between the middles of the pixels: pixel x of 16 stands at (x + 0.5) / 4 - 0.5 of 4
        CHECK(large.at(x, 4)[0] == Approx((x + 0.5) / 4 - 0.5).margin(1e-5));
    CHECK(large.at(0, 0)[0] == Approx(0).margin(1e-6));
    CHECK(large.at(15, 7)[0] == Approx(3));
    CHECK(large.at(9, 5)[2] == Approx(7));
    const image::Picture back = io::stretched(large, 4, 2);
    CHECK(back.at(1, 0)[0] == Approx(1).margin(0.2));
    image::Picture single = small;
    single.planes[1] = single.planes[2] = single.planes[0];
    const image::Picture wide = io::stretched(single, 8, 2);
    CHECK(wide.planes[1] == wide.planes[0]);
    CHECK(wide.planes[2] == wide.planes[0]);
    CHECK(io::stretched(small, 4, 2).planes[0] == small.planes[0]);
}
