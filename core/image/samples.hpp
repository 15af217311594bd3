#pragma once
#include <cstddef>
#include <new>
#include <utility>
#include <vector>

namespace kasuri::image {

/// Leaves new elements as memory is, where nothing else is said: clearing a large picture takes as long as a rule
/// does, on one core, before work has begun and without being called off. Begins a cache line: a vector that lies
/// across two lines is read as two.
template <class T>
struct Uncleared {
    using value_type = T;
    static constexpr std::align_val_t line{64};

    Uncleared() = default;
    template <class U>
    Uncleared(const Uncleared<U>&) noexcept {}
    T* allocate(std::size_t count) { return static_cast<T*>(::operator new(count * sizeof(T), line)); }
    void deallocate(T* place, std::size_t) noexcept { ::operator delete(place, line); }
    friend bool operator==(const Uncleared&, const Uncleared&) { return true; }

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
