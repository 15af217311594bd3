#include "builtins/row.hpp"

#include <algorithm>
#include <numbers>

namespace kasuri::builtins {

std::vector<Builtin> shaping() {
    Builtin clamp;
    clamp.name = "clamp";
    clamp.parameters = {"x", "low", "high"};
    clamp.doc = "x, but not below low nor above high: min(max(x, low), high).";
    clamp.source = "GLSL 4.60, 8.3";
    clamp.cases = {{{2, 0, 1}, 1}, {{-1, 0, 1}, 0}, {{0.25, 0, 1}, 0.25}};
    clamp.reference = [](const double* x) {
        if (std::isnan(x[0]) || std::isnan(x[1]) || std::isnan(x[2]))
            return std::nan("");
        return std::fmin(std::fmax(x[0], x[1]), x[2]);
    };
    clamp.lowering = [](Graph& g, const NodeId* x) { return g.min(g.max(x[0], x[1]), x[2]); };

    Builtin mix;
    mix.name = "mix";
    mix.parameters = {"x", "y", "share"};
    mix.doc = "x * (1 - share) + y * share: x at 0, y at 1, both exactly.";
    mix.source = "GLSL 4.60, 8.3";
    mix.cases = {{{1, 3, 0.25}, 1.5}, {{1, 3, 0}, 1}, {{1, 3, 1}, 3}, {{0, 1, 2}, 2}};
    mix.reference = [](const double* x) { return x[0] * (1 - x[2]) + x[1] * x[2]; };
    mix.lowering = [](Graph& g, const NodeId* x) {
        return g.add(g.mul(x[0], g.sub(g.constant(1), x[2])), g.mul(x[1], x[2]));
    };

    Builtin step;
    step.name = "step";
    step.parameters = {"edge", "x"};
    step.doc = "0 where x < edge, else 1.";
    step.source = "GLSL 4.60, 8.3";
    step.cases = {{{0.5, 0.25}, 0}, {{0.5, 0.5}, 1}, {{0.5, 0.75}, 1}};
    step.reference = [](const double* x) {
        return std::isnan(x[0]) || std::isnan(x[1]) ? std::nan("") : x[1] < x[0] ? 0.0 : 1.0;
    };
    step.lowering = [](Graph& g, const NodeId* x) {
        // Neither below nor at or above the edge: one of them is NaN, and so is their sum.
        return g.select(g.less(x[1], x[0]), g.constant(0),
                        g.select(g.less_equal(x[0], x[1]), g.constant(1), g.add(x[0], x[1])));
    };

    Builtin smoothstep;
    smoothstep.name = "smoothstep";
    smoothstep.parameters = {"low", "high", "x"};
    smoothstep.doc = "0 below low, 1 above high, t * t * (3 - 2 * t) between; NaN where low, high and x are all equal.";
    smoothstep.source = "GLSL 4.60, 8.3";
    smoothstep.cases = {{{0, 1, 0.5}, 0.5}, {{0, 1, 0.25}, 0.15625}, {{0, 1, -1}, 0}, {{1, 2, 3}, 1}};
    smoothstep.reference = [](const double* x) {
        const double t = (x[2] - x[0]) / (x[1] - x[0]);
        if (std::isnan(t))
            return t;
        const double clamped = std::clamp(t, 0.0, 1.0);
        return clamped * clamped * (3 - 2 * clamped);
    };
    smoothstep.lowering = [](Graph& g, const NodeId* x) {
        const NodeId share = g.div(g.sub(x[2], x[0]), g.sub(x[1], x[0]));
        const NodeId t = g.min(g.max(share, g.constant(0)), g.constant(1));
        return g.mul(g.mul(t, t), g.sub(g.constant(3), g.mul(g.constant(2), t)));
    };

    Rows more;
    more.componentwise(
        "shoulder", {"x", "start", "limit"},
        "x up to start; above it ever flatter, towards limit: limit - (limit - start) * exp(-(x - start) / (limit - "
        "start)). The "
        "slope has no corner. Where limit <= start, nothing rises above start.",
        "exponential shoulder; common practice, no source",
        {{{0.5, 0.8, 1}, 0.5}, {{0.8, 0.8, 1}, 0.8}, {{1.8, 0.8, 1}, 0.998652410600183}, {{3, 1, 1}, 1}},
        [](const double* x) {
            if (std::isnan(x[0]) || std::isnan(x[1]) || std::isnan(x[2]))
                return not_a_number;
            const double room = std::fmax(x[2] - x[1], 0);
            return x[0] <= x[1] || room == 0 ? std::fmin(x[0], x[1]) : x[2] - room * std::exp(-(x[0] - x[1]) / room);
        },
        [](Graph& g, const NodeId* x) {
            const NodeId room = g.max(g.sub(x[2], x[1]), g.constant(0)), above = g.sub(x[0], x[1]);
            const NodeId rest = g.make(Op::exp2, g.mul(g.constant(-std::numbers::log2e), g.div(above, room)));
            const NodeId bent = g.add(x[1], g.mul(room, g.sub(g.constant(1), rest)));
            const NodeId risen = g.select(g.less(g.constant(0), room), bent, g.min(x[0], x[1]));
            const NodeId result = g.select(g.less_equal(x[0], x[1]), x[0], risen);
            return g.select(g.make(Op::is_nan, x[2]), x[2], result); // also where x does not get so far
        });

    more.componentwise(
        "shoulder_back", {"y", "start", "limit"},
        "The way back from shoulder with the same numbers: y up to start; above it start - (limit - start) * log(1 - "
        "(y "
        "- start) / (limit - start)). From limit on there is no answer.",
        "the inverse of its formula", {{{0.5, 0.8, 1}, 0.5}, {{0.8, 0.8, 1}, 0.8}, {{0.998652410600183, 0.8, 1}, 1.8}},
        [](const double* x) {
            if (std::isnan(x[0]) || std::isnan(x[1]) || std::isnan(x[2]))
                return not_a_number;
            if (x[0] <= x[1])
                return x[0];
            const double room = x[2] - x[1];
            return room > 0 && x[0] < x[2] ? x[1] - room * std::log1p(-(x[0] - x[1]) / room) : not_a_number;
        },
        [](Graph& g, const NodeId* x) {
            const NodeId room = g.sub(x[2], x[1]), left = g.div(g.sub(x[2], x[0]), room);
            const NodeId risen = g.mul(g.mul(g.constant(std::numbers::ln2), room), g.make(Op::log2, left));
            const NodeId none = g.make(Op::logical_or, g.less_equal(room, g.constant(0)), g.less_equal(x[2], x[0]));
            const NodeId above = g.select(none, g.constant(not_a_number), g.sub(x[1], risen));
            const NodeId result = g.select(g.less_equal(x[0], x[1]), x[0], above);
            return g.select(g.make(Op::is_nan, x[2]), x[2], result);
        });
    more.rows.back().tolerance = 2e-5;

    std::vector<Builtin> all = {clamp, mix, step, smoothstep};
    all.insert(all.end(), more.rows.begin(), more.rows.end());
    return all;
}

} // namespace kasuri::builtins
