#pragma once
#include "fit/fit.hpp"

namespace kasuri::fit {

/// Where a rule is off, colour by colour.
struct Residual {
    std::vector<std::array<double, 3>> wanted, made; ///< L*a*b* under D65
    std::vector<std::array<float, 3>> light;         ///< of what was wanted: linear BT.709
    std::vector<double> delta_e;                     ///< CIEDE2000
};

/// Of at most `most` pairs, evenly taken. Errors: it was called off.
Result<Residual> residual_of(const Candidate& candidate, const Pairs& pairs, std::size_t most,
                             const CancelToken& cancel = {});

} // namespace kasuri::fit
