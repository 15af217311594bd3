#pragma once
#include "image/image.hpp"

#include <QImage>

#include <array>
#include <cstdint>
#include <span>
#include <string>
#include <string_view>

namespace kasuri::app {

/// The picture surround: L* 50, as display code value.
inline constexpr int surround_code = 0x77;

/// What happens to light that the screen cannot show.
enum class Limits {
    hard, ///< each channel is cut off at 0 and 1
    soft, ///< bright light bends towards 1 by the largest channel, what is still outside moves towards its own luminance
};

/// The screen that pictures are shown on, and how.
struct Screen {
    std::string space = "srgb"; ///< of colour::spaces()
    Limits limits = Limits::hard;

    friend bool operator==(const Screen&, const Screen&) = default;
};

/// 8-bit display code of linear light, by the sRGB encoding; what lies outside 0..1 shows as black or full.
std::uint8_t display_code(float linear);

/// A pixel as lenses see it: straight, in linear light of BT.709, as stored, and in linear light of the screen.
struct LensPixel {
    std::array<float, 4> light, stored, screen;
    int x = 0, y = 0; ///< on the screen
};

/// One row: what a cell shows of its pixels.
struct Lens {
    std::string_view id;
    std::string_view title;
    std::string_view doc;
    /// Light to show: of the screen's primaries. Single numbers are shown as a neutral grey, opaque.
    std::array<float, 3> (*shown)(const LensPixel& pixel);
};

std::span<const Lens> lenses();
const Lens& lens(std::string_view id); ///< the first one if there is no such lens

/// A picture brought to `width` x `height` by averaging what falls on each pixel (nearest where it is enlarged).
/// Colour is averaged weighted by alpha. What is NaN stays NaN.
image::Picture reduced(const image::Picture& picture, int width, int height);

/// The picture through a lens, pixel by pixel. `outside`, if given, becomes the share of pixels that the screen cannot show as
/// they are: a channel below 0 or above 1, or no number.
QImage shown(const image::Picture& picture, const Lens& lens, const Screen& screen = {}, double* outside = nullptr);

} // namespace kasuri::app
