#include "insight/affine.hpp"

#include "engine/lower.hpp"
#include "ir/graph.hpp"

#include <cmath>

namespace kasuri::insight {
namespace {

using ir::Op;

/// A sum of multiples of r, g, b, a and 1; or not known to be one.
struct Form {
    bool known = true;
    std::array<double, 5> of{};

    bool constant() const { return known && of[0] == 0 && of[1] == 0 && of[2] == 0 && of[3] == 0; }
    double value() const { return of[4]; }
};

const Form unknown{false, {}};
Form number(double x) { return {true, {0, 0, 0, 0, x}}; }

Form sum(const Form& a, double by, const Form& b) {
    if (!a.known || !b.known)
        return unknown;
    Form made = a;
    for (std::size_t i = 0; i < made.of.size(); ++i)
        made.of[i] += by * b.of[i];
    return made;
}

Form product(const Form& a, const Form& b) {
    if (!a.constant() && !b.constant())
        return unknown;
    const Form& form = a.constant() ? b : a;
    const double by = a.constant() ? a.value() : b.value();
    if (!form.known || !std::isfinite(by)) // 0 times infinity is no number
        return unknown;
    Form made = form;
    for (double& x : made.of)
        x *= by;
    return made;
}

Form leaf(const ir::Node& node, std::span<const double> values) {
    switch (node.op) {
    case Op::constant: return number(node.value);
    case Op::uniform:
        return node.slot >= ir::first_parameter_slot ? number(values[node.slot - ir::first_parameter_slot]) : unknown;
    default: break;
    }
    if (node.slot > static_cast<std::uint32_t>(ir::Input::a))
        return unknown;
    Form one;
    one.of[node.slot] = 1;
    return one;
}

Form applied(const ir::Node& node, std::span<const Form> x) {
    switch (node.op) {
    case Op::neg: return product(number(-1), x[0]);
    case Op::add: return sum(x[0], 1, x[1]);
    case Op::sub: return sum(x[0], -1, x[1]);
    case Op::mul: return product(x[0], x[1]);
    case Op::div:
        if (x[1].constant() && x[1].value() != 0 && x[0].known) {
            Form made = x[0];
            for (double& c : made.of)
                c /= x[1].value();
            return made;
        }
        return unknown;
    case Op::fma: return sum(product(x[0], x[1]), 1, x[2]);
    case Op::fms: return sum(product(x[0], x[1]), -1, x[2]);
    case Op::fnma: return sum(x[2], -1, product(x[0], x[1]));
    case Op::mix:
        return x[2].constant() ? sum(product(number(1 - x[2].value()), x[0]), 1, product(x[2], x[1])) : unknown;
    case Op::select: return x[0].constant() ? (x[0].value() != 0 ? x[1] : x[2]) : unknown;
    default: return unknown;
    }
}

} // namespace

std::array<double, 3> Affine::row_sums() const {
    std::array<double, 3> sums{};
    for (std::size_t row = 0; row < 3; ++row)
        for (const double weight : matrix[row])
            sums[row] += weight;
    return sums;
}

double Affine::determinant() const {
    const auto& m = matrix;
    return m[0][0] * (m[1][1] * m[2][2] - m[1][2] * m[2][1]) - m[0][1] * (m[1][0] * m[2][2] - m[1][2] * m[2][0]) +
        m[0][2] * (m[1][0] * m[2][1] - m[1][1] * m[2][0]);
}

std::optional<Affine> Affine::inverse() const {
    const double d = determinant();
    if (d == 0 || !std::isfinite(d))
        return std::nullopt;
    const auto& m = matrix;
    Affine made;
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j) { // the adjugate by cyclic minors
            const std::size_t a = (j + 1) % 3, b = (j + 2) % 3, c = (i + 1) % 3, e = (i + 2) % 3;
            made.matrix[i][j] = (m[a][c] * m[b][e] - m[a][e] * m[b][c]) / d;
        }
    for (std::size_t i = 0; i < 3; ++i) {
        made.offset[i] = 0;
        for (std::size_t j = 0; j < 3; ++j)
            made.offset[i] -= made.matrix[i][j] * offset[j];
    }
    return made;
}

std::array<double, 3> Affine::operator()(const std::array<double, 3>& rgb) const {
    std::array<double, 3> made = offset;
    for (std::size_t row = 0; row < 3; ++row)
        for (std::size_t i = 0; i < 3; ++i)
            made[row] += matrix[row][i] * rgb[i];
    return made;
}

std::optional<Affine> affine(const lang::Rule& rule, std::span<const double> values) {
    ir::Graph graph;
    const std::vector<ir::NodeId> outputs = engine::lower(rule, graph, {});
    return affine(graph, outputs, values);
}

std::optional<Affine> affine(const ir::Graph& graph, std::span<const ir::NodeId> outputs,
                             std::span<const double> values) {
    std::vector<Form> forms;
    forms.reserve(graph.size());
    for (ir::NodeId id = 0; id < graph.size(); ++id) {
        const ir::Node& node = graph[id];
        const int arity = ir::row(node.op).arity;
        if (arity == 0) {
            forms.push_back(leaf(node, values));
            continue;
        }
        std::array<Form, ir::max_graph_operands> args;
        bool constant = true;
        for (int k = 0; k < arity; ++k) {
            args[static_cast<std::size_t>(k)] = forms[node.args[static_cast<std::size_t>(k)]];
            constant = constant && args[static_cast<std::size_t>(k)].constant();
        }
        if (constant && node.op != Op::external) {
            double plain[ir::max_graph_operands] = {};
            for (int k = 0; k < arity; ++k)
                plain[k] = args[static_cast<std::size_t>(k)].value();
            forms.push_back(number(ir::folded(node.op, plain)));
        } else {
            forms.push_back(applied(node, args));
        }
    }
    Affine made;
    for (std::size_t row = 0; row < 3; ++row) {
        const Form& form = forms[outputs[row]];
        if (!form.known || form.of[3] != 0)
            return std::nullopt;
        for (std::size_t i = 0; i < 3; ++i) {
            made.matrix[row][i] = form.of[i];
            if (!std::isfinite(form.of[i]))
                return std::nullopt;
        }
        made.offset[row] = form.of[4];
        if (!std::isfinite(form.of[4]))
            return std::nullopt;
    }
    const Form& alpha = forms[outputs[3]];
    if (!alpha.known || alpha.of != std::array<double, 5>{0, 0, 0, 1, 0})
        return std::nullopt;
    return made;
}

} // namespace kasuri::insight
