#include "targets/target.hpp"

#include <cmath>

namespace kasuri::targets {

extern const Target grey_ramp, saturation_ramp, hue_sweep, dye_chart;

namespace {
const Target* const table[] = {
    &grey_ramp,
    &saturation_ramp,
    &hue_sweep,
    &dye_chart,
};
constexpr double sinh_unit = 0.1;
} // namespace

std::span<const Target* const> all() { return table; }

const Target* find(std::string_view name) {
    for (const Target* target : table)
        if (target->name == name)
            return target;
    return nullptr;
}

double forward(Scale scale, double value) { return scale == Scale::linear ? value : std::asinh(value / sinh_unit); }
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

image::Picture make(const Target& target, int width) {
    if (target.shape == Shape::patches)
        return image::generated(target.columns, target.rows,
                                [&](int x, int y) { return target.colour(y * target.columns + x); });
    return image::generated(width, 1, [&](int x, int) { return target.colour(target.axis.value_at((x + 0.5) / width)); });
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
