#pragma once
#include "image/image.hpp"

namespace kasuri::io {

/// The picture at another size, each channel by a triangle filter as wide as a pixel of the smaller of both sizes:
/// between pixels when it grows, a weighted mean when it shrinks, nothing beyond the values there are. Edges stay edges
/// of the picture. Throws std::bad_alloc if the process that does it cannot (io/helper.hpp): then there is no memory.
image::Picture stretched(const image::Picture& picture, int width, int height);

} // namespace kasuri::io
