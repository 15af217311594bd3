#pragma once
#include "colour/matrix3.hpp"

#include <span>
#include <string_view>

namespace kasuri::colour {

/// One row: a chromatic adaptation transform, a scaling of three cone-like responses.
struct Adaptation {
    std::string_view name;
    std::string_view doc;
    std::string_view source;
    Matrix3 cones; ///< of XYZ
};

/// All rows.
std::span<const Adaptation> adaptations();
extern const Adaptation& bradford;

/// XYZ under one white as XYZ under another that looks the same: each response scaled by the ratio of the whites'.
Matrix3 adaptation(const Adaptation& method, Chromaticity from, Chromaticity to);

} // namespace kasuri::colour
