#pragma once
#include "image/image.hpp"

#include <filesystem>
#include <span>
#include <string_view>

namespace kasuri::io {

/// One row: a kind of picture that is written, by the ending of its name.
struct PictureKind {
    std::string_view ending; ///< with its dot, in small letters
    std::string_view format; ///< the library's name of it
    bool (*holds)(image::Depth);
    image::Depth fallback; ///< of what it does not hold
    image::Alpha alpha;    ///< how it stores alpha; none: it has no place for it
    bool layers = false;   ///< any number of channels, of any names; else r, g, b and alpha of one layer
    bool exact = true;     ///< what is read is what was written, bit for bit
    bool negative = true;  ///< of floats: what is below 0 stays so
};

/// All kinds, one row for each ending.
std::span<const PictureKind> picture_kinds();
/// By the ending of the name; null: it is none of them.
const PictureKind* picture_kind(const std::filesystem::path& path);

} // namespace kasuri::io
