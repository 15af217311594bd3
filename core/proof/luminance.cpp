#include "colour/space.hpp"
#include "engine/lower.hpp"
#include "insight/algebra.hpp"
#include "proof/measure.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

std::optional<Measurement> measure(const Task& task) {
    const colour::Space& space = *colour::find_space(task.subject.space());
    const colour::Triple weights = colour::luminance_weights(space);
    const auto luminance = [&](const std::array<float, 4>& c) {
        const colour::Triple light =
            colour::light_of(space, {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])});
        return weights[0] * light[0] + weights[1] * light[1] + weights[2] * light[2];
    };
    Measurement result;
    const std::vector<double> levels = middles(12);
    const bool whole =
        measure_on(task, targets::lattice(levels), "lattice", result, [&](const auto& before, const auto& after) {
            const double was = luminance(before);
            return std::fabs(luminance(after) - was) / std::max(1.0, std::fabs(was));
        });
    return whole ? std::optional(result) : std::nullopt;
}

bool shown(const Task& task) {
    const colour::Space& space = *colour::find_space(task.subject.space());
    return colour::is_linear(space) && !space.to_light &&
        insight::shown_sum_kept(task.subject, colour::luminance_weights(space));
}

} // namespace

extern const Function luminance;
const Function luminance = {
    "luminance",
    "luminance is kept",
    "On a lattice of colours between 0 and 1: largest change of luminance Y, by the weights of the working space.",
    1e-4,
    false,
    measure,
    false,
    shown,
};

} // namespace kasuri::proof
