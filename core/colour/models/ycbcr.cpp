// Luma and two colour differences of encoded r, g, b.
#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;

struct Weights {
    double red, blue; ///< in luma; green has the rest
};
constexpr Weights bt601{0.299, 0.114}, bt709{0.2126, 0.0722}, bt2020{0.2627, 0.0593};

template <const Weights& k>
Model ycbcr(std::string_view name, std::string_view doc, std::string_view source) {
    return {
        name,
        doc,
        source,
        {{{"y", "luma, 0..1", 0, 1, false},
          {"cb", "blue difference, -0.5..0.5", -0.5, 0.5, false},
          {"cr", "red difference, -0.5..0.5", -0.5, 0.5, false}}},
        nullptr,
        [](const Triple& rgb) -> Triple {
            if (rgb[0] == rgb[1] && rgb[1] == rgb[2])
                return {rgb[0], 0, 0};
            const double y = k.red * rgb[0] + (1 - k.red - k.blue) * rgb[1] + k.blue * rgb[2];
            return {y, (rgb[2] - y) / (2 * (1 - k.blue)), (rgb[0] - y) / (2 * (1 - k.red))};
        },
        [](const Triple& ycc) -> Triple {
            const double r = ycc[0] + 2 * (1 - k.red) * ycc[2], b = ycc[0] + 2 * (1 - k.blue) * ycc[1];
            return {r, (ycc[0] - k.red * r - k.blue * b) / (1 - k.red - k.blue), b};
        },
        [](Graph& g, const NodeTriple& rgb) -> NodeTriple {
            // From the differences to green: a neutral has exactly none.
            const NodeId red = g.sub(rgb[0], rgb[1]), blue = g.sub(rgb[2], rgb[1]),
                         above = sum(g, k.red, red, k.blue, blue);
            return {g.add(rgb[1], above), times(g, 0.5 / (1 - k.blue), g.sub(blue, above)),
                    times(g, 0.5 / (1 - k.red), g.sub(red, above))};
        },
        [](Graph& g, const NodeTriple& ycc) -> NodeTriple {
            const double red = 2 * (1 - k.red), blue = 2 * (1 - k.blue), green = 1 - k.red - k.blue;
            return {g.add(ycc[0], times(g, red, ycc[2])),
                    g.add(ycc[0], sum(g, -k.blue * blue / green, ycc[1], -k.red * red / green, ycc[2])),
                    g.add(ycc[0], times(g, blue, ycc[1]))};
        },
    };
}

} // namespace

const Model ycbcr601_model = ycbcr<bt601>(
    "ycbcr601", "Luma and colour differences of BT.601, of the numbers as they are: meant for encoded ones.",
    "ITU-R BT.601-7, 2.5.1 and 2.5.2");
const Model ycbcr709_model = ycbcr<bt709>(
    "ycbcr709", "Luma and colour differences of BT.709, of the numbers as they are: meant for encoded ones.",
    "ITU-R BT.709-6, items 3.2 and 3.3");
const Model ycbcr2020_model = ycbcr<bt2020>("ycbcr2020",
                                            "Luma and colour differences of BT.2020 (non-constant luminance), of the "
                                            "numbers as they are: meant for encoded ones.",
                                            "ITU-R BT.2020-2, Table 4");

} // namespace kasuri::colour
