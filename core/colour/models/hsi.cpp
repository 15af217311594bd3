// R. C. Gonzalez, R. E. Woods, "Digital Image Processing", section on the HSI colour model.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

/// Where the mean is 0 but the channels differ, it is taken as this much, so that s stays finite and comes back.
constexpr double tiny = 1e-20;

Triple from(const Triple& rgb) {
    const auto [r, g, b] = rgb;
    const double mean = (r + g + b) / 3;
    if (std::isnan(mean))
        return {mean, mean, mean};
    if (r == g && g == b)
        return {0, 0, r};
    double hue = std::atan2(std::sqrt(3.0) * (g - b), (r - g) + (r - b)) * 180 / std::numbers::pi;
    if (hue < 0)
        hue += 360;
    return {hue, (mean - std::min({r, g, b})) / (std::fabs(mean) < tiny ? tiny : mean), mean};
}

Triple to(const Triple& hsi) {
    double h = std::fmod(hsi[0], 360);
    if (h < 0)
        h += 360;
    const double i = hsi[2], depth = hsi[1] * (std::fabs(i) < tiny ? tiny : i);
    const int sector = h < 120 ? 0 : h < 240 ? 1 : 2;
    const double angle = (h - 120 * sector) * std::numbers::pi / 180;
    const double first = i + depth * std::cos(angle) / std::cos(std::numbers::pi / 3 - angle), last = i - depth,
                 middle = 3 * i - first - last;
    return sector == 0 ? Triple{first, middle, last}
        : sector == 1  ? Triple{last, first, middle}
                       : Triple{middle, last, first};
}

NodeId guarded(Graph& g, NodeId mean) {
    return g.select(g.less(g.make(Op::abs, mean), g.constant(tiny)), g.constant(tiny), mean);
}

NodeTriple lower_from(Graph& g, const NodeTriple& rgb) {
    // From the differences, so that the mean of a neutral is exactly its value.
    const NodeId first = g.sub(rgb[0], rgb[1]), last = g.sub(rgb[2], rgb[1]);
    const NodeId mean = g.add(rgb[1], times(g, 1.0 / 3, g.add(first, last)));
    const NodeId low = g.min(g.min(rgb[0], rgb[1]), rgb[2]);
    const NodeId hue = hue_of(g, g.add(first, g.sub(rgb[0], rgb[2])), times(g, std::sqrt(3.0), g.sub(rgb[1], rgb[2])));
    return {hue, g.div(g.sub(mean, low), guarded(g, mean)), mean};
}

NodeTriple lower_to(Graph& g, const NodeTriple& hsi) {
    const NodeId turns = g.mul(hsi[0], g.constant(1.0 / 360)), share = g.sub(turns, g.make(Op::floor, turns));
    const NodeId in_first = g.less(share, g.constant(1.0 / 3)), in_last = g.less_equal(g.constant(2.0 / 3), share);
    const NodeId start = g.select(in_first, g.constant(0), g.select(in_last, g.constant(2.0 / 3), g.constant(1.0 / 3)));
    const NodeId angle = times(g, 2 * std::numbers::pi, g.sub(share, start));
    const NodeId part = g.div(g.make(Op::cos, angle), g.make(Op::cos, g.sub(g.constant(std::numbers::pi / 3), angle)));
    const NodeId depth = g.mul(hsi[1], guarded(g, hsi[2]));
    const NodeId first = g.add(hsi[2], g.mul(depth, part)), last = g.sub(hsi[2], depth);
    const NodeId middle = g.add(hsi[2], g.sub(depth, g.mul(depth, part)));
    return {g.select(in_first, first, g.select(in_last, middle, last)),
            g.select(in_first, middle, g.select(in_last, last, first)),
            g.select(in_first, last, g.select(in_last, first, middle))};
}

// The same with the hue of the hexcone, which has its corners where a channel is the largest and another the smallest:
// chroma over the smallest channel is 3 i s over the sum of the pure hue's channels.

Triple hexcone_from(const Triple& rgb) { return {hsv_model.from(rgb)[0], from(rgb)[1], from(rgb)[2]}; }

Triple hexcone_to(const Triple& hsi) {
    const double i = hsi[2], depth = hsi[1] * (std::fabs(i) < tiny ? tiny : i);
    Triple pure = hsv_model.to({hsi[0], 1, 1});
    const double chroma = 3 * depth / (pure[0] + pure[1] + pure[2]);
    for (double& channel : pure)
        channel = i - depth + chroma * channel;
    return pure;
}

NodeTriple lower_hexcone_from(Graph& g, const NodeTriple& rgb) {
    const NodeTriple own = lower_from(g, rgb);
    return {g.make(Op::hexcone_h, rgb[0], rgb[1], rgb[2]), own[1], own[2]};
}

NodeTriple lower_hexcone_to(Graph& g, const NodeTriple& hsi) {
    const NodeId depth = g.mul(hsi[1], guarded(g, hsi[2])), low = g.sub(hsi[2], depth), one = g.constant(1);
    NodeTriple rgb{};
    for (std::size_t i = 0; i < 3; ++i)
        rgb[i] = g.make(static_cast<Op>(static_cast<std::size_t>(Op::hexcone_r) + i), hsi[0], one, one);
    const NodeId chroma = g.div(times(g, 3, depth), g.add(g.add(rgb[0], rgb[1]), rgb[2]));
    for (NodeId& channel : rgb)
        channel = g.add(low, g.mul(chroma, channel));
    return rgb;
}

} // namespace

const Model hsi_model = {
    "hsi",
    "Hue, saturation, intensity: i is the mean of the channels, h the angle about the neutral axis, s the share by "
    "which the "
    "smallest channel falls short of the mean. Where i is 0 but the channels differ, s is huge, and comes back.",
    "R. C. Gonzalez, R. E. Woods, Digital Image Processing, the HSI colour model (from memory)",
    {{{"h", "hue in degrees, 0 red, 120 green, 240 blue", 0, 360, true},
      {"s", "saturation, 0 neutral, 1 when the smallest channel is 0", 0, 1, false},
      {"i", "intensity, the mean of the channels", 0, 1, false}}},
    nullptr,
    from,
    to,
    lower_from,
    lower_to,
};

const Model hsi_hexcone_model = {
    "hsi_hexcone",
    "HSI with the hue of HSV instead of the angle: even along the edges of the cube, 60 degrees from corner to corner. "
    "s and i as in hsi.",
    "hue: A. R. Smith, SIGGRAPH 1978; s and i: R. C. Gonzalez, R. E. Woods, Digital Image Processing (from memory)",
    {{{"h", "hue in degrees, 0 red, 120 green, 240 blue", 0, 360, true},
      {"s", "saturation, 0 neutral, 1 when the smallest channel is 0", 0, 1, false},
      {"i", "intensity, the mean of the channels", 0, 1, false}}},
    nullptr,
    hexcone_from,
    hexcone_to,
    lower_hexcone_from,
    lower_hexcone_to,
};

} // namespace kasuri::colour
