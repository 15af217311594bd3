#pragma once
#include "fit/fit.hpp"

namespace kasuri::fit {

/// What came out, in CIELAB, kept for many comparisons; `pairs` must outlive it.
class Truth {
public:
    explicit Truth(const Pairs& pairs);
    /// How far `made` is from it.
    Errors errors_of(const Planes& made) const;

private:
    const Pairs& pairs_;
    std::vector<std::size_t> picked_; ///< of which CIEDE2000 is measured
    std::vector<std::array<double, 3>> lab_;
};

} // namespace kasuri::fit
