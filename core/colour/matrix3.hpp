#pragma once
#include "colour/triple.hpp"

namespace kasuri::colour {

/// 3x3 matrix by rows: one row per output.
using Matrix3 = std::array<Triple, 3>;

/// The matrix times the column x.
inline Triple operator*(const Matrix3& m, const Triple& x) {
    return {m[0][0] * x[0] + m[0][1] * x[1] + m[0][2] * x[2], m[1][0] * x[0] + m[1][1] * x[1] + m[1][2] * x[2],
            m[2][0] * x[0] + m[2][1] * x[1] + m[2][2] * x[2]};
}

/// a b: b is applied first.
Matrix3 times(const Matrix3& a, const Matrix3& b);

/// Of the volume of colours; 0: a dimension is lost.
double determinant(const Matrix3& m);

/// By cofactors; infinite or NaN entries where the determinant is 0.
Matrix3 inverse(const Matrix3& m);

/// Chromaticity coordinates x, y (CIE 1931).
struct Chromaticity {
    double x = 0;
    double y = 0;
};

/// Linear RGB to XYZ with Y = 1 for white (SMPTE RP 177-1993, section 3.3).
Matrix3 rgb_to_xyz(const std::array<Chromaticity, 3>& primaries, Chromaticity white);

/// ITU-R BT.709-6, items 1.3 and 1.4.
inline constexpr std::array<Chromaticity, 3> rec709_primaries = {{{0.64, 0.33}, {0.30, 0.60}, {0.15, 0.06}}};
inline constexpr Chromaticity d65 = {0.3127, 0.3290};

} // namespace kasuri::colour
