#include "driver.hpp"

#include "base/file.hpp"
#include "widgets/frame/actions.hpp"
#include "widgets/frame/window_parts.hpp"
#include "widgets/handover/bake_window.hpp"
#include "widgets/parts/message_box.hpp"

#include <OpenColorIO/OpenColorIO.h>

#include <QDragEnterEvent>
#include <QDropEvent>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>

using namespace kasuri;
using namespace kasuri::test;

namespace {
const QString filters = KASURI_SOURCE_DIR "/data/filters/";
const QString pictures = KASURI_DEMO_DIR "/";

/// A drag that enters and drops, as the window system sends it.
void drop_on(QWidget& widget, const QString& file) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(file)});
    QDragEnterEvent enter(QPoint(50, 50), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&widget, &enter);
    REQUIRE(enter.isAccepted());
    QDropEvent drop(QPointF(50, 50), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&widget, &drop);
}

QImage grabbed(QWidget& widget) { return widget.grab().toImage(); }
} // namespace

TEST_CASE("a new window does nothing, and proves it", "[gui]") {
    Driver d;
    REQUIRE(d.session().rule());
    for (int strip = 0; strip < 3; ++strip) {
        const auto* result = d.sheet().strips()[static_cast<std::size_t>(strip)]->result();
        REQUIRE(result);
        CHECK(*result->before.planes[1] == *result->after.planes[1]);
    }
    REQUIRE(d.window.part<app::ProofsBar>().items().size() == 3);
    CHECK(d.outcome("identity")->passed);
    CHECK(d.outcome("identity")->figure == 0);
}

TEST_CASE("every action finds the part of the window that it is about, and menus fill", "[gui]") {
    Driver d;
    int acts = 0, menus = 0;
    for (const app::ActionRow& row : app::action_table()) {
        INFO(row.id);
        if (row.act.run) {
            CHECK(row.act.part_is_there(d.window.parts()));
            ++acts;
        }
        if (row.fill.fill) {
            QMenu menu;
            row.fill.fill(d.window.parts(), menu);
            CHECK_FALSE(menu.isEmpty());
            ++menus;
        }
    }
    CHECK(acts > 40);
    CHECK(menus >= 8);
}

TEST_CASE("what is dropped on a cell goes where its kind belongs, not into the cell as a picture", "[gui]") {
    Driver d;
    const std::size_t cells = d.window.bench().sheet().cells().size();
    const auto on_cell = [&](const QString& file) {
        drop_on(*d.sheet().cell(d.window.bench().sheet().cells().front().id), file);
        d.settle();
        CHECK(d.window.bench().sheet().cells().size() == cells);
        CHECK(d.window.bench().sheet().cells().front().target);
    };
    on_cell(KASURI_SOURCE_DIR "/data/looks/three-times-of-day.kasurilook");
    CHECK(d.window.bench().look().is_look());
    const int steps = d.window.bench().look().count();
    QFile lut(d.file("half.CUBE"));
    REQUIRE(lut.open(QIODevice::WriteOnly));
    lut.write("LUT_1D_SIZE 2\n0 0 0\n0.5 0.5 0.5\n");
    lut.close();
    on_cell(lut.fileName());
    CHECK(d.window.bench().look().count() == steps + 1);
}

TEST_CASE("typing a rule changes the pixels on the sheet", "[gui]") {
    Driver d;
    const QImage before = grabbed(*d.sheet().strips()[2]);
    d.end_of_text();
    d.type("let shared = 0.5 * g + 0.5 * b\nout.g = shared");
    d.settle();
    const auto pixel = d.after(2, 0.3);
    const auto in =
        d.sheet().strips()[2]->result()->before.at(static_cast<std::size_t>(d.sheet().strips()[2]->sample_at(0.3)));
    CHECK(pixel[1] == Approx(0.5f * in[1] + 0.5f * in[2]));
    CHECK(grabbed(*d.sheet().strips()[2]) != before);
    CHECK(d.outcome("neutral")->passed);
    CHECK_FALSE(d.outcome("identity")->passed); // it has no parameter to be off at
}

