#pragma once
#include "oiio.hpp"

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace kasuri::helpers {

/// A sum over bytes in their order, equal for equal bytes: to see whether what is read again is what was written.
class BytesSum {
public:
    void add(const void* bytes, std::size_t count);
    friend bool operator==(const BytesSum&, const BytesSum&) = default;

private:
    std::array<std::uint64_t, 4> sums_{1, 2, 3, 4}; ///< of every fourth word each, so that none waits for the others
};

/// Numbers as a file of this header holds them: rounded to its depth, pixel by pixel. Where channels have depths of
/// their own, or name something, they stay floats (of those values, or bits).
class Stored {
public:
    /// What type `bytes` are of.
    static OIIO::TypeDesc type(const OIIO::ImageSpec& spec);
    const void* of(const OIIO::ImageSpec& spec, const float* values, std::size_t pixels);
    /// Whether some channel is of whole numbers that name something, and so never goes by way of floats.
    static bool names(const OIIO::ImageSpec& spec);
    /// Pixel by pixel each channel in its own type, from floats; for files of which `names` holds.
    const void* packed(const OIIO::ImageSpec& spec, const float* values, std::size_t pixels);
    static std::size_t bytes(const OIIO::ImageSpec& spec, std::size_t pixels);

private:
    std::vector<unsigned char> narrow_;
    std::vector<float> again_;
};

} // namespace kasuri::helpers
