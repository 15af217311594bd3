// What a user waits for, measured on the real window on Qt's offscreen platform: no timed tests, just figures.
#include "window_trace.hpp"

#include "base/file.hpp"
#include "base/timeline.hpp"
#include "io/picture_file.hpp"
#include "io/stretch.hpp"
#include "model/bench.hpp"
#include "targets/demo.hpp"
#include "widgets/files/files.hpp"
#include "widgets/files/recovery.hpp"
#include "widgets/frame/main_window.hpp"
#include "widgets/library/library_panel.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/readings/plot_view.hpp"
#include "widgets/sheet/cell_view.hpp"
#include "widgets/sheet/sheet_view.hpp"
#include "widgets/writing/rule_editor.hpp"
#include "widgets/writing/rule_panel.hpp"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QFile>
#include <QSettings>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <ctime>
#include <string>
#include <unistd.h>
#include <vector>

using namespace kasuri::app;

namespace {

struct Times {
    /// Milliseconds until what follows has been painted: a sheet, be it a coarse one; the exact sheet; the readings.
    double sheet = 0, exact = 0, all = 0;
};

/// Does something and waits for what it changes.
template <class Act>
Times times_of(MainWindow& window, Act&& act, std::string_view what = "action") {
    const kasuri::timeline::Stretch stretch(what);
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
    QObject::connect(&window, &MainWindow::sheet_shown, &loop, [&] {
        const double now = painted();
        times.sheet = times.sheet > 0 ? times.sheet : now; // a coarse one may come before the exact one
        if (!window.part<SheetView>().sheet()->coarse)
            times.exact = now;
        if (times.exact > 0 && times.all > 0)
            loop.quit();
    });
    QObject::connect(&window, &MainWindow::readings_shown, &loop, [&] {
        times.all = painted();
        if (times.exact > 0)
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

/// Milliseconds since the system began this process: what comes before main() belongs to a start, too (proc(5), on
/// ticks of 10 ms).
double age() {
    QFile stat("/proc/self/stat");
    if (!stat.open(QIODevice::ReadOnly))
        return 0;
    const QByteArray all = stat.readAll();
    const double began =
        all.mid(all.lastIndexOf(')') + 2).split(' ')[19].toDouble() / static_cast<double>(sysconf(_SC_CLK_TCK));
    timespec now{};
    clock_gettime(CLOCK_BOOTTIME, &now);
    return 1e3 * (static_cast<double>(now.tv_sec) + 1e-9 * static_cast<double>(now.tv_nsec) - began);
}

void print(const char* name, std::vector<double> times) {
    std::sort(times.begin(), times.end());
    std::printf("%-46s median %6.1f ms   95th percentile %6.1f ms   (%zu times)\n", name, times[times.size() / 2],
                times[times.size() * 95 / 100], times.size());
}

/// The memory that the process has, in MB, and the most it had: VmRSS and VmHWM of proc(5).
double megabytes(const char* which) {
    QFile status("/proc/self/status");
    if (status.open(QIODevice::ReadOnly))
        for (const QByteArray& entry : status.readAll().split('\n'))
            if (entry.startsWith(which))
                return entry.mid(6).trimmed().split(' ').front().toDouble() / 1024;
    return 0;
}

void memory() { std::printf("%-46s %6.0f MB\n", "most memory in use until now", megabytes("VmHWM")); }

/// The picture at another size.
void save_large(const std::string& from, const std::string& to, int width, int height) {
    const kasuri::Result<kasuri::image::Image> small = kasuri::io::load(from);
    const kasuri::image::Picture picture = *kasuri::image::picture_of(small.value(), "");
    kasuri::image::Image large = kasuri::image::image_of(kasuri::io::stretched(picture, width, height));
    large.depth = small.value().depth;
    if (!kasuri::io::save(to, large))
        std::abort();
}

/// A large picture alone on the sheet.
void large_picture(MainWindow& window, const std::string& from, const QString& place, int width = 3840,
                   int height = 2160) {
    Bench& bench = window.bench();
    const QString large = place + "/large.exr";
    save_large(from, large.toStdString(), width, height);
    for (const Cell& shown : std::vector<Cell>(bench.sheet().cells()))
        bench.sheet().remove(shown.id);
    bench.sheet().add_picture(large.toStdString(), "colour");
    settle(window);
    std::vector<double> coarse, exact, read;
    for (int i = 0; i < 40; ++i) {
        const Times times = times_of(window, [&] { bench.session().set_value(0, (i % 20 + 1) / 21.0); });
        read.push_back(times.all);
        coarse.push_back(times.sheet);
        exact.push_back(times.exact);
        settle(window);
    }
    const std::string size = std::to_string(width) + "x" + std::to_string(height);
    print((size + ", to the first sheet").c_str(), coarse);
    print((size + ", to the exact sheet").c_str(), exact);
    print((size + ", to sheet and readings").c_str(), read);
    memory();
}

/// The colour solid of 17 points an edge, turned by 3 degrees at a time and painted at the size of its own window.
void solid() {
    const kasuri::readings::Reading& reading = *kasuri::readings::find("solid");
    kasuri::readings::Views views;
    kasuri::readings::Order order;
    order.rule = [](const kasuri::image::Picture& picture) { return std::optional(picture); };
    order.settings = kasuri::completed(reading.settings, {});
    order.views = &views;
    const auto measured = std::make_shared<const kasuri::readings::Measured>(*reading.measure(order));
    PlotView plot;
    plot.resize(760, 620);
    plot.show_plot(reading.panels(order.settings), measured, measured);
    QImage paper(plot.size(), QImage::Format_RGB32);
    std::vector<double> turns;
    for (int i = 0; i < 120; ++i) {
        QElapsedTimer timer;
        timer.start();
        for (int k = 0; k < 3; ++k)
            QTest::keyClick(&plot, Qt::Key_Right, Qt::ShiftModifier);
        plot.render(&paper);
        turns.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    print("colour solid, 17 points, one turn painted", turns);
}

/// A numbered sequence of 1920x1080, half floats: how fast it goes by itself, and what is left out at 24 frames a
/// second.
void playback(MainWindow& window, const QString& place) {
    constexpr int frames = 24;
    const QString folder = place + "/played";
    QDir().mkpath(folder);
    for (int i = 0; i < frames; ++i) {
        kasuri::image::Image image = kasuri::image::image_of(kasuri::io::stretched(
            *kasuri::image::picture_of(kasuri::targets::demo_sequences()[0].make(i), ""), 1920, 1080));
        image.depth = kasuri::image::Depth::half;
        if (!kasuri::io::save(folder.toStdString() + "/swing." + std::to_string(1001 + i) + ".exr", image))
            std::abort();
    }
    Bench& bench = window.bench();
    for (const Cell& shown : std::vector<Cell>(bench.sheet().cells()))
        bench.sheet().remove(shown.id);
    const int id = bench.sheet().add_picture(folder.toStdString() + "/swing.1001.exr", "colour");
    settle(window);
    Playback& playback = bench.playback();
    const auto play = [&](const char* name, double rate, int rounds) {
        QElapsedTimer timer;
        int readings = 0;
        QObject guard;
        QObject::connect(&window, &MainWindow::readings_shown, &guard, [&] { ++readings; });
        playback.set_rate(rate);
        playback.play(id);
        timer.start();
        QEventLoop loop;
        QObject::connect(&playback, &Playback::changed, &loop, [&] {
            if (playback.counts().shown + playback.counts().left_out >= static_cast<std::size_t>(rounds * frames))
                loop.quit();
        });
        QTimer::singleShot(60'000, &loop, &QEventLoop::quit);
        loop.exec();
        const double seconds = static_cast<double>(timer.nsecsElapsed()) / 1e9;
        const Playback::Counts counts = playback.counts();
        playback.stop();
        std::printf("%-46s %6.1f frames a second   %6.1f readings a second   %zu of %zu left out, %.0f MB\n", name,
                    static_cast<double>(counts.shown) / seconds, readings / seconds, counts.left_out,
                    counts.shown + counts.left_out, static_cast<double>(playback.store().bytes()) / (1 << 20));
        settle(window);
    };
    play("1920x1080 played, every frame, first round", 0, 1);
    play("1920x1080 played, every frame, from memory", 0, 3);
    play("1920x1080 played at 24 frames a second", 24, 4);
}

/// Types a letter and takes it back, and moves a value, with everything that happens then on a time line.
void trace(MainWindow& window, const std::string& path) {
    RuleEditor& editor = *window.part<RulePanel>().editor();
    editor.setCursorPosition(10, editor.lineLength(10) - 1);
    std::vector<double> keys, all_keys, values, all_values;
    kasuri::timeline::begin();
    static const char typed[] = {' ', '*', ' ', '0', '.', '9'};
    int number = 0;
    for (int i = 0; i < 48; ++i) {
        const Times times = times_of(
            window,
            [&] {
                const kasuri::timeline::Stretch stretch("the key itself");
                if (i % 12 < 6)
                    QTest::keyClick(&editor, i % 12 == 5 ? static_cast<char>('1' + ++number % 9) : typed[i % 12]);
                else
                    QTest::keyClick(&editor, Qt::Key_Backspace);
            },
            "keystroke");
        settle(window);
        keys.push_back(times.sheet);
        all_keys.push_back(times.all);
    }
    for (int i = 0; i < 48; ++i) {
        const Times times = times_of(
            window, [&] { window.bench().session().set_value(0, (i + 1) / 49.0); }, "changed value");
        settle(window);
        values.push_back(times.sheet);
        all_values.push_back(times.all);
    }
    kasuri::timeline::end();
    if (const kasuri::Status saved = kasuri::write_file(path, kasuri::timeline::as_json()); !saved)
        std::printf("%s\n", saved.error().text().c_str());
    print("keystroke to refreshed sheet", keys);
    print("keystroke to refreshed sheet and readings", all_keys);
    print("changed value to refreshed sheet", values);
    print("changed value to refreshed sheet and readings", all_values);
    print_shares("keystroke");
    print_shares("changed value");
}

/// A rule of so many statements, each of which reads the one before, with a key typed in its middle.
void long_rule(MainWindow& window, int lines) {
    std::string text;
    for (int i = 0; i < lines - 1; ++i) {
        const std::string before = i == 0 ? "r" : "a" + std::to_string(i - 1);
        text += "let a" + std::to_string(i) + " = " + before + " * 0.999 + g * 0.0001\n";
    }
    text += "out.r = a" + std::to_string(lines - 2) + "\n";
    window.bench().session().apply_edit({0, window.bench().session().text(), text}, "a long rule");
    settle(window);
    RuleEditor& editor = *window.part<RulePanel>().editor();
    std::vector<double> keys, answers;
    for (int i = 0; i < 40; ++i) {
        const int line = lines / 2 + i; // another one each time: no rule has been computed before
        editor.setCursorPosition(line, editor.lineLength(line) - 1);
        settle(window);
        QElapsedTimer timer;
        timer.start();
        keys.push_back(times_of(
                           window,
                           [&] {
                               QTest::keyClick(&editor, '1');
                               answers.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
                           },
                           "keystroke in a long rule")
                           .sheet);
        settle(window);
    }
    print("5000 lines, keystroke until the key is taken", answers);
    print("5000 lines, keystroke to refreshed sheet", keys);
}

/// The same with everything that happens then on a time line.
void trace_long(MainWindow& window, const std::string& path) {
    kasuri::timeline::begin();
    long_rule(window, 5000);
    kasuri::timeline::end();
    if (const kasuri::Status saved = kasuri::write_file(path, kasuri::timeline::as_json()); !saved)
        std::printf("%s\n", saved.error().text().c_str());
    print_shares("keystroke in a long rule");
}

} // namespace

/// A library of 1000 filters is opened in the window: when it can be searched, what a search takes, when all thumbnails
/// are there.
void library(MainWindow& window, const QString& place) {
    const QString folder = place + "/thousand";
    QDir().mkpath(folder);
    for (int i = 0; i < 1000; ++i) {
        QFile file(folder + QString("/dip-%1.kasuri").arg(i));
        if (!file.open(QIODevice::WriteOnly))
            std::abort();
        file.write(QString("filter \"Dip %1\"\nnote \"Made to be found.\"\ntags \"dye\"\n\nparam k = 0 in 0 .. "
                           "1\npreset \"Full\" k = 1\nlet c = hsv(rgb)\nc.s *= 1 - k\nout.rgb = rgb(c)\n")
                       .arg(i)
                       .toUtf8());
    }
    LibraryModel& model = window.part<LibraryPanel>().model();
    const auto wait_for = [&](auto signal) {
        QEventLoop loop;
        QObject::connect(&model, signal, &loop, &QEventLoop::quit);
        QTimer::singleShot(120'000, &loop, &QEventLoop::quit);
        loop.exec();
    };
    QElapsedTimer timer;
    timer.start();
    window.part<LibraryPanel>().add_folder(folder);
    window.toggle_library();
    wait_for(&LibraryModel::read);
    const auto ready = timer.elapsed();
    const int all = model.all();
    timer.restart();
    model.set_query("dip 99 hsv");
    const double search = static_cast<double>(timer.nsecsElapsed()) / 1e6;
    const int found = model.rowCount();
    model.set_query({});
    wait_for(&LibraryModel::drawn);
    std::printf("library of %d in the window: %lld ms until it can be searched, a search that finds %d takes %.1f ms, "
                "thumbnails after %lld ms\n",
                all, static_cast<long long>(ready), found, search, static_cast<long long>(timer.elapsed() + ready));
}

/// What a picture of 8 bits adds to the demo bench: opened, at twenty values of the rule, and opened a second time.
void memory_of(MainWindow& window, int width, int height, const QString& folder) {
    Bench& bench = window.bench();
    for (int i = 0; i < 20; ++i) {
        bench.session().set_value(0, (i + 1) / 21.0);
        settle(window);
    }
    std::printf("%-46s %6.0f MB (at most %.0f)\n", "the demo bench", megabytes("VmRSS"), megabytes("VmHWM"));
    const double before = megabytes("VmRSS");
    const auto add = [&](const QString& name) {
        const QString file = folder + "/" + name;
        {
            QImage image(width, height, QImage::Format_RGB888);
            for (int y = 0; y < height; ++y)
                for (int x = 0; x < width; ++x)
                    image.setPixel(x, y, qRgb(255 * x / width, 255 * y / height, (x * 7 + y * 13) % 251));
            image.save(file);
        }
        bench.sheet().add_picture(file.toStdString(), "colour");
        settle(window);
        std::printf("%-46s %+6.0f MB (at most %.0f)\n", qPrintable(name), megabytes("VmRSS") - before,
                    megabytes("VmHWM"));
        for (int i = 0; i < 20; ++i) {
            bench.session().set_value(0, (i % 20 + 1.5) / 22.0);
            settle(window);
        }
        std::printf("%-46s %+6.0f MB (at most %.0f)\n", "at twenty values", megabytes("VmRSS") - before,
                    megabytes("VmHWM"));
    };
    add("one.png");
    add("another.png");
}

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    QTemporaryDir settings;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    QElapsedTimer start;
    start.start();
    TracedApplication application(argc, argv);
    theme::apply(application);
    MainWindow window;
    window.resize(1280, 800);
    Bench& bench = window.bench();
    const std::string pictures = KASURI_DEMO_DIR "/";
    bench.add_chart();
    bench.sheet().add_picture(pictures + "cloths.exr", "colour");
    bench.sheet().add_picture(pictures + "cloths.exr", "green");
    bench.sheet().add_picture(pictures + "puppet.exr", "colour");
    window.part<Files>().open(KASURI_SOURCE_DIR "/data/filters/indigo-over-madder.kasuri");
    double first_sheet = 0;
    QObject::connect(&window, &MainWindow::sheet_shown, &window, [&first_sheet] {
        QCoreApplication::sendPostedEvents(nullptr, QEvent::UpdateRequest);
        first_sheet = first_sheet > 0 ? first_sheet : age();
    });
    window.show();
    const double there = age();
    window.part<Recovery>().keep_in(settings.path().toStdString() + "/recovery"); // as in the program
    settle(window);
    window.repaint();
    std::printf("%-46s %6.0f ms\n", "start to first complete sheet", static_cast<double>(start.nsecsElapsed()) / 1e6);
    std::printf("from the process's start: window %.0f ms, first sheet %.0f ms, all with proofs %.0f ms\n", there,
                first_sheet, age());
    if (argc > 1 && std::string(argv[1]) == "start") {
        bench.session().take_as_saved();
        return 0;
    }

    // With an argument only a part is measured, for a profile of it.
    const std::string part = argc > 1 ? argv[1] : "";
    const bool keys_alone = part == "keys", no_keys = part == "drag";
    if (part == "play") {
        playback(window, settings.path());
        bench.session().take_as_saved();
        return 0;
    }
    if (part == "trace") { // bench_window trace FILE: what happens when, for a viewer of traces, and as sums
        trace(window, argc > 2 ? argv[2] : "bench_window.trace.json");
        bench.session().take_as_saved();
        return 0;
    }
    if (part == "trace_long") { // the same of a rule of 5000 lines
        trace_long(window, argc > 2 ? argv[2] : "bench_window.trace.json");
        bench.session().take_as_saved();
        return 0;
    }
    if (part == "memory") { // bench_window memory WIDTH HEIGHT: what a picture of 8 bits of that size adds
        memory_of(window, argc > 3 ? std::atoi(argv[2]) : 5120, argc > 3 ? std::atoi(argv[3]) : 2880, settings.path());
        bench.session().take_as_saved();
        return 0;
    }
    if (part == "large") { // bench_window large WIDTH HEIGHT
        large_picture(window, pictures + "cloths.exr", settings.path(), argc > 3 ? std::atoi(argv[2]) : 3840,
                      argc > 3 ? std::atoi(argv[3]) : 2160);
        bench.session().take_as_saved();
        return 0;
    }
    if (part == "late") { // what stands last
        solid();
        long_rule(window, 5000);
        bench.session().take_as_saved();
        return 0;
    }
    RuleEditor& editor = *window.part<RulePanel>().editor();
    const int line = 11; // out.g = mix(g, shared, meet)
    editor.setCursorPosition(line - 1, editor.lineLength(line - 1) - 1);
    std::vector<double> keys, all_keys, proofs;
    for (int i = 0; i < (no_keys ? 1 : 200); ++i) {
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
    if (keys_alone) {
        bench.session().take_as_saved();
        return 0;
    }
    std::vector<double> moved, exactly, drags;
    for (int i = 0; i < 200; ++i) {
        const Times times = times_of(window, [&] { bench.session().set_value(0, (i % 100 + 1) / 101.0); });
        moved.push_back(times.sheet);
        exactly.push_back(times.exact);
        drags.push_back(times.all);
    }
    print("changed value to refreshed sheet", moved);
    print("changed value to the exact sheet", exactly);
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
    std::printf("%-46s %6.1f sheets a second   %6.1f readings a second\n", "dragging a value", sheets / seconds,
                readings / seconds);
    settle(window);
    if (no_keys) {
        bench.session().take_as_saved();
        return 0;
    }
    CellView& cell = *window.part<SheetView>().cell(bench.sheet().cells()[1].id);
    window.part<SheetView>().set_alone(cell.id());
    settle(window);
    std::vector<double> pans, zooms;
    cell.zoom_to(1);
    settle(window);
    for (int i = 0; i < 200; ++i)
        pans.push_back(times_of(window, [&] {
                           QTest::keyClick(&cell, i % 2 == 0 ? Qt::Key_Right : Qt::Key_Left, Qt::ShiftModifier);
                       }).all);
    for (int i = 0; i < 200; ++i)
        zooms.push_back(times_of(window, [&] { cell.zoom_to(1.1 + 0.1 * (i % 8)); }).all);
    print("pan, one cell filling the sheet", pans);
    print("zoom, the same", zooms);
    window.part<SheetView>().set_alone(0);
    memory();
    large_picture(window, pictures + "cloths.exr", settings.path());
    playback(window, settings.path());
    library(window, settings.path());
    solid();
    for (const Cell& shown : std::vector<Cell>(bench.sheet().cells()))
        bench.sheet().remove(shown.id);
    bench.sheet().add_picture(pictures + "cloths.exr", "colour");
    long_rule(window, 5000);

    bench.session().take_as_saved();
    return 0;
}
