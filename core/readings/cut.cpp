// The values along one line drawn across the picture.
#include "readings/common.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::readings {
namespace {

const Setting settings[] = {
    {"unit", "what the values are", 0, 0, 3, true, unit_names},
    {"low", "lowest value shown; low = high: what is usual for the unit", 0, -1000, 10000},
    {"high", "highest value shown", 0, -1000, 10000},
};

std::vector<Panel> panels_of(Values set) {
    const Unit& unit = units()[static_cast<std::size_t>(set[0])];
    const auto [low, high] = range_of(unit, set[1], set[2]);
    Panel panel;
    panel.x = {"share of the line", 0, 1, even_ticks(0, 1, 4)};
    panel.y = {std::string(unit.title), low, high, even_ticks(low, high, 4)};
    return {panel};
}

std::optional<Measured> measured_on(const Order& order) {
    const Unit& unit = units()[static_cast<std::size_t>(order.settings[0])];
    Measured measured;
    for (const image::Picture* picture : order.pictures) {
        const image::Picture row = along(*picture, order.line);
        const auto planes = in_unit(order, row, unit);
        if (!planes)
            return std::nullopt;
        for (std::size_t c = 0; c < 3; ++c) {
            Trace trace{channel_inks[c], std::string(channel_names[c]), {}};
            for (std::size_t i = 0; i < row.pixels(); ++i)
                trace.points.push_back(
                    {static_cast<float>((static_cast<double>(i) + 0.5) / static_cast<double>(row.pixels())),
                     (*(*planes)[c])[i]});
            measured.layers.push_back({0, std::move(trace)});
        }
    }
    return measured;
}

} // namespace

image::Picture along(const image::Picture& picture, const Line& line) {
    const double dx = (line.x1 - line.x0) * picture.width, dy = (line.y1 - line.y0) * picture.height;
    const int count = std::max(1, static_cast<int>(std::lround(std::max(std::fabs(dx), std::fabs(dy)))));
    const auto pixel_at = [&](int i) {
        const double share = (i + 0.5) / count;
        const int x = std::clamp(static_cast<int>(std::floor((line.x0 + (line.x1 - line.x0) * share) * picture.width)),
                                 0, picture.width - 1);
        const int y = std::clamp(static_cast<int>(std::floor((line.y0 + (line.y1 - line.y0) * share) * picture.height)),
                                 0, picture.height - 1);
        return picture.at(x, y);
    };
    image::Picture row = image::generated(count, 1, [&](int i, int) { return pixel_at(i); });
    row.space = picture.space;
    return row;
}

extern const Reading cut;
const Reading cut = {
    "cut",
    "Cut",
    "The values along the line across the picture, pixel by pixel.",
    "nits: diffuse white 203 cd/m2, ITU-R BT.2408-7",
    About::pictures,
    settings,
    panels_of,
    measured_on,
};

} // namespace kasuri::readings
