#pragma once
#include "oiio.hpp"

#include <memory>
#include <string>

namespace kasuri::helpers {

/// Portable pixmaps of 16 bits (Netpbm's P5 and P6 with a maximum above 255) and of floats (PF and Pf), as the picture
/// library's readers and writers are: it reads white of 16 bits as 65534, writes them as 8, and has no writer for
/// floats. Null: the file is none of these.
std::unique_ptr<OIIO::ImageInput> open_portable(const std::string& path);
/// `spec`: one or three channels, of whole numbers or of floats.
std::unique_ptr<OIIO::ImageOutput> make_portable();

} // namespace kasuri::helpers
