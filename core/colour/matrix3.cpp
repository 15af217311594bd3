#include "colour/matrix3.hpp"

namespace kasuri::colour {

Matrix3 times(const Matrix3& a, const Matrix3& b) {
    Matrix3 product{};
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j)
            product[i][j] = a[i][0] * b[0][j] + a[i][1] * b[1][j] + a[i][2] * b[2][j];
    return product;
}

double determinant(const Matrix3& m) {
    return m[0][0] * (m[1][1] * m[2][2] - m[1][2] * m[2][1]) - m[0][1] * (m[1][0] * m[2][2] - m[1][2] * m[2][0]) +
        m[0][2] * (m[1][0] * m[2][1] - m[1][1] * m[2][0]);
}

Matrix3 inverse(const Matrix3& m) {
    const double scale = 1 / determinant(m);
    Matrix3 result{};
    for (int row = 0; row < 3; ++row)
        for (int column = 0; column < 3; ++column) {
            const int r0 = (column + 1) % 3, r1 = (column + 2) % 3;
            const int c0 = (row + 1) % 3, c1 = (row + 2) % 3;
            result[row][column] = (m[r0][c0] * m[r1][c1] - m[r0][c1] * m[r1][c0]) * scale;
        }
    return result;
}

Matrix3 rgb_to_xyz(const std::array<Chromaticity, 3>& primaries, Chromaticity white) {
    Matrix3 columns{};
    for (int i = 0; i < 3; ++i) {
        columns[0][i] = primaries[i].x / primaries[i].y;
        columns[1][i] = 1;
        columns[2][i] = (1 - primaries[i].x - primaries[i].y) / primaries[i].y;
    }
    const Triple amounts = inverse(columns) * Triple{white.x / white.y, 1, (1 - white.x - white.y) / white.y};
    for (Triple& row : columns)
        for (int i = 0; i < 3; ++i)
            row[i] *= amounts[i];
    return columns;
}

} // namespace kasuri::colour
