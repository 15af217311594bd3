#include "builtins/row.hpp"

#include <algorithm>
#include <functional>
#include <numeric>

namespace kasuri::builtins {
namespace {

NodeId dot_of(Graph& g, int width, const NodeId* x, const NodeId* y) {
    NodeId sum = g.mul(x[0], y[0]);
    for (int i = 1; i < width; ++i)
        sum = g.add(sum, g.mul(x[i], y[i]));
    return sum;
}

double length_of(int width, const double* x) { return std::sqrt(std::inner_product(x, x + width, x, 0.0)); }

/// The cofactor of row i, column j of a matrix by rows.
template <class Number, class Minus, class Times>
Number cofactor(const Number* m, int i, int j, Minus minus, Times times) {
    const int r1 = (i + 1) % 3, r2 = (i + 2) % 3, c1 = (j + 1) % 3, c2 = (j + 2) % 3;
    return minus(times(m[3 * r1 + c1], m[3 * r2 + c2]), times(m[3 * r1 + c2], m[3 * r2 + c1]));
}
NodeId cofactor(Graph& g, const NodeId* m, int i, int j) {
    return cofactor(
        m, i, j, [&](NodeId a, NodeId b) { return g.sub(a, b); }, [&](NodeId a, NodeId b) { return g.mul(a, b); });
}
NodeId determinant(Graph& g, const NodeId* m) {
    NodeId sum = g.mul(m[0], cofactor(g, m, 0, 0));
    for (int j = 1; j < 3; ++j)
        sum = g.add(sum, g.mul(m[j], cofactor(g, m, 0, j)));
    return sum;
}
/// By the rule of Sarrus: not by cofactors, which are the lowering's way.
double determinant(const double* m) {
    return m[0] * m[4] * m[8] + m[1] * m[5] * m[6] + m[2] * m[3] * m[7] - m[2] * m[4] * m[6] - m[1] * m[3] * m[8] -
        m[0] * m[5] * m[7];
}

} // namespace

std::vector<Builtin> geometry() {
    Rows table;
    table
        .whole(
            Form::reducing, "dot", {"x", "y"}, "Sum of the products of the components: a weighted sum of channels.",
            "GLSL 4.60, 8.5", {{{2, 3}, 6}},
            [](Shape s, const double* const* x, double* r) {
                *r = std::inner_product(x[0], x[0] + s.width, x[1], 0.0);
            },
            [](Graph& g, Shape s, const NodeId* const* x, NodeId* r) { *r = dot_of(g, s.width, x[0], x[1]); })
        .tolerance = 1e-5;
    table.whole(
        Form::reducing, "length", {"x"}, "Square root of the sum of the squared components.", "GLSL 4.60, 8.5",
        {{{-2}, 2}}, [](Shape s, const double* const* x, double* r) { *r = length_of(s.width, x[0]); },
        [](Graph& g, Shape s, const NodeId* const* x, NodeId* r) {
            *r = g.make(Op::sqrt, dot_of(g, s.width, x[0], x[0]));
        });
    table.whole(
        Form::reducing, "distance", {"x", "y"}, "length(x - y).", "GLSL 4.60, 8.5", {{{1, 4}, 3}},
        [](Shape s, const double* const* x, double* r) {
            double difference[4];
            std::transform(x[0], x[0] + s.width, x[1], difference, std::minus<>{});
            *r = length_of(s.width, difference);
        },
        [](Graph& g, Shape s, const NodeId* const* x, NodeId* r) {
            NodeId difference[4];
            for (int i = 0; i < s.width; ++i)
                difference[i] = g.sub(x[0][i], x[1][i]);
            *r = g.make(Op::sqrt, dot_of(g, s.width, difference, difference));
        });
    table.whole(
        Form::widening, "normalize", {"x"}, "x / length(x); NaN where x is 0.", "GLSL 4.60, 8.5", {{{-2}, -1}},
        [](Shape s, const double* const* x, double* r) {
            const double size = length_of(s.width, x[0]);
            std::transform(x[0], x[0] + s.width, r, [size](double component) { return component / size; });
        },
        [](Graph& g, Shape s, const NodeId* const* x, NodeId* r) {
            const NodeId size = g.make(Op::sqrt, dot_of(g, s.width, x[0], x[0]));
            for (int i = 0; i < s.width; ++i)
                r[i] = g.div(x[0][i], size);
        });
    table
        .typed(
            "cross", {"x", "y"}, {exactly(vec3_type), exactly(vec3_type)}, exactly(vec3_type),
            "The vector at right angles to both.", "GLSL 4.60, 8.5", {{{0, 1, 0, 0, 0, 1}, 1}},
            [](Shape, const double* const* v, double* r) {
                const double *x = v[0], *y = v[1];
                r[0] = x[1] * y[2] - y[1] * x[2];
                r[1] = x[2] * y[0] - y[2] * x[0];
                r[2] = x[0] * y[1] - y[0] * x[1];
            },
            [](Graph& g, Shape, const NodeId* const* v, NodeId* r) {
                for (int i = 0; i < 3; ++i) {
                    const int j = (i + 1) % 3, k = (i + 2) % 3;
                    r[i] = g.sub(g.mul(v[0][j], v[1][k]), g.mul(v[1][j], v[0][k]));
                }
            })
        .tolerance = 1e-5;
    table.typed(
        "transpose", {"m"}, {exactly(mat3_type)}, exactly(mat3_type), "Rows become columns.", "GLSL 4.60, 8.6",
        {{{1, 2, 3, 4, 5, 6, 7, 8, 9}, 1}},
        [](Shape, const double* const* x, double* r) {
            for (int i = 0; i < 9; ++i)
                r[i] = x[0][i % 3 * 3 + i / 3];
        },
        [](Graph&, Shape, const NodeId* const* x, NodeId* r) {
            for (int row = 0; row < 3; ++row)
                for (int column = 0; column < 3; ++column)
                    r[3 * row + column] = x[0][3 * column + row];
        });
    table
        .typed(
            "determinant", {"m"}, {exactly(mat3_type)}, exactly(float_type),
            "By how much a matrix stretches volumes; negative if it mirrors, 0 if colours are lost.", "GLSL 4.60, 8.6",
            {{{2, 0, 0, 0, 3, 0, 0, 0, 4}, 24}, {{0, 1, 0, 1, 0, 0, 0, 0, 1}, -1}},
            [](Shape, const double* const* x, double* r) { *r = determinant(x[0]); },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) { *r = determinant(g, x[0]); })
        .tolerance = 1e-4;
    Builtin& inverse = table.typed(
        "inverse", {"m"}, {exactly(mat3_type)}, exactly(mat3_type),
        "The matrix that undoes m; infinite or NaN where m loses colours.", "GLSL 4.60, 8.6",
        {{{2, 0, 0, 0, 4, 0, 0, 0, 5}, 0.5}},
        [](Shape, const double* const* x, double* r) {
            // Gauss and Jordan with the largest pivot: not the lowering's cofactors.
            double a[3][6] = {};
            for (int i = 0; i < 3; ++i)
                for (int j = 0; j < 3; ++j) {
                    a[i][j] = x[0][3 * i + j];
                    a[i][3 + j] = i == j ? 1 : 0;
                }
            for (int column = 0; column < 3; ++column) {
                int pivot = column;
                for (int row = column + 1; row < 3; ++row)
                    if (std::fabs(a[row][column]) > std::fabs(a[pivot][column]))
                        pivot = row;
                std::swap_ranges(a[column], a[column] + 6, a[pivot]);
                const double by = a[column][column];
                for (double& value : a[column])
                    value /= by;
                for (int row = 0; row < 3; ++row)
                    if (const double share = a[row][column]; row != column)
                        for (int k = 0; k < 6; ++k)
                            a[row][k] -= share * a[column][k];
            }
            for (int i = 0; i < 9; ++i)
                r[i] = a[i / 3][3 + i % 3];
        },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            const NodeId by = g.div(g.constant(1), determinant(g, x[0]));
            for (int i = 0; i < 3; ++i)
                for (int j = 0; j < 3; ++j)
                    r[3 * i + j] = g.mul(cofactor(g, x[0], j, i), by);
        });
    inverse.tolerance = 2e-2; // a nearly singular matrix magnifies rounding without bound
    return std::move(table.rows);
}

} // namespace kasuri::builtins
