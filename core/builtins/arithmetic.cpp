#include "builtins/row.hpp"

#include <algorithm>

#include <numbers>

namespace kasuri::builtins {
namespace {

/// Lowering of a function that is one operation of the graph.
template <Op op>
NodeId one(Graph& g, const NodeId* x) {
    return ir::row(op).arity == 1 ? g.make(op, x[0]) : g.make(op, x[0], x[1]);
}

/// y with the sign of x
NodeId signed_as(Graph& g, NodeId y, NodeId x) { return g.select(g.less(x, g.constant(0)), g.neg(y), y); }

/// e to the power of x
NodeId exponential(Graph& g, NodeId x) { return g.make(Op::exp2, g.mul(x, g.constant(std::numbers::log2e))); }
NodeId logarithm(Graph& g, NodeId x) { return g.mul(g.make(Op::log2, x), g.constant(std::numbers::ln2)); }

NodeId square_root(Graph& g, NodeId x) { return g.make(Op::sqrt, x); }

} // namespace

std::vector<Builtin> arithmetic() {
    Rows table;
    const auto add = [&table](std::string_view name, std::vector<std::string_view> parameters, std::string_view doc,
                              std::string_view source, std::vector<Case> cases, double (*reference)(const double*),
                              NodeId (*lowering)(Graph&, const NodeId*)) -> Builtin& {
        return table.componentwise(name, std::move(parameters), doc, source, std::move(cases), reference, lowering);
    };

    add(
        "abs", {"x"}, "x without its sign.", "GLSL 4.60, 8.3", {{{-2}, 2}, {{0.5}, 0.5}},
        [](const double* x) { return x[0] < 0 ? -x[0] : x[0]; }, one<Op::abs>);
    add(
        "sign", {"x"}, "1 where x > 0, -1 where x < 0, else 0.", "GLSL 4.60, 8.3", {{{-3}, -1}, {{0}, 0}, {{0.1}, 1}},
        [](const double* x) { return x[0] > 0 ? 1.0
                                  : x[0] < 0  ? -1.0
                                              : x[0]; },
        [](Graph& g, const NodeId* x) {
            const NodeId zero = g.constant(0);
            return g.select(g.less(zero, x[0]), g.constant(1), g.select(g.less(x[0], zero), g.constant(-1), x[0]));
        });
    add(
        "floor", {"x"}, "Nearest whole number not above x.", "GLSL 4.60, 8.3", {{{-0.5}, -1}, {{2.75}, 2}},
        [](const double* x) { return std::floor(x[0]); }, one<Op::floor>);
    add(
        "ceil", {"x"}, "Nearest whole number not below x.", "GLSL 4.60, 8.3", {{{-0.5}, 0}, {{2.25}, 3}},
        [](const double* x) { return std::ceil(x[0]); }, one<Op::ceil>);
    add(
        "trunc", {"x"}, "x without its fraction, towards 0.", "GLSL 4.60, 8.3", {{{-1.75}, -1}, {{1.75}, 1}},
        [](const double* x) { return std::trunc(x[0]); }, one<Op::trunc>);
    add(
        "round", {"x"}, "Nearest whole number; halves go to the even one.", "GLSL 4.60, 8.3 (roundEven)",
        {{{0.5}, 0}, {{1.5}, 2}, {{-2.5}, -2}, {{0.75}, 1}}, [](const double* x) { return std::nearbyint(x[0]); },
        one<Op::round_even>);
    add(
        "fract", {"x"}, "x - floor(x), always 0 or more.", "GLSL 4.60, 8.3", {{{-0.25}, 0.75}, {{1.5}, 0.5}},
        [](const double* x) { return x[0] - std::floor(x[0]); },
        [](Graph& g, const NodeId* x) { return g.sub(x[0], g.make(Op::floor, x[0])); });
    add(
        "mod", {"x", "y"}, "x - y * floor(x / y): the remainder with the sign of y.", "GLSL 4.60, 8.3",
        {{{5.5, 2}, 1.5}, {{-0.5, 2}, 1.5}}, [](const double* x) { return x[0] - x[1] * std::floor(x[0] / x[1]); },
        [](Graph& g, const NodeId* x) { return g.sub(x[0], g.mul(x[1], g.make(Op::floor, g.div(x[0], x[1])))); })
        .jumps = true;
    add(
        "min", {"x", "y"}, "The smaller one; NaN if either is NaN.", "GLSL 4.60, 8.3", {{{1, -1}, -1}, {{2, 3}, 2}},
        [](const double* x) { return std::isnan(x[0]) || std::isnan(x[1]) ? not_a_number : std::fmin(x[0], x[1]); },
        one<Op::min>);
    add(
        "max", {"x", "y"}, "The larger one; NaN if either is NaN.", "GLSL 4.60, 8.3", {{{1, -1}, 1}, {{2, 3}, 3}},
        [](const double* x) { return std::isnan(x[0]) || std::isnan(x[1]) ? not_a_number : std::fmax(x[0], x[1]); },
        one<Op::max>);
    // Of three and four; written out, so that the forms are in the help.
    add(
        "min", {"x", "y", "z"}, "The smallest of three; NaN if one is NaN.", "GLSL 4.60, 8.3, applied twice",
        {{{1, -1, 0}, -1}, {{3, 2, 4}, 2}}, [](const double* x) { return minimum(minimum(x[0], x[1]), x[2]); },
        [](Graph& g, const NodeId* x) { return g.min(g.min(x[0], x[1]), x[2]); });
    add(
        "min", {"x", "y", "z", "w"}, "The smallest of four; NaN if one is NaN.", "GLSL 4.60, 8.3, applied three times",
        {{{1, -1, 0, 2}, -1}, {{3, 2, 4, 1}, 1}},
        [](const double* x) { return minimum(minimum(x[0], x[1]), minimum(x[2], x[3])); },
        [](Graph& g, const NodeId* x) { return g.min(g.min(g.min(x[0], x[1]), x[2]), x[3]); });
    add(
        "max", {"x", "y", "z"}, "The largest of three; NaN if one is NaN.", "GLSL 4.60, 8.3, applied twice",
        {{{1, -1, 0}, 1}, {{3, 2, 4}, 4}}, [](const double* x) { return maximum(maximum(x[0], x[1]), x[2]); },
        [](Graph& g, const NodeId* x) { return g.max(g.max(x[0], x[1]), x[2]); });
    add(
        "max", {"x", "y", "z", "w"}, "The largest of four; NaN if one is NaN.", "GLSL 4.60, 8.3, applied three times",
        {{{1, -1, 0, 2}, 2}, {{3, 2, 4, 1}, 4}},
        [](const double* x) { return maximum(maximum(x[0], x[1]), maximum(x[2], x[3])); },
        [](Graph& g, const NodeId* x) { return g.max(g.max(g.max(x[0], x[1]), x[2]), x[3]); });
    add(
        "median", {"x", "y", "z"}, "The middle one of three; NaN if one is NaN.", "by definition",
        {{{1, -1, 0}, 0}, {{3, 2, 4}, 3}, {{5, 5, 1}, 5}},
        [](const double* x) {
            double sorted[] = {x[0], x[1], x[2]};
            if (std::isnan(x[0]) || std::isnan(x[1]) || std::isnan(x[2]))
                return not_a_number;
            std::sort(std::begin(sorted), std::end(sorted));
            return sorted[1];
        },
        [](Graph& g, const NodeId* x) { return g.max(g.min(x[0], x[1]), g.min(g.max(x[0], x[1]), x[2])); });
    add(
        "sqrt", {"x"}, "Square root; NaN below 0.", "GLSL 4.60, 8.2", {{{4}, 2}, {{0.25}, 0.5}},
        [](const double* x) { return std::sqrt(x[0]); }, one<Op::sqrt>);
    add(
        "inversesqrt", {"x"}, "1 / sqrt(x).", "GLSL 4.60, 8.2", {{{4}, 0.5}, {{0.25}, 2}},
        [](const double* x) { return 1 / std::sqrt(x[0]); },
        [](Graph& g, const NodeId* x) { return g.div(g.constant(1), g.make(Op::sqrt, x[0])); });
    add(
        "pow", {"x", "y"}, "x to the power of y; NaN for x < 0 unless y is a whole number.",
        "GLSL 4.60, 8.2; outside its domain ISO C17, F.10.4.4",
        {{{2, 3}, 8}, {{0.25, 0.5}, 0.5}, {{-2, 2}, 4}, {{0, 0}, 1}},
        [](const double* x) { return std::pow(x[0], x[1]); }, one<Op::pow>);
    add(
        "exp", {"x"}, "e to the power of x.", "GLSL 4.60, 8.2", {{{0}, 1}, {{1}, std::numbers::e}},
        [](const double* x) { return std::exp(x[0]); },
        [](Graph& g, const NodeId* x) { return g.make(Op::exp2, g.mul(x[0], g.constant(std::numbers::log2e))); });
    add(
        "log", {"x"}, "Natural logarithm; -inf at 0, NaN below.", "GLSL 4.60, 8.2", {{{1}, 0}, {{std::numbers::e}, 1}},
        [](const double* x) { return std::log(x[0]); },
        [](Graph& g, const NodeId* x) { return g.mul(g.make(Op::log2, x[0]), g.constant(std::numbers::ln2)); });
    add(
        "exp2", {"x"}, "2 to the power of x.", "GLSL 4.60, 8.2", {{{3}, 8}, {{-1}, 0.5}},
        [](const double* x) { return std::exp2(x[0]); }, one<Op::exp2>);
    add(
        "log2", {"x"}, "Logarithm to base 2, in stops; -inf at 0, NaN below.", "GLSL 4.60, 8.2",
        {{{8}, 3}, {{0.5}, -1}}, [](const double* x) { return std::log2(x[0]); }, one<Op::log2>);
    add(
        "sin", {"angle"}, "Sine of an angle in radians.", "GLSL 4.60, 8.1", {{{0}, 0}, {{std::numbers::pi / 6}, 0.5}},
        [](const double* x) { return std::sin(x[0]); }, one<Op::sin>);
    add(
        "cos", {"angle"}, "Cosine of an angle in radians.", "GLSL 4.60, 8.1", {{{0}, 1}, {{std::numbers::pi / 3}, 0.5}},
        [](const double* x) { return std::cos(x[0]); }, one<Op::cos>);
    add(
        "radians", {"degrees"}, "Degrees to radians.", "GLSL 4.60, 8.1", {{{180}, std::numbers::pi}},
        [](const double* x) { return x[0] / 180 * std::numbers::pi; },
        [](Graph& g, const NodeId* x) { return g.mul(x[0], g.constant(std::numbers::pi / 180)); });
    add(
        "degrees", {"radians"}, "Radians to degrees.", "GLSL 4.60, 8.1", {{{std::numbers::pi / 2}, 90}},
        [](const double* x) { return x[0] / std::numbers::pi * 180; },
        [](Graph& g, const NodeId* x) { return g.mul(x[0], g.constant(180 / std::numbers::pi)); });
    add(
        "roundEven", {"x"}, "The same as round.", "GLSL 4.60, 8.3", {{{2.5}, 2}},
        [](const double* x) { return std::nearbyint(x[0]); }, one<Op::round_even>)
        .jumps = true;
    add(
        "tan", {"angle"}, "Tangent of an angle in radians.", "GLSL 4.60, 8.1", {{{std::numbers::pi / 4}, 1}},
        [](const double* x) { return std::tan(x[0]); },
        [](Graph& g, const NodeId* x) { return g.div(g.make(Op::sin, x[0]), g.make(Op::cos, x[0])); })
        .tolerance = 2e-4;
    add(
        "asin", {"x"}, "Angle in radians, -pi/2 to pi/2, whose sine is x; NaN outside -1 to 1.", "GLSL 4.60, 8.1",
        {{{0.5}, std::numbers::pi / 6}, {{-1}, -std::numbers::pi / 2}}, [](const double* x) { return std::asin(x[0]); },
        [](Graph& g, const NodeId* x) {
            return g.make(Op::atan2, x[0],
                          square_root(g, g.mul(g.sub(g.constant(1), x[0]), g.add(g.constant(1), x[0]))));
        });
    add(
        "acos", {"x"}, "Angle in radians, 0 to pi, whose cosine is x; NaN outside -1 to 1.", "GLSL 4.60, 8.1",
        {{{0.5}, std::numbers::pi / 3}, {{-1}, std::numbers::pi}}, [](const double* x) { return std::acos(x[0]); },
        [](Graph& g, const NodeId* x) {
            return g.make(Op::atan2, square_root(g, g.mul(g.sub(g.constant(1), x[0]), g.add(g.constant(1), x[0]))),
                          x[0]);
        });
    add(
        "atan", {"x"}, "Angle in radians, -pi/2 to pi/2, whose tangent is x.", "GLSL 4.60, 8.1",
        {{{1}, std::numbers::pi / 4}}, [](const double* x) { return std::atan(x[0]); },
        [](Graph& g, const NodeId* x) { return g.make(Op::atan2, x[0], g.constant(1)); });
    add(
        "atan", {"y", "x"}, "Angle in radians, -pi to pi, of the point (x, y); 0 at the origin; zeros have no sign.",
        "GLSL 4.60, 8.1", {{{1, -1}, 3 * std::numbers::pi / 4}, {{0, 0}, 0}},
        [](const double* x) { return std::atan2(x[0] + 0.0, x[1] + 0.0); }, one<Op::atan2>);
    add(
        "sinh", {"x"}, "Hyperbolic sine.", "GLSL 4.60, 8.1", {{{0}, 0}, {{1}, 1.1752011936438014}},
        [](const double* x) { return std::sinh(x[0]); },
        [](Graph& g, const NodeId* x) {
            return g.mul(g.constant(0.5), g.sub(exponential(g, x[0]), exponential(g, g.neg(x[0]))));
        });
    add(
        "cosh", {"x"}, "Hyperbolic cosine.", "GLSL 4.60, 8.1", {{{0}, 1}, {{1}, 1.5430806348152437}},
        [](const double* x) { return std::cosh(x[0]); },
        [](Graph& g, const NodeId* x) {
            return g.mul(g.constant(0.5), g.add(exponential(g, x[0]), exponential(g, g.neg(x[0]))));
        });
    add(
        "tanh", {"x"}, "Hyperbolic tangent: a soft step from -1 to 1.", "GLSL 4.60, 8.1",
        {{{0}, 0}, {{1}, 0.7615941559557649}}, [](const double* x) { return std::tanh(x[0]); },
        [](Graph& g, const NodeId* x) {
            // 1 - 2 / (e^2x + 1), which goes to -1 and 1 whatever x
            return g.sub(g.constant(1),
                         g.div(g.constant(2), g.add(exponential(g, g.mul(g.constant(2), x[0])), g.constant(1))));
        });
    add(
        "asinh", {"x"}, "Inverse hyperbolic sine: a logarithm that goes through 0.", "GLSL 4.60, 8.1",
        {{{0}, 0}, {{1}, 0.881373587019543}}, [](const double* x) { return std::asinh(x[0]); },
        [](Graph& g, const NodeId* x) {
            const NodeId size = g.make(Op::abs, x[0]);
            return signed_as(g, logarithm(g, g.add(size, square_root(g, g.add(g.mul(size, size), g.constant(1))))),
                             x[0]);
        });
    add(
        "acosh", {"x"}, "Inverse hyperbolic cosine; NaN below 1.", "GLSL 4.60, 8.1",
        {{{1}, 0}, {{2}, 1.3169578969248166}}, [](const double* x) { return std::acosh(x[0]); },
        [](Graph& g, const NodeId* x) {
            const NodeId one_less = g.sub(x[0], g.constant(1)), one_more = g.add(x[0], g.constant(1));
            return logarithm(g, g.add(x[0], square_root(g, g.mul(one_less, one_more))));
        })
        .tolerance = 5e-4; // steep at 1
    add(
        "atanh", {"x"}, "Inverse hyperbolic tangent; NaN outside -1 to 1.", "GLSL 4.60, 8.1",
        {{{0}, 0}, {{0.5}, 0.5493061443340549}}, [](const double* x) { return std::atanh(x[0]); },
        [](Graph& g, const NodeId* x) {
            const NodeId ratio = g.div(g.add(g.constant(1), x[0]), g.sub(g.constant(1), x[0]));
            return g.mul(g.constant(0.5), logarithm(g, ratio));
        });
    add(
        "spow", {"x", "y"}, "|x| to the power of y, with the sign of x: a gamma that mirrors below 0.", "by definition",
        {{{-4, 0.5}, -2}, {{4, 0.5}, 2}, {{0, 2}, 0}},
        [](const double* x) { return x[0] < 0 ? -std::pow(-x[0], x[1]) : std::pow(x[0], x[1]); },
        [](Graph& g, const NodeId* x) { return signed_as(g, g.make(Op::pow, g.make(Op::abs, x[0]), x[1]), x[0]); });
    add(
        "cbrt", {"x"}, "Cube root, negative below 0.", "ISO C17, 7.12.7.1", {{{8}, 2}, {{-27}, -3}, {{0}, 0}},
        [](const double* x) { return std::cbrt(x[0]); },
        [](Graph& g, const NodeId* x) {
            return signed_as(g, g.make(Op::pow, g.make(Op::abs, x[0]), g.constant(1.0 / 3)), x[0]);
        });
    add(
        "fma", {"x", "y", "z"}, "x * y + z, rounded once.", "GLSL 4.60, 8.3", {{{2, 3, 4}, 10}},
        [](const double* x) { return x[0] * x[1] + x[2]; },
        [](Graph& g, const NodeId* x) { return g.make(Op::fma, x[0], x[1], x[2]); });
    table.typed(
        "isnan", {"x"}, {exactly(float_type)}, exactly(bool_type), "Whether x is not a number.", "GLSL 4.60, 8.3",
        {{{0}, 0}}, [](Shape, const double* const* x, double* r) { *r = *x[0] != *x[0] ? 1.0 : 0.0; },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) { *r = g.make(Op::is_nan, *x[0]); });
    table.typed(
        "isinf", {"x"}, {exactly(float_type)}, exactly(bool_type), "Whether x is infinite, of either sign.",
        "GLSL 4.60, 8.3", {{{1}, 0}},
        [](Shape, const double* const* x, double* r) { *r = std::isinf(*x[0]) ? 1.0 : 0.0; },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            *r = g.equal(g.make(Op::abs, *x[0]), g.constant(std::numeric_limits<double>::infinity()));
        });
    return std::move(table.rows);
}

} // namespace kasuri::builtins
