#include "widgets/frame/window_layout.hpp"

#include <QSplitter>
#include <QTimer>
#include <QVBoxLayout>

namespace kasuri::app {
namespace {

void stretch(QSplitter& splitter, const QList<int>& sizes, int first, int second) {
    splitter.setHandleWidth(1);
    splitter.setChildrenCollapsible(false);
    splitter.setSizes(sizes);
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
    : outer_(new QSplitter(Qt::Horizontal, window)), middle_(new QSplitter(Qt::Vertical)),
      columns_(new QSplitter(Qt::Horizontal)), left_(new QSplitter(Qt::Vertical)), right_(new QSplitter(Qt::Vertical)) {
    auto* tuning = new QWidget;
    QVBoxLayout* below = column(tuning);
    below->addWidget(parts.values, 1);
    for (QWidget* part : {parts.step, parts.sources, parts.mix})
        below->addWidget(part);
    left_->addWidget(parts.rule);
    left_->addWidget(tuning);
    columns_->addWidget(left_);
    columns_->addWidget(parts.sheet);
    middle_->addWidget(columns_);
    middle_->addWidget(parts.library);
    right_->addWidget(parts.readings); // the library leaves the readings their height
    right_->addWidget(parts.pointer);
    outer_->addWidget(middle_);
    outer_->addWidget(right_);
    left_->setMinimumWidth(260);
    right_->setMinimumWidth(200);
    stretch(*left_, {490, 190}, 1, 0);
    stretch(*right_, {486, 208}, 1, 0);
    stretch(*middle_, {500, 196}, 1, 0);
    // A wider window widens the columns too, the sheet most.
    stretch(*columns_, {366, 630}, 20, 67);
    stretch(*outer_, {996, 284}, 87, 13);
    QVBoxLayout* rows = column(window);
    rows->addWidget(parts.top);
    rows->addWidget(parts.look);
    rows->addWidget(outer_, 1);
    rows->addWidget(parts.proofs);
    rows->addWidget(parts.status);
}

void WindowLayout::show_step(QWidget& panel, bool shown) {
    if (shown == panel.isVisibleTo(panel.parentWidget()))
        return;
    panel.setVisible(shown);
    const int by = (shown ? 1 : -1) * (panel.sizeHint().height() - 40);
    QTimer::singleShot(0, left_, [left = left_, by] { // once it is laid out
        const QList<int> sizes = left->sizes();
        left->setSizes({sizes[0] - by, sizes[1] + by});
    });
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
}

void WindowLayout::restore(const QSettings& settings) {
    for (const Kept& each : kept())
        each.splitter->restoreState(settings.value(each.key).toByteArray());
}

} // namespace kasuri::app
