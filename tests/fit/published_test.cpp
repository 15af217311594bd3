// Every family that a publication knows: its formula is computed here in double precision, as the publication has it,
// and the family has to find its numbers. Families without one are our own, or common practice: densities, split tone,
// matrices by zone, colourfulness and hue bands. Three rows below are plain powers that no document has.
#include "fit/fit.hpp"
#include "support/fitting.hpp"
#include "support/support.hpp"

#include <array>
#include <cmath>
#include <functional>

using namespace kasuri;
using namespace kasuri::fit;
using namespace kasuri::test;
using Catch::Matchers::WithinAbs;

namespace {

using Rgb = std::array<double, 3>;

Rgb times(const double (&m)[3][3], const Rgb& x) {
    Rgb made{};
    for (std::size_t o = 0; o < 3; ++o)
        for (std::size_t i = 0; i < 3; ++i)
            made[o] += m[o][i] * x[i];
    return made;
}

Rgb each(const Rgb& x, const std::function<double(double)>& f) { return {f(x[0]), f(x[1]), f(x[2])}; }

struct Published {
    const char *family, *source;
    std::function<Rgb(const Rgb&)> formula;
    std::vector<double> numbers; ///< that the family has to find, in its order; empty: only the result counts
    double largest = 1e-5;       ///< of a channel, of what the rule makes
    double within = 1e-4;        ///< of the numbers
};

// ITU-R BT.2087-0, annex 1: light of BT.709 as light of BT.2020.
constexpr double to_2020[3][3] = {{0.6274, 0.3293, 0.0433}, {0.0691, 0.9195, 0.0114}, {0.0164, 0.0880, 0.8956}};
// IEC 61966-2-1, 4.2: light of sRGB as XYZ.
constexpr double srgb_xyz[3][3] = {{0.4124, 0.3576, 0.1805}, {0.2126, 0.7152, 0.0722}, {0.0193, 0.1192, 0.9505}};
// ITU-T T.871 (JFIF), 7: r, g, b to Y, Cb, Cr, in shares of 255.
constexpr double to_ycc[3][3] = {{0.299, 0.587, 0.114}, {-0.168736, -0.331264, 0.5}, {0.5, -0.418688, -0.081312}};

// The film encoding of 10 bits that image files of film have had since 1993, black at 95 and white at 685 of 1023,
// 0.002 of density a code value, a gamma of 0.6 (from memory): code = 685 + 300 log10(x (1 - b) + b), b = 10 ^ ((95 -
// 685) / 300).
const double film_black = std::pow(10.0, (95.0 - 685.0) / 300.0);
double film_code(double x) { return (685 + 300 * std::log10(x * (1 - film_black) + film_black)) / 1023; }
double film_light(double y) { return (std::pow(10.0, (1023 * y - 685) / 300) - film_black) / (1 - film_black); }

const Published all[] = {
    {"gain",
     "ITU-R BT.2408-7, 2.1: diffuse white is 203 cd/m2, here of 100",
     [](const Rgb& x) { return each(x, [](double v) { return 2.03 * v; }); },
     {2.03}},
    {"gain-offset",
     "ITU-R BT.709-6, item 5.1: 219 E' + 16, in shares of 255",
     [](const Rgb& x) { return each(x, [](double v) { return (219 * v + 16) / 255; }); },
     {219.0 / 255, 16.0 / 255}},
    {"gain-offset-power",
     "ITU-R BT.1886, annex 1: a (V + b) ^ 2.4 for 100 and 0.1 cd/m2, in shares of 100",
     [](const Rgb& x) {
         const double white = std::pow(1.0, 1 / 2.4), black = std::pow(0.001, 1 / 2.4);
         return each(
             x, [&](double v) { return std::pow(white - black, 2.4) * std::pow(v + black / (white - black), 2.4); });
     },
     {1 - std::pow(0.001, 1 / 2.4), std::pow(0.001, 1 / 2.4), 2.4}},
    {"channel-gains",
     "ASTM E308-01: white of A over white of D65, X and Z scaled",
     [](const Rgb& x) {
         return Rgb{x[0] * 1.09850 / 0.95047, x[1], x[2] * 0.35585 / 1.08883};
     },
     {1.09850 / 0.95047, 1, 0.35585 / 1.08883}},
    {"channel-gains-offsets",
     "ITU-R BT.601-7, table 3: 219 Y + 16 and 224 C + 128, in shares of 255",
     [](const Rgb& x) {
         return Rgb{(219 * x[0] + 16) / 255, (224 * x[1] + 128) / 255, (224 * x[2] + 128) / 255};
     },
     {219.0 / 255, 224.0 / 255, 224.0 / 255, 16.0 / 255, 128.0 / 255, 128.0 / 255}},
    {"channel-powers",
     "ASC CDL 1.2: (in * slope + offset) ^ power",
     [](const Rgb& x) {
         return Rgb{std::pow(x[0] * 0.9 + 0.05, 1.2), std::pow(x[1] * 1.1 + 0.02, 0.9), std::pow(x[2] + 0.1, 1.5)};
     },
     {0.9, 1.1, 1, 0.05, 0.02, 0.1, 1.2, 0.9, 1.5},
     1e-5,
     1e-3},
    {"cdl",
     "ASC CDL 1.2: slope, offset and power, then luma + saturation (in - luma)",
     [](const Rgb& x) {
         const Rgb g{std::pow(x[0] * 0.9 + 0.05, 1.2), std::pow(x[1] * 1.1 + 0.02, 0.9), std::pow(x[2] + 0.1, 1.5)};
         const double luma = 0.2126 * g[0] + 0.7152 * g[1] + 0.0722 * g[2];
         return each(g, [&](double v) { return luma + 0.7 * (v - luma); });
     },
     {0.9, 1.1, 1, 0.05, 0.02, 0.1, 1.2, 0.9, 1.5, 0.7},
     4e-6,
     1e-3},
    {"mono",
     "ITU-R BT.601-7, 2.5.1: E'Y = 0.299 R + 0.587 G + 0.114 B",
     [](const Rgb& x) {
         const double y = 0.299 * x[0] + 0.587 * x[1] + 0.114 * x[2];
         return Rgb{y, y, y};
     },
     {0.299, 0.587, 0.114}},
    {"saturation",
     "ASC CDL 1.2, saturation, luma of BT.709",
     [](const Rgb& x) {
         // The weights to seven digits, as the primaries of BT.709 give them.
         const double y = 0.2126390 * x[0] + 0.7151687 * x[1] + 0.0721923 * x[2];
         return each(x, [&](double v) { return y + 1.3 * (v - y); });
     },
     {1.3}},
    {"weighted-saturation",
     "W3C Filter Effects 1, 9.6: saturate 0.4, the matrix of feColorMatrix",
     [](const Rgb& x) {
         constexpr double s = 0.4;
         const double m[3][3] = {{0.213 + 0.787 * s, 0.715 - 0.715 * s, 0.072 - 0.072 * s},
                                 {0.213 - 0.213 * s, 0.715 + 0.285 * s, 0.072 - 0.072 * s},
                                 {0.213 - 0.213 * s, 0.715 - 0.715 * s, 0.072 + 0.928 * s}};
         return times(m, x);
     },
     {0.213, 0.072, 0.4}},
    {"matrix-balanced",
     "ITU-R BT.2087-0",
     [](const Rgb& x) { return times(to_2020, x); },
     {0.3293, 0.0433, 0.0691, 0.0114, 0.0164, 0.0880}},
    {"matrix",
     "IEC 61966-2-1",
     [](const Rgb& x) { return times(srgb_xyz, x); },
     {0.4124, 0.3576, 0.1805, 0.2126, 0.7152, 0.0722, 0.0193, 0.1192, 0.9505}},
    {"matrix-offset",
     "ITU-T T.871",
     [](const Rgb& x) {
         Rgb y = times(to_ycc, x);
         y[1] += 128.0 / 255;
         y[2] += 128.0 / 255;
         return y;
     },
     {0.299, 0.587, 0.114, -0.168736, -0.331264, 0.5, 0.5, -0.418688, -0.081312, 0, 128.0 / 255, 128.0 / 255}},
    {"matrix-between-powers",
     "a power of 2.2, a matrix of BT.2087, a power of 1/2.2: as a table for displays of gamma 2.2",
     [](const Rgb& x) {
         return each(times(to_2020, each(x, [](double v) { return std::pow(v, 2.2); })),
                     [](double v) { return std::pow(v, 1 / 2.2); });
     },
     {},
     1e-4},
    {"curve-17",
     "IEC 61966-2-1, from code to light",
     [](const Rgb& x) {
         return each(x, [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); });
     },
     {},
     2e-4},
    {"curves-17",
     "powers of 1.8, 2.2 and 2.4, a curve each",
     [](const Rgb& x) {
         return Rgb{std::pow(x[0], 1.8), std::pow(x[1], 2.2), std::pow(x[2], 2.4)};
     },
     {},
     3e-4},
    {"matrix-curves-9",
     "ITU-R BT.2087-0, then the power of 2.4 of BT.1886",
     [](const Rgb& x) { return each(times(to_2020, x), [](double v) { return std::pow(v, 2.4); }); },
     {},
     2e-3},
    {"curves-matrix-9",
     "the power of 2.4 of BT.1886, then ITU-R BT.2087-0",
     [](const Rgb& x) { return times(to_2020, each(x, [](double v) { return std::pow(v, 2.4); })); },
     {},
     2e-3},
    {"curves-matrix-curves-5",
     "ITU-R BT.2087-0 between gentle powers",
     [](const Rgb& x) {
         return each(times(to_2020, each(x, [](double v) { return std::pow(v, 1.4); })),
                     [](double v) { return std::pow(v, 1.3); });
     },
     {},
     8e-3},
    {"log-curve",
     "film encoding, 10 bits",
     [](const Rgb& x) { return each(x, film_code); },
     {(1 - film_black) / film_black, 95.0 / 1023, 590.0 / 1023},
     1e-5,
     5e-3},
    {"exp-curve", "film encoding, back to light", [](const Rgb& y) { return each(y, film_light); }, {}, 1e-4},
    {"matrix-in-log",
     "IEC 61966-2-1, light as XYZ, in the film encoding, white at 1",
     [](const Rgb& x) {
         const auto light = [&](double v) { return film_light(v * 685 / 1023); };
         const auto code = [&](double v) { return film_code(v) * 1023 / 685; };
         return each(times(srgb_xyz, each(x, light)), code);
     },
     {0.4124, 0.3576, 0.1805, 0.2126, 0.7152, 0.0722, 0.0193, 0.1192, 0.9505, (1 - film_black) / film_black,
      95.0 / 685},
     2e-5,
     5e-3},
    {"hue-turn-hsv",
     "A. R. Smith, Color gamut transform pairs, 1978: a turn by 120 degrees makes red green, green blue",
     [](const Rgb& x) {
         return Rgb{x[2], x[0], x[1]};
     },
     {120},
     1e-5,
     1e-3},
    {"root-polynomial-2",
     "Finlayson, Mackiewicz and Hurlbert 2015: r, g, b and the roots of their products",
     [](const Rgb& x) {
         const auto [r, g, b] = x;
         return Rgb{0.8 * r + 0.1 * std::sqrt(r * g), 0.7 * g + 0.2 * std::sqrt(g * b),
                    0.9 * b - 0.1 * std::sqrt(r * b)};
     },
     {},
     3e-6},
};

