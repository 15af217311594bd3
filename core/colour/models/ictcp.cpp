// ITU-R BT.2100-2, Table 7, with the perceptual quantiser and with hybrid log-gamma.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;

/// One way of coding the cones, and the differences that are made of it. The rows sum to 1, 0 and 0.
struct Coding {
    const char* curve;
    Matrix3 opponent;
};
constexpr Coding pq{"pq",
                    {{{2048.0 / 4096, 2048.0 / 4096, 0},
                      {6610.0 / 4096, -13613.0 / 4096, 7003.0 / 4096},
                      {17933.0 / 4096, -17390.0 / 4096, -543.0 / 4096}}}};
constexpr Coding hlg{"hlg",
                     {{{2048.0 / 4096, 2048.0 / 4096, 0},
                       {3625.0 / 4096, -7465.0 / 4096, 3840.0 / 4096},
                       {9500.0 / 4096, -9212.0 / 4096, -288.0 / 4096}}}};

template <const Coding& coding>
const Transfer& curve() {
    static const Transfer& row = *find_transfer(coding.curve);
    return row;
}

template <const Coding& coding>
Triple from(const Triple& cones) {
    const Transfer& by = curve<coding>();
    const Triple coded = {by.encode(cones[0]), by.encode(cones[1]), by.encode(cones[2])};
    if (coded[0] == coded[1] && coded[1] == coded[2])
        return {coded[0], 0, 0};
    return coding.opponent * coded;
}
template <const Coding& coding>
Triple to(const Triple& ictcp) {
    Triple coded = inverse(coding.opponent) * ictcp;
    for (double& x : coded)
        x = curve<coding>().decode(x);
    return coded;
}

template <const Coding& coding>
NodeTriple lower_from(Graph& g, const NodeTriple& cones) {
    const Transfer& by = curve<coding>();
    const NodeId l = by.lower_encode(g, cones[0]), m = by.lower_encode(g, cones[1]), s = by.lower_encode(g, cones[2]);
    const NodeId first = g.sub(l, m), last = g.sub(s, m);
    const Matrix3& rows = coding.opponent;
    return {g.add(m, times(g, 0.5, first)), sum(g, rows[1][0], first, rows[1][2], last),
            sum(g, rows[2][0], first, rows[2][2], last)};
}
template <const Coding& coding>
NodeTriple lower_to(Graph& g, const NodeTriple& ictcp) {
    static const Matrix3 back = inverse(coding.opponent); // its first column is 1
    NodeTriple cones{};
    for (std::size_t i = 0; i < 3; ++i)
        cones[i] = curve<coding>().lower_decode(g, g.add(ictcp[0], sum(g, back[i][1], ictcp[1], back[i][2], ictcp[2])));
    return cones;
}

} // namespace

const Model ictcp_model = {
    "ictcp",
    "ICtCp of BT.2100 with the perceptual quantiser: intensity, blue-yellow (tritan) and red-green (protan). Diffuse "
    "white is taken as 203 cd/m2.",
    "ITU-R BT.2100-2, Table 7; diffuse white of ITU-R BT.2408",
    {{{"i", "intensity, 0..1; diffuse white has 0.58", 0, 1, false},
      {"ct", "tritan, yellow below 0, blue above, -0.5..0.5", -0.5, 0.5, false},
      {"cp", "protan, green below 0, red above, -0.5..0.5", -0.5, 0.5, false}}},
    &pq_cones_frame,
    from<pq>,
    to<pq>,
    lower_from<pq>,
    lower_to<pq>,
};

const Model ictcp_hlg_model = {
    "ictcp_hlg",
    "ICtCp of BT.2100 with hybrid log-gamma: intensity, blue-yellow (tritan) and red-green (protan) of the light of "
    "the "
    "scene. Diffuse white is at 75 %.",
    "ITU-R BT.2100-2, Table 7; diffuse white of ITU-R BT.2408",
    {{{"i", "intensity, 0..1; diffuse white has 0.75", 0, 1, false},
      {"ct", "tritan, yellow below 0, blue above, -0.5..0.5", -0.5, 0.5, false},
      {"cp", "protan, green below 0, red above, -0.5..0.5", -0.5, 0.5, false}}},
    &hlg_cones_frame,
    from<hlg>,
    to<hlg>,
    lower_from<hlg>,
    lower_to<hlg>,
};

} // namespace kasuri::colour
