// The primaries and secondaries, and the spectrum that a ramp becomes when it is taken for a hue.
#include "colour/models/models.hpp"
#include "targets/target.hpp"

namespace kasuri::targets {
namespace {
constexpr Setting settings[] = {{"high", "value at the right end", 1, 0.01, 16}};

template <int red, int green, int blue>
Target ramp(std::string_view name, std::string_view title, std::string_view doc, const Axis& axis) {
    return {
        .name = name,
        .title = title,
        .detail = "0 .. 1",
        .doc = doc,
        .shape = Shape::strip,
        .axis = axis,
        .thread_low = -0.05,
        .thread_high = 1,
        .settings = settings,
        .axis_of =
            [](Values set) {
                return Axis{
                    0, set[0], Scale::linear, {{0, "0"}, {0.25, "0.25"}, {0.5, "0.5"}, {0.75, "0.75"}, {1, "1"}}, ""};
            },
        .colour =
            [](double value, Values) {
                return Colour{value * red, value * green, value * blue};
            },
    };
}
const Axis unit = {0, 1, Scale::linear, {{0, "0"}, {0.25, "0.25"}, {0.5, "0.5"}, {0.75, "0.75"}, {1, "1"}}, ""};
} // namespace

extern const Target red_ramp, green_ramp, blue_ramp, cyan_ramp, magenta_ramp, yellow_ramp, spectrum;
const Target red_ramp = ramp<1, 0, 0>("red_ramp", "red ramp", "Red alone from 0 to 1.", unit);
const Target green_ramp = ramp<0, 1, 0>("green_ramp", "green ramp", "Green alone from 0 to 1.", unit);
const Target blue_ramp = ramp<0, 0, 1>("blue_ramp", "blue ramp", "Blue alone from 0 to 1.", unit);
const Target cyan_ramp = ramp<0, 1, 1>("cyan_ramp", "cyan ramp", "Green and blue together from 0 to 1.", unit);
const Target magenta_ramp = ramp<1, 0, 1>("magenta_ramp", "magenta ramp", "Red and blue together from 0 to 1.", unit);
const Target yellow_ramp = ramp<1, 1, 0>("yellow_ramp", "yellow ramp", "Red and green together from 0 to 1.", unit);

const Target spectrum = {
    .name = "spectrum",
    .title = "spectrum",
    .detail = "a grey ramp taken for the hue",
    .doc = "A ramp from 0 to 1 turned into hue, with saturation and value 1: all full colours, red to red.",
    .source = "a ramp taken for hue is the full spectrum: common practice, no source",
    .shape = Shape::strip,
    .axis = unit,
    .thread_low = -0.05,
    .thread_high = 1,
    .colour =
        [](double value, Values) {
            return colour::hsv_model.to({360 * value, 1, 1});
        },
};

} // namespace kasuri::targets
