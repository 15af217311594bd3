// B. Ottosson, "A perceptual color space for image processing", 2020, with the digits of CSS Color 4, section 17.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

#include <cmath>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;

constexpr Matrix3 opponent = {{{0.2104542683093140, 0.7936177747023054, -0.0040720430116193},
                               {1.9779985324311684, -2.4285922420485799, 0.4505937096174110},
                               {0.0259040424655478, 0.7827717124575296, -0.8086757549230774}}};

Triple from(const Triple& cones) {
    const Triple root = {std::cbrt(cones[0]), std::cbrt(cones[1]), std::cbrt(cones[2])};
    if (root[0] == root[1] && root[1] == root[2])
        return {root[0], 0, 0};
    return opponent * root;
}
Triple to(const Triple& lab) {
    Triple cones = inverse(opponent) * lab;
    for (double& x : cones)
        x = x * x * x;
    return cones;
}

NodeTriple lower_from(Graph& g, const NodeTriple& cones) {
    const NodeId l = signed_power(g, cones[0], 1.0 / 3), m = signed_power(g, cones[1], 1.0 / 3),
                 s = signed_power(g, cones[2], 1.0 / 3);
    // The rows sum to 1, 0 and 0.
    const NodeId first = g.sub(l, m), last = g.sub(s, m);
    return {g.add(m, sum(g, opponent[0][0], first, opponent[0][2], last)),
            sum(g, opponent[1][0], first, opponent[1][2], last), sum(g, opponent[2][0], first, opponent[2][2], last)};
}
NodeTriple lower_to(Graph& g, const NodeTriple& lab) {
    static const Matrix3 back = inverse(opponent); // its first column is 1
    NodeTriple cones{};
    for (std::size_t i = 0; i < 3; ++i)
        cones[i] = cubed(g, g.add(lab[0], sum(g, back[i][1], lab[1], back[i][2], lab[2])));
    return cones;
}

} // namespace

const Model oklab_model = {
    "oklab",
    "OKLab: an even lightness and two opponent axes, from cube roots of cone responses under D65. Roots of negative "
    "light keep its sign.",
    "B. Ottosson, 2020; digits of CSS Color 4, section 17",
    {{{"l", "lightness, 0 black, 1 diffuse white", 0, 1, false},
      {"a", "green below 0, red above, -0.4..0.4", -0.4, 0.4, false},
      {"b", "blue below 0, yellow above, -0.4..0.4", -0.4, 0.4, false}}},
    &ok_cones_frame,
    from,
    to,
    lower_from,
    lower_to,
};

} // namespace kasuri::colour