TEST_CASE("a proof fails, leads to its worst place, and passes again", "[gui]") {
    Driver d;
    d.end_of_text();
    d.type("out.b = b * 0.9");
    d.settle();
    const proof::Outcome* neutral = d.outcome("neutral");
    REQUIRE(neutral);
    CHECK_FALSE(neutral->passed);
    CHECK(neutral->figure == Approx(0.4).margin(0.01));
    // A click on it puts the hover line on the worst place of the grey ramp.
    for (app::ProofItem* item : d.window.part<app::ProofsBar>().items())
        if (item->outcome().function == "neutral")
            QTest::mouseClick(item, Qt::LeftButton);
    QTest::qWait(1);
    CHECK(d.sheet().strips()[0]->hasFocus());
    d.end_of_text();
    for (int i = 0; i < 6; ++i)
        QTest::keyClick(&d.editor(), Qt::Key_Backspace);
    d.settle();
    CHECK(d.text().ends_with("out.b = b"));
    CHECK(d.outcome("neutral")->passed);
}

TEST_CASE("a broken text keeps the last good result and says it is old", "[gui]") {
    Driver d;
    d.end_of_text();
    d.type("out.g = b");
    d.settle();
    const auto good = d.after(2, 0.4);
    d.type(" + shaerd");
    d.settle_text();
    CHECK_FALSE(d.session().compiles());
    CHECK(d.after(2, 0.4) == good);
    CHECK(d.window.part<app::RulePanel>().understood() == "1 error (F8): the sheet shows the last good rule");
    REQUIRE(d.session().diagnostics().size() == 1);
    CHECK(d.session().diagnostics()[0].code == lang::Code::unknown_name);
    CHECK(d.window.windowTitle().contains("*"));
    // The strip's caption says "old": it looks different.
    d.window.part<app::RulePanel>().editor()->clearFocus();
    const QImage old = grabbed(*d.sheet().strips()[1]);
    d.trigger("undo");
    d.settle();
    CHECK(d.session().compiles());
    CHECK(grabbed(*d.sheet().strips()[1]) != old);
}

TEST_CASE("a file with mistakes that is opened first says that the sheet is not of it", "[gui]") {
    Driver d;
    const QString broken = d.file("broken.kasuri");
    REQUIRE(write_file(broken.toStdString(), "out.g = b +\nout.r = shaerd\n"));
    d.window.part<app::Files>().open(broken);
    d.settle_text();
    REQUIRE_FALSE(d.session().compiles());
    CHECK(d.window.part<app::RulePanel>().understood() == "2 errors (F8): the sheet shows what was there before");
    d.replace_text("out.g = b\n");
    REQUIRE(QTest::qWaitFor([&d] { return d.session().compiles(); }, 20000)); // until then nothing is asked for
    d.settle();
    CHECK(d.window.part<app::RulePanel>().understood().startsWith("0 operations a pixel")); // a swap is not nothing
    d.replace_text("out.g = g\n");
    d.settle();
    CHECK(d.window.part<app::RulePanel>().understood().startsWith("Changes nothing"));
}

TEST_CASE("the offered fix is applied by a click and by Alt+Enter, and can be undone", "[gui]") {
    Driver d;
    d.replace_text("out = g");
    d.settle_text();
    CHECK_FALSE(d.session().compiles());
    REQUIRE(QTest::qWaitFor([&] { return d.editor().shown_fault() != nullptr; }, 3000));
    auto* message = d.editor().findChild<app::MessageBox*>();
    REQUIRE(message);
    REQUIRE(QTest::qWaitFor([&] { return message->isVisible(); }, 3000));
    QTest::mouseClick(message->fix_button(), Qt::LeftButton);
    d.settle();
    CHECK(d.text() == "out.rgb = vec3(g)");
    CHECK(d.editor().content() == d.text());
    CHECK(d.session().compiles());
    CHECK(d.after(2, 0.4)[0] == d.after(2, 0.4)[2]);
    d.trigger("undo");
    d.settle_text();
    CHECK(d.text() == "out = g");
    CHECK(d.editor().content() == d.text());
    REQUIRE(QTest::qWaitFor([&] { return d.editor().shown_fault() != nullptr; }, 3000));
    d.trigger("fix");
    d.settle();
    CHECK(d.text() == "out.rgb = vec3(g)");
}

