#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "image/image.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::io {

/// Reads a PNG, TIFF or EXR (and what else OpenImageIO reads) with all its channels, as float, numbers as
/// stored: alpha is neither multiplied in nor divided out. `space` is srgb for whole-number files that do not
/// say they are linear, rec709-linear for float files. Never throws.
Result<image::Image> load(const std::filesystem::path& path);

/// Endings that `save` writes, with the dot.
const std::vector<std::string>& writable_endings();

/// What a file of this ending holds: the space that `save` expects the image to be in.
std::string space_of_ending(const std::filesystem::path& path, image::Depth depth);

/// How often numbers did not fit into the file's depth.
struct SaveReport {
    std::size_t clipped = 0;    ///< channel values outside 0..1 in a whole-number file
    std::size_t not_finite = 0; ///< NaN or infinite values in a whole-number file (NaN is written as 0)
};

/// Writes by the ending of `path`, whole or not at all. PNG holds 8 or 16 bits, TIFF also float, EXR half or
/// float; a depth that the ending cannot hold becomes the nearest larger one it can. EXR wants premultiplied
/// alpha and PNG straight: what does not fit is converted.
Result<SaveReport> save(const std::filesystem::path& path, const image::Image& image);

} // namespace kasuri::io
