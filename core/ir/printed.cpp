#include "ir/printed.hpp"

#include "base/text.hpp"
#include "ir/needed.hpp"

#include <fmt/format.h>

namespace kasuri::ir {

std::string printed(const Graph& graph, std::span<const NodeId> outputs) {
    const std::vector<bool> needed = needed_by(graph, outputs);
    constexpr std::string_view inputs[] = {"r", "g", "b", "a", "pixel.x", "pixel.y", "pos.x", "pos.y"};
    constexpr std::string_view uniforms[] = {"aspect", "width", "height"};
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
        } else if (const Stage* stage = stage_of(graph, node)) {
            text += fmt::format("{} n{} n{}", row(stage->kind).name, stage->source, stage->size);
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
