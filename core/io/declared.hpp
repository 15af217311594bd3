#pragma once
#include "colour/space.hpp"
#include "wire/message.hpp"

#include <filesystem>
#include <functional>
#include <string>
#include <vector>

namespace kasuri::io {

/// What a picture file says that its numbers mean.
struct Declared {
    std::string space; ///< of colour::spaces()
    std::string how;   ///< how that is known, as a user reads it: "ICC profile \"...\"", "assumed"
    /// Where the file's own space is none of ours: its r, g, b to `space`, which is rec709-linear then.
    std::function<colour::Triple(const colour::Triple&)> convert{};
    std::vector<std::string> notes{}; ///< what the user should know
};

/// Asks, in this order: our own attribute, chunks of a PNG (cICP, iCCP, sRGB, gAMA), an ICC profile, an EXR's attribute
/// oiio:ColorSpace where the colour config knows that name, EXR chromaticities, the config's file rules; else what is
/// usual: srgb for whole numbers, rec709-linear for floats.
Declared declared_space(const std::filesystem::path& path, const wire::Header& header, bool whole_numbers);

/// Writes the same into the header of a file whose format is "png", "tiff", "jpeg" or "openexr". False if the format
/// has no words for it, and it is not what is usual.
bool declare_space(wire::Header& header, const std::string& space);

} // namespace kasuri::io
