// A simulated camera stands in for a real one: it photographs the dyer's chart.
#include "colour/adaptation.hpp"
#include "colour/space.hpp"
#include "targets/paint.hpp"
#include "targets/target.hpp"

#include <cmath>
#include <numbers>

namespace kasuri::targets {

extern const Target dye_chart;
extern const Target camera_chart;

namespace {

using colour::operator*;
using colour::Triple;

constexpr Setting settings[] = {
    {"exposure", "stops", 0, -8, 8},
    {"light", "colour temperature of the light, kelvin", 5600, 4000, 25000},
    {"balance", "colour temperature that the camera is set to, kelvin", 5600, 4000, 25000},
    {"crosstalk", "share of each channel that its neighbours catch", 0, 0, 0.5},
    {"noise", "standard deviation at middle grey, 0.18", 0, 0, 0.2},
    {"seed", "other numbers, other noise", 1, 0, 1e6, true},
};

/// CIE 15:2018, 4.2: the daylight locus, for 4000 to 25000 kelvin.
colour::Chromaticity daylight(double kelvin) {
    const double t = 1000 / kelvin;
    const double x = kelvin <= 7000 ? ((-4.6070 * t + 2.9678) * t + 0.09911) * t + 0.244063
                                    : ((-2.0064 * t + 1.9018) * t + 0.24748) * t + 0.237040;
    return {x, (-3.000 * x + 2.870) * x - 0.275};
}

/// Two numbers of a normal distribution, from repeatable even ones (Box and Muller 1958).
std::array<double, 2> normal(int x, int y, std::uint64_t seed) {
    const double radius = std::sqrt(-2 * std::log(1 - paint::hash(x, y, seed))),
                 angle = 2 * std::numbers::pi * paint::hash(x, y, seed + 1);
    return {radius * std::cos(angle), radius * std::sin(angle)};
}

image::Picture photographed(int width, int height, Values set) {
    const colour::Space& space = *colour::find_space("rec709-linear");
    // The chart stands in the light; the camera scales its channels for the light it believes in.
    const colour::Matrix3 lit = colour::times(
        colour::from_xyz(space),
        colour::times(colour::adaptation(colour::bradford, colour::d65, daylight(set[1])), colour::to_xyz(space)));
    const colour::Chromaticity white = daylight(set[2]);
    const double gain = std::exp2(set[0]), caught = set[3], deviation = set[4];
    const colour::Matrix3 mixed = {
        {{1 - caught / 2, caught / 2, 0}, {caught / 2, 1 - caught, caught / 2}, {0, caught / 2, 1 - caught / 2}}};
    const colour::Matrix3 seen = colour::times(mixed, lit);
    const Triple believed =
        mixed * (colour::from_xyz(space) * Triple{white.x / white.y, 1, (1 - white.x - white.y) / white.y});
    const auto seed = 16 * static_cast<std::uint64_t>(set[5]);
    constexpr double border = 0.06, gap = 0.05; // of the picture's height, of a patch
    const double edge = border * height;
    return image::generated(width, height, [&](int x, int y) {
        const double across = (x + 0.5 - edge) / (width - 2 * edge) * dye_chart.columns,
                     down = (y + 0.5 - edge) / (height - 2 * edge) * dye_chart.rows;
        Triple light = {0.035, 0.035, 0.035}; // the board
        const double column = std::floor(across), row = std::floor(down);
        const double u = across - column, v = down - row;
        if (column >= 0 && column < dye_chart.columns && row >= 0 && row < dye_chart.rows && std::min(u, 1 - u) > gap &&
            std::min(v, 1 - v) > gap)
            light = dye_chart.colour(row * dye_chart.columns + column, {});
        light = seen * light;
        Colour made;
        const std::array<double, 2> first = normal(x, y, seed), second = normal(x, y, seed + 4);
        const double random[3] = {first[0], first[1], second[0]};
        for (std::size_t c = 0; c < 3; ++c) {
            const double exposed = light[c] / believed[c] * gain;
            // Photons: the deviation grows as the root of the light, above a floor of reading.
            made[c] = exposed + deviation * std::sqrt(0.02 + std::max(exposed, 0.0) / 0.18) * random[c];
        }
        return made;
    });
}

} // namespace

const Target camera_chart = {
    .name = "camera_chart",
    .title = "camera on the chart",
    .detail = "a simulated camera",
    .doc = "The dye chart as a simulated camera sees it: exposure, the light's and the camera's white, crosstalk "
           "between channels and noise are settings. "
           "The same for the same seed.",
    .source = "daylight locus: CIE 15:2018, 4.2; Bradford adaptation; noise that grows with the root of the light: "
              "common practice, no source",
    .space = "rec709-linear",
    .shape = Shape::field,
    .columns = 640,
    .rows = 270,
    .settings = settings,
    .field = photographed,
};

} // namespace kasuri::targets
