#include "builtins/builtin.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>

namespace kasuri::builtins {

using ir::Graph;
using ir::NodeId;
using ir::Op;

namespace {

NodeId dot_of(Graph& g, int width, const NodeId* x, const NodeId* y) {
    NodeId sum = g.mul(x[0], y[0]);
    for (int i = 1; i < width; ++i)
        sum = g.add(sum, g.mul(x[i], y[i]));
    return sum;
}

double length_of(int width, const double* x) { return std::sqrt(std::inner_product(x, x + width, x, 0.0)); }

} // namespace

std::vector<Builtin> geometry() {
    Builtin dot;
    dot.name = "dot";
    dot.parameters = {"x", "y"};
    dot.form = Form::reducing;
    dot.doc = "Sum of the products of the components: a weighted sum of channels.";
    dot.source = "GLSL 4.60, 8.5";
    dot.cases = {{{2, 3}, 6}};
    dot.whole_reference = [](int width, const double* const* x, double* result) {
        *result = std::inner_product(x[0], x[0] + width, x[1], 0.0);
    };
    dot.whole_lowering = [](Graph& g, int width, const NodeId* const* x, NodeId* result) {
        *result = dot_of(g, width, x[0], x[1]);
    };

    Builtin length;
    length.name = "length";
    length.parameters = {"x"};
    length.form = Form::reducing;
    length.doc = "Square root of the sum of the squared components.";
    length.source = "GLSL 4.60, 8.5";
    length.cases = {{{-2}, 2}};
    length.whole_reference = [](int width, const double* const* x, double* result) { *result = length_of(width, x[0]); };
    length.whole_lowering = [](Graph& g, int width, const NodeId* const* x, NodeId* result) {
        *result = g.make(Op::sqrt, dot_of(g, width, x[0], x[0]));
    };

    Builtin distance;
    distance.name = "distance";
    distance.parameters = {"x", "y"};
    distance.form = Form::reducing;
    distance.doc = "length(x - y).";
    distance.source = "GLSL 4.60, 8.5";
    distance.cases = {{{1, 4}, 3}};
    distance.whole_reference = [](int width, const double* const* x, double* result) {
        double difference[4];
        std::transform(x[0], x[0] + width, x[1], difference, std::minus<>{});
        *result = length_of(width, difference);
    };
    distance.whole_lowering = [](Graph& g, int width, const NodeId* const* x, NodeId* result) {
        NodeId difference[4];
        for (int i = 0; i < width; ++i)
            difference[i] = g.sub(x[0][i], x[1][i]);
        *result = g.make(Op::sqrt, dot_of(g, width, difference, difference));
    };

    Builtin normalize;
    normalize.name = "normalize";
    normalize.parameters = {"x"};
    normalize.form = Form::widening;
    normalize.doc = "x / length(x); NaN where x is 0.";
    normalize.source = "GLSL 4.60, 8.5";
    normalize.cases = {{{-2}, -1}};
    normalize.whole_reference = [](int width, const double* const* x, double* result) {
        const double size = length_of(width, x[0]);
        std::transform(x[0], x[0] + width, result, [size](double component) { return component / size; });
    };
    normalize.whole_lowering = [](Graph& g, int width, const NodeId* const* x, NodeId* result) {
        const NodeId size = g.make(Op::sqrt, dot_of(g, width, x[0], x[0]));
        for (int i = 0; i < width; ++i)
            result[i] = g.div(x[0][i], size);
    };

    Builtin cross;
    cross.name = "cross";
    cross.parameters = {"x", "y"};
    cross.form = Form::vec3s;
    cross.doc = "The vector at right angles to both.";
    cross.source = "GLSL 4.60, 8.5";
    cross.whole_reference = [](int, const double* const* v, double* result) {
        const double *x = v[0], *y = v[1];
        result[0] = x[1] * y[2] - y[1] * x[2];
        result[1] = x[2] * y[0] - y[2] * x[0];
        result[2] = x[0] * y[1] - y[0] * x[1];
    };
    cross.whole_lowering = [](Graph& g, int, const NodeId* const* v, NodeId* result) {
        for (int i = 0; i < 3; ++i) {
            const int j = (i + 1) % 3, k = (i + 2) % 3;
            result[i] = g.sub(g.mul(v[0][j], v[1][k]), g.mul(v[1][j], v[0][k]));
        }
    };

    return {dot, length, distance, normalize, cross};
}

} // namespace kasuri::builtins
