#pragma once
#include "fit/pairs.hpp"

namespace kasuri::fit {

/// What a rule leaves, as a table over its results: three numbers a point, the first axis fastest.
struct Rest {
    int points = 0;
    double low = 0, high = 1; ///< of every axis
    std::vector<float> table{};
};

/// The table of `points` an axis that brings what a rule made (`made`, for every pair) to what came out: tetrahedral
/// interpolation, least squares of the differences and of how far the table bends (second differences of neighbours),
/// so that places where no colour is go on as those around them do. How much bending counts is chosen on pairs that are
/// left out; noisy pairs count the less the farther they are off, as in least_squares. Solved by conjugate gradients
/// (Eigen). Errors: called off, `points` is not 2 to 65.
Result<Rest> rest_of(const Planes& made, const Pairs& pairs, int points, const CancelToken& cancel = {});

/// What the table makes of colours, at double precision; outside its axes as at their ends.
Planes applied(const Rest& rest, const Planes& colours);

} // namespace kasuri::fit
