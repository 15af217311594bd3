#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "image/image.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::io {

/// Reads, in a process of its own (io/helper.hpp), a PNG, TIFF or EXR (and what else OpenImageIO reads) with all its
/// channels, as float, numbers as stored: alpha is neither multiplied in nor divided out. The space is what the file
/// says (io/declared.hpp), or `space` if that is not empty; numbers of a space that is none of ours are converted to
/// rec709-linear, and a note says so. Never throws. Further parts of an EXR are layers of their names, if they are as
/// large; a note says what was left out.
Result<image::Image> load(const std::filesystem::path& path, const std::string& space = {});

/// What a file says of how it was made (`image::Image::made`); empty: nothing, or it cannot be read.
std::string made_by(const std::filesystem::path& path);

/// Endings that `save` writes, with the dot.
const std::vector<std::string>& writable_endings();

/// The space for a picture made from one of `space` and written with this ending: the same where both hold whole
/// numbers, or both floats; else what is usual for the ending. `depth`: of the picture that was read; `wanted`: to be
/// written, if it was asked for.
std::string space_of_ending(const std::filesystem::path& path, image::Depth depth, const std::string& space,
                            std::optional<image::Depth> wanted = {});

/// Why a file of this ending cannot hold numbers of this depth; nothing if it can.
std::optional<Error> refused_depth(const std::filesystem::path& path, image::Depth depth);

/// How often numbers did not fit into the file's depth.
struct SaveReport {
    std::size_t clipped = 0;          ///< channel values outside 0..1 in a whole-number file
    std::size_t not_finite = 0;       ///< NaN or infinite values in a whole-number file (NaN is written as 0)
    std::vector<std::string> notes{}; ///< what should be known: of the file that was read before, and of this one
};

/// Writes by the ending of `path`, whole or not at all. PNG holds 8 or 16 bits, TIFF also float, EXR half or
/// float; a depth that the ending cannot hold becomes the nearest larger one it can. EXR wants premultiplied
/// alpha and PNG straight: what does not fit is converted. Attributes and windows of the picture are written where the
/// format has a place for them.
Result<SaveReport> save(const std::filesystem::path& path, const image::Image& image);

} // namespace kasuri::io
