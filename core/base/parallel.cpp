#include "base/parallel.hpp"

#include <algorithm>
#include <atomic>
#include <memory>
#include <mutex>
#include <tbb/blocked_range.h>
#include <tbb/global_control.h>
#include <tbb/parallel_for.h>

namespace kasuri {
namespace {
std::mutex limit_mutex;
std::unique_ptr<tbb::global_control> limit;
} // namespace

bool parallel_ranges(std::size_t count, std::size_t grain, const CancelToken& cancel,
                     const std::function<void(std::size_t, std::size_t)>& body) {
    std::atomic<bool> whole{true};
    tbb::parallel_for(
        tbb::blocked_range<std::size_t>(0, count, std::max<std::size_t>(grain, 1)),
        [&](const tbb::blocked_range<std::size_t>& range) {
            if (cancel.cancelled()) {
                whole.store(false, std::memory_order_relaxed);
                return;
            }
            body(range.begin(), range.end());
        },
        tbb::simple_partitioner{});
    return whole.load(std::memory_order_relaxed);
}

void limit_threads(int threads) {
    const std::lock_guard lock(limit_mutex);
    limit.reset();
    if (threads > 0)
        limit = std::make_unique<tbb::global_control>(tbb::global_control::max_allowed_parallelism,
                                                      static_cast<std::size_t>(threads));
}

} // namespace kasuri
