#include "ir/printed.hpp"

#include "base/text.hpp"

#include <fmt/format.h>

namespace kasuri::ir {

std::string printed(const Graph& graph, std::span<const NodeId> outputs) {
    std::vector<bool> needed(graph.size());
    for (const NodeId id : outputs)
        needed[id] = true;
    const auto stage_of = [&](const Node& node) -> const Stage* {
        if (node.op != Op::input || node.slot < graph.first_stage_slot())
            return nullptr;
        return &graph.stages()[node.slot - graph.first_stage_slot()];
    };
    // Operands come before what uses them, so one walk from the end finds all that is needed.
    for (std::size_t i = graph.size(); i-- > 0;) {
        if (!needed[i])
            continue;
        const Node& node = graph[static_cast<NodeId>(i)];
        for (int k = 0; k < row(node.op).arity; ++k)
            needed[node.args[static_cast<std::size_t>(k)]] = true;
        if (const Stage* stage = stage_of(node))
            needed[stage->source] = needed[stage->size] = true;
    }
    constexpr std::string_view inputs[] = {"r", "g", "b", "a", "pixel.x", "pixel.y", "pos.x", "pos.y"};
    constexpr std::string_view uniforms[] = {"aspect", "width", "height"};
    constexpr std::string_view neighbours[] = {"blur", "dilate", "erode"};
    std::string text;
    for (std::size_t i = 0; i < graph.size(); ++i) {
        if (!needed[i])
            continue;
        const Node& node = graph[static_cast<NodeId>(i)];
        text += fmt::format("n{} = ", i);
        if (node.op == Op::constant) {
            text += number_text(node.value, 9);
        } else if (node.op == Op::uniform) {
            text += node.slot < first_parameter_slot ? std::string(uniforms[node.slot])
                                                     : fmt::format("parameter {}", node.slot - first_parameter_slot);
        } else if (const Stage* stage = stage_of(node)) {
            text += fmt::format("{} n{} n{}", neighbours[static_cast<std::size_t>(stage->kind)], stage->source,
                                stage->size);
        } else if (node.op == Op::input) {
            text += node.slot < input_count ? std::string(inputs[node.slot])
                                            : fmt::format("source channel {}", node.slot - input_count);
        } else {
            text += row(node.op).name;
            for (int k = 0; k < row(node.op).arity; ++k)
                text += fmt::format(" n{}", node.args[static_cast<std::size_t>(k)]);
            if (node.rate == Rate::uniform)
                text += "  (per picture)";
        }
        text += "\n";
    }
    text += "out";
    for (const NodeId id : outputs)
        text += fmt::format(" n{}", id);
    return text + "\n";
}

} // namespace kasuri::ir
