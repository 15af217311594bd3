#include "engine/scratch.hpp"

#include <map>
#include <mutex>
#include <new>
#include <utility>

namespace kasuri::engine {
namespace {

constexpr std::align_val_t line{64};
constexpr std::size_t max_kept = std::size_t{256} << 20;

/// Buffers that wait for their next use, by size. The one piece of shared state of the engine.
class Store {
public:
    ~Store() {
        for (const auto& [bytes, data] : free_)
            ::operator delete(data, line);
    }
    float* take(std::size_t bytes) {
        {
            const std::lock_guard lock(mutex_);
            // A buffer up to twice as large will do.
            const auto found = free_.lower_bound(bytes);
            if (found != free_.end() && found->first <= 2 * bytes) {
                float* data = found->second;
                sizes_[data] = found->first;
                kept_ -= found->first;
                free_.erase(found);
                return data;
            }
        }
        auto* data = static_cast<float*>(::operator new(bytes, line));
        const std::lock_guard lock(mutex_);
        sizes_[data] = bytes;
        return data;
    }
    void give(float* data) {
        const std::lock_guard lock(mutex_);
        const auto found = sizes_.find(data);
        const std::size_t bytes = found->second;
        sizes_.erase(found);
        if (kept_ + bytes > max_kept) {
            ::operator delete(data, line);
            return;
        }
        kept_ += bytes;
        free_.emplace(bytes, data);
    }

private:
    std::mutex mutex_;
    std::multimap<std::size_t, float*> free_;
    std::map<float*, std::size_t> sizes_;
    std::size_t kept_ = 0;
};

Store& store() {
    static Store kept;
    return kept;
}

} // namespace

Scratch::Scratch(std::size_t count) : bytes_((count + 16) * sizeof(float)) { data_ = store().take(bytes_); }

Scratch::~Scratch() {
    if (data_)
        store().give(data_);
}

Scratch::Scratch(Scratch&& other) noexcept : data_(std::exchange(other.data_, nullptr)), bytes_(other.bytes_) {}

} // namespace kasuri::engine