TEST_CASE("undo and redo go through text and values in the order they were made", "[gui]") {
    Driver d;
    d.replace_text("param k = 0 in 0 .. 1\nout.r = r + k\n");
    d.settle();
    d.session().set_value(0, 0.5);
    d.settle();
    d.end_of_text();
    d.type("out.g = b");
    d.settle();
    CHECK(d.after(0, 0.5)[0] == Approx(d.after(0, 0.5)[2] + 0.5));
    d.trigger("undo");
    d.settle();
    CHECK(d.text() == "param k = 0 in 0 .. 1\nout.r = r + k\n");
    CHECK(d.session().values()[0] == 0.5);
    d.trigger("undo");
    d.settle();
    CHECK(d.session().values()[0] == 0);
    d.trigger("undo");
    d.settle();
    CHECK(d.text().starts_with("filter \"Untitled\""));
    CHECK(d.editor().content() == d.text());
    CHECK_FALSE(d.session().modified());
    for (int i = 0; i < 3; ++i)
        d.trigger("redo");
    d.settle();
    CHECK(d.text().ends_with("out.g = b"));
    CHECK(d.session().values()[0] == 0.5);
    CHECK(d.editor().content() == d.text());
}

TEST_CASE("values are typed, stepped, dragged and reset", "[gui]") {
    Driver d;
    d.replace_text("param k = 0 in 0 .. 1\nout.r = r + k\n");
    d.settle();
    app::NumberField* field = d.window.part<app::ValuesPanel>().field("k");
    REQUIRE(field);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, "0.25");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.session().values()[0] == 0.25);
    QTest::keyClick(field, Qt::Key_Up);
    CHECK(d.session().values()[0] == Approx(0.26));
    QTest::keyClick(field, Qt::Key_Up, Qt::ShiftModifier);
    CHECK(d.session().values()[0] == Approx(0.261));
    QTest::keyClick(field, Qt::Key_Down, Qt::ControlModifier);
    CHECK(d.session().values()[0] == Approx(0.161));
    field->selectAll();
    QTest::keyClicks(field, "7");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.session().values()[0] == 1); // the rule's range holds
    field->selectAll();
    QTest::keyClicks(field, "many");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.session().values()[0] == 1); // what is no number changes nothing
    field->selectAll();
    QTest::keyClick(field, Qt::Key_Backspace);
    CHECK(d.session().values()[0] == 0);
    const QPoint middle = field->rect().center();
    QTest::mousePress(field, Qt::LeftButton, {}, middle);
    QTest::mouseMove(field, middle + QPoint(10, 0));
    QTest::mouseMove(field, middle + QPoint(20, 0));
    QTest::mouseRelease(field, Qt::LeftButton, {}, middle + QPoint(20, 0));
    CHECK(d.session().values()[0] > 0.02);
    d.settle();
    CHECK(d.after(0, 0.5)[0] == Approx(static_cast<double>(d.after(0, 0.5)[2]) + d.session().values()[0]));
}

TEST_CASE("a filter is saved, opened again, and found under recent", "[gui]") {
    Driver d;
    d.replace_text("filter \"Mine\"\nout.rgb = rgb.gbr\n");
    d.settle();
    CHECK(d.session().modified());
    const QString file = d.file("mine.kasuri");
    REQUIRE(d.window.part<app::Files>().save_to(file));
    CHECK_FALSE(d.session().modified());
    CHECK(d.window.windowTitle().startsWith("mine"));
    d.session().start_new();
    d.settle();
    CHECK(d.text().starts_with("filter \"Untitled\""));
    d.window.part<app::Files>().open(file);
    d.settle();
    CHECK(d.text() == "filter \"Mine\"\nout.rgb = rgb.gbr\n");
    CHECK(d.editor().content() == d.text());
    QMenu recent;
    d.window.part<app::Files>().fill_recent(recent);
    CHECK(recent.actions().front()->text().startsWith("mine.kasuri"));
}

TEST_CASE("a save that fails says so and loses nothing", "[gui]") {
    Driver d;
    d.replace_text("out.g = b");
    d.settle();
    CHECK_FALSE(d.window.part<app::Files>().save_to(d.file("no/such/folder/x.kasuri")));
    CHECK(d.session().modified());
    CHECK(d.text() == "out.g = b");
    CHECK(d.window.part<app::StatusLine>().message().contains("no folder"));
    d.window.part<app::Files>().open(d.file("none.kasuri")); // cannot be read: nothing is asked, nothing changes
    CHECK(d.text() == "out.g = b");
    CHECK(d.session().modified());
}

