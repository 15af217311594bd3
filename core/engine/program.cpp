#include "engine/program.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::engine {

using ir::Node;
using ir::NodeId;
using ir::Op;
using ir::Rate;

namespace {

/// A private copy of the needed part of a graph, in which a product used once is fused with the sum that uses it.
struct Schedule {
    std::vector<Node> nodes;
    std::vector<std::uint32_t> uses; ///< 0: not needed

    Schedule(const ir::Graph& graph, std::span<const NodeId> outputs) {
        for (NodeId id = 0; id < graph.size(); ++id)
            nodes.push_back(graph[id]);
        count(outputs);
        for (Node& node : nodes)
            if (node.op == Op::add && node.rate == Rate::pixel)
                fuse(node);
        count(outputs);
    }

private:
    void count(std::span<const NodeId> outputs) {
        uses.assign(nodes.size(), 0);
        for (const NodeId id : outputs)
            ++uses[id];
        for (std::size_t i = nodes.size(); i-- > 0;)
            if (uses[i] > 0)
                for (int k = 0; k < ir::row(nodes[i].op).arity; ++k)
                    ++uses[nodes[i].args[static_cast<std::size_t>(k)]];
    }

    void fuse(Node& sum) {
        for (const std::size_t side : {0u, 1u}) {
            const NodeId product = sum.args[side];
            const NodeId other = sum.args[1 - side];
            if (nodes[product].op == Op::mul && nodes[product].rate == Rate::pixel && uses[product] == 1) {
                sum.op = Op::fma;
                sum.args = {nodes[product].args[0], nodes[product].args[1], other};
                return;
            }
        }
    }
};

} // namespace

Program::Program(const ir::Graph& graph, std::span<const NodeId> outputs) {
    const Schedule schedule(graph, outputs);
    const std::size_t count = schedule.nodes.size();
    std::vector<Operand> place(count);
    std::vector<std::uint32_t> uses_left = schedule.uses;
    std::vector<std::uint32_t> free_registers;
    for (NodeId id = 0; id < count; ++id) {
        if (schedule.uses[id] == 0)
            continue;
        const Node& node = schedule.nodes[id];
        const int arity = ir::row(node.op).arity;
        if (node.rate != Rate::pixel) {
            UniformStep step;
            step.op = node.op;
            step.value = node.value;
            step.slot = node.slot;
            for (int k = 0; k < arity; ++k)
                step.args[k] = place[node.args[k]].index;
            reads_aspect_ = reads_aspect_ || (node.op == Op::uniform && node.slot == ir::aspect_slot);
            place[id] = {Operand::Place::uniform, static_cast<std::uint32_t>(uniforms_.size())};
            uniforms_.push_back(step);
            continue;
        }
        if (node.op == Op::input) {
            reads_[node.slot] = true;
            place[id] = {Operand::Place::input, node.slot};
            continue;
        }
        Instruction instruction;
        instruction.op = node.op;
        for (int k = 0; k < arity; ++k)
            instruction.args[k] = place[node.args[k]];
        // Operands that are used for the last time give their register back before the target is
        // chosen: every kernel reads a lane before it writes it.
        for (int k = 0; k < arity; ++k) {
            const NodeId arg = node.args[k];
            if (--uses_left[arg] == 0 && place[arg].place == Operand::Place::reg)
                free_registers.push_back(place[arg].index);
        }
        if (free_registers.empty()) {
            instruction.target = registers_++;
        } else {
            instruction.target = free_registers.back();
            free_registers.pop_back();
        }
        place[id] = {Operand::Place::reg, instruction.target};
        instructions_.push_back(instruction);
    }
    for (const NodeId id : outputs)
        outputs_.push_back(place[id]);
}

bool Program::reads_position() const {
    return reads_aspect_ || reads(ir::Input::pixel_x) || reads(ir::Input::pixel_y) || reads(ir::Input::pos_x) ||
           reads(ir::Input::pos_y);
}

bool Program::passes_through(std::size_t output) const {
    return outputs_[output].place == Operand::Place::input && outputs_[output].index == output;
}

bool Program::is_identity() const {
    return outputs_.size() == 4 && passes_through(0) && passes_through(1) && passes_through(2) && passes_through(3);
}

std::string Program::printed() const {
    const auto shown = [](const Operand& operand) {
        constexpr std::string_view letters = "-rui";
        return fmt::format("{}{}", letters[static_cast<std::size_t>(operand.place)], operand.index);
    };
    std::string text;
    for (std::size_t i = 0; i < uniforms_.size(); ++i) {
        const UniformStep& step = uniforms_[i];
        text += fmt::format("u{} = {}", i, ir::row(step.op).name);
        if (step.op == Op::constant)
            text += " " + number_text(step.value, 9);
        if (step.op == Op::uniform)
            text += fmt::format(" {}", step.slot);
        for (int k = 0; k < ir::row(step.op).arity; ++k)
            text += fmt::format(" u{}", step.args[k]);
        text += "\n";
    }
    for (const Instruction& instruction : instructions_) {
        text += fmt::format("r{} = {}", instruction.target, ir::row(instruction.op).name);
        for (int k = 0; k < ir::row(instruction.op).arity; ++k)
            text += " " + shown(instruction.args[k]);
        text += "\n";
    }
    text += "out";
    for (const Operand& output : outputs_)
        text += " " + shown(output);
    return text + "\n";
}

} // namespace kasuri::engine
