#include "baking/bake.hpp"
#include "proof/measure.hpp"

#include <limits>

namespace kasuri::proof {
namespace {

constexpr int size = 33;

/// The figure is measured by the hand-over itself, off the table's own points.
std::optional<Measurement> measure(const Task& task) {
    baking::BakeOptions options;
    options.size = size;
    options.trilinear = false;
    const Result<baking::Baked> baked = baking::bake(task.subject, options, task.cancel);
    if (task.cancel.cancelled())
        return std::nullopt;
    Measurement result;
    if (!baked) { // it reads the place, its neighbours or another picture: no table holds that
        result.figure = std::numeric_limits<double>::infinity();
        result.samples = 1;
        return result;
    }
    const baking::LutError& error = baked.value().tetrahedral;
    result.figure = baked.value().not_finite > 0 ? std::numeric_limits<double>::infinity() : error.largest;
    result.samples = baked.value().samples;
    result.worst.target = "a colour between the points of the table";
    for (std::size_t c = 0; c < 3; ++c)
        result.worst.before[c] = error.worst[c];
    result.worst.before[3] = 1;
    const std::array<float, 3> colour = error.worst;
    engine::Source source{1, 1, {&colour[0], &colour[1], &colour[2]}};
    std::array<float*, 4> out{};
    for (std::size_t c = 0; c < 4; ++c)
        out[c] = &result.worst.after[c];
    engine::run(task.program, source, task.subject.values(), std::span<float* const>(out), task.cancel);
    return result;
}

} // namespace

extern const Function lut;
const Function lut = {
    "lut",
    "a LUT of 33 is near enough",
    "Baked into a table of 33 points an axis over 0 to 1 and read by tetrahedral interpolation: the largest difference "
    "of a channel, on colours between its points.",
    0.01,
    false,
    measure,
};

} // namespace kasuri::proof
