// Further pictures, peeked expressions, another rule as before, layers as badges, the sheet in its own window, undo of
// the sheet.
#include "gui/driver.hpp"
#include "image/image.hpp"
#include "io/picture_file.hpp"
#include "widgets/frame/top_bar.hpp"
#include "widgets/readings/reading_panel.hpp"
#include "widgets/readings/readings_column.hpp"
#include "widgets/sheet/sources_panel.hpp"

#include <QDragEnterEvent>
#include <QDropEvent>
#include <QImage>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QToolButton>
#include <QUrl>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

const QString pictures = KASURI_DEMO_DIR "/";

struct Cloths : Driver {
    int id = 0;
    CellView* view = nullptr;

    explicit Cloths(const QString& rule, const QString& file = "cloths.exr") {
        replace_text(rule);
        window.part<app::Files>().open(pictures + file);
        settle();
        id = window.bench().sheet().cells()[1].id;
        view = sheet().cell(id);
        window.activateWindow();
        view->setFocus();
        settle();
    }
    SheetModel& model() { return window.bench().sheet(); }
};

QAction* action_of(QMenu& menu, const QString& text) {
    for (QAction* action : menu.actions()) {
        if (action->text().startsWith(text))
            return action;
        if (action->menu())
            if (QAction* found = action_of(*action->menu(), text))
                return found;
    }
    return nullptr;
}

