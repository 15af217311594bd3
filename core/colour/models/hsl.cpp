// G. H. Joblove, D. Greenberg, "Color spaces for computer graphics", SIGGRAPH 1978; the scale of CSS Color 4,
// section 7.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

/// Where l is 0 or 1 there is no room for chroma; this little keeps s finite for colours outside 0..1, and comes back.
constexpr double tiny = 1e-20;

double room(double l) {
    const double left = 1 - std::fabs(2 * l - 1);
    return std::fabs(left) < tiny ? tiny : left;
}

Triple from(const Triple& rgb) {
    const double high = std::max({rgb[0], rgb[1], rgb[2]}), low = std::min({rgb[0], rgb[1], rgb[2]}),
                 l = (high + low) / 2;
    const Triple hexcone = hsv_model.from(rgb);
    return {hexcone[0], std::isnan(hexcone[0]) ? hexcone[0] : (high - low) / room(l), l};
}

/// CSS Color 4, section 7.1: f(n) = l - a max(-1, min(k - 3, 9 - k, 1)), k = (n + h / 30) mod 12, a the half chroma.
Triple to(const Triple& hsl) {
    const double half = hsl[1] * room(hsl[2]) / 2;
    const auto channel = [&](double n) {
        double k = std::fmod(n + hsl[0] / 30, 12);
        if (k < 0)
            k += 12;
        return hsl[2] - half * std::max(-1.0, std::min({k - 3, 9 - k, 1.0}));
    };
    return {channel(0), channel(8), channel(4)};
}

NodeId lower_room(Graph& g, NodeId l) {
    const NodeId left = g.sub(g.constant(1), g.make(Op::abs, g.sub(g.mul(g.constant(2), l), g.constant(1))));
    return g.select(g.less(g.make(Op::abs, left), g.constant(tiny)), g.constant(tiny), left);
}

NodeTriple lower_from(Graph& g, const NodeTriple& rgb) {
    const NodeId high = g.max(g.max(rgb[0], rgb[1]), rgb[2]), low = g.min(g.min(rgb[0], rgb[1]), rgb[2]);
    const NodeId l = times(g, 0.5, g.add(high, low));
    return {g.make(Op::hexcone_h, rgb[0], rgb[1], rgb[2]), g.div(g.sub(high, low), lower_room(g, l)), l};
}

NodeTriple lower_to(Graph& g, const NodeTriple& hsl) {
    const NodeId chroma = g.mul(hsl[1], lower_room(g, hsl[2]));
    const NodeId low = g.sub(hsl[2], times(g, 0.5, chroma)), one = g.constant(1);
    NodeTriple rgb{};
    for (std::size_t i = 0; i < 3; ++i) // the hexcone's own channel is 0 at the bottom and 1 at the top
        rgb[i] = g.add(
            low, g.mul(chroma, g.make(static_cast<Op>(static_cast<std::size_t>(Op::hexcone_r) + i), hsl[0], one, one)));
    return rgb;
}

} // namespace

const Model hsl_model = {
    "hsl",
    "Hue, saturation, lightness: l is the middle between the largest and the smallest channel. Where l is 0 or 1 but "
    "the "
    "channels differ, s is huge, and comes back.",
    "G. H. Joblove, D. Greenberg, SIGGRAPH 1978; CSS Color 4, section 7",
    {{{"h", "hue in degrees, 0 red, 120 green, 240 blue", 0, 360, true},
      {"s", "saturation, 0 neutral, 1 as far as 0..1 allows at this lightness", 0, 1, false},
      {"l", "lightness, 0 black, 1 white", 0, 1, false}}},
    nullptr,
    from,
    to,
    lower_from,
    lower_to,
};

} // namespace kasuri::colour
