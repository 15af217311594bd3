#include "widgets/parts/range_bar.hpp"

#include "widgets/parts/theme.hpp"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace kasuri::app {
namespace {
constexpr int label_width = 30;
QString short_number(double value) {
    QString text = QString::number(value, 'g', 4);
    return text.replace('-', QChar(0x2212));
}
} // namespace

RangeBar::RangeBar(QWidget* parent) : QWidget(parent) {
    setMinimumWidth(100);
    setFixedHeight(22);
    setFont(theme::face(11.5));
    setCursor(Qt::SizeHorCursor);
}

void RangeBar::set_range(double low, double high, double start) {
    low_ = low;
    high_ = high;
    default_ = start;
    update();
}

void RangeBar::set_value(double value) {
    value_ = value;
    update();
}

int RangeBar::left() const { return label_width; }
int RangeBar::right() const { return width() - label_width; }
double RangeBar::x_of(double value) const { return left() + (value - low_) / (high_ - low_) * (right() - left()); }

void RangeBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setFont(font());
    painter.setPen(theme::second);
    painter.drawText(QRect(0, 0, label_width - 6, height()), Qt::AlignRight | Qt::AlignVCenter, short_number(low_));
    painter.drawText(QRect(right() + 6, 0, label_width - 6, height()), Qt::AlignLeft | Qt::AlignVCenter,
                     short_number(high_));
    const double middle = height() / 2.0;
    painter.fillRect(QRectF(left(), middle - 0.5, right() - left(), 1), theme::third);
    const double from = x_of(default_), to = x_of(value_);
    painter.fillRect(QRectF(std::min(from, to), middle - 1.5, std::abs(to - from), 3), theme::text);
    painter.fillRect(QRectF(to - 1.5, middle - 6, 3, 12), theme::text);
}

void RangeBar::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton)
        return;
    last_x_ = event->position().x();
    dragged_ = value_;
    if (!(event->modifiers() & Qt::ShiftModifier))
        drag_to(last_x_, false);
}

void RangeBar::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton)
        drag_to(event->position().x(), event->modifiers() & Qt::ShiftModifier);
}

void RangeBar::drag_to(double x, bool fine) {
    const double span = (high_ - low_) / std::max(1, right() - left());
    dragged_ = fine ? dragged_ + (x - last_x_) * span * 0.1 : low_ + (x - left()) * span;
    dragged_ = std::clamp(dragged_, low_, high_);
    last_x_ = x;
    if (dragged_ != value_)
        emit value_edited(dragged_);
}

} // namespace kasuri::app
