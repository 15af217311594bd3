// How others see: the published numbers, what they were derived from, and the engine.
#include "colour/space.hpp"
#include "colour/vision.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::colour;
using namespace kasuri::test;

namespace {

const Deficiency& who(std::string_view name) {
    for (const Deficiency& row : deficiencies())
        if (row.name == name)
            return row;
    FAIL("nobody");
    return deficiencies().front();
}

} // namespace

TEST_CASE("the table of Machado, Oliveira and Fernandes: greys stay, and it goes evenly from one row to the next",
          "[colour][vision]") {
    REQUIRE(deficiencies().size() == 3);
    for (const Deficiency& row : deficiencies()) {
        INFO(row.name);
        for (std::size_t k = 0; k < 11; ++k)
            for (std::size_t i = 0; i < 3; ++i) {
                const Triple& weights = row.by_severity[k][i];
                // Published to six digits: the sums are 1 within their rounding. A wrong digit would show.
                CHECK(weights[0] + weights[1] + weights[2] == Approx(1).margin(2.1e-6));
                // And where a mistake keeps the sum, the neighbours' second difference would show it: the curves of
                // the paper are smooth.
                for (std::size_t j = 0; k > 0 && k < 10 && j < 3; ++j)
                    CHECK(std::fabs(row.by_severity[k - 1][i][j] - 2 * weights[j] + row.by_severity[k + 1][i][j]) <
                          0.07);
            }
        CHECK(row.by_severity[0] == Matrix3{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}});
        CHECK(seen_by(row, 0.65)[0][1] == Approx((row.by_severity[6][0][1] + row.by_severity[7][0][1]) / 2));
        CHECK(seen_by(row, 7) == row.by_severity[10]);
        CHECK(seen_by(row, -1) == row.by_severity[0]);
        CHECK(std::isnan(seen_by(row, std::nan(""))[1][1]));
    }
    // Of the paper's table 1, at severity 1 (from memory).
    CHECK(who("protan").by_severity[10][0] == Triple{0.152286, 1.052583, -0.204868});
    CHECK(who("deutan").by_severity[10][1] == Triple{0.280085, 0.672501, 0.047413});
    CHECK(who("tritan").by_severity[10][2] == Triple{0.004733, 0.691367, 0.303900});
}

TEST_CASE("Vienot, Brettel and Mollon: the missing cone's weights come out as published", "[colour][vision]") {
    using colour::operator*;
    // The paper (from memory): L' = 2.02344 M - 2.52581 S without L cones, M' = 0.494207 L + 1.24827 S without M cones.
    const Matrix3 cones = {{{17.8824, 43.5161, 4.11935}, {3.45565, 27.1554, 3.86714}, {0.0299566, 0.184309, 1.46709}}};
    for (const Dichromat& row : dichromats()) {
        if (row.side != Triple{})
            continue; // of the paper of 1997
        INFO(row.name);
        const std::size_t missing = row.name == "protanope" ? 0 : 1, other = 1 - missing;
        const Matrix3 of_cones = times(cones, times(row.seen, inverse(cones)));
        CHECK(of_cones[missing][other] == Approx(missing == 0 ? 2.02344 : 0.494207).epsilon(1e-5));
        CHECK(of_cones[missing][2] == Approx(missing == 0 ? -2.52581 : 1.24827).epsilon(1e-5));
        CHECK(of_cones[missing][missing] == Approx(0).margin(1e-9));
        for (const Triple& stays : {Triple{1, 1, 1}, Triple{0, 0, 1}, Triple{0.3, 0.3, 0.8}})
            for (std::size_t i = 0; i < 3; ++i)
                CHECK((row.seen * stays)[i] == Approx(stays[i]).margin(1e-9));
        // Seen once, seen for good: nothing more is lost.
        const Matrix3 twice = times(row.seen, row.seen);
        for (std::size_t i = 0; i < 3; ++i)
            for (std::size_t j = 0; j < 3; ++j)
                CHECK(twice[i][j] == Approx(row.seen[i][j]).margin(1e-9));
    }
}

