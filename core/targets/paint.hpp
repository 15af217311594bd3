#pragma once
// Small tools of the demo painter: soft edges, repeatable noise, mixing of linear light.
#include "colour/triple.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>

namespace kasuri::targets::paint {

using colour::Triple;

/// a (1 - share) + b share, component by component.
inline Triple mixed(const Triple& a, const Triple& b, double share) {
    return {a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share};
}
/// Component by component.
inline Triple times(const Triple& a, double factor) { return {a[0] * factor, a[1] * factor, a[2] * factor}; }
inline Triple plus(const Triple& a, const Triple& b) { return {a[0] + b[0], a[1] + b[1], a[2] + b[2]}; }

/// 0 below low, 1 above high, smooth between.
inline double soft(double low, double high, double x) {
    const double t = std::clamp((x - low) / (high - low), 0.0, 1.0);
    return t * t * (3 - 2 * t);
}

/// Repeatable pseudo-random number in 0..1 of a lattice point.
inline double hash(std::int64_t x, std::int64_t y, std::uint64_t seed) {
    std::uint64_t h = static_cast<std::uint64_t>(x) * 0x9E3779B97F4A7C15ULL ^
        static_cast<std::uint64_t>(y) * 0xC2B2AE3D27D4EB4FULL ^ seed * 0x165667B19E3779F9ULL;
    h ^= h >> 29;
    h *= 0xBF58476D1CE4E5B9ULL;
    h ^= h >> 32;
    return static_cast<double>(h >> 11) * 0x1p-53;
}

/// Smooth noise in 0..1 with one bump a unit.
inline double noise(double x, double y, std::uint64_t seed) {
    const double fx = std::floor(x), fy = std::floor(y);
    const auto ix = static_cast<std::int64_t>(fx), iy = static_cast<std::int64_t>(fy);
    const double u = soft(0, 1, x - fx), v = soft(0, 1, y - fy);
    const double top = hash(ix, iy, seed) * (1 - u) + hash(ix + 1, iy, seed) * u;
    const double bottom = hash(ix, iy + 1, seed) * (1 - u) + hash(ix + 1, iy + 1, seed) * u;
    return top * (1 - v) + bottom * v;
}

/// Four octaves of noise, 0..1.
inline double cloud(double x, double y, std::uint64_t seed) {
    double sum = 0, weight = 0.5333;
    for (int octave = 0; octave < 4; ++octave) {
        sum += weight * noise(x, y, seed + static_cast<std::uint64_t>(octave));
        x *= 2.03;
        y *= 2.03;
        weight *= 0.5;
    }
    return sum;
}

} // namespace kasuri::targets::paint
