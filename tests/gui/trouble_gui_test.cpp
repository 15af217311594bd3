// Two windows on one file, and files that turn into something else.
#include "document/bench_file.hpp"
#include "document/filter_file.hpp"
#include "gui/driver.hpp"
#include "io/picture_file.hpp"
#include "model/file_names.hpp"
#include "model/recent.hpp"
#include "targets/demo_pictures.hpp"
#include "widgets/frame/status_line.hpp"

#include <QAbstractButton>
#include <QMessageBox>
#include <QTimer>

#include <new>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

void write(const QString& path, const QByteArray& content) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write(content);
}

QByteArray content_of(const QString& path) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::ReadOnly));
    return file.readAll();
}

/// Presses a button of the next question, whose words it returns.
template <class Act>
QString asked(const QString& button, Act&& act) {
    QString words;
    QTimer poll;
    QObject::connect(&poll, &QTimer::timeout, &poll, [&] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        if (!box || !words.isEmpty())
            return;
        words = box->text();
        for (QAbstractButton* each : box->buttons())
            if (each->text() == button || (button == "Cancel" && box->standardButton(each) == QMessageBox::Cancel))
                return each->click();
        box->reject();
    });
    poll.start(20);
    act();
    return words;
}

std::vector<std::string> takes_in(const QString& filter) {
    const auto bench = document::load_bench(filter.toStdString());
    REQUIRE(bench);
    std::vector<std::string> names;
    for (const document::KeptTake& take : bench.value().takes)
        names.push_back(take.text.substr(0, take.text.find('\n')));
    std::sort(names.begin(), names.end());
    return names;
}

} // namespace

TEST_CASE("takes of two windows on one filter are all kept, and the later one shows them", "[gui][trouble]") {
    Driver a, b;
    const QString file = a.file("shared.kasuri");
    write(file, "out.r = r\n");
    const auto take = [&](Driver& d, const char* text) {
        d.replace_text(text);
        d.settle();
        d.window.bench().takes().remember();
        d.window.bench().keeper().write_now();
    };
    for (Driver* d : {&a, &b}) {
        d->window.part<app::Files>().open(file);
        d->settle();
    }
    take(b, "out.r = r * 2\n");
    take(a, "out.r = r * 3\n");
    take(a, "out.r = r * 4\n");
    take(b, "out.r = r * 5\n");
    CHECK(takes_in(file) ==
          std::vector<std::string>{"out.r = r * 2", "out.r = r * 3", "out.r = r * 4", "out.r = r * 5"});
    CHECK(b.window.bench().takes().takes().size() == 4);
    // One that is taken away stays away, whoever writes last.
    b.window.bench().takes().remove(0);
    b.window.bench().keeper().write_now();
    const auto left = takes_in(file);
    take(a, "out.r = r * 6\n");
    CHECK(takes_in(file).size() == left.size() + 1);
}

