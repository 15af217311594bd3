#include "ir/linear_map.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::ir {
namespace {

using Matrix = LinearMap::Matrix;

Matrix times(const Matrix& a, const Matrix& b) {
    Matrix product{};
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j)
            for (std::size_t k = 0; k < 3; ++k)
                product[i][j] += a[i][k] * b[k][j];
    return product;
}

/// What is left of products of published matrices and their inverses.
constexpr double rounding = 1e-12;

bool is_identity(const Matrix& m) {
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j)
            if (std::fabs(m[i][j] - (i == j ? 1 : 0)) > rounding)
                return false;
    return true;
}

} // namespace

std::array<NodeId, 3> linear_map(Graph& g, const Matrix& matrix, const std::array<NodeId, 3>& x) {
    if (const LinearMap* before = g.linear_map_of(x)) {
        const LinearMap earlier = *before; // making nodes may move it
        return linear_map(g, times(matrix, earlier.matrix), earlier.of);
    }
    if (is_identity(matrix))
        return x;
    std::array<double, 3> sums{};
    for (std::size_t i = 0; i < 3; ++i)
        sums[i] = matrix[i][0] + matrix[i][1] + matrix[i][2];
    double most = 0;
    for (const auto& row : matrix)
        for (const double weight : row)
            most = std::max(most, std::fabs(weight));
    const bool neutral =
        std::fabs(sums[0] - sums[1]) <= rounding * most && std::fabs(sums[2] - sums[1]) <= rounding * most;
    std::array<NodeId, 3> result{};
    if (neutral) {
        const double sum = std::fabs(sums[1] - 1) <= rounding * most ? 1 : sums[1];
        const NodeId grey = g.mul(g.constant(sum), x[1]), first = g.sub(x[0], x[1]), last = g.sub(x[2], x[1]);
        for (std::size_t i = 0; i < 3; ++i)
            result[i] =
                g.add(g.add(grey, g.mul(g.constant(matrix[i][0]), first)), g.mul(g.constant(matrix[i][2]), last));
    } else {
        for (std::size_t i = 0; i < 3; ++i)
            result[i] = g.add(g.add(g.mul(g.constant(matrix[i][0]), x[0]), g.mul(g.constant(matrix[i][1]), x[1])),
                              g.mul(g.constant(matrix[i][2]), x[2]));
    }
    // Of constants the result is constants: black stays black, and would be a map of itself.
    if (std::any_of(result.begin(), result.end(), [&](NodeId node) { return g[node].op != Op::constant; }))
        g.remember_linear_map(result, {matrix, x});
    return result;
}

} // namespace kasuri::ir
