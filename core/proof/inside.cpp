#include "insight/algebra.hpp"
#include "proof/measure.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

constexpr double room = 1e-5;

std::optional<Measurement> measure(const Task& task) {
    std::vector<double> levels;
    for (int i = 0; i <= 16; ++i)
        levels.push_back(i / 16.0);
    Measurement result;
    const bool whole =
        measure_on(task, targets::lattice(levels), "lattice", result, [](const auto&, const auto& after) {
            double out = 0;
            for (std::size_t c = 0; c < 3; ++c) {
                if (std::isnan(after[c]))
                    return static_cast<double>(after[c]);
                out = std::max({out, -static_cast<double>(after[c]), static_cast<double>(after[c]) - 1});
            }
            return out;
        });
    return whole ? std::optional(result) : std::nullopt;
}

/// What a matrix makes of the corners holds for all that lies between.
bool shown(const Task& task) {
    const auto matrix = insight::shown_matrix(task.subject);
    for (std::size_t o = 0; matrix && o < 3; ++o) {
        double low = matrix->offset[o], high = low;
        for (const double weight : matrix->matrix[o])
            (weight < 0 ? low : high) += weight;
        if (low < -room || high > 1 + room)
            return false;
    }
    return matrix.has_value();
}

} // namespace

extern const Function inside;
const Function inside = {
    "inside",
    "nothing leaves 0 to 1",
    "On a lattice of 4913 colours from 0 to 1, corners and edges too: how far a channel comes to lie below 0 or above "
    "1.",
    room,
    false,
    measure,
    false,
    shown,
    false,
    false,
    [](const insight::Bounds& of, double limit) { return of.inside(limit); },
};

} // namespace kasuri::proof
