#pragma once
#include "oiio.hpp"
#include "wire/message.hpp"

namespace kasuri::helpers {

/// What a file says, in our words; `rows`: how many are best read at a time.
wire::Header header_of(const OIIO::ImageInput& input, const OIIO::ImageSpec& spec);

/// The same in the library's words, for a file that is written.
OIIO::ImageSpec spec_of(const wire::Header& header);

} // namespace kasuri::helpers