TEST_CASE("a bench file that cannot be read stands beside its filter, and nothing ends", "[gui][trouble]") {
    Driver d;
    const QString file = d.file("deep.kasuri");
    write(file, "out.r = g\n");
    const QByteArray deep = R"({"kasuri-bench":1,"x":)" + QByteArray(100'000, '[') + QByteArray(100'000, ']') + "}";
    write(file + "-bench", deep);
    d.window.part<app::Files>().open(file);
    d.settle();
    CHECK(d.text() == "out.r = g\n");
    CHECK(d.window.findChild<StatusLine*>()->message().contains("nests too deeply"));
    d.window.bench().takes().remember();
    d.window.bench().keeper().write_now();
    CHECK(content_of(file + "-bench") == deep); // not ours to write over
}

TEST_CASE("a file that has become unreadable under unsaved work is told, and saving asks first", "[gui][trouble]") {
    Driver d;
    const QString file = d.file("turned.kasuri");
    write(file, "out.r = g\n");
    d.window.part<app::Files>().open(file);
    d.settle();
    d.replace_text("out.r = b\n");
    d.settle();
    const QByteArray binary("\x00\xff\xfe rubbish", 11);
    write(file, binary);
    d.window.bench().file_watch().look();
    CHECK(d.window.findChild<StatusLine*>()->message().contains("cannot be read any more"));
    const QString words = asked("Cancel", [&] { CHECK_FALSE(d.window.part<app::Files>().save()); });
    CHECK(words.contains("holds something else now"));
    CHECK(content_of(file) == binary);
    CHECK(d.text() == "out.r = b\n");
    CHECK(!asked("Write over it", [&] { CHECK(d.window.part<app::Files>().save()); }).isEmpty());
    CHECK(content_of(file) == "out.r = b\n");
    // A pipe in its place is no file, and nothing waits for it.
    QFile::remove(file);
    REQUIRE(::system(("mkfifo " + file.toStdString()).c_str()) == 0);
    d.replace_text("out.r = g\n");
    d.settle();
    CHECK_FALSE(asked("Cancel", [&] { CHECK_FALSE(d.window.part<app::Files>().save()); }).isEmpty());
    QFile::remove(file);
}

TEST_CASE("a cell that goes while its menu is open takes the menu along", "[gui][trouble]") {
    Driver d;
    d.window.bench().sheet().add_target(*kasuri::targets::find("dye_chart"), "colour");
    d.settle();
    auto* cell = d.sheet().findChild<CellView*>();
    REQUIRE(cell);
    const QPointer<CellView> gone = cell;
    cell->setFocus();
    QTimer::singleShot(50, &d.window, [&] {
        while (!d.window.bench().sheet().cells().empty())
            d.window.bench().sheet().remove(d.window.bench().sheet().cells().front().id);
    });
    QTest::keyClick(cell, Qt::Key_Space);
    REQUIRE(QApplication::activePopupWidget());
    REQUIRE(QTest::qWaitFor([&] { return !gone; }, 5000));
    CHECK_FALSE(QApplication::activePopupWidget());
}

TEST_CASE("the program ends in order while the sheet stands in a window of its own", "[gui][trouble]") {
    auto d = std::make_unique<Driver>();
    d->window.part<app::SideWindows>().tear_off_sheet();
    d->settle();
    CHECK(d->sheet().window() != &d->window);
    d.reset();
}

TEST_CASE("what an event has no memory for is dropped and said, and the work goes on", "[gui][trouble]") {
    class Greedy : public QObject {
    public:
        int asked = 0;
        bool event(QEvent* event) override {
            if (event->type() != QEvent::User)
                return QObject::event(event);
            ++asked;
            throw std::bad_alloc();
        }
    };
    Driver d;
    d.replace_text("out.r = g\n");
    d.settle();
    Greedy greedy;
    QCoreApplication::postEvent(&greedy, new QEvent(QEvent::User));
    QCoreApplication::postEvent(&greedy, new QEvent(QEvent::User));
    d.settle();
    QCoreApplication::processEvents();
    CHECK(greedy.asked == 2);
    CHECK(d.window.findChild<StatusLine*>()->message().contains("not enough memory"));
    CHECK(d.text() == "out.r = g\n");
    d.replace_text("out.r = b\n");
    d.settle();
    CHECK(d.text() == "out.r = b\n");
}

TEST_CASE("files whose names are no UTF-8 are opened, saved and remembered", "[gui][files]") {
    Driver d;
    const std::string folder = d.folder.path().toStdString();
    const std::string filter = folder + "/gr\xfcn.kasuri", picture = folder + "/gr\xfcn.png";
    REQUIRE(document::save_filter(filter, "out.r = g\n"));
    REQUIRE(io::save(picture, targets::demo_chart()));
    d.window.part<Files>().open_urls({url_of(text_of(filter)), url_of(text_of(picture))});
    d.settle();
    CHECK(d.text() == "out.r = g\n");
    REQUIRE(QTest::qWaitFor([&] { return !d.window.bench().sheet().loading(); }, 5000));
    d.settle();
    REQUIRE(d.window.bench().sheet().cells().size() == 2);
    CHECK(d.window.bench().sheet().picture_of(d.window.bench().sheet().cells()[1]));
    d.end_of_text();
    d.type("out.b = r\n");
    d.settle();
    d.trigger("save");
    CHECK(document::load_filter(filter).value() == "out.r = g\nout.b = r\n");
    const QStringList recent = recent_files();
    CHECK(std::any_of(recent.begin(), recent.end(), [&](const QString& file) { return bytes_of(file) == filter; }));
    for (const std::string& file : {filter, picture}) // Qt, which made the folder, would leave them
        std::filesystem::remove(file);
}
