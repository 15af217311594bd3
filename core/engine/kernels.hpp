#pragma once
#include "ir/op.hpp"

#include <cstddef>

namespace kasuri::engine {

/// Pixels that go through the instructions together: small enough for the registers to stay in the
/// nearest cache, large enough to make the interpreter's own cost vanish.
inline constexpr std::size_t tile_pixels = 512;

/// Floats in the widest vector (AVX-512). A uniform operand is this many equal floats.
inline constexpr std::size_t widest_vector = 16;

/// One operand of a kernel: lane i is read at data[i & mask], so a mask of 0 repeats one vector.
struct KernelOperand {
    const float* data = nullptr;
    std::size_t mask = 0;
};

/// Computes `count` floats (a multiple of widest_vector). `target` may be the data of an operand.
using Kernel = void (*)(float* target, KernelOperand a, KernelOperand b, KernelOperand c, std::size_t count);

/// The kernel of an operation for the best instruction set of this processor.
Kernel kernel(ir::Op op);

/// The name of that instruction set.
const char* instruction_set();

} // namespace kasuri::engine
