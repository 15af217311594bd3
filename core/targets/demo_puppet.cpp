// A rod puppet: layers robe, head, rods and all of them together, premultiplied by their alpha.
#include "targets/demo_pictures.hpp"
#include "targets/paint.hpp"

#include <array>
#include <string>

namespace kasuri::targets {
namespace {

using namespace paint;

constexpr int width = 960;
constexpr int height = 720;

/// A colour and how much of the pixel it covers.
struct Paint {
    Triple colour{};
    double cover = 0;
};

/// `top` over `bottom`; both straight, the result straight too.
Paint over(const Paint& top, const Paint& bottom) {
    const double cover = top.cover + bottom.cover * (1 - top.cover);
    if (cover <= 0)
        return {};
    Paint result{{}, cover};
    for (std::size_t i = 0; i < 3; ++i)
        result.colour[i] = (top.colour[i] * top.cover + bottom.colour[i] * bottom.cover * (1 - top.cover)) / cover;
    return result;
}

double disc(double x, double y, double cx, double cy, double rx, double ry, double edge) {
    const double r = std::min(rx, ry);
    return soft(r + edge, r - edge, std::hypot((x - cx) / rx, (y - cy) / ry) * r);
}

double segment(double x, double y, double x0, double y0, double x1, double y1, double half) {
    const double dx = x1 - x0, dy = y1 - y0;
    const double t = std::clamp(((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy), 0.0, 1.0);
    return soft(half + 1, half - 1, std::hypot(x - x0 - t * dx, y - y0 - t * dy));
}

Paint rods(double x, double y) {
    const double cover = std::max({segment(x, y, 268, 470, 176, 716, 4), segment(x, y, 700, 452, 806, 716, 4),
                                   segment(x, y, 480, 640, 482, 720, 6)});
    return {times({0.20, 0.125, 0.070}, 0.75 + 0.5 * noise(x / 3, y / 40, 3)), cover};
}

Paint robe(double x, double y) {
    const double down = std::clamp((y - 300) / 370, 0.0, 1.0);
    const double half = 66 + 150 * down + 10 * std::sin(y / 36);
    const double body =
        soft(-2, 2, half - std::fabs(x - 480)) * soft(-2, 2, y - 296) * soft(-3, 3, 668 + 7 * std::sin(x / 31) - y);
    const double arms = std::max(segment(x, y, 436, 340, 274, 462, 38), segment(x, y, 524, 340, 694, 444, 38));
    const double cover = std::max(body, arms);
    if (cover <= 0)
        return {};
    const double fold = 0.72 + 0.28 * std::sin((x - 480) / (8 + 17 * down) + 0.8 * noise(x / 60, y / 90, 5));
    const double a = std::fmod(x + 0.35 * y + 960, 54.0) - 27, b = std::fmod(y - 0.35 * x + 960, 54.0) - 27;
    const double motif =
        soft(9.5, 7.5, std::max(std::fabs(a), std::fabs(b))) - soft(5.5, 3.5, std::max(std::fabs(a), std::fabs(b)));
    Triple cloth = mixed({0.165, 0.022, 0.075}, {0.55, 0.42, 0.12}, motif);
    cloth = mixed(cloth, {0.030, 0.070, 0.165}, soft(616, 624, y));
    const double sash = soft(2, -2, std::fabs(y - 412) - 17) * soft(-2, 2, half - std::fabs(x - 480));
    cloth = mixed(cloth, {0.62, 0.33, 0.050}, sash);
    return {times(cloth, fold * (0.85 + 0.3 * noise(x * 0.7, y * 0.7, 6))), cover};
}

Paint head(double x, double y) {
    Paint all{{0.56, 0.345, 0.235}, std::max(disc(x, y, 480, 214, 82, 98, 1.5), segment(x, y, 480, 290, 480, 312, 24))};
    const double side = soft(-90, 110, x - 480);
    all.colour = times(all.colour, 1.08 - 0.5 * side);
    for (const double hand : {0.0, 1.0})
        all = over(
            {{0.50, 0.30, 0.20}, hand == 0.0 ? disc(x, y, 262, 472, 25, 25, 1.5) : disc(x, y, 706, 454, 25, 25, 1.5)},
            all);
    all = over({{0.52, 0.17, 0.12}, 0.35 * std::max(disc(x, y, 436, 246, 20, 15, 9), disc(x, y, 524, 246, 20, 15, 9))},
               all);
    for (const double eye : {447.0, 513.0}) {
        all = over({{0.80, 0.78, 0.74}, disc(x, y, eye, 214, 15, 9, 1.2)}, all);
        all = over({{0.010, 0.009, 0.012}, disc(x, y, eye + 2, 214, 6.5, 7.5, 1.0)}, all);
        all = over({{2.2, 2.1, 1.9}, disc(x, y, eye + 4, 211, 2, 2, 0.8)}, all); // a glint above 1
        all = over({{0.02, 0.016, 0.016}, segment(x, y, eye - 18, 192, eye + 16, 187, 2.6)}, all);
    }
    all = over({{0.33, 0.045, 0.035}, disc(x, y, 480, 268, 19, 6, 1.2)}, all);
    // Hair: wisps thin enough to be half transparent, where a careless offset would show.
    const double around = std::hypot((x - 480) / 92, (y - 190) / 104);
    const double wisp = noise(std::atan2(y - 190, x - 480) * 34, around * 2, 7);
    const double hair =
        soft(1.10 + 0.20 * wisp, 0.99, around) * soft(206 + 26 * wisp, 150, y - 14 * std::fabs(x - 480) / 40);
    return over({times({0.020, 0.017, 0.019}, 0.7 + 1.4 * wisp), hair}, all);
}

} // namespace

image::Image demo_puppet() {
    struct Layer {
        std::string prefix;
        Paint (*paint)(double, double);
    };
    const std::array<Layer, 4> layers = {{
        {"", [](double x, double y) { return over(head(x, y), over(robe(x, y), rods(x, y))); }},
        {"head.", head},
        {"robe.", robe},
        {"rods.", rods},
    }};
    image::Image image;
    image.width = width;
    image.height = height;
    image.alpha = image::Alpha::premultiplied;
    image.depth = image::Depth::half;
    for (const Layer& layer : layers) {
        std::array<image::Samples, 4> planes;
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) {
                const Paint paint = layer.paint(x + 0.5, y + 0.5);
                for (std::size_t i = 0; i < 3; ++i)
                    planes[i].push_back(static_cast<float>(paint.colour[i] * paint.cover));
                planes[3].push_back(static_cast<float>(paint.cover));
            }
        constexpr const char* letters[] = {"R", "G", "B", "A"};
        for (std::size_t i = 0; i < 4; ++i)
            image.channels.push_back({layer.prefix + letters[i], image::make_plane(std::move(planes[i]))});
    }
    return image;
}

} // namespace kasuri::targets
