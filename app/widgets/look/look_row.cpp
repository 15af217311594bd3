#include "widgets/look/look_row.hpp"

#include "widgets/look/look_actions.hpp"
#include "widgets/look/look_line.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/theme.hpp"

#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QToolButton>

namespace kasuri::app {

LookRow::LookRow(LookModel& look, LookActions& actions, QWidget* parent) : QWidget(parent), look_(look) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(8, 0, theme::margin, 1);
    row->setSpacing(4);
    line_ = new LookLine(look, this);
    add_ = new QToolButton(this);
    add_->setObjectName("add_step");
    add_->setText(QStringLiteral("+"));
    add_->setToolTip(tr("Another step behind the active one"));
    add_->setAccessibleName(tr("Add a step"));
    add_->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(add_);
    add_->setMenu(menu);
    connect(menu, &QMenu::aboutToShow, this, [&actions, menu] { actions.fill_add(*menu); });
    sums_ = quiet_label({}, this, 11.5);
    sums_->setObjectName("amounts");
    here_ = new QToolButton(this);
    here_->setObjectName("up_to_here");
    here_->setFont(theme::face(11.5));
    here_->setToolTip(tr(
        "Whether the sheet shows what all steps make together, or what comes out of the active step (Ctrl+Shift+U)"));
    connect(here_, &QToolButton::clicked, this, [this] { look_.set_up_to_here(!look_.up_to_here()); });
    row->addWidget(line_, 0);
    row->addWidget(add_);
    row->addStretch(1);
    row->addWidget(sums_);
    row->addSpacing(10);
    row->addWidget(here_);
    connect(line_, &LookLine::menu_wanted, this, [this, &actions](int index, const QPoint& at) {
        pop_up(this, at, [&](QMenu& step) { actions.fill_step(step, index); });
    });
    connect(line_, &LookLine::label_wanted, &actions, &LookActions::ask_label);
    connect(line_, &LookLine::files_dropped, &actions, &LookActions::add_files);
    connect(&look, &LookModel::changed, this, &LookRow::refresh);
    connect(&look, &LookModel::file_changed, this, &LookRow::refresh);
    refresh();
}

void LookRow::refresh() {
    setVisible(look_.is_look());
    here_->setText(look_.up_to_here() ? tr("shown: up to step %1").arg(look_.current() + 1) : tr("shown: all steps"));
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