TEST_CASE("bad files leave the work on screen", "[gui]") {
    Driver d;
    d.session().take_as_saved();
    const std::string before = d.text();
    QFile binary(d.file("binary.kasuri"));
    REQUIRE(binary.open(QIODevice::WriteOnly));
    binary.write(QByteArray("out\0r", 5));
    binary.close();
    d.window.part<app::Files>().open(binary.fileName());
    CHECK(d.text() == before);
    CHECK(d.window.part<app::StatusLine>().message().contains("UTF-8"));
    const std::size_t cells = d.window.bench().sheet().cells().size();
    d.window.part<app::Files>().open(d.file("none.exr"));
    REQUIRE(QTest::qWaitFor([&] { return !d.window.bench().sheet().loading(); }, 5000));
    CHECK(d.window.bench().sheet().cells().size() == cells);
    CHECK(d.window.part<app::StatusLine>().message().contains("no such file"));
}

TEST_CASE("a rule of 2 MB is refused in the editor without harm", "[gui]") {
    Driver d;
    d.replace_text(QString(2'000'000, 'x'));
    d.settle_text();
    CHECK_FALSE(d.session().compiles());
    CHECK(d.session().diagnostics()[0].code == lang::Code::text_too_long);
    d.trigger("undo");
    d.settle();
    CHECK(d.session().compiles());
}

TEST_CASE("pictures, lenses and layers", "[gui]") {
    Driver d;
    d.replace_text("out.g = b");
    d.window.part<app::Files>().open(pictures + "puppet.exr");
    d.settle();
    app::SheetModel& sheet = d.window.bench().sheet();
    REQUIRE(sheet.cells().size() == 2);
    const int id = sheet.cells()[1].id;
    const app::CellView* view = d.sheet().cell(id);
    REQUIRE(view->result());
    const QImage colour = view->result()->after;
    sheet.set_lens(id, "green");
    d.settle();
    const QImage green = view->result()->after;
    CHECK(green != colour);
    CHECK(view->result()->before != green);
    for (int x = 0; x < green.width(); x += 7) { // a single channel is a neutral grey
        const QRgb pixel = green.pixel(x, green.height() / 2);
        REQUIRE((qRed(pixel) == qGreen(pixel) && qGreen(pixel) == qBlue(pixel)));
    }
    // After g := b, the green and the blue channel look the same.
    sheet.set_lens(id, "blue");
    d.settle();
    CHECK(view->result()->after == green);
    CHECK(view->result()->before == green); // blue itself was left alone
    sheet.set_lens(id, "alpha");
    d.settle();
    const QImage whole = view->result()->after;
    CHECK(qRed(whole.pixel(0, 0)) == 0);
    sheet.set_layer(id, "rods");
    d.settle();
    CHECK(view->result()->after != whole);
    CHECK(sheet.layers_of(*sheet.find(id)).size() == 4);
}

TEST_CASE("the pointer reads numbers before and after, and cells follow each other", "[gui]") {
    Driver d;
    d.replace_text("out.rgb = rgb * 0.5");
    d.window.part<app::Files>().open(pictures + "cloths.exr");
    d.settle();
    app::Readout seen;
    QObject::connect(&d.sheet(), &app::SheetView::pointed, [&seen](const app::Readout& readout) { seen = readout; });
    const int id = d.window.bench().sheet().cells()[1].id;
    app::CellView* view = d.sheet().cell(id);
    const QPointF at = view->point_of(QPoint(1715, 372)); // the lantern
    QTest::mouseMove(view, at.toPoint() + QPoint(1, 0));
    QTest::mouseMove(view, at.toPoint());
    REQUIRE(seen.valid);
    CHECK(seen.before[0] > 5);
    CHECK(seen.after[0] == seen.before[0] * 0.5f);
    app::StripView* strip = d.sheet().strips()[0];
    QTest::mouseMove(strip, QPoint((strip->plot_left() + strip->plot_right()) / 2, 40));
    CHECK(seen.target == "grey ramp");
    CHECK(seen.after[1] == Approx(seen.before[1] * 0.5f));
}

TEST_CASE("before is shown while F9 is held", "[gui]") {
    Driver d;
    d.replace_text("out.rgb = 1 - rgb");
    d.settle();
    app::StripView* strip = d.sheet().strips()[1];
    const QImage after = grabbed(*strip);
    QTest::keyPress(&d.editor(), Qt::Key_F9);
    const QImage before = grabbed(*strip);
    CHECK(before != after);
    QTest::keyRelease(&d.editor(), Qt::Key_F9);
    CHECK(grabbed(*strip) == after);
}

