#pragma once
// Pieces of lowering that several models and curves share.
#include "ir/graph.hpp"

#include <numbers>
#include <optional>

namespace kasuri::colour {

/// value with the sign of x (which is not below 0 itself)
inline ir::NodeId signed_as(ir::Graph& g, ir::NodeId value, ir::NodeId x) {
    return g.select(g.less(x, g.constant(0)), g.neg(value), value);
}

/// x^3, as two products.
inline ir::NodeId cubed(ir::Graph& g, ir::NodeId x) { return g.mul(g.mul(x, x), x); }

/// Of what `cubed` made: that; nothing of anything else.
inline std::optional<ir::NodeId> uncubed(const ir::Graph& g, ir::NodeId x) {
    const ir::Node& node = g[x];
    if (node.op == ir::Op::mul)
        for (std::size_t i = 0; i < 2; ++i) {
            const ir::NodeId one = node.args[1 - i];
            const ir::Node& square = g[node.args[i]];
            if (square.op == ir::Op::mul && square.args[0] == one && square.args[1] == one)
                return one;
        }
    return std::nullopt;
}

/// |x|^exponent with the sign of x. The cube root of a cube is what was cubed: a conversion back and the same one there
/// again, as of a hue that is held after an edit in its own model, meet in it.
inline ir::NodeId signed_power(ir::Graph& g, ir::NodeId x, double exponent) {
    if (const auto root = exponent == 1.0 / 3 ? uncubed(g, x) : std::nullopt)
        return *root;
    return signed_as(g, g.make(ir::Op::pow, g.make(ir::Op::abs, x), g.constant(exponent)), x);
}

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
