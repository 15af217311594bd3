#include "base/parallel.hpp"

#include "base/timeline.hpp"

#include <algorithm>
#include <atomic>
#include <memory>
#include <mutex>
#include <new>
#include <tbb/blocked_range.h>
#include <tbb/global_control.h>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>
#include <tbb/task_scheduler_observer.h>

#if defined(__linux__)
#include <sys/resource.h>
#include <unistd.h>
#endif

namespace kasuri {
namespace {
std::mutex limit_mutex;
std::unique_ptr<tbb::global_control> limit;

/// Beside a thread of no lowered priority one of this has about a quarter of a core, and gives it up when the other
/// wakes (sched(7): each step is a factor of 1.25).
constexpr int modest = 5;

void lower_own_priority() {
#if defined(__linux__)
    if (const int id = gettid(); getpriority(PRIO_PROCESS, static_cast<id_t>(id)) < modest)
        (void)setpriority(PRIO_PROCESS, static_cast<id_t>(id), modest); // on Linux, of the thread alone
#endif
}

/// Lowers the priority of every thread that comes to help the one that made this.
class Helpers : public tbb::task_scheduler_observer {
public:
    Helpers() { observe(true); }
    ~Helpers() override { observe(false); }
    void on_scheduler_entry(bool is_worker) override {
        if (is_worker)
            lower_own_priority();
    }
};
} // namespace

bool parallel_ranges(std::size_t count, std::size_t grain, const CancelToken& cancel,
                     const std::function<void(std::size_t, std::size_t)>& body) {
    std::atomic<bool> whole{true};
    // What came before is seen in every range, and what ranges wrote is seen after. tbb sees to that, too, but in code
    // that the thread sanitizer cannot look into.
    std::atomic<unsigned> order{1};
    tbb::parallel_for(
        tbb::blocked_range<std::size_t>(0, count, std::max<std::size_t>(grain, 1)),
        [&](const tbb::blocked_range<std::size_t>& range) {
            if (cancel.cancelled()) {
                whole.store(false, std::memory_order_relaxed);
                return;
            }
            const timeline::Share share("a share of a loop");
            order.fetch_add(1, std::memory_order_acq_rel);
            body(range.begin(), range.end());
            order.fetch_add(1, std::memory_order_acq_rel);
        },
        tbb::simple_partitioner{});
    order.load(std::memory_order_acquire);
    return whole.load(std::memory_order_relaxed);
}

void within_threads(int threads, const std::function<void()>& body) {
    if (threads <= 0)
        return body();
    tbb::task_arena arena(threads);
    arena.execute(body);
}

void give_way() {
    lower_own_priority();
    thread_local const Helpers helpers;
    (void)helpers;
}

bool end_threads() {
    tbb::task_scheduler_handle handle{tbb::attach{}};
    return tbb::finalize(handle, std::nothrow);
}

void limit_threads(int threads) {
    const std::lock_guard lock(limit_mutex);
    limit.reset();
    if (threads > 0)
        limit = std::make_unique<tbb::global_control>(tbb::global_control::max_allowed_parallelism,
                                                      static_cast<std::size_t>(threads));
}

} // namespace kasuri

#if defined(__has_feature)
#if __has_feature(thread_sanitizer) && !defined(__SANITIZE_THREAD__) // as clang says it
#define __SANITIZE_THREAD__
#endif
#endif

#if defined(__SANITIZE_THREAD__)
// Debian's libraries are not built for the thread sanitizer: it does not see their locks and reports races inside
// them. Ours stay reported.
extern "C" __attribute__((visibility("default"))) const char* __tsan_default_suppressions();
extern "C" __attribute__((visibility("default"))) const char* __tsan_default_suppressions() {
    return "called_from_lib:libOpenImageIO.so\n"
           "called_from_lib:libOpenImageIO_Util.so\n"
           "called_from_lib:libOpenEXR-3\n"
           "called_from_lib:libOpenEXRCore-3\n"
           "called_from_lib:libIlmThread-3\n"
           "called_from_lib:libtbb.so\n"
           "called_from_lib:libQt6Core.so\n"
           "called_from_lib:libQt6Gui.so\n"
           "called_from_lib:libQt6Widgets.so\n"
           "called_from_lib:libqscintilla2_qt6.so\n"
           "called_from_lib:libOpenColorIO.so\n"
           "called_from_lib:libdcmdata\n"
           "race:libdcmdata\n"
           "race:libtbb\n"
           "race:libOpenEXR\n"
           "race:libOpenImageIO\n"
           "race:libz.so\n"
           "race:libQt6Core\n"
           "race:libQt6Gui\n"
           "race:libQt6Widgets\n";
}
#endif
