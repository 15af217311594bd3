// Planes of hues, discs, and every colour of a lattice laid out flat.
#include "colour/models/models.hpp"
#include "targets/target.hpp"

#include <cmath>
#include <numbers>

namespace kasuri::targets {
namespace {

constexpr Setting value_setting[] = {{"value", "HSV value", 0.8, 0, 16}};
constexpr Setting saturation_setting[] = {{"saturation", "HSL saturation", 1, 0, 1}};
constexpr Setting radial_settings[] = {{"centre", "value in the middle", 1, -16, 64},
                                       {"edge", "value on the circle", 0, -16, 64}};
constexpr Setting polar_settings[] = {{"value", "HSV value", 1, 0, 16}};
constexpr Setting lattice_settings[] = {
    {"levels", "of each channel", 33, 2, 129, true},
    {"low", "first level", 0, -16, 1},
    {"high", "last level", 1, 0.01, 64},
};

/// From 0 at the left to 1 at the right, at pixel centres; the same down.
double share(int at, int count) { return (at + 0.5) / count; }

/// How far from the middle, 1 on the circle that touches the edge, and in which direction (degrees, 0 right, 90 up).
struct Place {
    double radius, angle;
};
Place place(int x, int y, int width, int height) {
    const double half = 0.5 * std::min(width, height);
    const double right = (x + 0.5 - 0.5 * width) / half, up = (0.5 * height - y - 0.5) / half;
    const double angle = std::atan2(up, right) * 180 / std::numbers::pi;
    return {std::hypot(right, up), angle < 0 ? angle + 360 : angle};
}

image::Picture latticed(int width, int height, Values set) {
    const int levels = static_cast<int>(set[0]);
    const int across =
        static_cast<int>(std::ceil(std::sqrt(static_cast<double>(levels)))); // slices of one blue, side by side
    const int down = (levels + across - 1) / across;
    const int side = std::max(1, std::min(width / (across * levels), height / (down * levels))); // pixels of one colour
    const auto level = [&](int i) { return set[1] + (set[2] - set[1]) * i / (levels - 1); };
    return image::generated(across * levels * side, down * levels * side, [&](int x, int y) {
        const int column = x / side, row = y / side;
        const int blue = row / levels * across + column / levels;
        if (blue >= levels) // what is left of the last row
            return Colour{set[1], set[1], set[1]};
        return Colour{level(column % levels), level(row % levels), level(blue)};
    });
}

} // namespace

extern const Target hue_saturation, hue_lightness, radial, polar, flat_lattice;

const Target hue_saturation = {
    .name = "hue_saturation",
    .title = "hues and saturations",
    .detail = "value 0.8",
    .doc = "HSV hue across, 0 to 360 degrees, saturation from 0 at the bottom to 1 at the top.",
    .source = "A. R. Smith 1978, Color gamut transform pairs",
    .shape = Shape::field,
    .columns = 720,
    .rows = 405,
    .settings = value_setting,
    .field =
        [](int width, int height, Values set) {
            return image::generated(width, height, [&](int x, int y) {
                return colour::hsv_model.to({360 * share(x, width), 1 - share(y, height), set[0]});
            });
        },
};

const Target hue_lightness = {
    .name = "hue_lightness",
    .title = "hues and lightnesses",
    .detail = "saturation 1",
    .doc = "HSL hue across, 0 to 360 degrees, lightness from 0 at the bottom to 1 at the top.",
    .source = "G. H. Joblove and D. Greenberg 1978, Color spaces for computer graphics",
    .shape = Shape::field,
    .columns = 720,
    .rows = 405,
    .settings = saturation_setting,
    .field =
        [](int width, int height, Values set) {
            return image::generated(width, height, [&](int x, int y) {
                return colour::hsl_model.to({360 * share(x, width), set[0], 1 - share(y, height)});
            });
        },
};

const Target radial = {
    .name = "radial",
    .title = "radial",
    .detail = "1 in the middle, 0 on the circle",
    .doc = "Grey by the distance from the middle; the same beyond the circle that touches the edge as on it.",
    .shape = Shape::field,
    .columns = 512,
    .rows = 512,
    .settings = radial_settings,
    .field =
        [](int width, int height, Values set) {
            return image::generated(width, height, [&](int x, int y) {
                const double grey = set[0] + (set[1] - set[0]) * std::min(1.0, place(x, y, width, height).radius);
                return Colour{grey, grey, grey};
            });
        },
};

const Target polar = {
    .name = "polar",
    .title = "polar",
    .detail = "hue around, saturation outwards",
    .doc = "HSV hue by the direction (0 degrees right, 90 up), saturation by the distance from the middle, 1 from the "
           "circle on.",
    .source = "A. R. Smith 1978, Color gamut transform pairs",
    .shape = Shape::field,
    .columns = 512,
    .rows = 512,
    .settings = polar_settings,
    .field =
        [](int width, int height, Values set) {
            return image::generated(width, height, [&](int x, int y) {
                const Place at = place(x, y, width, height);
                return colour::hsv_model.to({at.angle, std::min(1.0, at.radius), set[0]});
            });
        },
};

const Target flat_lattice = {
    .name = "flat_lattice",
    .title = "flat lattice",
    .detail = "33 levels of r, g and b",
    .doc = "Every combination of the levels, once each: red across and green down in each square, one square a level "
           "of blue, row by row. "
           "Pictures of it say what a chain of steps elsewhere does.",
    .shape = Shape::field,
    .columns = 198,
    .rows = 198,
    .settings = lattice_settings,
    .field = latticed,
};

} // namespace kasuri::targets
