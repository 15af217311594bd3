// How often each level occurs, column by column: the channels over each other, or side by side as a parade.
#include "readings/common.hpp"

#include <fmt/format.h>

namespace kasuri::readings {
namespace {

constexpr int waveform_columns = 480, parade_columns = 200, levels = 256;

const Setting settings[] = {
    {"unit", "what the levels are", 0, 0, 3, true, unit_names},
    {"low", "lowest level shown; low = high: what is usual for the unit", 0, -1000, 10000},
    {"high", "highest level shown", 0, -1000, 10000},
};

const Unit& unit_of(Values set) { return units()[static_cast<std::size_t>(set[0])]; }

std::vector<Panel> panels_of(Values set, int count) {
    const Unit& unit = unit_of(set);
    const auto [low, high] = range_of(unit, set[1], set[2]);
    std::vector<Panel> panels;
    for (int i = 0; i < count; ++i) {
        Panel panel;
        if (count > 1)
            panel.title = channel_names[i];
        panel.x = {"share of the width", 0, 1, {}};
        panel.y = {std::string(unit.title), low, high, even_ticks(low, high, 5)};
        panels.push_back(std::move(panel));
    }
    return panels;
}

std::unique_ptr<Counting> counting_of(const Order& order, int panels, int columns) {
    const Unit& unit = unit_of(order.settings);
    const auto [low, high] = range_of(unit, order.settings[1], order.settings[2]);
    const scopes::Bins bins{low, high, levels};
    return std::make_unique<ChannelCounting<scopes::ColumnCounter>>(
        unit, [bins, columns](int width) { return scopes::ColumnCounter(width, columns, bins); },
        [panels, columns](std::array<scopes::Counts, 3>& counts) {
            Measured measured;
            for (std::size_t c = 0; c < 3; ++c) {
                tell_outside(measured, channel_names[c], counts[c]);
                // From columns of levels to rows of columns.
                Density density{channel_inks[c], std::string(channel_names[c]), columns, levels,
                                std::vector<std::uint32_t>(static_cast<std::size_t>(columns) * levels)};
                counts[c].bins.resize(density.counts.size());
                for (std::size_t x = 0; x < static_cast<std::size_t>(columns); ++x)
                    for (std::size_t y = 0; y < levels; ++y)
                        density.counts[y * static_cast<std::size_t>(columns) + x] = counts[c].bins[x * levels + y];
                measured.layers.push_back({panels > 1 ? static_cast<int>(c) : 0, std::move(density)});
            }
            return measured;
        });
}

} // namespace

extern const Reading waveform, parade;

const Reading waveform = {
    "waveform",
    "Waveform",
    "Which levels occur in each column of the picture, r, g and b over each other. Every pixel is counted.",
    "nits: diffuse white 203 cd/m2, ITU-R BT.2408-7; stops about 0.18: common practice, no source",
    About::pictures,
    settings,
    [](Values set) { return panels_of(set, 1); },
    [](const Order& order) { return counting_of(order, 1, waveform_columns); },
    nullptr,
};

const Reading parade = {
    "parade",
    "Parade",
    "Which levels occur in each column of the picture, r, g and b side by side. Every pixel is counted.",
    "nits: diffuse white 203 cd/m2, ITU-R BT.2408-7; stops about 0.18: common practice, no source",
    About::pictures,
    settings,
    [](Values set) { return panels_of(set, 3); },
    [](const Order& order) { return counting_of(order, 3, parade_columns); },
    nullptr,
};

} // namespace kasuri::readings
