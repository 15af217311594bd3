#pragma once
#include "image/image.hpp"

namespace kasuri::targets {

image::Image demo_cloths(); ///< dyed cloth on a line, a river, a lantern above 1: R G B
image::Image demo_puppet(); ///< a rod puppet in layers with premultiplied alpha
/// A lantern swings in front of a curtain, a loop of `demo_lantern_frames`: R G B, above 1 in the lantern.
image::Image demo_lantern(int frame);
inline constexpr int demo_lantern_frames = 24;

} // namespace kasuri::targets
