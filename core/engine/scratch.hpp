#pragma once
#include <cstddef>

namespace kasuri::engine {

/// Floats of any value for the length of a run, aligned to a cache line. Buffers are kept for the next run: asking
/// the system for a picture's worth of memory and clearing it takes as long as a blur.
class Scratch {
public:
    explicit Scratch(std::size_t count);
    ~Scratch();
    Scratch(Scratch&& other) noexcept;
    Scratch& operator=(Scratch&&) = delete;
    Scratch(const Scratch&) = delete;
    Scratch& operator=(const Scratch&) = delete;

    float* data() { return data_; }
    const float* data() const { return data_; }

private:
    float* data_ = nullptr;
    std::size_t bytes_ = 0;
};

} // namespace kasuri::engine
