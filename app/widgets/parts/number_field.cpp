#include "widgets/parts/number_field.hpp"

#include "base/text.hpp"
#include "widgets/parts/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr int drag_threshold = 3;
constexpr int pixels_a_step = 4;
} // namespace

NumberField::NumberField(QWidget* parent) : QLineEdit(parent) {
    setAlignment(Qt::AlignRight);
    setFont(theme::face());
    setFixedWidth(58);
    setCursor(Qt::SizeHorCursor);
    setContextMenuPolicy(Qt::NoContextMenu);
    connect(this, &QLineEdit::textEdited, this, [this] { typing_ = true; });
    connect(this, &QLineEdit::returnPressed, this, [this] {
        commit();
        selectAll();
    });
    show_value();
}

void NumberField::set_range(double low, double high, double step, bool whole) {
    low_ = low;
    high_ = high;
    step_ = step;
    whole_ = whole;
}

void NumberField::set_value(double value) {
    value_ = value;
    if (!typing_)
        show_value();
}

void NumberField::show_value() {
    // At least three decimals, more where the steps are finer.
    const int decimals = whole_ ? 0 : std::clamp(static_cast<int>(std::ceil(-std::log10(step_))) + 1, 3, 6);
    setText(theme::number(value_, decimals));
    if (!hasFocus())
        setCursorPosition(0);
}

double NumberField::factor(Qt::KeyboardModifiers modifiers) {
    return modifiers & Qt::ShiftModifier ? 0.1 : modifiers & Qt::ControlModifier ? 10 : 1;
}

double NumberField::step(Qt::KeyboardModifiers modifiers) const {
    return whole_ ? std::max(1.0, step_ * factor(modifiers)) : step_ * factor(modifiers);
}

void NumberField::change(double value) {
    value = std::clamp(whole_ ? std::round(value) : value, low_, high_);
    if (value == value_)
        return;
    value_ = value;
    show_value();
    emit value_edited(value_);
}

void NumberField::commit() {
    if (!typing_)
        return;
    typing_ = false;
    QString typed = text();
    typed.replace(QChar(0x2212), '-').replace(',', '.');
    const std::optional<double> number = parse_number(typed.toStdString());
    if (number && std::isfinite(*number))
        change(*number);
    show_value(); // what cannot be read goes back to the value it was
}

void NumberField::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Up:
    case Qt::Key_Down:
        commit();
        change(value_ + (event->key() == Qt::Key_Up ? 1 : -1) * step(event->modifiers()));
        selectAll();
        return;
    case Qt::Key_Backspace:
        if (!typing_ && selectedText() == text()) {
            emit reset_wanted();
            selectAll();
            return;
        }
        break;
    case Qt::Key_Escape:
        if (typing_) {
            typing_ = false;
            show_value();
            selectAll();
            return;
        }
        break;
    default: break;
    }
    // A number takes no letters: they go on to who wants them. The e of an exponent stands behind a digit.
    const QString typed = event->text();
    const bool exponent =
        typed.toLower() == "e" && cursorPosition() > 0 && !hasSelectedText() && text()[cursorPosition() - 1].isDigit();
    if (typed.size() == 1 && typed[0].isLetter() && !exponent) {
        event->ignore();
        return;
    }
    QLineEdit::keyPressEvent(event);
}

void NumberField::wheelEvent(QWheelEvent* event) {
    if (!hasFocus()) { // scrolling past must not change anything
        event->ignore();
        return;
    }
    const QPoint delta = event->angleDelta();
    const double notches = (delta.y() != 0 ? delta.y() : delta.x()) / 120.0; // Shift may turn the wheel sideways
    change(value_ + notches * step(event->modifiers()));
    event->accept();
}

void NumberField::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton) {
        if (hasFocus() && typing_) {
            QLineEdit::mousePressEvent(event);
            return;
        }
        pressed_ = true;
        press_ = event->position().toPoint();
        drag_x_ = press_.x();
        drag_value_ = value_;
    }
}

void NumberField::mouseMoveEvent(QMouseEvent* event) {
    if (!pressed_) {
        QLineEdit::mouseMoveEvent(event);
        return;
    }
    const int x = event->position().toPoint().x();
    if (!dragging_ && std::abs(x - press_.x()) < drag_threshold)
        return;
    dragging_ = true;
    drag_value_ =
        std::clamp(drag_value_ + (x - drag_x_) * step_ * factor(event->modifiers()) / pixels_a_step, low_, high_);
    drag_x_ = x;
    change(drag_value_);
}

void NumberField::mouseReleaseEvent(QMouseEvent* event) {
    if (pressed_ && !dragging_) {
        setFocus(Qt::MouseFocusReason);
        selectAll();
    } else if (!pressed_) {
        QLineEdit::mouseReleaseEvent(event);
    }
    pressed_ = dragging_ = false;
}

void NumberField::focusInEvent(QFocusEvent* event) {
    QLineEdit::focusInEvent(event);
    selectAll();
}

void NumberField::focusOutEvent(QFocusEvent* event) {
    commit();
    QLineEdit::focusOutEvent(event);
}

} // namespace kasuri::app
