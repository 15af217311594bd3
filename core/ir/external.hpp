#pragma once
#include <cstddef>

namespace kasuri::ir {

/// Three numbers to three numbers by code that is not ours: a conversion of a colour library. Safe to call from several threads;
/// the same numbers give the same results, whatever stands beside them. Lives as long as the process.
class External {
public:
    virtual ~External() = default;
    /// In place; the planes do not overlap. Never throws.
    virtual void apply(float* const planes[3], std::size_t count) const = 0;
};

} // namespace kasuri::ir
