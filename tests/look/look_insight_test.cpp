// Looks as subjects: slopes and algebra of several rules in a row, against differences of what the tiles make, and
// against hand-made answers.
#include "insight/algebra.hpp"
#include "insight/derivative.hpp"
#include "look/make.hpp"
#include "support/support.hpp"

#include <random>

using namespace kasuri;
using namespace kasuri::test;

namespace {

subject::Subject look_of(std::initializer_list<document::LookStep> steps) {
    document::Look look;
    look.steps = steps;
    const auto made = look::make(look, {});
    REQUIRE(made);
    return made.value().subject.fixed();
}

document::LookStep step(const char* text, double opacity = 1, const char* mask = "", const char* blend = "normal") {
    document::LookStep made;
    made.text = text;
    made.opacity = opacity;
    made.mask = mask;
    made.blend = blend;
    return made;
}

std::array<double, 3> through(const engine::Program& program, const std::array<double, 3>& colour) {
    std::array<float, 3> in{}, out{};
    for (std::size_t c = 0; c < 3; ++c)
        in[c] = static_cast<float>(colour[c]);
    const engine::Source source{1, 1, {&in[0], &in[1], &in[2], {}}};
    float* const outputs[3] = {&out[0], &out[1], &out[2]};
    REQUIRE(engine::run(program, source, {}, std::span<float* const>(outputs)));
    return {static_cast<double>(out[0]), static_cast<double>(out[1]), static_cast<double>(out[2])};
}

engine::ProgramPtr colours_of(const subject::Subject& look) {
    ir::Graph graph;
    engine::CompileOptions options;
    options.colour_only = true;
    const std::vector<ir::NodeId> outputs = look.lower(graph, options);
    REQUIRE(outputs.size() == 3);
    return std::make_shared<const engine::Program>(graph, outputs);
}

} // namespace

TEST_CASE("slopes of a look are those of what it does", "[insight][look]") {
    const subject::Subject look =
        look_of({step("param k = 1.5 in 0 .. 2\nout.rgb = pow(rgb, vec3(k))"),
                 step("working srgb\nout.r = 0.5 * r + 0.5 * g", 0.7),
                 step("out.rgb = rgb * 0.8", 1, "smoothstep(0.1, 0.6, luminance(rgb))", "multiply")});
    const engine::ProgramPtr slopes = insight::derivative(look), colours = colours_of(look);
    std::mt19937 random(11);
    std::uniform_real_distribution<double> number(0.15, 0.85);
    for (int i = 0; i < 40; ++i) {
        const std::array<double, 3> at = {number(random), number(random), number(random)};
        const std::array<float, 3> one[] = {
            {static_cast<float>(at[0]), static_cast<float>(at[1]), static_cast<float>(at[2])}};
        const insight::Jacobian jacobian = insight::jacobians(*slopes, {}, one).front();
        constexpr double h = 2e-3; // floats: not much smaller
        for (std::size_t c = 0; c < 3; ++c) {
            std::array<double, 3> low = at, high = at;
            low[c] -= h;
            high[c] += h;
            const auto below = through(*colours, low), above = through(*colours, high);
            for (std::size_t o = 0; o < 3; ++o)
                CHECK(jacobian[o][c] == Approx((above[o] - below[o]) / (2 * h)).margin(4e-3));
        }
    }
}

TEST_CASE("opacity, masks and blend modes are part of what is shown of a look", "[insight][look]") {
    const auto matrix = [](const subject::Subject& look) { return insight::shown_matrix(look); };
    const auto half = matrix(look_of({step("out.rgb = rgb.gbr", 0.5)}));
    REQUIRE(half);
    CHECK(half->matrix[0][0] == Approx(0.5));
    CHECK(half->matrix[0][1] == Approx(0.5));
    CHECK_FALSE(matrix(look_of({step("out.rgb = rgb.gbr", 1, "r")})));
    CHECK_FALSE(matrix(look_of({step("out.rgb = rgb.gbr", 1, "", "multiply")})));
    const auto masked_by_nothing = matrix(look_of({step("out.rgb = rgb.gbr", 1, "0.25")}));
    REQUIRE(masked_by_nothing);
    CHECK(masked_by_nothing->matrix[0][0] == Approx(0.75));
    CHECK(insight::shown_neutral((look_of(
        {step("out.rgb = rgb.gbr", 0.5, "r"),
         step("let c = hsv(rgb)\nc.s *= 0.5\nout.rgb = rgb(c)", 0.3, "band(hsv(rgb).h, 120.0, 60.0, 30.0)")}))));
    CHECK_FALSE(
        insight::shown_neutral((look_of({step("out.rgb = rgb.gbr", 0.5, "r"), step("out.b = b * 1.01", 0.3, "r")}))));
    CHECK(insight::separable((look_of({step("out.rgb = pow(rgb, vec3(2.0))"), step("out.r = r + 0.1", 0.5)}))));
    CHECK_FALSE(insight::separable((look_of({step("out.rgb = pow(rgb, vec3(2.0))", 1, "g")}))));
}

TEST_CASE("parameters of one name are one number in both rules", "[insight]") {
    const lang::Rule a = good_rule("param k = 0.5 in 0 .. 1\nparam m = 0 in 0 .. 1\nout.r = r * k + m * g"),
                     b = good_rule("param m = 0 in 0 .. 1\nparam k = 0.5 in 0 .. 1\nout.r = m * g + k * r"),
                     other = good_rule("param m = 0 in 0 .. 1\nparam k = 0.5 in 0 .. 1\nout.r = k * g + m * r");
    CHECK(insight::shown_equal(a, b));
    CHECK_FALSE(insight::shown_equal(a, other));
    CHECK_FALSE(insight::shown_equal(
        a, good_rule("working srgb\nparam k = 0.5 in 0 .. 1\nparam m = 0 in 0 .. 1\nout.r = r * k + m * g")));
}

TEST_CASE("what one colour answers is what thinking answers", "[insight]") {
    // True only where a choice goes one way: no single colour may refute what holds, nor be taken for a proof.
    CHECK(insight::shown_identity(good_rule("out.r = r > 0.5 ? r : r + 0")));
    CHECK_FALSE(insight::shown_identity(
        good_rule("out.r = r > 0.95 ? r + 1 : r"))); // none of the colours that are tried is so bright
    CHECK_FALSE(insight::shown_neutral(good_rule("out.r = r > 40.0 ? g + 1 : r")));
    CHECK(insight::shown_neutral(good_rule("param k = 0 in 0 .. 1\nout.r = r + k * (g - b) * r")));
    CHECK_FALSE(insight::shown_matrix(good_rule("out.r = r > 7.0 ? 7.0 : r"))); // a matrix as far as was tried
    CHECK(insight::shown_identity(good_rule("out.r = r * g / g")));
}
