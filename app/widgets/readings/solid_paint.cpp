#include "widgets/readings/solid_paint.hpp"

#include "model/display.hpp"
#include "widgets/parts/theme.hpp"

#include <QPainter>
#include <QPolygonF>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace kasuri::app {
namespace {

using Point = readings::Solid::Point;

QColor shown_colour(const Point& light) {
    return {display_code(light[0]), display_code(light[1]), display_code(light[2])};
}

bool is_somewhere(const Point& point) { return std::isfinite(point[0] + point[1] + point[2]); }

constexpr double near = 9; ///< pixels from a point within which it is told

} // namespace

void Eye::turn_by(double degrees, double up) {
    turn = std::fmod(turn + degrees + 720, 360);
    tilt = std::clamp(tilt + up, -90.0, 90.0);
}

RoomView::RoomView(const readings::Panel& panel, const QRectF& field, const Eye& eye) : panel_(panel), field_(field) {
    const double turn = eye.turn * std::numbers::pi / 180, tilt = eye.tilt * std::numbers::pi / 180;
    cos_turn_ = std::cos(turn);
    sin_turn_ = std::sin(turn);
    cos_tilt_ = std::cos(tilt);
    sin_tilt_ = std::sin(tilt);
    // A box of 1 x 1 x 1 turned any way takes sqrt(2) across and, tilted, at most sqrt(3) up: always the same size.
    unit_ = std::min(field.width() / std::numbers::sqrt2, field.height() / 1.6);
}

QPointF RoomView::at(const Point& point, double* depth) const {
    const double x = panel_.x.share_of(static_cast<double>(point[0])) - 0.5,
                 y = panel_.y.share_of(static_cast<double>(point[1])) - 0.5,
                 z = panel_.z->share_of(static_cast<double>(point[2])) - 0.5;
    const double across = x * cos_turn_ - y * sin_turn_, away = x * sin_turn_ + y * cos_turn_;
    if (depth)
        *depth = away * cos_tilt_ - z * sin_tilt_;
    return field_.center() + QPointF(across, -(z * cos_tilt_ + away * sin_tilt_)) * unit_;
}

