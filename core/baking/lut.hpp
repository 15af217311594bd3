#pragma once
#include <array>
#include <vector>

namespace kasuri::baking {

/// A 3D table: size^3 colours, red fastest, over the same domain in every channel. With a shape its points stand closer
/// where values are low: evenly along log2(1 + shape * t), where t goes from 0 to 1 over the domain.
struct Lut {
    int size = 0;
    double low = 0;
    double high = 1;
    std::vector<std::array<float, 3>> colours;
    double shape = 0;
};

/// Where a value stands along an axis, from 0 to 1, and back. What lies outside the domain is brought inside.
double place_of(const Lut& lut, double value);
double value_at(const Lut& lut, double place);

/// The colour that the table gives, by either interpolation.
std::array<double, 3> trilinear(const Lut& lut, const std::array<double, 3>& rgb);
std::array<double, 3> tetrahedral(const Lut& lut, const std::array<double, 3>& rgb);

/// Three curves over the same domain, evenly spaced, read by linear interpolation.
struct Curves {
    double low = 0, high = 1;
    std::vector<std::array<float, 3>> points;
};
std::array<double, 3> read_curves(const Curves& curves, const std::array<double, 3>& rgb);

} // namespace kasuri::baking
