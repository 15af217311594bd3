#include "engine/evaluate.hpp"
#include "engine/reference.hpp"
#include "insight/derivative.hpp"
#include "ir/derive.hpp"
#include "support/support.hpp"

#include <cmath>
#include <random>

using namespace kasuri;
using namespace kasuri::insight;
using namespace kasuri::test;
using Catch::Matchers::WithinAbs;
using Catch::Matchers::WithinRel;

namespace {

Jacobian at(const std::string& text, std::array<float, 3> colour, std::vector<double> values = {}) {
    const lang::Rule rule = good_rule(text);
    if (values.empty())
        values = defaults(rule);
    return jacobians(*derivative(rule), values, std::span(&colour, 1)).front();
}

/// Central differences of the double reference: no code in common with derivatives.
Jacobian differences(const lang::Rule& rule, std::span<const double> values, const std::array<float, 3>& colour,
                     double step) {
    Jacobian made{};
    for (std::size_t i = 0; i < 3; ++i) {
        engine::ReferencePixel low, high;
        for (std::size_t c = 0; c < 3; ++c)
            low.rgba[c] = high.rgba[c] = static_cast<double>(colour[c]);
        low.rgba[i] -= step;
        high.rgba[i] += step;
        const auto below = engine::reference(rule, values, low), above = engine::reference(rule, values, high);
        for (std::size_t o = 0; o < 3; ++o)
            made[o][i] = (above[o] - below[o]) / (2 * step);
    }
    return made;
}

double apart(const Jacobian& a, const Jacobian& b) {
    double most = 0, size = 1;
    for (std::size_t o = 0; o < 3; ++o)
        for (std::size_t i = 0; i < 3; ++i) {
            most = std::max(most, std::fabs(a[o][i] - b[o][i]));
            size = std::max(size, std::fabs(b[o][i]));
        }
    return most / size;
}

} // namespace

TEST_CASE("slopes that are known by hand", "[insight]") {
    const Jacobian matrix =
        at("out.rgb = mat3(0.8, 0.1, 0.1,  0, 0.9, 0.1,  -0.2, 0.2, 1) * rgb + 0.1", {0.3f, 0.5f, 0.7f});
    CHECK_THAT(matrix[0][0], WithinAbs(0.8, 1e-6));
    CHECK_THAT(matrix[2][0], WithinAbs(-0.2, 1e-6));
    CHECK_THAT(matrix[1][0], WithinAbs(0, 0));
    CHECK_THAT(determinant(matrix), WithinAbs(0.8 * (0.9 - 0.02) - 0.1 * 0.02 + 0.1 * 0.18, 1e-6));
    const Jacobian square = at("out.r = r * r\nout.g = sqrt(g)\nout.b = b * r", {0.25f, 0.25f, 0.5f});
    CHECK_THAT(square[0][0], WithinAbs(0.5, 1e-6));
    CHECK_THAT(square[1][1], WithinAbs(1, 1e-6));
    CHECK_THAT(square[2][0], WithinAbs(0.5, 1e-6));
    CHECK_THAT(square[2][2], WithinAbs(0.25, 1e-6));
    // An identity rule, a swap, and two channels that became one.
    CHECK(noise_gain(at("", {0, 0, 0})) == 1);
    CHECK(volume(at("out.rgb = rgb.grb", {0.1f, 0.2f, 0.3f})) == -1);
    CHECK(volume(at("out.g = b", {0.1f, 0.2f, 0.3f})) == 0);
    CHECK(volume(at("out.g = 0.5", {0.1f, 0.2f, 0.3f})) == 0);
    // Independent noise adds by squares: the rule of error propagation, JCGM 100 (GUM) 5.1.2; 3 x - y - z is sqrt(11)
    // times as loud.
    CHECK_THAT(noise_gain(at("out.r = 3 * r - g - b", {0.2f, 0.2f, 0.2f})), WithinAbs(std::sqrt(11.0), 1e-6));
}

TEST_CASE("the slope of a published curve", "[insight]") {
    // IEC 61966-2-1: the linear part has slope 12.92; above it 1.055 / 2.4 x^(1/2.4 - 1), at 0.5.
    CHECK_THAT(at("out.rgb = srgb_encode(rgb)", {0.002f, 0.5f, 0.5f})[0][0], WithinAbs(12.92, 1e-4));
    CHECK_THAT(at("out.rgb = srgb_encode(rgb)", {0.002f, 0.5f, 0.5f})[1][1],
               WithinAbs(1.055 / 2.4 * std::pow(0.5, 1 / 2.4 - 1), 1e-4));
    // CIE 15: L* = 116 (Y / Yn)^(1/3) - 16.
    CHECK_THAT(at("out.r = lab(vec3(g)).l", {0, 0.4f, 0})[0][1], WithinRel(116.0 / 3 * std::pow(0.4, -2.0 / 3), 1e-4));
}

