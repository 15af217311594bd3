// Colour differences of the signal that a reference display gets.
#include "colour/model.hpp"
#include "colour/models/models.hpp"
#include "readings/common.hpp"

#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace kasuri::readings {
namespace {

struct System {
    std::string_view name, working, expression, model;
};
constexpr System systems[] = {
    {"BT.709", "rec709-display", "vec2(ycbcr709(rgb).cb, ycbcr709(rgb).cr)", "ycbcr709"},
    {"BT.2020", "rec2020-display", "vec2(ycbcr2020(rgb).cb, ycbcr2020(rgb).cr)", "ycbcr2020"},
};
constexpr std::string_view names[] = {systems[0].name, systems[1].name};
constexpr std::string_view off_on[] = {"hidden", "shown"};
const Setting settings[] = {
    {"system", "whose primaries, curve and luma", 0, 0, 1, true, names},
    {"zoom", "times the usual size", 1, 1, 16},
    {"skin", "line of skin hues", 0, 0, 1, true, off_on},
};
constexpr double reach = 0.6;      ///< of the axes at zoom 1: the farthest bar lies at 0.56
constexpr double skin_angle = 123; ///< degrees from +Cb; common practice, no source

Axis axis(std::string title, double zoom) {
    const double end = reach / zoom;
    Axis made{std::move(title), -end, end, even_ticks(-end, end, 4)};
    return made;
}

Guide circle(double radius, std::string label) {
    Guide guide{{}, std::move(label), true};
    for (int degrees = 45; degrees <= 405; degrees += 3)
        guide.points.push_back(
            {radius * std::cos(degrees * std::numbers::pi / 180), radius * std::sin(degrees * std::numbers::pi / 180)});
    return guide;
}

std::vector<Panel> panels_of(Values set) {
    Panel panel;
    panel.square = true;
    panel.x = axis("Cb", set[1]);
    panel.y = axis("Cr", set[1]);
    const colour::Model& model = *colour::find_model(systems[static_cast<std::size_t>(set[0])].model);
    constexpr double bars[6][3] = {{1, 0, 0}, {1, 1, 0}, {0, 1, 0}, {0, 1, 1}, {0, 0, 1}, {1, 0, 1}};
    constexpr std::string_view letters[6] = {"r", "y", "g", "c", "b", "m"};
    Guide full{{}, "100 %", false};
    for (std::size_t i = 0; i < 7; ++i) {
        const double* bar = bars[i % 6];
        const colour::Triple at = model.from({bar[0], bar[1], bar[2]});
        full.points.push_back({at[1], at[2]});
        if (i == 6)
            break;
        // A small lozenge around the 75 % bar: two percent of the full swing each way.
        constexpr double room = 0.02;
        const double x = 0.75 * at[1], y = 0.75 * at[2];
        panel.guides.push_back({{{x + room, y}, {x, y + room}, {x - room, y}, {x, y - room}, {x + room, y}},
                                std::string(letters[i]),
                                false});
    }
    full.label.clear();
    panel.guides.push_back(std::move(full));
    panel.guides.push_back(circle(0.25, ""));
    panel.guides.push_back(circle(0.5, "0.5"));
    if (set[2] != 0) {
        const double angle = skin_angle * std::numbers::pi / 180;
        panel.guides.push_back({{{0.6 * std::cos(angle), 0.6 * std::sin(angle)}, {0, 0}}, "skin", true});
    }
    return {panel};
}

} // namespace

extern const Reading vectorscope;
const Reading vectorscope = {
    "vectorscope",
    "Vectorscope",
    "Colour differences of the signal that a reference display gets: lozenges at the 75 % bars, the outline at the 100 "
    "% bars. Every pixel is counted.",
    "ITU-R BT.709-6, items 3.2 and 3.3; ITU-R BT.2020-2, Table 4; ITU-R BT.1886; the skin line at 123 degrees: common "
    "practice, no source",
    About::pictures,
    settings,
    panels_of,
    [](const Order& order) {
        const System& system = systems[static_cast<std::size_t>(order.settings[0])];
        const std::vector<Panel> panels = panels_of(order.settings);
        return plane_counting(order, {system.working, system.expression}, panels[0].x, panels[0].y, "pixels");
    },
    nullptr,
};

} // namespace kasuri::readings
