#include "pairing/lut_back.hpp"

#include "inverse/look.hpp"
#include "look/make.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <fmt/format.h>

using namespace kasuri;
using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

document::LookStep rule(const std::string& text) {
    document::LookStep step;
    step.text = text;
    return step;
}

/// A LUT of 9 points that bends every channel.
document::LookStep bent() {
    std::string text = "LUT_3D_SIZE 9\n";
    const auto bent = [](int i) { return 0.6 * i / 8.0 + 0.4 * i * i / 64.0; };
    for (int b = 0; b < 9; ++b)
        for (int g = 0; g < 9; ++g)
            for (int r = 0; r < 9; ++r)
                text += fmt::format("{} {} {}\n", bent(r), bent(g), bent(b));
    document::LookStep step;
    step.lut = ".cube";
    step.lut_text = document::SharedText(text);
    step.label = "bent";
    return step;
}

/// There and back, through both looks, by the engine.
double comes_back(const document::Look& forward, const document::Look& back, const std::array<double, 3>& colour) {
    const auto there = look::make(forward, {}), again = look::make(back, {});
    REQUIRE(there);
    REQUIRE(again);
    const auto made =
        inverse::results(again.value().subject.between("srgb", "srgb"),
                         inverse::results(there.value().subject.between("srgb", "srgb"), std::vector{colour}));
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c)
        most = std::max(most, std::fabs(made[0][c] - colour[c]));
    return most;
}

} // namespace

TEST_CASE("a LUT within a look is taken off by a table, and the steps around it by their rules", "[pairing][inverse]") {
    document::Look look;
    look.steps = {rule("working srgb\nout.rgb = rgb * 0.8 + 0.1\n"), bent(), rule("working srgb\nout.rgb = rgb.brg\n")};
    const auto without = inverse::invert(look, {});
    REQUIRE(without);
    CHECK_FALSE(without.value().found);
    CHECK_THAT(without.value().steps[1].fault, Contains("a LUT has no rule to solve"));

    const auto back = inverse::invert(look, {}, pairing::with_tables({}, 33, false));
    REQUIRE(back);
    REQUIRE(back.value().found);
    REQUIRE(back.value().look.steps.size() == 3);
    CHECK(back.value().look.steps[1].lut == ".cube");
    CHECK(back.value().look.steps[1].label == "bent, taken off");
    REQUIRE(back.value().steps[1].table.size() == 3);
    CHECK_THAT(back.value().steps[1].table[2], Contains("points are solved"));
    CHECK(back.value().largest < 0.01);
    for (const std::array<double, 3> colour : {std::array{0.9, 0.2, 0.4}, {0.31, 0.77, 0.05}, {0.5, 0.5, 0.5}})
        CHECK(comes_back(look, back.value().look, colour) <= back.value().largest + 1e-4);
}

TEST_CASE("a rule that cannot be solved is taken off by a table where that is wished", "[pairing][inverse]") {
    document::Look look; // red mixes with itself in two ways, which is not solved
    look.steps = {rule("working srgb\nout.r = 0.5 * r + 0.5 * r * r * (0.6 + 0.4 * sin(g * r)) \n")};
    const auto without = inverse::invert(look, {}, pairing::with_tables({}, 17, false));
    REQUIRE(without);
    if (without.value().found) { // solved by halving: as good
        CHECK(without.value().largest < 1e-4);
        return;
    }
    const auto back = inverse::invert(look, {}, pairing::with_tables({}, 17, true));
    REQUIRE(back);
    REQUIRE(back.value().found);
    CHECK(back.value().look.steps[0].lut == ".cube");
    CHECK(back.value().largest < 0.02);
}

TEST_CASE("a table is no way round what looks at other pixels", "[pairing][inverse]") {
    document::Look look;
    look.steps = {rule("working srgb\nout.rgb = blur(rgb, 2)\n")};
    const auto back = inverse::invert(look, {}, pairing::with_tables({}, 9, true));
    REQUIRE(back);
    CHECK_FALSE(back.value().found);
    CHECK_FALSE(back.value().steps[0].fault.empty());
}

TEST_CASE("a step that reads what an earlier one made has no table of its own", "[pairing][inverse]") {
    document::Look look;
    look.steps = {
        rule("working srgb\nout.rgb = rgb * 0.5\n"),
        rule("working srgb\nsource original : vec3 = picture\nout.rgb = mix(rgb, original, 0.5 * original.r)\n")};
    const auto back = inverse::invert(look, {}, pairing::with_tables({}, 9, true));
    REQUIRE(back);
    CHECK_THAT(back.value().steps[0].fault, Contains("earlier steps"));
    REQUIRE(back.value().found); // by one table of both
    REQUIRE(back.value().look.steps.size() == 1);
    CHECK(back.value().look.steps[0].lut == ".cube");
    CHECK(back.value().steps.back().label == "all steps together");
    CHECK(back.value().largest < 0.06);
    CHECK(comes_back(look, back.value().look, {0.2, 0.3, 0.4}) < 0.03);
}
