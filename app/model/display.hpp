#pragma once
#include "base/cancel.hpp"
#include "colour/space.hpp"
#include "image/image.hpp"
#include "model/lens.hpp"
#include "readings/view.hpp"

#include <QColor>
#include <QImage>
#include <QRect>

#include <array>
#include <cstdint>
#include <span>
#include <string>
#include <string_view>

namespace kasuri::app {

/// What happens to light that the screen cannot show.
enum class Limits {
    hard, ///< each channel is cut off at 0 and 1
    soft, ///< bright light bends towards 1 by the largest channel, what is still outside moves towards its own
          ///< luminance
};

/// A colour that is further than this (CIEDE2000) from what the paper can hold is outside.
inline constexpr float outside_print = static_cast<float>(colour::outside_print);

/// Mid grey: neither makes pictures look darker nor lighter than they are.
inline constexpr double usual_surround = 50;

/// One row: a surround that is offered by name; any other L* can be typed.
struct Surround {
    const char* title;
    double lightness;
};
std::span<const Surround> surrounds();

/// The screen that pictures are shown on, and how.
struct Screen {
    std::string space = "srgb"; ///< of colour::spaces()
    Limits limits = Limits::hard;
    double surround = usual_surround; ///< lightness L* of the neutral grey around pictures and behind transparent ones,
                                      ///< 0 .. 100 (diffuse white)

    friend bool operator==(const Screen&, const Screen&) = default;
};

/// 8-bit display code of linear light, by the sRGB encoding; what lies outside 0..1 shows as black or full.
std::uint8_t display_code(float linear);

/// A colour of a space as the screen shows it, by the sRGB encoding, cut off at its limits.
QColor colour_on_screen(const std::array<double, 3>& values, std::string_view space);

/// A picture brought to `width` x `height` by averaging what falls on each pixel (nearest where it is enlarged).
/// Colour is averaged weighted by alpha. What is NaN stays NaN. Of `region` alone, if it is not null: pixels of the
/// picture, inside it. What is made on demand is made band by band, each of its pixels once; the result is in memory.
/// Called off, it is of no use.
image::Picture downscaled(const image::Picture& picture, int width, int height, const QRect& region = {},
                          const CancelToken& cancel = {});

/// The picture through a lens, pixel by pixel. `outside`, if given, becomes the share of pixels that the screen cannot
/// show as they are: a channel below 0 or above 1, or no number. Lenses with an expression need `views`; those that
/// compare need `other`, of the same size.
QImage shown(const image::Picture& picture, const Lens& lens, const Screen& screen = {}, double* outside = nullptr,
             readings::Views* views = nullptr, const image::Picture* other = nullptr);

/// Light of the surround, diffuse white is 1: the inverse of L* (CIE 15:2018, equation 8.19 and following).
float surround_light(const Screen& screen);
/// The surround as that screen shows it, and black or white: what can be read on it.
QColor surround_colour(const Screen& screen);
QColor on_surround(const Screen& screen);

} // namespace kasuri::app