TEST_CASE("other eyes in the language: any working space, a severity that is a parameter, what is confused",
          "[colour][vision][builtins]") {
    for (const char* working : {"rec709-linear", "srgb", "acescg", "rec2020-linear"}) {
        INFO(working);
        const Space& space = *find_space(working);
        for (const Deficiency& row : deficiencies())
            for (const double severity : {0.0, 0.35, 1.0}) {
                const std::string name(row.name);
                const lang::Rule rule = good_rule("working " + std::string(working) +
                                                  "\nparam s = 1 in 0 .. 1\nout.rgb = " + name + "(rgb, s)");
                const Colour in = {0.4f, 0.3f, 0.2f, 1};
                using colour::operator*;
                const Triple light = converted({0.4, 0.3, 0.2}, space, *find_space("rec709-linear"));
                const Triple wanted = converted(seen_by(row, severity) * light, *find_space("rec709-linear"), space);
                const auto made = run(rule, {in}, {severity}).front();
                for (std::size_t c = 0; c < 3; ++c)
                    CHECK(static_cast<double>(made[c]) == Approx(wanted[c]).margin(3e-6));
            }
    }
    // Red and green of one lightness are far apart for most people, and near for a deuteranope.
    const lang::Rule apart = good_rule("let red = rgb(lab(55, 40, 20))\nlet green = rgb(lab(55, -12, 45))\n"
                                       "out.r = delta_e_2000(red, green)\n"
                                       "out.g = delta_e_2000(deuteranope(red), deuteranope(green))\n"
                                       "out.b = delta_e_2000(deutan(red, 1), deutan(green, 1))");
    const auto made = run(apart, {{0, 0, 0, 1}}).front();
    CHECK(made[0] > 40);
    CHECK(made[1] < 0.6f * made[0]);
    CHECK(made[2] < 0.6f * made[0]);
}

