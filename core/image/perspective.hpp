#pragma once
#include <array>
#include <optional>

namespace kasuri::image {

struct Point {
    double x = 0, y = 0;
    friend bool operator==(const Point&, const Point&) = default;
};

/// Top left, top right, bottom right, bottom left of something flat that was photographed.
using Corners = std::array<Point, 4>;

/// Where the points of something flat lie in a picture of it: a projective map of the unit square, and back. Source:
/// P. S. Heckbert, Fundamentals of Texture Mapping and Image Warping, 1989, 2.2.3 (from memory).
class Perspective {
public:
    /// Nothing unless the corners, taken in turn, make a four-sided figure without dents or crossed sides.
    static std::optional<Perspective> make(const Corners& corners);

    /// Of (u, v), 0 to 1 across and down.
    Point at(double u, double v) const;
    /// The (u, v) of a point of the picture.
    Point back(Point point) const;

private:
    std::array<double, 9> there_{}, back_{}; ///< by rows
};

} // namespace kasuri::image
