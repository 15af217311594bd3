#include "model/zoom.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {

double fitting(const QSize& picture, const QSizeF& room) {
    return picture.isEmpty() || room.isEmpty()
        ? 1
        : std::min(room.width() / picture.width(), room.height() / picture.height());
}

} // namespace

Zoom Zoom::at(double own_scale, const QPointF& middle) {
    Zoom made;
    made.scale_ = std::isfinite(own_scale) ? std::clamp(own_scale, 0.0, most) : 0;
    made.middle_ = middle;
    return made;
}

double Zoom::scale(const QSize& picture, const QSizeF& room) const { return fits() ? fitting(picture, room) : scale_; }

QRectF Zoom::place(const QSize& picture, const QSizeF& room) const {
    if (picture.isEmpty() || room.isEmpty())
        return {};
    if (fits()) {
        const double scale = fitting(picture, room);
        const QSizeF size(std::max(1.0, std::floor(picture.width() * scale)),
                          std::max(1.0, std::floor(picture.height() * scale)));
        return {QPointF(std::floor((room.width() - size.width()) / 2), 0), size};
    }
    const QPointF middle = held(picture, room);
    const QPointF corner(std::round(room.width() / 2 - middle.x() * scale_),
                         std::round(room.height() / 2 - middle.y() * scale_));
    return {corner, QSizeF(picture.width() * scale_, picture.height() * scale_)};
}

QRect Zoom::seen(const QSize& picture, const QSizeF& room) const {
    const QRectF all = place(picture, room);
    if (all.isEmpty())
        return {};
    if (fits())
        return {QPoint(0, 0), picture};
    const double left = std::floor(-all.left() / scale_), top = std::floor(-all.top() / scale_);
    const double right = std::ceil((room.width() - all.left()) / scale_),
                 bottom = std::ceil((room.height() - all.top()) / scale_);
    const QRect wanted(QPoint(static_cast<int>(left), static_cast<int>(top)),
                       QPoint(static_cast<int>(right) - 1, static_cast<int>(bottom) - 1));
    return wanted & QRect(QPoint(0, 0), picture);
}

void Zoom::set_scale(double scale, const QPointF& at, const QSize& picture, const QSizeF& room) {
    if (picture.isEmpty() || room.isEmpty())
        return;
    const QRectF before = place(picture, room);
    const double was = this->scale(picture, room);
    const QPointF kept((at.x() - before.left()) / was, (at.y() - before.top()) / was);
    scale_ = std::min(scale, most);
    if (scale_ <= fitting(picture, room) * 1.0001) { // no smaller than fitted
        fit();
        return;
    }
    middle_ = kept + QPointF(room.width() / 2 - at.x(), room.height() / 2 - at.y()) / scale_;
    middle_ = held(picture, room);
}

void Zoom::pan(const QPointF& by, const QSize& picture, const QSizeF& room) {
    if (fits())
        return;
    middle_ -= by / scale_;
    middle_ = held(picture, room);
}

QPointF Zoom::held(const QSize& picture, const QSizeF& room) const {
    // Where the picture is larger than the room it fills it; where it is smaller it lies in the middle. Asked at every
    // look, because the cell may have another size by now, or another picture.
    const auto within = [](double middle, double length, double seen) {
        return seen >= length ? length / 2 : std::clamp(middle, seen / 2, length - seen / 2);
    };
    return {within(middle_.x(), picture.width(), room.width() / scale_),
            within(middle_.y(), picture.height(), room.height() / scale_)};
}

} // namespace kasuri::app
