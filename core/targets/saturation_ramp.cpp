#include "colour/models/models.hpp"
#include "targets/target.hpp"

namespace kasuri::targets {
namespace {
constexpr Setting settings[] = {
    {"hue", "HSV hue in degrees", 132, 0, 360},
    {"value", "HSV value", 0.8, 0, 16},
};
} // namespace

extern const Target saturation_ramp;
const Target saturation_ramp = {
    .name = "saturation_ramp",
    .title = "saturation ramp",
    .detail = "hue 132\u00b0, value 0.8",
    .doc = "HSV saturation from 0 to 1 at one hue and value.",
    .source = "A. R. Smith 1978, Color gamut transform pairs",
    .shape = Shape::strip,
    .axis = {0, 1, Scale::linear, {{0, "0"}, {0.25, "0.25"}, {0.5, "0.5"}, {0.75, "0.75"}, {1, "1"}}, ""},
    .thread_low = -0.05,
    .thread_high = 1,
    .settings = settings,
    .colour =
        [](double value, Values set) {
            return colour::hsv_model.to({set[0], value, set[1]});
        },
};

} // namespace kasuri::targets
