#pragma once
#include "baking/bake.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace kasuri::handover {

using baking::Baked;
using baking::LutError;
using subject::Subject;

/// Writes a LUT by its ending: `.cube` (Cube LUT Specification 1.0; curves as a 1D table), `.clf` with exact matrix and
/// curves where there are some, and what else OpenColorIO bakes. Space, domain, values and errors stand in the file
/// where the format has a place for words.
Status write_lut(const std::filesystem::path& path, const Subject& subject, const Baked& baked);
/// Endings that can be written, with their dots.
std::vector<std::string> lut_endings();

/// Writes a .cube file with the space, the domain and the error in comments. `as_curves`: one of three curves.
Status write_cube(const std::filesystem::path& path, const Subject& subject, const Baked& baked,
                  bool as_curves = false);

} // namespace kasuri::handover
