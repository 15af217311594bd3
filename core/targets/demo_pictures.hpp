#pragma once
#include "image/image.hpp"

namespace kasuri::targets {

image::Image demo_cloths(); ///< dyed cloth on a line, a river, a lantern above 1: R G B
image::Image demo_puppet(); ///< a rod puppet in layers with premultiplied alpha

} // namespace kasuri::targets
