#pragma once
#include "base/cancel.hpp"

namespace kasuri::engine {

/// The blur of neighbourhood.hpp where its standard deviation is not less than width and height: what lies outside of
/// the picture is its edge, and the weights between its pixels are a short series about its middle. Costs the same
/// however large `sigma` is. `radius`: standard deviations after which the kernel ends. False if called off.
bool wide_blur(double sigma, double radius, int width, int height, const float* from, float* to,
               const CancelToken& cancel);

} // namespace kasuri::engine
