#include "targets/target.hpp"

namespace kasuri::targets {

extern const Target grey_ramp;
const Target grey_ramp = {
    .name = "grey_ramp",
    .title = "grey ramp",
    .detail = "\u22120.25 .. 4",
    .doc = "r = g = b from below 0 to far above 1; evenly spread around 0, by stops above.",
    .shape = Shape::strip,
    .axis = {-0.25, 4, Scale::sinh_like, {{-0.25, "\u22120.25"}, {0, "0"}, {0.18, "0.18"}, {1, "1"}, {4, "4"}}, ""},
    .thread_low = -0.25,
    .thread_high = 4,
    .thread_scale = Scale::sinh_like,
    .colour = [](double value) { return std::array<double, 3>{value, value, value}; },
};

} // namespace kasuri::targets
