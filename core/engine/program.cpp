#include "engine/program.hpp"

#include "base/text.hpp"
#include "engine/schedule.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::engine {

using ir::NodeId;
using ir::Op;
using ir::Rate;

namespace {

/// Turns a schedule into instructions with registers.
class Assembler {
public:
    Assembler(Schedule schedule, std::uint32_t input_slots, std::span<const ir::External* const> externals)
        : s_(std::move(schedule)), externals_(externals), place_(s_.items.size()) {
        pass_.reads.resize(input_slots);
        for (const Item& item : s_.items)
            uses_left_.push_back(item.uses);
    }

    Pass run(std::span<const NodeId> outputs) {
        for (std::uint32_t id = 0; id < s_.items.size();
             ++id) // those that fusing added stand behind, but need only these
            if (s_[id].uses > 0 && s_[id].rate != Rate::pixel)
                uniform(id);
        for (std::uint32_t id = 0; id < s_.items.size(); ++id)
            if (s_[id].uses > 0 && s_[id].rate == Rate::pixel)
                pixel(id);
        for (const NodeId id : outputs)
            pass_.outputs.push_back(place_[id]);
        return std::move(pass_);
    }
    std::uint32_t uniform_index(NodeId id) const { return place_[id].index; }
    const Operand& place(NodeId id) const { return place_[id]; }

private:
    void uniform(std::uint32_t id) {
        if (place_[id].place != Operand::Place::none)
            return;
        const Item& item = s_[id];
        UniformStep step;
        step.op = item.op;
        step.value = item.value;
        step.slot = item.slot;
        step.external = item.op == Op::external ? externals_[item.slot] : nullptr;
        for (int k = 0; k < item.arity(); ++k) {
            uniform(item.args[static_cast<std::size_t>(k)]);
            step.args[static_cast<std::size_t>(k)] = place_[item.args[static_cast<std::size_t>(k)]].index;
        }
        place_[id] = {Operand::Place::uniform, static_cast<std::uint32_t>(pass_.uniforms.size())};
        pass_.uniforms.push_back(step);
    }

    std::uint32_t take() {
        if (free_.empty())
            return pass_.registers++;
        const std::uint32_t index = free_.back();
        free_.pop_back();
        return index;
    }

    void release(std::uint32_t id) {
        if (--uses_left_[id] == 0 && place_[id].place == Operand::Place::reg)
            free_.push_back(place_[id].index);
    }

    void pixel(std::uint32_t id) {
        const Item& item = s_[id];
        if (item.op == Op::input) {
            pass_.reads[item.slot] = true;
            place_[id] = {Operand::Place::input, item.slot};
            return;
        }
        if (item.joint && item.leader != id) {
            // Its leader has computed it; its own claims on the operands end here.
            for (int k = 0; k < item.arity(); ++k)
                release(item.args[static_cast<std::size_t>(k)]);
            return;
        }
        Instruction made;
        made.op = item.joint && item.op != Op::external ? static_cast<Op>(item.slot) : item.op;
        made.external = item.op == Op::external ? externals_[item.slot] : nullptr;
        const int arity = item.arity();
        for (int k = 0; k < arity; ++k)
            made.args[static_cast<std::size_t>(k)] = place_[item.args[static_cast<std::size_t>(k)]];
        if (made.op == Op::matrix3) {
            std::size_t at = 3;
            for (const std::uint32_t member : {id, item.joined[0] - 1, item.joined[1] - 1})
                for (std::size_t k = 3; k < 7; ++k)
                    made.args[at++] = place_[s_[member].args[k]];
        }
        // Operands that are used for the last time give their register back before the target is
        // chosen: every kernel reads a lane before it writes it.
        for (int k = 0; k < arity; ++k)
            release(item.args[static_cast<std::size_t>(k)]);
        if (!item.joint) {
            made.targets[0] = take();
            place_[id] = {Operand::Place::reg, made.targets[0]};
        } else {
            const std::array<std::uint32_t, 3> members = {static_cast<std::uint32_t>(item.value), item.joined[0],
                                                          item.joined[1]};
            for (std::size_t k = 0; k < 3; ++k)
                made.targets[k] = take();
            for (std::size_t k = 0; k < 3; ++k)
                if (members[k] == 0) // nobody needs it
                    free_.push_back(made.targets[k]);
                else
                    place_[members[k] - 1] = {Operand::Place::reg, made.targets[k]};
        }
        pass_.instructions.push_back(made);
    }

    Schedule s_;
    std::span<const ir::External* const> externals_;
    Pass pass_;
    std::vector<Operand> place_;
    std::vector<std::uint32_t> uses_left_;
    std::vector<std::uint32_t> free_;
};

/// Which stages a set of nodes needs, and how deep each stands: 0 needs no other.
class Depths {
public:
    explicit Depths(const ir::Graph& graph) : graph_(graph), of_stage_(graph.stages().size(), -1) {
        first_result_.assign(graph.size(), -1);
        for (std::size_t k = 0; k < graph.stages().size(); ++k)
            first_result_[graph.stages()[k].result] = static_cast<int>(k);
    }

    /// The number of passes before the one that computes `nodes`.
    int depth(std::span<const NodeId> nodes) {
        // Operands come before what uses them, so one walk backwards finds all that is needed.
        std::vector<bool> needed(graph_.size());
        for (const NodeId node : nodes)
            needed[node] = true;
        int deepest = 0;
        for (std::size_t id = graph_.size(); id-- > 0;) {
            if (!needed[id])
                continue;
            if (const int stage = first_result_[id]; stage >= 0) {
                deepest = std::max(deepest, of_stage(static_cast<std::size_t>(stage)) + 1);
                continue;
            }
            const ir::Node& node = graph_[static_cast<NodeId>(id)];
            for (int k = 0; k < ir::row(node.op).arity; ++k)
                needed[node.args[static_cast<std::size_t>(k)]] = true;
        }
        return deepest;
    }

