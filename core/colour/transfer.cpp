#include "colour/transfer.hpp"

#include <cmath>

namespace kasuri::colour {

// IEC 61966-2-1:1999, clause 5.2, with its published constants.
double srgb_decode(double encoded) {
    const double x = std::fabs(encoded);
    const double y = x <= 0.04045 ? x / 12.92 : std::pow((x + 0.055) / 1.055, 2.4);
    return std::copysign(y, encoded);
}

double srgb_encode(double linear) {
    const double x = std::fabs(linear);
    const double y = x <= 0.0031308 ? 12.92 * x : 1.055 * std::pow(x, 1 / 2.4) - 0.055;
    return std::copysign(y, linear);
}

namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

/// value with the sign of x
NodeId signed_as(Graph& g, NodeId value, NodeId x) { return g.select(g.less(x, g.constant(0)), g.neg(value), value); }

NodeId lower_srgb_decode(Graph& g, NodeId encoded) {
    const NodeId x = g.make(Op::abs, encoded);
    const NodeId base = g.mul(g.add(x, g.constant(0.055)), g.constant(1 / 1.055));
    const NodeId curved = g.make(Op::pow, base, g.constant(2.4));
    const NodeId straight = g.mul(x, g.constant(1 / 12.92));
    return signed_as(g, g.select(g.less_equal(x, g.constant(0.04045)), straight, curved), encoded);
}

NodeId lower_srgb_encode(Graph& g, NodeId linear) {
    const NodeId x = g.make(Op::abs, linear);
    const NodeId root = g.make(Op::pow, x, g.constant(1 / 2.4));
    const NodeId curved = g.sub(g.mul(g.constant(1.055), root), g.constant(0.055));
    const NodeId straight = g.mul(x, g.constant(12.92));
    return signed_as(g, g.select(g.less_equal(x, g.constant(0.0031308)), straight, curved), linear);
}

double same(double x) { return x; }
NodeId lower_same(Graph&, NodeId x) { return x; }

constexpr Transfer table[] = {
    {"linear", "Proportional to light.", "by definition", same, same, lower_same, lower_same},
    {"srgb", "The display encoding of IEC 61966-2-1.", "IEC 61966-2-1:1999, clause 5.2", srgb_decode, srgb_encode,
     lower_srgb_decode, lower_srgb_encode},
};

} // namespace

std::span<const Transfer> transfers() { return table; }

const Transfer* find_transfer(std::string_view name) {
    for (const Transfer& transfer : table)
        if (transfer.name == name)
            return &transfer;
    return nullptr;
}

} // namespace kasuri::colour
