#include "colour/polar.hpp"

#include <optional>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

constexpr int deepest = 4; ///< additions to a hue, or factors of a chroma, that are looked through

/// An angle that `hue_of` made of (x, y), and what was added to it, in degrees.
struct TurnedHue {
    NodeId x, y;
    std::optional<NodeId> turn;
};

/// The arctangent that `hue_of` made its angle of: select(angle < 0, angle + 360, angle), angle = atan2(y, x) * 180 /
/// pi.
std::optional<TurnedHue> plain_hue(Graph& g, NodeId hue) {
    if (g[hue].op != Op::select || g[g[hue].args[2]].op != Op::mul)
        return std::nullopt;
    const auto factors = g[g[hue].args[2]].args;
    for (const NodeId factor : {factors[0], factors[1]})
        if (g[factor].op == Op::atan2) {
            const NodeId y = g[factor].args[0], x = g[factor].args[1];
            if (hue_of(g, x, y) == hue) // the graph knows what is equal
                return TurnedHue{x, y, std::nullopt};
        }
    return std::nullopt;
}

std::optional<TurnedHue> turned_hue(Graph& g, NodeId hue, int depth = deepest) {
    if (std::optional<TurnedHue> plain = plain_hue(g, hue))
        return plain;
    const ir::Node node = g[hue];
    if (depth == 0 || (node.op != Op::add && node.op != Op::sub))
        return std::nullopt;
    const NodeId first = node.args[0], second = node.args[1];
    if (std::optional<TurnedHue> of = turned_hue(g, first, depth - 1)) {
        of->turn = node.op == Op::add ? (of->turn ? g.add(*of->turn, second) : second)
                                      : g.sub(of->turn ? *of->turn : g.constant(0), second);
        return of;
    }
    if (node.op == Op::add)
        if (std::optional<TurnedHue> of = turned_hue(g, second, depth - 1)) {
            of->turn = of->turn ? g.add(*of->turn, first) : first;
            return of;
        }
    return std::nullopt;
}

/// By what `chroma` was multiplied to give `scaled`: the factors, of which there may be none. Nothing if it is no
/// multiple.
std::optional<NodeId> factor_of(Graph& g, NodeId scaled, NodeId chroma, int depth = deepest) {
    if (scaled == chroma)
        return g.constant(1);
    const ir::Node node = g[scaled];
    if (depth == 0 || node.op != Op::mul)
        return std::nullopt;
    for (std::size_t i = 0; i < 2; ++i)
        if (const std::optional<NodeId> factor = factor_of(g, node.args[i], chroma, depth - 1))
            return g.mul(*factor, node.args[1 - i]);
    return std::nullopt;
}

} // namespace

NodeTriple lower_from_polar(Graph& g, const NodeTriple& lch) {
    const auto of_degrees = [&](NodeId degrees, Op op) {
        return g.make(op, times(g, std::numbers::pi / 180, degrees));
    };
    if (const std::optional<TurnedHue> hue = turned_hue(g, lch[2]))
        if (const auto factor = factor_of(g, lch[1], lower_polar(g, {lch[0], hue->x, hue->y})[1])) {
            NodeId x = hue->x, y = hue->y;
            if (hue->turn) {
                const NodeId cosine = of_degrees(*hue->turn, Op::cos), sine = of_degrees(*hue->turn, Op::sin);
                x = g.sub(g.mul(hue->x, cosine), g.mul(hue->y, sine));
                y = g.add(g.mul(hue->x, sine), g.mul(hue->y, cosine));
            }
            return {lch[0], g.mul(x, *factor), g.mul(y, *factor)};
        }
    return {lch[0], g.mul(lch[1], of_degrees(lch[2], Op::cos)), g.mul(lch[1], of_degrees(lch[2], Op::sin))};
}

} // namespace kasuri::colour
