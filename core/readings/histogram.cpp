// How often each level occurs in the whole picture.
#include "readings/common.hpp"

#include <cmath>

namespace kasuri::readings {
namespace {

constexpr int bins = 256;
constexpr std::string_view scales[] = {"linear", "log"};
const Setting settings[] = {
    {"unit", "what the levels are", 0, 0, 3, true, unit_names},
    {"low", "lowest level shown; low = high: what is usual for the unit", 0, -1000, 10000},
    {"high", "highest level shown", 0, -1000, 10000},
    {"counts", "how counts are drawn up", 0, 0, 1, true, scales},
};

std::vector<Panel> panels_of(Values set) {
    const Unit& unit = units()[static_cast<std::size_t>(set[0])];
    const auto [low, high] = range_of(unit, set[1], set[2]);
    Panel panel;
    panel.x = {std::string(unit.title), low, high, even_ticks(low, high, 5)};
    if (set[3] == 0)
        panel.y = {"share of pixels, %", 0, 10, even_ticks(0, 10, 4)};
    else
        panel.y = {"share of pixels, log10", -6, 0, {{-6, "1e-6"}, {-4, "0.01 %"}, {-2, "1 %"}, {0, "all"}}};
    return {panel};
}

std::unique_ptr<Counting> counting_of(const Order& order) {
    const Unit& unit = units()[static_cast<std::size_t>(order.settings[0])];
    const auto [low, high] = range_of(unit, order.settings[1], order.settings[2]);
    const scopes::Bins levels{low, high, bins};
    const bool plain = order.settings[3] == 0;
    return std::make_unique<ChannelCounting<scopes::LevelCounter>>(
        unit, [levels](int) { return scopes::LevelCounter(levels); },
        [levels, plain](std::array<scopes::Counts, 3>& counts) {
            Measured measured;
            for (std::size_t c = 0; c < 3; ++c) {
                tell_outside(measured, channel_names[c], counts[c]);
                const auto total = static_cast<double>(std::max<std::uint64_t>(1, counts[c].total()));
                counts[c].bins.resize(bins);
                Trace trace{channel_inks[c], std::string(channel_names[c]), {}};
                for (int i = 0; i < bins; ++i) {
                    const double share = counts[c].bins[static_cast<std::size_t>(i)] / total;
                    trace.points.push_back(
                        {static_cast<float>(levels.middle(i)),
                         static_cast<float>(plain ? 100 * share : std::log10(std::max(share, 1e-7)))});
                }
                measured.layers.push_back({0, std::move(trace)});
            }
            return measured;
        });
}

} // namespace

extern const Reading histogram;
const Reading histogram = {
    "histogram",
    "Histogram",
    "How often each level occurs, as a share of all pixels. Every pixel is counted.",
    "nits: diffuse white 203 cd/m2, ITU-R BT.2408-7; stops about 0.18: common practice, no source",
    About::pictures,
    settings,
    panels_of,
    counting_of,
    nullptr,
};

} // namespace kasuri::readings
