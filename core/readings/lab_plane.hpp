#pragma once
#include "readings/plot.hpp"

#include <string_view>

namespace kasuri::readings {

/// A plane on which neutral colours lie in the middle.
struct PlaneModel {
    std::string_view title, a, b;
    std::string_view expression; ///< of linear light: the two coordinates
    double reach;                ///< of the axes
};
inline constexpr PlaneModel plane_models[] = {
    {"L*a*b*", "a*", "b*", "lab(rgb).ab", 120},
    {"OKLab", "a", "b", "oklab(rgb).ab", 0.4},
};

/// Its axes, with circles of equal chroma.
Panel plane_panel(const PlaneModel& model, double zoom);

} // namespace kasuri::readings
