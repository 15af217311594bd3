#pragma once
#include "fit/model.hpp"

namespace kasuri::fit {

/// Six digits in a file, and what single precision makes of a wide space: differences that are as good as none.
inline constexpr double exact = 1e-5;

struct Solution {
    std::vector<double> values;
    double rms =
        0; ///< of all channels of all pairs, by weight; with a loss that bears outliers, of what it let through
    double scale = 0; ///< how large differences usually are: 1.4826 times their median
};

/// The values with the least sum of squared differences from what came out, by Levenberg and Marquardt's method (Moré,
/// The Levenberg-Marquardt Algorithm, 1978; MINPACK's lmder, as Eigen has it). Where the pairs are noisy, pairs count
/// the less the farther they are off: Cauchy's loss with 2.3849 times the scale, by weighting anew until that settles
/// (P. W. Holland, R. E. Welsch, Robust regression using iteratively reweighted least-squares, 1977; constant from
/// memory). Nothing if it was called off, or if no finite difference came out of the start.
///
/// What the pairs say nothing of (a knot where no colour is) stays where it is usual: each value is one more
/// difference, of its distance from `usual`'s start in usual ranges, counting as much as one measured one does. It
/// moves what is known by nothing that can be measured. `pull`: what one measured difference is known to, at least, for
/// that: more where a rule has several ways to say the same (a statement behind it takes back what numbers do).
std::optional<Solution> least_squares(const Model& model, const Pairs& pairs, std::span<const Value> usual,
                                      std::vector<double> start, const CancelToken& cancel, double pull = exact);

} // namespace kasuri::fit
