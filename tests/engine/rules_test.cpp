// Rules of the kind practitioners write, with results worked out by hand. Weights and factors are such that
// floats hold them exactly or nearly so.
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

struct Worked {
    const char* what;
    const char* rule;
    Colour in, out;
};

} // namespace

TEST_CASE("worked rules: channels swapped, mixed, added, negated", "[engine]") {
    const Worked worked = GENERATE(values<Worked>({
        {"nothing", "", {0.1f, 0.2f, 0.3f, 0.4f}, {0.1f, 0.2f, 0.3f, 0.4f}},
        {"swap red and blue", "out.rb = rgb.br", {0.1f, 0.2f, 0.3f, 1}, {0.3f, 0.2f, 0.1f, 1}},
        {"swap written as two assignments reads the input, not out",
         "out.r = b\nout.b = r",
         {0.1f, 0.2f, 0.3f, 1},
         {0.3f, 0.2f, 0.1f, 1}},
        {"assignments in order, through out", "out.r = b\nout.b = out.r", {0.1f, 0.2f, 0.3f, 1}, {0.3f, 0.2f, 0.3f, 1}},
        {"rotate", "out.rgb = rgb.gbr", {1, 2, 3, 1}, {2, 3, 1, 1}},
        {"replace by the average of the two others", "out.g = (r + b) / 2", {1, 9, 3, 1}, {1, 2, 3, 1}},
        {"weigh all three", "out.rgb = vec3(dot(rgb, vec3(0.25, 0.5, 0.25)))", {1, 2, 5, 1}, {2.5f, 2.5f, 2.5f, 1}},
        {"tint", "out.rgb += vec3(0.5, 0, -0.25)", {1, 1, 1, 1}, {1.5f, 1, 0.75f, 1}},
        {"negate one channel", "out.g = 1 - g", {0.25f, 0.25f, 0.25f, 1}, {0.25f, 0.75f, 0.25f, 1}},
        {"gain", "out.rgb *= 2", {1, 2, 3, 0.5f}, {2, 4, 6, 0.5f}},
        {"alpha is a channel", "out.a = 1 - a", {0, 0, 0, 0.25f}, {0, 0, 0, 0.75f}},
        {"alpha with colour", "out *= 0.5", {1, 1, 1, 1}, {0.5f, 0.5f, 0.5f, 0.5f}},
        {"divide", "out.rgb /= vec3(1, 2, 4)", {4, 4, 4, 1}, {4, 2, 1, 1}},
        {"divide by zero is infinite", "out.r = 1 / (g - g)", {0, 1, 0, 1}, {infinity, 1, 0, 1}},
    }));
    INFO(worked.what << "\n" << worked.rule);
    CHECK(run_one(worked.rule, worked.in) == worked.out);
    CHECK(reference_one(good_rule(worked.rule), worked.in) == worked.out);
}

TEST_CASE("worked rules: matrices by rows", "[engine]") {
    const Worked worked = GENERATE(values<Worked>({
        {"rows are outputs", "out.rgb = mat3(1, 2, 3, 0, 1, 0, 0, 0, 1) * rgb", {1, 10, 100, 1}, {321, 10, 100, 1}},
        {"three vec3", "out.rgb = mat3(vec3(0, 0, 1), vec3(0, 1, 0), vec3(1, 0, 0)) * rgb", {1, 2, 3, 1}, {3, 2, 1, 1}},
        {"a diagonal", "out.rgb = mat3(2) * rgb", {1, 2, 3, 1}, {2, 4, 6, 1}},
        {"the right one first",
         "out.rgb = mat3(0, 1, 0, 1, 0, 0, 0, 0, 1) * mat3(2, 0, 0, 0, 3, 0, 0, 0, 1) * rgb",
         {1, 1, 1, 1},
         {3, 2, 1, 1}},
        {"sum of matrices", "out.rgb = (mat3(1) + mat3(0, 1, 0, 0, 0, 0, 0, 0, 0)) * rgb", {1, 2, 3, 1}, {3, 2, 3, 1}},
        {"difference and negation", "out.rgb = (-mat3(1) - mat3(1)) * rgb", {1, 2, 3, 1}, {-2, -4, -6, 1}},
        {"scaled from both sides", "out.rgb = (0.5 * mat3(4) / 2) * rgb", {1, 2, 3, 1}, {1, 2, 3, 1}},
        {"a named matrix",
         "let m = mat3(0, 1, 0, 0, 0, 1, 1, 0, 0)\nout.rgb = m * (m * rgb)",
         {1, 2, 3, 1},
         {3, 1, 2, 1}},
    }));
    INFO(worked.what << "\n" << worked.rule);
    CHECK(run_one(worked.rule, worked.in) == worked.out);
    CHECK(reference_one(good_rule(worked.rule), worked.in) == worked.out);
}

