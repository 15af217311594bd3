#include "builtins/builtin.hpp"

#include <cmath>
#include <limits>
#include <numbers>

namespace kasuri::builtins {

using ir::Graph;
using ir::NodeId;
using ir::Op;

namespace {

constexpr double not_a_number = std::numeric_limits<double>::quiet_NaN();

/// Lowering of a function that is one operation of the graph.
template <Op op>
NodeId one(Graph& g, const NodeId* x) {
    return ir::row(op).arity == 1 ? g.make(op, x[0]) : g.make(op, x[0], x[1]);
}

} // namespace

std::vector<Builtin> arithmetic() {
    std::vector<Builtin> rows;
    const auto add = [&rows](std::string_view name, std::vector<std::string_view> parameters, std::string_view doc,
                             std::string_view source, std::vector<Case> cases, double (*reference)(const double*),
                             NodeId (*lowering)(Graph&, const NodeId*)) -> Builtin& {
        Builtin row;
        row.name = name;
        row.parameters = std::move(parameters);
        row.doc = doc;
        row.source = source;
        row.cases = std::move(cases);
        row.reference = reference;
        row.lowering = lowering;
        rows.push_back(std::move(row));
        return rows.back();
    };

    add("abs", {"x"}, "x without its sign.", "GLSL 4.60, 8.3", {{{-2}, 2}, {{0.5}, 0.5}},
        [](const double* x) { return x[0] < 0 ? -x[0] : x[0]; }, one<Op::abs>);
    add("sign", {"x"}, "1 where x > 0, -1 where x < 0, else 0.", "GLSL 4.60, 8.3", {{{-3}, -1}, {{0}, 0}, {{0.1}, 1}},
        [](const double* x) { return x[0] > 0 ? 1.0 : x[0] < 0 ? -1.0 : x[0]; },
        [](Graph& g, const NodeId* x) {
            const NodeId zero = g.constant(0);
            return g.select(g.less(zero, x[0]), g.constant(1), g.select(g.less(x[0], zero), g.constant(-1), x[0]));
        });
    add("floor", {"x"}, "Nearest whole number not above x.", "GLSL 4.60, 8.3", {{{-0.5}, -1}, {{2.75}, 2}},
        [](const double* x) { return std::floor(x[0]); }, one<Op::floor>);
    add("ceil", {"x"}, "Nearest whole number not below x.", "GLSL 4.60, 8.3", {{{-0.5}, 0}, {{2.25}, 3}},
        [](const double* x) { return std::ceil(x[0]); }, one<Op::ceil>);
    add("trunc", {"x"}, "x without its fraction, towards 0.", "GLSL 4.60, 8.3", {{{-1.75}, -1}, {{1.75}, 1}},
        [](const double* x) { return std::trunc(x[0]); }, one<Op::trunc>);
    add("round", {"x"}, "Nearest whole number; halves go to the even one.", "GLSL 4.60, 8.3 (roundEven)",
        {{{0.5}, 0}, {{1.5}, 2}, {{-2.5}, -2}, {{0.75}, 1}}, [](const double* x) { return std::nearbyint(x[0]); },
        one<Op::round_even>);
    add("fract", {"x"}, "x - floor(x), always 0 or more.", "GLSL 4.60, 8.3", {{{-0.25}, 0.75}, {{1.5}, 0.5}},
        [](const double* x) { return x[0] - std::floor(x[0]); },
        [](Graph& g, const NodeId* x) { return g.sub(x[0], g.make(Op::floor, x[0])); });
    add("mod", {"x", "y"}, "x - y * floor(x / y): the remainder with the sign of y.", "GLSL 4.60, 8.3",
        {{{5.5, 2}, 1.5}, {{-0.5, 2}, 1.5}}, [](const double* x) { return x[0] - x[1] * std::floor(x[0] / x[1]); },
        [](Graph& g, const NodeId* x) { return g.sub(x[0], g.mul(x[1], g.make(Op::floor, g.div(x[0], x[1])))); });
    add("min", {"x", "y"}, "The smaller one; NaN if either is NaN.", "GLSL 4.60, 8.3", {{{1, -1}, -1}, {{2, 3}, 2}},
        [](const double* x) { return std::isnan(x[0]) || std::isnan(x[1]) ? not_a_number : std::fmin(x[0], x[1]); },
        one<Op::min>);
    add("max", {"x", "y"}, "The larger one; NaN if either is NaN.", "GLSL 4.60, 8.3", {{{1, -1}, 1}, {{2, 3}, 3}},
        [](const double* x) { return std::isnan(x[0]) || std::isnan(x[1]) ? not_a_number : std::fmax(x[0], x[1]); },
        one<Op::max>);
    add("sqrt", {"x"}, "Square root; NaN below 0.", "GLSL 4.60, 8.2", {{{4}, 2}, {{0.25}, 0.5}},
        [](const double* x) { return std::sqrt(x[0]); }, one<Op::sqrt>);
    add("inversesqrt", {"x"}, "1 / sqrt(x).", "GLSL 4.60, 8.2", {{{4}, 0.5}, {{0.25}, 2}},
        [](const double* x) { return 1 / std::sqrt(x[0]); },
        [](Graph& g, const NodeId* x) { return g.div(g.constant(1), g.make(Op::sqrt, x[0])); });
    add("pow", {"x", "y"}, "x to the power of y; NaN for x < 0 unless y is a whole number.",
        "GLSL 4.60, 8.2; outside its domain ISO C17, F.10.4.4", {{{2, 3}, 8}, {{0.25, 0.5}, 0.5}, {{-2, 2}, 4}, {{0, 0}, 1}},
        [](const double* x) { return std::pow(x[0], x[1]); }, one<Op::pow>);
    add("exp", {"x"}, "e to the power of x.", "GLSL 4.60, 8.2", {{{0}, 1}, {{1}, std::numbers::e}},
        [](const double* x) { return std::exp(x[0]); },
        [](Graph& g, const NodeId* x) { return g.make(Op::exp2, g.mul(x[0], g.constant(std::numbers::log2e))); });
    add("log", {"x"}, "Natural logarithm; -inf at 0, NaN below.", "GLSL 4.60, 8.2", {{{1}, 0}, {{std::numbers::e}, 1}},
        [](const double* x) { return std::log(x[0]); },
        [](Graph& g, const NodeId* x) { return g.mul(g.make(Op::log2, x[0]), g.constant(std::numbers::ln2)); });
    add("exp2", {"x"}, "2 to the power of x.", "GLSL 4.60, 8.2", {{{3}, 8}, {{-1}, 0.5}},
        [](const double* x) { return std::exp2(x[0]); }, one<Op::exp2>);
    add("log2", {"x"}, "Logarithm to base 2, in stops; -inf at 0, NaN below.", "GLSL 4.60, 8.2", {{{8}, 3}, {{0.5}, -1}},
        [](const double* x) { return std::log2(x[0]); }, one<Op::log2>);
    add("sin", {"angle"}, "Sine of an angle in radians.", "GLSL 4.60, 8.1", {{{0}, 0}, {{std::numbers::pi / 6}, 0.5}},
        [](const double* x) { return std::sin(x[0]); }, one<Op::sin>);
    add("cos", {"angle"}, "Cosine of an angle in radians.", "GLSL 4.60, 8.1", {{{0}, 1}, {{std::numbers::pi / 3}, 0.5}},
        [](const double* x) { return std::cos(x[0]); }, one<Op::cos>);
    add("radians", {"degrees"}, "Degrees to radians.", "GLSL 4.60, 8.1", {{{180}, std::numbers::pi}},
        [](const double* x) { return x[0] / 180 * std::numbers::pi; },
        [](Graph& g, const NodeId* x) { return g.mul(x[0], g.constant(std::numbers::pi / 180)); });
    add("degrees", {"radians"}, "Radians to degrees.", "GLSL 4.60, 8.1", {{{std::numbers::pi / 2}, 90}},
        [](const double* x) { return x[0] / std::numbers::pi * 180; },
        [](Graph& g, const NodeId* x) { return g.mul(x[0], g.constant(180 / std::numbers::pi)); });
    add("isnan", {"x"}, "Whether x is not a number.", "GLSL 4.60, 8.3", {{{0}, 0}},
        [](const double* x) { return x[0] != x[0] ? 1.0 : 0.0; }, one<Op::is_nan>).form = Form::truth;
    add("isinf", {"x"}, "Whether x is infinite, of either sign.", "GLSL 4.60, 8.3", {{{1}, 0}},
        [](const double* x) { return std::isinf(x[0]) ? 1.0 : 0.0; },
        [](Graph& g, const NodeId* x) {
            return g.equal(g.make(Op::abs, x[0]), g.constant(std::numeric_limits<double>::infinity()));
        }).form = Form::truth;
    return rows;
}

} // namespace kasuri::builtins
