#include "widgets/frame/window_layout.hpp"

#include <QEvent>
#include <QScrollArea>
#include <QScrollBar>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr double rule_share = 0.45; ///< of the left column: the least that the rule keeps
constexpr int least_below = 90, least_left = 260;

void stretch(PartSplitter& splitter, const QList<int>& sizes, int first, int second) {
    splitter.set_usual(sizes);
    splitter.setStretchFactor(0, first);
    splitter.setStretchFactor(1, second);
}

QVBoxLayout* column(QWidget* of) {
    auto* layout = new QVBoxLayout(of);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    return layout;
}

} // namespace

WindowLayout::WindowLayout(QWidget* window, const Parts& parts)
    : QObject(window), outer_(new PartSplitter(Qt::Horizontal, window)), middle_(new PartSplitter(Qt::Vertical)),
      columns_(new PartSplitter(Qt::Horizontal)), left_(new PartSplitter(Qt::Vertical)),
      right_(new PartSplitter(Qt::Vertical)), below_(new QScrollArea) {
    auto* tuning = new QWidget;
    QVBoxLayout* rows_below = column(tuning);
    for (QWidget* part : {parts.values, parts.step, parts.sources, parts.mix})
        rows_below->addWidget(part);
    rows_below->addStretch(1);
    below_->setFrameShape(QFrame::NoFrame);
    below_->setWidgetResizable(true);
    below_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    below_->setMinimumHeight(least_below);
    below_->setFocusPolicy(Qt::NoFocus); // what is in it has it
    below_->setWidget(tuning);
    left_->addWidget(parts.rule);
    left_->addWidget(below_);
    columns_->addWidget(left_);
    columns_->addWidget(parts.sheet);
    middle_->addWidget(columns_);
    middle_->addWidget(parts.library);
    right_->addWidget(parts.readings); // the library leaves the readings their height
    right_->addWidget(parts.pointer);
    outer_->addWidget(middle_);
    outer_->addWidget(right_);
    left_->installEventFilter(this);
    tuning->installEventFilter(this);
    connect(left_, &QSplitter::splitterMoved, this, [this] { pulled_ = true; });
    connect(left_, &PartSplitter::reset, this, [this] {
        pulled_ = false;
        fit_below();
    });
    right_->setMinimumWidth(200);
    stretch(*left_, {490, 190}, 1, 0);
    stretch(*right_, {486, 208}, 1, 0);
    stretch(*middle_, {500, 196}, 1, 0);
    // A wider window widens the columns too, the sheet most.
    stretch(*columns_, {366, 630}, 20, 67);
    stretch(*outer_, {996, 284}, 87, 13);
    QVBoxLayout* rows = column(window);
    rows->addWidget(parts.top);
    rows->addWidget(parts.first);
    rows->addWidget(parts.look);
    rows->addWidget(outer_, 1);
    rows->addWidget(parts.proofs);
    rows->addWidget(parts.status);
}

void WindowLayout::fit_below() {
    // It scrolls up and down only.
    left_->setMinimumWidth(std::max(
        least_left, below_->widget()->minimumSizeHint().width() + below_->verticalScrollBar()->sizeHint().width()));
    const int all = left_->height() - left_->handleWidth();
    if (pulled_ || all <= 0)
        return;
    const int rule = std::max(left_->widget(0)->minimumSizeHint().height(), static_cast<int>(all * rule_share)),
              wanted = below_->widget()->sizeHint().height(),
              below = std::max(least_below, std::min(wanted, all - rule));
    if (left_->sizes() != QList<int>{all - below, below})
        left_->setSizes({all - below, below});
}

bool WindowLayout::eventFilter(QObject* object, QEvent* event) {
    const bool other_size = object == left_ && event->type() == QEvent::Resize,
               other_parts = object == below_->widget() && event->type() == QEvent::LayoutRequest;
    if (other_size || other_parts)
        QTimer::singleShot(0, this, &WindowLayout::fit_below); // once it is laid out
    return QObject::eventFilter(object, event);
}

void WindowLayout::reveal(QWidget& part) {
    QTimer::singleShot(0, &part, [this, &part] { below_->ensureWidgetVisible(&part, 0, 0); });
}

std::vector<WindowLayout::Kept> WindowLayout::kept() const {
    return {{"window/outer", outer_},
            {"window/two_columns", columns_},
            {"window/left", left_},
            {"window/right", right_},
            {"window/middle", middle_}};
}

void WindowLayout::store(QSettings& settings) const {
    for (const Kept& each : kept())
        settings.setValue(each.key, each.splitter->saveState());
    settings.setValue("window/pulled", pulled_);
}

void WindowLayout::restore(const QSettings& settings) {
    for (const Kept& each : kept())
        each.splitter->restoreState(settings.value(each.key).toByteArray());
    for (const Kept& each : kept()) // a state brings its own, from before boundaries were kept thin
        each.splitter->setHandleWidth(1);
    pulled_ = settings.value("window/pulled").toBool();
}

} // namespace kasuri::app
