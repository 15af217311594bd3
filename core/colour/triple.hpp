#pragma once
#include <array>

namespace kasuri::colour {

/// Three numbers of one colour in double precision: r, g, b or a model's components.
using Triple = std::array<double, 3>;

} // namespace kasuri::colour
