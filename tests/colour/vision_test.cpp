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
