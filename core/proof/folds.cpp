#include "insight/algebra.hpp"
#include "proof/measure.hpp"

namespace kasuri::proof {
namespace {

constexpr int steps = 16;
constexpr double lost = 1e-3; ///< volume below which a dimension counts as lost

using Jacobians = std::vector<insight::Jacobian>;

/// +1 or -1: the way in which the rule turns most colours.
double usual_way(const Jacobians& slopes) {
    int sum = 0;
    for (const insight::Jacobian& j : slopes)
        sum += insight::determinant(j) > 0 ? 1 : insight::determinant(j) < 0 ? -1 : 0;
    return sum < 0 ? -1 : 1;
}

/// The way at the defaults: what is turned the other way at other values has lost a dimension in between.
double way_at_defaults(const Task& task) {
    std::vector<std::array<float, 3>> colours;
    const std::vector<double> levels = middles(steps / 4);
    for (const double b : levels)
        for (const double g : levels)
            for (const double r : levels)
                colours.push_back({static_cast<float>(r), static_cast<float>(g), static_cast<float>(b)});
    return usual_way(insight::jacobians(*task.slopes(), task.usual, colours, subject::constant_planes(task.sources)));
}

/// How many colours are `bad`; the place is the first of them.
std::optional<Measurement> count(const Task& task, bool (*bad)(double volume)) {
    Measurement result;
    double found = 0;
    const double way = way_at_defaults(task);
    const auto whole = measure_slopes(task, steps, result, [&](const Jacobians& slopes, std::size_t at) {
        const bool is_bad = bad(insight::volume(slopes[at]) * way);
        found += is_bad ? 1 : 0;
        return is_bad ? 1.0 : 0.0;
    });
    result.figure = found;
    return whole ? std::optional(result) : std::nullopt;
}

/// An exact matrix is the same everywhere.
std::optional<double> volume_of_matrix(const Task& task) {
    const auto matrix = insight::shown_matrix(task.subject), usual = insight::shown_matrix(task.subject.at(task.usual));
    if (!matrix || !usual)
        return std::nullopt;
    return insight::volume(matrix->matrix) * (usual->determinant() < 0 ? -1 : 1);
}

} // namespace

extern const Function folds, invertible;

const Function folds = {
    "folds",
    "no folds",
    "On 4096 colours between 0 and 1 the rule turns the order of colours as it does at its defaults: how many have the "
    "determinant of their slopes with the other sign.",
    0,
    false,
    [](const Task& task) { return count(task, [](double volume) { return std::isnan(volume) || volume < -1e-6; }); },
    false,
    [](const Task& task) { return volume_of_matrix(task).value_or(-1) > -1e-6; },
};

const Function invertible = {
    "invertible",
    "can be undone",
    "On 4096 colours between 0 and 1 no dimension of colour is lost and none is folded: how many are (the determinant "
    "of the slopes, over the lengths of its rows, is below 0.001).",
    0,
    false,
    [](const Task& task) { return count(task, [](double volume) { return !(volume > lost); }); },
    false,
    [](const Task& task) { return volume_of_matrix(task).value_or(0) > lost; },
};

} // namespace kasuri::proof
