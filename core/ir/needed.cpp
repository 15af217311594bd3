#include "ir/needed.hpp"

#include "base/digest.hpp"

#include <algorithm>

namespace kasuri::ir {

const Stage* stage_of(const Graph& graph, const Node& node) {
    if (node.op != Op::input || node.slot < graph.first_stage_slot())
        return nullptr;
    return &graph.stages()[node.slot - graph.first_stage_slot()];
}

std::vector<bool> needed_by(const Graph& graph, std::span<const NodeId> outputs) {
    std::vector<bool> needed(graph.size());
    for (const NodeId id : outputs)
        needed[id] = true;
    // Operands come before what uses them, so one walk from the end finds all that is needed.
    for (std::size_t i = graph.size(); i-- > 0;) {
        if (!needed[i])
            continue;
        const Node& node = graph[static_cast<NodeId>(i)];
        for (int k = 0; k < row(node.op).arity; ++k)
            needed[node.args[static_cast<std::size_t>(k)]] = true;
        if (const Stage* stage = stage_of(graph, node))
            needed[stage->source] = needed[stage->size] = true;
    }
    return needed;
}

namespace {

bool is_commutative(Op op) {
    switch (op) {
    case Op::add:
    case Op::mul:
    case Op::min:
    case Op::max:
    case Op::equal:
    case Op::logical_and:
    case Op::logical_or:
    case Op::bit_and:
    case Op::bit_or:
    case Op::bit_xor: return true;
    default: return false;
    }
}

} // namespace

std::string digest_of(const Graph& graph, std::span<const NodeId> outputs) {
    const std::vector<bool> needed = needed_by(graph, outputs);
    // Every node by what it is computed from, so that the order in which nodes were made plays no part.
    std::vector<Digest::Value> of(graph.size());
    for (std::size_t i = 0; i < graph.size(); ++i) {
        if (!needed[i])
            continue;
        const Node& node = graph[static_cast<NodeId>(i)];
        Digest digest;
        if (const Stage* stage = stage_of(graph, node)) {
            digest.add("neighbourhood");
            digest.add(static_cast<std::uint64_t>(stage->kind));
            digest.add(of[stage->source]);
            digest.add(of[stage->size]);
        } else {
            digest.add(row(node.op).name);
            if (node.op == Op::constant || node.op == Op::external)
                digest.add(node.value);
            if (node.op == Op::uniform || node.op == Op::input)
                digest.add(std::uint64_t{node.slot});
            if (node.op == Op::external)
                digest.add(graph.externals()[node.slot]->identity());
            std::vector<Digest::Value> operands;
            for (int k = 0; k < row(node.op).arity; ++k)
                operands.push_back(of[node.args[static_cast<std::size_t>(k)]]);
            if (is_commutative(node.op))
                std::sort(operands.begin(), operands.end());
            for (const Digest::Value& operand : operands)
                digest.add(operand);
        }
        of[i] = digest.value();
    }
    Digest all;
    for (const NodeId id : outputs)
        all.add(of[id]);
    return all.text();
}

} // namespace kasuri::ir
