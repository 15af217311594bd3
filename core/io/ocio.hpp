#pragma once
// OpenColorIO's header hides names of its own.
#if defined(__GNUC__)
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wshadow"
#endif
#include <OpenColorIO/OpenColorIO.h>
#if defined(__GNUC__)
#pragma GCC diagnostic pop
#endif

#include <algorithm>
#include <cstddef>
#include <limits>

namespace OCIO = OCIO_NAMESPACE;

namespace kasuri::io {

/// What stands for colours that the library could not convert.
inline void fill_with_nan(float* const planes[3], std::size_t count) {
    for (int c = 0; c < 3; ++c)
        std::fill_n(planes[c], count, std::numeric_limits<float>::quiet_NaN());
}

} // namespace kasuri::io
