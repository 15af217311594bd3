#include "targets/target.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>
#include <utility>

namespace kasuri::targets {

extern const Target grey_ramp, grey_stops, superbright_ramp, step_wedge, saturation_ramp, hue_sweep, spectrum, red_ramp,
    green_ramp, blue_ramp, cyan_ramp, magenta_ramp, yellow_ramp, dye_chart, chart_1976, camera_chart, random_colours,
    hue_saturation, hue_lightness, radial, polar, flat_lattice, bars_75, bars_100, bars_hd, bars_hlg, bars_pq;

namespace {
const Target* const table[] = {
    &grey_ramp,    &saturation_ramp, &hue_sweep,      &grey_stops,     &superbright_ramp, &step_wedge,  &spectrum,
    &red_ramp,     &green_ramp,      &blue_ramp,      &cyan_ramp,      &magenta_ramp,     &yellow_ramp, &dye_chart,
    &chart_1976,   &camera_chart,    &random_colours, &hue_saturation, &hue_lightness,    &radial,      &polar,
    &flat_lattice, &bars_75,         &bars_100,       &bars_hd,        &bars_hlg,         &bars_pq,
};
constexpr double sinh_unit = 0.1;
constexpr int field_sample = 128;
} // namespace

std::span<const Target* const> all() { return table; }

const Target* find(std::string_view name) {
    for (const Target* target : table)
        if (target->name == name)
            return target;
    return nullptr;
}

double forward(Scale scale, double value) {
    switch (scale) {
    case Scale::linear: return value;
    case Scale::sinh_like: return std::asinh(value / sinh_unit);
    }
    return value;
}
double backward(Scale scale, double position) {
    return scale == Scale::linear ? position : sinh_unit * std::sinh(position);
}

double Axis::value_at(double share) const {
    const double from = forward(scale, low);
    return backward(scale, from + share * (forward(scale, high) - from));
}
double Axis::share_of(double value) const {
    const double from = forward(scale, low);
    return (forward(scale, value) - from) / (forward(scale, high) - from);
}

Axis axis_of(const Target& target, Values given) {
    return target.axis_of ? target.axis_of(completed(target.settings, given)) : target.axis;
}

image::Picture make(const Target& target, int width, Values given) {
    const std::vector<double> set = completed(target.settings, given);
    image::Picture picture;
    if (target.shape == Shape::field) {
        const int columns = width > 0 ? width : target.columns;
        picture = target.field(
            columns,
            std::max(1, static_cast<int>(std::lround(static_cast<double>(columns) * target.rows / target.columns))),
            set);
    } else if (target.shape == Shape::patches) {
        picture = image::generated(target.columns, target.rows,
                                   [&](int x, int y) { return target.colour(y * target.columns + x, set); });
    } else {
        const Axis axis = axis_of(target, set);
        picture = image::generated(width, 1,
                                   [&](int x, int) { return target.colour(axis.value_at((x + 0.5) / width), set); });
    }
    if (!target.space.empty())
        picture.space = target.space;
    return picture;
}

image::Picture picture_beside(const Target& target, int width) {
    image::Picture picture = make(target, width);
    if (target.shape == Shape::patches) {
        const image::Picture patches = std::move(picture);
        const int size = std::max(1, width / target.columns);
        picture = image::generated(patches.width * size, patches.height * size, [&](int x, int y) {
            const auto p = patches.at(x / size, y / size);
            return Colour{p[0], p[1], p[2]};
        });
    }
    picture.space = target.space;
    return picture;
}

const image::Picture& sampled(const Target& target, int strip_width) {
    static std::mutex mutex;
    static std::map<std::pair<const Target*, int>, image::Picture> made;
    const std::lock_guard lock(mutex);
    image::Picture& entry = made[{&target, strip_width}];
    if (entry.width == 0)
        entry = make(target, target.shape == Shape::strip ? strip_width : field_sample);
    return entry;
}

image::Picture lattice(std::span<const double> levels) {
    const int count = static_cast<int>(levels.size());
    return image::generated(count * count * count, 1, [&](int i, int) {
        return std::array<double, 3>{levels[static_cast<std::size_t>(i % count)],
                                     levels[static_cast<std::size_t>(i / count % count)],
                                     levels[static_cast<std::size_t>(i / count / count)]};
    });
}

std::string patch_name(const Target& target, int index) {
    return index >= 0 && static_cast<std::size_t>(index) < target.patch_names.size()
        ? std::string(target.patch_names[static_cast<std::size_t>(index)])
        : std::string();
}

} // namespace kasuri::targets
