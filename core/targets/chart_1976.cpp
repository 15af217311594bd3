#include "colour/adaptation.hpp"
#include "colour/space.hpp"
#include "targets/target.hpp"

#include <iterator>

namespace kasuri::targets {
namespace {

using colour::operator*;

/// x, y, Y in percent under illuminant C, in the order of the chart.
constexpr Colour patches[] = {
    {0.400, 0.350, 10.1}, {0.377, 0.345, 35.8}, {0.247, 0.251, 19.3}, {0.337, 0.422, 13.3}, {0.265, 0.240, 24.3},
    {0.261, 0.343, 43.1}, {0.506, 0.407, 30.1}, {0.211, 0.175, 12.0}, {0.453, 0.306, 19.8}, {0.285, 0.202, 6.6},
    {0.380, 0.489, 44.3}, {0.473, 0.438, 43.1}, {0.187, 0.129, 6.1},  {0.305, 0.478, 23.4}, {0.539, 0.313, 12.0},
    {0.448, 0.470, 59.1}, {0.364, 0.233, 19.8}, {0.196, 0.252, 19.8}, {0.310, 0.316, 90.0}, {0.310, 0.316, 59.1},
    {0.310, 0.316, 36.2}, {0.310, 0.316, 19.8}, {0.310, 0.316, 9.0},  {0.310, 0.316, 3.1},
};
constexpr std::string_view names[] = {
    "dark skin", "light skin",    "blue sky",     "foliage",   "blue flower",  "bluish green",
    "orange",    "purplish blue", "moderate red", "purple",    "yellow green", "orange yellow",
    "blue",      "green",         "red",          "yellow",    "magenta",      "cyan",
    "white",     "neutral 8",     "neutral 6.5",  "neutral 5", "neutral 3.5",  "black",
};
constexpr colour::Chromaticity illuminant_c = {0.3101, 0.3162}; // CIE 15

Colour patch(double index, Values) {
    const auto [x, y, luminance] = patches[static_cast<std::size_t>(index)];
    const double big_y = luminance / 100;
    const colour::Triple xyz = {x / y * big_y, big_y, (1 - x - y) / y * big_y};
    return colour::from_xyz(*colour::find_space("rec709-linear")) *
        (colour::adaptation(colour::bradford, illuminant_c, colour::d65) * xyz);
}

} // namespace

extern const Target chart_1976;
const Target chart_1976 = {
    .name = "chart_1976",
    .title = "chart of 1976",
    .detail = "24 patches, published values",
    .doc = "A chart of 24 patches by its published chromaticities under illuminant C, adapted to D65 by Bradford; cyan "
           "lies outside BT.709.",
    .source = "C. S. McCamy, H. Marcus, J. G. Davidson, A color-rendition chart, J. Appl. Photogr. Eng. 2 (3), 1976; "
              "from memory",
    .space = "rec709-linear",
    .shape = Shape::patches,
    .columns = 6,
    .rows = 4,
    .colour = patch,
    .patch_names = names,
};
static_assert(std::size(patches) == std::size(names) && std::size(names) == 24);

} // namespace kasuri::targets
