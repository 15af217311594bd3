#pragma once
#include <array>
#include <cstddef>

namespace kasuri::bench {

/// Planes of `count` floats.
using Planes = std::array<const float*, 3>;
using Targets = std::array<float*, 3>;

/// One workload of workloads.hpp as one would write it by hand: one loop over the pixels, everything in registers,
/// the same polynomials as the engine, results past the caches. For the best instruction set of the processor.
using HandWritten = void (*)(const Planes& from, const Targets& to, std::size_t count);

HandWritten handwritten(char workload); ///< 'a' to 'e'

} // namespace kasuri::bench
