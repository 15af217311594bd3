#pragma once
// Cylindrical models: lightness, chroma and hue of a model whose second and third component are 0 for neutrals.
#include "colour/model.hpp"
#include "colour/nodes.hpp"

#include <cmath>

namespace kasuri::colour {

/// (lightness, a, b) to (lightness, chroma, hue in degrees, 0 .. 360); at chroma 0 the hue is 0.
inline Triple polar(const Triple& plane) {
    double hue = std::atan2(plane[2], plane[1]) * 180 / std::numbers::pi;
    if (hue < 0)
        hue += 360;
    return {plane[0], std::hypot(plane[1], plane[2]), hue};
}
/// And back; the hue may be any number of degrees.
inline Triple from_polar(const Triple& lch) {
    const double angle = lch[2] * std::numbers::pi / 180;
    return {lch[0], lch[1] * std::cos(angle), lch[1] * std::sin(angle)};
}
/// The same as operations of a graph.
inline NodeTriple lower_polar(ir::Graph& g, const NodeTriple& plane) {
    const ir::NodeId chroma = g.make(ir::Op::sqrt, g.add(g.mul(plane[1], plane[1]), g.mul(plane[2], plane[2])));
    return {plane[0], chroma, hue_of(g, plane[1], plane[2])};
}
/// The same as operations of a graph. Where chroma and hue are those of a plane that the graph knows, turned and
/// scaled, the plane is turned and scaled instead, and nobody needs its angle: that is quicker, and as exact for a
/// colour that is nearly neutral as for any other.
NodeTriple lower_from_polar(ir::Graph& g, const NodeTriple& lch);

/// The cylinder of a model.
template <const Model& plane>
constexpr Model polar_model(std::string_view name, std::string_view doc, std::string_view source,
                            const std::array<Component, 3>& components) {
    return {name,
            doc,
            source,
            components,
            plane.frame,
            [](const Triple& light) { return polar(plane.from(light)); },
            [](const Triple& lch) { return plane.to(from_polar(lch)); },
            [](ir::Graph& g, const NodeTriple& light) { return lower_polar(g, plane.lower_from(g, light)); },
            [](ir::Graph& g, const NodeTriple& lch) { return plane.lower_to(g, lower_from_polar(g, lch)); }};
}

} // namespace kasuri::colour
