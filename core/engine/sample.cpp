#include "engine/sample.hpp"

#include "engine/kernels.hpp"
#include "image/file_numbers.hpp"

#include <algorithm>
#include <cstdint>
#include <iterator>
#include <limits>

namespace kasuri::engine {
namespace {

void read_floats(const void* from, std::ptrdiff_t stride, float* to, std::size_t count) {
    const auto* numbers = static_cast<const float*>(from);
    for (std::size_t i = 0; i < count; ++i)
        to[i] = numbers[static_cast<std::ptrdiff_t>(i) * stride];
}

void write_floats(const float* from, void* to, std::ptrdiff_t stride, std::size_t count) {
    auto* numbers = static_cast<float*>(to);
    for (std::size_t i = 0; i < count; ++i)
        numbers[static_cast<std::ptrdiff_t>(i) * stride] = from[i];
}

void read_halves(const void* from, std::ptrdiff_t stride, float* to, std::size_t count) {
    const auto* halves = static_cast<const std::uint16_t*>(from);
    std::uint16_t close[tile_pixels];
    if (stride != 1) {
        for (std::size_t i = 0; i < count; ++i)
            close[i] = halves[static_cast<std::ptrdiff_t>(i) * stride];
        halves = close;
    }
    image::from_half(halves, to, count);
}

void write_halves(const float* from, void* to, std::ptrdiff_t stride, std::size_t count) {
    auto* halves = static_cast<std::uint16_t*>(to);
    if (stride == 1) {
        image::to_half(from, halves, count);
        return;
    }
    std::uint16_t close[tile_pixels];
    image::to_half(from, close, count);
    for (std::size_t i = 0; i < count; ++i)
        halves[static_cast<std::ptrdiff_t>(i) * stride] = close[i];
}

template <class Number>
void read_codes(const void* from, std::ptrdiff_t stride, float* to, std::size_t count) {
    const auto* codes = static_cast<const Number*>(from);
    Number close[tile_pixels];
    if (stride != 1) {
        for (std::size_t i = 0; i < count; ++i)
            close[i] = codes[static_cast<std::ptrdiff_t>(i) * stride];
        codes = close;
    }
    image::from_codes(codes, to, count);
}

/// To the nearest, halves up; what is outside is cut off, and what is no number is 0.
template <class Number>
void write_codes(const float* from, void* to, std::ptrdiff_t stride, std::size_t count) {
    constexpr auto most = static_cast<float>(std::numeric_limits<Number>::max());
    auto* codes = static_cast<Number*>(to);
    for (std::size_t i = 0; i < count; ++i) {
        const float inside = from[i] > 0 ? std::min(from[i], 1.0F) : 0.0F;
        codes[static_cast<std::ptrdiff_t>(i) * stride] =
            static_cast<Number>(static_cast<std::uint32_t>(inside * most + 0.5F));
    }
}

constexpr SampleRow rows[] = {
    {4, read_floats, write_floats},
    {2, read_halves, write_halves},
    {1, read_codes<std::uint8_t>, write_codes<std::uint8_t>},
    {2, read_codes<std::uint16_t>, write_codes<std::uint16_t>},
};
static_assert(std::size(rows) == static_cast<std::size_t>(Sample::uint16) + 1);

} // namespace

const SampleRow& row_of(Sample sample) { return rows[static_cast<std::size_t>(sample)]; }

} // namespace kasuri::engine
