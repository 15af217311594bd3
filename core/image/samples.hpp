#pragma once
#include <memory>
#include <utility>
#include <vector>

namespace kasuri::image {

/// Leaves new elements as memory is, where nothing else is said: clearing a large picture takes as long as a rule
/// does, on one core, before work has begun and without being called off.
template <class T>
struct Uncleared : std::allocator<T> {
    template <class U>
    struct rebind {
        using other = Uncleared<U>;
    };
    template <class U>
    void construct(U* place) noexcept {
        ::new (static_cast<void*>(place)) U;
    }
    template <class U, class... Args>
    void construct(U* place, Args&&... args) {
        ::new (static_cast<void*>(place)) U(std::forward<Args>(args)...);
    }
};

/// Numbers of a channel. Samples(n) are n floats of any value; Samples(n, 0) are zeros.
using Samples = std::vector<float, Uncleared<float>>;

} // namespace kasuri::image
