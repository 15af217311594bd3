#pragma once
#include "readings/plot.hpp"

#include <QPointF>
#include <QRectF>
#include <QString>

class QPainter;

namespace kasuri::app {

/// From where a room is looked at, in degrees: turned about its upward axis, and from how far above.
struct Eye {
    static constexpr double usual_turn = 30, usual_tilt = 25;
    double turn = usual_turn, tilt = usual_tilt;
    /// Further by so much; the tilt stays between straight from below and straight from above.
    void turn_by(double degrees, double up);
    friend bool operator==(const Eye&, const Eye&) = default;
};

/// A room of three axes, seen in parallel projection so that all of it fits into a rectangle.
class RoomView {
public:
    RoomView(const readings::Panel& panel, const QRectF& field, const Eye& eye);
    /// Where a point is seen, and how far behind the middle of the room it lies.
    QPointF at(const readings::Solid::Point& point, double* depth = nullptr) const;

    void draw_axes(QPainter& painter) const;
    /// The solids and wires of what was measured; faint: the edges of its surface alone.
    void draw(QPainter& painter, const readings::Measured& measured, bool faint) const;
    /// Numbers of the point that is nearest to a place, the frontmost of several; empty: there is none near it.
    QString words_at(const readings::Measured& measured, const QPointF& place) const;

private:
    void draw_solid(QPainter& painter, const readings::Solid& solid, bool faint) const;
    void draw_wires(QPainter& painter, const readings::Wires& wires) const;

    const readings::Panel& panel_;
    QRectF field_;
    double cos_turn_, sin_turn_, cos_tilt_, sin_tilt_, unit_;
};

} // namespace kasuri::app
