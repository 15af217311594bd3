#pragma once
#include "image/image.hpp"
#include "wire/message.hpp"

namespace kasuri::io {

/// What the header says besides the numbers: attributes, where the picture lies in its frame, channels of a depth of
/// their own. What is about the file as such (compression, tiles, its space) is left to the one that is written.
void keep_metadata(image::Image& image, const wire::Header& header);

/// Into the header of a file; what the format has no place for is left out. `windows`: whether it has one for where the
/// picture lies.
void write_metadata(wire::Header& header, const image::Image& image, bool windows);

} // namespace kasuri::io
