#pragma once
#include "insight/affine.hpp"

#include <array>
#include <span>
#include <vector>

namespace kasuri::insight {

/// "This colour shall become that colour."
struct Wish {
    std::array<double, 3> from{}, to{};
};

struct SolveOptions {
    bool offset = false;   ///< also a constant for each channel
    bool rows_sum = false; ///< each row sums to 1, greys stay grey (an offset is then 0)
    /// Every colour keeps the weighted sum of its channels: the weights of luminance; all 0: nothing is kept.
    std::array<double, 3> keep{};
};

struct Solved {
    Affine map;
    std::vector<double> residuals; ///< of each wish: distance between what comes and what was wished
    double largest = 0;
    double rms = 0;
};

/// The weights that come nearest to the wishes: least squares over all of them, within what the options demand exactly.
/// Where the wishes leave something open, as little as possible is changed (the least sum of squares away from the
/// identity). Weights are rounded to 12 decimals. Source: least squares with linear equality constraints by the null
/// space method, G. Golub, C. Van Loan, Matrix Computations, 4th ed., 6.2 (from memory).
Solved solve(std::span<const Wish> wishes, const SolveOptions& options = {});

} // namespace kasuri::insight