/// Where the film code is the input it begins at black; everything else is asked from 0 to 1.
Pairs pairs_of(const Published& published) {
    Pairs pairs;
    pairs.space = "rec709-linear";
    constexpr int points = 9;
    const std::string family = published.family;
    const double black = family == "matrix-in-log" ? 95.0 / 685 : family == "exp-curve" ? 95.0 / 1023 : 0;
    const auto at = [&](int i) {
        const double share = static_cast<double>(i) / (points - 1);
        return black + (1 - black) * share;
    };
    for (int i = 0; i < points * points * points; ++i) {
        const Rgb from{at(i % points), at(i / points % points), at(i / points / points)};
        const auto single = [](const Rgb& x) {
            return std::array{static_cast<float>(x[0]), static_cast<float>(x[1]), static_cast<float>(x[2])};
        };
        pairs.add(single(from), single(published.formula(from)));
    }
    return pairs;
}

} // namespace

TEST_CASE("families find the numbers of published formulas", "[fit]") {
    for (const Published& published : all) {
        INFO(published.family << ": " << published.source);
        Options options;
        options.families = {published.family};
        options.spaces = {"rec709-linear"};
        const auto found = fit::fit(pairs_of(published), options);
        REQUIRE(found);
        const Candidate& candidate = found.value().candidates.front();
        CHECK(candidate.errors.largest <= published.largest);
        for (std::size_t i = 0; i < published.numbers.size(); ++i) {
            CAPTURE(i);
            CHECK_THAT(
                candidate.values[i],
                WithinAbs(published.numbers[i], published.within * std::max(1.0, std::fabs(published.numbers[i]))));
        }
    }
}

