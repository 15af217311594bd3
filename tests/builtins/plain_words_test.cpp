// What people write at first go, and what it must be the same as.
#include "lang/format.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

void same(const std::string& a, const std::string& b) {
    INFO(a << "\n" << b);
    for (const Colour in :
         {Colour{0.1f, 0.5f, 0.9f, 1.0f}, Colour{0.9f, -0.2f, 1.7f, 0.5f}, Colour{0.3f, 0.3f, 0.3f, 1.0f}}) {
        const Colour x = run_one(a, in), y = run_one(b, in), exact = reference_one(good_rule(a), in);
        for (std::size_t c = 0; c < 4; ++c) {
            CHECK(x[c] == Approx(y[c]).margin(1e-6));
            CHECK(x[c] == Approx(exact[c]).margin(1e-5));
        }
    }
}

} // namespace

TEST_CASE("one number is written to every channel of a colour, never to alpha", "[lang][builtins]") {
    same("out.rgb = 0.5 * g + 0.5 * b\n", "out.rgb = vec3(0.5 * g + 0.5 * b)\n");
    same("out.rg = b\n", "out.rg = vec2(b)\n");
    same("let c = rgb\nc = g\nout.rgb = c\n", "out.rgb = vec3(g)\n");
    CHECK_FALSE(lang::check("out = g\n", proof::vocabulary()).ok);
}

TEST_CASE("the smallest, the largest and the middle one of several", "[builtins]") {
    same("out.rgb = max(r, g, b)\n", "out.rgb = vec3(max(r, max(g, b)))\n");
    same("out.rgb = min(r, g, b)\n", "out.rgb = vec3(min(r, min(g, b)))\n");
    same("out.rgb = min(rgb, 0.8, vec3(0.4), g)\n", "out.rgb = min(min(rgb, 0.8), min(vec3(0.4), vec3(g)))\n");
    same("out.r = max(r, g, b, 0.6)\n", "out.r = max(max(r, g), max(b, 0.6))\n");
    same("out.rgb = median(r, g, b)\n", "out.rgb = vec3(r + g + b - max(r, max(g, b)) - min(r, min(g, b)))\n");
    same("out.g = median(r, r, b)\n", "out.g = r\n");
}

TEST_CASE("values of one model are added and weighted, and several of its components are one value", "[lang]") {
    same("let c = 0.25 * lab(rgb) + lab(vec3(0.18)) * 0.75 - lab(b, b, r) / 4\nout.rgb = c.lab\n",
         "let c = lab(rgb)\nlet d = lab(vec3(0.18))\nout.r = 0.25 * c.l + 0.75 * d.l - b / 4\n"
         "out.g = 0.25 * c.a + 0.75 * d.a - b / 4\nout.b = 0.25 * c.b + 0.75 * d.b - r / 4\n");
    same("let c = ycbcr709(rgb)\nc.cbcr = 0.5 * c.cbcr\nout.rgb = rgb(c)\n",
         "let c = ycbcr709(rgb)\nc.cb *= 0.5\nc.cr *= 0.5\nout.rgb = rgb(c)\n");
    good_rule("let c = ycbcr709(rgb)\nc.cbcr = blur(c.cbcr, 2)\nout.rgb = rgb(c)\n");
}

TEST_CASE("zones have a softness for each border, and the two forms agree", "[builtins]") {
    same("out.rgb = zones(g, 0.2, 0.6, 0.1, 0.1)\n", "out.rgb = zones(g, 0.2, 0.6, 0.1)\n");
    same("out.rgb = zones(g, 0.2, 0.6, 0.3, 0.05)\n",
         "let low = smoothstep(0.05, 0.35, g)\nlet high = smoothstep(0.575, 0.625, g)\n"
         "out.r = 1 - low\nout.g = low * (1 - high)\nout.b = low * high\n");
}

TEST_CASE("a limit of a proof may be written with <=, and a type behind a colon everywhere", "[lang]") {
    const lang::Rule rule = good_rule("proof \"same\" : identity <= 1e-6\n");
    REQUIRE(rule.proofs.size() == 1);
    CHECK(rule.proofs[0].function == "identity");
    CHECK(rule.proofs[0].limit == 1e-6);
    const std::string old = "fn half(c vec3,x float , y) = c * x * y\nout.rgb = half(rgb, 0.5, 1)\n",
                      now = "fn half(c : vec3, x : float, y) = c * x * y\nout.rgb = half(rgb, 0.5, 1)\n";
    good_rule(old);
    CHECK(lang::formatted(old) == now);
    CHECK(lang::formatted(now) == now);
    same(old, now);
    CHECK(lang::formatted("fn f(c vec3,\n     x float) {\n    c * x\n}\n") ==
          "fn f(c : vec3,\n     x : float) {\n    c * x\n}\n");
}
