#include "baking/lut.hpp"

#include <algorithm>
#include <cmath>
#include <cstddef>

namespace kasuri::baking {

using Rgb = std::array<double, 3>;

namespace {

/// Cell and place in it of a colour.
struct Located {
    std::array<int, 3> cell{};
    Rgb into{};
};

Located locate(const Lut& lut, const Rgb& rgb) {
    Located place;
    for (std::size_t i = 0; i < 3; ++i) {
        const double at = place_of(lut, rgb[i]) * (lut.size - 1);
        place.cell[i] = std::min(static_cast<int>(at), lut.size - 2);
        place.into[i] = at - place.cell[i];
    }
    return place;
}

const std::array<float, 3>& corner(const Lut& lut, const std::array<int, 3>& cell, int r, int g, int b) {
    const auto at = [](int i) { return static_cast<std::size_t>(i); };
    return lut.colours[(at(cell[2] + b) * at(lut.size) + at(cell[1] + g)) * at(lut.size) + at(cell[0] + r)];
}

} // namespace

double place_of(const Lut& lut, double value) {
    const double t = std::clamp((value - lut.low) / (lut.high - lut.low), 0.0, 1.0);
    return lut.shape > 0 ? std::log2(1 + lut.shape * t) / std::log2(1 + lut.shape) : t;
}

double value_at(const Lut& lut, double place) {
    const double t = lut.shape > 0 ? (std::exp2(place * std::log2(1 + lut.shape)) - 1) / lut.shape : place;
    return lut.low + (lut.high - lut.low) * t;
}

Rgb trilinear(const Lut& lut, const Rgb& rgb) {
    const Located p = locate(lut, rgb);
    Rgb sum{};
    for (int k = 0; k < 8; ++k) {
        const int r = k & 1, g = k >> 1 & 1, b = k >> 2;
        const double weight =
            (r ? p.into[0] : 1 - p.into[0]) * (g ? p.into[1] : 1 - p.into[1]) * (b ? p.into[2] : 1 - p.into[2]);
        const auto& colour = corner(lut, p.cell, r, g, b);
        for (std::size_t i = 0; i < 3; ++i)
            sum[i] += weight * static_cast<double>(colour[i]);
    }
    return sum;
}

/// Walks from the low to the high corner of the cell along its axes, largest fraction first: the six
/// tetrahedra around the neutral diagonal (J. M. Kasson et al., J. Electronic Imaging 4 (3), 1995).
Rgb tetrahedral(const Lut& lut, const Rgb& rgb) {
    const Located p = locate(lut, rgb);
    std::array<std::size_t, 3> order = {0, 1, 2};
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return p.into[a] > p.into[b]; });
    std::array<int, 3> at = {0, 0, 0};
    Rgb sum{};
    double before = 1;
    for (std::size_t step = 0; step <= 3; ++step) {
        const double after = step < 3 ? p.into[order[step]] : 0;
        const auto& colour = corner(lut, p.cell, at[0], at[1], at[2]);
        for (std::size_t i = 0; i < 3; ++i)
            sum[i] += (before - after) * static_cast<double>(colour[i]);
        before = after;
        if (step < 3)
            at[order[step]] = 1;
    }
    return sum;
}

Rgb read_curves(const Curves& curves, const Rgb& rgb) {
    Rgb made{};
    const std::size_t last = curves.points.size() - 1;
    for (std::size_t c = 0; c < 3; ++c) {
        const double at =
            std::clamp((rgb[c] - curves.low) / (curves.high - curves.low), 0.0, 1.0) * static_cast<double>(last);
        const std::size_t cell = std::min(static_cast<std::size_t>(at), last - 1);
        const double into = at - static_cast<double>(cell);
        made[c] = static_cast<double>(curves.points[cell][c]) * (1 - into) +
            static_cast<double>(curves.points[cell + 1][c]) * into;
    }
    return made;
}

} // namespace kasuri::baking
