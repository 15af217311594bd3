// H. S. Malvar, G. J. Sullivan, "YCoCg-R: a color space with RGB reversibility and low dynamic range", JVT-I014, 2003.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

namespace kasuri::colour {
namespace {

using ir::Graph;

Triple from(const Triple& rgb) {
    return {rgb[0] / 4 + rgb[1] / 2 + rgb[2] / 4, rgb[0] / 2 - rgb[2] / 2, -rgb[0] / 4 + rgb[1] / 2 - rgb[2] / 4};
}
Triple to(const Triple& y) { return {y[0] + y[1] - y[2], y[0] + y[2], y[0] - y[1] - y[2]}; }

NodeTriple lower_from(Graph& g, const NodeTriple& rgb) {
    const ir::NodeId sides = times(g, 0.25, g.add(rgb[0], rgb[2])), middle = times(g, 0.5, rgb[1]);
    return {g.add(middle, sides), times(g, 0.5, g.sub(rgb[0], rgb[2])), g.sub(middle, sides)};
}
NodeTriple lower_to(Graph& g, const NodeTriple& y) {
    const ir::NodeId sides = g.sub(y[0], y[2]);
    return {g.add(sides, y[1]), g.add(y[0], y[2]), g.sub(sides, y[1])};
}

} // namespace

const Model ycocg_model = {
    "ycocg",
    "A luma and the differences orange to blue and green to magenta, in quarters and halves.",
    "H. S. Malvar, G. J. Sullivan, JVT-I014, 2003",
    {{{"y", "luma, 0..1", 0, 1, false},
      {"co", "orange to blue, -0.5..0.5", -0.5, 0.5, false},
      {"cg", "green to magenta, -0.5..0.5", -0.5, 0.5, false}}},
    nullptr,
    from,
    to,
    lower_from,
    lower_to,
};

} // namespace kasuri::colour
