#pragma once
#include "document/look_file.hpp"
#include "fit/fit.hpp"

namespace kasuri::pairing {

/// A rule, and a table for what it leaves.
struct RestLook {
    document::Look look;     ///< two steps: the rule, and the table as a LUT in the numbers of the pairs
    fit::Errors errors;      ///< of both together, measured on what is written
    std::size_t numbers = 0; ///< that the table holds
};

/// `points` an axis, 2 to 65. Of pairs that were not fitted by the rule none is kept back here: the errors say how near
/// the table is to what it was made of. Errors: of fit::rest_of.
Result<RestLook> with_rest(const fit::Candidate& candidate, const fit::Pairs& pairs, int points,
                           const CancelToken& cancel = {});

} // namespace kasuri::pairing
