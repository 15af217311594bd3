#include "widgets/sheet/threads.hpp"

#include "widgets/parts/graph_paper.hpp"
#include "widgets/parts/theme.hpp"

#include <QPainter>

#include <algorithm>
#include <array>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr double together = 0.75; ///< pixels within which traces count as one
constexpr double dash = 7;        ///< pixels of one ply
constexpr double letter_gap = 10;
} // namespace

ThreadScale ThreadScale::fitting(const targets::Target* target, const image::Picture& before,
                                 const image::Picture& after) {
    ThreadScale scale = target ? ThreadScale{target->thread_low, target->thread_high, target->thread_scale}
                               : ThreadScale{-0.05, 1, targets::Scale::linear};
    for (const image::Picture* picture : {&before, &after})
        for (std::size_t c = 0; c < 3; ++c)
            for (const float value : *picture->planes[c])
                if (std::isfinite(value)) {
                    if (value < scale.low)
                        scale.low = std::max(-16.0, std::floor(value * 2.0) / 2);
                    if (value > scale.high)
                        scale.high = std::min(64.0, std::ceil(value * 2.0) / 2);
                }
    return scale;
}

ThreadScale::Heights ThreadScale::heights(const QRectF& area) const {
    const double from = targets::forward(scale, low), to = targets::forward(scale, high);
    return {scale, from, 1 / (to - from), area.bottom(), area.height()};
}

double ThreadScale::Heights::operator()(double value) const {
    return bottom - std::clamp((targets::forward(scale, value) - from) * by, -0.02, 1.02) * height;
}

void draw_traces(QPainter& painter, const QRectF& area, const ThreadScale& scale, const image::Picture& row,
                 bool solid) {
    const int count = row.width;
    if (count < 2)
        return;
    const ThreadScale::Heights y_of = scale.heights(area);
    std::array<std::vector<double>, 3> y;
    for (std::size_t c = 0; c < 3; ++c)
        for (int i = 0; i < count; ++i) {
            const float value = (*row.planes[c])[static_cast<std::size_t>(i)];
            y[c].push_back(std::isnan(value) ? std::nan("") : y_of(static_cast<double>(value)));
        }
    const auto x_of = [&](int i) { return area.left() + (i + 0.5) / count * area.width(); };
    GraphPaper paper(area.adjusted(0, -2, 0, 2), painter.device()->devicePixelRatioF());
    const QPointF gap(area.left(), std::nan(""));
    for (std::size_t c = 0; c < 3; ++c) {
        std::vector<QPointF> line;
        bool down = false;
        for (int i = 0; i < count; ++i) {
            const auto at = static_cast<std::size_t>(i);
            // How many traces run here, and which of them this one is.
            std::size_t plies = 1, place = 0;
            for (std::size_t other = 0; other < 3; ++other)
                if (other != c && std::fabs(y[other][at] - y[c][at]) < together) {
                    ++plies;
                    place += other < c ? 1 : 0;
                }
            const bool turn = plies == 1 || static_cast<std::size_t>(x_of(i) / dash) % plies == place;
            if (std::isnan(y[c][at]) || !turn) {
                down = false;
                continue;
            }
            if (!down) { // a ply begins where the one before it ended
                line.push_back(gap);
                if (i > 0 && !std::isnan(y[c][at - 1]))
                    line.emplace_back(x_of(i - 1), y[c][at - 1]);
            }
            line.emplace_back(x_of(i), y[c][at]);
            down = true;
        }
        QColor colour = theme::trace[c];
        if (!solid)
            colour.setAlphaF(0.5f);
        paper.stroke(line, colour, solid ? 1.7 : 1.0);
    }
    paper.draw(painter);
}

void draw_trace_letters(QPainter& painter, const QRectF& area, const ThreadScale& scale, const image::Picture& row) {
    struct Letter {
        double y;
        QString text;
        QColor colour;
    };
    std::vector<Letter> letters;
    const auto last = static_cast<std::size_t>(row.width - 1);
    for (std::size_t c = 0; c < 3; ++c) {
        const float value = (*row.planes[c])[last];
        if (!std::isnan(value))
            letters.push_back({scale.y_of(value, area), theme::letters[c], theme::trace[c]});
    }
    painter.save();
    painter.setFont(theme::face(11, true));
    const QFontMetricsF metrics(painter.font());
    const bool one = letters.size() == 3 && std::fabs(letters[0].y - letters[1].y) < together &&
        std::fabs(letters[1].y - letters[2].y) < together;
    std::stable_sort(letters.begin(), letters.end(), [](const Letter& a, const Letter& b) { return a.y < b.y; });
    if (!one)
        for (std::size_t i = 1; i < letters.size(); ++i)
            letters[i].y = std::max(letters[i].y, letters[i - 1].y + letter_gap);
    // Pushed down too far: move all of them up again.
    if (!letters.empty() && !one)
        if (const double over = letters.back().y - (area.bottom() - 3); over > 0)
            for (Letter& letter : letters)
                letter.y -= over;
    double x = area.right() + 4;
    for (const Letter& letter : letters) {
        painter.setPen(letter.colour);
        painter.drawText(QPointF(x, std::round(letter.y + 3.5)), letter.text);
        if (one)
            x += metrics.horizontalAdvance(letter.text) + 0.5;
    }
    painter.restore();
}

} // namespace kasuri::app
