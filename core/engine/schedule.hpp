#pragma once
#include "ir/graph.hpp"

#include <array>
#include <cstdint>
#include <span>
#include <vector>

namespace kasuri::engine {

/// An operation on its way to an instruction: like a graph's node, but with room for the operands of fused ones.
struct Item {
    ir::Op op{};
    ir::Rate rate{};
    std::array<std::uint32_t, ir::max_operands> args{};
    double value = 0;       ///< of a constant
    std::uint32_t slot = 0; ///< of a uniform or an input
    std::uint32_t uses = 0; ///< 0: not needed
    /// Items that the same instruction makes as its second and third result; `leader` of those points back.
    std::array<std::uint32_t, 2> joined{};
    std::uint32_t leader = 0;
    bool joint = false;    ///< one of several results, leader or not
    bool absorbed = false; ///< its leader has its operands

    int arity() const { return absorbed ? 0 : ir::row(op).arity; }
};

/// A private copy of the needed part of a graph, which fuse.cpp rewrites. Items keep the graph's numbers; uniform
/// items may be added behind, pixel items never.
class Schedule {
public:
    Schedule(const ir::Graph& graph, std::span<const ir::NodeId> outputs);

    std::vector<Item> items;

    Item& operator[](std::uint32_t id) { return items[id]; }
    const Item& operator[](std::uint32_t id) const { return items[id]; }
    bool is(std::uint32_t id, ir::Op op) const { return items[id].op == op; }
    bool is_constant(std::uint32_t id, double value) const {
        return items[id].op == ir::Op::constant && items[id].value == value;
    }
    bool per_pixel(std::uint32_t id) const { return items[id].rate == ir::Rate::pixel; }
    /// Only one item needs it, so that it may vanish into that.
    bool single(std::uint32_t id) const { return items[id].uses == 1; }

    std::uint32_t constant(double value);
    std::uint32_t uniform(ir::Op op, std::uint32_t a, std::uint32_t b);
    /// Gives an item another operation; what only its old operands needed is let go.
    void rewrite(std::uint32_t id, ir::Op op, std::span<const std::uint32_t> args);
    /// Another item makes its result: its operands are let go.
    void absorb(std::uint32_t id);

private:
    void use(std::uint32_t id);
    void let_go(std::uint32_t id);
};

/// One row: a shape of several operations that one kernel does in one go. The results agree to rounding.
struct Fusion {
    const char* shape; ///< as documentation and for tests
    bool (*apply)(Schedule& s, std::uint32_t id);
};
std::span<const Fusion> fusions();

/// The results of one external conversion become one instruction, however many of them are needed.
void join_externals(Schedule& schedule);

/// The same for what is made of the same operands: conversions into and from HSV, matrices, blends.
void join(Schedule& schedule);

/// Applies every fusion wherever it fits.
void fuse(Schedule& schedule);

} // namespace kasuri::engine
