#include "ir/simplify.hpp"

#include <cmath>

namespace kasuri::ir {
namespace {

using Match = std::optional<NodeId>;
constexpr std::nullopt_t no = std::nullopt;

/// A number that moves the division out of the pixel loop. Not where its reciprocal would leave the floats.
bool once_per_run(const Graph& g, NodeId id) {
    if (g[id].rate != Rate::constant)
        return g[id].rate == Rate::uniform;
    const double size = std::fabs(g[id].value);
    return size > 1e-30 && size < 1e30;
}

/// A constant whose product with another one neither overflows nor vanishes.
bool modest(const Graph& g, NodeId id) {
    const double size = g[id].op == Op::constant ? std::fabs(g[id].value) : 0;
    return size > 1e-9 && size < 1e9;
}

// x * 0 and x - x are not here: they are NaN where x is infinite or NaN.
constexpr Rewrite table[] = {
    {"x + 0 = x", Op::add, [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], 0) ? Match(x[0]) : no; }},
    {"0 + x = x", Op::add, [](Graph& g, const Args& x) -> Match { return g.is_constant(x[0], 0) ? Match(x[1]) : no; }},
    {"x - 0 = x", Op::sub, [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], 0) ? Match(x[0]) : no; }},
    {"0 - x = -x", Op::sub,
     [](Graph& g, const Args& x) -> Match { return g.is_constant(x[0], 0) ? Match(g.neg(x[1])) : no; }},
    {"x * 1 = x", Op::mul, [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], 1) ? Match(x[0]) : no; }},
    {"1 * x = x", Op::mul, [](Graph& g, const Args& x) -> Match { return g.is_constant(x[0], 1) ? Match(x[1]) : no; }},
    {"x * -1 = -x", Op::mul,
     [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], -1) ? Match(g.neg(x[0])) : no; }},
    {"x * c * d = x * (c * d)", Op::mul,
     [](Graph& g, const Args& x) -> Match {
         return modest(g, x[1]) && g[x[0]].op == Op::mul && modest(g, g[x[0]].args[1])
             ? Match(g.mul(g[x[0]].args[0], g.mul(g[x[0]].args[1], x[1])))
             : no;
     }},
    {"d * (x * c) = x * (c * d)", Op::mul,
     [](Graph& g, const Args& x) -> Match {
         return modest(g, x[0]) && g[x[1]].op == Op::mul && modest(g, g[x[1]].args[1])
             ? Match(g.mul(g[x[1]].args[0], g.mul(g[x[1]].args[1], x[0])))
             : no;
     }},
    {"d * (c * x) = x * (c * d)", Op::mul,
     [](Graph& g, const Args& x) -> Match {
         return modest(g, x[0]) && g[x[1]].op == Op::mul && modest(g, g[x[1]].args[0])
             ? Match(g.mul(g[x[1]].args[1], g.mul(g[x[1]].args[0], x[0])))
             : no;
     }},
    {"c * x * d = x * (c * d)", Op::mul,
     [](Graph& g, const Args& x) -> Match {
         return modest(g, x[1]) && g[x[0]].op == Op::mul && modest(g, g[x[0]].args[0])
             ? Match(g.mul(g[x[0]].args[1], g.mul(g[x[0]].args[0], x[1])))
             : no;
     }},
    {"x / 1 = x", Op::div, [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], 1) ? Match(x[0]) : no; }},
    {"x / c = x * (1 / c)", Op::div,
     [](Graph& g, const Args& x) -> Match {
         return once_per_run(g, x[1]) && !once_per_run(g, x[0]) ? Match(g.mul(x[0], g.div(g.constant(1), x[1]))) : no;
     }},
    {"-(-x) = x", Op::neg,
     [](Graph& g, const Args& x) -> Match { return g[x[0]].op == Op::neg ? Match(g[x[0]].args[0]) : no; }},
    {"|(|x|)| = |x|", Op::abs,
     [](Graph& g, const Args& x) -> Match { return g[x[0]].op == Op::abs ? Match(x[0]) : no; }},
    {"|-x| = |x|", Op::abs,
     [](Graph& g, const Args& x) -> Match {
         return g[x[0]].op == Op::neg ? Match(g.make(Op::abs, g[x[0]].args[0])) : no;
     }},
    {"min(x, x) = x", Op::min, [](Graph&, const Args& x) -> Match { return x[0] == x[1] ? Match(x[0]) : no; }},
    {"max(x, x) = x", Op::max, [](Graph&, const Args& x) -> Match { return x[0] == x[1] ? Match(x[0]) : no; }},
    {"pow(x, 1) = x", Op::pow,
     [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], 1) ? Match(x[0]) : no; }},
    {"pow(x, 2) = x * x", Op::pow,
     [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], 2) ? Match(g.mul(x[0], x[0])) : no; }},
    {"pow(x, 3) = x * x * x", Op::pow,
     [](Graph& g, const Args& x) -> Match {
         return g.is_constant(x[1], 3) ? Match(g.mul(g.mul(x[0], x[0]), x[0])) : no;
     }},
    {"pow(x, -1) = 1 / x", Op::pow,
     [](Graph& g, const Args& x) -> Match { return g.is_constant(x[1], -1) ? Match(g.div(g.constant(1), x[0])) : no; }},
    {"true ? x : y = x", Op::select,
     [](Graph& g, const Args& x) -> Match { return g.is_constant(x[0], 1) ? Match(x[1]) : no; }},
    {"false ? x : y = y", Op::select,
     [](Graph& g, const Args& x) -> Match { return g.is_constant(x[0], 0) ? Match(x[2]) : no; }},
    {"c ? x : x = x", Op::select, [](Graph&, const Args& x) -> Match { return x[1] == x[2] ? Match(x[1]) : no; }},
    {"!c ? x : y = c ? y : x", Op::select,
     [](Graph& g, const Args& x) -> Match {
         return g[x[0]].op == Op::logical_not ? Match(g.select(g[x[0]].args[0], x[2], x[1])) : no;
     }},
};

} // namespace

std::span<const Rewrite> rewrites() { return table; }

std::optional<NodeId> simplified(Graph& graph, Op op, const Args& args) {
    for (const Rewrite& rule : table)
        if (rule.op == op)
            if (const Match match = rule.apply(graph, args))
                return match;
    return std::nullopt;
}

} // namespace kasuri::ir
