#include "model/background.hpp"

#include <QCoreApplication>

namespace kasuri::app {

QThreadPool& background() {
    static QThreadPool pool;
    static const bool waits = [] { // as Qt does with its own
        qAddPostRoutine([] { pool.waitForDone(); });
        return true;
    }();
    (void)waits;
    return pool;
}

} // namespace kasuri::app