void RoomView::draw_axes(QPainter& painter) const {
    const readings::Axis &x = panel_.x, &y = panel_.y, &z = *panel_.z;
    const auto corner = [](double a, double b, double c) {
        return Point{static_cast<float>(a), static_cast<float>(b), static_cast<float>(c)};
    };
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(theme::face(10.5));
    // The floor, and the upward axis in its middle.
    const QPolygonF floor({at(corner(x.low, y.low, z.low)), at(corner(x.high, y.low, z.low)),
                           at(corner(x.high, y.high, z.low)), at(corner(x.low, y.high, z.low)),
                           at(corner(x.low, y.low, z.low))});
    painter.setPen(QPen(theme::grid, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(floor);
    const double middle_x = (x.low + x.high) / 2, middle_y = (y.low + y.high) / 2;
    painter.setPen(QPen(theme::hairline, 1));
    const struct {
        Point from, to;
        const std::string& name;
    } axes[] = {{corner(x.low, middle_y, z.low), corner(x.high, middle_y, z.low), x.title},
                {corner(middle_x, y.low, z.low), corner(middle_x, y.high, z.low), y.title},
                {corner(middle_x, middle_y, z.low), corner(middle_x, middle_y, z.high), z.title}};
    for (const auto& axis : axes) {
        painter.setPen(QPen(theme::hairline, 1));
        painter.drawLine(at(axis.from), at(axis.to));
        painter.setPen(theme::second);
        const QString name = QString::fromStdString(axis.name);
        const double wide = painter.fontMetrics().horizontalAdvance(name);
        QPointF place = at(axis.to) + QPointF(3, 4);
        place.setX(std::clamp(place.x(), field_.left(), field_.right() - wide));
        place.setY(std::clamp(place.y(), field_.top() + 9, field_.bottom()));
        painter.drawText(place, name);
    }
}

void RoomView::draw(QPainter& painter, const readings::Measured& measured, bool faint) const {
    for (const readings::Layer& layer : measured.layers)
        if (const auto* solid = std::get_if<readings::Solid>(&layer.data))
            draw_solid(painter, *solid, faint);
    if (faint)
        return;
    for (const readings::Layer& layer : measured.layers)
        if (const auto* wires = std::get_if<readings::Wires>(&layer.data))
            draw_wires(painter, *wires);
}

void RoomView::draw_solid(QPainter& painter, const readings::Solid& solid, bool faint) const {
    std::vector<QPointF> places(solid.points.size());
    std::vector<double> depths(solid.points.size());
    for (std::size_t i = 0; i < places.size(); ++i)
        places[i] = at(solid.points[i], &depths[i]);
    painter.setRenderHint(QPainter::Antialiasing, false);
    if (solid.faces.empty()) { // points alone, the farthest first
        std::vector<std::uint32_t> order;
        for (std::uint32_t i = 0; i < places.size(); ++i)
            if (is_somewhere(solid.points[i]))
                order.push_back(i);
        if (solid.section.empty()) {
            std::sort(order.begin(), order.end(), [&](auto a, auto b) { return depths[a] > depths[b]; });
            QColor before = theme::third;
            before.setAlpha(60);
            for (const std::uint32_t i : order)
                painter.fillRect(QRectF(places[i] - QPointF(1, 1), QSizeF(2, 2)),
                                 faint ? before : shown_colour(solid.colours[i]));
        }
    }
    std::vector<std::pair<double, std::size_t>> order;
    for (std::size_t f = 0; f < solid.faces.size(); ++f) {
        double sum = 0;
        for (const std::uint32_t corner : solid.faces[f])
            sum += depths[corner];
        if (std::isfinite(sum))
            order.emplace_back(-sum, f);
    }
    std::sort(order.begin(), order.end());
    QColor line = theme::third;
    line.setAlpha(static_cast<int>(std::clamp(unit_ / 6, 16.0, 70.0))); // the lines of a small one stand closely
    painter.setPen(QPen(line, 0));
    painter.setBrush(Qt::NoBrush);
    for (const auto& [far, f] : order) {
        const auto& face = solid.faces[f];
        const QPointF corners[4] = {places[face[0]], places[face[1]], places[face[2]], places[face[3]]};
        if (!faint) {
            Point mean{};
            for (const std::uint32_t corner : face)
                for (std::size_t i = 0; i < 3; ++i)
                    mean[i] += solid.colours[corner][i] / 4;
            painter.setBrush(shown_colour(mean));
            painter.setPen(QPen(painter.brush().color(), 0)); // no seam between neighbours
        }
        painter.drawPolygon(corners, 4);
    }
    if (faint)
        return;
    const auto mark = [&](const std::vector<std::uint32_t>& all, const QColor& ink, double half) {
        painter.setPen(QPen(ink, 1));
        painter.setBrush(Qt::NoBrush);
        for (const std::uint32_t i : all)
            if (is_somewhere(solid.points[i]))
                painter.drawRect(QRectF(places[i] - QPointF(half, half), QSizeF(2 * half, 2 * half)));
    };
    for (const std::uint32_t i : solid.section)
        if (is_somewhere(solid.points[i]))
            painter.fillRect(QRectF(places[i] - QPointF(1.5, 1.5), QSizeF(3, 3)), shown_colour(solid.colours[i]));
    // No larger than the cells are.
    const double half = std::clamp(unit_ / 160, 0.5, 2.5);
    mark(solid.folded, theme::text, half);
    mark(solid.collapsed, theme::third, half / 2);
}

void RoomView::draw_wires(QPainter& painter, const readings::Wires& wires) const {
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme::second, 0.8));
    QPointF highest(0, 1e9);
    for (const auto& line : wires.lines) {
        QPolygonF shown;
        for (const Point& point : line)
            if (is_somewhere(point))
                shown << at(point);
        painter.drawPolyline(shown);
        // The name stands where the wires lead farthest to the right, at the spaces' ends.
        for (const QPointF& place : shown)
            if (place.x() > highest.x() || highest.y() == 1e9)
                highest = place;
    }
    painter.setFont(theme::face(10.5));
    painter.setPen(theme::second);
    if (highest.y() < 1e9)
        painter.drawText(highest + QPointF(3, 4), QString::fromStdString(wires.name));
}

QString RoomView::words_at(const readings::Measured& measured, const QPointF& place) const {
    QString words;
    double best = 1e9;
    for (const readings::Layer& layer : measured.layers)
        if (const auto* solid = std::get_if<readings::Solid>(&layer.data))
            for (std::size_t i = 0; i < solid->points.size(); ++i) {
                double depth = 0;
                const QPointF there = at(solid->points[i], &depth);
                const double away = std::hypot(there.x() - place.x(), there.y() - place.y());
                // Of points that are about as near, the one in front.
                if (!is_somewhere(solid->points[i]) || away > near || std::floor(away / 3) + depth >= best)
                    continue;
                best = std::floor(away / 3) + depth;
                const auto number = [](float v) { return theme::number(static_cast<double>(v)); };
                const Point &p = solid->points[i], &from = solid->from[i];
                words = QString::fromStdString(panel_.x.title) + ' ' + number(p[0]) + "  " +
                    QString::fromStdString(panel_.y.title) + ' ' + number(p[1]) + "  " +
                    QString::fromStdString(panel_.z->title) + ' ' + number(p[2]) + "   rgb " + number(from[0]) + ' ' +
                    number(from[1]) + ' ' + number(from[2]);
            }
    return words;
}

} // namespace kasuri::app
