// CIE 15:2018, 8.2.1: CIE 1976 L*a*b*.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

#include <cmath>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

/// f(t) is the cube root above the knee, a straight line below it.
double curve(double t) {
    constexpr double knee = 24.0 / 116;
    return t > knee * knee * knee ? std::cbrt(t) : 841.0 / 108 * t + 16.0 / 116;
}
double straight_back(double f) { return f > 24.0 / 116 ? f * f * f : (f - 16.0 / 116) * 108 / 841; }

Triple from(const Triple& relative) {
    const double fx = curve(relative[0]), fy = curve(relative[1]), fz = curve(relative[2]);
    return {116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)};
}
Triple to(const Triple& lab) {
    const double fy = (lab[0] + 16) / 116;
    return {straight_back(fy + lab[1] / 500), straight_back(fy), straight_back(fy - lab[2] / 200)};
}

NodeId lower_curve(Graph& g, NodeId t) {
    constexpr double knee = 6.0 / 29;
    const NodeId straight = g.add(times(g, 1 / (3 * knee * knee), t), g.constant(4.0 / 29));
    return g.select(g.less_equal(t, g.constant(knee * knee * knee)), straight, g.make(Op::pow, t, g.constant(1.0 / 3)));
}
NodeId lower_back(Graph& g, NodeId f) {
    constexpr double knee = 6.0 / 29;
    const NodeId straight = times(g, 3 * knee * knee, g.sub(f, g.constant(4.0 / 29)));
    return g.select(g.less_equal(f, g.constant(knee)), straight, cubed(g, f));
}

NodeTriple lower_from(Graph& g, const NodeTriple& relative) {
    const NodeId fx = lower_curve(g, relative[0]), fy = lower_curve(g, relative[1]), fz = lower_curve(g, relative[2]);
    return {g.sub(times(g, 116, fy), g.constant(16)), times(g, 500, g.sub(fx, fy)), times(g, 200, g.sub(fy, fz))};
}
NodeTriple lower_to(Graph& g, const NodeTriple& lab) {
    const NodeId fy = times(g, 1.0 / 116, g.add(lab[0], g.constant(16)));
    return {lower_back(g, g.add(fy, times(g, 1.0 / 500, lab[1]))), lower_back(g, fy),
            lower_back(g, g.sub(fy, times(g, 1.0 / 200, lab[2])))};
}

constexpr std::string_view source = "CIE 15:2018, 8.2.1";
constexpr std::array<Component, 3> components = {
    {{"l", "lightness L*, 0 black, 100 diffuse white", 0, 100, false},
     {"a", "a*, green below 0, red above, -128..127", -128, 127, false},
     {"b", "b*, blue below 0, yellow above, -128..127", -128, 127, false}}};

} // namespace

const Model lab_model = {"lab",
                         "CIE 1976 L*a*b* relative to D65; other whites are adapted to it by the Bradford transform. "
                         "Below 0 the straight line goes on.",
                         source,
                         components,
                         &relative_d65_frame,
                         from,
                         to,
                         lower_from,
                         lower_to};
const Model lab50_model = {"lab50",
                           "CIE 1976 L*a*b* relative to D50, as in print and in ICC profiles; other whites are adapted "
                           "to it by the Bradford transform.",
                           source,
                           components,
                           &relative_d50_frame,
                           from,
                           to,
                           lower_from,
                           lower_to};

} // namespace kasuri::colour
