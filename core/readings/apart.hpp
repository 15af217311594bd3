#pragma once
#include "base/cancel.hpp"
#include "image/image.hpp"

#include <cstddef>
#include <optional>

namespace kasuri::readings {

/// How far two pictures are apart for the eye: CIEDE2000 between pixels of the same place.
struct Apart {
    double mean = 0, most = 0, largest = 0; ///< most: the 99.9th percentile
    std::size_t pixels = 0;                 ///< that count: those whose difference is a number
};

/// Each picture is taken in its own space. Nothing if they are not of one size, no pixel counts, or it is called off.
/// Source: G. Sharma, W. Wu, E. N. Dalal, Color Research and Application 30 (1), 2005; L*a*b* under D65.
std::optional<Apart> seen_apart(const image::Picture& first, const image::Picture& second,
                                const CancelToken& cancel = {});

} // namespace kasuri::readings
