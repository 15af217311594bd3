#pragma once
#include "base/cancel.hpp"

#include <cstddef>
#include <functional>

namespace kasuri {

/// Calls `body(first, last)` over [0, count) in pieces of at least `grain`, on all cores.
/// After `cancel` is set no new piece starts; returns whether every piece ran.
bool parallel_ranges(std::size_t count, std::size_t grain, const CancelToken& cancel,
                     const std::function<void(std::size_t first, std::size_t last)>& body);

/// How many threads parallel_ranges may use; 0 stands for all cores. For tests and benchmarks.
void limit_threads(int threads);

} // namespace kasuri
