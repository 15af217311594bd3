#include "widgets/sheet/torn_window.hpp"

#include <QCloseEvent>
#include <QSplitter>
#include <QVBoxLayout>

#include <utility>

namespace kasuri::app {

TornWindow::TornWindow(QWidget* part, QSplitter& home, const QString& title)
    : QWidget(home.window(), Qt::Window), part_(part), home_(&home), place_(home.indexOf(part)),
      sizes_(home.saveState()) {
    setWindowTitle(title);
    resize(part->size().expandedTo({900, 640}));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(part);
    part->show();
    // What is done by keys in the main window is done here too.
    addActions(home.window()->actions());
}

TornWindow::~TornWindow() { give_back(); }

void TornWindow::give_back() {
    const QPointer<QWidget> part = std::exchange(part_, nullptr);
    if (!part || !home_)
        return;
    home_->insertWidget(place_, part);
    home_->restoreState(sizes_);
    part->show();
    emit given_back();
}

void TornWindow::closeEvent(QCloseEvent* event) {
    give_back();
    event->accept();
    deleteLater();
}

} // namespace kasuri::app
