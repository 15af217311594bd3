#include "fit/rest.hpp"

#include "base/said.hpp"
#include "fit/model.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <Eigen/IterativeLinearSolvers>
#include <Eigen/Sparse>
#include <limits>

namespace kasuri::fit {
namespace {

constexpr double bends[] = {1e-4, 1e-2, 1, 30}; ///< how much a bend counts against a difference
constexpr double least = 1e-9; ///< and how much a point that nothing says anything of is held where it is
constexpr int rounds_of_noise = 4, most_steps = 600;
constexpr double cauchy = 2.3849; // as in least_squares

using Matrix = Eigen::SparseMatrix<double, Eigen::RowMajor>;

/// The four points of the lattice around a colour, with their shares: of the six tetrahedra along the axis of greys.
struct Corner {
    std::array<std::size_t, 4> at{};
    std::array<double, 4> share{};
};

Corner corner_of(const Rest& rest, const std::array<double, 3>& colour) {
    const auto n = static_cast<std::size_t>(rest.points);
    const std::size_t strides[] = {1, n, n * n};
    std::array<double, 3> part{};
    std::size_t base = 0;
    for (std::size_t c = 0; c < 3; ++c) {
        const double place =
            std::clamp((colour[c] - rest.low) / (rest.high - rest.low), 0.0, 1.0) * static_cast<double>(n - 1);
        const double cell = std::min(std::floor(place), static_cast<double>(n - 2));
        part[c] = place - cell;
        base += static_cast<std::size_t>(cell) * strides[c];
    }
    std::array<std::size_t, 3> order{0, 1, 2};
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return part[a] > part[b]; });
    Corner made;
    made.at[0] = base;
    made.share[0] = 1 - part[order[0]];
    for (std::size_t i = 0; i < 3; ++i) {
        made.at[i + 1] = made.at[i] + strides[order[i]];
        made.share[i + 1] = part[order[i]] - (i < 2 ? part[order[i + 1]] : 0);
    }
    return made;
}

/// Squares of second differences along every axis.
Matrix bending(std::size_t n) {
    std::vector<Eigen::Triplet<double>> rows;
    const std::size_t strides[] = {1, n, n * n}, count = n * n * n;
    int row = 0;
    for (std::size_t axis = 0; axis < 3; ++axis)
        for (std::size_t i = 0; i < count; ++i) {
            const std::size_t along = i / strides[axis] % n;
            if (along == 0 || along == n - 1)
                continue;
            rows.emplace_back(row, static_cast<int>(i - strides[axis]), 1);
            rows.emplace_back(row, static_cast<int>(i), -2);
            rows.emplace_back(row++, static_cast<int>(i + strides[axis]), 1);
        }
    Matrix differences(row, static_cast<Eigen::Index>(count));
    differences.setFromTriplets(rows.begin(), rows.end());
    return Matrix(differences.transpose() * differences);
}

struct Problem {
    const Planes& made;
    const Pairs& pairs;
    std::vector<Corner> corners;
    Matrix bend;
};

double difference(const Problem& problem, std::size_t c, std::size_t i) {
    return static_cast<double>(problem.pairs.to[c][i]) - static_cast<double>(problem.made[c][i]);
}

using Values = std::array<Eigen::VectorXd, 3>;

double at(const Eigen::VectorXd& values, const Corner& corner) {
    double sum = 0;
    for (std::size_t k = 0; k < 4; ++k)
        sum += corner.share[k] * values[static_cast<Eigen::Index>(corner.at[k])];
    return sum;
}

/// How far each pair is from what values say: root of the mean square of its channels.
std::vector<double> distances(const Problem& problem, const Values& values, std::span<const std::size_t> of) {
    std::vector<double> far;
    for (const std::size_t i : of) {
        double sum = 0;
        for (std::size_t c = 0; c < 3; ++c)
            sum += std::pow(difference(problem, c, i) - at(values[c], problem.corners[i]), 2);
        far.push_back(std::sqrt(sum / 3));
    }
    return far;
}

double quantile(std::vector<double> numbers, double share) {
    if (numbers.empty())
        return 0;
    const auto place = numbers.begin() + static_cast<std::ptrdiff_t>(share * static_cast<double>(numbers.size() - 1));
    std::nth_element(numbers.begin(), place, numbers.end());
    return *place;
}

