#pragma once
#include "image/image.hpp"

#include <QImage>

#include <array>
#include <cstdint>
#include <span>
#include <string_view>

namespace kasuri::app {

/// The picture surround: L* 50, as display code value.
inline constexpr int surround_code = 0x77;

/// 8-bit display code of linear light, by the sRGB encoding; what lies outside 0..1 shows as black or full.
std::uint8_t display_code(float linear);

/// One row: what a cell shows of its pixels.
struct Lens {
    std::string_view id;
    std::string_view title;
    std::string_view doc;
    /// Linear light to show for a straight pixel whose r, g, b are linear already.
    /// Single numbers are shown as a neutral grey, opaque.
    std::array<float, 3> (*shown)(const std::array<float, 4>& linear, const std::array<float, 4>& stored);
};

std::span<const Lens> lenses();
const Lens& lens(std::string_view id); ///< the first one if there is no such lens

/// A picture brought to `width` x `height` by averaging what falls on each pixel (nearest where it is enlarged).
/// Colour is averaged weighted by alpha. What is NaN stays NaN.
image::Picture reduced(const image::Picture& picture, int width, int height);

/// The picture through a lens, pixel by pixel.
QImage shown(const image::Picture& picture, const Lens& lens);

} // namespace kasuri::app
