#pragma once
// Pieces of lowering that several models and curves share.
#include "ir/graph.hpp"

#include <numbers>

namespace kasuri::colour {

/// value with the sign of x (which is not below 0 itself)
inline ir::NodeId signed_as(ir::Graph& g, ir::NodeId value, ir::NodeId x) {
    return g.select(g.less(x, g.constant(0)), g.neg(value), value);
}

/// |x|^exponent with the sign of x
inline ir::NodeId signed_power(ir::Graph& g, ir::NodeId x, double exponent) {
    return signed_as(g, g.make(ir::Op::pow, g.make(ir::Op::abs, x), g.constant(exponent)), x);
}

/// x^3, as two products.
inline ir::NodeId cubed(ir::Graph& g, ir::NodeId x) { return g.mul(g.mul(x, x), x); }

/// x times a number known now
inline ir::NodeId times(ir::Graph& g, double by, ir::NodeId x) { return g.mul(g.constant(by), x); }

/// a x + b y
inline ir::NodeId sum(ir::Graph& g, double a, ir::NodeId x, double b, ir::NodeId y) {
    return g.add(times(g, a, x), times(g, b, y));
}

/// Of a vector: its angle in degrees, 0 up to 360, and 0 where there is none.
inline ir::NodeId hue_of(ir::Graph& g, ir::NodeId x, ir::NodeId y) {
    const ir::NodeId angle = times(g, 180 / std::numbers::pi, g.make(ir::Op::atan2, y, x));
    return g.select(g.less(angle, g.constant(0)), g.add(angle, g.constant(360)), angle);
}

} // namespace kasuri::colour