TEST_CASE("files are dropped on the window and on the editor", "[gui]") {
    Driver d;
    d.session().take_as_saved();
    drop_on(d.window, filters + "crossed-threads.kasuri");
    d.settle();
    CHECK(d.text().find("Crossed threads") != std::string::npos);
    drop_on(*d.editor().viewport(), pictures + "puppet.exr");
    d.settle();
    CHECK(d.window.bench().sheet().cells().size() == 2);
    CHECK(d.text().find("puppet") == std::string::npos); // opened, not pasted
}

TEST_CASE("a LUT is measured, written, and read by another reader", "[gui]") {
    Driver d;
    d.replace_text("filter \"Half\"\nparam k = 0 in 0 .. 1\nout.rgb = rgb * (1 - k)\n");
    d.settle();
    d.session().set_value(0, 0.5);
    d.window.part<app::HandoverActions>().open_bake();
    auto* bake = d.window.findChild<app::BakeWindow*>();
    REQUIRE(bake);
    REQUIRE(QTest::qWaitFor([&] { return bake->measured(); }, 20000));
    const QString file = d.file("half.cube");
    bake->write_to(file);
    REQUIRE(QTest::qWaitFor([&] { return !bake->writing(); }, 20000));
    CHECK(d.window.part<app::StatusLine>().message().startsWith("Wrote"));
    CHECK(d.window.part<app::StatusLine>().message().contains("read back"));
    namespace ocio = OCIO_NAMESPACE;
    const auto transform = ocio::FileTransform::Create();
    transform->setSrc(file.toStdString().c_str());
    const auto processor = ocio::Config::CreateRaw()->getProcessor(transform)->getDefaultCPUProcessor();
    float pixel[4] = {0.3f, 0.6f, 0.9f, 1};
    processor->applyRGBA(pixel);
    CHECK(pixel[0] == Approx(0.15f).margin(1e-6));
    CHECK(pixel[2] == Approx(0.45f).margin(1e-6));
    bake->close();
}

TEST_CASE("a rule is applied to a picture file in the background", "[gui]") {
    Driver d;
    d.replace_text("out.g = b");
    d.settle();
    const QString out = d.file("out.exr");
    d.window.part<app::HandoverActions>().render(pictures + "puppet.exr", out);
    REQUIRE(QTest::qWaitFor([&] { return d.window.part<app::StatusLine>().message().startsWith("Wrote"); }, 20000));
    CHECK(QFile::exists(out));
}

TEST_CASE("fast changes end with the newest on the sheet", "[gui]") {
    Driver d;
    d.replace_text("param k = 0 in 0 .. 1\nout.r = k\n");
    d.window.part<app::Files>().open(pictures + "cloths.exr");
    d.settle();
    for (int i = 1; i <= 60; ++i) {
        d.session().set_value(0, i / 60.0);
        QTest::qWait(1);
    }
    d.settle();
    CHECK(d.after(0, 0.5)[0] == 1);
}

TEST_CASE("the window's shortcuts come before the editor's keys", "[gui]") {
    Driver d;
    d.replace_text("out.g = b");
    d.settle();
    d.window.activateWindow();
    d.editor().setFocus();
    QTest::keyClick(&d.editor(), Qt::Key_L, Qt::ControlModifier);
    QTest::qWait(1);
    CHECK(d.text() == "out.g = b"); // not cut
    auto* bake = d.window.findChild<app::BakeWindow*>();
    REQUIRE(bake);
    bake->close();
    d.window.activateWindow();
    d.editor().setFocus();
    QTest::qWait(20);
    QTest::keyClick(&d.editor(), Qt::Key_Z, Qt::ControlModifier);
    CHECK(d.text().starts_with("filter"));
    QTest::keyClick(&d.editor(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(d.text() == "out.g = b");
}

TEST_CASE("everything is reached by keyboard", "[gui]") {
    Driver d;
    d.replace_text("param k = 0 in 0 .. 1\nout.r = r + k\n");
    d.settle();
    d.window.activateWindow();
    d.editor().setFocus();
    d.trigger("next_panel");
    CHECK(d.window.part<app::ValuesPanel>().isAncestorOf(QApplication::focusWidget()));
    d.trigger("next_panel");
    CHECK(d.sheet().isAncestorOf(QApplication::focusWidget()));
    app::Readout seen;
    QObject::connect(&d.sheet(), &app::SheetView::pointed, [&seen](const app::Readout& readout) { seen = readout; });
    QTest::keyClick(d.sheet().strips()[0], Qt::Key_Right);
    CHECK(seen.valid);
}
