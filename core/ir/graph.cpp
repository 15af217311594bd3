#include "ir/graph.hpp"

#include "ir/simplify.hpp"

#include <algorithm>
#include <bit>

namespace kasuri::ir {

const NeighbourRow& row(Neighbour kind) {
    static constexpr NeighbourRow rows[] = {
        {Neighbour::blur, "blur", true},
        {Neighbour::dilate, "dilate", false},
        {Neighbour::erode, "erode", false},
    };
    return rows[static_cast<std::size_t>(kind)];
}

namespace {

constexpr NodeId free_place = ~NodeId{0};

std::size_t hash_of(const Node& node) {
    std::uint64_t hash = static_cast<std::uint64_t>(node.op);
    const auto stir = [&hash](std::uint64_t part) {
        hash = (hash ^ part) * 0x9E3779B97F4A7C15ULL;
        hash ^= hash >> 29;
    };
    for (const NodeId arg : node.args)
        stir(arg);
    stir(std::bit_cast<std::uint64_t>(node.value));
    stir(node.slot);
    return static_cast<std::size_t>(hash);
}

bool same(const Node& a, const Node& b) {
    // Bits, not values: 0 and -0 are different constants, and a NaN equals itself.
    return a.op == b.op && a.args == b.args && a.slot == b.slot &&
        std::bit_cast<std::uint64_t>(a.value) == std::bit_cast<std::uint64_t>(b.value);
}

} // namespace

void Graph::grow_table() {
    table_.assign(std::max<std::size_t>(64, 2 * table_.size()), free_place);
    for (NodeId id = 0; id < nodes_.size(); ++id) {
        std::size_t place = hash_of(nodes_[id]) & (table_.size() - 1);
        while (table_[place] != free_place)
            place = (place + 1) & (table_.size() - 1);
        table_[place] = id;
    }
}

NodeId Graph::intern(const Node& node) {
    if (2 * nodes_.size() >= table_.size()) // half of the places are free, so the next free one is near
        grow_table();
    std::size_t place = hash_of(node) & (table_.size() - 1);
    while (table_[place] != free_place) {
        if (same(nodes_[table_[place]], node))
            return table_[place];
        place = (place + 1) & (table_.size() - 1);
    }
    table_[place] = static_cast<NodeId>(nodes_.size());
    nodes_.push_back(node);
    return table_[place];
}

NodeId Graph::constant(double value) {
    Node node;
    node.value = value;
    return intern(node);
}

NodeId Graph::uniform(std::uint32_t slot) {
    if (fixed_ && slot >= first_parameter_slot && slot - first_parameter_slot < fixed_->size())
        return constant((*fixed_)[slot - first_parameter_slot]);
    Node node;
    node.op = Op::uniform;
    node.rate = Rate::uniform;
    node.slot = slot;
    return intern(node);
}

NodeId Graph::input(Input which) {
    Node node;
    node.op = Op::input;
    node.rate = Rate::pixel;
    node.slot = static_cast<std::uint32_t>(which);
    return intern(node);
}

NodeId Graph::source_input(std::uint32_t slot) {
    Node node;
    node.op = Op::input;
    node.rate = Rate::pixel;
    node.slot = input_count + slot;
    return intern(node);
}

NodeId Graph::neighbourhood(Neighbour kind, NodeId source, NodeId size) {
    if (nodes_[source].rate != Rate::pixel)
        return source;
    for (const Stage& known : stages_)
        if (known.kind == kind && known.source == source && known.size == size)
            return known.result;
    Node node;
    node.op = Op::input;
    node.rate = Rate::pixel;
    node.slot = input_slots();
    const NodeId result = intern(node);
    stages_.push_back({kind, source, size, result});
    return result;
}

std::array<NodeId, 3> Graph::external(const External& conversion, const std::array<NodeId, 3>& args) {
    const auto known = std::find(externals_.begin(), externals_.end(), &conversion);
    Node node;
    node.op = Op::external;
    node.rate = std::max({nodes_[args[0]].rate, nodes_[args[1]].rate, nodes_[args[2]].rate});
    if (node.rate == Rate::constant) {
        const double values[] = {nodes_[args[0]].value, nodes_[args[1]].value, nodes_[args[2]].value};
        const std::array<double, 3> made = applied(conversion, values);
        return {constant(made[0]), constant(made[1]), constant(made[2])};
    }
    node.args = args;
    node.slot = static_cast<std::uint32_t>(known - externals_.begin());
    if (known == externals_.end())
        externals_.push_back(&conversion);
    std::array<NodeId, 3> results{};
    for (std::size_t i = 0; i < 3; ++i) {
        node.value = static_cast<double>(i);
        results[i] = intern(node);
    }
    return results;
}

bool Graph::is_constant(NodeId id, double value) const {
    return nodes_[id].op == Op::constant &&
        std::bit_cast<std::uint64_t>(nodes_[id].value) == std::bit_cast<std::uint64_t>(value);
}

NodeId Graph::make(Op op, NodeId a, NodeId b, NodeId c) {
    const OpRow& facts = row(op);
    Node node;
    node.op = op;
    node.args = {a, facts.arity > 1 ? b : 0, facts.arity > 2 ? c : 0};
    node.rate = Rate::constant;
    for (int i = 0; i < facts.arity; ++i)
        node.rate = std::max(node.rate, nodes_[node.args[i]].rate);
    if (node.rate == Rate::constant) {
        const double values[] = {nodes_[node.args[0]].value, nodes_[node.args[1]].value, nodes_[node.args[2]].value};
        return constant(folded(op, values));
    }
    if (rewrite_)
        if (const auto simpler = simplified(*this, op, node.args))
            return *simpler;
    return intern(node);
}

const Conversion* Graph::conversion(const void* model, const void* space, const std::array<NodeId, 3>& values) const {
    const Conversion* best = nullptr;
    int most = 0;
    for (const Conversion& known : conversions_) {
        int kept = 0;
        for (std::size_t i = 0; i < 3; ++i)
            kept += values[i] == known.result[i] && nodes_[values[i]].op != Op::constant ? 1 : 0;
        if (known.model == model && known.space == space && kept > most) {
            best = &known;
            most = kept;
        }
    }
    return best;
}

} // namespace kasuri::ir
