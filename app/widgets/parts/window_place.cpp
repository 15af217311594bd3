#include "widgets/parts/window_place.hpp"

#include <QEvent>
#include <QScreen>
#include <QSettings>
#include <QWidget>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr int apart = 12; ///< pixels from what it speaks of

class Keeper : public QObject {
public:
    Keeper(QWidget& window, QString key) : QObject(&window), window_(window), key_(std::move(key)) {
        window.installEventFilter(this);
    }

protected:
    bool eventFilter(QObject* object, QEvent* event) override {
        if (object == &window_ && (event->type() == QEvent::Hide || event->type() == QEvent::Close))
            QSettings().setValue(key_, window_.saveGeometry());
        return QObject::eventFilter(object, event);
    }

private:
    QWidget& window_;
    QString key_;
};

} // namespace

void place_beside(QWidget& window, const QWidget& part, const QString& key) {
    const QString kept = "place/" + key;
    new Keeper(window, kept);
    if (window.restoreGeometry(QSettings().value(kept).toByteArray()))
        return;
    const QRect screen = part.screen()->availableGeometry(), there(part.mapToGlobal(QPoint(0, 0)), part.size());
    int x = there.right() + apart;
    if (x + window.width() > screen.right() && there.left() - apart - window.width() >= screen.left())
        x = there.left() - apart - window.width();
    window.move(std::clamp(x, screen.left(), std::max(screen.left(), screen.right() - window.width())),
                std::clamp(there.top(), screen.top(), std::max(screen.top(), screen.bottom() - window.height())));
}

} // namespace kasuri::app
