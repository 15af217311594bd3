#pragma once
#include "image/image.hpp"
#include "io/picture_kinds.hpp"
#include "io/picture_process.hpp"

#include <cstdint>
#include <string>
#include <vector>

namespace kasuri::io {

/// More than this is refused: no picture of this trade is larger, and a broken header can claim anything.
inline constexpr std::uint64_t max_values = std::uint64_t{1} << 31;

/// "A" or "alpha", in any letters, of any layer.
bool is_alpha_name(std::string_view name);

/// The depth of a picture of such a header: that of all its channels that are one, or the one that holds them all.
image::Depth picture_depth(const wire::Header& header);

/// The channels of the part that is next, behind those that `image` has. Numbers that name something go to its `ids`.
Status read_channels(PictureSource& source, image::Image& image);

/// Further parts of an EXR: those as large as the first are layers of their names, others are kept as they came. Pages
/// of other kinds are left out; a note says so.
Status read_further_parts(PictureSource& source, image::Image& image);

/// A part of a file that is written, and where its numbers come from.
struct PartToWrite {
    wire::Header header;
    std::vector<const image::Channel*> channels;
};

/// The parts of the file that is made of `image`, which they point into: as it came, where the kind has parts, else
/// one. `base`: format, size, depth and attributes of the first. `exact` becomes false where they are compressed with
/// loss.
std::vector<PartToWrite> parts_to_write(const image::Image& image, const wire::Header& base, bool& exact);

} // namespace kasuri::io
