#include "insight/algebra.hpp"
#include "proof/measure.hpp"
#include "targets/target.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

std::optional<Measurement> measure(const Task& task) {
    Measurement result;
    const image::Picture ramp = targets::make(*targets::find("grey_ramp"), 1025);
    const bool whole = measure_on(task, ramp, "grey_ramp", result, [](const auto&, const auto& after) {
        const double spread =
            static_cast<double>(std::max({after[0], after[1], after[2]})) - std::min({after[0], after[1], after[2]});
        // Comparisons with NaN can hide it.
        return std::isfinite(after[0]) && std::isfinite(after[1]) && std::isfinite(after[2]) ? spread : std::nan("");
    });
    return whole ? std::optional(result) : std::nullopt;
}

} // namespace

extern const Function neutral;
const Function neutral = {
    "neutral",
    "greys stay grey",
    "Along the grey ramp from -0.25 to 4 the channels stay together: largest minus smallest channel.",
    1e-4,
    false,
    measure,
    true,
    [](const Task& t) { return insight::shown_neutral(t.subject); },
};

} // namespace kasuri::proof
