#pragma once
#include "base/cancel.hpp"
#include "ir/graph.hpp"

namespace kasuri::engine {

/// How many pixels away a neighbourhood of `size` pixels looks.
int reach(ir::Neighbour kind, double size);

/// Runs a neighbourhood filter over a plane of width * height floats; what lies outside is the nearest edge pixel.
/// `to` must not be `from`. Returns false if cancelled.
///
/// blur: convolution with a Gaussian of standard deviation `size` pixels, both ways. Below 3.5 pixels directly. Above
/// that in three parts whose variances add up: a Gaussian of D = size / 1.75 pixels, kept at every Dth pixel; the
/// rest on that small picture; a Gaussian of D pixels that fills the gaps. Nothing of what the gaps could alias
/// survives (below 2e-6 in all), so the time does not depend on the size. Kernels end where 2e-5 of their weight is
/// left (4e-6 up to 8 pixels).
/// dilate, erode: largest or smallest value among the pixels whose centres lie within `size` pixels.
/// A size of 0 or less changes nothing; a NaN size gives NaN.
bool filter_neighbourhood(ir::Neighbour kind, double size, int width, int height, const float* from, float* to,
                          const CancelToken& cancel);

} // namespace kasuri::engine
