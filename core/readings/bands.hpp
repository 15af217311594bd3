#pragma once
// Readings go through pictures band by band: what is made of a band is counted while it is in the cache, and a picture
// that is made on demand is never there as a whole.
#include "base/cancel.hpp"
#include "image/image.hpp"
#include "readings/view.hpp"

#include <array>
#include <cstddef>
#include <functional>
#include <memory>
#include <mutex>
#include <span>
#include <string_view>
#include <thread>
#include <utility>
#include <vector>

namespace kasuri::readings {

/// How a picture is looked at.
struct Looked {
    std::string_view working;    ///< the space in which `expression` is meant
    std::string_view expression; ///< empty: r, g, b as they are stored
};

/// Whole rows of a picture, one behind the other, in each component of what is looked at; of those there are as many as
/// the expression has.
struct Band {
    std::size_t first = 0; ///< pixel of the picture
    std::array<std::span<const float>, 4> components;
};

/// One of those who look at the same picture. `each` is called from several threads at the same time.
struct Onlooker {
    Looked looked;
    std::function<void(const Band&)> each;
};

/// Shows every band of a picture to each of them, once and in any order, on all cores. False if called off.
bool through_bands(const image::Picture& picture, Views& views, std::span<const Onlooker> onlookers,
                   const CancelToken& cancel);

/// One T for each thread that asks for it, for what is counted on several at the same time.
template <class T>
class PerThread {
public:
    /// `made` makes one.
    explicit PerThread(std::function<T()> made) : made_(std::move(made)) {}
    /// This thread's.
    T& own() {
        const std::lock_guard lock(mutex_);
        const std::thread::id id = std::this_thread::get_id();
        for (auto& [thread, one] : all_)
            if (thread == id)
                return *one;
        all_.emplace_back(id, std::make_unique<T>(made_()));
        return *all_.back().second;
    }
    /// Of every thread, when none works with it any more.
    template <class Function>
    void for_each(Function&& function) const {
        for (const auto& [thread, one] : all_)
            function(*one);
    }

private:
    std::function<T()> made_;
    std::mutex mutex_;
    std::vector<std::pair<std::thread::id, std::unique_ptr<T>>> all_;
};

} // namespace kasuri::readings
