// How far two pictures are apart for the eye, against the published pairs of CIEDE2000.
#include "colour/models/models.hpp"
#include "readings/apart.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

/// Pictures whose pixels have these L*, a*, b*, in linear BT.709.
image::Picture of_lab(const std::vector<colour::Triple>& pixels) {
    const colour::Space& space = *colour::find_space("rec709-linear");
    image::Picture picture = image::generated(static_cast<int>(pixels.size()), 1, [&](int x, int) {
        const colour::Triple c = to_rgb(colour::lab_model, space, pixels[static_cast<std::size_t>(x)]);
        return std::array<double, 3>{c[0], c[1], c[2]};
    });
    picture.space = "rec709-linear";
    return picture;
}

} // namespace

TEST_CASE("mean and largest are those of the published pairs", "[readings][difference]") {
    // G. Sharma, W. Wu, E. N. Dalal 2005, table 1.
    std::vector<colour::Triple> first, second;
    double sum = 0, largest = 0;
    for (const auto& row : reference_table("ciede2000-pairs.csv")) {
        first.push_back({row[0], row[1], row[2]});
        second.push_back({row[3], row[4], row[5]});
        sum += row[6];
        largest = std::max(largest, row[6]);
    }
    REQUIRE(first.size() == 34);
    const auto apart = readings::seen_apart(of_lab(first), of_lab(second));
    REQUIRE(apart);
    CHECK(apart->pixels == 34);
    CHECK(apart->mean == Approx(sum / 34).epsilon(1e-3));
    CHECK(apart->largest == Approx(largest).epsilon(1e-3));
    CHECK(apart->most == Approx(apart->largest)); // of 34 values
    // Either way round, and none from itself.
    CHECK(readings::seen_apart(of_lab(second), of_lab(first))->mean == Approx(apart->mean).epsilon(1e-4));
    CHECK(readings::seen_apart(of_lab(first), of_lab(first))->largest < 1e-5); // rounding of floats
}

TEST_CASE("pictures in two spaces are compared as colours, not as numbers", "[readings][difference]") {
    image::Picture linear = image::generated(16, 1, [](int x, int) {
        const double v = x / 15.0;
        return std::array<double, 3>{v, 0.5 * v, 0.25};
    });
    linear.space = "rec709-linear";
    image::Picture encoded = image::generated(16, 1, [](int x, int) {
        const double v = x / 15.0;
        return std::array<double, 3>{colour::srgb_encode(v), colour::srgb_encode(0.5 * v), colour::srgb_encode(0.25)};
    });
    encoded.space = "srgb";
    CHECK(readings::seen_apart(linear, encoded)->largest < 0.01);
    encoded.space = "rec709-linear";
    CHECK(readings::seen_apart(linear, encoded)->mean > 5);
}

TEST_CASE("what is no number counts for nothing, and what cannot be compared is not", "[readings][difference]") {
    const double nan = std::numeric_limits<double>::quiet_NaN();
    const auto row = [](std::vector<double> values) {
        image::Picture made = image::generated(static_cast<int>(values.size()), 1, [&](int x, int) {
            const double v = values[static_cast<std::size_t>(x)];
            return std::array<double, 3>{v, v, v};
        });
        made.space = "rec709-linear";
        return made;
    };
    const auto apart = readings::seen_apart(row({0.2, nan, 0.5}), row({0.2, 0.5, 0.5}));
    REQUIRE(apart);
    CHECK(apart->pixels == 2);
    CHECK(apart->largest < 1e-5);
    CHECK_FALSE(readings::seen_apart(row({nan}), row({nan})));
    CHECK_FALSE(readings::seen_apart(row({0.1, 0.2}), row({0.1})));
    const CancelToken off;
    off.cancel();
    CHECK_FALSE(readings::seen_apart(row({0.1}), row({0.2}), off));
    // L* of black and white is 100 apart, and so is CIEDE2000 there (CIE 15:2018: SL is 1 + 0.015 * 0 at the middle, L*
    // 50).
    CHECK(readings::seen_apart(row({0}), row({1}))->mean == Approx(100).epsilon(1e-3));
}
