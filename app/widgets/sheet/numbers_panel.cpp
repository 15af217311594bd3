#include "widgets/sheet/numbers_panel.hpp"

#include "widgets/parts/theme.hpp"

#include <QPainter>

namespace kasuri::app {
namespace {
constexpr int row_height = 16;
}

NumbersPanel::NumbersPanel(QWidget* parent) : QWidget(parent) { setAccessibleName(tr("Numbers under the pointer")); }

void NumbersPanel::show_readout(const Readout& readout) {
    readout_ = readout;
    update();
}

void NumbersPanel::set_model(const colour::Model& model) {
    model_ = &model;
    update();
}

void NumbersPanel::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const int right = width() - theme::margin;
    painter.setFont(theme::face());
    painter.setPen(theme::text);
    if (!readout_.valid) {
        painter.setPen(theme::third);
        painter.drawText(QRect(theme::margin, 8, right - theme::margin, 40),
                         Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                         tr("Point at a strip or a cell to read its numbers."));
        return;
    }
    painter.drawText(QRect(theme::margin, 4, right, 20), Qt::AlignLeft | Qt::AlignVCenter, readout_.target);
    painter.setFont(theme::face(11.5));
    painter.setPen(theme::second);
    painter.drawText(QRect(0, 4, right, 20), Qt::AlignRight | Qt::AlignVCenter, readout_.place);
    const int change = right, after = right - 72, before = right - 128;
    int y = 22;
    const auto column = [&](int x, const QString& text) {
        painter.drawText(QRect(x - 70, y, 70, row_height), Qt::AlignRight | Qt::AlignVCenter, text);
    };
    column(before, painter.fontMetrics().elidedText(before_name_, Qt::ElideMiddle, 60));
    column(after, tr("after"));
    column(change, tr("change"));
    y += row_height + 2;
    int index = 0;
    const std::vector<ReadoutRow> rows = rows_of(readout_, *model_);
    for (const ReadoutRow& row : rows) {
        const bool last = index + 1 == static_cast<int>(rows.size());
        if (index == 5 || last) {
            painter.fillRect(theme::margin, y, right - theme::margin, 1, theme::hairline);
            y += 2;
        }
        painter.setFont(theme::face(12.5, row.strong));
        painter.setPen(row.strong ? theme::trace[index] : theme::text);
        painter.drawText(QRect(theme::margin, y, 60, row_height), Qt::AlignLeft | Qt::AlignVCenter, row.name);
        painter.setFont(theme::face());
        painter.setPen(theme::text);
        if (last) { // one number, of both
            column(change, theme::number(row.after, row.decimals));
            break;
        }
        column(before, theme::number(row.before, row.decimals));
        column(after, theme::number(row.after, row.decimals));
        const double by = row.after - row.before;
        QString moved = theme::number(by, row.decimals);
        if (by > 0 && moved != theme::number(0, row.decimals))
            moved = "+" + moved;
        column(change, moved);
        y += row_height;
        ++index;
    }
}

} // namespace kasuri::app
