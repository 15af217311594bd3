#include "proof/measure.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

std::optional<Measurement> measure(const Task& task) {
    Measurement result;
    const image::Picture ramp = targets::make(*targets::find("grey_ramp"), 4097);
    std::array<float, 4> last{};
    bool first = true;
    const bool whole = measure_on(task, ramp, "grey_ramp", result, [&](const auto&, const auto& after) {
        double fall = 0;
        for (std::size_t c = 0; c < 3; ++c) {
            const double by = first ? 0 : static_cast<double>(last[c]) - after[c];
            if (!std::isfinite(after[c]))
                return std::nan("");
            fall = std::max(
                fall, by / std::max(1.0, std::fabs(static_cast<double>(after[c])))); // rounding grows with the number
        }
        last = after;
        first = false;
        return fall;
    });
    return whole ? std::optional(result) : std::nullopt;
}

} // namespace

extern const Function monotonic;
const Function monotonic = {
    "monotonic",
    "no reversals",
    "Along the grey ramp from -0.25 to 4 no channel ever falls: the largest fall from one step of 4097 to the next.",
    1e-6,
    false,
    measure,
    false,
    nullptr,
    false,
    false,
    [](const insight::Bounds& of, double limit) { return of.rises(-0.25, 4, limit); },
};

} // namespace kasuri::proof
