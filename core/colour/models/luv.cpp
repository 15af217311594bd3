// CIE 15:2018, 8.2.2: CIE 1976 L*u*v*.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"
#include "colour/primaries.hpp"

#include <cmath>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

constexpr double kappa = 24389.0 / 27, knee = 8; // L* = kappa Y below 8

/// X and Z of white, and its u', v'.
struct White {
    double x, z, all, u, v;
};
constexpr White white_of(Chromaticity c) {
    const double x = c.x / c.y, z = (1 - c.x - c.y) / c.y, all = x + 15 + 3 * z;
    return {x, z, all, 4 * x / all, 9 / all};
}
constexpr White white65 = white_of(d65), white50 = white_of(d50);

template <const White& white>
Triple from(const Triple& relative) {
    const auto [x, y, z] = Triple{relative[0] * white.x, relative[1], relative[2] * white.z};
    const double l = y > std::pow(24.0 / 116, 3) ? 116 * std::cbrt(y) - 16 : kappa * y;
    if ((relative[0] == relative[1] && relative[1] == relative[2]) || x + 15 * y + 3 * z == 0)
        return {l, 0, 0};
    return {l, 13 * l * (4 * x / (x + 15 * y + 3 * z) - white.u), 13 * l * (9 * y / (x + 15 * y + 3 * z) - white.v)};
}
template <const White& white>
Triple to(const Triple& luv) {
    const double l = luv[0], y = l > knee ? std::pow((l + 16) / 116, 3) : l / kappa;
    if (l == 0)
        return {0, 0, 0};
    const double u = luv[1] / (13 * l) + white.u, v = luv[2] / (13 * l) + white.v;
    return {y * 9 * u / (4 * v) / white.x, y, y * (12 - 3 * u - 20 * v) / (4 * v) / white.z};
}

/// The differences u' - u'n and v' - v'n over a common denominator: exactly 0 for neutrals.
template <const White& white>
NodeTriple lower_from(Graph& g, const NodeTriple& relative) {
    const auto [x, y, z] = relative;
    const NodeId all = g.add(sum(g, white.x, x, 15, y), times(g, 3 * white.z, z));
    const NodeId by_x = g.sub(x, y), by_z = g.sub(z, y);
    const NodeId u = times(g, 4 * white.x / white.all, sum(g, 15 + 3 * white.z, by_x, -3 * white.z, by_z));
    const NodeId v = times(g, -9 / white.all, sum(g, white.x, by_x, 3 * white.z, by_z));
    const NodeId curved = g.sub(times(g, 116, g.make(Op::pow, y, g.constant(1.0 / 3))), g.constant(16));
    const NodeId l = g.select(g.less_equal(y, g.constant(216.0 / 24389)), times(g, kappa, y), curved);
    const NodeId none = g.equal(all, g.constant(0)), scale = g.div(times(g, 13, l), all);
    return {l, g.select(none, g.constant(0), g.mul(scale, u)), g.select(none, g.constant(0), g.mul(scale, v))};
}
template <const White& white>
NodeTriple lower_to(Graph& g, const NodeTriple& luv) {
    const NodeId l = luv[0], one = g.constant(1), zero = g.constant(0);
    const NodeId y = g.select(g.less_equal(l, g.constant(knee)), times(g, 1 / kappa, l),
                              cubed(g, times(g, 1.0 / 116, g.add(l, g.constant(16)))));
    const NodeId scale = g.div(g.constant(1.0 / 13), l), u = g.mul(scale, luv[1]), v = g.mul(scale, luv[2]);
    const NodeId along = g.div(y, g.add(one, times(g, 1 / white.v, v))), black = g.equal(l, zero);
    const NodeId rest = g.sub(one, times(g, 1 / (12 - 3 * white.u - 20 * white.v), sum(g, 3, u, 20, v)));
    return {g.select(black, zero, g.mul(along, g.add(one, times(g, 1 / white.u, u)))), y,
            g.select(black, zero, g.mul(along, rest))};
}

constexpr std::string_view source = "CIE 15:2018, 8.2.2";
constexpr std::array<Component, 3> components = {
    {{"l", "lightness L*, 0 black, 100 diffuse white", 0, 100, false},
     {"u", "u*, green below 0, red above, -134..220", -134, 220, false},
     {"v", "v*, blue below 0, yellow above, -140..122", -140, 122, false}}};

} // namespace

const Model luv_model = {
    "luv",
    "CIE 1976 L*u*v* relative to D65; other whites are adapted to it by the Bradford transform. Colours far out, whose "
    "X + 15 Y + 3 Z comes near 0, have huge u* and v*, and those of Y = 0 but black do not come back.",
    source,
    components,
    &relative_d65_frame,
    from<white65>,
    to<white65>,
    lower_from<white65>,
    lower_to<white65>};
const Model luv50_model = {"luv50",
                           "CIE 1976 L*u*v* relative to D50; other whites are adapted to it by the Bradford transform. "
                           "Its bounds are those of luv.",
                           source,
                           components,
                           &relative_d50_frame,
                           from<white50>,
                           to<white50>,
                           lower_from<white50>,
                           lower_to<white50>};

} // namespace kasuri::colour
