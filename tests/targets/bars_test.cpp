// Targets whose values are published.
#include "colour/model.hpp"
#include "colour/models/models.hpp"
#include "colour/space.hpp"
#include "support/support.hpp"
#include "targets/target.hpp"

#include <set>

using namespace kasuri;
using namespace kasuri::targets;
using namespace kasuri::test;

namespace {

/// 10-bit narrow-range codes at a place of the picture.
std::array<int, 3> codes(const image::Picture& picture, double across, double down) {
    const auto pixel = picture.at(static_cast<int>(across * picture.width), static_cast<int>(down * picture.height));
    std::array<int, 3> made{};
    for (std::size_t c = 0; c < 3; ++c)
        made[c] = static_cast<int>(std::lround(1023 * static_cast<double>(pixel[c])));
    return made;
}
using Codes = std::array<int, 3>;
constexpr double narrow[] = {1};

} // namespace

TEST_CASE("75 % and 100 % bars have the levels and the order of their standard", "[targets]") {
    // ITU-R BT.471: 100/0/75/0 and 100/0/100/0, descending luma; codes by ITU-R BT.709-6, item 5.6 (64, 940; 75 % is
    // 721).
    const image::Picture low = make(*find("bars_75"), 0, narrow), high = make(*find("bars_100"), 0, narrow);
    const Codes on75[8] = {{940, 940, 940}, {721, 721, 64}, {64, 721, 721}, {64, 721, 64},
                           {721, 64, 721},  {721, 64, 64},  {64, 64, 721},  {64, 64, 64}};
    for (int i = 0; i < 8; ++i) {
        CHECK(codes(low, (i + 0.5) / 8, 0.5) == on75[i]);
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(codes(high, (i + 0.5) / 8, 0.5)[c] == (on75[i][c] == 64 ? 64 : 940));
    }
    // In 8 bits, luma and colour differences of the 100 % bars: handbook table (from memory; ITU-R BT.709 factors).
    const int expected[7][3] = {{235, 128, 128}, {219, 16, 138}, {188, 154, 16}, {173, 42, 26},
                                {78, 214, 230},  {63, 102, 240}, {32, 240, 118}};
    const image::Picture full = make(*find("bars_100"), 0);
    for (int i = 0; i < 7; ++i) {
        const auto pixel = full.at(static_cast<int>((i + 0.5) / 8 * full.width), 10);
        const colour::Triple ycc =
            colour::find_model("ycbcr709")
                ->from({static_cast<double>(pixel[0]), static_cast<double>(pixel[1]), static_cast<double>(pixel[2])});
        CHECK(std::lround(16 + 219 * ycc[0]) == expected[i][0]);
        CHECK(std::lround(128 + 224 * ycc[1]) == expected[i][1]);
        CHECK(std::lround(128 + 224 * ycc[2]) == expected[i][2]);
    }
    CHECK(low.space == "rec709-display");
}

TEST_CASE("the HD bars hold 40 % grey, the extremes at the sides, a ramp and the levels around black", "[targets]") {
    // SMPTE RP 219, 10 bits: 40 % grey 414, 75 % 721, 15 % 195, -2 % 46, +2 % 82, +4 % 99 (layout from memory).
    const image::Picture bars = make(*find("bars_hd"), 1920, narrow);
    CHECK(bars.height == 1080);
    CHECK(codes(bars, 0.06, 0.3) == Codes{414, 414, 414});
    CHECK(codes(bars, 0.125 + 0.75 * 0.5 / 7, 0.3) == Codes{721, 721, 721});
    CHECK(codes(bars, 0.125 + 0.75 * 6.5 / 7, 0.3) == Codes{64, 64, 721});
    CHECK(codes(bars, 0.06, 7.5 / 12) == Codes{64, 940, 940});
    CHECK(codes(bars, 0.94, 7.5 / 12) == Codes{64, 64, 940});
    CHECK(codes(bars, 0.06, 8.5 / 12) == Codes{940, 940, 64});
    CHECK(codes(bars, 0.94, 8.5 / 12) == Codes{940, 64, 64});
    CHECK(codes(bars, 0.94, 0.9) == Codes{195, 195, 195});
    const double black = 0.125 + 0.75 * (1.5 + 2 + 5.0 / 6) / 7, third = 0.75 / 21;
    CHECK(codes(bars, black + 0.5 * third, 0.9)[0] == 46);
    CHECK(codes(bars, black + 1.5 * third, 0.9)[0] == 64);
    CHECK(codes(bars, black + 2.5 * third, 0.9)[0] == 82);
    CHECK(codes(bars, black + 4.5 * third, 0.9)[0] == 99);
    int last = 0; // the ramp never falls
    for (double x = 0.125 + 0.75 / 7 + 0.001; x < 0.125 + 0.75 * 6 / 7; x += 0.002) {
        const int now = codes(bars, x, 8.5 / 12)[1];
        CHECK(now >= last);
        last = now;
    }
    CHECK(last > 930);
}

