#include "engine/reference.hpp"
#include "insight/algebra.hpp"
#include "insight/polynomial.hpp"
#include "insight/summary.hpp"
#include "support/support.hpp"

#include <cmath>
#include <random>

using namespace kasuri;
using namespace kasuri::insight;
using namespace kasuri::test;

namespace {
bool identity(const std::string& text) {
    const lang::Rule rule = good_rule(text);
    return shown_identity(rule);
}
bool neutral(const std::string& text) { return shown_neutral(good_rule(text)); }
bool grey_kept(const std::string& text) { return shown_grey_kept(good_rule(text)); }
bool luminance_kept(const std::string& text) { return shown_sum_kept(good_rule(text), {0.25, 0.5, 0.25}); }
bool equal(const std::string& a, const std::string& b) { return shown_equal(good_rule(a), good_rule(b)); }

const std::string dyes = "param meet = 0 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, "
                         "meet)\nout.b = mix(b, shared, meet)\n";
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
    CHECK(luminance_kept(
        "let made = 0.25 * g + 0.5 * r + 0.25 * b\nout.rgb = rgb.grb * ((0.25 * r + 0.5 * g + 0.25 * b) / made)"));
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

TEST_CASE("what is known is said with its numbers", "[insight]") {
    const lang::Rule rule = good_rule(dyes);
    const std::vector<double> full = {1};
    const Known at_full = known(subject::Subject(rule, full));
    CHECK(
        (at_full.matrix && at_full.identity_at_defaults && at_full.grey_kept && !at_full.curves && !at_full.identity));
    CHECK(in_short(at_full) == "an exact matrix");
    const std::string text = described(at_full);
    CHECK(text.find("cannot be undone") != std::string::npos);
    CHECK(text.find("rows sum to 1, 1, 1; determinant 0") != std::string::npos);
    CHECK(described(known(rule)).starts_with("changes nothing at these values\n"));
    CHECK(in_short(known(good_rule("out.rgb = rgb * 2"))) == "three gains");
    CHECK(in_short(known(good_rule("out.rgb = sqrt(rgb)"))) == "three curves");
    CHECK(described(known(good_rule("out.r = g * b"))).empty());
    CHECK(described(
              known(good_rule("out.r = r - 0.71516867876775593 * (r - g)\nout.g = g + 0.21263900587151027 * (r - g)")))
              .find("luminance is kept") != std::string::npos);
}

TEST_CASE("a matrix is shown through choices and colour models that come to nothing", "[insight]") {
    const auto of = [](const std::string& text, std::vector<double> values = {}) {
        const lang::Rule rule = good_rule(text);
        return shown_matrix(subject::Subject(rule, values.empty() ? defaults(rule) : values));
    };
    const std::string dyed =
        dyes + "param depth = 0 in -1 .. 1\nlet c = hsv(out.rgb)\nc.v *= 1 - depth * c.s\nout.rgb = rgb(c)";
    REQUIRE(of(dyed, {0.5, 0}));
    CHECK(of(dyed, {0.5, 0})->matrix[1] == std::array<double, 3>{0, 0.75, 0.25});
    CHECK_FALSE(of(dyed, {0.5, 0.1}));
    REQUIRE(of("out.r = g > b ? g + r - r : g")); // both ways the same
    CHECK(of("out.r = g > b ? g + r - r : g")->matrix[0] == std::array<double, 3>{0, 1, 0});
    CHECK_FALSE(of("out.r = g > b ? g : b"));
    CHECK(of("out.rgb = (rgb + 1) * (rgb + 1) - rgb * rgb")->matrix[2] == std::array<double, 3>{0, 0, 2});
    CHECK_FALSE(of("out.rgb = rgb * rgb"));
    CHECK_FALSE(of("out.a = 0.5"));
    CHECK_FALSE(of("out.r = clamp(r, 0, 1)"));
}

TEST_CASE("small numbers are not taken for nothing", "[insight]") {
    CHECK_FALSE(equal("out.r = (r * 0.000000001) / (g * 0.000000001)", "out.r = 1"));
    CHECK_FALSE(equal("out.rgb = rgb * 0.000000001", "out.rgb = rgb.grb * 0.000000001"));
    CHECK_FALSE(neutral("out.rgb = vec3(r * 0.0000000002, g * 0.0000000001, b * 0.0000000001)"));
    CHECK_FALSE(equal("out.r = min(r * 0.0000000001, g * 0.0000000001)", "out.r = r * 0.0000000001"));
    CHECK(equal("out.rgb = rgb * 0.000000001", "out.rgb = 0.000000001 * rgb"));
}

TEST_CASE("what algebra shows of random rules holds for the reference", "[insight]") {
    // Statements of many kinds, in every order; many rules are neutral, a matrix or nothing at all, many are not.
    const char* const statements[] = {
        "out.rg = out.gr",
        "out.rgb = out.gbr",
        "out.g = mix(out.g, out.b, k)",
        "out.b = mix(out.b, out.g, k)",
        "out.rgb *= 1 + m",
        "out.rgb = mat3(0.8, 0.1, 0.1,  0.2, 0.7, 0.1,  0, 0.3, 0.7) * out.rgb",
        "let c@ = hsv(out.rgb)\nc@.s *= 1 + m\nout.rgb = rgb(c@)",
        "let h@ = hsv(out.rgb)\nh@.v *= 1 - m * h@.s\nout.rgb = rgb(h@)",
        "out.rgb = out.r > k ? out.rgb : out.rgb * (1 + m)",
        "out.r = max(out.r, out.g)",
        "out.rgb = out.rgb * (luminance(rgb) / luminance(out.rgb))",
        "out.rgb = saturate(out.rgb, 1 + m)",
        "out.r += m * (out.g - out.b)",
        "out.rgb = (out.rgb + 1) * (out.rgb + 1) - out.rgb * out.rgb - 1",
        "out.rgb = out.rgb - m * average(out.rgb)",
        "out.b = clamp(out.b, 0, 1)",
        "out.rgb = sqrt(max(out.rgb, 0))",
        "keep luminance",
        "out.r = out.r / (out.g + 1) * (out.g + 1)",
        "out.rgb = mix(out.rgb, vec3(out.g), m)",
    };
    std::mt19937 random(11);
    std::uniform_real_distribution<double> number(0.05, 1.5), small(-0.4, 0.4);
    int neutral_rules = 0, matrices = 0, kept = 0, identities = 0;
    for (int trial = 0; trial < 400; ++trial) {
        std::string text = "param k = 0 in -1 .. 1\nparam m = 0 in -1 .. 1\nlet used = k + m\nout.r += 0 * used\n";
        const int count = 1 + static_cast<int>(random() % 4);
        for (int i = 0; i < count; ++i) {
            std::string statement = statements[random() % std::size(statements)];
            for (std::size_t at = statement.find('@'); at != std::string::npos; at = statement.find('@'))
                statement.replace(at, 1, std::to_string(i));
            if (statement == "keep luminance" && text.find("hsv") != std::string::npos)
                continue; // the language hints against it
            text += statement + "\n";
        }
        INFO(text);
        const lang::Rule rule = good_rule(text);
        const std::vector<double> none = {0, 0};
        const bool is_neutral = shown_neutral(rule), keeps = shown_sum_kept(rule, {0.2126, 0.7152, 0.0722}),
                   nothing = shown_identity(subject::Subject(rule, none));
        const auto matrix = shown_matrix(subject::Subject(rule, none));
        neutral_rules += is_neutral ? 1 : 0;
        matrices += matrix ? 1 : 0;
        kept += keeps ? 1 : 0;
        identities += nothing ? 1 : 0;
        for (int colour = 0; colour < 12; ++colour) {
            engine::ReferencePixel pixel;
            for (std::size_t c = 0; c < 3; ++c)
                pixel.rgba[c] = number(random);
            const std::array<double, 3> in = {pixel.rgba[0], pixel.rgba[1], pixel.rgba[2]};
            const std::vector<double> values = {small(random), small(random)};
            const auto any = engine::reference(rule, values, pixel), plain = engine::reference(rule, none, pixel);
            const bool finite = std::isfinite(any[0]) && std::isfinite(any[1]) && std::isfinite(any[2]);
            if (keeps && finite)
                CHECK(std::fabs(0.2126 * (any[0] - in[0]) + 0.7152 * (any[1] - in[1]) + 0.0722 * (any[2] - in[2])) <
                      1e-6);
            for (std::size_t c = 0; c < 3; ++c) {
                if (matrix)
                    CHECK(std::fabs((*matrix)(in)[c] - plain[c]) < 1e-6);
                if (nothing)
                    CHECK(std::fabs(in[c] - plain[c]) < 1e-6);
            }
            pixel.rgba = {in[0], in[0], in[0], 1};
            const auto grey = engine::reference(rule, values, pixel);
            if (is_neutral && std::isfinite(grey[0]))
                CHECK((std::fabs(grey[0] - grey[1]) < 1e-6 && std::fabs(grey[2] - grey[1]) < 1e-6));
        }
    }
    CHECK((neutral_rules > 100 && matrices > 60 && kept > 3 && identities > 20)); // and it says something often
}

TEST_CASE("a question that would take long is given up", "[insight]") {
    std::string text = "param k = 0 in -1 .. 1\nparam m = 0 in -1 .. 1\n";
    for (int i = 0; i < 600; ++i) // sums of products that grow: this took minutes
        text += "out.rgb = (out.rgb + k) * (out.gbr + m) * 0.3 + out.brg * 0.5\n";
    const lang::Rule rule = good_rule(text);
    CHECK_FALSE(shown_neutral(rule));
    CHECK_FALSE(shown_matrix(rule));
    std::string divided = "param k = 0 in -1 .. 1\n";
    for (int i = 0; i < 40; ++i)
        divided += "out.rgb = out.rgb / (out.gbr * out.brg + k + 1) + out.gbr\n";
    CHECK_FALSE(equal(divided, divided + "out.r += g"));
    CHECK(equal("out.r = mix(r, g, 0.25)", "out.r = 0.75 * r + g / 4")); // what is short goes on
}
