#pragma once
#include "pairing/pairing.hpp"

#include "image/image.hpp"

namespace kasuri::pairing {

/// A picture that pairs come from.
struct Shown {
    image::Picture picture;
    /// Of whole numbers: how near to 0 and 1 a number may be a clipped one; more where a lossy compression has spread
    /// it.
    double unsure_ends = 0;
};

/// One layer of a file, in the space that `options` or the file says; what is to be known of the file goes to `notes`.
Result<Shown> picture_from(const std::string& file, const PairingOptions& options, std::vector<std::string>& notes);

/// The same colours as numbers of another space; nothing changes where one of both is not known.
void bring_into(image::Picture& picture, const std::string& space);

/// The last part of a file's name.
std::string name_of(const std::string& file);

} // namespace kasuri::pairing