std::optional<Values> solve(const Problem& problem, std::span<const std::size_t> of, double bend,
                            const CancelToken& cancel) {
    const auto count = problem.bend.rows();
    std::vector<double> weights(of.size(), 1);
    for (std::size_t k = 0; k < of.size() && !problem.pairs.weights.empty(); ++k)
        weights[k] = static_cast<double>(problem.pairs.weights[of[k]]);
    const std::vector<double> given = weights;
    Values values;
    for (auto& channel : values)
        channel = Eigen::VectorXd::Zero(count);
    for (int round = 0; round < (problem.pairs.noisy ? rounds_of_noise : 1); ++round) {
        if (round > 0) {
            const std::vector<double> far = distances(problem, values, of);
            const double scale = std::max(1.4826 * quantile(far, 0.5), 1e-7);
            for (std::size_t k = 0; k < far.size(); ++k)
                weights[k] = given[k] / (1 + std::pow(far[k] / (cauchy * scale), 2));
        }
        std::vector<Eigen::Triplet<double>> entries;
        Values right;
        for (auto& channel : right)
            channel = Eigen::VectorXd::Zero(count);
        for (std::size_t k = 0; k < of.size(); ++k) {
            const Corner& corner = problem.corners[of[k]];
            for (std::size_t a = 0; a < 4; ++a) {
                for (std::size_t b = 0; b < 4; ++b)
                    entries.emplace_back(static_cast<int>(corner.at[a]), static_cast<int>(corner.at[b]),
                                         weights[k] * corner.share[a] * corner.share[b]);
                for (std::size_t c = 0; c < 3; ++c)
                    right[c][static_cast<Eigen::Index>(corner.at[a])] +=
                        weights[k] * corner.share[a] * difference(problem, c, of[k]);
            }
        }
        for (Eigen::Index i = 0; i < count; ++i)
            entries.emplace_back(static_cast<int>(i), static_cast<int>(i), least);
        Matrix normal(count, count);
        normal.setFromTriplets(entries.begin(), entries.end());
        normal += bend * problem.bend;
        Eigen::ConjugateGradient<Matrix, Eigen::Lower | Eigen::Upper> solver;
        solver.setMaxIterations(most_steps);
        solver.setTolerance(1e-9);
        solver.compute(normal);
        for (std::size_t c = 0; c < 3; ++c) {
            if (cancel.cancelled())
                return std::nullopt;
            values[c] = solver.solveWithGuess(right[c], values[c]);
        }
    }
    return values;
}

} // namespace

Result<Rest> rest_of(const Planes& made, const Pairs& pairs, int points, const CancelToken& cancel) {
    if (points < 2 || points > 65)
        return Error{said("a table of {} points an axis", points), "", "Between 2 and 65."};
    const Error called_off{"called off", "", ""};
    Rest rest;
    rest.points = points;
    std::vector<std::size_t> all, fitted, left_out;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        bool finite = true;
        for (std::size_t c = 0; c < 3; ++c) {
            finite = finite && std::isfinite(made[c][i]) && std::isfinite(pairs.to[c][i]);
            if (std::isfinite(made[c][i])) {
                rest.low = std::min(rest.low, static_cast<double>(made[c][i]));
                rest.high = std::max(rest.high, static_cast<double>(made[c][i]));
            }
        }
        if (!finite)
            continue;
        all.push_back(i);
        (i % 5 == 3 ? left_out : fitted).push_back(i);
    }
    if (all.empty())
        return Error{"there is nothing to fit", pairs.title, "Give colours before and after."};
    const auto n = static_cast<std::size_t>(points);
    Problem problem{made, pairs, {}, bending(n)};
    for (std::size_t i = 0; i < pairs.size(); ++i)
        problem.corners.push_back(corner_of(
            rest, {static_cast<double>(made[0][i]), static_cast<double>(made[1][i]), static_cast<double>(made[2][i])}));
    double best = std::numeric_limits<double>::infinity(), chosen = bends[2];
    for (const double bend : bends) {
        const auto values = solve(problem, fitted, bend, cancel);
        if (!values)
            return called_off;
        // Where pairs are noisy the farthest fifth says nothing.
        const double left = quantile(distances(problem, *values, left_out), pairs.noisy ? 0.7 : 0.95);
        if (left < best) {
            best = left;
            chosen = bend;
        }
    }
    const auto values = solve(problem, all, chosen, cancel);
    if (!values)
        return called_off;
    const std::size_t strides[] = {1, n, n * n};
    for (std::size_t i = 0; i < n * n * n; ++i)
        for (std::size_t c = 0; c < 3; ++c) {
            const double own = rest.low +
                (rest.high - rest.low) * static_cast<double>(i / strides[c] % n) / static_cast<double>(n - 1);
            rest.table.push_back(static_cast<float>(own + (*values)[c][static_cast<Eigen::Index>(i)]));
        }
    return rest;
}

Planes applied(const Rest& rest, const Planes& colours) {
    Planes made = colours;
    for (std::size_t i = 0; i < colours[0].size(); ++i) {
        const Corner corner = corner_of(rest,
                                        {static_cast<double>(colours[0][i]), static_cast<double>(colours[1][i]),
                                         static_cast<double>(colours[2][i])});
        for (std::size_t c = 0; c < 3; ++c) {
            double sum = 0;
            for (std::size_t k = 0; k < 4; ++k)
                sum += corner.share[k] * static_cast<double>(rest.table[3 * corner.at[k] + c]);
            made[c][i] = static_cast<float>(sum);
        }
    }
    return made;
}

} // namespace kasuri::fit
