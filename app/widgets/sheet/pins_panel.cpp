#include "widgets/sheet/pins_panel.hpp"

#include "model/sheet.hpp"
#include "widgets/parts/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace kasuri::app {
namespace {
constexpr int pin_height = 50;
constexpr int line = 16;
} // namespace

PinsPanel::PinsPanel(SheetModel& model, QWidget* parent) : QWidget(parent), model_(model) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Pins"));
    setVisible(false);
}

QSize PinsPanel::sizeHint() const { return {268, static_cast<int>(pins_.size()) * pin_height + 4}; }
QSize PinsPanel::minimumSizeHint() const { return {200, std::min(static_cast<int>(pins_.size()), 3) * pin_height + 4}; }

void PinsPanel::show_pins(const std::vector<PinReadout>& pins) {
    const bool resized = pins.size() != pins_.size();
    pins_ = pins;
    for (std::size_t i = 0; i < pins_.size(); ++i)
        if (model_.active_pin() && model_.active_pin()->number == pins_[i].number)
            chosen_ = static_cast<int>(i);
    chosen_ = std::clamp(chosen_, 0, std::max(0, static_cast<int>(pins_.size()) - 1));
    setVisible(!pins_.empty());
    if (resized)
        updateGeometry();
    QStringList words;
    for (const PinReadout& pin : pins_)
        words << tr("%1: %2, %3").arg(pin.number).arg(pin.readout.target, pin.readout.place);
    setAccessibleDescription(words.join("; "));
    update();
}

void PinsPanel::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const int left = theme::margin, right = width() - theme::margin;
    int y = 4;
    for (std::size_t i = 0; i < pins_.size(); ++i) {
        const PinReadout& pin = pins_[i];
        if (hasFocus() && static_cast<int>(i) == chosen_)
            painter.fillRect(QRectF(0, y, 2.5, pin_height - 4), theme::accent);
        const QRect flag(left, y + 2, 15, 15);
        // The rule is looked into at the filled one.
        const bool active = model_.active_pin() && model_.active_pin()->number == pin.number;
        painter.fillRect(flag, theme::text);
        if (!active)
            painter.fillRect(flag.adjusted(1, 1, -1, -1), theme::chrome);
        painter.setPen(active ? QColor(Qt::white) : theme::text);
        painter.setFont(theme::face(11.5, true));
        painter.drawText(flag, Qt::AlignCenter, QString::number(pin.number));
        painter.setPen(theme::text);
        painter.setFont(theme::face());
        const QString where = painter.fontMetrics().elidedText(pin.readout.target + "  " + pin.readout.place,
                                                               Qt::ElideRight, right - left - 90);
        painter.drawText(QRect(left + 22, y, right - left - 22, line + 3), Qt::AlignLeft | Qt::AlignVCenter, where);
        if (!pin.readout.valid) {
            painter.setPen(theme::third);
            painter.drawText(QRect(left + 22, y + line, right - left - 22, line), Qt::AlignLeft | Qt::AlignVCenter,
                             tr("not on the sheet now"));
            y += pin_height;
            continue;
        }
        const std::vector<ReadoutRow> rows = rows_of(pin.readout);
        painter.setFont(theme::face(11.5, true));
        painter.drawText(QRect(left, y, right - left, line + 3), Qt::AlignRight | Qt::AlignVCenter,
                         QString::fromUtf8("\u0394"
                                           "E ") +
                             theme::number(rows.back().after, 1));
        const auto numbers = [&](int top, const QString& word, bool after) {
            painter.setFont(theme::face(11.5));
            painter.setPen(theme::third);
            painter.drawText(QRect(left + 22, top, 50, line), Qt::AlignLeft | Qt::AlignVCenter, word);
            const int step = (right - left - 62) / 3;
            for (std::size_t c = 0; c < 3; ++c) {
                const QRect cell(left + 62 + static_cast<int>(c) * step, top, step, line);
                painter.setPen(theme::text);
                painter.drawText(cell, Qt::AlignRight | Qt::AlignVCenter,
                                 theme::number(after ? rows[c].after : rows[c].before));
            }
        };
        numbers(y + line, tr("before"), false);
        numbers(y + 2 * line - 2, tr("after"), true);
        y += pin_height;
    }
}

void PinsPanel::choose(int index) {
    if (index < 0 || index >= static_cast<int>(pins_.size()))
        return;
    chosen_ = index;
    model_.set_active_pin(pins_[static_cast<std::size_t>(index)].number);
    emit chosen(pins_[static_cast<std::size_t>(index)].number);
    update();
}

void PinsPanel::mousePressEvent(QMouseEvent* event) {
    choose(static_cast<int>(event->position().y() - 4) / pin_height);
}

void PinsPanel::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down)
        choose(chosen_ + (event->key() == Qt::Key_Down ? 1 : -1));
    else if ((event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) && !pins_.empty())
        model_.remove_pin(pins_[static_cast<std::size_t>(chosen_)].number);
    else
        QWidget::keyPressEvent(event);
}

} // namespace kasuri::app
