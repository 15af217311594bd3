#include "fit/least_squares.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Core>
#include <unsupported/Eigen/NonLinearOptimization>

namespace kasuri::fit {
namespace {

constexpr double cauchy = 2.3849; ///< 95 % of the efficiency of plain least squares where noise is normal
constexpr int rounds = 20;        ///< of weighting; they settle after a few
constexpr int steps = 60;         ///< of the method until it settles,
constexpr int steps_in_round = 2; ///< and between one weighting and the next
/// What differences are known to: before they have been seen, and at best.
constexpr double first_noise = 1e-3;
/// How far the first step may go, as a share of where it starts: far enough for most, not so far that a value of no
/// influence yet is thrown out of reach.
constexpr double first_step = 1;
/// Pairs on which a search begins, for each value: it ends on all of them, where it then has a step or two to go.
constexpr std::size_t first_pairs = 24, fewest_first_pairs = 300;

/// What the solver of the library calls: differences by rows (three for each pair), and their slopes by columns.
struct Differences {
    using Scalar = double;
    using InputType = Eigen::VectorXd;
    using ValueType = Eigen::VectorXd;
    using JacobianType = Eigen::MatrixXd;
    enum { InputsAtCompileTime = Eigen::Dynamic, ValuesAtCompileTime = Eigen::Dynamic };

    const Model& model;
    const Pairs& pairs;
    const CancelToken& cancel;
    std::span<const Value> usual;
    std::vector<double> roots; ///< of the weights
    double noise = 0;          ///< what one difference is known to
    mutable Planes made{};
    mutable Model::Slopes slopes{};

    int inputs() const { return static_cast<int>(model.values()); }
    int values() const { return static_cast<int>(3 * pairs.size() + model.values()); }
    /// What a value counts that is as far from its usual one as its usual range is wide: as much as one difference.
    double hold(std::size_t value) const { return noise / (usual[value].high - usual[value].low); }

