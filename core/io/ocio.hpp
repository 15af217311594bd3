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

namespace OCIO = OCIO_NAMESPACE;
