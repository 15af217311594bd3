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

/// How many colours are `bad`; the place is the first of them.
std::optional<Measurement> count(const Subject& subject, bool (*bad)(double volume)) {
    Measurement result;
    double found = 0, way = 0;
    const auto whole = measure_slopes(subject, steps, result, [&](const Jacobians& slopes, std::size_t at) {
        if (way == 0)
            way = usual_way(slopes);
        const bool is_bad = bad(insight::volume(slopes[at]) * way);
        found += is_bad ? 1 : 0;
        return is_bad ? 1.0 : 0.0;
    });
    result.figure = found;
    return whole ? std::optional(result) : std::nullopt;
}

/// An exact matrix is the same everywhere.
bool is_matrix(const Subject& subject) { return insight::shown_matrix(subject.rule, subject.values).has_value(); }

bool has_inverse(const Subject& subject) {
    const auto matrix = insight::shown_matrix(subject.rule, subject.values);
    return matrix && std::fabs(insight::volume(matrix->matrix)) > lost;
}

} // namespace

extern const Function folds, invertible;

const Function folds = {
    "folds",
    "no folds",
    "On 4096 colours between 0 and 1 the rule turns the order of colours the same way: how many have the determinant of their slopes with the other sign.",
    0,
    false,
    [](const Subject& subject) { return count(subject, [](double volume) { return std::isnan(volume) || volume < -1e-6; }); },
    false,
    is_matrix,
};

const Function invertible = {
    "invertible",
    "can be undone",
    "On 4096 colours between 0 and 1 no dimension of colour is lost and none is folded: how many are (the determinant of the slopes, over the lengths of its rows, is below 0.001).",
    0,
    false,
    [](const Subject& subject) { return count(subject, [](double volume) { return !(volume > lost); }); },
    false,
    has_inverse,
};

} // namespace kasuri::proof
