#pragma once
#include <QPointF>
#include <QRect>
#include <QRectF>
#include <QSize>

namespace kasuri::app {

/// How a picture lies in the room of a cell: fitted, or enlarged about a point of it. Plain arithmetic, in device
/// pixels.
class Zoom {
public:
    /// Whether it is fitted into the room.
    bool fits() const { return scale_ == 0; }
    void fit() { scale_ = 0; }
    /// Device pixels of one picture pixel.
    double scale(const QSize& picture, const QSizeF& room) const;
    /// The whole picture in the room (it may lie outside of it).
    QRectF place(const QSize& picture, const QSizeF& room) const;
    /// The pixels that are seen, whole ones; empty if there are none.
    QRect seen(const QSize& picture, const QSizeF& room) const;
    /// One picture pixel becomes `scale` device pixels, and what is at `at` in the room stays there.
    void set_scale(double scale, const QPointF& at, const QSize& picture, const QSizeF& room);
    /// Moves the picture by so many device pixels, as far as there is more to see.
    void pan(const QPointF& by, const QSize& picture, const QSizeF& room);

    /// For remembering: 0 if it fits, else the scale, and the point of the picture in the middle of the room.
    double own_scale() const { return scale_; }
    QPointF middle() const { return middle_; }
    static Zoom at(double own_scale, const QPointF& middle);

    friend bool operator==(const Zoom&, const Zoom&) = default;
    static constexpr double most = 64; ///< device pixels of a picture pixel

private:
    QPointF held(const QSize& picture, const QSizeF& room) const;

    double scale_ = 0;
    QPointF middle_; ///< of the picture, that lies in the middle of the room
};

} // namespace kasuri::app
