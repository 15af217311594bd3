#pragma once
#include "handover/cube.hpp"

namespace kasuri::handover {

/// Reads a LUT's text as another program would, and puts into `file` how far that is from the rule: its errors, what is
/// clipped, whether a matrix is exact. Errors: it cannot be read, called off.
Status read_back(LutFile& file, const std::string& text, const std::string& ending, const Subject& subject,
                 const Baked& baked, bool delta_e, const CancelToken& cancel);

} // namespace kasuri::handover