TEST_CASE("derivatives agree with small steps of the reference", "[insight]") {
    const char* const rules[] = {
        "let c = hsv(rgb)\nc.s *= 0.7\nc.v *= 1 - 0.3 * c.s\nc.h += 20\nout.rgb = rgb(c)",
        "let c = lch(rgb)\nc.c *= 1.3\nc.h += 12\nout.rgb = rgb(c)",
        "let c = oklab(rgb)\nc.l = pow(c.l, 1.2)\nout.rgb = rgb(c)",
        "let c = ictcp(rgb)\nc.ct *= 0.8\nout.rgb = rgb(c)",
        "out.rgb = srgb_decode(srgb_encode(rgb) * 0.9 + 0.02)",
        "out.rgb = mix(rgb, vec3(dot(rgb, vec3(0.2, 0.7, 0.1))), smoothstep(0.2, 0.9, g))",
        "out.rgb = clamp(rgb * 1.2 - 0.05, 0, 1)",
        "out.r = atan(g, b) + sin(3 * r) * cos(2 * g)\nout.g = exp2(g) * log2(b + 1)\nout.b = abs(r - b)",
        "out.r = pow(r, 1 + g)\nout.g = min(r, max(g, b))\nout.b = g / (r + 0.5)",
        "out.rgb = rgb.grb * 0.9\nhold hue of (0.72, 0.49, 0.40)",
        "out.rgb = rgb.brg\nkeep luminance",
        "out.rgb = r > g ? rgb * 2 : rgb * rgb",
        "out.rgb = blend_soft_light(rgb, rgb.gbr)",
        "param amount = 0.6 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, amount)\nout.b = mix(b, "
        "shared, amount)",
    };
    std::mt19937 random(20261126);
    std::uniform_real_distribution<float> number(0.05f, 1.0f);
    int compared = 0;
    for (const char* text : rules) {
        INFO(text);
        const lang::Rule rule = good_rule(text);
        const std::vector<double> values = defaults(rule);
        std::vector<std::array<float, 3>> colours(200);
        for (auto& colour : colours)
            colour = {number(random), number(random), number(random)};
        const std::vector<Jacobian> found = jacobians(*derivative(rule), values, colours);
        for (std::size_t i = 0; i < colours.size(); ++i) {
            const Jacobian wide = differences(rule, values, colours[i], 1e-5),
                           narrow = differences(rule, values, colours[i], 1e-6);
            if (apart(wide, narrow) > 1e-3) // a bend lies between
                continue;
            INFO(colours[i][0] << " " << colours[i][1] << " " << colours[i][2]);
            CHECK(apart(found[i], narrow) < 2e-3);
            ++compared;
        }
    }
    CHECK(compared > 2600);
}

TEST_CASE("every operation of the graph has the slope of its own folding", "[insight]") {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> number(0.1, 0.9);
    for (const ir::OpRow& row : ir::op_table()) {
        if (row.op > ir::Op::hexcone_b || row.op == ir::Op::external || row.arity == 0)
            continue;
        for (int trial = 0; trial < 20; ++trial) {
            INFO(row.name);
            double x[3] = {number(random), number(random), number(random)};
            if (row.op >= ir::Op::hexcone_r && row.op <= ir::Op::hexcone_b)
                x[0] *= 360;
            if (row.op == ir::Op::select || (row.op >= ir::Op::logical_and && row.op <= ir::Op::bit_xor))
                x[0] = trial % 2;
            ir::Graph graph;
            const ir::NodeId made[] = {
                graph.make(row.op, graph.input(ir::Input::r), graph.input(ir::Input::g), graph.input(ir::Input::b))};
            const auto slopes = ir::derivatives(graph, made).front();
            const engine::Program program(graph, slopes);
            float in[3], out[3];
            for (std::size_t i = 0; i < 3; ++i)
                in[i] = static_cast<float>(x[i]);
            float* const sinks[] = {&out[0], &out[1], &out[2]};
            engine::Source source{1, 1, {&in[0], &in[1], &in[2]}};
            engine::run(program, source, {}, std::span<float* const>(sinks));
            for (int i = 0; i < row.arity; ++i) {
                const auto moved = [&](double by) {
                    double y[3] = {x[0], x[1], x[2]};
                    y[i] += by;
                    return ir::folded(row.op, y);
                };
                if (row.op == ir::Op::select && i == 0)
                    continue;
                const double step = 1e-6, slope = (moved(step) - moved(-step)) / (2 * step);
                if (std::fabs(slope) < 1e4) // a jump lies between
                    CHECK_THAT(static_cast<double>(out[i]), WithinAbs(slope, 1e-3 * std::max(1.0, std::fabs(slope))));
            }
        }
    }
}

TEST_CASE("slopes of neighbourhoods, of what is not finite, and of measures", "[insight]") {
    CHECK_THAT(at("out.rgb = blur(rgb * rgb, 2)", {0.25f, 0.5f, 1})[1][1], WithinAbs(1, 1e-5));
    CHECK_THAT(at("out.rgb = dilate(rgb * 3, 2)", {0.25f, 0.5f, 1})[1][1], WithinAbs(3, 1e-5));
    CHECK(std::isnan(at("out.rgb = rgb * rgb", {std::nanf(""), 0, 0})[0][0]));
    // A branch that is not taken must not spoil the slope of the one that is.
    CHECK_THAT(at("out.r = r <= 0 ? r : sqrt(r)", {0, 0, 0})[0][0], WithinAbs(1, 0));
    CHECK(find_measure("volume")->of(at("", {0, 0, 0})) == 1);
    CHECK(find_measure("nothing") == nullptr);
    // What the tiles make of a measure is what is made of the Jacobian.
    const lang::Rule rule = good_rule("let c = hsv(rgb)\nc.s *= 1.5\nout.rgb = rgb(c).brg + 0.2 * rgb * rgb");
    const std::array<float, 3> colour{0.3f, 0.6f, 0.8f};
    const Jacobian slopes = jacobians(*derivative(rule), {}, std::span(&colour, 1)).front();
    for (const Measure& measure : measures()) {
        float result = 0;
        float* const sinks[] = {&result};
        engine::Source source{1, 1, {&colour[0], &colour[1], &colour[2]}};
        engine::run(*measured(rule, measure), source, {}, std::span<float* const>(sinks));
        CHECK_THAT(static_cast<double>(result), WithinAbs(measure.of(slopes), 1e-5));
    }
}
