// Long work and painting do not wait for each other.
#include "model/background.hpp"
#include "support/support.hpp"

#include <QImage>
#include <QPainter>
#include <QSemaphore>
#include <QThread>

#include <memory>
#include <thread>

using namespace kasuri::app;

namespace {

/// Fills every thread of a pool with work that stands still until it goes out of scope.
struct Standstill {
    QThreadPool& pool;
    QSemaphore go;
    explicit Standstill(QThreadPool& of) : pool(of) {
        for (int i = 0; i < pool.maxThreadCount(); ++i)
            pool.start([this] { go.acquire(); });
        while (pool.activeThreadCount() < pool.maxThreadCount())
            QThread::msleep(1);
    }
    ~Standstill() {
        go.release(pool.maxThreadCount());
        pool.waitForDone();
    }
};

/// Whether a large area is painted within a second. Qt shares the work out over threads of its own pool.
bool painted() {
    const auto done = std::make_shared<QSemaphore>();
    std::thread painting([done] {
        QImage area(1600, 1000, QImage::Format_ARGB32_Premultiplied);
        QPainter painter(&area);
        painter.fillRect(area.rect(), QColor(10, 20, 30, 100));
        painter.drawImage(0, 0, area.copy());
        done->release();
    });
    painting.detach(); // where it waits, it goes on once the pool does
    return done->tryAcquire(1, 1000);
}

} // namespace

TEST_CASE("the window is painted while all threads of long work stand still", "[gui][background]") {
    const Standstill still(background());
    CHECK(painted());
}