TEST_CASE("what is held is kept by every rule that is fitted, whatever the numbers", "[fit]") {
    const Pairs pairs =
        made_by("rec709-linear", "out.rgb = mat3(0.8, 0.3, -0.1,  0.1, 0.7, 0.2,  0.05, -0.2, 1.1) * rgb\n", 9, false);
    const auto made_by_best = [&](const Options& options) {
        const auto found = fit::fit(pairs, options);
        REQUIRE(found);
        const Candidate& best = found.value().candidates[found.value().best];
        CHECK(best.family->name == "matrix");
        for (const double value : best.values)
            CHECK(std::fabs(value) < 5); // what is taken back by the last statement does not run away
        return through("rec709-linear", best.body, pairs.from);
    };
    Options options;
    options.families = {"matrix"};
    options.spaces = {"rec709-linear"};
    options.keep_sums = true;
    const Planes sums = made_by_best(options);
    options.keep_sums = false;
    options.keep_luminance = true;
    const Planes luminances = made_by_best(options);
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        const auto of = [&](const Planes& x, Rgb weights) {
            return weights[0] * static_cast<double>(x[0][i]) + weights[1] * static_cast<double>(x[1][i]) +
                weights[2] * static_cast<double>(x[2][i]);
        };
        REQUIRE_THAT(of(sums, {1, 1, 1}), WithinAbs(of(pairs.from, {1, 1, 1}), 1e-5));
        REQUIRE_THAT(of(luminances, {0.2126390, 0.7151687, 0.0721923}),
                     WithinAbs(of(pairs.from, {0.2126390, 0.7151687, 0.0721923}), 1e-5));
    }
    options.keep_luminance = false;
    options.hold_hue = {{0.5, 0.2, 0.1}};
    const auto held = fit::fit(pairs, options);
    REQUIRE(held);
    CHECK(held.value().candidates.front().body.find("hold hue of (0.5, 0.2, 0.1) in oklch") != std::string::npos);
}