TEST_CASE("the bars for high dynamic range carry the published codes of BT.709's colours", "[targets]") {
    // ITU-R BT.2111-2, narrow range 10 bits (from memory): yellow, cyan, green, magenta, red, blue of BT.709. The
    // picture computes them from primaries and curves, so that the two confirm each other.
    const Codes hlg[6] = {{713, 719, 316}, {538, 709, 718}, {512, 706, 296},
                          {651, 286, 705}, {639, 269, 164}, {227, 147, 702}};
    const Codes pq[6] = {{568, 571, 381}, {484, 566, 571}, {474, 564, 368},
                         {536, 361, 564}, {530, 350, 256}, {317, 236, 562}};
    const auto check = [&](const char* name, const Codes* expected, int main, int rounding) {
        INFO(name);
        const image::Picture bars = make(*find(name), 1920, narrow);
        CHECK(codes(bars, 0.06, 0.02) == Codes{414, 414, 414});
        CHECK(codes(bars, 0.2, 0.04) == Codes{940, 940, 940});
        CHECK(codes(bars, 0.2, 0.4) == Codes{main, main, main});
        for (int i = 0; i < 6; ++i) {
            const double place = i < 3 ? (i + 0.5) / 24 : 1 - (5.5 - i) / 24;
            const Codes found = codes(bars, place, 0.95);
            for (std::size_t c = 0; c < 3; ++c)
                CHECK(std::abs(found[c] - expected[i][c]) <= rounding);
        }
    };
    check("bars_hlg", hlg, 721, 1);
    check("bars_pq", pq, 572, 1);
}

TEST_CASE("the chart of 1976 has its published chromaticities, seen under D65", "[targets]") {
    const image::Picture chart = make(*find("chart_1976"), 0);
    REQUIRE(chart.pixels() == 24);
    // The sRGB codes in general use (data/reference/chart-1976.csv) lie within a few hundredths for the patches inside
    // the space.
    const auto rows = reference_table("chart-1976.csv");
    for (std::size_t i = 0; i < 24; ++i) {
        if (i == 17) // cyan lies outside
            continue;
        INFO(patch_name(*find("chart_1976"), static_cast<int>(i)));
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(colour::find_transfer("srgb")->encode(static_cast<double>(chart.at(i)[c])) ==
                  Approx(rows[i][3 + c] / 255).margin(0.045));
    }
    CHECK(chart.at(17)[0] < 0);
    for (std::size_t i = 18; i < 24; ++i)
        CHECK(chart.at(i)[0] == Approx(static_cast<double>(chart.at(i)[2])).epsilon(0.02));
}

TEST_CASE("steps, stops and the spectrum are what their names say", "[targets]") {
    const image::Picture wedge = make(*find("step_wedge"), 2100);
    for (int step = 0; step < 21; ++step)
        CHECK(wedge.at(100 * step + 50, 0)[1] == Approx(std::pow(10.0, -0.15 * step)).epsilon(1e-6));
    const image::Picture stops = make(*find("grey_stops"), 1400);
    CHECK(stops.at(1000, 0)[0] / stops.at(900, 0)[0] == Approx(2).epsilon(1e-5));
    const double five[] = {8.0};
    CHECK(make(*find("superbright_ramp"), 1000, five).at(999, 0)[0] == Approx(7.996));
    // A ramp taken for hue with saturation and value 1 is the full spectrum, red to red: common practice, no source.
    const image::Picture spectrum = make(*find("spectrum"), 600);
    CHECK(spectrum.at(0, 0)[0] == 1);
    CHECK(spectrum.at(200, 0)[1] == 1);
    CHECK(spectrum.at(400, 0)[2] == 1);
    CHECK(spectrum.at(599, 0)[0] == 1);
    for (int x = 0; x < 600; ++x)
        CHECK(std::max({spectrum.at(x, 0)[0], spectrum.at(x, 0)[1], spectrum.at(x, 0)[2]}) == 1);
}

TEST_CASE("a flat lattice holds every colour once and is an identity picture", "[targets]") {
    const double five[] = {5};
    const image::Picture flat = make(*find("flat_lattice"), 15, five);
    std::set<std::array<float, 3>> seen;
    for (std::size_t i = 0; i < flat.pixels(); ++i)
        seen.insert({flat.at(i)[0], flat.at(i)[1], flat.at(i)[2]});
    CHECK(seen.size() == 125);
    CHECK(flat.at(1, 2)[0] == 0.25f);
    CHECK(flat.at(1, 2)[1] == 0.5f);
    CHECK(flat.at(6, 2)[2] == 0.25f);
}

