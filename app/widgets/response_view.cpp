#include "widgets/response_view.hpp"

#include "widgets/theme.hpp"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {

constexpr double lowest = -0.1, highest = 1.3;   // linear axes
constexpr double log_lowest = -8, log_highest = 0.4; // stops, relative to 1
constexpr double together = 0.8, dash = 7;

/// Share 0..1 of an axis.
double share_of(double value, bool logarithmic) {
    if (!logarithmic)
        return (value - lowest) / (highest - lowest);
    return value > 0 ? (std::log2(value) - log_lowest) / (log_highest - log_lowest) : -1;
}

} // namespace

ResponseView::ResponseView(QWidget* parent) : QWidget(parent) {
    setMinimumHeight(150);
    setAccessibleName(tr("Response"));
    setToolTip(tr("What comes out (up) for greys that go in (across)."));
}

void ResponseView::show_response(const scopes::Response& response) {
    response_ = response;
    update();
}

void ResponseView::set_logarithmic(bool logarithmic) {
    logarithmic_ = logarithmic;
    update();
}

void ResponseView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const QRectF area(38, 10, width() - 38 - 30, height() - 10 - 36);
    const auto x_of = [&](double v) { return area.left() + share_of(v, logarithmic_) * area.width(); };
    const auto y_of = [&](double v) { return area.bottom() - share_of(v, logarithmic_) * area.height(); };
    painter.setFont(theme::face(10.5));
    const std::vector<double> ticks = logarithmic_ ? std::vector<double>{0.01, 0.18, 1} : std::vector<double>{0, 0.18, 1};
    for (const double tick : ticks) {
        painter.setPen(tick == 0 || tick == 1 ? theme::hairline : theme::grid);
        const double x = std::round(x_of(tick)) + 0.5, y = std::round(y_of(tick)) + 0.5;
        painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()));
        painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
        painter.setPen(theme::third);
        painter.drawText(QRectF(x - 30, area.bottom() + 2, 60, 14), Qt::AlignHCenter | Qt::AlignTop, QString::number(tick));
        painter.drawText(QRectF(0, y - 8, area.left() - 5, 16), Qt::AlignRight | Qt::AlignVCenter, QString::number(tick));
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(area);
    painter.setPen(QPen(theme::hairline, 1, Qt::DashLine));
    painter.drawLine(QPointF(x_of(logarithmic_ ? 0.0039 : lowest), y_of(logarithmic_ ? 0.0039 : lowest)), QPointF(x_of(highest), y_of(highest)));
    QPointF ends[3]; // where each trace is last seen
    for (std::size_t c = 0; c < 3; ++c) {
        QPainterPath path;
        bool down = false;
        QPointF before;
        for (const scopes::ResponsePoint& point : response_.points) {
            const double x = x_of(static_cast<double>(point.in)), y = y_of(static_cast<double>(point.out[c]));
            std::size_t plies = 1, place = 0;
            for (std::size_t other = 0; other < 3; ++other)
                if (other != c && std::fabs(y_of(static_cast<double>(point.out[other])) - y) < together) {
                    ++plies;
                    place += other < c ? 1 : 0;
                }
            const bool finite = std::isfinite(x) && std::isfinite(y) && share_of(static_cast<double>(point.in), logarithmic_) >= 0;
            const bool turn = finite && (plies == 1 || static_cast<std::size_t>(std::max(0.0, x) / dash) % plies == place);
            if (turn && down)
                path.lineTo(x, y);
            else if (turn)
                path.moveTo(x, y);
            down = turn;
            if (finite && x <= area.right() && y >= area.top() && y <= area.bottom())
                ends[c] = {x, y};
        }
        QPen pen(theme::trace[c], 1.8);
        pen.setCapStyle(Qt::FlatCap);
        painter.strokePath(path, pen);
    }
    painter.setClipping(false);
    painter.setFont(theme::face(11, true));
    const auto meet = [&](std::size_t a, std::size_t b) { return std::fabs(ends[a].y() - ends[b].y()) < together && std::fabs(ends[a].x() - ends[b].x()) < together; };
    const bool one = meet(0, 1) && meet(1, 2);
    std::array<std::size_t, 3> order = {0, 1, 2};
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return ends[a].y() < ends[b].y(); });
    QPointF last(-100, -100);
    double last_width = 0;
    for (const std::size_t c : order) {
        QPointF at = ends[c] + (ends[c].x() > area.right() - 8 ? QPointF(4, 4) : QPointF(5, 9));
        if (std::fabs(at.x() - last.x()) < 24 && at.y() < last.y() + 11)
            at = one ? QPointF(last.x() + last_width + 0.5, last.y())
                     : QPointF(at.x(), last.y() + 11);
        last = at;
        last_width = painter.fontMetrics().horizontalAdvance(theme::letters[c]);
        painter.setPen(theme::trace[c]);
        painter.drawText(QPointF(at.x(), std::round(at.y())), theme::letters[c]);
    }
    painter.setFont(theme::face(11.5));
    painter.setPen(theme::second);
    QString words = one ? tr("greys, r g b together") : tr("greys, channel by channel");
    QString reversed;
    for (std::size_t c = 0; c < 3; ++c)
        if (response_.reverses[c])
            reversed += QString(reversed.isEmpty() ? "" : " ") + theme::letters[c];
    if (!reversed.isEmpty())
        words = tr("reverses: %1").arg(reversed);
    painter.drawText(QRectF(theme::margin, height() - 20, width() - 2 * theme::margin, 16), Qt::AlignLeft | Qt::AlignVCenter, words);
}

} // namespace kasuri::app