TEST_CASE("by the eye, what is seen counts: dark colours are met better, and an exact rule is still exact", "[fit]") {
    const Pairs exact_pairs = made_by("rec709-linear", "out.rgb = rgb * vec3(0.9, 1.1, 0.8)\n", 9, false);
    Options options;
    options.families = {"channel-gains", "matrix"};
    options.spaces = {"rec709-linear"};
    options.by_eye = true;
    const auto exact_found = fit::fit(exact_pairs, options);
    REQUIRE(exact_found);
    CHECK(exact_found.value().candidates[exact_found.value().best].family->name == "channel-gains");
    CHECK(exact_found.value().candidates[exact_found.value().best].errors.largest < 1e-5);
    // A curve that no matrix follows: by numbers the bright colours decide, by the eye the dark ones as well.
    Pairs bent = lattice(9, "rec709-linear");
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < bent.size(); ++i)
            bent.to[c][i] = std::pow(bent.from[c][i], 1.3F);
    options.families = {"matrix"};
    const auto seen = fit::fit(bent, options);
    options.by_eye = false;
    const auto counted = fit::fit(bent, options);
    REQUIRE(seen);
    REQUIRE(counted);
    CHECK(seen.value().candidates[0].errors.delta_e_mean < counted.value().candidates[0].errors.delta_e_mean);
    CHECK(seen.value().candidates[0].errors.rms > counted.value().candidates[0].errors.rms);
}
