#include "insight/solve.hpp"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace kasuri::insight {

Solved solve(std::span<const Wish> wishes, const SolveOptions& options) {
    // Unknowns: how far each number of the map is from the identity's, row by row, three weights and an offset each.
    constexpr Eigen::Index unknowns = 12;
    const auto at = [](Eigen::Index row, Eigen::Index column) { return row * 4 + column; };
    // What the options demand, all satisfied by the identity: so the demands on the distance are homogeneous.
    std::vector<Eigen::RowVectorXd> demands;
    const auto demand = [&] { return &demands.emplace_back(Eigen::RowVectorXd::Zero(unknowns)); };
    for (Eigen::Index row = 0; row < 3; ++row) {
        if (!options.offset || options.rows_sum)
            (*demand())(at(row, 3)) = 1;
        if (options.rows_sum) {
            auto* sum = demand();
            for (Eigen::Index i = 0; i < 3; ++i)
                (*sum)(at(row, i)) = 1;
        }
    }
    if (std::any_of(options.keep.begin(), options.keep.end(), [](double w) { return w != 0; }))
        for (Eigen::Index column = 0; column < 4; ++column) {
            auto* kept = demand();
            for (Eigen::Index row = 0; row < 3; ++row)
                (*kept)(at(row, column)) = options.keep[static_cast<std::size_t>(row)];
        }
    Eigen::MatrixXd free = Eigen::MatrixXd::Identity(unknowns, unknowns); // its columns span what is allowed
    if (!demands.empty()) {
        Eigen::MatrixXd all(static_cast<Eigen::Index>(demands.size()), unknowns);
        for (std::size_t i = 0; i < demands.size(); ++i)
            all.row(static_cast<Eigen::Index>(i)) = demands[i];
        const Eigen::JacobiSVD<Eigen::MatrixXd> parts(all, Eigen::ComputeFullV);
        free = parts.matrixV().rightCols(unknowns - parts.rank());
    }
    const auto count = static_cast<Eigen::Index>(wishes.size());
    Eigen::MatrixXd lines = Eigen::MatrixXd::Zero(3 * count, unknowns);
    Eigen::VectorXd wanted(3 * count);
    for (Eigen::Index w = 0; w < count; ++w) {
        const Wish& wish = wishes[static_cast<std::size_t>(w)];
        for (Eigen::Index row = 0; row < 3; ++row) {
            for (Eigen::Index i = 0; i < 3; ++i)
                lines(3 * w + row, at(row, i)) = wish.from[static_cast<std::size_t>(i)];
            lines(3 * w + row, at(row, 3)) = 1;
            wanted(3 * w + row) = wish.to[static_cast<std::size_t>(row)] - wish.from[static_cast<std::size_t>(row)];
        }
    }
    Solved solved;
    if (free.cols() > 0 && count > 0) {
        // The columns of `free` are orthonormal: the shortest solution in them is the one nearest to the identity.
        // What rounding left of a 0 would only be noise in the text.
        const Eigen::VectorXd moved =
            (1e12 * free * Eigen::MatrixXd(lines * free).completeOrthogonalDecomposition().solve(wanted))
                .array()
                .round()
                .matrix() /
            1e12;
        for (Eigen::Index row = 0; row < 3; ++row) {
            for (Eigen::Index i = 0; i < 3; ++i)
                solved.map.matrix[static_cast<std::size_t>(row)][static_cast<std::size_t>(i)] += moved(at(row, i));
            solved.map.offset[static_cast<std::size_t>(row)] +=
                options.offset && !options.rows_sum ? moved(at(row, 3)) : 0;
        }
    }
    double squares = 0;
    for (const Wish& wish : wishes) {
        const std::array<double, 3> made = solved.map(wish.from);
        const double far = std::hypot(made[0] - wish.to[0], made[1] - wish.to[1], made[2] - wish.to[2]);
        solved.residuals.push_back(far);
        solved.largest = std::max(solved.largest, far);
        squares += far * far;
    }
    solved.rms = wishes.empty() ? 0 : std::sqrt(squares / static_cast<double>(wishes.size()));
    return solved;
}

} // namespace kasuri::insight
