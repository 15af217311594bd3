#include "colour/matrix3.hpp"
#include "colour/models/models.hpp"
#include "colour/space.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::colour;
using namespace kasuri::test;

namespace {
Triple lab_of(const Triple& linear) { return from_rgb(lab_model, *find_space("rec709-linear"), linear); }

void check_triple(const Triple& got, const Triple& expected, double within) {
    for (std::size_t i = 0; i < 3; ++i)
        CHECK(got[i] == Approx(expected[i]).margin(within));
}
} // namespace

TEST_CASE("HSV: the corners of Smith's hexcone", "[colour]") {
    // A. R. Smith, Color gamut transform pairs, SIGGRAPH 1978: red at hue 0, then yellow, green, cyan, blue,
    // magenta a sixth of a turn apart; grey has saturation 0; white is the top of the cone.
    struct Corner {
        Triple rgb, hsv;
    };
    const Corner corners[] = {
        {{1, 0, 0}, {0, 1, 1}},
        {{1, 1, 0}, {60, 1, 1}},
        {{0, 1, 0}, {120, 1, 1}},
        {{0, 1, 1}, {180, 1, 1}},
        {{0, 0, 1}, {240, 1, 1}},
        {{1, 0, 1}, {300, 1, 1}},
        {{1, 1, 1}, {0, 0, 1}},
        {{0, 0, 0}, {0, 0, 0}},
        {{0.5, 0.5, 0.5}, {0, 0, 0.5}},
        {{0.5, 0.25, 0.25}, {0, 0.5, 0.5}},
        {{0.25, 0.5, 0.75}, {210, 2.0 / 3, 0.75}},
    };
    for (const Corner& corner : corners) {
        check_triple(hsv_model.from(corner.rgb), corner.hsv, 1e-12);
        check_triple(hsv_model.to(corner.hsv), corner.rgb, 1e-12);
    }
}

TEST_CASE("HSV agrees with another implementation", "[colour]") {
    for (const auto& row : reference_table("hsv-colorsys.csv")) { // Python's colorsys
        const Triple rgb = {row[0], row[1], row[2]}, hsv = {row[3], row[4], row[5]};
        INFO(rgb[0] << " " << rgb[1] << " " << rgb[2]);
        check_triple(hsv_model.from(rgb), hsv, 1e-9);
        const Colour fast =
            run_one("let c = hsv(rgb)\nout = vec4(c.h, c.s, c.v, a)",
                    {static_cast<float>(rgb[0]), static_cast<float>(rgb[1]), static_cast<float>(rgb[2]), 1});
        CHECK(static_cast<double>(fast[0]) == Approx(hsv[0]).margin(5e-5)); // degrees: 1e-5 of a turn's float steps
        CHECK(static_cast<double>(fast[1]) == Approx(hsv[1]).margin(1e-6));
        CHECK(static_cast<double>(fast[2]) == Approx(hsv[2]).margin(1e-6));
    }
}

TEST_CASE("HSV comes back within 1e-6 over [-0.5, 4], in reference and engine", "[colour]") {
    const lang::Rule there_and_back =
        good_rule("param k = 0 in 0 .. 1\nlet c = hsv(rgb)\nc.v *= 1 - k\nout.rgb = rgb(c)");
    const lang::Rule by_angle = good_rule("param k = 0 in -1 .. 1\nlet c = hsv(rgb)\nc.h += 360 * k\nout.rgb = rgb(c)");
    std::mt19937 random(3);
    std::uniform_real_distribution<float> spread(-0.5f, 4);
    std::vector<Colour> colours = {
        {0, -0.5f, -0.2f, 1}, {-0.1f, -0.2f, -0.3f, 1}, {1e-6f, -0.5f, 0, 1}, {0, 0, 0, 1}, {3, 3, 3, 1}};
    for (int i = 0; i < 4000; ++i)
        colours.push_back({spread(random), spread(random), spread(random), 1});
    const auto back = run(there_and_back, colours);
    const auto turned = run(by_angle, colours);
    for (std::size_t i = 0; i < colours.size(); ++i) {
        const Triple rgb = {static_cast<double>(colours[i][0]), static_cast<double>(colours[i][1]),
                            static_cast<double>(colours[i][2])};
        const Triple reference = hsv_model.to(hsv_model.from(rgb));
        INFO(rgb[0] << " " << rgb[1] << " " << rgb[2]);
        for (std::size_t c = 0; c < 3; ++c) {
            CHECK(std::fabs(reference[c] - rgb[c]) < 1e-12);
            CHECK(std::fabs(back[i][c] - colours[i][c]) < 1e-6f);
            CHECK(std::fabs(turned[i][c] - colours[i][c]) < 3e-6f); // the angle itself is rounded to float
        }
    }
    const Colour untouched = run_one("out.rgb = rgb(hsv(rgb))", {0.1f, -0.7f, 0.3f, 1});
    CHECK(untouched == Colour{0.1f, -0.7f, 0.3f, 1}); // known to be the identity: bit for bit
}

