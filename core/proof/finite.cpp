#include "proof/measure.hpp"
#include "targets/target.hpp"

namespace kasuri::proof {
namespace {

std::optional<Measurement> measure(const Task& task) {
    Measurement result;
    double bad = 0;
    const bool whole =
        measure_on(task, targets::lattice(telling_levels), "lattice", result, [&bad](const auto&, const auto& after) {
            const bool good = std::isfinite(after[0]) && std::isfinite(after[1]) && std::isfinite(after[2]) &&
                std::isfinite(after[3]);
            bad += good ? 0 : 1;
            return good ? 0.0 : 1.0;
        });
    result.figure = bad; // the figure is how many; the place is the first of them
    return whole ? std::optional(result) : std::nullopt;
}

} // namespace

extern const Function finite;
const Function finite = {
    "finite",
    "no NaN or infinity",
    "On a lattice of colours from -1 to 16: how many of them give a NaN or an infinity.",
    0,
    false,
    measure,
    true,
    nullptr,
    false,
    false,
    [](const insight::Bounds& of, double) { return of.finite(-1, 16); },
};

} // namespace kasuri::proof
