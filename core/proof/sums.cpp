#include "insight/algebra.hpp"
#include "proof/measure.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

std::optional<Measurement> measure(const Task& task) {
    Measurement result;
    const image::Picture ramp = targets::make(*targets::find("grey_ramp"), 1025);
    const bool whole = measure_on(task, ramp, "grey_ramp", result, [](const auto& before, const auto& after) {
        double most = 0;
        for (std::size_t c = 0; c < 3; ++c) {
            const double by = std::fabs(static_cast<double>(after[c]) - before[c]) /
                std::max(1.0, std::fabs(static_cast<double>(before[c])));
            if (std::isnan(by))
                return by;
            most = std::max(most, by);
        }
        return most;
    });
    return whole ? std::optional(result) : std::nullopt;
}

} // namespace

extern const Function sums;
const Function sums = {
    "sums",
    "greys keep their value",
    "Along the grey ramp from -0.25 to 4 what comes out is what went in: the rows of a mixing matrix sum to 1. Largest "
    "change of a channel, relative to values above 1.",
    1e-4,
    false,
    measure,
    false,
    [](const Task& t) { return insight::shown_grey_kept(t.subject); },
};

} // namespace kasuri::proof
