#include "insight/algebra.hpp"
#include "insight/polynomial.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::insight;
using namespace kasuri::test;

namespace {
bool identity(const std::string& text) {
    const lang::Rule rule = good_rule(text);
    return shown_identity(rule, defaults(rule));
}
bool neutral(const std::string& text) { return shown_neutral(good_rule(text)); }
bool grey_kept(const std::string& text) { return shown_grey_kept(good_rule(text)); }
bool luminance_kept(const std::string& text) { return shown_sum_kept(good_rule(text), {0.25, 0.5, 0.25}); }
bool equal(const std::string& a, const std::string& b) { return shown_equal(good_rule(a), good_rule(b)); }

const std::string dyes = "param meet = 0 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, meet)\nout.b = mix(b, shared, meet)\n";
} // namespace

TEST_CASE("sums of products multiply out", "[insight]") {
    const Polynomial x = Polynomial::of(0), y = Polynomial::of(1);
    const Polynomial square = x.plus(y).times(x.plus(y));
    CHECK(square.terms().size() == 3);
    CHECK(square.plus(x.times(x), -1).plus(x.times(y), -2).plus(y.times(y), -1).is_zero());
    CHECK(x.plus(y, -1).times(x.plus(y)).key() == x.times(x).plus(y.times(y), -1).key());
    CHECK_FALSE(square.is_zero());
    CHECK(Polynomial(0).is_constant());
    CHECK(x.plus(x, -1).constant() == 0);
}

TEST_CASE("nothing at defaults is shown, not tried", "[insight]") {
    CHECK(identity(""));
    CHECK(identity(dyes));
    CHECK(identity("out.rgb = rgb.gbr\nout.rgb = out.brg"));
    CHECK(identity("param k = 0 in -1 .. 1\nlet c = hsv(rgb)\nc.v *= 1 - k * c.s\nout.rgb = rgb(c)"));
    CHECK_FALSE(identity("param k = 0.001 in -1 .. 1\nout.r *= 1 + k"));
    CHECK_FALSE(identity("out.a = 1"));
    CHECK_FALSE(identity("out.rgb = clamp(rgb, 0, 1)"));
    CHECK_FALSE(identity("out.rgb = rgb * 1.00001"));
}

TEST_CASE("greys are shown to stay grey for every value of every parameter", "[insight]") {
    CHECK(neutral(dyes));
    CHECK(neutral("param k = 0 in -1 .. 1\nout.r = (1 - k) * r + k * g"));
    CHECK(neutral("param k = 1 in 0 .. 4\nlet c = hsv(rgb)\nc.s *= k\nout.rgb = rgb(c)"));
    CHECK(neutral("out.rgb = pow(max(rgb, 0), vec3(1.5))"));
    CHECK(neutral("param k = 1 in 0 .. 4\nout.rgb = rgb.r > k ? rgb : rgb * rgb"));
    CHECK(neutral("out.rgb = blur(rgb, 3)"));
    CHECK(neutral("out.rgb = rgb.grb\nkeep luminance"));
    CHECK_FALSE(neutral("param k = 0 in -1 .. 1\nout.r *= 1 + k"));
    CHECK_FALSE(neutral("param k = 0 in -1 .. 1\nout.r = k > 0.5 ? r * 2 : r")); // only beyond one of the ways
    CHECK_FALSE(neutral("out.r = sqrt(r)"));
    CHECK(grey_kept(dyes));
    CHECK_FALSE(grey_kept("out.rgb = rgb * 2"));
    CHECK(grey_kept("out.rgb = mat3(0.8, 0.1, 0.1,  0, 0.9, 0.1,  -0.2, 0.2, 1) * rgb"));
}

TEST_CASE("a kept sum is shown through divisions and their guards", "[insight]") {
    CHECK(luminance_kept("out.r = r + 0.2 * (g - b)\nout.g = g - 0.1 * (g - b)"));
    CHECK_FALSE(luminance_kept("out.r = r + 0.2 * (g - b)"));
    CHECK(luminance_kept("let made = 0.25 * g + 0.5 * r + 0.25 * b\nout.rgb = rgb.grb * ((0.25 * r + 0.5 * g + 0.25 * b) / made)"));
    const lang::Rule rule = good_rule("out.rgb = rgb.brg\nkeep luminance");
    CHECK_FALSE(shown_sum_kept(rule, {1, 0, 0}));
}

TEST_CASE("two rules are shown to be one", "[insight]") {
    CHECK(equal("out.r = mix(r, g, 0.25)", "out.r = 0.75 * r + g / 4"));
    CHECK(equal(dyes, "param meet = 0 in 0 .. 1\nlet half = 0.5 * meet * (b - g)\nout.g += half\nout.b -= half"));
    CHECK(equal("out.rgb = (rgb + 1) * (rgb - 1)", "out.rgb = rgb * rgb - 1"));
    CHECK(equal("out.r = sqrt(r + g)", "out.r = sqrt(g + r)"));
    CHECK(equal("out.r = r > g ? r : g * 2", "out.r = g < r ? r : g + g"));
    CHECK_FALSE(equal("out.r = max(r, g)", "out.r = min(r, g)"));
    CHECK_FALSE(equal("out.r = r", "out.r = r + 0.0001"));
    CHECK_FALSE(equal("param k = 0 in 0 .. 1\nout.r += k", "param m = 0 in 0 .. 1\nout.r += m")); // other parameters
}

TEST_CASE("three curves of their own", "[insight]") {
    CHECK(separable(good_rule("out.rgb = srgb_encode(rgb)")));
    CHECK(separable(good_rule("out.r = r * r\nout.b = sqrt(b)")));
    CHECK(separable(good_rule("out.rgb = rgb.gbr\nout.rgb = out.brg")));
    CHECK_FALSE(separable(good_rule("out.r = g")));
    CHECK_FALSE(separable(good_rule("out.rgb = blur(rgb, 1)")));
    CHECK_FALSE(separable(good_rule("out.rgb = rgb * pos.x")));
    CHECK_FALSE(separable(good_rule("out.rgb = rgb * a")));
    CHECK(dependence(good_rule("out.r = g + b"))[0] == std::array<bool, 4>{false, true, true, false});
}