void drop_file(QWidget& on, const QPoint& at, const QString& file) {
    QMimeData mime;
    mime.setUrls({QUrl::fromLocalFile(file)});
    QDragEnterEvent enter(at, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QCoreApplication::sendEvent(&on, &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop(at, Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QCoreApplication::sendEvent(&on, &drop);
}

} // namespace

TEST_CASE(
    "a picture is given to a source by dropping a file or a cell on its row, and what happens to its size is said",
    "[gui][sheet]") {
    Cloths d("source lantern : vec3\nout.rgb = lantern\n");
    SourcesPanel& panel = d.window.part<app::SourcesPanel>();
    REQUIRE(panel.isVisible());
    CHECK(panel.said("lantern").contains("0 there"));
    drop_file(panel, {40, panel.height() - 12}, pictures + "puppet.exr");
    d.settle();
    CHECK(panel.said("lantern").contains("puppet.exr"));
    CHECK(panel.said("lantern").contains("stretched to 1920 x 1080"));
    const auto after = d.view->result()->after_pixels;
    const auto puppet = d.model().given_pictures().at("lantern").picture;
    // The middle of the picture is the middle of what was given.
    CHECK(after->at(960, 540)[0] == Approx(puppet->at(puppet->width / 2, puppet->height / 2)[0]).margin(0.1));
    d.window.bench().undo();
    d.settle();
    CHECK(d.model().source_pictures().empty());
    CHECK(panel.said("lantern").contains("0 there"));
    // A cell's caption is dragged there.
    const QPoint to = panel.mapToGlobal(QPoint(40, panel.height() - 12));
    QTest::mousePress(d.view, Qt::LeftButton, {}, QPoint(20, 8));
    QTest::mouseMove(d.view, QPoint(60, 30));
    QTest::mouseRelease(d.view, Qt::LeftButton, {}, d.view->mapFromGlobal(to));
    d.settle();
    REQUIRE(d.model().source_pictures().contains("lantern"));
    CHECK(*d.view->result()->after_pixels->planes[0] == *d.view->result()->before_pixels->planes[0]);
    CHECK_FALSE(panel.said("lantern").contains("stretched"));
    // The menu has it all by keyboard, and takes it back.
    QMenu menu;
    panel.fill_menu(menu, "lantern");
    CHECK(action_of(menu, "cloths.exr")->isChecked());
    menu.actions().front()->trigger();
    d.settle();
    CHECK(d.model().source_pictures().empty());
    // A generated target, whose numbers are of the working space.
    QMenu again;
    panel.fill_menu(again, "lantern");
    REQUIRE(action_of(again, "a generated target")->menu());
    action_of(again, "a generated target")->menu()->findChild<QAction*>("grey_ramp")->trigger();
    d.settle();
    CHECK(panel.said("lantern").startsWith("grey ramp, generated, 1920 x 1 stretched to 1920 x 1080"));
    const auto ramp = d.view->result()->after_pixels;
    const image::Picture of_values = targets::make(*targets::find("grey_ramp"), 1920);
    for (const int x : {0, 500, 1919})
        CHECK(ramp->at(x, 540)[1] == Approx(of_values.at(x, 0)[1]).margin(1e-4));
    CHECK(d.model().pictures_to_render().value().at("lantern").label == "target:grey_ramp");
    d.window.bench().undo();
    d.settle();
    CHECK(d.model().source_pictures().empty());
    // A file that cannot be read is told, and nothing else is lost.
    drop_file(panel, {40, panel.height() - 12}, d.file("nothing.exr"));
    REQUIRE(QTest::qWaitFor([&] { return d.window.part<app::StatusLine>().message().contains("nothing.exr"); }, 5000));
    d.settle();
    CHECK(d.model().source_pictures().empty());
    d.replace_text("out.r = g\n");
    d.settle();
    CHECK_FALSE(panel.isVisible());
}

TEST_CASE("the expression at the caret is shown on the sheet, and goes again with the same key", "[gui][sheet]") {
    Cloths d("let mask = step(0.2, r)\nout.rgb = rgb * mask\n");
    d.editor().setCursorPosition(0, 6);
    d.trigger("peek");
    d.settle();
    CHECK(lens(d.model().find(d.id)->lens).peeks == "mask");
    const QRgb pixel = d.view->result()->after.pixel(40, 40);
    CHECK(qRed(pixel) == qGreen(pixel));
    d.trigger("peek");
    d.settle();
    CHECK(d.model().find(d.id)->lens == "colour");
    d.editor().setSelection(0, 11, 0, 23); // step(0.2, r)
    d.trigger("peek");
    d.settle();
    CHECK(lens(d.model().find(d.id)->lens).peeks == "step(0.2, r)");
    // The menu offers the rule's names.
    QMenu menu;
    d.view->fill_menu(menu);
    REQUIRE(action_of(menu, "mask"));
    action_of(menu, "mask")->trigger();
    d.settle();
    CHECK(d.view->result()->fault.empty());
    d.replace_text("out.rgb = rgb\n"); // the name is gone: said, nothing breaks
    d.settle();
    CHECK(QString::fromStdString(d.view->result()->fault).contains("mask"));
    d.editor().setCursorPosition(1, 0);
    d.trigger("peek");
    CHECK(d.window.part<app::StatusLine>().message().contains("caret"));
}

TEST_CASE("the rule as it was is kept as before, by a key, and named where before stands", "[gui][sheet]") {
    Cloths d("out.rgb = rgb * 0.5\n");
    CHECK(d.window.part<app::TopBar>().against_button()->text().contains("the picture"));
    d.trigger("keep_now");
    d.settle();
    CHECK(d.window.bench().against().rule());
    CHECK(*d.view->result()->before_pixels->planes[0] == *d.view->result()->after_pixels->planes[0]);
    d.replace_text("out.rgb = rgb * 0.25\n");
    d.settle();
    CHECK(d.view->result()->before_pixels->at(9, 9)[0] == Approx(2 * d.view->result()->after_pixels->at(9, 9)[0]));
    CHECK(d.window.part<app::TopBar>().against_button()->text().contains("the kept rule"));
    QMenu menu;
    d.window.part<app::CompareActions>().fill(menu);
    menu.actions().front()->trigger();
    d.settle();
    CHECK_FALSE(d.window.bench().against().rule());
    CHECK(d.view->result()->before_pixels->at(9, 9)[0] == Approx(4 * d.view->result()->after_pixels->at(9, 9)[0]));
    // Another filter from its file; one that is not there is told.
    REQUIRE(d.window.bench().against().open(KASURI_SOURCE_DIR "/data/filters/indigo-over-madder.kasuri"));
    d.settle();
    CHECK(d.window.part<app::TopBar>().against_button()->toolTip().contains("indigo-over-madder"));
    CHECK_FALSE(d.window.bench().against().open("/nowhere/at-all.kasuri"));
    CHECK(d.window.bench().against().name() == "indigo-over-madder");
    d.replace_text("out.rgb = ");
    d.trigger("keep_now"); // at once, or after the check: never a rule that does not compile
    d.settle_text();
    d.trigger("keep_now");
    CHECK(d.window.part<app::StatusLine>().message().contains("compile"));
}

TEST_CASE("layers are badges under the picture, and one click shows one", "[gui][sheet]") {
    Cloths d("out.rgb = rgb\n", "puppet.exr");
    const QStringList layers = d.model().layers_of(*d.model().find(d.id));
    REQUIRE(layers.size() > 2);
    CHECK(d.model().find(d.id)->layer.empty());
    // The badges stand at the left under the picture: the second begins behind the first word.
    const int y = d.view->height() - 12;
    int x = 4;
    while (x < d.view->width() && d.model().find(d.id)->layer.empty())
        QTest::mouseClick(d.view, Qt::LeftButton, {}, QPoint(x += 12, y));
    CHECK(d.model().find(d.id)->layer == layers[1].toStdString());
    d.settle();
    CHECK(d.view->result()->after.size().isValid());
    d.window.bench().undo();
    CHECK(d.model().find(d.id)->layer.empty());
}

TEST_CASE("the sheet goes into a window of its own and comes back, with everything on it", "[gui][sheet]") {
    Cloths d("out.rgb = rgb * 0.5\n");
    d.trigger("sheet_window");
    d.settle();
    CHECK(d.sheet().window() != &d.window);
    CHECK(d.sheet().isVisible());
    CHECK(d.sheet().window()->windowTitle().contains("Sheet"));
    d.sheet().window()->resize(1500, 900);
    d.settle();
    const int high = d.view->height();
    d.replace_text("out.rgb = rgb * 0.25\n"); // still one instrument
    d.settle();
    CHECK(d.view->result()->after_pixels->at(9, 9)[0] == Approx(0.25 * d.view->result()->before_pixels->at(9, 9)[0]));
    d.sheet().window()->close();
    d.settle();
    CHECK(d.sheet().window() == &d.window);
    CHECK(d.view->height() < high);
    CHECK(d.sheet().isVisible());
    d.trigger("sheet_window");
    d.trigger("sheet_window");
    d.settle();
    CHECK(d.sheet().window() == &d.window);
}

TEST_CASE("what is done to the sheet is undone and redone by name, between edits of the text, and is no unsaved work",
          "[gui][sheet]") {
    Cloths d("out.rgb = rgb\n");
    d.session().take_as_saved();
    QUndoStack& stack = d.session().undo_stack();
    d.model().set_lens(d.id, "green");
    CHECK(stack.undoText() == "another lens");
    CHECK_FALSE(d.session().modified());
    d.model().set_lens(d.id, "blue"); // at once: the same step
    d.end_of_text();
    d.type("//x");
    CHECK(d.session().modified());
    d.model().remove(d.id);
    CHECK_FALSE(d.model().find(d.id));
    d.window.bench().undo();
    d.settle();
    REQUIRE(d.model().find(d.id));
    CHECK(d.model().find(d.id)->lens == "blue");
    REQUIRE(d.sheet().cell(d.id)->result());
    CHECK(d.sheet().cell(d.id)->result()->after_pixels->width == 1920); // read again
    d.window.bench().undo();
    CHECK(d.text() == "out.rgb = rgb\n");
    CHECK_FALSE(d.session().modified());
    d.window.bench().undo();
    CHECK(d.model().find(d.id)->lens == "colour");
    d.window.bench().redo();
    d.window.bench().redo();
    CHECK(d.model().find(d.id)->lens == "blue");
    CHECK(d.text() == "out.rgb = rgb\n//x");
    // Pins and strips go the same way.
    d.model().add_pin(d.model().find(d.id)->source(), {10, 10});
    d.model().remove_strip(d.model().strips().front().id);
    d.window.bench().undo();
    d.window.bench().undo();
    CHECK(d.model().pins().empty());
    CHECK(d.model().strips().size() == 3);
    d.settle();
}

TEST_CASE("a reading is written as a picture, whole or not at all", "[gui][readings]") {
    Cloths d("out.rgb = rgb\n");
    ReadingPanel* panel = d.window.findChild<ReadingPanel*>();
    REQUIRE(panel);
    REQUIRE(panel->write_picture(d.file("response.png")));
    CHECK(QImage(d.file("response.png")).width() > 100);
    CHECK_FALSE(panel->write_picture("/nowhere/response.png"));
    CHECK(d.window.part<app::StatusLine>().message().contains("could not be written"));
}
