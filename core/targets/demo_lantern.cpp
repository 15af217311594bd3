// A lantern that swings in front of a dyed curtain: numbered frames that begin again where they end.
#include "targets/demo_pictures.hpp"
#include "targets/paint.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace kasuri::targets {
namespace {

using namespace paint;

constexpr int width = 640, height = 360;
constexpr double hook_x = 320, hook_y = -40, cord = 230; ///< where it hangs, and the length of its cord, in pixels
constexpr double swing = 0.42;                           ///< radians to either side

constexpr std::array<Triple, 5> dyes = {{
    {0.055, 0.075, 0.21}, // indigo
    {0.36, 0.055, 0.045}, // madder
    {0.52, 0.36, 0.05},   // weld
    {0.075, 0.19, 0.085}, // indigo over weld
    {0.62, 0.60, 0.55},   // not dyed
}};

Triple curtain(double x, double y) {
    const double panel = std::clamp(x / width * 5, 0.0, 4.999);
    const auto which = static_cast<std::size_t>(panel);
    const double inside = panel - std::floor(panel);
    const double seam = soft(0.0, 0.012, inside) * soft(1.0, 0.988, inside);
    const double fold = 0.72 + 0.28 * std::sin(x / 9.5 + 1.4 * noise(x / 70, y / 130, 7));
    const double weave = 0.94 + 0.12 * noise(x * 0.8, y * 0.3, 11);
    return times(dyes[which], fold * weave * (0.35 + 0.65 * seam));
}

} // namespace

image::Image demo_lantern(int frame) {
    const double angle = swing * std::sin(2 * std::numbers::pi * frame / demo_lantern_frames);
    const double lantern_x = hook_x + cord * std::sin(angle), lantern_y = hook_y + cord * std::cos(angle);
    image::Image image = image::image_of(image::generated(width, height, [&](int column, int row) {
        const double x = column + 0.5, y = row + 0.5;
        const Triple cloth = curtain(x, y);
        const double far = std::hypot(x - lantern_x, y - lantern_y);
        const double near = 5200 / (2600 + far * far);
        const Triple light = plus({0.10, 0.105, 0.15}, times({1.9, 1.0, 0.40}, near));
        Triple colour = {cloth[0] * light[0], cloth[1] * light[1], cloth[2] * light[2]};
        // The cord, from the hook to the lantern.
        const double along =
            std::clamp(((x - hook_x) * std::sin(angle) + (y - hook_y) * std::cos(angle)) / cord, 0.0, 1.0);
        const double aside = std::fabs((x - hook_x) * std::cos(angle) - (y - hook_y) * std::sin(angle));
        if (along < 0.9)
            colour = mixed(colour, {0.03, 0.024, 0.02}, soft(1.6, 0.7, aside));
        colour = plus(colour, times({1.2, 0.60, 0.19}, 0.35 * std::exp(-far / 30)));
        const double turned_x = (x - lantern_x) * std::cos(angle) - (y - lantern_y) * std::sin(angle),
                     turned_y = (x - lantern_x) * std::sin(angle) + (y - lantern_y) * std::cos(angle);
        const double body = std::hypot(turned_x / 22, turned_y / 31);
        const Triple paper = mixed({5.6, 2.5, 0.66}, {19.0, 12.2, 5.2}, std::exp(-3 * body * body));
        return mixed(colour, times(paper, 0.85 + 0.15 * std::cos(turned_y * 0.8)), soft(1.04, 0.96, body));
    }));
    image.depth = image::Depth::half;
    return image;
}

} // namespace kasuri::targets
