#pragma once
#include "image/image.hpp"
#include "targets/target.hpp"

#include <optional>
#include <string>

namespace kasuri::report {

/// A picture as an sRGB PNG in a data: address, cut off at its limits. At most `width` pixels wide: larger ones are
/// made smaller by leaving pixels out after averaging blocks.
std::string png_address(const image::Picture& picture, int width);

/// The r, g and b of rows of values as lines over a plot of `width` x `height` (SVG). Faint: what was before.
std::string threads_svg(const image::Picture& before, const image::Picture& after, int width, int height, double low,
                        double high, targets::Scale scale);

/// Text that means itself in HTML.
std::string escaped(const std::string& text);

} // namespace kasuri::report
