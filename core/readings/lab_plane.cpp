// The plane of a* and b* (or of OKLab's a and b).
#include "readings/lab_plane.hpp"
#include "readings/common.hpp"

#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace kasuri::readings {
namespace {
constexpr std::string_view names[] = {plane_models[0].title, plane_models[1].title};
const Setting settings[] = {
    {"model", "of which plane", 0, 0, 1, true, names},
    {"zoom", "times the usual size", 1, 1, 32},
};
} // namespace

Panel plane_panel(const PlaneModel& model, double zoom) {
    const double end = model.reach / zoom;
    Panel panel;
    panel.square = true;
    panel.x = {std::string(model.a), -end, end, even_ticks(-end, end, 4)};
    panel.y = {std::string(model.b), -end, end, even_ticks(-end, end, 4)};
    for (const double share : {0.25, 0.5, 0.75}) {
        Guide circle{{}, fmt::format("{:g}", share * model.reach), true};
        for (int degrees = 45; degrees <= 405; degrees += 3)
            circle.points.push_back({share * model.reach * std::cos(degrees * std::numbers::pi / 180),
                                     share * model.reach * std::sin(degrees * std::numbers::pi / 180)});
        panel.guides.push_back(std::move(circle));
    }
    return panel;
}

extern const Reading lab_plane;
const Reading lab_plane = {
    "ab",
    "L*a*b* plane",
    "Where colours lie on the plane of a* and b*, seen from above. Every pixel is counted.",
    "CIE 15:2018, white D65; OKLab: Ottosson 2020",
    About::pictures,
    settings,
    [](Values set) { return std::vector{plane_panel(plane_models[static_cast<std::size_t>(set[0])], set[1])}; },
    [](const Order& order) {
        const PlaneModel& model = plane_models[static_cast<std::size_t>(order.settings[0])];
        const Panel panel = plane_panel(model, order.settings[1]);
        return plane_counting(order, {"rec709-linear", model.expression}, panel.x, panel.y, "pixels");
    },
    nullptr,
};

} // namespace kasuri::readings
