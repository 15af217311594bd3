// A. R. Smith, E. R. Lyons, "HWB - a more intuitive hue-based color model", 1996; CSS Color 4, section 8.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

#include <algorithm>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

Triple from(const Triple& rgb) {
    const Triple hexcone = hsv_model.from(rgb); // NaN in any channel
    return {hexcone[0], hexcone[0] - hexcone[0] + std::min({rgb[0], rgb[1], rgb[2]}),
            hexcone[0] - hexcone[0] + 1 - std::max({rgb[0], rgb[1], rgb[2]})};
}

Triple to(const Triple& hwb) {
    const auto [h, w, b] = hwb;
    if (w + b >= 1)
        return {w / (w + b), w / (w + b), w / (w + b)};
    const Triple pure = hsv_model.to({h, 1, 1});
    return {pure[0] * (1 - w - b) + w, pure[1] * (1 - w - b) + w, pure[2] * (1 - w - b) + w};
}

NodeTriple lower_from(Graph& g, const NodeTriple& rgb) {
    return {g.make(Op::hexcone_h, rgb[0], rgb[1], rgb[2]), g.min(g.min(rgb[0], rgb[1]), rgb[2]),
            g.sub(g.constant(1), g.max(g.max(rgb[0], rgb[1]), rgb[2]))};
}

NodeTriple lower_to(Graph& g, const NodeTriple& hwb) {
    const NodeId both = g.add(hwb[1], hwb[2]), one = g.constant(1);
    const NodeId grey = g.div(hwb[1], both), full = g.less_equal(one, both), rest = g.sub(one, both);
    NodeTriple rgb{};
    for (std::size_t i = 0; i < 3; ++i) {
        const NodeId pure = g.make(static_cast<Op>(static_cast<std::size_t>(Op::hexcone_r) + i), hwb[0], one, one);
        rgb[i] = g.select(full, grey, g.add(g.mul(pure, rest), hwb[1]));
    }
    return rgb;
}

} // namespace

const Model hwb_model = {
    "hwb",
    "Hue, whiteness, blackness: how much white and how much black is in a pure hue. Where the two sum to 1 or more, "
    "the colour "
    "is their grey.",
    "A. R. Smith, E. R. Lyons, HWB, 1996; CSS Color 4, section 8",
    {{{"h", "hue in degrees, 0 red, 120 green, 240 blue", 0, 360, true},
      {"w", "whiteness, the smallest channel", 0, 1, false},
      {"b", "blackness, 1 - the largest channel", 0, 1, false}}},
    nullptr,
    from,
    to,
    lower_from,
    lower_to,
};

} // namespace kasuri::colour
