#pragma once
#include "image/image.hpp"

#include <array>
#include <cstddef>

namespace kasuri::image {

/// Rows of a picture, or of a part of it, as floats, some of them at a time, however they are kept: what is made on
/// demand is made once for all channels. Of one thread; the picture must outlive it.
class Rows {
public:
    explicit Rows(const Picture& picture);
    /// Of the part of `width` columns that begins at (left, top).
    Rows(const Picture& picture, std::size_t left, std::size_t top, std::size_t width);
    /// Rows [first, last) of the part are the ones that are told from now on.
    void at(std::size_t first, std::size_t last);
    /// Row `y` of the part. It stays until the channel's next one, or the next `at`.
    const float* row(std::size_t channel, std::size_t y);
    /// All rows of `at`, one behind the other. They stay until the next `at`.
    const float* all(std::size_t channel);

private:
    std::size_t place(std::size_t y) const;

    const Picture& picture_;
    std::size_t left_, top_, width_;
    std::size_t first_ = 0, last_ = 0;
    const MadeOnDemand* made_ = nullptr;
    std::array<Samples, 4> room_;
};

} // namespace kasuri::image
