#include "targets/target.hpp"

namespace kasuri::targets {
namespace {
constexpr Setting settings[] = {
    {"low", "value at the left end", -0.25, -16, 0},
    {"high", "value at the right end", 4, 0.01, 64},
};
const Axis usual = {
    -0.25, 4, Scale::sinh_like, {{-0.25, "\u22120.25"}, {0, "0"}, {0.18, "0.18"}, {1, "1"}, {4, "4"}}, ""};
} // namespace

extern const Target grey_ramp;
const Target grey_ramp = {
    .name = "grey_ramp",
    .title = "grey ramp",
    .detail = "\u22120.25 .. 4",
    .doc = "r = g = b from below 0 to far above 1; evenly spread around 0, by stops above.",
    .shape = Shape::strip,
    .axis = usual,
    .thread_low = -0.25,
    .thread_high = 4,
    .thread_scale = Scale::sinh_like,
    .settings = settings,
    .axis_of =
        [](Values set) {
            Axis axis = usual;
            axis.low = set[0];
            axis.high = set[1];
            std::erase_if(axis.ticks,
                          [&](const Tick& tick) { return tick.value < axis.low || tick.value > axis.high; });
            return axis;
        },
    .colour =
        [](double value, Values) {
            return Colour{value, value, value};
        },
};

} // namespace kasuri::targets
