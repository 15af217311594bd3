#include "widgets/sheet/cell_places.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numeric>

namespace kasuri::app {
namespace {

constexpr double alike_within = 1.1;
constexpr double narrowest = 0.25, broadest = 4; ///< a strip of a picture has the room of one that can be seen

/// How many cells stand in each row, and for how many there would be room.
struct Row {
    int count = 1, room = 1;
};
using Rows = std::vector<Row>;

struct Places {
    std::vector<QRectF> all;
    double seen = 0; ///< how large pictures are: sum of the logarithms, for which none should be much smaller
};

Places placed(const std::vector<double>& aspects, const Rows& rows, const QRectF& room, double caption,
              const QSizeF& gap) {
    // A row whose pictures fill its width is as high as they are; all rows together get the height that there is.
    std::vector<double> sums, heights;
    auto next = aspects.begin();
    for (const Row& row : rows) {
        const double sum = std::accumulate(next, next + row.count, 0.0);
        sums.push_back(sum * row.room / row.count);
        heights.push_back((room.width() - gap.width() * (row.room - 1)) / sums.back());
        next += row.count;
    }
    const double lines = static_cast<double>(rows.size()),
                 rest = room.height() - lines * caption - gap.height() * (lines - 1),
                 scale = std::max(1.0, rest) / std::accumulate(heights.begin(), heights.end(), 0.0);
    Places places;
    double y = room.top();
    next = aspects.begin();
    for (std::size_t row = 0; row < rows.size(); ++row) {
        const double height = heights[row] * scale, across = room.width() - gap.width() * (rows[row].room - 1);
        double x = room.left();
        for (int i = 0; i < rows[row].count; ++i, ++next) {
            const double width = *next / sums[row] * across;
            places.all.emplace_back(x, y, width, height + caption);
            const double seen = std::min(width, height * *next);
            places.seen += std::log(std::max(1.0, seen * seen / *next));
            x += width + gap.width();
        }
        y += height + caption + gap.height();
    }
    return places;
}

/// Rows of equal numbers, and every other way to cut a few cells into rows.
std::vector<Rows> ways(int count, bool only_equal) {
    std::vector<Rows> all;
    for (int columns = 1; columns <= count; ++columns) {
        Rows rows(static_cast<std::size_t>(count / columns), {columns, columns});
        if (count % columns != 0)
            rows.push_back({count % columns, columns});
        all.push_back(std::move(rows));
    }
    constexpr int few = 10;
    for (std::uint32_t cuts = 0; !only_equal && count <= few && cuts < 1u << (count - 1); ++cuts) {
        Rows rows = {{}};
        for (int i = 0; i + 1 < count; ++i)
            if (cuts >> i & 1)
                rows.push_back({});
            else
                rows.back() = {rows.back().count + 1, rows.back().count + 1};
        all.push_back(std::move(rows));
    }
    return all;
}

} // namespace

std::vector<QRect> cell_places(const std::vector<double>& aspects, const QRect& room, int caption, const QSize& gap) {
    if (aspects.empty())
        return {};
    std::vector<double> shapes = aspects;
    for (double& shape : shapes)
        shape = std::isfinite(shape) ? std::clamp(shape, narrowest, broadest) : 1;
    const auto [low, high] = std::minmax_element(shapes.begin(), shapes.end());
    const bool alike = *high < alike_within * *low; // compared with one another: none is larger than another
    Places best;
    for (const Rows& rows : ways(static_cast<int>(shapes.size()), alike))
        if (Places now = placed(shapes, rows, room, caption, gap); best.all.empty() || now.seen > best.seen + 0.001)
            best = std::move(now);
    std::vector<QRect> places;
    for (const QRectF& place : best.all) // edges are rounded, so that neighbours stay `gap` apart
        places.emplace_back(QPoint(qRound(place.left()), qRound(place.top())),
                            QPoint(qRound(place.right()) - 1, qRound(place.bottom()) - 1));
    return places;
}

} // namespace kasuri::app
