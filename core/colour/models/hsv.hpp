#pragma once
#include "colour/model.hpp"

namespace kasuri::colour {

/// Hue (degrees), saturation and value. v is the largest channel, s = (v - smallest) / v.
/// Outside 0..1 the same formulas go on: a negative channel gives s > 1, a negative v gives s < 0, and both
/// come back. Where |v| < hsv_tiny but the channels differ, v is taken as hsv_tiny, so that s stays finite
/// and the way back still holds. A neutral colour has h = 0 and s = 0. NaN in any channel makes all three NaN.
extern const Model hsv_model;

inline constexpr double hsv_tiny = 1e-20;

} // namespace kasuri::colour
