// Greys by stops, by even steps above 1, and as a wedge of densities.
#include "targets/target.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::targets {
namespace {
constexpr double middle_grey = 0.18;

constexpr Setting stops_settings[] = {
    {"low", "stops below middle grey", 8, 1, 16},
    {"high", "stops above middle grey", 6, 1, 10},
};
constexpr Setting bright_settings[] = {{"high", "value at the right end", 5, 1, 64}};
constexpr Setting wedge_settings[] = {
    {"steps", "how many", 21, 2, 64, true},
    {"density", "difference of density from one step to the next; 0.3 is a stop", 0.15, 0.01, 1},
};

Colour grey(double value) { return {value, value, value}; }
} // namespace

extern const Target grey_stops, superbright_ramp, step_wedge;

const Target grey_stops = {
    .name = "grey_stops",
    .title = "grey by stops",
    .detail = "\u22128 .. +6 stops about 0.18",
    .doc = "Greys from 8 stops below middle grey (0.18) to 6 above: every stop is as wide as the next.",
    .source = "0.18 for middle grey: common practice, no source",
    .shape = Shape::strip,
    .axis = {-8,
             6,
             Scale::linear,
             {{-8, "\u22128"},
              {-6, "\u22126"},
              {-4, "\u22124"},
              {-2, "\u22122"},
              {0, "0"},
              {2, "+2"},
              {4, "+4"},
              {6, "+6"}},
             " stops"},
    .thread_low = 0,
    .thread_high = 11.52,
    .thread_scale = Scale::sinh_like,
    .settings = stops_settings,
    .axis_of =
        [](Values set) {
            Axis axis = grey_stops.axis;
            axis.low = -set[0];
            axis.high = set[1];
            std::erase_if(axis.ticks,
                          [&](const Tick& tick) { return tick.value < axis.low || tick.value > axis.high; });
            return axis;
        },
    .colour = [](double stop, Values) { return grey(middle_grey * std::exp2(stop)); },
};

const Target superbright_ramp = {
    .name = "superbright_ramp",
    .title = "superbright ramp",
    .detail = "0 .. 5",
    .doc = "Greys in even steps from 0 far beyond 1, where curves and clips show what they do to highlights.",
    .shape = Shape::strip,
    .axis = {0, 5, Scale::linear, {{0, "0"}, {1, "1"}, {2, "2"}, {3, "3"}, {4, "4"}, {5, "5"}}, ""},
    .thread_low = 0,
    .thread_high = 5,
    .settings = bright_settings,
    .axis_of =
        [](Values set) {
            Axis axis = superbright_ramp.axis;
            axis.high = set[0];
            std::erase_if(axis.ticks, [&](const Tick& tick) { return tick.value > axis.high; });
            return axis;
        },
    .colour = [](double value, Values) { return grey(value); },
};

const Target step_wedge = {
    .name = "step_wedge",
    .title = "step wedge",
    .detail = "21 steps of density 0.15, from 1 down",
    .doc = "Steps of equal density, 1 at the left: step n has the light 10^(-n density). 0.15 is half a stop.",
    .source = "21 steps of 0.15: common practice, no source",
    .shape = Shape::strip,
    .axis = {0, 1, Scale::linear, {}, ""},
    .settings = wedge_settings,
    .colour =
        [](double share, Values set) {
            const double step = std::clamp(std::floor(share * set[0]), 0.0, set[0] - 1);
            return grey(std::pow(10.0, -step * set[1]));
        },
};

} // namespace kasuri::targets
