// Nothing lost: the real window is killed in the middle of edits and saves, many times, and its work is offered back.
#include "base/file.hpp"
#include "document/filter_file.hpp"
#include "gui/driver.hpp"
#include "model/recovery_keeper.hpp"

#include <QElapsedTimer>
#include <QFile>
#include <QMessageBox>
#include <QProcess>
#include <QPushButton>
#include <QTimer>

#include <cstdio>
#include <random>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

const char* const head = "out.rgb = rgb\n";
std::string line(int i) { return "//" + std::to_string(i) + "\n"; }

/// The last line's number if the text is the head and the lines 1, 2, ... up to it; -1 if it is anything else.
int lines_of(const std::string& text) {
    std::string whole = head;
    int count = 0;
    while (whole.size() < text.size())
        whole += line(++count);
    if (whole == text)
        return count;
    // A line that was being written.
    return text.size() < whole.size() && whole.compare(0, text.size(), text) == 0 ? count - 1 : -1;
}

/// Of what the child says of itself: how many lines the file held when it was kept for the last time; 0 if not yet.
int last_kept(const QByteArray& said) {
    int last = 0;
    for (const QByteArray& word : said.left(said.lastIndexOf('\n')).split('\n'))
        if (word.startsWith('='))
            last = std::max(last, word.mid(1).toInt());
    return last;
}

} // namespace

TEST_CASE("a child that writes until it is killed", "[.recovery-child]") {
    const QString folder = qEnvironmentVariable("KASURI_TEST_FOLDER");
    REQUIRE_FALSE(folder.isEmpty());
    MainWindow window;
    window.show();
    window.part<app::Recovery>().keep_in(folder.toStdString() + "/recovery");
    window.part<app::Files>().open(folder + "/work.kasuri");
    RuleEditor& editor = *window.part<app::RulePanel>().editor();
    editor.setFocus();
    editor.SendScintilla(QsciScintillaBase::SCI_DOCUMENTEND);
    const RecoveryKeeper& keeper = *window.part<app::Recovery>().keeper();
    QObject::connect(&keeper, &RecoveryKeeper::kept, [&keeper] {
        const Result<std::string> text = read_file(keeper.file(), 1 << 20);
        if (!text)
            return; // saved since, and gone
        if (const auto recovery = document::recovery_of(text.value(), keeper.file().string()))
            std::printf("\n=%d\n", lines_of(recovery.value().text));
        std::fflush(stdout);
    });
    for (int i = 1; i < 100'000; ++i) {
        for (const char c : line(i))
            if (c == '\n')
                QTest::keyClick(&editor, Qt::Key_Return);
            else
                QTest::keyClick(&editor, c);
        if (i % 50 == 0)
            window.part<app::Files>().save();
        QTest::qWait(2);
    }
}

TEST_CASE("killed at any moment, nothing that was kept is lost, and it is kept while one writes", "[gui][recovery]") {
    const QTemporaryDir folder;
    const std::string work = folder.filePath("work.kasuri").toStdString(),
                      kept = folder.filePath("recovery").toStdString();
    std::mt19937 random(11);
    int brought = 0;
    for (int round = 0; round < 8; ++round) {
        INFO("round " << round);
        REQUIRE(document::save_filter(work, head));
        QProcess child;
        QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
        environment.insert("KASURI_TEST_FOLDER", folder.path());
        child.setProcessEnvironment(environment);
        child.start(QCoreApplication::applicationFilePath(), {"a child that writes until it is killed"});
        REQUIRE(child.waitForStarted(10000));
        // Some while after its work was kept for the first time, while it went on writing: no clock, for the disk may
        // be slow.
        QByteArray said;
        while (last_kept(said) == 0 && child.waitForReadyRead(60000))
            said += child.readAllStandardOutput();
        REQUIRE(last_kept(said) > 0);
        QElapsedTimer since;
        since.start();
        for (const int more = static_cast<int>(random() % 900); since.elapsed() < more;) {
            child.waitForReadyRead(20);
            said += child.readAllStandardOutput();
        }
        child.kill();
        child.waitForFinished(10000);
        // The file is whole, of whichever save.
        const auto saved = document::load_filter(work);
        REQUIRE(saved);
        CHECK(lines_of(saved.value()) >= 0);
        CHECK(lines_of(saved.value()) % 50 == 0);
        const std::vector<LeftBehind> left = RecoveryKeeper::left_behind(kept);
        REQUIRE(left.size() <= 1);
        const int back = std::max(lines_of(saved.value()), left.empty() ? -1 : lines_of(left[0].recovery.text));
        CHECK(back >= last_kept(said));
        if (left.empty())
            continue; // killed when all was saved
        CHECK(left[0].recovery.path == work);
        CHECK(lines_of(left[0].recovery.text) >= 0);
        if (lines_of(left[0].recovery.text) > lines_of(saved.value())) {
            Driver d;
            d.window.part<app::Recovery>().bring_back(left[0]);
            d.settle();
            CHECK(d.text() == left[0].recovery.text);
            CHECK(d.session().modified());
            CHECK(d.session().undo_stack().undoText() == "work brought back");
            d.window.bench().undo();
            CHECK(d.text() == saved.value());
            ++brought;
        }
        RecoveryKeeper::forget(left[0]);
        CHECK(RecoveryKeeper::left_behind(kept).empty());
    }
    CHECK(brought > 0);
}

