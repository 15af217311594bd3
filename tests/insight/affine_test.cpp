#include "colour/space.hpp"
#include "engine/reference.hpp"
#include "insight/affine.hpp"
#include "support/support.hpp"

#include <cmath>
#include <random>

using namespace kasuri;
using namespace kasuri::insight;
using namespace kasuri::test;

namespace {

std::optional<Affine> of(const std::string& text, std::vector<double> values = {}) {
    const lang::Rule rule = good_rule(text);
    if (values.empty())
        values = defaults(rule);
    return affine(rule, values);
}

} // namespace

TEST_CASE("a matrix is recognised however it is written", "[insight]") {
    const Affine swap{{{{0, 1, 0}, {1, 0, 0}, {0, 0, 1}}}, {}};
    for (const char* text :
         {"out.rgb = rgb.grb", "out.rg = out.gr", "out.rgb = mat3(0, 1, 0,  1, 0, 0,  0, 0, 1) * rgb",
          "let kept = r\nout.r = g\nout.g = kept", "fn swapped(c vec3) = c.grb\nout.rgb = swapped(rgb)",
          "out.r = r + (g - r)\nout.g = r"}) {
        INFO(text);
        REQUIRE(of(text));
        CHECK(*of(text) == swap);
    }
    CHECK(of("")->is_identity());
    CHECK(of("out.rgb = rgb.bgr\nout.rgb = out.bgr")->is_identity()); // together they do nothing
    const auto grey = of("out.rgb = vec3(0.25 * r + 0.5 * g + 0.25 * b + 0.125)");
    CHECK(grey->matrix[2] == std::array<double, 3>{0.25, 0.5, 0.25});
    CHECK(grey->offset == std::array<double, 3>{0.125, 0.125, 0.125});
    CHECK(grey->determinant() == 0);
    CHECK_FALSE(grey->inverse());
    CHECK(of("out.rgb = (rgb - 0.5) / 2 + 0.5")->offset[0] == 0.25);
}

TEST_CASE("parameters make a rule a matrix, or not", "[insight]") {
    const std::string dyes = "param meet = 0.5 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, "
                             "meet)\nout.b = mix(b, shared, meet)";
    // By hand: g becomes (1 - m / 2) g + m / 2 b.
    CHECK(of(dyes, {0.5})->matrix[1] == std::array<double, 3>{0, 0.75, 0.25});
    CHECK(of(dyes, {1})->row_sums() == std::array<double, 3>{1, 1, 1});
    CHECK(of(dyes, {0})->is_identity());
    const std::string sometimes =
        "param curve = 0 in 0 .. 1\nparam on = true\nout.rgb = on ? rgb * 2 : rgb * rgb\nout.r += curve * r * g";
    CHECK(of(sometimes, {0, 1})->matrix[0][0] == 2);
    CHECK_FALSE(of(sometimes, {0, 0}));
    CHECK(of("param gain = 1 in 0 .. 2\nout.rgb = rgb * sqrt(gain * 4)", {1})->matrix[1][1] == 2);
}

TEST_CASE("what is no matrix is never called one", "[insight]") {
    for (const char* text : {"out.rgb = rgb * rgb", "out.r = clamp(r, 0, 1)", "out.r = max(r, 0)",
                             "let c = hsv(rgb)\nc.s *= 2\nout.rgb = rgb(c)", "out.r = r > 0.5 ? r : g",
                             "out.r = r * pos.x", "out.rgb = rgb * a", "out.a = r", "out.rgb = blur(rgb, 2)",
                             "out.r = r / g", "source lamp : vec3\nout.rgb = rgb + lamp", "out.r = 1 / 0 * r"}) {
        INFO(text);
        CHECK_FALSE(of(text));
    }
}

TEST_CASE("the matrix does to any colour what the reference does", "[insight]") {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> number(-2, 2);
    for (int round = 0; round < 40; ++round) {
        std::string text;
        for (const char* to : {"r", "g", "b"})
            text += std::string("let new_") + to + " = " + std::to_string(number(random)) + " * r - " +
                std::to_string(number(random)) + " * (g + b) / 3 + mix(g, b, " + std::to_string(number(random)) + ")\n";
        text += "out.rgb = mat3(1, 0.5, 0, 0, 1, 0.25, -1, 0, 1) * vec3(new_r, new_g, new_b) + vec3(0.1, 0, -0.2)\n";
        const lang::Rule rule = good_rule(text);
        const auto found = affine(rule, {});
        REQUIRE(found);
        engine::ReferencePixel pixel;
        pixel.rgba = {number(random), number(random), number(random), 1};
        const auto wanted = engine::reference(rule, {}, pixel);
        const auto made = (*found)({pixel.rgba[0], pixel.rgba[1], pixel.rgba[2]});
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(made[c] == Approx(wanted[c]).margin(1e-12));
        const auto back = found->inverse();
        REQUIRE(back);
        const auto again = (*back)(made);
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(again[c] == Approx(pixel.rgba[c]).margin(1e-9 * (1 + 1 / std::fabs(found->determinant()))));
    }
}

TEST_CASE("conversions between linear spaces are the published matrices", "[insight]") {
    // ITU-R BT.2087-0, annex 1: linear BT.709 to linear BT.2020.
    const double published[3][3] = {{0.6274, 0.3293, 0.0433}, {0.0691, 0.9195, 0.0114}, {0.0164, 0.0880, 0.8956}};
    const auto found = of("out.rgb = to_rec2020_linear(rgb)");
    REQUIRE(found);
    for (std::size_t row = 0; row < 3; ++row)
        for (std::size_t i = 0; i < 3; ++i)
            CHECK(found->matrix[row][i] == Approx(published[row][i]).margin(5e-5));
}
