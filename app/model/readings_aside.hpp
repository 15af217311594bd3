#pragma once
#include "base/cancel.hpp"
#include "model/preview_request.hpp"
#include "model/preview_result.hpp"

#include <condition_variable>
#include <cstdint>
#include <functional>
#include <memory>
#include <mutex>
#include <thread>

namespace kasuri::app {

/// Readings of a row of requests and the pixels of which numbers are told, on a thread of their own, so that the sheets
/// of the row need not wait for them: while a value is dragged. It evaluates by itself, one request at a time, and
/// forgets all when the row is over.
class ReadingsAside {
public:
    /// `ready` is called on this thread.
    explicit ReadingsAside(std::function<void(std::shared_ptr<ReadingsResult>)> ready);
    ~ReadingsAside();

    /// Begins, unless an earlier request is still at work: then false.
    bool begin(const PreviewRequest& request, std::uint64_t generation);
    /// Calls off what is at work. When this returns, `ready` may still be called once.
    void cancel();

private:
    void loop();
    void work(class PreviewWorker& worker, const PreviewRequest& request, std::uint64_t generation,
              const CancelToken& cancel);

    std::function<void(std::shared_ptr<ReadingsResult>)> ready_;
    std::mutex mutex_;
    std::condition_variable wake_;
    std::unique_ptr<PreviewRequest> request_; ///< waiting
    std::uint64_t generation_ = 0;
    bool stop_ = false, busy_ = false;
    CancelToken current_;
    std::thread thread_;
};

} // namespace kasuri::app
