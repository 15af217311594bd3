#pragma once
#include "base/cancel.hpp"

#include <cstddef>
#include <functional>

namespace kasuri {

/// Calls `body(first, last)` over [0, count) in pieces of at least `grain`, on all cores.
/// After `cancel` is set no new piece starts; returns whether every piece ran.
bool parallel_ranges(std::size_t count, std::size_t grain, const CancelToken& cancel,
                     const std::function<void(std::size_t first, std::size_t last)>& body);

/// Calls `body`, inside of which no more than so many threads work (0: all cores), this one among them.
void within_threads(int threads, const std::function<void()>& body);

/// Ends the threads that wait for work, once those that work have done it; the next parallel_ranges starts others.
/// False if some could not be ended, because somebody still works.
bool end_threads();

/// From now on this thread, and those that help it in parallel_ranges, give way to threads that wait for nothing but a
/// moment of a core, as an interface's: on a machine whose cores are all at work that is what painting waits for. Where
/// the system has no priorities for threads it does nothing.
void give_way();

/// How many threads parallel_ranges may use; 0 stands for all cores. For tests and benchmarks.
void limit_threads(int threads);

} // namespace kasuri
