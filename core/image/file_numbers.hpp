#pragma once
#include <cstddef>
#include <cstdint>

namespace kasuri::image {

/// `count` codes as shares of the largest: code / 255 and code / 65535, to the nearest float.
void from_codes(const std::uint8_t* from, float* to, std::size_t count);
void from_codes(const std::uint16_t* from, float* to, std::size_t count);

/// `count` half floats (IEEE 754 binary16) as floats, which hold each of them, NaN and infinities too.
void from_half(const std::uint16_t* from, float* to, std::size_t count);

/// The half floats next to `count` floats, halfway to even; what is beyond 65504 by half a step becomes infinite.
void to_half(const float* from, std::uint16_t* to, std::size_t count);

} // namespace kasuri::image
