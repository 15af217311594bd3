#pragma once
#include "subject/subject.hpp"

#include <cstddef>
#include <optional>
#include <string_view>

namespace kasuri::handover {

/// What single precision costs a rule: how far a channel can come out from double precision, as a share of the largest
/// number that comes in or goes out where that is above 1.
struct Precision {
    double inside = 0;       ///< on colours from 0 to 1
    double wide = 0;         ///< on colours from -1 to 4
    std::size_t colours = 0; ///< of each
};

/// The operations of the subject between these spaces (empty: its own), at its values, in double precision beside the
/// same with every result moved at random by as much as single precision may round it (Monte Carlo arithmetic, Parker
/// 1997): sums, products and what is built
/// of them by half a last digit, quotients and roots by 2, functions by 4 (Vulkan 1.3, "Precision and Operation of
/// SPIR-V Instructions", allows 2.5 for quotients and 3 + 2 |x| for exp2; for sin, cos and atan it allows more than
/// cards do). Where a rule jumps, it may jump at another colour: then this is the height of the jump. The colours are
/// drawn at random, always the same, a quarter of them greys or nearly so. Nothing for what reads the place or looks at
/// neighbours.
std::optional<Precision> single_precision(const subject::Subject& subject, std::string_view in_space,
                                          std::string_view out_space);

} // namespace kasuri::handover
