// ITU-R BT.2100-2, Table 7, with the perceptual quantiser.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;

constexpr Matrix3 opponent = {{{2048.0 / 4096, 2048.0 / 4096, 0},
                               {6610.0 / 4096, -13613.0 / 4096, 7003.0 / 4096},
                               {17933.0 / 4096, -17390.0 / 4096, -543.0 / 4096}}};

const Transfer& pq() {
    static const Transfer& curve = *find_transfer("pq");
    return curve;
}

Triple from(const Triple& cones) {
    const Triple coded = {pq().encode(cones[0]), pq().encode(cones[1]), pq().encode(cones[2])};
    if (coded[0] == coded[1] && coded[1] == coded[2])
        return {coded[0], 0, 0};
    return opponent * coded;
}
Triple to(const Triple& ictcp) {
    Triple coded = inverse(opponent) * ictcp;
    for (double& x : coded)
        x = pq().decode(x);
    return coded;
}

NodeTriple lower_from(Graph& g, const NodeTriple& cones) {
    const NodeId l = pq().lower_encode(g, cones[0]), m = pq().lower_encode(g, cones[1]),
                 s = pq().lower_encode(g, cones[2]);
    const NodeId first = g.sub(l, m), last = g.sub(s, m); // the rows sum to 1, 0 and 0
    return {g.add(m, times(g, 0.5, first)), sum(g, opponent[1][0], first, opponent[1][2], last),
            sum(g, opponent[2][0], first, opponent[2][2], last)};
}
NodeTriple lower_to(Graph& g, const NodeTriple& ictcp) {
    static const Matrix3 back = inverse(opponent); // its first column is 1
    NodeTriple cones{};
    for (std::size_t i = 0; i < 3; ++i)
        cones[i] = pq().lower_decode(g, g.add(ictcp[0], sum(g, back[i][1], ictcp[1], back[i][2], ictcp[2])));
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
    from,
    to,
    lower_from,
    lower_to,
};

} // namespace kasuri::colour
