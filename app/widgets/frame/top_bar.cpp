#include "widgets/frame/top_bar.hpp"

#include "widgets/parts/heading.hpp"
#include "widgets/parts/space_menu.hpp"
#include "widgets/parts/theme.hpp"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QPushButton>
#include <QToolButton>

namespace kasuri::app {

TopBar::TopBar(QMenu* menu, QWidget* parent) : QWidget(parent) {
    setFixedHeight(42);
    auto* row = row_ = new QHBoxLayout(this);
    row->setContentsMargins(8, 0, theme::margin, 1);
    row->setSpacing(8);
    menu_ = new QToolButton(this);
    menu_->setText(QString::fromUtf8("Kasuri \u25be"));
    menu_->setFont(theme::face(12.5, true));
    menu_->setMenu(menu);
    menu_->setPopupMode(QToolButton::InstantPopup);
    menu_->setAccessibleName(tr("Menu"));
    file_ = quiet_label({}, this);
    step_ = new QLabel(this);
    step_->setFont(theme::face(12.5, true));
    working_ = new QLabel(this);
    auto* working_word = quiet_label(tr("working"), this);
    auto* display_word = quiet_label(tr("display"), this);
    display_ = new QToolButton(this);
    screen_menu_ = new QMenu(display_);
    connect(screen_menu_, &QMenu::aboutToShow, this, &TopBar::fill_screen_menu);
    display_->setMenu(screen_menu_);
    display_->setPopupMode(QToolButton::InstantPopup);
    display_->setAccessibleName(tr("Display"));
    display_->setToolTip(tr("The screen that pictures are shown on, and what happens to colours that it cannot show"));
    set_screen({});
    add_ = new QToolButton(this);
    add_->setObjectName("second_step");
    add_->setText(tr("+ step"));
    add_->setToolTip(tr("A second step: then it is a look"));
    add_->setAccessibleName(tr("Add a step"));
    add_->setPopupMode(QToolButton::InstantPopup);
    auto* steps = new QMenu(add_);
    connect(steps, &QMenu::aboutToShow, this, [this, steps] { emit add_opening(*steps); });
    add_->setMenu(steps);
    before_ = new QPushButton(tr("Before   hold F9"), this);
    before_->setAccessibleName(tr("Show before while held"));
    connect(before_, &QPushButton::pressed, this, [this] { emit before_held(true); });
    connect(before_, &QPushButton::released, this, [this] { emit before_held(false); });
    against_ = new QToolButton(this);
    against_->setObjectName("against");
    auto* against_menu = new QMenu(against_);
    connect(against_menu, &QMenu::aboutToShow, this, [this, against_menu] { emit against_opening(*against_menu); });
    against_->setMenu(against_menu);
    against_->setPopupMode(QToolButton::InstantPopup);
    against_->setAccessibleName(tr("What before is"));
    set_against({});
    row->addWidget(menu_);
    row->addWidget(file_);
    row->addSpacing(18);
    row->addWidget(step_);
    row->addWidget(add_);
    row->addStretch(1);
    row->addWidget(working_word);
    row->addWidget(working_);
    row->addSpacing(12);
    row->addWidget(display_word);
    row->addWidget(display_);
    row->addSpacing(12);
    row->addWidget(against_);
    row->addWidget(before_);
}

void TopBar::set_step(const QString& title, const QString& file, bool modified, bool is_look) {
    step_->setText(title);
    is_look_ = is_look;
    add_->setVisible(!is_look);
    file_->setText(file + (modified ? tr("  \u2013 not saved") : QString()));
    update();
}

void TopBar::open_menu() {
    QMenu* const menu = menu_->menu();
    menu->popup(menu_->mapToGlobal(QPoint(0, menu_->height())));
    menu->setActiveAction(menu->actions().value(0)); // the keyboard asked for it
}

void TopBar::add_takes(QWidget* takes) { row_->insertWidget(row_->indexOf(add_) + 1, takes); }

void TopBar::set_working(const QString& space) { working_->setText(space); }

void TopBar::set_screen(const Screen& screen) {
    screen_ = screen;
    display_->setText(QString::fromStdString(screen.space) +
                      (screen.limits == Limits::soft ? tr(", soft") : QString()) + QString::fromUtf8(" \u25be"));
}

void TopBar::set_against(const QString& name, const QString& fault) {
    const QString shown =
        name.isEmpty() ? tr("the picture") : against_->fontMetrics().elidedText(name, Qt::ElideMiddle, 150);
    against_->setText(tr("against %1").arg(shown) + (fault.isEmpty() ? QString() : tr(" \u2013 does not compile")) +
                      QString::fromUtf8(" \u25be"));
    against_->setToolTip(
        !fault.isEmpty()     ? tr("%1 does not compile (%2): before is the picture as it comes").arg(name, fault)
            : name.isEmpty() ? tr("Before is the picture as it comes. Choose another rule to compare with, in cells, "
                                  "strips and readings")
                             : tr("Before is what %1 makes of the picture, in cells, strips and readings").arg(name));
}

void TopBar::fill_screen_menu() {
    screen_menu_->clear();
    const auto limits = [this](const QString& text, const QString& tip, Limits to) {
        QAction* action = screen_menu_->addAction(text, this, [this, to] {
            emit screen_chosen({screen_.space, to, screen_.surround});
        });
        action->setCheckable(true);
        action->setChecked(screen_.limits == to);
        action->setToolTip(tip);
    };
    limits(tr("hard limits"), tr("Each channel is cut off at 0 and 1"), Limits::hard);
    limits(tr("soft limits"), tr("Bright light bends towards white; what is still outside moves towards grey"),
           Limits::soft);
    QMenu* around = screen_menu_->addMenu(tr("surround"));
    around->setObjectName("surround");
    for (const Surround& row : surrounds()) {
        QAction* action = around->addAction(
            tr("%1 (L* %2)").arg(QCoreApplication::translate("Surrounds", row.title)).arg(row.lightness), this,
            [this, &row] {
                emit screen_chosen({screen_.space, screen_.limits, row.lightness});
            });
        action->setCheckable(true);
        action->setChecked(screen_.surround == row.lightness);
    }
    screen_menu_->addSeparator();
    add_spaces(
        *screen_menu_, screen_.space,
        [this](const std::string& space) {
            emit screen_chosen({space, screen_.limits, screen_.surround});
        },
        true);
}

void TopBar::set_before_shown(bool shown) { before_->setDown(shown); }

void TopBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(0, height() - 1, width(), 1, theme::hairline);
    if (!step_->text().isEmpty() && !is_look_) // the active step is underlined
        painter.fillRect(step_->x() - 2, height() - 8, step_->sizeHint().width() + 4, 2, theme::accent);
}

} // namespace kasuri::app
