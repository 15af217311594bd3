#pragma once
#include "ir/graph.hpp"

#include <array>
#include <cstdint>
#include <memory>
#include <span>
#include <string>
#include <vector>

namespace kasuri::engine {

/// Where an instruction finds a number: in a tile register, the uniform table, or an input.
struct Operand {
    enum class Place : std::uint8_t { none, reg, uniform, input } place = Place::none;
    std::uint32_t index = 0;
};

struct Instruction {
    ir::Op op{};
    const ir::External* external = nullptr;               ///< of Op::external
    std::array<std::uint32_t, ir::max_results> targets{}; ///< registers
    std::array<Operand, ir::max_operands> args{};
};

/// A number that is the same for every pixel of a run: computed once in double precision.
struct UniformStep {
    ir::Op op{};
    double value = 0;                                         ///< of a constant; of an external: which result
    std::uint32_t slot = 0;                                   ///< of a parameter
    std::array<std::uint32_t, ir::max_graph_operands> args{}; ///< indices of earlier steps
    const ir::External* external = nullptr;                   ///< of Op::external
};

/// One neighbourhood to be computed after a pass: what the pass put out there becomes a further input.
struct StageStep {
    ir::Neighbour kind{};
    std::uint32_t output = 0; ///< of the pass: the value that is looked at
    std::uint32_t size = 0;   ///< index of the uniform step with the size in pixels
    std::uint32_t slot = 0;   ///< the input by which later passes read it
};

/// One walk over the picture, tile by tile.
struct Pass {
    std::vector<UniformStep> uniforms;
    std::vector<Instruction> instructions;
    std::vector<Operand> outputs;
    std::vector<bool> reads;       ///< which input slots
    std::vector<StageStep> stages; ///< empty for the last pass
    std::uint32_t registers = 0;
};

/// What the tile evaluator runs: immutable, shared by threads.
class Program {
public:
    /// Schedules what `outputs` need: a pass for each depth of neighbourhoods, uniform work first, fused
    /// operations, registers reused as soon as they are free. Without `fused` every instruction is one node.
    Program(const ir::Graph& graph, std::span<const ir::NodeId> outputs, bool fused = true);

    std::span<const Pass> passes() const { return passes_; }
    const Pass& last() const { return passes_.back(); }
    std::span<const Instruction> instructions() const { return last().instructions; }
    std::span<const Operand> outputs() const { return last().outputs; }
    std::uint32_t registers() const { return last().registers; }
    /// Instructions of all passes.
    std::size_t operations() const;
    /// Whether any pass reads this input.
    bool reads(std::uint32_t slot) const;
    bool reads(ir::Input input) const { return reads(static_cast<std::uint32_t>(input)); }
    /// Whether the same colour can come out differently elsewhere in the picture.
    bool reads_position() const;
    bool reads_neighbours() const { return passes_.size() > 1; }
    bool reads_sources() const;
    std::uint32_t input_slots() const { return input_slots_; }
    /// Whether output i is input i, untouched, for the first four.
    bool passes_through(std::size_t output) const;
    bool is_identity() const;

    /// One instruction a line, for people.
    std::string printed() const;

private:
    std::vector<Pass> passes_;
    std::uint32_t input_slots_ = 0;
    std::uint32_t first_stage_slot_ = 0;
    bool reads_extent_ = false;
};

using ProgramPtr = std::shared_ptr<const Program>;

} // namespace kasuri::engine
