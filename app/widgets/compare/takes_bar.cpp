#include "widgets/compare/takes_bar.hpp"

#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "widgets/compare/compare_actions.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/theme.hpp"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QMenu>
#include <QToolButton>

#include <algorithm>
#include <memory>

#include <utility>

namespace kasuri::app {
namespace {
constexpr int longest_name = 90, all_names = 240; ///< pixels: of one, and of all that are shown
constexpr int narrow = 45;                        ///< where only what stands before a colon is shown
constexpr int max_shown = 6;                      ///< the last ones; the menu of each has them all
constexpr int rest_ms = 150;                      ///< so long the pointer rests on a take before it is shown
} // namespace

TakesBar::TakesBar(Bench& bench, CompareActions& compare, QWidget* parent)
    : QWidget(parent), bench_(bench), compare_(compare) {
    row_ = new QHBoxLayout(this);
    row_->setContentsMargins(0, 0, 0, 0);
    row_->setSpacing(2);
    word_ = quiet_label(tr("take"), this);
    row_->addWidget(word_);
    keep_ = new QToolButton(this);
    keep_->setObjectName("keep_take");
    keep_->setToolTip(
        tr("Remember rule and values as a take, to flip back to (Ctrl+T; Alt+PageUp and Alt+PageDown flip)"));
    keep_->setAccessibleName(tr("Remember a take"));
    connect(keep_, &QToolButton::clicked, &compare_, &CompareActions::remember_take);
    row_->addWidget(keep_);
    connect(&bench_.takes(), &TakesModel::changed, this, &TakesBar::refresh);
    rest_.setSingleShot(true);
    rest_.setInterval(rest_ms);
    connect(&rest_, &QTimer::timeout, this, &TakesBar::try_out);
    // What is written or tuned is seen at once, whatever the pointer rests on.
    for (const auto change : {&Session::text_changed, &Session::values_changed})
        connect(&bench_.session(), change, this, [this] { bench_.sheet().try_take(nullptr); });
    refresh();
}

void TakesBar::refresh() {
    const TakesModel& takes = bench_.takes();
    // Text and values change with every key; what is seen here seldom does.
    QStringList state = {QString::number(takes.current())};
    for (int i = 0; i < static_cast<int>(takes.takes().size()); ++i)
        state << takes.name(i);
    if (state == std::exchange(shown_, state))
        return;
    const int count = static_cast<int>(takes.takes().size()), first = std::max(0, count - max_shown);
    while (static_cast<int>(buttons_.size()) > count - first) {
        buttons_.back()->deleteLater();
        buttons_.pop_back();
    }
    while (static_cast<int>(buttons_.size()) < count - first) {
        auto* button = new QToolButton(this);
        button->setContextMenuPolicy(Qt::CustomContextMenu);
        button->installEventFilter(this);
        const int place = static_cast<int>(buttons_.size());
        connect(button, &QToolButton::clicked, this,
                [this, place] { bench_.takes().flip_to(index_of(buttons_[static_cast<std::size_t>(place)])); });
        connect(button, &QToolButton::customContextMenuRequested, this, [this, button](const QPoint& at) {
            pop_up(button, button->mapToGlobal(at), [&](QMenu& menu) { fill_menu(menu, index_of(button)); });
        });
        row_->insertWidget(place + 1, button);
        buttons_.push_back(button);
    }
    const int current = takes.current(), room = std::min(longest_name, all_names / std::max(1, count - first));
    for (int i = first; i < count; ++i) {
        QToolButton* button = buttons_[static_cast<std::size_t>(i - first)];
        QFont font = theme::face(12.5, i == current);
        font.setUnderline(i == current);
        button->setFont(font);
        const QString name = takes.name(i);
        button->setText(
            QFontMetrics(font).elidedText(room < narrow ? name.section(':', 0, 0) : name, Qt::ElideRight, room));
        button->setToolTip(tr("Take %1: seen on the sheet while the pointer rests here; click flips to it, right click "
                              "for its name and the rest")
                               .arg(name));
        button->setAccessibleName(i == current ? tr("Take %1, in force").arg(name) : tr("Take %1").arg(name));
        button->show();
    }
    word_->setVisible(count > 0);
    keep_->setText(count == 0 ? tr("remember a take") : QStringLiteral("+"));
    keep_->setEnabled(current < 0);
}

int TakesBar::index_of(const QObject* button) const {
    const auto found = std::find(buttons_.begin(), buttons_.end(), button);
    const int count = static_cast<int>(bench_.takes().takes().size());
    return static_cast<int>(found - buttons_.begin()) + std::max(0, count - max_shown);
}

bool TakesBar::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Enter) {
        under_pointer_ = watched;
        rest_.start();
    } else if (event->type() == QEvent::Leave || event->type() == QEvent::Hide) {
        under_pointer_ = nullptr;
        rest_.stop();
        bench_.sheet().try_take(nullptr);
    }
    return QWidget::eventFilter(watched, event);
}

void TakesBar::try_out() {
    const int index = under_pointer_ ? index_of(under_pointer_) : -1;
    if (index < 0 || index >= static_cast<int>(bench_.takes().takes().size()) || index == bench_.takes().current())
        return;
    auto take = std::make_shared<Take>(bench_.takes().takes()[static_cast<std::size_t>(index)]);
    take->name = bench_.takes().name(index).toStdString();
    bench_.sheet().try_take(std::move(take));
}

void TakesBar::fill_menu(QMenu& menu, int index) {
    TakesModel& takes = bench_.takes();
    const QString name = takes.name(index);
    menu.addAction(tr("Flip to %1").arg(name), this, [this, index] { bench_.takes().flip_to(index); });
    menu.addAction(tr("Compare with %1").arg(name), this, [this, index] { compare_.with_take(index); });
    menu.addAction(bench_.sheet().shows_takes() ? tr("Put the takes on the sheet away")
                                                : tr("See all takes side by side"),
                   &compare_, &CompareActions::show_takes);
    menu.addAction(tr("Name\u2026"), this, [this, index] { ask_name(index); });
    menu.addAction(tr("Write it as a filter\u2026"), this, [this, index] { ask_filter(index); });
    menu.addAction(tr("Remove"), this, [this, index] { bench_.takes().remove(index); });
    if (takes.takes().size() > 1) {
        menu.addSeparator();
        for (int i = 0; i < static_cast<int>(takes.takes().size()); ++i) {
            QAction* action =
                menu.addAction(tr("take %1").arg(takes.name(i)), this, [this, i] { bench_.takes().flip_to(i); });
            action->setCheckable(true);
            action->setChecked(i == takes.current());
        }
    }
}

void TakesBar::ask_name(int index) {
    bool accepted = false;
    const QString name = QInputDialog::getText(this, tr("Name the take"), tr("Name of the take:"), QLineEdit::Normal,
                                               bench_.takes().name(index), &accepted);
    if (accepted)
        bench_.takes().rename(index, name);
}

void TakesBar::ask_filter(int index) {
    QString file = QFileDialog::getSaveFileName(
        this, tr("Write the take as a filter"),
        with_ending(bench_.session().display_name() + "-" + bench_.takes().name(index), FileKind::filter),
        tr("Filters (%1)").arg(patterns({FileKind::filter})));
    file = with_ending(file, FileKind::filter);
    if (!file.isEmpty())
        compare_.write_take(index, file);
}

} // namespace kasuri::app
