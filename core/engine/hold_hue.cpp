#include "engine/hold_hue.hpp"

#include <cmath>
#include <numbers>

namespace kasuri::engine {

using colour::NodeTriple;
using colour::Triple;
using ir::Graph;
using ir::NodeId;
using ir::Op;

namespace {

bool neutral(const Triple& c) { return c[0] == c[1] && c[1] == c[2]; }

/// Rodrigues's formula about the axis (1, 1, 1) / sqrt(3).
Triple turned(const Triple& v, double angle) {
    const double sum = (v[0] + v[1] + v[2]) / 3 * (1 - std::cos(angle)), s = std::sin(angle) / std::numbers::sqrt3;
    return {v[0] * std::cos(angle) + s * (v[2] - v[1]) + sum, v[1] * std::cos(angle) + s * (v[0] - v[2]) + sum,
            v[2] * std::cos(angle) + s * (v[1] - v[0]) + sum};
}

double angle_of(const Triple& c) { return std::atan2(std::numbers::sqrt3 * (c[1] - c[2]), 2 * c[0] - c[1] - c[2]); }

struct Turn {
    NodeId cosine, sine;
};

/// From the direction (x, y) to (u, v); no turn where either is nothing.
Turn turn_between(Graph& g, NodeId x, NodeId y, NodeId u, NodeId v) {
    const NodeId dot = g.add(g.mul(x, u), g.mul(y, v)), cross = g.sub(g.mul(x, v), g.mul(y, u));
    const NodeId size = g.make(Op::sqrt, g.add(g.mul(dot, dot), g.mul(cross, cross))),
                 none = g.less_equal(size, g.constant(0));
    return {g.select(none, g.constant(1), g.div(dot, size)), g.select(none, g.constant(0), g.div(cross, size))};
}

/// A colour's place in the plane across the axis r = g = b: along red, and across it.
std::array<NodeId, 2> across(Graph& g, const NodeTriple& c) {
    return {g.add(g.sub(c[0], c[1]), g.sub(c[0], c[2])), g.mul(g.constant(std::numbers::sqrt3), g.sub(c[1], c[2]))};
}

} // namespace

Triple reference_held_hue(const colour::Space& space, const lang::ModelShape* shape, const Triple& wanted,
                          const Triple& came, const Triple& out) {
    if (neutral(wanted) || neutral(came))
        return out;
    if (!shape)
        return turned(out, angle_of(wanted) - angle_of(came));
    const colour::Model& model = *colour::find_model(shape->name);
    const Triple before = from_rgb(model, space, wanted), after = from_rgb(model, space, came);
    Triple c = from_rgb(model, space, out);
    if (shape->hue == lang::HueWay::angle) {
        c[shape->angle] += before[shape->angle] - after[shape->angle];
    } else {
        const double angle = std::atan2(before[2], before[1]) - std::atan2(after[2], after[1]);
        c = {c[0], c[1] * std::cos(angle) - c[2] * std::sin(angle), c[1] * std::sin(angle) + c[2] * std::cos(angle)};
    }
    return to_rgb(model, space, c);
}

NodeTriple held_hue(Graph& g, const colour::Space& space, const lang::ModelShape* shape, const NodeTriple& wanted,
                    const NodeTriple& came, const NodeTriple& out) {
    if (!shape) {
        const auto to = across(g, wanted), from = across(g, came);
        const Turn turn = turn_between(g, from[0], from[1], to[0], to[1]);
        // The rows of the turn sum to 1: from the differences to green, neutrals stay exactly.
        const NodeId third = g.mul(g.constant(1.0 / 3), g.sub(g.constant(1), turn.cosine)),
                     part = g.mul(g.constant(1 / std::numbers::sqrt3), turn.sine);
        const NodeId own = g.add(third, turn.cosine), plus = g.add(third, part), minus = g.sub(third, part);
        const NodeId red = g.sub(out[0], out[1]), blue = g.sub(out[2], out[1]);
        const auto row = [&](NodeId of_red, NodeId of_blue) {
            return g.add(g.add(out[1], g.mul(of_red, red)), g.mul(of_blue, blue));
        };
        return {row(own, plus), row(plus, minus), row(minus, own)};
    }
    const colour::Model& model = *colour::find_model(shape->name);
    const NodeTriple before = lower_from_rgb(g, model, space, wanted), after = lower_from_rgb(g, model, space, came);
    NodeTriple c = lower_from_rgb(g, model, space, out);
    if (shape->hue == lang::HueWay::angle) {
        const auto grey = [&](const NodeTriple& x) {
            return g.make(Op::logical_and, g.equal(x[0], x[1]), g.equal(x[1], x[2]));
        };
        const NodeId none = g.make(Op::logical_or, grey(wanted), grey(came));
        c[shape->angle] =
            g.add(c[shape->angle], g.select(none, g.constant(0), g.sub(before[shape->angle], after[shape->angle])));
    } else {
        const Turn turn = turn_between(g, after[1], after[2], before[1], before[2]);
        c = {c[0], g.sub(g.mul(c[1], turn.cosine), g.mul(c[2], turn.sine)),
             g.add(g.mul(c[1], turn.sine), g.mul(c[2], turn.cosine))};
    }
    return lower_to_rgb(g, model, space, c);
}

} // namespace kasuri::engine
