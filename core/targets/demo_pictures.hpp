#pragma once
#include "image/image.hpp"
#include "image/perspective.hpp"

namespace kasuri::targets {

image::Image demo_cloths(); ///< dyed cloth on a line, a river, a lantern above 1: R G B
image::Image demo_puppet(); ///< a rod puppet in layers with premultiplied alpha
/// The chart of 1976 as a camera saw it, askew, in lamplight: R G B, ends at 1.
image::Image demo_chart();
/// Where the outer corners of its patches lie in that picture, in pixels.
inline constexpr image::Corners demo_chart_corners = {{{170, 118}, {812, 74}, {846, 540}, {128, 496}}};
/// A lantern swings in front of a curtain, a loop of `demo_lantern_frames`: R G B, above 1 in the lantern.
image::Image demo_lantern(int frame);
inline constexpr int demo_lantern_frames = 24;

} // namespace kasuri::targets
