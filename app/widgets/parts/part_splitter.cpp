#include "widgets/parts/part_splitter.hpp"

#include "widgets/parts/theme.hpp"

#include <QKeyEvent>
#include <QPainter>

namespace kasuri::app {
namespace {

constexpr int stride = 16; ///< pixels, of an arrow key

class Handle : public QSplitterHandle {
public:
    Handle(Qt::Orientation orientation, PartSplitter* splitter)
        : QSplitterHandle(orientation, splitter), splitter_(splitter) {
        setFocusPolicy(Qt::TabFocus);
        setAccessibleName(PartSplitter::tr("Boundary: arrow keys move it"));
    }

protected:
    void keyPressEvent(QKeyEvent* event) override {
        const bool beside = orientation() == Qt::Horizontal;
        const int back = beside ? Qt::Key_Left : Qt::Key_Up, on = beside ? Qt::Key_Right : Qt::Key_Down;
        if (event->key() == Qt::Key_Home)
            return splitter_->back_to_usual();
        if (event->key() != back && event->key() != on)
            return QSplitterHandle::keyPressEvent(event);
        const int by = event->modifiers().testFlag(Qt::ShiftModifier) ? 1 : stride;
        // Where its line is, which is not its edge: it can be gripped a little beside the line.
        const QPoint line = mapToParent(contentsRect().topLeft());
        moveSplitter((beside ? line.x() : line.y()) + (event->key() == on ? by : -by));
    }
    void mouseDoubleClickEvent(QMouseEvent*) override { splitter_->back_to_usual(); }
    void focusInEvent(QFocusEvent* event) override {
        clearMask();
        QSplitterHandle::focusInEvent(event);
        update();
    }
    void focusOutEvent(QFocusEvent* event) override {
        setMask(contentsRect());
        QSplitterHandle::focusOutEvent(event);
        update();
    }
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.fillRect(hasFocus() ? rect() : contentsRect(), hasFocus() ? theme::accent : theme::hairline);
    }

private:
    PartSplitter* splitter_;
};

} // namespace

PartSplitter::PartSplitter(Qt::Orientation orientation, QWidget* parent) : QSplitter(orientation, parent) {
    setHandleWidth(1);
    setChildrenCollapsible(false);
}

void PartSplitter::set_usual(const QList<int>& sizes) {
    usual_ = sizes;
    setSizes(sizes);
}

void PartSplitter::back_to_usual() {
    if (!usual_.isEmpty())
        setSizes(usual_);
    emit reset();
}

QSplitterHandle* PartSplitter::createHandle() { return new Handle(orientation(), this); }

} // namespace kasuri::app
