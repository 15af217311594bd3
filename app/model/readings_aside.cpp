#include "model/readings_aside.hpp"

#include "base/parallel.hpp"
#include "base/timeline.hpp"
#include "model/preview_worker.hpp"

#include <chrono>
#include <exception>
#include <utility>

#if defined(__linux__)
#include <pthread.h>
#endif

namespace kasuri::app {
namespace {

/// So long without work, and the row is over: what was made for it is memory.
constexpr std::chrono::milliseconds row_over{500};

} // namespace

ReadingsAside::ReadingsAside(std::function<void(std::shared_ptr<ReadingsResult>)> ready) : ready_(std::move(ready)) {
    thread_ = std::thread([this] { loop(); });
}

ReadingsAside::~ReadingsAside() {
    {
        const std::lock_guard lock(mutex_);
        stop_ = true;
        current_.cancel();
    }
    wake_.notify_one();
    thread_.join();
}

bool ReadingsAside::begin(const PreviewRequest& request, std::uint64_t generation) {
    {
        const std::lock_guard lock(mutex_);
        if (busy_ || request_)
            return false;
        request_ = std::make_unique<PreviewRequest>(request);
        generation_ = generation;
    }
    wake_.notify_one();
    return true;
}

void ReadingsAside::cancel() {
    const std::lock_guard lock(mutex_);
    request_.reset();
    current_.cancel();
}

void ReadingsAside::loop() {
#if defined(__linux__)
    pthread_setname_np(pthread_self(), "readings"); // for debuggers and profilers
#endif
    give_way(); // painting comes first
    std::unique_ptr<PreviewWorker> worker;
    while (true) {
        std::unique_ptr<PreviewRequest> request;
        std::uint64_t generation = 0;
        CancelToken cancel;
        {
            std::unique_lock lock(mutex_);
            busy_ = false;
            const auto called = [this] { return stop_ || request_; };
            if (worker && !wake_.wait_for(lock, row_over, called)) {
                lock.unlock();
                worker.reset();
                lock.lock();
            }
            wake_.wait(lock, called);
            if (stop_)
                return;
            request = std::move(request_);
            generation = generation_;
            current_ = cancel;
            busy_ = true;
        }
        try {
            if (!worker)
                worker = std::make_unique<PreviewWorker>(0);
            work(*worker, *request, generation, cancel);
        } catch (const std::exception&) {
            worker.reset(); // the preview meets the same at the end of the row, and tells of it
        }
    }
}

void ReadingsAside::work(PreviewWorker& worker, const PreviewRequest& request, std::uint64_t generation,
                         const CancelToken& cancel) {
    const timeline::Stretch stretch("readings aside");
    if (!worker.take(request, cancel))
        return;
    const std::shared_ptr<SheetResult> counted = worker.counted(request, cancel);
    if (!counted)
        return;
    const std::shared_ptr<ReadingsResult> read = worker.readings(request, *counted, cancel);
    worker.trim();
    if (!read)
        return;
    read->generation = generation;
    read->counted = counted->cells;
    ready_(read);
}

} // namespace kasuri::app
