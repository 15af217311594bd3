#include "io/helper.hpp"
#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/session.hpp"
#include "targets/target.hpp"
#include "widgets/files/files.hpp"
#include "widgets/files/recovery.hpp"
#include "widgets/frame/application.hpp"
#include "widgets/frame/first_minute.hpp"
#include "widgets/frame/language.hpp"
#include "widgets/frame/main_window.hpp"
#include "widgets/frame/side_windows.hpp"
#include "widgets/library/library_panel.hpp"
#include "widgets/parts/room_menu.hpp"
#include "widgets/parts/theme.hpp"

#include <QCommandLineParser>
#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <QTimer>

#include <algorithm>
#include <cstdio>

namespace {

using namespace kasuri::app;

/// Fills the bench with the demo world: its first filter with its first preset, the chart, the pictures.
void start_demo(MainWindow& window, const QString& filters, const QString& pictures) {
    Bench& bench = window.bench();
    SheetModel& sheet = bench.sheet();
    sheet.add_target(*kasuri::targets::find("dye_chart"), "colour");
    for (const QString& folder : {filters, QFileInfo(filters).path() + "/looks"})
        if (QFileInfo::exists(folder))
            window.part<LibraryPanel>().add_folder(QFileInfo(folder).canonicalFilePath());
    const QString cloths = pictures + "/cloths.exr", puppet = pictures + "/puppet.exr";
    if (QFileInfo::exists(cloths)) {
        sheet.add_picture(bytes_of(cloths), "colour");
        sheet.add_picture(bytes_of(cloths), "green");
    }
    if (QFileInfo::exists(puppet))
        sheet.add_picture(bytes_of(puppet), "colour");
    const QString first = filters + "/indigo-over-madder.kasuri";
    if (!QFileInfo::exists(first))
        return;
    // The preset can be chosen once the text has been understood.
    auto* once = new QObject(&window);
    QObject::connect(&bench.session(), &Session::rule_changed, once, [&bench, once, first] {
        const kasuri::lang::Rule* rule = bench.session().rule();
        if (!rule || rule->presets.empty())
            return;
        once->deleteLater();
        QObject::disconnect(&bench.session(), nullptr, once, nullptr);
        if (bench.look().file() != bytes_of(first)) // something else was opened meanwhile
            return;
        bench.session().set_values(rule->presets.front().values, QObject::tr("preset"));
        bench.session().undo_stack().clear();
        bench.session().take_as_saved(); // nothing that anybody did
    });
    window.part<Files>().open(first);
}

/// Names of files as the bytes that they are: Qt has replaced what is no UTF-8.
QStringList as_given(QStringList files, int argc, char** argv) {
    for (QString& file : files)
        for (int i = 1; i < argc; ++i)
            if (file == QString::fromLocal8Bit(argv[i]))
                file = text_of(std::filesystem::path(argv[i]));
    return files;
}

/// What is asked of the program itself is answered without a screen, too.
void answer_without_a_screen(int argc, char** argv) {
    const std::set<std::string_view> words = {"-h", "--help", "--help-all", "-v", "--version"};
    const bool asked = std::any_of(argv + 1, argv + argc, [&](const char* word) { return words.contains(word); });
    if (asked && qEnvironmentVariableIsEmpty("DISPLAY") && qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY") &&
        qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
}

} // namespace

int main(int argc, char** argv) {
    answer_without_a_screen(argc, argv);
    Application application(argc, argv);
    QApplication::setApplicationName("kasuri");
    QGuiApplication::setDesktopFileName("kasuri"); // so that the desktop knows whose window it is
    QApplication::setOrganizationName("kasuri");
    QApplication::setApplicationDisplayName("Kasuri");
    QApplication::setApplicationVersion(KASURI_VERSION);
    speak_chosen_language(application);
    QCommandLineParser parser;
    parser.setApplicationDescription("Kasuri: writes, shows and proves per-pixel colour rules.");
    parser.addHelpOption();
    parser.addVersionOption();
    const QCommandLineOption demo(
        "demo", "Start with the demo world: its filters in FOLDER/filters, its pictures in FOLDER/pictures.", "FOLDER");
    const QCommandLineOption shot("screenshot",
                                  "Write a picture of the window to FILE once everything is shown, then quit.", "FILE");
    const QCommandLineOption size("size", "Size of the window, such as 1280x800.", "WxH");
    const QCommandLineOption lens(
        "lens",
        "Lens for the pictures that are opened: colour, red, green, blue, alpha, veil, luminance, range, change, "
        "difference, or a component of a model such as lab.l; several with commas are for one picture each.",
        "LENS", "colour");
    const QCommandLineOption library("library", "Show the library.");
    const QCommandLineOption room("room", "How bright the room is: bright, dim or dark.", "ROOM");
    parser.addOptions({demo, shot, size, lens, library, room});
    parser.addPositionalArgument("files", "Filters and pictures to open.", "[files...]");
    parser.process(application);
    kasuri::io::warm_up_helper(kasuri::io::Task::pictures); // its libraries load while the window is made

    theme::apply(application);
    if (parser.isSet(room))
        theme::set_room(parser.value(room));
    else if (!parser.isSet(shot))
        restore_room();
    MainWindow window;
    if (parser.isSet(size)) {
        const QStringList parts = parser.value(size).split('x');
        if (parts.size() != 2 || parts[0].toInt() < 200 || parts[1].toInt() < 200) {
            std::fprintf(stderr, "kasuri: --size %s: write it like 1280x800\n", qPrintable(parser.value(size)));
            return 2;
        }
        window.resize(parts[0].toInt(), parts[1].toInt());
    } else if (!parser.isSet(shot)) {
        window.restore_layout();
    }
    if (!parser.isSet(shot)) {
        window.bench().config().restore();
        window.bench().restore_prints();
    }
    if (parser.isSet(demo))
        start_demo(window, parser.value(demo) + "/filters", parser.value(demo) + "/pictures");
    else if (parser.positionalArguments().isEmpty())
        window.restore_sheet();
    const QStringList chosen = parser.value(lens).split(',');
    qsizetype pictures = 0;
    for (const QString& file : as_given(parser.positionalArguments(), argc, argv))
        window.part<Files>().open(file, chosen[std::min(file.endsWith(".kasuri") ? 0 : pictures++, chosen.size() - 1)]);
    window.show();
    // Until it has been closed: what there is to do first, in a row above the bench.
    if (!parser.isSet(shot) && (parser.isSet(demo) || parser.positionalArguments().isEmpty()))
        window.part<FirstMinute>().begin_if_new();
    if (parser.isSet(library) && !window.part<LibraryPanel>().isVisible())
        window.toggle_library();
    if (!parser.isSet(shot))
        window.part<Recovery>().keep_in(RecoveryKeeper::usual_folder());
    if (parser.isSet(shot)) {
        auto* timer = new QTimer(&window);
        constexpr int max_ticks = 300; // half a minute at the worst
        QObject::connect(timer, &QTimer::timeout, &window, [&, timer, ticks = 0]() mutable {
            if (!window.settled() && ++ticks < max_ticks)
                return;
            timer->stop();
            const QString file = parser.value(shot);
            const bool saved = window.grab().save(file);
            std::fprintf(saved ? stdout : stderr, saved ? "%s\n" : "kasuri: cannot write %s\n", qPrintable(file));
            QApplication::exit(saved ? 0 : 3);
        });
        timer->start(100);
    }
    return QApplication::exec();
}
