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
    std::uint32_t target = 0; ///< register
    std::array<Operand, 3> args{};
};

/// A number that is the same for every pixel of a run: computed once in double precision.
struct UniformStep {
    ir::Op op{};
    double value = 0;       ///< of a constant
    std::uint32_t slot = 0; ///< of a parameter
    std::array<std::uint32_t, 3> args{}; ///< indices of earlier steps
};

/// What the tile evaluator runs: immutable, shared by threads.
class Program {
public:
    /// Schedules what `outputs` need: uniform work first, then registers reused as soon as they are free.
    Program(const ir::Graph& graph, std::span<const ir::NodeId> outputs);

    std::span<const UniformStep> uniforms() const { return uniforms_; }
    std::span<const Instruction> instructions() const { return instructions_; }
    std::span<const Operand> outputs() const { return outputs_; }
    std::uint32_t registers() const { return registers_; }
    bool reads(ir::Input input) const { return reads_[static_cast<std::size_t>(input)]; }
    bool reads_position() const;
    /// Whether output i is input i, untouched, for the first four.
    bool passes_through(std::size_t output) const;
    bool is_identity() const;

    /// One instruction a line, for people.
    std::string printed() const;

private:
    std::vector<UniformStep> uniforms_;
    std::vector<Instruction> instructions_;
    std::vector<Operand> outputs_;
    std::array<bool, ir::input_count> reads_{};
    bool reads_aspect_ = false;
    std::uint32_t registers_ = 0;
};

using ProgramPtr = std::shared_ptr<const Program>;

} // namespace kasuri::engine
