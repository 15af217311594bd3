#include "image/perspective.hpp"

#include <cmath>

namespace kasuri::image {
namespace {

Point through(const std::array<double, 9>& m, double x, double y) {
    const double w = m[6] * x + m[7] * y + m[8];
    return {(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w};
}

/// Twice the area of a triangle, with a sign for its sense.
double turn(Point a, Point b, Point c) { return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x); }

/// The adjugate, which is the inverse but for a factor: that divides out.
std::array<double, 9> inverse_of(const std::array<double, 9>& m) {
    return {m[4] * m[8] - m[5] * m[7], m[2] * m[7] - m[1] * m[8], m[1] * m[5] - m[2] * m[4],
            m[5] * m[6] - m[3] * m[8], m[0] * m[8] - m[2] * m[6], m[2] * m[3] - m[0] * m[5],
            m[3] * m[7] - m[4] * m[6], m[1] * m[6] - m[0] * m[7], m[0] * m[4] - m[1] * m[3]};
}

} // namespace

std::optional<Perspective> Perspective::make(const Corners& corners) {
    const auto& [a, b, c, d] = corners;
    const double turns[] = {turn(a, b, c), turn(b, c, d), turn(c, d, a), turn(d, a, b)};
    for (const double each : turns)
        if (!(std::fabs(each) > 1e-9) || !std::isfinite(each) || (each > 0) != (turns[0] > 0))
            return std::nullopt;
    const double dx1 = b.x - c.x, dx2 = d.x - c.x, dx3 = a.x - b.x + c.x - d.x;
    const double dy1 = b.y - c.y, dy2 = d.y - c.y, dy3 = a.y - b.y + c.y - d.y;
    const double below = dx1 * dy2 - dx2 * dy1;
    const double g = (dx3 * dy2 - dx2 * dy3) / below, h = (dx1 * dy3 - dx3 * dy1) / below;
    Perspective made;
    made.there_ = {
        b.x - a.x + g * b.x, d.x - a.x + h * d.x, a.x, b.y - a.y + g * b.y, d.y - a.y + h * d.y, a.y, g, h, 1};
    made.back_ = inverse_of(made.there_);
    return made;
}

Point Perspective::at(double u, double v) const { return through(there_, u, v); }
Point Perspective::back(Point point) const { return through(back_, point.x, point.y); }

} // namespace kasuri::image
