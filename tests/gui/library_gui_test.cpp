// The library in the real window: search by keys, open, add as a step by key and by dragging, compare.
#include "gui/driver.hpp"
#include "widgets/library/library_panel.hpp"
#include "widgets/look/look_line.hpp"

#include <QDragEnterEvent>
#include <QLineEdit>
#include <QListView>
#include <QMenu>
#include <QMimeData>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

void put(const QString& path, const char* text) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write(text);
}

struct Shelf : Driver {
    LibraryPanel& panel;
    Shelf() : panel(window.part<app::LibraryPanel>()) {
        put(file("dip.kasuri"),
            "filter \"Dip\"\nnote \"Once.\"\nparam k = 1 in 0 .. 4\npreset \"Strong\" k = 3\nout.rgb = rgb * k\n");
        put(file("turn.kasuri"), "filter \"Turn\"\nout.rgb = rgb.gbr\n");
        panel.add_folder(folder.path());
        trigger("library");
        REQUIRE(QTest::qWaitFor([this] { return !panel.model().busy() && panel.model().rowCount() == 2; }, 10000));
        settle();
    }
};

} // namespace

TEST_CASE("the library is searched, opened and put away by keyboard alone", "[gui][library]") {
    Shelf d;
    CHECK(d.panel.isVisible());
    CHECK(d.panel.search()->hasFocus());
    QTest::keyClicks(d.panel.search(), "turn");
    CHECK(d.panel.model().rowCount() == 1);
    QTest::keyClick(d.panel.search(), Qt::Key_Return);
    d.settle();
    CHECK(d.session().path().filename() == "turn.kasuri");
    QTest::keyClick(d.panel.search(), Qt::Key_Escape); // first the search
    CHECK(d.panel.model().rowCount() == 2);
    QTest::keyClick(d.panel.search(), Qt::Key_Down);
    CHECK(d.panel.list()->hasFocus());
    d.panel.list()->setCurrentIndex(d.panel.model().index(0));
    QTest::keyClick(d.panel.list(), Qt::Key_Return, Qt::ShiftModifier); // as a step
    d.settle();
    CHECK(d.window.bench().look().count() == 2);
    CHECK(d.window.bench().look().name(1) == "Dip");
    QTest::keyClick(d.panel.list(), Qt::Key_Escape);
    CHECK_FALSE(d.panel.isVisible());
    d.session().undo_stack().undo();
}

TEST_CASE("an entry is dragged onto the line of steps, opened at a preset, and compared with", "[gui][library]") {
    Shelf d;
    d.window.part<app::Files>().open_at(d.file("dip.kasuri"), "Strong");
    d.settle();
    CHECK(d.session().values() == std::vector<double>{3});
    d.session().undo_stack().undo();
    d.settle();
    d.window.bench().look().add(d.window.bench().look().step(), 1);
    d.settle();
    auto* line = d.window.findChild<LookLine*>();
    const std::unique_ptr<QMimeData> data(d.panel.model().mimeData({d.panel.model().index_of(d.file("turn.kasuri"))}));
    const QPoint at(line->place(1).left() + 2, 10);
    QDragEnterEvent enter(at, Qt::CopyAction, data.get(), Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(line, &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop(QPointF(at), Qt::CopyAction, data.get(), Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(line, &drop);
    d.settle();
    REQUIRE(d.window.bench().look().count() == 3);
    CHECK(d.window.bench().look().name(1) == "Turn");
    d.panel.list()->setCurrentIndex(d.panel.model().index_of(d.file("turn.kasuri")));
    QMenu menu;
    d.panel.fill_menu(menu);
    menu.actions()[2]->trigger(); // compare with it
    d.settle();
    CHECK(d.window.bench().against().name() == "turn");
    while (d.session().undo_stack().canUndo())
        d.session().undo_stack().undo();
}
