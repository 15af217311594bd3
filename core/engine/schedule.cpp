#include "engine/schedule.hpp"

#include <algorithm>

namespace kasuri::engine {

using ir::Op;

Schedule::Schedule(const ir::Graph& graph, std::span<const ir::NodeId> outputs) {
    items.resize(graph.size());
    for (ir::NodeId id = 0; id < graph.size(); ++id) {
        const ir::Node& node = graph[id];
        Item& item = items[id];
        item.op = node.op;
        item.rate = node.rate;
        std::copy(node.args.begin(), node.args.end(), item.args.begin());
        item.value = node.value;
        item.slot = node.slot;
    }
    for (const ir::NodeId id : outputs)
        ++items[id].uses;
    for (std::size_t i = items.size(); i-- > 0;)
        if (items[i].uses > 0)
            for (int k = 0; k < items[i].arity(); ++k)
                ++items[items[i].args[static_cast<std::size_t>(k)]].uses;
}

std::uint32_t Schedule::constant(double value) {
    Item item;
    item.op = Op::constant;
    item.rate = ir::Rate::constant;
    item.value = value;
    items.push_back(item);
    return static_cast<std::uint32_t>(items.size() - 1);
}

std::uint32_t Schedule::uniform(Op op, std::uint32_t a, std::uint32_t b) {
    Item item;
    item.op = op;
    item.rate = ir::Rate::uniform;
    item.args[0] = a;
    item.args[1] = b;
    items.push_back(item);
    for (int k = 0; k < item.arity(); ++k)
        use(item.args[static_cast<std::size_t>(k)]);
    return static_cast<std::uint32_t>(items.size() - 1);
}

void Schedule::use(std::uint32_t id) {
    if (items[id].uses++ == 0)
        for (int k = 0; k < items[id].arity(); ++k)
            use(items[id].args[static_cast<std::size_t>(k)]);
}

void Schedule::let_go(std::uint32_t id) {
    if (--items[id].uses == 0)
        for (int k = 0; k < items[id].arity(); ++k)
            let_go(items[id].args[static_cast<std::size_t>(k)]);
}

void Schedule::rewrite(std::uint32_t id, Op op, std::span<const std::uint32_t> args) {
    const Item before = items[id];
    items[id].op = op;
    std::copy(args.begin(), args.end(), items[id].args.begin());
    for (const std::uint32_t arg : args) // first the new ones, so that nothing is let go in between
        use(arg);
    for (int k = 0; k < before.arity(); ++k)
        let_go(before.args[static_cast<std::size_t>(k)]);
}

void Schedule::absorb(std::uint32_t id) {
    const Item before = items[id];
    items[id].absorbed = true;
    for (int k = 0; k < before.arity(); ++k)
        let_go(before.args[static_cast<std::size_t>(k)]);
}

} // namespace kasuri::engine
