#include "widgets/frame/application.hpp"

#include <QTimer>

#include <new>

namespace kasuri::app {

bool Application::notify(QObject* receiver, QEvent* event) {
    try {
        return QApplication::notify(receiver, event);
    } catch (const std::bad_alloc&) {
        if (!telling_) { // once for all that fails in a row
            telling_ = true;
            QTimer::singleShot(0, this, [this] {
                telling_ = false;
                emit said(
                    tr("There is not enough memory for that, so it was not done. Your text and values are safe; save "
                       "them, and close other pictures or programs."),
                    true);
            });
        }
        return false;
    }
}

} // namespace kasuri::app