TEST_CASE("worked rules: conditions, swizzles, names", "[engine]") {
    const Worked worked = GENERATE(values<Worked>({
        {"choice", "out.rgb = r > g ? vec3(1, 0, 0) : vec3(0, 1, 0)", {2, 1, 0, 1}, {1, 0, 0, 1}},
        {"choice of a float and a vector", "out.rgb = r > g ? 0.5 : rgb", {2, 1, 0, 1}, {0.5f, 0.5f, 0.5f, 1}},
        {"nested choice", "out.r = r < 0 ? -1 : r > 1 ? 1 : 0", {0.5f, 0, 0, 1}, {0, 0, 0, 1}},
        {"and, or, not", "out.r = (r > 0 && g > 0) || !(b > 0) ? 1 : 0", {1, -1, -1, 1}, {1, -1, -1, 1}},
        {"vectors are equal or not",
         "out.r = rgb == vec3(1, 2, 3) ? 1 : 0\nout.g = rgb != vec3(1, 2, 4) ? 1 : 0",
         {1, 2, 3, 1},
         {1, 1, 3, 1}},
        {"bool values have names", "let dark = r < 0.5\nout.b = dark ? 1 : 0", {0.25f, 0, 0, 1}, {0.25f, 0, 1, 1}},
        {"true and false", "out.r = true ? 3 : 4\nout.g = false ? 3 : 4", {0, 0, 0, 1}, {3, 4, 0, 1}},
        {"swizzle by both alphabets", "let v = rgb\nout.rgb = vec3(v.z, v.xy)", {1, 2, 3, 1}, {3, 1, 2, 1}},
        {"swizzle repeats when read", "out.rgb = rgb.rrr", {1, 2, 3, 1}, {1, 1, 1, 1}},
        {"components of a let are assigned", "let v = rgb\nv.rg = v.gr\nout.rgb = v", {1, 2, 3, 1}, {2, 1, 3, 1}},
        {"a let is assigned again", "let v = r\nv += 2\nv *= 3\nout.r = v", {1, 0, 0, 1}, {9, 0, 0, 1}},
        {"unary plus and minus", "out.r = +r - -g", {1, 2, 0, 1}, {3, 2, 0, 1}},
        {"precedence", "out.r = 1 + 2 * 3 - 8 / 4 / 2", {0, 0, 0, 1}, {6, 0, 0, 1}},
        {"vec4 from parts", "out = vec4(rgb.bgr, 0.5)", {1, 2, 3, 1}, {3, 2, 1, 0.5f}},
        {"vec2 arithmetic", "let v = vec2(r, g) * vec2(2, 3) - 1\nout.rg = v", {1, 1, 0, 1}, {1, 2, 0, 1}},
    }));
    INFO(worked.what << "\n" << worked.rule);
    CHECK(run_one(worked.rule, worked.in) == worked.out);
    CHECK(reference_one(good_rule(worked.rule), worked.in) == worked.out);
}

TEST_CASE("worked rules: a component of hsv changes and the others stay", "[engine]") {
    // (0.25, 0.5, 0.75) is hue 210, saturation 2/3, value 0.75.
    const Colour in = {0.25f, 0.5f, 0.75f, 1};
    const auto check_near = [](const Colour& got, const Colour& expected) {
        for (std::size_t c = 0; c < 4; ++c)
            CHECK(got[c] == Approx(expected[c]).margin(1e-6));
    };
    check_near(run_one("let c = hsv(rgb)\nc.v = 1.5\nout.rgb = rgb(c)", in), {0.5f, 1, 1.5f, 1});
    check_near(run_one("let c = hsv(rgb)\nc.s = 1\nout.rgb = rgb(c)", in), {0, 0.375f, 0.75f, 1});
    check_near(run_one("let c = hsv(rgb)\nc.s = 0\nout.rgb = rgb(c)", in), {0.75f, 0.75f, 0.75f, 1});
    check_near(run_one("let c = hsv(rgb)\nc.h -= 90\nout.rgb = rgb(c)", in), {0.25f, 0.75f, 0.25f, 1}); // hue 120
    check_near(run_one("let c = hsv(rgb)\nc.h = 0\nc.s = 0.5\nc.v = 1\nout.rgb = rgb(c)", in), {1, 0.5f, 0.5f, 1});
    check_near(run_one("out.rgb = rgb(hsv(60, 1, 0.5))", in), {0.5f, 0.5f, 0, 1});
    // A neutral has hue 0: given some saturation it turns red.
    check_near(run_one("let c = hsv(rgb)\nc.s = 0.5\nout.rgb = rgb(c)", {0.5f, 0.5f, 0.5f, 1}),
               {0.5f, 0.25f, 0.25f, 1});
    check_near(run_one("let c = hsv(rgb)\nc.s = 0.5\nout.rgb = rgb(c)", {0, 0, 0, 1}), {0, 0, 0, 1});
}

TEST_CASE("a grey ramp turned into hue is the full spectrum, red to red",
          "[engine][practice]") { // common practice, no source
    const lang::Rule rule = good_rule("out.rgb = rgb(hsv(360 * r, 1, 1))");
    const auto at = [&](float level) { return run(rule, {{level, level, level, 1}})[0]; };
    CHECK(at(0) == Colour{1, 0, 0, 1});
    CHECK(at(1.0f / 3)[1] == Approx(1).margin(1e-6));
    CHECK(at(2.0f / 3)[2] == Approx(1).margin(1e-6));
    CHECK(at(1) == Colour{1, 0, 0, 1});
}

TEST_CASE("parameters and presets reach the pixels", "[engine]") {
    const lang::Rule rule =
        good_rule("param lift = 0 in -1 .. 1\nparam gain = 1 in 0 .. 4\npreset \"Up\" lift = 0.25, gain = 2\n"
                  "out.rgb = rgb * gain + lift");
    CHECK(run(rule, {{0.5f, 0, 1, 1}})[0] == Colour{0.5f, 0, 1, 1});
    CHECK(run(rule, {{0.5f, 0, 1, 1}}, rule.presets[0].values)[0] == Colour{1.25f, 0.25f, 2.25f, 1});
}
