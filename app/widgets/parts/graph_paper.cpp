#include "widgets/parts/graph_paper.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>
#include <limits>

namespace kasuri::app {
namespace {
constexpr int quarters = 4; ///< places at which a stroke is looked at in each column
constexpr float none = std::numeric_limits<float>::infinity();
} // namespace

GraphPaper::GraphPaper(const QRectF& area, double ratio)
    : ratio_(ratio), left_(static_cast<int>(std::floor(area.left() * ratio))),
      top_(static_cast<int>(std::floor(area.top() * ratio))),
      image_(std::max(1, static_cast<int>(std::ceil(area.right() * ratio)) - left_),
             std::max(1, static_cast<int>(std::ceil(area.bottom() * ratio)) - top_),
             QImage::Format_ARGB32_Premultiplied) {
    image_.fill(Qt::transparent);
    image_.setDevicePixelRatio(ratio);
}

void GraphPaper::stroke(std::span<const QPointF> points, const QColor& colour, double width) {
    reaches_.assign(static_cast<std::size_t>(image_.width() * quarters), Reach{none, -none});
    const double half = width * ratio_ / 2;
    for (std::size_t i = 1; i < points.size(); ++i) {
        const QPointF &a = points[i - 1], &b = points[i];
        if (std::isfinite(a.x()) && std::isfinite(a.y()) && std::isfinite(b.x()) && std::isfinite(b.y()))
            segment({a.x() * ratio_ - left_, a.y() * ratio_ - top_}, {b.x() * ratio_ - left_, b.y() * ratio_ - top_},
                    half);
    }
    ink(colour);
}

/// A line of slope s and a width of 2 half covers half * sqrt(1 + s^2) above and below its middle; steep ones reach to
/// the sides of their ends, too.
void GraphPaper::segment(QPointF from, QPointF to, double half) {
    const double dx = to.x() - from.x(), dy = to.y() - from.y();
    const bool steep = std::fabs(dy) > dx;
    const double aside = steep ? half : 0, low = std::min(from.y(), to.y()) - half,
                 high = std::max(from.y(), to.y()) + half;
    const double slope = dx > 1e-9 ? dy / dx : 0, above = half * std::sqrt(1 + slope * slope);
    const auto places = static_cast<double>(reaches_.size());
    // The first place whose middle is not left of x.
    const auto place = [&](double x) {
        const double at = std::clamp(x * quarters - 0.5, 0.0, places);
        const int whole = static_cast<int>(at);
        return whole + (at > whole ? 1 : 0);
    };
    const int first = place(from.x() - aside), last = std::min(place(to.x() + aside), static_cast<int>(places)) - 1;
    for (int i = first; i <= last; ++i) {
        const double x = (i + 0.5) / quarters;
        double upper = low, lower = high;
        if (dx > 1e-9) {
            const double y = from.y() + slope * (x - from.x());
            upper = std::max(low, y - above);
            lower = std::min(high, y + above);
        }
        if (upper >= lower)
            continue;
        Reach& reach = reaches_[static_cast<std::size_t>(i)];
        reach.top = std::min(reach.top, static_cast<float>(upper));
        reach.bottom = std::max(reach.bottom, static_cast<float>(lower));
    }
}

void GraphPaper::ink(const QColor& colour) {
    const float alpha = colour.alphaF();
    const int height = image_.height();
    const auto per_line = image_.bytesPerLine() / static_cast<qsizetype>(sizeof(QRgb));
    auto* const pixels = reinterpret_cast<QRgb*>(image_.bits());
    std::vector<float> covered(static_cast<std::size_t>(height), 0.0f);
    for (int column = 0; column < image_.width(); ++column) {
        int first = height, last = -1;
        for (int quarter = 0; quarter < quarters; ++quarter) {
            const Reach& reach = reaches_[static_cast<std::size_t>(column * quarters + quarter)];
            const float top = std::max(reach.top, 0.0f), bottom = std::min(reach.bottom, static_cast<float>(height));
            if (!(top < bottom))
                continue;
            const int from = static_cast<int>(top), to = static_cast<int>(bottom);
            first = std::min(first, from);
            last = std::max(last, std::min(to, height - 1));
            if (from == to) {
                covered[static_cast<std::size_t>(from)] += bottom - top;
                continue;
            }
            covered[static_cast<std::size_t>(from)] += static_cast<float>(from + 1) - top;
            for (int row = from + 1; row < to; ++row)
                covered[static_cast<std::size_t>(row)] += 1;
            if (to < height)
                covered[static_cast<std::size_t>(to)] += bottom - static_cast<float>(to);
        }
        for (int row = first; row <= last; ++row) {
            float& here = covered[static_cast<std::size_t>(row)];
            const int share = static_cast<int>(std::min(1.0f, here / quarters) * alpha * 256 + 0.5f);
            here = 0;
            QRgb& pixel = pixels[row * per_line + column];
            const auto over = [share](int ink, int under) { return (ink * share + under * (256 - share) + 128) >> 8; };
            pixel = qRgba(over(colour.red(), qRed(pixel)), over(colour.green(), qGreen(pixel)),
                          over(colour.blue(), qBlue(pixel)), over(255, qAlpha(pixel)));
        }
    }
}

void GraphPaper::draw(QPainter& painter) const { painter.drawImage(QPointF(left_ / ratio_, top_ / ratio_), image_); }

} // namespace kasuri::app