    int of_stage(std::size_t stage) {
        if (of_stage_[stage] < 0) {
            const NodeId source[] = {graph_.stages()[stage].source};
            of_stage_[stage] = depth(source);
        }
        return of_stage_[stage];
    }
    bool needed(std::size_t stage) const { return of_stage_[stage] >= 0; }

private:
    const ir::Graph& graph_;
    std::vector<int> of_stage_;
    std::vector<int> first_result_;
};

} // namespace

Program::Program(const ir::Graph& graph, std::span<const NodeId> outputs, bool fused)
    : input_slots_(graph.input_slots()), first_stage_slot_(graph.first_stage_slot()) {
    Depths depths(graph);
    const int count = depths.depth(outputs);
    const auto assemble = [&](std::span<const NodeId> wanted, std::span<const NodeId> sizes) {
        std::vector<NodeId> all(wanted.begin(), wanted.end());
        all.insert(all.end(), sizes.begin(), sizes.end());
        Schedule schedule(graph, all);
        join_externals(schedule);
        if (fused)
            fuse(schedule);
        Assembler assembler(std::move(schedule), input_slots_, graph.externals());
        Pass pass = assembler.run(wanted);
        for (const UniformStep& step : pass.uniforms)
            reads_extent_ = reads_extent_ || (step.op == Op::uniform && step.slot < ir::first_parameter_slot);
        return std::pair(std::move(pass), std::move(assembler));
    };
    for (int level = 0; level < count; ++level) {
        std::vector<NodeId> wanted, sizes;
        std::vector<StageStep> steps;
        for (std::size_t k = 0; k < graph.stages().size(); ++k) {
            if (!depths.needed(k) || depths.of_stage(k) != level)
                continue;
            const ir::Stage& stage = graph.stages()[k];
            StageStep step;
            step.kind = stage.kind;
            const auto known = std::find(wanted.begin(), wanted.end(), stage.source);
            step.output = static_cast<std::uint32_t>(known - wanted.begin());
            if (known == wanted.end())
                wanted.push_back(stage.source);
            sizes.push_back(stage.size);
            step.slot = graph[stage.result].slot;
            steps.push_back(step);
        }
        auto [pass, assembler] = assemble(wanted, sizes);
        for (std::size_t k = 0; k < steps.size(); ++k)
            steps[k].size = assembler.uniform_index(sizes[k]);
        pass.stages = std::move(steps);
        passes_.push_back(std::move(pass));
    }
    passes_.push_back(assemble(outputs, {}).first);
}

std::size_t Program::operations() const {
    std::size_t sum = 0;
    for (const Pass& pass : passes_)
        sum += pass.instructions.size();
    return sum;
}

bool Program::reads(std::uint32_t slot) const {
    return std::any_of(passes_.begin(), passes_.end(), [&](const Pass& pass) { return pass.reads[slot]; });
}

bool Program::reads_position() const {
    return reads_extent_ || reads(ir::Input::pixel_x) || reads(ir::Input::pixel_y) || reads(ir::Input::pos_x) ||
        reads(ir::Input::pos_y);
}

bool Program::reads_sources() const {
    for (std::uint32_t slot = ir::input_count; slot < first_stage_slot_; ++slot)
        if (reads(slot))
            return true;
    return false;
}

bool Program::passes_through(std::size_t output) const {
    return outputs()[output].place == Operand::Place::input && outputs()[output].index == output;
}

bool Program::is_identity() const {
    return outputs().size() == 4 && passes_through(0) && passes_through(1) && passes_through(2) && passes_through(3);
}

std::string Program::printed() const {
    const auto shown = [](const Operand& operand) {
        constexpr std::string_view letters = "-rui";
        return fmt::format("{}{}", letters[static_cast<std::size_t>(operand.place)], operand.index);
    };
    std::string text;
    for (std::size_t number = 0; number < passes_.size(); ++number) {
        const Pass& pass = passes_[number];
        text += fmt::format("pass {} of {}: {} instructions, {} registers\n", number + 1, passes_.size(),
                            pass.instructions.size(), pass.registers);
        for (std::size_t i = 0; i < pass.uniforms.size(); ++i) {
            const UniformStep& step = pass.uniforms[i];
            text += fmt::format("u{} = {}", i, ir::row(step.op).name);
            if (step.op == Op::constant)
                text += " " + number_text(step.value, 9);
            if (step.op == Op::uniform)
                text += fmt::format(" {}", step.slot);
            for (int k = 0; k < ir::row(step.op).arity; ++k)
                text += fmt::format(" u{}", step.args[static_cast<std::size_t>(k)]);
            text += "\n";
        }
        for (const Instruction& instruction : pass.instructions) {
            const ir::OpRow& facts = ir::row(instruction.op);
            for (int k = 0; k < facts.results; ++k)
                text += fmt::format("r{} ", instruction.targets[static_cast<std::size_t>(k)]);
            text += fmt::format("= {}", facts.name);
            for (int k = 0; k < facts.arity; ++k)
                text += " " + shown(instruction.args[static_cast<std::size_t>(k)]);
            text += "\n";
        }
        for (const StageStep& stage : pass.stages) {
            text += fmt::format("i{} = {} {} u{}\n", stage.slot, ir::row(stage.kind).name,
                                shown(pass.outputs[stage.output]), stage.size);
        }
        if (!pass.stages.empty())
            continue;
        text += "out";
        for (const Operand& output : pass.outputs)
            text += " " + shown(output);
        text += "\n";
    }
    return text;
}

} // namespace kasuri::engine
