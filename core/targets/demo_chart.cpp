// The chart of 1976 leans at the gate in lamplight: a simulated camera sees it askew, with noise, dust, a shine, and a
// sensor that ends at 1.
#include "image/perspective.hpp"
#include "targets/demo_pictures.hpp"
#include "targets/paint.hpp"
#include "targets/target.hpp"

#include <cmath>
#include <numbers>

namespace kasuri::targets {

extern const Target chart_1976;

namespace {

using namespace paint;

constexpr int width = 960, height = 640;
constexpr double pitch_gap = 0.09; // of a patch, on each side: the board between

/// What the camera makes of light of BT.709: its channels catch each other's light, under a lamp that lacks blue.
constexpr double sees[3][3] = {{1.05, 0.30, 0.04}, {0.12, 0.92, 0.08}, {0.02, 0.13, 0.44}};

double normal(int x, int y, std::uint64_t seed) { // Box and Muller 1958
    return std::sqrt(-2 * std::log(1 - hash(x, y, seed))) * std::cos(2 * std::numbers::pi * hash(x, y, seed + 1));
}

/// The light of the wall behind the board.
Triple wall(double x, double y) {
    const double planks = 0.85 + 0.15 * noise(x / 3, y / 90, 5);
    return times({0.12, 0.08, 0.05}, planks * (0.8 + 0.4 * cloud(x / 160, y / 160, 9)));
}

/// What is at a place of the board, in units of its patches: columns across and rows down.
Triple board(double across, double down) {
    const double column = std::floor(across), row = std::floor(down);
    const double u = across - column, v = down - row;
    if (column < 0 || column >= chart_1976.columns || row < 0 || row >= chart_1976.rows ||
        std::min(std::min(u, 1 - u), std::min(v, 1 - v)) < pitch_gap)
        return {0.012, 0.012, 0.012};
    const auto patch = static_cast<int>(row) * chart_1976.columns + static_cast<int>(column);
    Triple light = chart_1976.colour(patch, {});
    if (patch == 9 && hash(static_cast<int>(u * 24), static_cast<int>(v * 24), 41) > 0.96)
        light = {0.4, 0.38, 0.33}; // dust
    if (patch == 14)               // a shine from the lamp runs over the red patch
        light = plus(light, times({1, 1, 1}, 0.5 * soft(0.5, 0, std::hypot(u - 0.62, v - 0.3))));
    return light;
}

} // namespace

image::Image demo_chart() {
    const auto view = *image::Perspective::make(demo_chart_corners);
    constexpr double margin = 0.35; // of the board around the patches, in patches
    image::Picture made = image::generated(width, height, [&](int x, int y) {
        Triple light{};
        constexpr double quarters[] = {0.25, 0.75};
        for (const double sx : quarters)
            for (const double sy : quarters) {
                const image::Point on = view.back({x + sx, y + sy});
                const double across = on.x * chart_1976.columns, down = on.y * chart_1976.rows;
                const bool off = across < -margin || down < -margin || across > chart_1976.columns + margin ||
                    down > chart_1976.rows + margin;
                light = plus(light, times(off ? wall(x + sx, y + sy) : board(across, down), 0.25));
            }
        Triple seen{};
        for (std::size_t o = 0; o < 3; ++o) {
            for (std::size_t i = 0; i < 3; ++i)
                seen[o] += sees[o][i] * std::max(0.0, light[i]);
            seen[o] *= 1 + 0.005 * normal(x, y, 16 + 4 * o);
            seen[o] = std::min(1.0, seen[o]);
        }
        return seen;
    });
    image::Image image = image_of(made);
    image.depth = image::Depth::half;
    return image;
}

} // namespace kasuri::targets
