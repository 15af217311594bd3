#include "ir/derive.hpp"

#include "ir/needed.hpp"

#include <algorithm>
#include <numbers>

namespace kasuri::ir {
namespace {

/// Arithmetic on slopes: most of them are 0 or 1, and 0 times infinity must stay 0 here.
class Calculus {
public:
    explicit Calculus(Graph& graph) : g(graph) {}

    bool none(NodeId t) const { return g.is_constant(t, 0); }
    NodeId times(NodeId slope, NodeId factor) { return none(slope) ? slope : g.mul(slope, factor); }
    /// The reciprocal serves all three directions.
    NodeId over(NodeId slope, NodeId divisor) {
        return none(slope) ? slope : g.mul(slope, g.div(g.constant(1), divisor));
    }
    NodeId plus(NodeId a, NodeId b) { return none(a) ? b : none(b) ? a : g.add(a, b); }
    NodeId minus(NodeId a, NodeId b) { return none(b) ? a : none(a) ? negative(b) : g.sub(a, b); }
    /// A product with a constant becomes one with its negative.
    NodeId negative(NodeId a) {
        const Node node = g[a];
        if (node.op == Op::mul)
            for (std::size_t k = 0; k < 2; ++k)
                if (const Node& factor = g[node.args[k]]; factor.op == Op::constant)
                    return g.mul(node.args[1 - k], g.constant(-factor.value));
        return g.neg(a);
    }
    NodeId pick(NodeId condition, NodeId yes, NodeId no) {
        if (g.is_constant(yes, 1) && g.is_constant(no, 0)) // which is what a condition is
            return condition;
        return yes == no ? yes : g.select(condition, yes, no);
    }

