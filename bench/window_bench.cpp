// What a user waits for, measured on the real window on Qt's offscreen platform: no timed tests, just figures.
#include "widgets/bench.hpp"
#include "widgets/main_window.hpp"
#include "widgets/rule_editor.hpp"
#include "widgets/rule_panel.hpp"
#include "widgets/theme.hpp"

#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QTemporaryDir>
#include <QSettings>
#include <QTest>
#include <QTimer>

#include <algorithm>
#include <cstdio>
#include <vector>

using namespace kasuri::app;

namespace {

/// Waits for the sheet of the newest request and for it to be painted; milliseconds since `timer` started.
double until_shown(MainWindow& window, QElapsedTimer& timer) {
    // A waiting loop, not a busy one: the other core belongs to the evaluation.
    QEventLoop loop;
    QObject::connect(&window, &MainWindow::sheet_shown, &loop, &QEventLoop::quit);
    QTimer::singleShot(10000, &loop, &QEventLoop::quit);
    loop.exec();
    window.repaint(); // offscreen painting is done by the same raster engine as on screen
    QApplication::processEvents();
    return static_cast<double>(timer.nsecsElapsed()) / 1e6;
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
    std::vector<double> keys, proofs;
    for (int i = 0; i < 200; ++i) {
        QElapsedTimer timer;
        timer.start();
        // "* 1", "* 12", ... and back: every state compiles or is a short-lived error that costs the same
        static const char typed[] = {' ', '*', ' ', '1'};
        if (i % 8 < 4)
            QTest::keyClick(&editor, typed[i % 4]);
        else
            QTest::keyClick(&editor, Qt::Key_Backspace);
        keys.push_back(until_shown(window, timer));
        settle(window);
        proofs.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    print("keystroke to refreshed sheet", keys);
    print("keystroke to refreshed proofs", proofs);
    std::vector<double> drags;
    for (int i = 0; i < 200; ++i) {
        QElapsedTimer timer;
        timer.start();
        bench.session().set_value(0, (i % 100 + 1) / 101.0);
        drags.push_back(until_shown(window, timer));
    }
    print("changed value to refreshed sheet", drags);
    bench.session().undo_stack().setClean();
    return 0;
}