TEST_CASE("Brettel, Vienot and Mollon 1997: anchors and greys stay, the halves meet, and others come to the same",
          "[colour][vision]") {
    using colour::operator*;
    // What another open implementation of the paper, for BT.709's primaries and the cones of Smith and Pokorny, has for
    // its two half-planes (libDaltonLens; from memory).
    struct Row {
        std::string_view name;
        Matrix3 one, other;
    };
    const Row rows[] = {
        {"protanope_1997",
         {{{0.14980, 1.19548, -0.34528}, {0.10764, 0.84864, 0.04372}, {0.00384, -0.00540, 1.00156}}},
         {{{0.14570, 1.16172, -0.30742}, {0.10816, 0.85291, 0.03892}, {0.00386, -0.00524, 1.00139}}}},
        {"deuteranope_1997",
         {{{0.36477, 0.86381, -0.22858}, {0.26294, 0.64245, 0.09462}, {-0.02006, 0.02728, 0.99278}}},
         {{{0.37298, 0.88166, -0.25464}, {0.25954, 0.63506, 0.10540}, {-0.01980, 0.02784, 0.99196}}}},
        {"tritanope",
         {{{1.01277, 0.13548, -0.14826}, {-0.01243, 0.86812, 0.14431}, {0.07589, 0.80500, 0.11911}}},
         {{{0.93678, 0.18979, -0.12657}, {0.06154, 0.81526, 0.12320}, {-0.37562, 1.12767, 0.24796}}}},
    };
    const auto far = [](const Matrix3& a, const Matrix3& b) {
        double most = 0;
        for (std::size_t i = 0; i < 3; ++i)
            for (std::size_t j = 0; j < 3; ++j)
                most = std::max(most, std::fabs(a[i][j] - b[i][j]));
        return most;
    };
    int found = 0;
    for (const Dichromat& row : dichromats()) {
        if (row.side == Triple{})
            continue;
        ++found;
        INFO(row.name);
        const Row& known =
            *std::find_if(std::begin(rows), std::end(rows), [&](const Row& r) { return r.name == row.name; });
        CHECK(std::min(far(row.seen, known.one) + far(row.beyond, known.other),
                       far(row.seen, known.other) + far(row.beyond, known.one)) < 1.2e-3);
        std::mt19937 random(1997);
        std::uniform_real_distribution<double> any(0, 1);
        for (int k = 0; k < 200; ++k) {
            const Triple light = {any(random), any(random), any(random)};
            const Triple once = seen_by(row, light), twice = seen_by(row, once);
            for (std::size_t i = 0; i < 3; ++i)
                CHECK(twice[i] == Approx(once[i]).margin(1e-9)); // what is seen is seen as itself
            // On the seam the two halves say the same: the greys, and what differs from them by the missing cone alone.
            const double side = row.side[0] * light[0] + row.side[1] * light[1] + row.side[2] * light[2];
            const double square = row.side[0] * row.side[0] + row.side[1] * row.side[1] + row.side[2] * row.side[2];
            Triple on_seam = light;
            for (std::size_t i = 0; i < 3; ++i)
                on_seam[i] -= row.side[i] * side / square;
            const Triple a = row.seen * on_seam, b = row.beyond * on_seam;
            for (std::size_t i = 0; i < 3; ++i)
                CHECK(a[i] == Approx(b[i]).margin(1e-9));
        }
        for (const double grey : {0.0, 0.18, 1.0, -0.2, 4.0})
            for (const double channel : seen_by(row, {grey, grey, grey}))
                CHECK(channel == Approx(grey).margin(1e-9));
        for (const char* working : {"rec709-linear", "srgb", "acescg"}) {
            const Space& space = *find_space(working);
            const lang::Rule rule =
                good_rule("working " + std::string(working) + "\nout.rgb = " + std::string(row.name) + "(rgb)");
            for (const Colour& in :
                 {Colour{0.6f, 0.3f, 0.2f, 1}, Colour{0.1f, 0.4f, 0.7f, 1}, Colour{0.9f, 0.9f, 0.1f, 1}}) {
                const Triple light =
                    converted({static_cast<double>(in[0]), static_cast<double>(in[1]), static_cast<double>(in[2])},
                              space, *find_space("rec709-linear"));
                const Triple wanted = converted(seen_by(row, light), *find_space("rec709-linear"), space);
                const auto made = run(rule, {in}).front();
                for (std::size_t c = 0; c < 3; ++c)
                    CHECK(static_cast<double>(made[c]) == Approx(wanted[c]).margin(5e-6));
            }
        }
    }
    CHECK(found == 3);
    // The cones of the paper of 1999 are those of Smith and Pokorny for these primaries: derived here again from
    // chromaticities, they come out as printed there, a hundred times as large.
    const auto corrected = [](double x, double y) { // J. J. Vos 1978 (from memory)
        const double by = 0.03845 * x + 0.01496 * y + 1;
        return Chromaticity{(1.0271 * x - 0.00008 * y - 0.00009) / by, (0.00376 * x + 1.0072 * y + 0.00764) / by};
    };
    const Matrix3 to_xyz =
        rgb_to_xyz({corrected(0.64, 0.33), corrected(0.30, 0.60), corrected(0.15, 0.06)}, corrected(0.3127, 0.3290));
    const Matrix3 cones =
        times({{{0.15514, 0.54312, -0.03286}, {-0.15514, 0.45684, 0.03286}, {0, 0, 0.00801}}}, to_xyz);
    CHECK(cones[0][0] == Approx(0.178824).epsilon(2e-5));
    CHECK(cones[0][1] == Approx(0.435161).epsilon(2e-5));
    CHECK(cones[1][1] == Approx(0.271554).epsilon(2e-5));
    CHECK(cones[1][2] == Approx(0.0386714).epsilon(2e-5));
}

TEST_CASE("without cones that differ there is only luminance", "[colour][vision][builtins]") {
    const auto seen = run_one("out.rgb = achromat(rgb)", {0.2f, 0.6f, 0.1f, 1});
    const double y = 0.21263900587151027 * 0.2 + 0.71516867876775593 * 0.6 + 0.07219231536073371 * 0.1;
    for (std::size_t c = 0; c < 3; ++c)
        CHECK(static_cast<double>(seen[c]) == Approx(y).epsilon(1e-6));
    const auto coded =
        run_one("working srgb\nout.rgb = achromat(rgb) - vec3(srgb_encode(luminance(rgb)))", {0.2f, 0.6f, 0.1f, 1});
    for (std::size_t c = 0; c < 3; ++c)
        CHECK(static_cast<double>(coded[c]) == Approx(0).margin(1e-6));
}
