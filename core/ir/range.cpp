#include "ir/range.hpp"

#include "ir/needed.hpp"
#include "ir/range_table.hpp"

#include <algorithm>
#include <cmath>
#include <iterator>

namespace kasuri::ir {
namespace {

constexpr std::uint32_t none = ~std::uint32_t{0};
constexpr int max_depth = 3; ///< choices within choices that are followed with what their conditions say

Range joined(const Range& a, const Range& b) {
    return {std::min(a.low, b.low), std::max(a.high, b.high), a.nan || b.nan};
}

double above(double x) { return std::nextafter(x, std::numeric_limits<double>::infinity()); }

/// What is left of both where `lower` is below `upper`, or equal to it where that is not `strict`.
void order(Range& lower, Range& upper, bool strict) {
    const double most = strict ? -above(-upper.high) : upper.high, least = strict ? above(lower.low) : lower.low;
    lower.high = std::min(lower.high, most);
    upper.low = std::max(upper.low, least);
}

bool adds(Op op) { return op == Op::add || op == Op::sub || op == Op::fma; }

} // namespace

const Rounding exact = {4e-16, 1e-15, 1e-300, std::numeric_limits<double>::max()};
const Rounding single = {1e-6, 3e-5, 2e-38, 1.7e38};

Range Range::of(double x) { return std::isnan(x) ? Range{0, 0, true} : Range{x, x, false}; }

bool Range::is_finite() const { return !nan && std::isfinite(low) && std::isfinite(high); }

double Range::largest() const { return std::max(std::fabs(low), std::fabs(high)); }

Ranges::Ranges(const Graph& graph, std::span<const NodeId> of, const Rounding& rounding, const Box& whole)
    : graph_(graph), of_(of.begin(), of.end()), rounding_(rounding), needed_(needed_by(graph, of)),
      stages_(graph.stages().size()), choice_(graph.size(), none) {
    for (NodeId id = 0; id < needed_.size(); ++id) {
        if (!needed_[id] || graph_[id].op != Op::select)
            continue;
        choice_[id] = static_cast<std::uint32_t>(branches_.size());
        std::vector<NodeId> compared;
        compared_in(graph_[id].args[0], compared);
        branches_.push_back({Branch{compared, between(compared, graph_[id].args[2])},
                             Branch{compared, between(compared, graph_[id].args[1])}});
    }
    Known known(needed_.size());
    for (NodeId id = 0; id < needed_.size(); ++id)
        if (needed_[id])
            known[id] = at(id, known, whole, 0);
    for (std::size_t k = 0; k < stages_.size(); ++k) {
        const Stage& stage = graph_.stages()[k];
        if (needed_[stage.result])
            stages_[k] = known[stage.result];
    }
    settled_ = true;
}

std::vector<Range> Ranges::over(const Box& part, bool* smooth) const {
    Known known(needed_.size());
    for (NodeId id = 0; id < needed_.size(); ++id) // operands come before what uses them
        if (needed_[id])
            known[id] = at(id, known, part, 0);
    std::vector<Range> made;
    for (const NodeId id : of_)
        made.push_back(known[id]);
    if (smooth)
        *smooth = this->smooth(known);
    return made;
}

bool Ranges::smooth(const Known& known) const {
    for (NodeId id = 0; id < needed_.size(); ++id) {
        if (!needed_[id])
            continue;
        switch (graph_[id].op) {
        case Op::floor:
        case Op::ceil:
        case Op::trunc:
        case Op::round_even:
        case Op::less:
        case Op::less_equal:
        case Op::equal:
        case Op::is_nan:
        case Op::bit_and:
        case Op::bit_or:
        case Op::bit_xor:
            if (known[id].low != known[id].high)
                return false;
            break;
        case Op::atan2: // has a cut
        case Op::hexcone_h:
        case Op::hexcone_s:
        case Op::external: return false;
        default: break;
        }
    }
    return true;
}

/// A number of the graph, which the tiles round to a float.
Range Ranges::kept(const Range& x) const {
    if (&rounding_ != &single)
        return x;
    const auto rounded = [](double end) { return static_cast<double>(static_cast<float>(end)); };
    return {std::min(rounded(x.low), x.low), std::max(rounded(x.high), x.high), x.nan};
}

Range Ranges::leaf(const Node& node, const Known& known, const Box& part) const {
    if (node.op == Op::constant && std::fabs(node.value) > rounding_.largest)
        return {};
    if (node.op == Op::constant)
        return kept(Range::of(node.value));
    if (node.op == Op::uniform)
        return node.slot < part.uniforms.size() ? kept(part.uniforms[node.slot]) : Range{};
    if (node.slot < graph_.first_stage_slot())
        return node.slot < part.inputs.size() ? part.inputs[node.slot] : Range{};
    const std::size_t which = node.slot - graph_.first_stage_slot();
    if (settled_)
        return stages_[which];
    const Stage& stage = graph_.stages()[which];
    Range made = known[stage.source];
    if (row(stage.kind).averages && made.is_finite()) {
        const double room = made.largest() * rounding_.curve; // the sum of many
        made = {made.low - room, made.high + room, false};
    }
    return made;
}

Range Ranges::at(NodeId id, Known& known, const Box& part, int depth) const {
    const Node& node = graph_[id];
    const int arity = row(node.op).arity;
    if (arity == 0)
        return leaf(node, known, part);
    if (node.op == Op::select)
        return choice(id, known, part, depth);
    if (node.op == Op::external)
        return {};
    Range x[max_graph_operands];
    bool plain = true;
    for (int k = 0; k < arity; ++k) {
        const NodeId operand = node.args[static_cast<std::size_t>(k)];
        x[k] = known[operand];
        plain = plain && !adds(graph_[operand].op);
    }
    return range_of(node.op, {x, rounding_, plain, arity >= 2 && node.args[0] == node.args[1]});
}

Range Ranges::choice(NodeId id, Known& known, const Box& part, int depth) const {
    const Node& node = graph_[id];
    const Range condition = known[node.args[0]], yes = known[node.args[1]], no = known[node.args[2]];
    if (!condition.holds(0))
        return yes;
    if (condition.low == 0 && condition.high == 0 && !condition.nan)
        return no;
    if (depth >= max_depth)
        return joined(yes, no);
    bool is_yes = true, is_no = true;
    const Range if_yes = branch(id, true, known, part, depth, is_yes),
                if_no = branch(id, false, known, part, depth, is_no);
    return !is_yes ? if_no : !is_no ? if_yes : joined(if_yes, if_no);
}

Range Ranges::branch(NodeId id, bool way, Known& known, const Box& part, int depth, bool& possible) const {
    const Node& node = graph_[id];
    const NodeId root = node.args[way ? 1 : 2];
    const Branch& branch = branches_[choice_[id]][way ? 1 : 0];
    if (branch.compared.empty())
        return known[root];
    std::vector<Range> before; // what is narrowed here, for the time of this branch
    before.reserve(branch.compared.size() + branch.nodes.size());
    for (const auto* ids : {&branch.compared, &branch.nodes})
        for (const NodeId inner : *ids)
            before.push_back(known[inner]);
    possible = narrow(node.args[0], way, known);
    if (possible)
        for (const NodeId inner : branch.nodes)
            known[inner] = at(inner, known, part, depth + 1);
    const Range made = known[root];
    std::size_t k = 0;
    for (const auto* ids : {&branch.compared, &branch.nodes})
        for (const NodeId inner : *ids)
            known[inner] = before[k++];
    return made;
}

bool Ranges::narrow(NodeId condition, bool way, Known& known) const {
    const Node& node = graph_[condition];
    if (node.op == Op::logical_not)
        return narrow(node.args[0], !way, known);
    if ((node.op == Op::logical_and && way) || (node.op == Op::logical_or && !way))
        return narrow(node.args[0], way, known) && narrow(node.args[1], way, known);
    if (node.op != Op::less && node.op != Op::less_equal && node.op != Op::equal)
        return true;
    Range &a = known[node.args[0]], &b = known[node.args[1]];
    if (way)
        a.nan = b.nan = false; // a comparison with NaN is false
    else if (a.nan || b.nan)
        return true;
    if (node.op == Op::equal && !way) { // cuts off an end
        const auto without = [](Range& x, const Range& y) {
            if (y.low != y.high)
                return;
            x.low = x.low == y.low ? above(x.low) : x.low;
            x.high = x.high == y.low ? -above(-x.high) : x.high;
        };
        without(a, Range(b));
        without(b, Range(a));
    } else if (node.op == Op::equal) {
        order(a, b, false);
        order(b, a, false);
    } else if (way) {
        order(a, b, node.op == Op::less);
    } else {
        order(b, a, node.op == Op::less_equal);
    }
    return a.low <= a.high && b.low <= b.high;
}

void Ranges::compared_in(NodeId condition, std::vector<NodeId>& into) const {
    const Node& node = graph_[condition];
    if (node.op == Op::less || node.op == Op::less_equal || node.op == Op::equal) {
        into.insert(into.end(), {node.args[0], node.args[1]});
    } else if (node.op == Op::logical_and || node.op == Op::logical_or || node.op == Op::logical_not) {
        for (int k = 0; k < row(node.op).arity; ++k)
            compared_in(node.args[static_cast<std::size_t>(k)], into);
    }
}

std::vector<NodeId> Ranges::between(const std::vector<NodeId>& compared, NodeId root) const {
    std::vector<NodeId> changed; // a constant is what it is
    std::copy_if(compared.begin(), compared.end(), std::back_inserter(changed),
                 [&](NodeId id) { return graph_[id].op != Op::constant; });
    if (changed.empty())
        return {};
    const NodeId first = *std::min_element(changed.begin(), changed.end());
    if (root <= first)
        return {};
    std::vector<bool> leads(root + 1, false), moves(root + 1, false);
    leads[root] = true;
    for (NodeId id = root; id > first; --id) {
        if (!leads[id])
            continue;
        const Node& node = graph_[id];
        for (int k = 0; k < row(node.op).arity; ++k)
            leads[node.args[static_cast<std::size_t>(k)]] = true;
    }
    std::vector<NodeId> made;
    for (NodeId id = first; id <= root; ++id) {
        if (std::find(changed.begin(), changed.end(), id) != changed.end()) {
            moves[id] = true;
            continue; // known by the condition itself
        }
        const Node& node = graph_[id];
        for (int k = 0; k < row(node.op).arity && !moves[id]; ++k)
            moves[id] = moves[node.args[static_cast<std::size_t>(k)]];
        if (moves[id] && leads[id])
            made.push_back(id);
    }
    return made;
}

} // namespace kasuri::ir