    int operator()(const InputType& x, ValueType& out) const {
        out.setZero();
        if (!model.predict({x.data(), static_cast<std::size_t>(x.size())}, pairs.from, made, cancel))
            return -1;
        for (std::size_t c = 0; c < 3; ++c)
            for (std::size_t i = 0; i < pairs.size(); ++i)
                out[static_cast<Eigen::Index>(3 * i + c)] =
                    roots[i] * (static_cast<double>(made[c][i]) - static_cast<double>(pairs.to[c][i]));
        for (std::size_t v = 0; v < usual.size(); ++v)
            out[static_cast<Eigen::Index>(3 * pairs.size() + v)] =
                hold(v) * (x[static_cast<Eigen::Index>(v)] - usual[v].start);
        // A step to where there are no numbers is no step: it counts as a bad one, and a shorter one is tried.
        for (double& difference : out)
            if (!std::isfinite(difference))
                difference = 1e6;
        return 0;
    }
    int df(const InputType& x, JacobianType& out) const {
        out.setZero();
        if (!model.slopes({x.data(), static_cast<std::size_t>(x.size())}, pairs.from, slopes, cancel))
            return -1;
        for (std::size_t place = 0; place < slopes.along.size(); ++place) {
            const auto& plane = slopes.along[place];
            for (std::size_t i = 0; i < plane.size(); ++i)
                if (const auto slope = static_cast<double>(plane[i]); std::isfinite(slope))
                    out(static_cast<Eigen::Index>(3 * i + place % 3), static_cast<Eigen::Index>(place / 3)) =
                        roots[i] * slope;
        }
        for (std::size_t v = 0; v < usual.size(); ++v)
            out(static_cast<Eigen::Index>(3 * pairs.size() + v), static_cast<Eigen::Index>(v)) = hold(v);
        return 0;
    }
};

/// Largest channel of each pair's difference, without weights.
std::vector<double> distances(const Differences& problem, const Eigen::VectorXd& x) {
    std::vector<double> made(problem.pairs.size(), 0);
    (void)problem.model.predict({x.data(), static_cast<std::size_t>(x.size())}, problem.pairs.from, problem.made,
                                problem.cancel);
    for (std::size_t i = 0; i < made.size(); ++i) {
        double sum = 0;
        for (std::size_t c = 0; c < 3; ++c) {
            const double d = static_cast<double>(problem.made[c][i]) - static_cast<double>(problem.pairs.to[c][i]);
            sum += std::isfinite(d) ? d * d : 1e12;
        }
        made[i] = std::sqrt(sum / 3);
    }
    return made;
}

double median_of(std::vector<double> numbers) {
    if (numbers.empty())
        return 0;
    const auto middle = numbers.begin() + static_cast<std::ptrdiff_t>(numbers.size() / 2);
    std::nth_element(numbers.begin(), middle, numbers.end());
    return *middle;
}

bool settle(Differences& problem, Eigen::VectorXd& x, int most, double least_progress, const CancelToken& cancel) {
    if (x.size() == 0)
        return !cancel.cancelled();
    Eigen::LevenbergMarquardt<Differences> solver(problem);
    solver.parameters.maxfev = 10 * steps;
    solver.parameters.factor = first_step;
    solver.parameters.ftol = solver.parameters.xtol = least_progress;
    solver.parameters.gtol = 0;
    Eigen::VectorXd at = x;
    auto status = solver.minimizeInit(at);
    for (int step = 0; step < most && !cancel.cancelled(); ++step) {
        status = solver.minimizeOneStep(at);
        if (status != Eigen::LevenbergMarquardtSpace::Running)
            break;
    }
    if (cancel.cancelled() || status == Eigen::LevenbergMarquardtSpace::ImproperInputParameters)
        return false;
    if (at.allFinite())
        x = at;
    return true;
}

/// Every so-manieth pair: they are in no order.
Pairs some_of(const Pairs& pairs, std::size_t wanted) {
    Pairs made;
    const std::size_t every = pairs.size() / wanted;
    for (std::size_t i = 0; i < pairs.size(); i += every)
        made.add({pairs.from[0][i], pairs.from[1][i], pairs.from[2][i]},
                 {pairs.to[0][i], pairs.to[1][i], pairs.to[2][i]}, pairs.weights.empty() ? 1 : pairs.weights[i]);
    made.noisy = pairs.noisy;
    return made;
}

/// `least_progress`: relative; differences come as floats, and what is smaller than their rounding is none.
std::optional<Solution> search(const Model& model, const Pairs& pairs, std::span<const Value> usual,
                               const std::vector<double>& start, double least_progress, const CancelToken& cancel,
                               double pull) {
    const auto given = [&](std::size_t i) {
        return pairs.weights.empty() ? 1.0 : static_cast<double>(pairs.weights[i]);
    };
    Differences problem{model, pairs, cancel, usual, {}, std::max(pull, pairs.noisy ? first_noise : exact)};
    for (std::size_t i = 0; i < pairs.size(); ++i)
        problem.roots.push_back(std::sqrt(given(i)));
    Eigen::VectorXd x = Eigen::Map<const Eigen::VectorXd>(start.data(), static_cast<Eigen::Index>(start.size()));
    if (!settle(problem, x, steps, least_progress, cancel))
        return std::nullopt;
    std::vector<double> far = distances(problem, x);
    for (int round = 0; pairs.noisy && round < rounds; ++round) {
        const double scale = std::max(1.4826 * median_of(far), 1e-7);
        problem.noise = std::max(scale, pull);
        for (std::size_t i = 0; i < far.size(); ++i) {
            const double d = far[i] / (cauchy * scale);
            problem.roots[i] = std::sqrt(given(i) / (1 + d * d));
        }
        const Eigen::VectorXd before = x;
        if (!settle(problem, x, steps_in_round, least_progress, cancel))
            return std::nullopt;
        far = distances(problem, x);
        if (x.size() == 0 || (x - before).norm() <= 1e-4 * (1 + x.norm()))
            break;
    }
    if (cancel.cancelled())
        return std::nullopt;
    Solution found;
    found.values.assign(x.data(), x.data() + x.size());
    double sum = 0, weight = 0;
    for (std::size_t i = 0; i < far.size(); ++i) {
        const double w = problem.roots[i] * problem.roots[i];
        sum += w * far[i] * far[i];
        weight += w;
    }
    found.rms = weight > 0 ? std::sqrt(sum / weight) : 0;
    found.scale = 1.4826 * median_of(far);
    if (!std::isfinite(found.rms))
        return std::nullopt;
    return found;
}

} // namespace

std::optional<Solution> least_squares(const Model& model, const Pairs& pairs, std::span<const Value> usual,
                                      std::vector<double> start, const CancelToken& cancel, double pull) {
    const std::size_t first = std::max(first_pairs * model.values(), fewest_first_pairs);
    if (pairs.size() >= 2 * first && model.values() > 0)
        if (auto found = search(model, some_of(pairs, first), usual, start, 1e-5, cancel, pull))
            start = std::move(found->values);
    return search(model, pairs, usual, start, pairs.noisy ? 1e-6 : 1e-9, cancel, pull);
}

} // namespace kasuri::fit
