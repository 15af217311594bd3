// The values along one line drawn across the picture.
#include "image/rows.hpp"
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
    struct Place {
        int x, y;
    };
    const auto place = [&](int i) {
        const double share = (i + 0.5) / count;
        const auto on = [&](double from, double to, int size) {
            return std::clamp(static_cast<int>(std::floor((from + (to - from) * share) * size)), 0, size - 1);
        };
        return Place{on(line.x0, line.x1, picture.width), on(line.y0, line.y1, picture.height)};
    };
    std::array<image::Samples, 3> made;
    for (image::Samples& channel : made)
        channel.resize(static_cast<std::size_t>(count));
    // A stretch of the line at a time, with all that lies in its rectangle: of what is made on demand, few pixels take
    // as long as one.
    constexpr int pixels_at_once = 512;
    for (int first = 0, next = 0; first < count; first = next) {
        Place low = place(first), high = low;
        for (next = first + 1; next < count; ++next) {
            const Place p = place(next), lower{std::min(low.x, p.x), std::min(low.y, p.y)},
                        higher{std::max(high.x, p.x), std::max(high.y, p.y)};
            if ((higher.x - lower.x + 1) * (higher.y - lower.y + 1) > pixels_at_once)
                break;
            low = lower;
            high = higher;
        }
        const auto wide = static_cast<std::size_t>(high.x - low.x + 1);
        image::Rows rows(picture, static_cast<std::size_t>(low.x), static_cast<std::size_t>(low.y), wide);
        rows.at(0, static_cast<std::size_t>(high.y - low.y + 1));
        for (std::size_t c = 0; c < 3; ++c) {
            const float* const values = rows.all(c);
            for (int i = first; i < next; ++i) {
                const Place p = place(i);
                made[c][static_cast<std::size_t>(i)] =
                    values[static_cast<std::size_t>(p.y - low.y) * wide + static_cast<std::size_t>(p.x - low.x)];
            }
        }
    }
    image::Picture row;
    row.width = count;
    row.height = 1;
    row.space = picture.space;
    for (std::size_t c = 0; c < 3; ++c)
        row.planes[c] = image::make_plane(std::move(made[c]));
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
    nullptr,
    measured_on,
};

} // namespace kasuri::readings
