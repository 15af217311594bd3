#include "colour/models/models.hpp"
#include "targets/target.hpp"

namespace kasuri::targets {
namespace {
constexpr Setting settings[] = {
    {"saturation", "HSV saturation", 0.85, 0, 1},
    {"value", "HSV value", 0.8, 0, 16},
};
} // namespace

extern const Target hue_sweep;
const Target hue_sweep = {
    .name = "hue_sweep",
    .title = "hue sweep",
    .detail = "0 .. 360\u00b0, saturation 0.85, value 0.8",
    .doc = "All HSV hues at one saturation and value, red to red.",
    .source = "A. R. Smith 1978, Color gamut transform pairs",
    .shape = Shape::strip,
    .axis = {0,
             360,
             Scale::linear,
             {{0, "0\u00b0"},
              {60, "60\u00b0"},
              {120, "120\u00b0"},
              {180, "180\u00b0"},
              {240, "240\u00b0"},
              {300, "300\u00b0"},
              {360, "360\u00b0"}},
             "\u00b0"},
    .thread_low = -0.05,
    .thread_high = 1,
    .settings = settings,
    .colour =
        [](double value, Values set) {
            return colour::hsv_model.to({value, set[0], set[1]});
        },
};

} // namespace kasuri::targets
