#pragma once
#include "image/image.hpp"

namespace kasuri::io {

/// The picture as it is to be seen: turned and mirrored as its attribute Orientation says (1 to 8, as TIFF 6.0 and Exif
/// have it), which is taken away. False: nothing was to be done.
bool make_upright(image::Image& image);

} // namespace kasuri::io
