// What a user waits for, measured on the real window on Qt's offscreen platform: no timed tests, just figures.
#include "widgets/bench.hpp"
#include "widgets/cell_view.hpp"
#include "widgets/main_window.hpp"
#include "widgets/rule_editor.hpp"
#include "widgets/rule_panel.hpp"
#include "widgets/sheet_view.hpp"
#include "widgets/theme.hpp"

#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QFile>
#include <QTemporaryDir>
#include <QSettings>
#include <QTest>
#include <QTimer>

#include <algorithm>
#include <cstdio>
#include <vector>

using namespace kasuri::app;

namespace {

struct Times {
    double sheet = 0, all = 0; ///< milliseconds until the sheet, and until sheet and readings have been painted
};

/// Does something and waits for what it changes.
template <class Act>
Times times_of(MainWindow& window, Act&& act) {
    // A waiting loop, not a busy one: the other core belongs to the evaluation.
    QElapsedTimer timer;
    timer.start();
    QEventLoop loop;
    Times times;
    const auto painted = [&] {
        // What changed is painted, offscreen by the same raster engine as on screen.
        QCoreApplication::sendPostedEvents(nullptr, QEvent::UpdateRequest);
        return static_cast<double>(timer.nsecsElapsed()) / 1e6;
    };
    QObject::connect(&window, &MainWindow::sheet_shown, &loop, [&] { times.sheet = painted(); });
    QObject::connect(&window, &MainWindow::readings_shown, &loop, [&] {
        times.all = painted();
        loop.quit();
    });
    QTimer::singleShot(2000, &loop, &QEventLoop::quit);
    act();
    loop.exec();
    return times;
}

/// Until the proofs have come, too.
void settle(MainWindow& window) {
    QEventLoop loop;
    QTimer poll;
    QObject::connect(&poll, &QTimer::timeout, &loop, [&] {
        if (window.settled())
            loop.quit();
    });
    poll.start(1);
    loop.exec();
}

void print(const char* name, std::vector<double> times) {
    std::sort(times.begin(), times.end());
    std::printf("%-46s median %6.1f ms   95th percentile %6.1f ms   (%zu times)\n", name, times[times.size() / 2],
                times[times.size() * 95 / 100], times.size());
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    QTemporaryDir settings;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    QElapsedTimer start;
    start.start();
    QApplication application(argc, argv);
    theme::apply(application);
    MainWindow window;
    window.resize(1280, 800);
    Bench& bench = window.bench();
    const std::string pictures = KASURI_DEMO_DIR "/";
    bench.add_chart();
    bench.sheet().add_picture(pictures + "cloths.exr", "colour");
    bench.sheet().add_picture(pictures + "cloths.exr", "green");
    bench.sheet().add_picture(pictures + "puppet.exr", "colour");
    bench.open(KASURI_SOURCE_DIR "/data/filters/indigo-over-madder.kasuri");
    window.show();
    settle(window);
    window.repaint();
    std::printf("%-46s %6.0f ms\n", "start to first complete sheet", static_cast<double>(start.nsecsElapsed()) / 1e6);

    RuleEditor& editor = *window.rule_panel().editor();
    const int line = 11; // out.g = mix(g, shared, meet)
    editor.setCursorPosition(line - 1, editor.lineLength(line - 1) - 1);
    std::vector<double> keys, all_keys, proofs;
    for (int i = 0; i < 200; ++i) {
        QElapsedTimer timer;
        timer.start();
        // "* 1", "* 12", ... and back: every state compiles or is a short-lived error that costs the same
        static const char typed[] = {' ', '*', ' ', '1'};
        const Times times = times_of(window, [&] {
            if (i % 8 < 4)
                QTest::keyClick(&editor, typed[i % 4]);
            else
                QTest::keyClick(&editor, Qt::Key_Backspace);
        });
        keys.push_back(times.sheet);
        all_keys.push_back(times.all);
        settle(window);
        proofs.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    print("keystroke to refreshed sheet", keys);
    print("keystroke to refreshed sheet and readings", all_keys);
    print("keystroke to refreshed proofs", proofs);
    std::vector<double> drags;
    for (int i = 0; i < 200; ++i)
        drags.push_back(times_of(window, [&] { bench.session().set_value(0, (i % 100 + 1) / 101.0); }).all);
    print("changed value to refreshed sheet and readings", drags);
    settle(window);
    // A value that is dragged: 125 moves of the mouse a second, for two seconds.
    int sheets = 0, readings = 0, moves = 0;
    QEventLoop dragging;
    QTimer mouse;
    QObject::connect(&window, &MainWindow::sheet_shown, &dragging, [&] { ++sheets; });
    QObject::connect(&window, &MainWindow::readings_shown, &dragging, [&] { ++readings; });
    QObject::connect(&mouse, &QTimer::timeout, &dragging, [&] {
        bench.session().set_value(0, (++moves % 100 + 1) / 101.0);
        if (moves == 250)
            dragging.quit();
    });
    QElapsedTimer dragged;
    dragged.start();
    mouse.start(8);
    dragging.exec();
    mouse.stop();
    const double seconds = static_cast<double>(dragged.nsecsElapsed()) / 1e9;
    std::printf("%-46s %6.1f sheets a second   %6.1f readings a second\n", "dragging a value", sheets / seconds, readings / seconds);
    settle(window);
    CellView& cell = *window.sheet_view().cell(bench.sheet().cells()[1].id);
    window.sheet_view().set_alone(cell.id());
    settle(window);
    std::vector<double> pans, zooms;
    cell.zoom_to(1);
    settle(window);
    for (int i = 0; i < 200; ++i)
        pans.push_back(times_of(window, [&] { QTest::keyClick(&cell, i % 2 == 0 ? Qt::Key_Right : Qt::Key_Left, Qt::ShiftModifier); }).all);
    for (int i = 0; i < 200; ++i)
        zooms.push_back(times_of(window, [&] { cell.zoom_to(1.1 + 0.1 * (i % 8)); }).all);
    print("pan, one cell filling the sheet", pans);
    print("zoom, the same", zooms);
    QFile status("/proc/self/status");
    if (status.open(QIODevice::ReadOnly))
        for (const QByteArray& entry : status.readAll().split('\n'))
            if (entry.startsWith("VmHWM"))
                std::printf("%-46s %6.0f MB\n", "most memory in use", entry.mid(6).trimmed().split(' ').front().toDouble() / 1024);
    bench.session().undo_stack().setClean();
    return 0;
}
