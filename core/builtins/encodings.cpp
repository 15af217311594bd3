// Transfer functions: NAME_encode and NAME_decode of every curve, and a logarithmic one with numbers of one's own.
#include "builtins/row.hpp"

#include <numbers>

namespace kasuri::builtins {
namespace {

/// y = c log10(a x + b) + d from `cut` on; below it straight on, with the slope that the curve has there.
struct Log {
    double a, b, c, d, cut;

    double at() const { return a * cut + b; }
    double turn() const { return c * std::log10(at()) + d; }
    double encode(double x) const {
        return x >= cut ? c * std::log10(a * x + b) + d : turn() + c * a / (std::numbers::ln10 * at()) * (x - cut);
    }
    double decode(double y) const {
        return y >= turn() ? (std::pow(10, (y - d) / c) - b) / a
                           : cut + (y - turn()) * std::numbers::ln10 * at() / (c * a);
    }
};

} // namespace

std::vector<Builtin> encodings() {
    Rows table;
    for (const colour::Transfer& curve : colour::transfers()) {
        if (curve.name == "linear")
            continue;
        const colour::Transfer* row = &curve;
        Builtin& there = table.componentwise(
            std::string(curve.name) + "_encode", {"x"}, "Linear light to encoded values. " + std::string(curve.doc),
            curve.source, {}, [row](const double* x) { return row->encode(x[0]); },
            [row](Graph& g, const NodeId* x) { return row->lower_encode(g, x[0]); });
        there.cases = {{{0.18}, curve.encode(0.18)},
                       {{1}, curve.encode(1)}}; // the documents' values are in tests/colour
        Builtin& back = table.componentwise(
            std::string(curve.name) + "_decode", {"x"}, "Encoded values to linear light. " + std::string(curve.doc),
            curve.source, {}, [row](const double* x) { return row->decode(x[0]); },
            [row](Graph& g, const NodeId* x) { return row->lower_decode(g, x[0]); });
        back.cases = {{{0.5}, curve.decode(0.5)}, {{1}, curve.decode(1)}};
    }

    constexpr std::string_view source =
        "logarithm of a linear function, its tangent as the toe: common practice, no source";
    const lang::Slot fixed = per_picture(float_type);
    table
        .typed(
            "log_encode", {"x", "a", "b", "c", "d", "cut"}, {lang::gen, fixed, fixed, fixed, fixed, fixed}, lang::gen,
            "A logarithmic encoding of one's own: c * log10(a * x + b) + d where x >= cut, below it straight on with "
            "the same slope.",
            source,
            {{{0.9, 10, 1, 0.5, 0.25, 0}, 0.75},
             {{0, 10, 1, 0.5, 0.25, 0}, 0.25},
             {{-0.1, 10, 1, 0.5, 0.25, 0}, 0.25 - 0.5 / std::numbers::ln10}},
            [](Shape shape, const double* const* x, double* r) {
                const Log curve{*x[1], *x[2], *x[3], *x[4], *x[5]};
                for (int i = 0; i < shape.width; ++i)
                    r[i] = curve.encode(x[0][i]);
            },
            [](Graph& g, Shape shape, const NodeId* const* x, NodeId* r) {
                const NodeId a = *x[1], b = *x[2], c = *x[3], d = *x[4], cut = *x[5];
                const NodeId scale = g.mul(c, g.constant(std::numbers::ln2 / std::numbers::ln10)),
                             at = g.add(g.mul(a, cut), b);
                const NodeId turn = g.add(g.mul(scale, g.make(Op::log2, at)), d),
                             slope = g.div(g.mul(c, g.mul(a, g.constant(1 / std::numbers::ln10))), at);
                for (int i = 0; i < shape.width; ++i) {
                    const NodeId straight = g.add(turn, g.mul(slope, g.sub(x[0][i], cut)));
                    const NodeId curved = g.add(g.mul(scale, g.make(Op::log2, g.add(g.mul(a, x[0][i]), b))), d);
                    r[i] = g.select(g.less_equal(cut, x[0][i]), curved, straight);
                }
            })
        .jumps = true;
    table
        .typed(
            "log_decode", {"y", "a", "b", "c", "d", "cut"}, {lang::gen, fixed, fixed, fixed, fixed, fixed}, lang::gen,
            "The way back from log_encode with the same numbers.", source,
            {{{0.75, 10, 1, 0.5, 0.25, 0}, 0.9},
             {{0.25, 10, 1, 0.5, 0.25, 0}, 0},
             {{0.25 - 0.5 / std::numbers::ln10, 10, 1, 0.5, 0.25, 0}, -0.1}},
            [](Shape shape, const double* const* x, double* r) {
                const Log curve{*x[1], *x[2], *x[3], *x[4], *x[5]};
                for (int i = 0; i < shape.width; ++i)
                    r[i] = curve.decode(x[0][i]);
            },
            [](Graph& g, Shape shape, const NodeId* const* x, NodeId* r) {
                const NodeId a = *x[1], b = *x[2], c = *x[3], d = *x[4], cut = *x[5], at = g.add(g.mul(a, cut), b);
                const NodeId turn =
                    g.add(g.mul(g.mul(c, g.constant(std::numbers::ln2 / std::numbers::ln10)), g.make(Op::log2, at)), d);
                const NodeId by = g.div(g.constant(std::numbers::ln10 / std::numbers::ln2), c),
                             back = g.div(g.constant(1), a);
                const NodeId slope = g.div(g.mul(g.constant(std::numbers::ln10), at), g.mul(c, a));
                for (int i = 0; i < shape.width; ++i) {
                    const NodeId straight = g.add(cut, g.mul(slope, g.sub(x[0][i], turn)));
                    const NodeId curved = g.mul(g.sub(g.make(Op::exp2, g.mul(by, g.sub(x[0][i], d))), b), back);
                    r[i] = g.select(g.less_equal(turn, x[0][i]), curved, straight);
                }
            })
        .jumps = true;
    return std::move(table.rows);
}

} // namespace kasuri::builtins
