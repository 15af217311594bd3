#pragma once
#include "ir/op.hpp"

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>
#include <string>
#include <vector>

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

/// Where one instruction reads and writes. A target may be the data of an operand: kernels read a lane before they
/// write it.
struct KernelCall {
    std::array<float*, ir::max_results> targets{};
    const KernelOperand* args = nullptr; ///< as many as the operation has: those of a program lie one behind the other
};

/// Computes `count` floats (a multiple of widest_vector).
using Kernel = void (*)(const KernelCall& call, std::size_t count);

/// What an instruction set offers.
struct Kernels {
    Kernel (*find)(ir::Op op);
    /// Copies `count` floats to a place that is not read soon: past the caches where `to` allows it.
    void (*stream)(const float* from, float* to, std::size_t count);
    /// to[i] = sum of weights[k] * rows[k][i]; any count.
    void (*convolve_rows)(const float* const* rows, const float* weights, std::size_t rows_count, float* to,
                          std::size_t count);
    /// to[i] = the larger (smaller) of a[i], b[i] and to[i]; NaN where any is.
    void (*widen_max)(const float* a, const float* b, float* to, std::size_t count);
    void (*widen_min)(const float* a, const float* b, float* to, std::size_t count);
    const char* name;
};

/// Those of the best instruction set of this processor, or of the one that was chosen.
const Kernels& kernels();

/// The kernel of an operation.
Kernel kernel(ir::Op op);

/// The instruction sets that this program has code for and this processor can run, best first.
std::vector<std::string> instruction_sets();
/// For tests and benchmarks: one of instruction_sets(), or "" for the best.
void choose_instruction_set(const std::string& name);
const char* instruction_set();

/// Subnormal numbers count as 0 while this lives: some processors are a hundred times slower with them.
class FlushSubnormals {
public:
    FlushSubnormals();
    ~FlushSubnormals();
    FlushSubnormals(const FlushSubnormals&) = delete;
    FlushSubnormals& operator=(const FlushSubnormals&) = delete;

private:
    unsigned saved_ = 0;
};

} // namespace kasuri::engine
