// A. R. Smith, "Color gamut transform pairs", Computer Graphics 12 (3), SIGGRAPH 1978, the hexcone model.
#include "colour/models/models.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace kasuri::colour {
namespace {

// Outside 0..1 the same formulas go on: a negative channel gives s > 1, a negative v gives s < 0, and both come back.
// NaN in any channel makes all three NaN.

/// Where |v| is less but the channels differ, v is taken as this much, so that s stays finite and the way back still
/// holds.
constexpr double hsv_tiny = 1e-20;

Triple from(const Triple& rgb) {
    const auto [r, g, b] = rgb;
    if (std::isnan(r) || std::isnan(g) || std::isnan(b))
        return {std::nan(""), std::nan(""), std::nan("")};
    double v = std::max({r, g, b});
    const double spread = v - std::min({r, g, b});
    if (spread == 0)
        return {0, 0, v};
    if (std::fabs(v) < hsv_tiny)
        v = hsv_tiny;
    double h;
    if (r >= g && r >= b)
        h = (g - b) / spread;
    else if (g >= b)
        h = 2 + (b - r) / spread;
    else
        h = 4 + (r - g) / spread;
    if (h < 0)
        h += 6;
    return {60 * h, spread / v, v};
}

/// Smith's second algorithm: which sextant, and how far into it.
Triple to(const Triple& hsv) {
    const double v = hsv[2];
    const double s = hsv[1];
    double h = hsv[0] / 60;
    h -= 6 * std::floor(h / 6);
    if (!(h >= 0 && h < 6)) // an infinite or undefined hue, or -tiny rounded up to 6
        h = h == 6 ? 0 : std::nan("");
    if (std::isnan(h) || std::isnan(s) || std::isnan(v))
        return {std::nan(""), std::nan(""), std::nan("")};
    const double into = h - std::floor(h);
    const double low = v * (1 - s);
    const double falling = v * (1 - s * into);
    const double rising = v * (1 - s * (1 - into));
    switch (static_cast<int>(h)) {
    case 0: return {v, rising, low};
    case 1: return {falling, v, low};
    case 2: return {low, v, rising};
    case 3: return {low, falling, v};
    case 4: return {rising, low, v};
    default: return {v, low, falling};
    }
}

NodeTriple lower_from(ir::Graph& g, const NodeTriple& rgb) {
    const auto [r, gr, b] = rgb;
    const ir::NodeId hue = g.make(ir::Op::hexcone_h, r, gr, b);
    if (g[hue].op == ir::Op::hexcone_h) // a constant hue could be anybody's
        g.remember_origin(hue, rgb);
    return {hue, g.make(ir::Op::hexcone_s, r, gr, b), g.make(ir::Op::hexcone_v, r, gr, b)};
}

/// The way back where the hue is still that of a known colour: its channels' places between the smallest and
/// the largest are kept, so the rounding of an angle does not come into it.
NodeTriple lower_with_hue_of(ir::Graph& g, const NodeTriple& rgb, ir::NodeId saturation, ir::NodeId value) {
    const NodeTriple unchanged = lower_from(g, rgb);
    if (unchanged[1] == saturation && unchanged[2] == value)
        return rgb;
    const ir::NodeId largest = g.max(g.max(rgb[0], rgb[1]), rgb[2]);
    const ir::NodeId spread = g.sub(largest, g.min(g.min(rgb[0], rgb[1]), rgb[2]));
    const ir::NodeId neutral = g.equal(spread, g.constant(0));
    NodeTriple result{};
    if (unchanged[1] == saturation) { // only the value: all channels by one factor, exactly 1 where it is the same
        const ir::NodeId factor = g.div(value, unchanged[2]);
        for (std::size_t i = 0; i < 3; ++i)
            result[i] = g.select(neutral, value, g.mul(rgb[i], factor));
        return result;
    }
    const ir::NodeId chroma = g.mul(value, saturation);
    for (std::size_t i = 0; i < 3; ++i) {
        // A neutral has hue 0: red stays at the value, the others fall.
        const ir::NodeId below = g.select(neutral, g.constant(i == 0 ? 0 : 1), g.div(g.sub(largest, rgb[i]), spread));
        result[i] = g.sub(value, g.mul(chroma, below));
    }
    return result;
}

NodeTriple lower_to(ir::Graph& g, const NodeTriple& hsv) {
    const auto [hue, saturation, value] = hsv;
    if (const auto* origin = g.origin(hue))
        return lower_with_hue_of(g, NodeTriple(*origin), saturation, value);
    return {g.make(ir::Op::hexcone_r, hue, saturation, value), g.make(ir::Op::hexcone_g, hue, saturation, value),
            g.make(ir::Op::hexcone_b, hue, saturation, value)};
}

} // namespace

const Model hsv_model = {
    "hsv",
    "Hue, saturation, value: v is the largest channel, s the share by which the smallest falls short of it.",
    "A. R. Smith, Color gamut transform pairs, SIGGRAPH 1978",
    {{{"h", "hue in degrees, 0 red, 120 green, 240 blue", 0, 360, true},
      {"s", "saturation, 0 neutral, 1 when the smallest channel is 0", 0, 1, false},
      {"v", "value, the largest channel", 0, 1, false}}},
    nullptr,
    from,
    to,
    lower_from,
    lower_to,
    true,
};

} // namespace kasuri::colour
