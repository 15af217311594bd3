#pragma once
#include "lang/rule.hpp"

#include <array>
#include <span>
#include <vector>

namespace kasuri::engine {

/// One pixel as a rule sees it, in double precision.
struct ReferencePixel {
    std::array<double, 4> rgba = {0, 0, 0, 1};
    std::array<double, 2> pixel = {0, 0};
    std::array<double, 2> pos = {0.5, 0.5};
    double aspect = 1;
    std::array<double, 2> extent = {1, 1};
    std::vector<double> sources{}; ///< channels of further pictures, in the order of the rule
};

/// The truth that the fast path is held to: walks the typed tree in double precision with the reference
/// functions of the builtin rows. Shares no code with lowering, rewrites, scheduling, kernels or passes.
/// Returns the four components of out, in the rule's working space. A pixel by itself is its own neighbourhood.
std::array<double, 4> reference(const lang::Rule& rule, std::span<const double> parameters, const ReferencePixel& pixel);

/// The components of the rule's print expression.
std::vector<double> reference_print(const lang::Rule& rule, std::span<const double> parameters, const ReferencePixel& pixel);

/// A whole picture, with neighbourhoods: pixels row by row, width * height of them. Exact and slow: a blur is the
/// full convolution, a disc is looked through pixel by pixel. `largest`, if given, becomes for every pixel the largest
/// size of any value on the way: rounding is in proportion to it.
std::vector<std::array<double, 4>> reference_picture(const lang::Rule& rule, std::span<const double> parameters, int width,
                                                     std::span<const ReferencePixel> pixels, std::vector<double>* largest = nullptr);

} // namespace kasuri::engine
