#include "widgets/look_row.hpp"

#include "widgets/bench.hpp"
#include "widgets/heading.hpp"
#include "widgets/look_actions.hpp"
#include "widgets/look_line.hpp"
#include "widgets/theme.hpp"

#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QToolButton>

namespace kasuri::app {

LookRow::LookRow(Bench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(8, 0, theme::margin, 1);
    row->setSpacing(4);
    line_ = new LookLine(bench.look(), this);
    add_ = new QToolButton(this);
    add_->setObjectName("add_step");
    add_->setText(QStringLiteral("+"));
    add_->setToolTip(tr("Another step behind the one in hand"));
    add_->setAccessibleName(tr("Add a step"));
    add_->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(add_);
    add_->setMenu(menu);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] { bench_.look_actions().fill_add(*menu); });
    sums_ = quiet_label({}, this, 11.5);
    sums_->setObjectName("amounts");
    here_ = new QToolButton(this);
    here_->setObjectName("up_to_here");
    here_->setFont(theme::face(11.5));
    here_->setToolTip(tr(
        "Whether the sheet shows what all steps make together, or what comes out of the step in hand (Ctrl+Shift+U)"));
    connect(here_, &QToolButton::clicked, this, [this] { bench_.look().set_up_to_here(!bench_.look().up_to_here()); });
    row->addWidget(line_, 0);
    row->addWidget(add_);
    row->addStretch(1);
    row->addWidget(sums_);
    row->addSpacing(10);
    row->addWidget(here_);
    connect(line_, &LookLine::menu_wanted, this, [this](int index, const QPoint& at) {
        QMenu step(this);
        bench_.look_actions().fill_step(step, index);
        step.exec(at);
    });
    connect(line_, &LookLine::label_wanted, &bench.look_actions(), &LookActions::ask_label);
    connect(line_, &LookLine::files_dropped, &bench.look_actions(), &LookActions::add_files);
    connect(&bench.look(), &LookModel::changed, this, &LookRow::refresh);
    connect(&bench.look(), &LookModel::file_changed, this, &LookRow::refresh);
    refresh();
}

void LookRow::refresh() {
    const LookModel& look = bench_.look();
    setVisible(look.is_look());
    here_->setText(look.up_to_here() ? tr("shown: up to step %1").arg(look.current() + 1) : tr("shown: all steps"));
}

void LookRow::show_amounts(const QString& amounts) {
    amounts_ = amounts;
    const QStringList lines = amounts.split('\n', Qt::SkipEmptyParts);
    sums_->setText(lines.isEmpty() ? QString()
                       : lines.size() > 1 && !lines.front().startsWith("steps")
                       ? lines.front() + QStringLiteral(" \u2026")
                       : lines.front());
    sums_->setToolTip(amounts.trimmed());
}

void LookRow::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(0, height() - 1, width(), 1, theme::hairline);
}

} // namespace kasuri::app
