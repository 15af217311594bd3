// CIE 15:2018, section 7: tristimulus values and chromaticity coordinates.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;

constexpr std::string_view source = "CIE 15:2018, section 7; matrices by SMPTE RP 177";
constexpr std::array<Component, 3> components = {{{"x", "tristimulus value X, 0..0.95 or so", 0, 1, false},
                                                  {"y", "luminance Y, 1 for diffuse white", 0, 1, false},
                                                  {"z", "tristimulus value Z, 0..1.09 or so", 0, 1, false}}};

Triple same(const Triple& xyz) { return xyz; }
NodeTriple lower_same(Graph&, const NodeTriple& xyz) { return xyz; }

Triple from(const Triple& xyz) {
    const double all = xyz[0] + xyz[1] + xyz[2];
    if (all == 0)
        return {0, 0, xyz[1]};
    return {xyz[0] / all, xyz[1] / all, xyz[1]};
}
Triple to(const Triple& xyy) {
    const auto [x, y, luminance] = xyy;
    if (y == 0)
        return {0, luminance, 0};
    return {x * luminance / y, luminance, (1 - x - y) * luminance / y};
}

NodeTriple lower_from(Graph& g, const NodeTriple& xyz) {
    const NodeId zero = g.constant(0), all = g.add(g.add(xyz[0], xyz[1]), xyz[2]), none = g.equal(all, zero);
    return {g.select(none, zero, g.div(xyz[0], all)), g.select(none, zero, g.div(xyz[1], all)), xyz[1]};
}
NodeTriple lower_to(Graph& g, const NodeTriple& xyy) {
    const NodeId zero = g.constant(0), none = g.equal(xyy[1], zero), scale = g.div(xyy[2], xyy[1]);
    const NodeId z = g.sub(g.sub(g.constant(1), xyy[0]), xyy[1]);
    return {g.select(none, zero, g.mul(xyy[0], scale)), xyy[2], g.select(none, zero, g.mul(z, scale))};
}

} // namespace

const Model xyz_model = {
    "xyz",          "CIE XYZ of the colour's light under the working space's own white; nothing is adapted.",
    source,         components,
    &xyz_own_frame, same,
    same,           lower_same,
    lower_same};
const Model xyz65_model = {"xyz65",        "CIE XYZ of the colour's light, adapted to D65 by the Bradford transform.",
                           source,         components,
                           &xyz_d65_frame, same,
                           same,           lower_same,
                           lower_same};
const Model xyz50_model = {"xyz50",        "CIE XYZ of the colour's light, adapted to D50 by the Bradford transform.",
                           source,         components,
                           &xyz_d50_frame, same,
                           same,           lower_same,
                           lower_same};
const Model xyy_model = {
    "xyy",
    "CIE chromaticity and luminance under the working space's own white. Black has no chromaticity: x and y are 0 "
    "there. Colours "
    "without luminance, but not black, do not come back.",
    source,
    {{{"x", "chromaticity x, 0..0.73", 0, 0.8, false},
      {"y", "chromaticity y, 0..0.84", 0, 0.9, false},
      {"lum", "luminance Y, 1 for diffuse white", 0, 1, false}}},
    &xyz_own_frame,
    from,
    to,
    lower_from,
    lower_to,
};

} // namespace kasuri::colour
