#pragma once
#include "io/ocio.hpp"

#include <string>
#include <vector>

namespace kasuri::io {

/// Spaces of a config that are worked out from each other, the first one again at the end; empty: there is no such
/// circle. The library follows one without end.
std::vector<std::string> circle_in(const OCIO::ConstConfigRcPtr& config);

} // namespace kasuri::io
