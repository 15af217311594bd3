#include "insight/algebra.hpp"
#include "proof/measure.hpp"
#include "targets/target.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

double moved(const std::array<float, 4>& before, const std::array<float, 4>& after) {
    double most = 0, scale = 1;
    for (std::size_t i = 0; i < 4; ++i) {
        const double by = std::fabs(static_cast<double>(after[i]) - before[i]);
        if (std::isnan(by))
            return by;
        most = std::max(most, by);
        scale = std::max(scale, std::fabs(static_cast<double>(before[i])));
    }
    return most / scale;
}

std::optional<Measurement> measure(const Task& task) {
    Measurement result;
    if (!measure_on(task, targets::lattice(telling_levels), "lattice", result, moved))
        return std::nullopt;
    if (task.variation > 0) // what further pictures are is varied on the lattice alone
        return result;
    for (const targets::Target* target : targets::all())
        if (!measure_on(task, targets::sampled(*target, 512), target->name, result, moved))
            return std::nullopt;
    return result;
}

} // namespace

extern const Function identity;
const Function identity = {
    "identity",
    "identity at defaults",
    "At its defaults the rule changes nothing: largest change of a channel, relative to the largest channel where that "
    "is above 1.",
    2e-6,
    true,
    measure,
    true,
    [](const Task& t) { return insight::shown_identity(t.subject); },
};

} // namespace kasuri::proof
