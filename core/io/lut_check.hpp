#pragma once
#include "base/result.hpp"

#include <string>
#include <string_view>

namespace kasuri::io {

/// Whether a text may be handed to the library's reader of LUTs, which cannot be called off and opens what a file
/// names: no element that refers to another file (.ctf, .clf), and nothing missing where its reader waits for more
/// (.csp). `ending`: with its dot. `where`: what errors name as the place.
Status may_be_read_as_lut(std::string_view text, std::string_view ending, const std::string& where);

} // namespace kasuri::io