TEST_CASE("HSV of NaN is NaN and turns wrap", "[colour]") {
    const Triple lost = hsv_model.from({0, std::nan(""), 1});
    CHECK((std::isnan(lost[0]) && std::isnan(lost[1]) && std::isnan(lost[2])));
    check_triple(hsv_model.to({-60, 1, 1}), {1, 0, 1}, 1e-12);
    check_triple(hsv_model.to({780, 1, 1}), {1, 1, 0}, 1e-12);
    for (const float hue : {-1e-9f, 0.0f, 360.0f, 359.99997f, -360.0f, 719.0f}) {
        const Colour fast = run_one("out.rgb = rgb(hsv(r, 1, 1))", {hue, 0, 0, 1});
        const Triple exact = hsv_model.to({static_cast<double>(hue), 1, 1});
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(static_cast<double>(fast[c]) == Approx(exact[c]).margin(2e-6));
    }
    CHECK(std::isnan(run_one("out.rgb = rgb(hsv(r, 1, 1))", {infinity, 0, 0, 1})[0]));
}

TEST_CASE("a chosen hue is not taken for that of another colour", "[colour]") {
    // hsv of a constant colour has the constant hue 0; setting a hue to 0 must still turn the colour red.
    const Colour red = run_one("let k = hsv(vec3(0.5, 0.5, 0.5))\nlet c = hsv(rgb)\nc.h = k.h\nout.rgb = rgb(c)",
                               {0.2f, 0.9f, 0.4f, 1});
    CHECK(red[0] == Approx(0.9f));
    CHECK(red[1] == Approx(0.2f));
    CHECK(red[2] == Approx(0.2f));
}

TEST_CASE("sRGB: the published constants and their join", "[colour]") {
    // IEC 61966-2-1:1999, clause 5.2: 12.92 below 0.0031308, else 1.055 x^(1/2.4) - 0.055; join 0.04045.
    CHECK(srgb_encode(0.0031308) == Approx(12.92 * 0.0031308).epsilon(1e-12));
    CHECK(srgb_decode(0.04045) == Approx(0.04045 / 12.92).epsilon(1e-12));
    CHECK(srgb_encode(1) == Approx(1).epsilon(1e-12));
    CHECK(srgb_decode(0.5) == Approx(std::pow((0.5 + 0.055) / 1.055, 2.4)).epsilon(1e-12));
    // Middle grey of 18 % is code 118 of 255 (common practice, no source).
    CHECK(std::lround(255 * srgb_encode(0.18)) == 118);
    for (double x = -4; x <= 4; x += 0.01)
        CHECK(srgb_decode(srgb_encode(x)) == Approx(x).margin(1e-12));
    CHECK(srgb_encode(-0.5) == -srgb_encode(0.5));
}

TEST_CASE("BT.709 luminance follows from its primaries and white", "[colour]") {
    // ITU-R BT.709-6, item 3.2 rounds the Y row to four digits.
    const Matrix3 m = rgb_to_xyz(rec709_primaries, d65);
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(m[1][i] == luminance_weights(*find_space("rec709-linear"))[i]);
        CHECK(std::round(m[1][i] * 1e4) / 1e4 == Approx(luma_weights(*find_space("srgb"))[i]).margin(1e-12));
    }
    check_triple(m * Triple{1, 1, 1}, {0.3127 / 0.3290, 1, (1 - 0.3127 - 0.3290) / 0.3290}, 1e-12);
    const Matrix3 back = inverse(m);
    for (std::size_t i = 0; i < 3; ++i) {
        Triple unit{};
        unit[i] = 1;
        check_triple(back * (m * unit), unit, 1e-12);
    }
}

TEST_CASE("L*a*b*: signs and ends", "[colour]") {
    check_triple(lab_of({1, 1, 1}), {100, 0, 0}, 1e-9); // CIE 15:2018, 8.2.1: the white has L* 100
    check_triple(lab_of({0, 0, 0}), {0, 0, 0}, 1e-9);
    check_triple(lab_of({0.18, 0.18, 0.18}), {49.496, 0, 0}, 1e-3); // 116 cbrt(0.18) - 16
    // Signs (common practice, no source): a* below 0 green, above magenta-red; b* below 0 blue, above yellow.
    CHECK(lab_of({0, 1, 0})[1] < 0);
    CHECK(lab_of({1, 0, 1})[1] > 0);
    CHECK(lab_of({0, 0, 1})[2] < 0);
    CHECK(lab_of({1, 1, 0})[2] > 0);
    // sRGB red, a figure often printed (53.24, 80.09, 67.20), from memory.
    check_triple(lab_of({1, 0, 0}), {53.24, 80.09, 67.20}, 0.02);
}
