#include "proof/measure.hpp"

namespace kasuri::proof {
namespace {

std::optional<Measurement> measure(const Task& task) {
    Measurement result;
    const auto whole =
        measure_slopes(task, 16, result, [](const std::vector<insight::Jacobian>& slopes, std::size_t at) {
            return insight::noise_gain(slopes[at]);
        });
    return whole ? std::optional(result) : std::nullopt;
}

} // namespace

extern const Function noise;
const Function noise = {
    "noise",
    "noise stays low",
    "On 4096 colours between 0 and 1: how many times as loud independent noise of r, g, b comes out, in the channel "
    "that gets most of it.",
    2,
    false,
    measure,
};

} // namespace kasuri::proof
