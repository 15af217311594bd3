#pragma once
#include "base/result.hpp"
#include "ir/external.hpp"

#include <array>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::io {

/// A table of r, g, b over 0 to 1 as an ICC device link (ICC.1, class link, lut16Type; version 2.4, which every reader
/// knows): its bytes. `table`: size^3 colours, red fastest; what is outside of 0 to 1 is cut off. `words`: what stands
/// in its description. Errors: there is no memory.
Result<std::string> icc_link(int size, const std::vector<std::array<float, 3>>& table, const std::string& title,
                             const std::vector<std::string>& words);

/// What a device link of r, g, b makes of colours, by Little CMS (tetrahedrally), or by its table read trilinearly. The
/// error: it is none.
Result<std::unique_ptr<const ir::External>> read_icc_link(const std::string& bytes, bool trilinear);

} // namespace kasuri::io
