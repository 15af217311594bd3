// The real window under random hands, for scripts/torture, which kills it and looks at what is left.
//   torture_window work FILE SEED JOURNAL   edits, undoes and saves until it is killed; "-": an untitled filter
//   torture_window monkey FOLDER SEED SECONDS   random keys, clicks, drags and actions on a bench with pictures
//   torture_window left   what an ended program left to be brought back, as lines "path TAB text", texts as JSON
// Where it keeps its things: XDG_DATA_HOME and XDG_CONFIG_HOME.
#include "document/json_text.hpp"
#include "model/bench.hpp"
#include "widgets/files/files.hpp"
#include "widgets/files/recovery.hpp"
#include "widgets/frame/application.hpp"
#include "widgets/frame/main_window.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/rule_editor.hpp"
#include "widgets/writing/rule_panel.hpp"

#include <QAbstractButton>
#include <QAction>
#include <QDialog>
#include <QMenu>
#include <QMessageBox>
#include <QPointer>
#include <QTest>
#include <QTimer>

#include <atomic>
#include <chrono>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <execinfo.h>
#include <fcntl.h>
#include <random>
#include <thread>
#include <unistd.h>

using namespace kasuri;
using namespace kasuri::app;

namespace {

long long now_ms() {
    return std::chrono::duration_cast<std::chrono::milliseconds>(std::chrono::steady_clock::now().time_since_epoch())
        .count();
}

std::string json(const std::string& text) {
    return document::Json(text).dump(-1, ' ', true, document::Json::error_handler_t::replace);
}

class Dice {
public:
    explicit Dice(unsigned seed) : random_(seed) {}
    int below(int count) { return count < 1 ? 0 : std::uniform_int_distribution<int>(0, count - 1)(random_); }
    template <class T>
    const T& of(const std::vector<T>& all) {
        return all[static_cast<std::size_t>(below(static_cast<int>(all.size())))];
    }

private:
    std::mt19937 random_;
};

/// Where it was when it crashed, on standard error; c++filt makes names of it.
void tell_where(int signal) {
    void* places[60];
    ::backtrace_symbols_fd(places, ::backtrace(places, 60), STDERR_FILENO);
    if (signal == SIGUSR1)
        return; // only asked
    std::signal(signal, SIG_DFL);
    std::raise(signal);
}

/// What the platform without a screen cannot do is no news.
void tell(QtMsgType, const QMessageLogContext&, const QString& text) {
    if (!text.startsWith("This plugin does not support"))
        std::fprintf(stderr, "%s\n", qPrintable(text));
}

/// Ends the program if its events stand still for so long, and says where it is.
class Watchdog {
public:
    explicit Watchdog(int ms) : main_(::pthread_self()) {
        const bool only_tell = qEnvironmentVariableIsSet("KASURI_STALL"); // to look for what keeps a person waiting
        if (only_tell)
            ms = qEnvironmentVariableIntValue("KASURI_STALL");
        timer_.start(std::min(100, ms / 4));
        QObject::connect(&timer_, &QTimer::timeout, &timer_, [this] { beat(); });
        beat();
        std::thread([this, ms, only_tell] {
            for (;;) {
                std::this_thread::sleep_for(std::chrono::milliseconds(ms / 10));
                if (now_ms() - last_ > ms) {
                    std::fprintf(stderr, "hang: no event for %d ms\n", ms);
                    ::pthread_kill(main_, only_tell ? SIGUSR1 : SIGABRT);
                    std::this_thread::sleep_for(std::chrono::seconds(only_tell ? 1 : 5));
                }
            }
        }).detach();
    }
    void beat() { last_ = now_ms(); }

private:
    pthread_t main_;
    QTimer timer_;
    std::atomic<long long> last_{0};
};

/// Any button of a question, after a moment; other dialogs are closed.
class Answers {
public:
    explicit Answers(Dice& dice) {
        timer_.start(60);
        QObject::connect(&timer_, &QTimer::timeout, &timer_, [&dice] {
            if (QWidget* popup = QApplication::activePopupWidget(); popup && dice.below(4) == 0)
                popup->close();
            QWidget* modal = QApplication::activeModalWidget();
            if (auto* box = qobject_cast<QMessageBox*>(modal)) {
                const QList<QAbstractButton*> buttons = box->buttons();
                if (!buttons.isEmpty())
                    buttons[dice.below(static_cast<int>(buttons.size()))]->click();
            } else if (auto* dialog = qobject_cast<QDialog*>(modal); dialog && dice.below(6) == 0) {
                dialog->reject();
            }
        });
    }

private:
    QTimer timer_;
};

class Journal {
public:
    explicit Journal(const char* path) : file_(::open(path, O_WRONLY | O_CREAT | O_APPEND | O_CLOEXEC, 0600)) {}
    void note(char what, const std::string& text) {
        const std::string line = std::string(1, what) + " " + std::to_string(now_ms()) + " " + json(text) + "\n";
        if (::write(file_, line.data(), line.size()) < 0)
            std::abort();
    }

private:
    int file_;
};

int work(const QString& file, unsigned seed, const char* journal_path) {
    Dice dice(seed);
    Journal journal(journal_path);
    MainWindow window;
    window.resize(1280, 800);
    window.show();
    window.part<Recovery>().keep_in(RecoveryKeeper::usual_folder());
    const bool titled = file != "-";
    if (titled)
        window.part<Files>().open(file);
    window.bench().add_chart();
    Session& session = window.bench().session();
    RuleEditor& editor = *window.part<RulePanel>().editor();
    QObject::connect(&session, &Session::text_changed, &session, [&] { journal.note('T', session.text()); });
    QObject::connect(&window.part<Files>(), &Files::saved, &session, [&] { journal.note('D', session.text()); });
    Answers answers(dice);
    Watchdog watchdog(60000);
    QTest::qWait(200);
    journal.note('B', session.text());
    editor.setFocus();
    for (int line = 1;; ++line) {
        switch (dice.below(10)) {
        case 0:
            editor.SendScintilla(QsciScintillaBase::SCI_DOCUMENTEND);
            QTest::keyClick(&editor, Qt::Key_Z, Qt::ControlModifier);
            break;
        case 1: QTest::keyClick(&editor, Qt::Key_Y, Qt::ControlModifier); break;
        case 2:
            if (editor.lines() > 12) {
                editor.setSelection(2, 0, 2 + dice.below(8), 0);
                QTest::keyClick(&editor, Qt::Key_Delete);
            }
            break;
        case 3:
        case 4:
            if (titled) {
                journal.note('S', session.text());
                (void)window.part<Files>().save();
            }
            break;
        default: {
            editor.SendScintilla(QsciScintillaBase::SCI_DOCUMENTEND);
            const QString text = QString("out.r = r * 0.%1 // %2").arg(dice.below(1000)).arg(line);
            for (const QChar c : text) {
                QTest::keyClick(&editor, c.toLatin1());
                QTest::qWait(dice.below(12));
            }
            QTest::keyClick(&editor, Qt::Key_Escape); // a list of words may be open
            QTest::keyClick(&editor, Qt::Key_Return);
        }
        }
        QTest::qWait(dice.below(40));
    }
}

void random_keys(const QPointer<QWidget>& at, Dice& dice) {
    static const std::vector<int> keys = {
        Qt::Key_Return, Qt::Key_Escape, Qt::Key_Tab,  Qt::Key_Backspace, Qt::Key_Delete, Qt::Key_Left, Qt::Key_Right,
        Qt::Key_Up,     Qt::Key_Down,   Qt::Key_Home, Qt::Key_End,       Qt::Key_PageUp, Qt::Key_F2,   Qt::Key_Space};
    static const std::string letters = "rgbaout.=+-*/()0123456789 letparmfnmixhvclk,_\"{}[]<>~@#";
    static const std::vector<Qt::KeyboardModifiers> modifiers = {
        Qt::NoModifier,      Qt::NoModifier,  Qt::ShiftModifier,
        Qt::ControlModifier, Qt::AltModifier, Qt::ControlModifier | Qt::ShiftModifier};
    for (int i = dice.below(12); i >= 0 && at; --i) // what is clicked may be gone by then
        if (dice.below(3) == 0)
            QTest::keyClick(at, static_cast<Qt::Key>(dice.of(keys)), dice.of(modifiers));
        else
            QTest::keyClick(at, letters[static_cast<std::size_t>(dice.below(static_cast<int>(letters.size())))],
                            dice.below(12) == 0 ? dice.of(modifiers) : Qt::NoModifier);
}

void random_mouse(const QPointer<QWidget>& at, Dice& dice) {
    const auto place = [&] { return QPoint(dice.below(at->width()), dice.below(at->height())); };
    const Qt::MouseButton button = dice.below(5) == 0 ? Qt::RightButton : Qt::LeftButton;
    switch (dice.below(4)) {
    case 0: QTest::mouseClick(at, button, dice.below(4) == 0 ? Qt::ShiftModifier : Qt::NoModifier, place()); break;
    case 1: QTest::mouseDClick(at, Qt::LeftButton, Qt::NoModifier, place()); break;
    case 2: {
        QTest::mousePress(at, Qt::LeftButton, Qt::NoModifier, place());
        for (int i = dice.below(8); i > 0 && at; --i)
            QTest::mouseMove(at, place(), 1);
        if (at)
            QTest::mouseRelease(at, Qt::LeftButton, Qt::NoModifier, place());
        break;
    }
    default: {
        const QPoint spot = place();
        QWheelEvent wheel(spot, at->mapToGlobal(spot), {}, {0, dice.below(2) ? 120 : -120}, Qt::NoButton,
                          dice.below(3) ? Qt::NoModifier : Qt::ControlModifier, Qt::NoScrollPhase, false);
        QApplication::sendEvent(at, &wheel);
    }
    }
}

int monkey(const QString& folder, unsigned seed, int seconds) {
    Dice dice(seed);
    auto window = std::make_unique<MainWindow>();
    window->resize(1280, 800);
    window->show();
    window->part<Recovery>().keep_in(RecoveryKeeper::usual_folder());
    for (const QString& file : QDir(folder).entryList(QDir::Files))
        window->part<Files>().open(folder + "/" + file);
    Answers answers(dice);
    Watchdog watchdog(30000);
    long actions = 0;
    const long long end = now_ms() + 1000LL * seconds;
    while (now_ms() < end) {
        ++actions;
        // Where a person could be: in front is a menu, a dialog, or one of the program's windows.
        QWidget* top = QApplication::activePopupWidget();
        top = top ? top : QApplication::activeModalWidget();
        if (!top) {
            std::vector<QWidget*> shown;
            for (QWidget* each : QApplication::topLevelWidgets())
                if (each->isVisible() && !qobject_cast<QMenu*>(each))
                    shown.push_back(each);
            top = shown.empty() || dice.below(3) ? static_cast<QWidget*>(window.get()) : dice.of(shown);
        }
        const QPointer<QWidget> at = [&] {
            std::vector<QWidget*> all = {top};
            for (QWidget* child : top->findChildren<QWidget*>())
                if (child->isVisible() && child->isEnabled() && child->width() > 0 && child->height() > 0)
                    all.push_back(child);
            return dice.of(all);
        }();
        switch (dice.below(6)) {
        case 0:
        case 1: random_keys(at, dice); break;
        case 2: {
            std::vector<QAction*> able;
            for (QAction* action : window->actions())
                if (action->isEnabled() && !action->objectName().contains("quit"))
                    able.push_back(action);
            if (!able.empty() && !QApplication::activeModalWidget())
                dice.of(able)->trigger();
            break;
        }
        default: random_mouse(at, dice);
        }
        QTest::qWait(dice.below(30));
        if (!window->isVisible())
            window->show();
    }
    std::printf("%ld actions\n", actions);
    window->bench().session().take_as_saved();
    window.reset();
    return 0;
}

int left() {
    for (const LeftBehind& each : RecoveryKeeper::left_behind(RecoveryKeeper::usual_folder()))
        std::printf("%s\t%s\n", each.recovery.path.c_str(), json(each.recovery.text).c_str());
    return 0;
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    for (const int fatal : {SIGUSR1, SIGSEGV, SIGABRT, SIGBUS, SIGFPE, SIGILL})
        std::signal(fatal, tell_where);
    qInstallMessageHandler(tell);
    kasuri::app::Application application(argc, argv);
    QApplication::setApplicationName("kasuri");
    QApplication::setOrganizationName("kasuri");
    QApplication::setQuitOnLastWindowClosed(false);
    theme::apply(application);
    const QStringList words = QApplication::arguments();
    if (words.size() == 5 && words[1] == "work")
        return work(words[2], words[3].toUInt(), argv[4]);
    if (words.size() == 5 && words[1] == "monkey")
        return monkey(words[2], words[3].toUInt(), words[4].toInt());
    if (words.size() == 2 && words[1] == "left")
        return left();
    std::fputs("torture_window work FILE SEED JOURNAL | monkey FOLDER SEED SECONDS | left\n", stderr);
    return 2;
}
