// Dyed cloth on a line at dusk, a river behind it, a lantern far above 1. Linear BT.709 light.
#include "targets/demo_pictures.hpp"
#include "targets/paint.hpp"

#include <array>

namespace kasuri::targets {
namespace {

using namespace paint;

constexpr int width = 1920;
constexpr int height = 1080;
constexpr double horizon = 560;
constexpr double shore = 770;
constexpr double lantern_x = 1715, lantern_y = 372;

struct Cloth {
    double left, right, top, bottom;
    Triple dye;
    int weave; ///< which pattern
    std::uint64_t seed;
};
constexpr std::array<Cloth, 6> cloths = {{
    {175, 405, 208, 690, {0.40, 0.034, 0.030}, 0, 11},
    {455, 700, 222, 770, {0.018, 0.045, 0.190}, 1, 12},
    {742, 915, 232, 640, {0.62, 0.40, 0.045}, 2, 13},
    {975, 1215, 234, 720, {0.030, 0.150, 0.165}, 3, 14},
    {1262, 1420, 228, 655, {0.42, 0.24, 0.125}, 4, 15},
    {1458, 1652, 216, 735, {0.78, 0.66, 0.50}, 5, 16},
}};

double rope_y(double x) {
    const double t = (x - 905) / 775;
    return 236 - 44 * t * t;
}

Triple sky(double x, double y) {
    const double t = std::clamp(y / horizon, 0.0, 1.0);
    Triple colour = mixed({0.040, 0.050, 0.125}, {0.28, 0.155, 0.165}, soft(0.1, 0.75, t));
    colour = mixed(colour, {0.86, 0.40, 0.17}, soft(0.55, 1.05, t));
    const double streak = soft(0.48, 0.72, cloud(x / 520, y / 70, 1) + 0.06 * noise(x / 90, y / 20, 2));
    const Triple lit = mixed({0.10, 0.085, 0.15}, {0.98, 0.46, 0.26}, soft(0.35, 0.95, t));
    return mixed(colour, lit, 0.55 * streak * (1 - 0.5 * soft(0.9, 1.0, t)));
}

double hill_y(double x, double base, double swing, std::uint64_t seed) {
    return base - swing * cloud(x / 460, 0.5, seed);
}

/// Everything behind the cloths, without the lantern.
Triple land(double x, double y) {
    Triple colour = sky(x, y);
    const double far = hill_y(x, 560, 150, 21), near = hill_y(x + 700, 582, 96, 22);
    colour = mixed(colour, {0.105, 0.078, 0.115}, soft(far - 1.2, far + 1.2, y));
    colour = mixed(colour, {0.034, 0.034, 0.048}, soft(near - 1.2, near + 1.2, y) * soft(590, 560, y));
    if (y > horizon - 2) {
        // Water: the sky turned over, shaken by ripples that shrink towards the far bank.
        const double depth = (y - horizon) / (shore - horizon);
        const double ripple = noise(x / (14 + 60 * depth), y / (1.5 + 5 * depth), 31) - 0.5;
        const Triple mirrored =
            sky(x + 30 * ripple * depth, horizon - (y - horizon) * 1.35 + 46 * ripple * (0.2 + depth));
        Triple water = times(mirrored, 0.62 - 0.16 * depth);
        water = plus(water, times({0.20, 0.11, 0.07}, 0.5 * soft(0.22, 0.5, ripple)));
        const double across = std::fabs(x - lantern_x - 60 * ripple * depth) / (14 + 46 * depth);
        const double glint = std::exp(-across * across) * soft(-0.12, 0.35, ripple) * soft(0.0, 0.15, depth);
        water = plus(water, times({3.4, 1.75, 0.55}, glint));
        colour = mixed(colour, water, soft(horizon - 1.5, horizon + 1.5, y));
    }
    // The bank: dark grass, drawn as blades of many heights.
    const double edge = shore + 14 * (cloud(x / 130, 3.5, 41) - 0.5);
    if (y > edge - 75) {
        double cover = soft(edge - 3, edge + 5, y);
        const double column = x + 0.16 * (y - edge) * (noise(x / 55, 9.5, 42) - 0.5);
        const double blade = hash(static_cast<std::int64_t>(std::floor(column / 3)), 7, 43);
        const double tip = edge - 72 * blade * blade * blade;
        cover =
            std::max(cover, soft(tip, tip + 14, y) * soft(0.15, 0.5, 1 - std::fabs(std::fmod(column, 3.0) / 1.5 - 1)));
        const double shade = 0.55 + 0.9 * noise(column / 2.3, y / 46, 44);
        const Triple grass = mixed({0.030, 0.040, 0.018}, {0.085, 0.072, 0.030}, cloud(x / 240, y / 90, 45));
        const double warm = 0.55 * std::exp(-std::hypot(x - lantern_x, (y - 860) * 2.1) / 330);
        colour = mixed(colour, plus(times(grass, shade), times({0.20, 0.105, 0.032}, warm * shade)), cover);
    }
    return colour;
}

/// Threads dyed before weaving: each step of a motif is a little out of place, so edges feather.
double tied(double u, double v, std::uint64_t seed) {
    const double slip = 5.0 * (noise(u * 0.9, v / 90, seed) - 0.5);
    const double a = std::fmod(u + 4000, 82.0) - 41, b = std::fmod(v + slip + 4000, 82.0) - 41;
    const double cross =
        std::min(std::max(std::fabs(a) / 26, std::fabs(b) / 8), std::max(std::fabs(a) / 8, std::fabs(b) / 26));
    const double corner = (std::fabs(std::fabs(a) - 33) + std::fabs(std::fabs(b) - 33)) / 9;
    return soft(1.12, 0.88, std::min(cross, corner));
}

Triple dyed(const Cloth& cloth, double u, double v, double length) {
    const Triple paper = {0.70, 0.62, 0.48};
    switch (cloth.weave) {
    case 0: return mixed(cloth.dye, {0.17, 0.016, 0.018}, soft(length - 64, length - 56, v));
    case 1: return mixed(cloth.dye, {0.60, 0.63, 0.66}, 0.92 * tied(u, v, cloth.seed));
    case 2: return mixed(cloth.dye, {0.46, 0.27, 0.035}, soft(0.4, 0.6, 0.5 + 0.5 * std::sin(v / 21)) * 0.55);
    case 3: {
        const double band = soft(2, 0, std::fabs(v - length + 120) - 13) + soft(2, 0, std::fabs(v - length + 72) - 7);
        const double diamond =
            soft(1.06, 0.94, (std::fabs(std::fmod(u + 400, 46.0) - 23) + std::fabs(std::fmod(v + 400, 46.0) - 23)) / 9);
        return mixed(mixed(cloth.dye, {0.055, 0.23, 0.24}, 0.8 * diamond), paper, std::min(1.0, band));
    }
    case 4: return mixed(cloth.dye, {0.25, 0.125, 0.060}, 0.5 * cloud(u / 34, v / 150, cloth.seed));
    default: return mixed(paper, {0.58, 0.085, 0.040}, soft(0.25, 0.55, std::sin(u / 6.4)));
    }
}

/// Lays the cloths over `colour`.
Triple hang(Triple colour, double x, double y) {
    for (const Cloth& cloth : cloths) {
        if (x < cloth.left - 40 || x > cloth.right + 40 || y < cloth.top - 40 || y > cloth.bottom + 30)
            continue;
        const double hung = rope_y(x) + 3;
        const double length = cloth.bottom - cloth.top;
        const double fall = std::clamp((y - hung) / length, 0.0, 1.0);
        const double wind = 18 * fall * fall * std::sin(x / 190 + static_cast<double>(cloth.seed));
        const double u = x - cloth.left - wind * 0.8;
        const double span = cloth.right - cloth.left;
        const double hem = hung + length + 9 * std::sin(u / span * 7 + static_cast<double>(cloth.seed)) * 0.9;
        const double inside = soft(-1, 1, u) * soft(-1, 1, span - u) * soft(-1, 1, y - hung) * soft(-1, 1, hem - y);
        if (inside <= 0)
            continue;
        const double phase =
            u / span * 15 + 1.3 * noise(y / 210, u / 160, cloth.seed) + 0.7 * static_cast<double>(cloth.seed);
        const double fold = 0.5 + 0.5 * std::sin(phase) * (0.35 + 0.65 * fall);
        const double thread = 0.93 + 0.14 * noise(u * 0.9, y * 0.24, cloth.seed + 5);
        const Triple dye = dyed(cloth, u, y - hung, length);
        const Triple dusk = {0.62, 0.55, 0.66};
        const double toward = 0.35 + 0.65 * soft(0.2, 0.95, 0.5 + 0.5 * std::cos(phase - 0.6));
        const double near =
            toward * 120000 / (60000 + (x - lantern_x) * (x - lantern_x) + 1.2 * (y - lantern_y) * (y - lantern_y));
        const double shade = (0.34 + 0.66 * fold) * (1 - 0.18 * fall);
        const Triple light = plus(times(dusk, shade), times({1.9, 1.02, 0.42}, near));
        // A little dusk shines through the weave.
        const Triple through = times({0.050, 0.028, 0.020}, 1 - fold);
        const Triple lit = {dye[0] * (light[0] * thread + through[0]), dye[1] * (light[1] * thread + through[1]),
                            dye[2] * (light[2] * thread + through[2])};
        colour = mixed(colour, lit, inside);
    }
    return colour;
}

Triple posts_and_rope(Triple colour, double x, double y) {
    const auto wood = [&](double centre, double half, double top) {
        const double lean = (y - 600) * 0.012;
        const double inside =
            soft(-1.2, 1.2, half - std::fabs(x - centre - lean)) * soft(-1.2, 1.2, y - top) * soft(1, -1, y - 902);
        const double grain = 0.7 + 0.5 * noise(x * 0.55, y / 60, 51);
        const double side = 0.5 + 0.5 * (x - centre - lean) / half;
        Triple timber = times({0.062, 0.044, 0.036}, grain);
        timber = plus(timber,
                      times({0.30, 0.155, 0.052},
                            centre > 1000 ? 0.55 * side * std::exp(-std::fabs(y - lantern_y) / 260) : 0.06));
        colour = mixed(colour, timber, inside);
    };
    wood(132, 12, 168);
    wood(1676, 13, 150);
    const double rope = std::fabs(y - rope_y(x));
    if (x > 132 && x < 1676)
        colour = mixed(colour, times({0.16, 0.12, 0.085}, 0.7 + 0.5 * noise(x / 3, 0.5, 52)), soft(3.2, 1.6, rope));
    // The arm that holds the lantern.
    if (x > 1670 && x < 1722)
        colour = mixed(colour, {0.05, 0.036, 0.03}, soft(4.5, 2.8, std::fabs(y - 268 + (x - 1670) * 0.08)));
    if (y > 264 && y < 316)
        colour = mixed(colour, {0.04, 0.03, 0.026}, soft(2.0, 0.9, std::fabs(x - lantern_x)));
    return colour;
}

Triple lantern(Triple colour, double x, double y) {
    const double dx = x - lantern_x, dy = y - lantern_y;
    const double far = std::hypot(dx, dy);
    colour = plus(colour, times({1.35, 0.66, 0.20}, 0.42 * std::exp(-far / 62) + 0.045 * std::exp(-far / 230)));
    const double body = std::hypot(dx / 36, dy / 54);
    const double inside = soft(1.02, 0.98, body);
    const double rib = 0.82 + 0.18 * std::cos(dy * 0.62);
    const Triple paper = times(mixed({6.2, 2.75, 0.72}, {24.0, 15.5, 6.6}, std::exp(-3.2 * body * body)), rib);
    colour = mixed(colour, paper, inside);
    const double cap = soft(1.5, -1.5, std::fabs(dx) - 19) * soft(1.5, -1.5, std::fabs(std::fabs(dy) - 53) - 5);
    return mixed(colour, {0.045, 0.03, 0.024}, cap);
}

} // namespace

image::Image demo_cloths() {
    image::Image image = image::image_of(image::generated(width, height, [](int column, int row) {
        const double x = column + 0.5, y = row + 0.5;
        return lantern(posts_and_rope(hang(land(x, y), x, y), x, y), x, y);
    }));
    image.depth = image::Depth::half;
    return image;
}

} // namespace kasuri::targets
