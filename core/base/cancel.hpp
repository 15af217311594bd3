#pragma once
#include <atomic>
#include <memory>

namespace kasuri {

/// Shared flag by which the one who asked for work calls it off. Copies share the flag.
class CancelToken {
public:
    CancelToken() : flag_(std::make_shared<std::atomic<bool>>(false)) {}
    void cancel() const { flag_->store(true, std::memory_order_relaxed); }
    bool cancelled() const { return flag_->load(std::memory_order_relaxed); }

private:
    std::shared_ptr<std::atomic<bool>> flag_;
};

} // namespace kasuri