TEST_CASE("unsaved work is kept while it is unsaved, by the running program alone, and is offered when that is gone",
          "[gui][recovery]") {
    const QTemporaryDir folder;
    const std::filesystem::path kept = folder.filePath("recovery").toStdString();
    std::string left_text;
    {
        Driver d;
        d.window.part<app::Recovery>().keep_in(kept);
        CHECK_FALSE(std::filesystem::exists(d.window.part<app::Recovery>().keeper()->file())); // nothing to keep
        CHECK(d.window.part<app::Recovery>().keeper()->longest_wait() <= 200);                 // as the manual says
        d.replace_text("param k = 0.5 in 0 .. 1\nout.r = k * g\n");
        d.settle();
        d.session().set_value(0, 0.25);
        d.trigger("take");
        d.window.part<app::Recovery>().keeper()->write_now();
        d.window.part<app::Recovery>().keeper()->finish();
        REQUIRE(std::filesystem::exists(d.window.part<app::Recovery>().keeper()->file()));
        CHECK(RecoveryKeeper::left_behind(kept).empty()); // its program runs
        left_text = read_file(d.window.part<app::Recovery>().keeper()->file(), 1 << 20).value();
        REQUIRE(d.window.part<app::Files>().save_to(d.file("k.kasuri")));
        d.session().take_as_saved();
        d.window.part<app::Recovery>().keeper()->write_now();
        d.window.part<app::Recovery>().keeper()->finish();
        CHECK_FALSE(std::filesystem::exists(d.window.part<app::Recovery>().keeper()->file()));
    }
    // As if the program had gone.
    REQUIRE(write_file(kept / "1-1.kasuri-recovery", left_text));
    REQUIRE(write_file(kept / "1-2.kasuri-recovery", "{ broken"));
    REQUIRE(write_file(kept / ".kasuri-00112233.part.kasuri-recovery", left_text)); // killed in the middle of a write
    const std::vector<LeftBehind> left = RecoveryKeeper::left_behind(kept);
    REQUIRE(left.size() == 1); // what cannot be read is left there
    CHECK(left[0].file.filename() == "1-1.kasuri-recovery");
    CHECK_FALSE(std::filesystem::exists(kept / ".kasuri-00112233.part.kasuri-recovery"));
    CHECK(left[0].recovery.values.at("k") == 0.25);
    CHECK(left[0].recovery.bench.takes.size() == 1);
    Driver d;
    bool asked = false;
    QTimer::singleShot(50, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            asked = true;
            CHECK(box->text().contains("untitled"));
            box->buttons().front()->click();
        }
    });
    d.window.part<app::Recovery>().keep_in(kept);
    d.settle();
    CHECK(asked);
    CHECK(d.text() == "param k = 0.5 in 0 .. 1\nout.r = k * g\n");
    CHECK(d.session().values() == std::vector<double>{0.25});
    CHECK(d.window.bench().takes().takes().size() == 1);
    CHECK(std::filesystem::exists(kept / "1-2.kasuri-recovery"));
    CHECK_FALSE(std::filesystem::exists(kept / "1-1.kasuri-recovery"));
    // No room: told, once, and nothing stops.
    REQUIRE(write_file(folder.filePath("blocked").toStdString(), "a file"));
    Driver other;
    other.window.part<app::Recovery>().keep_in(folder.filePath("blocked").toStdString());
    other.replace_text("out.r = b\n");
    other.window.part<app::Recovery>().keeper()->write_now();
    other.window.part<app::Recovery>().keeper()->finish();
    QTest::qWait(1);
    CHECK(other.window.part<app::StatusLine>().message().contains(
        "unsaved work cannot be kept: its folder cannot be made (Not a directory)"));
}