TEST_CASE("planes and discs are laid out as documented", "[targets]") {
    const auto hsv = [](const std::array<float, 4>& c) {
        return colour::hsv_model.from(
            {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])});
    };
    const image::Picture plane = make(*find("hue_saturation"), 360);
    CHECK(hsv(plane.at(90, 0))[0] == Approx(90.5).margin(1e-3));
    CHECK(hsv(plane.at(90, plane.height - 1))[1] == Approx(0.5 / plane.height).margin(1e-5));
    const image::Picture polar = make(*find("polar"), 401);
    CHECK(hsv(polar.at(300, 200))[0] == Approx(0).margin(1e-3));  // right
    CHECK(hsv(polar.at(200, 100))[0] == Approx(90).margin(1e-3)); // up
    CHECK(hsv(polar.at(300, 200))[1] == Approx(100 / 200.5));
    const image::Picture radial = make(*find("radial"), 401);
    CHECK(radial.at(200, 200)[0] == 1);
    CHECK(radial.at(0, 0)[0] == 0);
    CHECK(radial.at(300, 200)[1] == Approx(1 - 100 / 200.5));
}

TEST_CASE(
    "the simulated camera: whites balance, exposure doubles, crosstalk keeps greys, noise repeats and has its size",
    "[targets]") {
    const Target& camera = *find("camera_chart");
    const auto with = [&](double exposure, double light, double balance, double crosstalk, double noise, double seed) {
        return make(camera, 640, std::array{exposure, light, balance, crosstalk, noise, seed});
    };
    const image::Picture plain = with(0, 6504, 6504, 0, 0, 1);
    // The middle of patch 22, white, and of patch 19, a grey.
    const auto at = [](const image::Picture& picture, int column, int row) {
        const double edge = 0.06 * picture.height;
        return picture.at(static_cast<int>(edge + (column + 0.5) / 8 * (picture.width - 2 * edge)),
                          static_cast<int>(edge + (row + 0.5) / 3 * (picture.height - 2 * edge)));
    };
    CHECK(at(plain, 6, 2)[0] == Approx(1).margin(2e-3));
    CHECK(at(plain, 6, 2)[2] == Approx(1).margin(2e-3));
    CHECK(at(with(1, 6504, 6504, 0, 0, 1), 3, 2)[1] == Approx(2 * static_cast<double>(at(plain, 3, 2)[1])));
    const auto warm = at(with(0, 4500, 6504, 0, 0, 1), 6, 2), right = at(with(0, 4500, 4500, 0.2, 0, 1), 6, 2);
    CHECK(warm[0] > warm[2] * 1.3f); // the light of 4500 K is redder than the camera believes
    CHECK(right[0] == Approx(1).margin(2e-3));
    CHECK(right[2] == Approx(1).margin(2e-3));
    // Crosstalk draws a dye towards grey.
    CHECK(at(with(0, 6504, 6504, 0.3, 0, 1), 0, 0)[0] < at(plain, 0, 0)[0]);
    const image::Picture noisy = with(0, 6504, 6504, 0, 0.02, 1), again = with(0, 6504, 6504, 0, 0.02, 1),
                         other = with(0, 6504, 6504, 0, 0.02, 2);
    CHECK(*noisy.planes[0] == *again.planes[0]);
    CHECK(*noisy.planes[0] != *other.planes[0]);
    double sum = 0, squares = 0;
    std::size_t count = 0;
    for (std::size_t i = 0; i < noisy.pixels(); ++i) {
        const double light = static_cast<double>(plain.at(i)[1]);
        if (light > 0.1 && light < 0.2) {
            const double by = (static_cast<double>(noisy.at(i)[1]) - light) / (0.02 * std::sqrt(0.02 + light / 0.18));
            sum += by;
            squares += by * by;
            ++count;
        }
    }
    REQUIRE(count > 1000);
    CHECK(sum / static_cast<double>(count) == Approx(0).margin(0.06));
    CHECK(std::sqrt(squares / static_cast<double>(count)) == Approx(1).margin(0.06));
}

TEST_CASE("every target says what it is, and its settings keep to their ranges", "[targets]") {
    for (const Target* target : all()) {
        INFO(target->name);
        CHECK_FALSE(target->title.empty());
        CHECK_FALSE(target->doc.empty());
        CHECK((target->space.empty() || colour::find_space(target->space)));
        std::vector<double> low, high;
        for (const Setting& setting : target->settings) {
            CHECK(setting.low <= setting.value);
            CHECK(setting.value <= setting.high);
            low.push_back(-1e9);
            high.push_back(1e9);
        }
        const bool large = target->name == "flat_lattice"; // 129 levels have two million pixels
        for (const std::vector<double>& set :
             large ? std::vector<std::vector<double>>{low} : std::vector<std::vector<double>>{low, high}) {
            const image::Picture picture = make(*target, 64, set);
            CHECK(picture.pixels() > 0);
            for (std::size_t i = 0; i < picture.pixels(); ++i)
                for (std::size_t c = 0; c < 3; ++c)
                    REQUIRE(std::isfinite(picture.at(i)[c]));
        }
    }
}