    Graph& g;
};

/// What a node is made of, when one of its slopes is wanted.
struct Place {
    const Node& node;
    NodeId self;
    const NodeId* x; ///< operands
    const NodeId* t; ///< their slopes
};

struct Hexcone {
    NodeId most, spread;
    NodeId max_slope, spread_slope;
};

Hexcone hexcone(Calculus& c, const Place& p) {
    Graph& g = c.g;
    const NodeId more = g.max(p.x[0], p.x[1]), most = g.max(more, p.x[2]), less = g.min(p.x[0], p.x[1]);
    // As the rows of max and min choose: the way back asks for the same slopes.
    const NodeId max_slope = c.pick(g.less(more, p.x[2]), p.t[2], c.pick(g.less(p.x[0], p.x[1]), p.t[1], p.t[0])),
                 min_slope = c.pick(g.less(p.x[2], less), p.t[2], c.pick(g.less(p.x[1], p.x[0]), p.t[1], p.t[0]));
    return {most, g.sub(most, g.min(less, p.x[2])), max_slope, c.minus(max_slope, min_slope)};
}

NodeId of_hue(Calculus& c, const Place& p) {
    Graph& g = c.g;
    const Hexcone h = hexcone(c, p);
    const auto sector = [&](auto&& between) {
        return c.pick(g.equal(p.x[0], h.most), between(1, 2),
                      c.pick(g.equal(p.x[1], h.most), between(2, 0), between(0, 1)));
    };
    const NodeId along = sector([&](int a, int b) { return g.sub(p.x[a], p.x[b]); });
    const NodeId along_slope = sector([&](int a, int b) { return c.minus(p.t[a], p.t[b]); });
    const NodeId turned = c.minus(c.times(along_slope, h.spread), c.times(h.spread_slope, along));
    return c.pick(g.equal(h.spread, g.constant(0)), g.constant(0),
                  c.over(c.times(turned, g.constant(60)), g.mul(h.spread, h.spread)));
}

NodeId of_saturation(Calculus& c, const Place& p) {
    const Hexcone h = hexcone(c, p);
    return c.over(c.minus(h.spread_slope, c.times(h.max_slope, p.self)), h.most);
}

/// r, g or b of hue, saturation, value: the channel's own hue stands at `offset` before 360.
template <int offset>
NodeId of_channel(Calculus& c, const Place& p) {
    Graph& g = c.g;
    const auto number = [&](double x) { return g.constant(x); };
    NodeId own =
        g.add(g.sub(p.x[0], g.mul(number(360), g.make(Op::floor, g.div(p.x[0], number(360))))), number(offset));
    own = g.select(g.less(own, number(360)), own, g.sub(own, number(360)));
    const NodeId share = g.div(g.sub(g.min(own, g.sub(number(360), own)), number(60)), number(60)),
                 tent = g.clamp01(share);
    const NodeId inside = g.make(Op::logical_and, g.less(number(0), share), g.less(share, number(1)));
    const NodeId rising = c.times(p.t[0], g.select(g.less(own, number(180)), number(1.0 / 60), number(-1.0 / 60)));
    const NodeId tent_slope = c.pick(inside, rising, number(0));
    const NodeId taken =
        c.plus(c.times(c.times(p.t[2], p.x[1]), tent),
               c.plus(c.times(c.times(p.t[1], p.x[2]), tent), c.times(c.times(tent_slope, p.x[1]), p.x[2])));
    return c.minus(p.t[2], taken);
}

NodeId of_pow(Calculus& c, const Place& p) {
    Graph& g = c.g;
    NodeId base = p.t[0], exponent = p.t[1];
    if (!c.none(base))
        base = c.times(base, g.mul(p.x[1], g.make(Op::pow, p.x[0], g.sub(p.x[1], g.constant(1)))));
    if (!c.none(exponent)) {
        const NodeId log = g.mul(g.make(Op::log2, p.x[0]), g.constant(std::numbers::ln2));
        exponent = c.pick(g.less(g.constant(0), p.x[0]), c.times(exponent, g.mul(p.self, log)), g.constant(0));
    }
    return c.plus(base, exponent);
}

using Rule = NodeId (*)(Calculus&, const Place&);
struct Row {
    Op op;
    Rule slope;
};

/// Operations that are not here are flat.
constexpr Row table[] = {
    {Op::neg, [](Calculus& c, const Place& p) { return c.minus(c.g.constant(0), p.t[0]); }},
    {Op::abs,
     [](Calculus& c, const Place& p) {
         return c.pick(c.g.less(p.x[0], c.g.constant(0)), c.minus(c.g.constant(0), p.t[0]), p.t[0]);
     }},
    {Op::sqrt, [](Calculus& c, const Place& p) { return c.over(c.times(p.t[0], c.g.constant(0.5)), p.self); }},
    {Op::exp2,
     [](Calculus& c, const Place& p) { return c.times(p.t[0], c.g.mul(p.self, c.g.constant(std::numbers::ln2))); }},
    {Op::log2,
     [](Calculus& c, const Place& p) { return c.over(c.times(p.t[0], c.g.constant(std::numbers::log2e)), p.x[0]); }},
    {Op::sin, [](Calculus& c, const Place& p) { return c.times(p.t[0], c.g.make(Op::cos, p.x[0])); }},
    {Op::cos, [](Calculus& c, const Place& p) { return c.times(p.t[0], c.g.neg(c.g.make(Op::sin, p.x[0]))); }},
    {Op::add, [](Calculus& c, const Place& p) { return c.plus(p.t[0], p.t[1]); }},
    {Op::sub, [](Calculus& c, const Place& p) { return c.minus(p.t[0], p.t[1]); }},
    {Op::mul, [](Calculus& c, const Place& p) { return c.plus(c.times(p.t[0], p.x[1]), c.times(p.t[1], p.x[0])); }},
    {Op::div, [](Calculus& c, const Place& p) { return c.over(c.minus(p.t[0], c.times(p.t[1], p.self)), p.x[1]); }},
    {Op::min, [](Calculus& c, const Place& p) { return c.pick(c.g.less(p.x[1], p.x[0]), p.t[1], p.t[0]); }},
    {Op::max, [](Calculus& c, const Place& p) { return c.pick(c.g.less(p.x[0], p.x[1]), p.t[1], p.t[0]); }},
    {Op::pow, of_pow},
    {Op::atan2,
     [](Calculus& c, const Place& p) {
         const NodeId size = c.g.add(c.g.mul(p.x[0], p.x[0]), c.g.mul(p.x[1], p.x[1]));
         return c.over(c.minus(c.times(p.t[0], p.x[1]), c.times(p.t[1], p.x[0])), size);
     }},
    {Op::fma,
     [](Calculus& c, const Place& p) {
         return c.plus(c.plus(c.times(p.t[0], p.x[1]), c.times(p.t[1], p.x[0])), p.t[2]);
     }},
    {Op::select, [](Calculus& c, const Place& p) { return c.pick(p.x[0], p.t[1], p.t[2]); }},
    {Op::hexcone_h, of_hue},
    {Op::hexcone_s, of_saturation},
    {Op::hexcone_v, [](Calculus& c, const Place& p) { return hexcone(c, p).max_slope; }},
    {Op::hexcone_r, of_channel<0>},
    {Op::hexcone_g, of_channel<240>},
    {Op::hexcone_b, of_channel<120>},
};

constexpr double external_step = 1.0 / 512; ///< large beside the rounding of floats, small beside a colour

NodeId of_external(Calculus& c, const External& conversion, const Place& p) {
    Graph& g = c.g;
    std::array<NodeId, 3> above{}, below{};
    for (std::size_t i = 0; i < 3; ++i) {
        const NodeId step = c.times(p.t[i], g.constant(external_step));
        above[i] = c.plus(p.x[i], step);
        below[i] = c.minus(p.x[i], step);
    }
    const auto which = static_cast<std::size_t>(p.node.value);
    return g.mul(g.sub(g.external(conversion, above)[which], g.external(conversion, below)[which]),
                 g.constant(0.5 / external_step));
}

Rule rule_of(Op op) {
    for (const Row& row : table)
        if (row.op == op)
            return row.slope;
    return nullptr;
}

} // namespace

std::vector<std::vector<NodeId>> derivatives(Graph& graph, std::span<const NodeId> of, std::span<const NodeId> along) {
    Calculus c(graph);
    const NodeId zero = graph.constant(0), one = graph.constant(1);
    const std::size_t directions = along.size();
    const std::vector<bool> needed = needed_by(graph, of);
    // Most nodes move along few directions: those that do not move at all have an empty list.
    std::vector<std::vector<NodeId>> slopes(needed.size());
    const auto slope = [&](NodeId id, std::size_t i) { return slopes[id].empty() ? zero : slopes[id][i]; };
    for (NodeId id = 0; id < needed.size(); ++id) {
        if (!needed[id])
            continue;
        const Node node = graph[id]; // a copy: making nodes moves them
        std::vector<NodeId> made(directions, zero);
        for (std::size_t i = 0; i < directions; ++i)
            if (along[i] == id)
                made[i] = one;
        if (node.op == Op::input && node.slot >= graph.first_stage_slot()) {
            const Stage stage = graph.stages()[node.slot - graph.first_stage_slot()];
            for (std::size_t i = 0; i < directions; ++i) {
                const NodeId inner = slope(stage.source, i);
                made[i] = row(stage.kind).averages ? graph.neighbourhood(stage.kind, inner, stage.size) : inner;
            }
        }
        const Rule rule = rule_of(node.op);
        for (std::size_t i = 0; (rule || node.op == Op::external) && i < directions; ++i) {
            std::array<NodeId, max_graph_operands> t{};
            bool moves = false;
            for (int k = 0; k < row(node.op).arity; ++k) {
                t[static_cast<std::size_t>(k)] = slope(node.args[static_cast<std::size_t>(k)], i);
                moves = moves || !c.none(t[static_cast<std::size_t>(k)]);
            }
            const Place place{node, id, node.args.data(), t.data()};
            if (moves)
                made[i] = rule ? rule(c, place) : of_external(c, *graph.externals()[node.slot], place);
        }
        if (std::any_of(made.begin(), made.end(), [&](NodeId t) { return !c.none(t); }))
            slopes[id] = std::move(made);
    }
    std::vector<std::vector<NodeId>> found;
    for (const NodeId output : of)
        found.push_back(slopes[output].empty() ? std::vector<NodeId>(directions, zero) : slopes[output]);
    return found;
}

std::vector<Slopes> derivatives(Graph& graph, std::span<const NodeId> of) {
    const NodeId along[] = {graph.input(Input::r), graph.input(Input::g), graph.input(Input::b)};
    std::vector<Slopes> found;
    for (const std::vector<NodeId>& slopes : derivatives(graph, of, along))
        found.push_back({slopes[0], slopes[1], slopes[2]});
    return found;
}

} // namespace kasuri::ir
