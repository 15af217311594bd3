#include "builtins/row.hpp"

#include <algorithm>
#include <numbers>

namespace kasuri::builtins {
namespace {

/// A soft step from 0 to 1 around `edge`, `softness` wide; a hard one for softness 0 or less.
double soft_step(double edge, double softness, double x) {
    if (std::isnan(edge) || std::isnan(softness) || std::isnan(x))
        return not_a_number;
    const double narrow = std::max(softness, 1e-6);
    const double t = std::clamp((x - edge) / narrow + 0.5, 0.0, 1.0);
    return t * t * (3 - 2 * t);
}
NodeId soft_step(Graph& g, NodeId edge, NodeId softness, NodeId x) {
    const NodeId narrow = g.max(softness, g.constant(1e-6));
    const NodeId low = g.sub(edge, g.mul(g.constant(0.5), narrow));
    const NodeId t = g.clamp01(g.mul(g.sub(x, low), g.div(g.constant(1), narrow)));
    return g.mul(g.mul(t, t), g.sub(g.constant(3), g.mul(g.constant(2), t)));
}

double in_turn(double degrees) { return degrees - 360 * std::floor(degrees / 360); }
NodeId in_turn(Graph& g, NodeId degrees) {
    return g.sub(degrees, g.mul(g.constant(360), g.make(Op::floor, g.mul(degrees, g.constant(1.0 / 360)))));
}

constexpr double degree = std::numbers::pi / 180;
constexpr std::string_view own = "own definition, as its line says";

/// Of x, the two borders, and one softness for both or one for each.
void zone_shares(Shape shape, const double* const* x, double* r) {
    const double* const soft_high = shape.count == 5 ? x[4] : x[3];
    const double above_low = soft_step(*x[1], *x[3], *x[0]), above_high = soft_step(*x[2], *soft_high, *x[0]);
    r[0] = 1 - above_low;
    r[1] = above_low * (1 - above_high);
    r[2] = above_low * above_high;
}

void lower_zone_shares(Graph& g, Shape shape, const NodeId* const* x, NodeId* r) {
    const NodeId above_low = soft_step(g, *x[1], *x[3], *x[0]),
                 above_high = soft_step(g, *x[2], shape.count == 5 ? *x[4] : *x[3], *x[0]);
    r[0] = g.sub(g.constant(1), above_low);
    r[2] = g.mul(above_low, above_high);
    r[1] = g.sub(above_low, r[2]);
}

} // namespace

std::vector<Builtin> masks() {
    Rows table;
    const lang::Slot number = exactly(float_type), point = exactly(vec2_type);
    table
        .typed("zones", {"x", "low", "high", "softness"}, {number, number, number, number}, exactly(vec3_type),
               "Shares of the dark, middle and light zone, which always sum to 1: below low, between, above high; each "
               "border is a smoothstep `softness` wide around it.",
               own, {{{0.1, 0.3, 0.7, 0.2}, 1}, {{0.3, 0.3, 0.7, 0.2}, 0.5}, {{0.5, 0.3, 0.7, 0.2}, 0}}, zone_shares,
               lower_zone_shares)
        .jumps = true;
    // Its two borders may be of different softness.
    table
        .typed("zones", {"x", "low", "high", "soft_low", "soft_high"}, {number, number, number, number, number},
               exactly(vec3_type), "The same with a softness for each border.", own,
               {{{0.1, 0.3, 0.7, 0.2, 0.1}, 1}, {{0.3, 0.3, 0.7, 0.2, 0.1}, 0.5}, {{0.5, 0.3, 0.7, 0.2, 0.1}, 0}},
               zone_shares, lower_zone_shares)
        .jumps = true;
    table
        .typed(
            "band", {"hue", "centre", "width", "softness"}, {number, number, number, number}, exactly(float_type),
            "1 within half the width of a hue (degrees, round the circle), 0 outside; each border is a smoothstep "
            "`softness` wide around it.",
            own, {{{350, 10, 60, 20}, 1}, {{40, 10, 60, 20}, 0.5}, {{340, 10, 60, 20}, 0.5}, {{180, 10, 60, 20}, 0}},
            [](Shape, const double* const* x, double* r) {
                const double away = in_turn(*x[0] - *x[1]);
                *r = soft_step(-*x[2] / 2, *x[3], -minimum(away, 360 - away));
            },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
                const NodeId away = in_turn(g, g.sub(*x[0], *x[1]));
                const NodeId distance = g.min(away, g.sub(g.constant(360), away));
                *r = soft_step(g, g.neg(g.mul(g.constant(0.5), *x[2])), *x[3], g.neg(distance));
            })
        .jumps = true;
    table
        .typed(
            "disc", {"p", "centre", "radius", "softness"}, {point, point, number, number}, exactly(float_type),
            "1 inside a disc, 0 outside; the rim is a smoothstep `softness` wide around it. For a round disc in pos, "
            "multiply its x by aspect.",
            own,
            {{{0.5, 0.5, 0.5, 0.5, 0.25, 0.1}, 1},
             {{0.75, 0.5, 0.5, 0.5, 0.25, 0.1}, 0.5},
             {{1, 0.5, 0.5, 0.5, 0.25, 0.1}, 0}},
            [](Shape, const double* const* x, double* r) {
                *r = soft_step(
                    -*x[2], *x[3],
                    -std::sqrt((x[0][0] - x[1][0]) * (x[0][0] - x[1][0]) + (x[0][1] - x[1][1]) * (x[0][1] - x[1][1])));
            },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
                const NodeId dx = g.sub(x[0][0], x[1][0]), dy = g.sub(x[0][1], x[1][1]);
                const NodeId distance = g.make(Op::sqrt, g.add(g.mul(dx, dx), g.mul(dy, dy)));
                *r = soft_step(g, g.neg(*x[2]), *x[3], g.neg(distance));
            })
        .jumps = true;
    table
        .typed(
            "box", {"p", "centre", "half", "softness"}, {point, point, point, number}, exactly(float_type),
            "1 inside a rectangle of half its width and height, 0 outside; each side is a smoothstep `softness` wide "
            "around it.",
            own,
            {{{0.5, 0.5, 0.5, 0.5, 0.25, 0.25, 0.1}, 1},
             {{0.75, 0.5, 0.5, 0.5, 0.25, 0.25, 0.1}, 0.5},
             {{0.5, 0.9, 0.5, 0.5, 0.25, 0.25, 0.1}, 0}},
            [](Shape, const double* const* x, double* r) {
                *r = soft_step(-x[2][0], *x[3], -std::fabs(x[0][0] - x[1][0])) *
                    soft_step(-x[2][1], *x[3], -std::fabs(x[0][1] - x[1][1]));
            },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
                NodeId side[2];
                for (int i = 0; i < 2; ++i)
                    side[i] = soft_step(g, g.neg(x[2][i]), *x[3], g.neg(g.make(Op::abs, g.sub(x[0][i], x[1][i]))));
                *r = g.mul(side[0], side[1]);
            })
        .jumps = true;
    table
        .typed(
            "gradient", {"p", "from", "to"}, {point, point, point}, exactly(float_type),
            "0 at `from`, 1 at `to`, straight between them and level beyond; NaN where the two are the same point.",
            own, {{{0.5, 0.9, 0, 0, 1, 0}, 0.5}, {{-1, 0, 0, 0, 1, 0}, 0}, {{2, 2, 0, 0, 1, 1}, 1}},
            [](Shape, const double* const* x, double* r) {
                const double dx = x[2][0] - x[1][0], dy = x[2][1] - x[1][1];
                *r =
                    minimum(maximum(((x[0][0] - x[1][0]) * dx + (x[0][1] - x[1][1]) * dy) / (dx * dx + dy * dy), 0), 1);
            },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
                const NodeId dx = g.sub(x[2][0], x[1][0]), dy = g.sub(x[2][1], x[1][1]);
                const NodeId along = g.add(g.mul(g.sub(x[0][0], x[1][0]), dx), g.mul(g.sub(x[0][1], x[1][1]), dy));
                *r = g.clamp01(g.div(along, g.add(g.mul(dx, dx), g.mul(dy, dy))));
            })
        .tolerance = 2e-5;
    table
        .typed(
            "polar", {"p"}, {point}, point,
            "Distance from the origin, and angle in degrees from 0 to 360: 0 points along x (to the right), 90 along y "
            "(down, in pictures), so angles run clockwise on screen. The angle at the origin is 0.",
            own, {{{3, 4}, 5}, {{0, 0}, 0}},
            [](Shape, const double* const* x, double* r) {
                r[0] = std::hypot(x[0][0], x[0][1]);
                r[1] = in_turn(std::atan2(x[0][1], x[0][0]) / degree);
            },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
                r[0] = g.make(Op::sqrt, g.add(g.mul(x[0][0], x[0][0]), g.mul(x[0][1], x[0][1])));
                const NodeId angle = g.mul(g.make(Op::atan2, x[0][1], x[0][0]), g.constant(1 / degree));
                r[1] = g.select(g.less(angle, g.constant(0)), g.add(angle, g.constant(360)), angle);
            })
        .tolerance = 1e-5;
    table.typed(
        "cartesian", {"p"}, {point}, point, "From distance and angle in degrees back to x and y.", own,
        {{{2, 0}, 2}, {{2, 180}, -2}},
        [](Shape, const double* const* x, double* r) {
            r[0] = x[0][0] * std::cos(x[0][1] * degree);
            r[1] = x[0][0] * std::sin(x[0][1] * degree);
        },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            const NodeId angle = g.mul(x[0][1], g.constant(degree));
            r[0] = g.mul(x[0][0], g.make(Op::cos, angle));
            r[1] = g.mul(x[0][0], g.make(Op::sin, angle));
        });
    return std::move(table.rows);
}

} // namespace kasuri::builtins
