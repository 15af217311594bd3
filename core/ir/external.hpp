#pragma once
#include <array>
#include <cstddef>
#include <string>

namespace kasuri::ir {

/// Three numbers to three numbers by code that is not ours: a conversion of a colour library. Safe to call from several
/// threads; the same numbers give the same results, whatever stands beside them. Lives as long as the process.
class External {
public:
    virtual ~External() = default;
    /// In place; the planes do not overlap. Never throws; what cannot be converted becomes NaN, never what came in.
    virtual void apply(float* const planes[3], std::size_t count) const = 0;
    /// Equal for conversions that give the same numbers, also in another run of the program.
    virtual std::string identity() const = 0;
};

/// One colour through it; it computes in floats.
inline std::array<double, 3> applied(const External& conversion, const double* x) {
    float r = static_cast<float>(x[0]), g = static_cast<float>(x[1]), b = static_cast<float>(x[2]);
    float* const planes[3] = {&r, &g, &b};
    conversion.apply(planes, 1);
    return {static_cast<double>(r), static_cast<double>(g), static_cast<double>(b)};
}

} // namespace kasuri::ir
