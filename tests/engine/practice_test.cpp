// Facts of the trade, all marked: common practice, no source.
#include "colour/models/models.hpp"
#include "support/support.hpp"
#include "targets/target.hpp"

using namespace kasuri;
using namespace kasuri::test;

TEST_CASE("common practice: rows that sum to 1 leave greys where they are", "[practice]") {
    const lang::Rule rule = good_rule("out.rgb = mat3(0.7, 0.2, 0.1,  0.15, 0.7, 0.15,  -0.3, 0.55, 0.75) * rgb");
    const image::Picture ramp = targets::make(*targets::find("grey_ramp"), 500);
    const auto out = engine::evaluate(*engine::compile(rule), ramp, {});
    for (std::size_t i = 0; i < ramp.pixels(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            REQUIRE(std::fabs(out->at(i)[c] - ramp.at(i)[c]) <= 1e-6f);
    // Rows that do not sum to 1 do move them.
    const lang::Rule off = good_rule("out.rgb = mat3(0.7, 0.2, 0.2,  0.15, 0.7, 0.15,  -0.3, 0.55, 0.75) * rgb");
    CHECK(run(off, {{0.5f, 0.5f, 0.5f, 1}})[0][0] > 0.54f);
}

TEST_CASE("common practice: averaging three channels divides their sum by 3", "[practice]") {
    CHECK(run_one("out.rgb = vec3((r + g + b) / 3)", {0.3f, 0.6f, 0.9f, 1})[1] == Approx(0.6f));
    CHECK(run_one("out.rgb = vec3(r + g + b)", {0.3f, 0.3f, 0.3f, 1})[1] == Approx(0.9f)); // three times too bright
}

TEST_CASE("common practice: green := blue leaves g == b on the hue sweep", "[practice]") {
    const image::Picture sweep = targets::make(*targets::find("hue_sweep"), 720);
    const auto out = engine::evaluate(*engine::compile(good_rule("out.g = b")), sweep, {});
    bool moved = false;
    for (std::size_t i = 0; i < sweep.pixels(); ++i) {
        const auto pixel = out->at(i);
        REQUIRE(pixel[1] == pixel[2]);
        REQUIRE(pixel[0] == sweep.at(i)[0]);
        moved = moved || pixel[1] != sweep.at(i)[1];
    }
    CHECK(moved);
}

TEST_CASE("common practice: negating green turns green into the magenta opposite it, around the middle", "[practice]") {
    const lang::Rule rule = good_rule("out.g = 1 - g");
    for (const float green : {0.6f, 0.75f, 0.9f, 1.0f}) {
        const auto once = run(rule, {{0.5f, green, 0.5f, 1}});
        CHECK(once[0][1] == Approx(1 - green));
        const auto before = colour::hsv_model.from({0.5, static_cast<double>(green), 0.5});
        const auto after = colour::hsv_model.from(
            {static_cast<double>(once[0][0]), static_cast<double>(once[0][1]), static_cast<double>(once[0][2])});
        CHECK(before[0] == Approx(120));
        CHECK(after[0] == Approx(300));                             // half a turn away
        CHECK(run(rule, once)[0][1] == Approx(green).margin(1e-6)); // and back
    }
    // For pure green it gives black.
    CHECK(run(rule, {{0, 1, 0, 1}})[0] == Colour{0, 0, 0, 1});
}

TEST_CASE("common practice: equal channels are grey at any level", "[practice]") {
    for (const float level : {-0.5f, 0.0f, 0.18f, 1.0f, 20.0f}) {
        const Colour c = run_one("let c = hsv(rgb)\nout.rgb = vec3(c.s, c.h, c.v)", {level, level, level, 1});
        CHECK(c == Colour{0, 0, level, 1});
    }
}

TEST_CASE("common practice: separated channels put together are the picture, bit for bit", "[practice]") {
    const image::Picture sweep = targets::make(*targets::find("hue_sweep"), 333);
    std::array<image::Picture, 3> single;
    const char* rules[] = {"out.rgb = vec3(r)", "out.rgb = vec3(g)", "out.rgb = vec3(b)"};
    image::Picture together = sweep;
    for (std::size_t c = 0; c < 3; ++c) {
        single[c] = *engine::evaluate(*engine::compile(good_rule(rules[c])), sweep, {});
        CHECK(*single[c].planes[0] == *single[c].planes[2]); // each one a neutral grey
        together.planes[c] = single[c].planes[c];
    }
    for (std::size_t c = 0; c < 3; ++c)
        CHECK(*together.planes[c] == *sweep.planes[c]);
}
