#include "colour/models/models.hpp"
#include "targets/target.hpp"

namespace kasuri::targets {

extern const Target saturation_ramp;
const Target saturation_ramp = {
    .name = "saturation_ramp",
    .title = "saturation ramp",
    .detail = "hue 132\u00b0, value 0.8",
    .doc = "HSV saturation from 0 to 1 at one hue and value.",
    .shape = Shape::strip,
    .axis = {0, 1, Scale::linear, {{0, "0"}, {0.25, "0.25"}, {0.5, "0.5"}, {0.75, "0.75"}, {1, "1"}}, ""},
    .thread_low = -0.05,
    .thread_high = 1,
    .colour = [](double value) { return colour::hsv_model.to({132, value, 0.8}); },
};

} // namespace kasuri::targets
