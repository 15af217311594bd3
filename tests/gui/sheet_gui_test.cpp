// The sheet and the readings in the real window: zoom, split, pins, cuts, order, readings, export.
#include "gui/driver.hpp"
#include "io/picture_file.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/readings/plot_view.hpp"
#include "widgets/readings/reading_panel.hpp"
#include "widgets/readings/readings_column.hpp"
#include "widgets/sheet/pins_panel.hpp"
#include "widgets/tuning/mix_panel.hpp"
#include "widgets/tuning/values_panel.hpp"

#include <QAbstractButton>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QLineEdit>
#include <QMenu>
#include <QSettings>
#include <QToolButton>

#include <cmath>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

const QString pictures = KASURI_DEMO_DIR "/";

QAction* action_of(QMenu& menu, const QString& text) {
    for (QAction* action : menu.actions()) {
        if (action->text().startsWith(text) || action->objectName() == text)
            return action;
        if (action->menu())
            if (QAction* found = action_of(*action->menu(), text))
                return found;
    }
    return nullptr;
}

/// A window with the cloths in a cell that has the keyboard.
struct Cloths : Driver {
    int id = 0;
    CellView* view = nullptr;

    Cloths() {
        replace_text("out.rgb = rgb * 0.5");
        window.part<app::Files>().open(pictures + "cloths.exr");
        settle();
        id = window.bench().sheet().cells()[1].id;
        view = sheet().cell(id);
        window.activateWindow();
        view->setFocus();
        settle();
    }
};

QRgb pixel_of(CellView* view, const QPointF& at) { return view->grab().toImage().pixel(at.toPoint()); }

} // namespace

TEST_CASE("a cell is zoomed by keys and wheel, panned by dragging, and shows exactly the pixels it covers",
          "[gui][sheet]") {
    Cloths d;
    const auto& after = d.view->result()->after_pixels;
    d.view->set_spot(QPoint(960, 540)); // about which it zooms
    QTest::keyClick(d.view, Qt::Key_1);
    d.settle();
    CHECK(d.view->zoom().scale({1920, 1080}, {100, 100}) == 1);
    const QRect region = d.view->result()->region;
    CHECK(d.view->result()->after.size() == region.size());
    for (int i = 0; i < 40; ++i) { // one pixel of the picture is one of the screen
        const QPoint at(region.left() + i * region.width() / 40, region.top() + i * region.height() / 40);
        CHECK(qRed(d.view->result()->after.pixel(at - region.topLeft())) == display_code(after->at(at.x(), at.y())[0]));
        CHECK(d.view->pixel_at(d.view->point_of(at)) == at);
    }
    const QPointF middle = d.view->point_of(region.center());
    QTest::mousePress(d.view, Qt::LeftButton, {}, middle.toPoint());
    QTest::mouseMove(d.view, middle.toPoint() + QPoint(-40, -30));
    QTest::mouseRelease(d.view, Qt::LeftButton, {}, middle.toPoint() + QPoint(-40, -30));
    d.settle();
    CHECK(d.view->result()->region.left() == region.left() + 40);
    CHECK(d.view->result()->region.top() == region.top() + 30);
    // Far in, every pixel is a square with its numbers.
    d.view->zoom_to(60);
    d.settle();
    CHECK(d.view->result()->region.width() < 12);
    const QImage close = d.view->grab().toImage();
    CHECK_FALSE(close.isNull());
    QWheelEvent wheel(QPointF(100, 100), d.view->mapToGlobal(QPointF(100, 100)), {}, {0, -1200}, Qt::NoButton,
                      Qt::NoModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(d.view, &wheel);
    CHECK(d.view->zoom().scale({1920, 1080}, {100, 100}) < 10);
    QTest::keyClick(d.view, Qt::Key_0);
    CHECK(d.view->zoom().fits());
}

TEST_CASE("before and after: split by a line that moves, the same part twice, and alone", "[gui][sheet]") {
    Cloths d;
    const QPointF dark = d.view->point_of({300, 400}); // a cloth on the left
    const QRgb after = pixel_of(d.view, dark);
    QTest::keyClick(d.view, Qt::Key_S);
    CHECK(d.view->compare() == Compare::split);
    const QRgb before = pixel_of(d.view, dark);
    CHECK(qRed(before) > qRed(after)); // left of the line: not halved
    const QPointF right = d.view->point_of({1600, 400});
    // A pixel of the screen is not one of the picture: its neighbours are a step or two apart.
    const QRgb shown = pixel_of(d.view, right),
               made = d.view->result()->after.pixel((right - d.view->point_of({0, 0})).toPoint());
    for (const int shift : {0, 8, 16})
        CHECK(std::abs(static_cast<int>(shown >> shift & 255) - static_cast<int>(made >> shift & 255)) <= 3);
    // The line is dragged beyond the place.
    const QPoint line(static_cast<int>((d.view->point_of({0, 0}).x() + d.view->point_of({1919, 0}).x()) / 2), 100);
    QTest::mousePress(d.view, Qt::LeftButton, {}, line);
    QTest::mouseMove(d.view, QPoint(static_cast<int>(dark.x()) - 30, 100));
    QTest::mouseRelease(d.view, Qt::LeftButton, {}, QPoint(static_cast<int>(dark.x()) - 30, 100));
    CHECK(d.view->split() < 0.2);
    CHECK(pixel_of(d.view, dark) == after);
    QTest::keyClick(d.view, Qt::Key_BracketRight);
    CHECK(d.view->split() < 0.22);
    QTest::keyClick(d.view, Qt::Key_T);
    d.settle();
    CHECK(d.view->compare() == Compare::twice);
    const QPointF first = d.view->point_of({300, 400});
    const QPointF second = first + QPointF((d.view->width() - 6) / 2.0 + 6, 0);
    CHECK(d.view->pixel_at(second) == d.view->pixel_at(first));
    CHECK(qRed(pixel_of(d.view, first)) > qRed(pixel_of(d.view, second)));
    // One cell fills the sheet and goes back.
    const QSize small = d.view->size();
    QTest::keyClick(d.view, Qt::Key_F);
    d.settle();
    CHECK(d.sheet().alone() == d.id);
    CHECK(d.view->height() > 1.5 * small.height());
    CHECK_FALSE(d.sheet().strips()[0]->isVisible());
    QTest::mouseDClick(d.view, Qt::LeftButton, {}, QPoint(80, 80));
    d.settle();
    CHECK(d.sheet().alone() == 0);
    CHECK(d.view->size() == small);
    CHECK(d.sheet().strips()[0]->isVisible());
}

TEST_CASE("the words of a caption act, and its menu holds lenses, targets and the rest", "[gui][sheet]") {
    Cloths d;
    // "split fill 1:1" stand at the right end.
    QTest::mouseClick(d.view, Qt::LeftButton, {}, QPoint(d.view->width() - 5, 10));
    CHECK_FALSE(d.view->zoom().fits());
    QMenu menu;
    d.view->fill_menu(menu);
    for (const char* text : {"colour", "out of range", "difference", "oklch h", "Fill the sheet", "Pin this place",
                             "Cut along", "space:", "Duplicate", "bars_hd"})
        CHECK(action_of(menu, text));
    action_of(menu, "lab a -128 .. 127") ? action_of(menu, "lab a -128 .. 127")->trigger()
                                         : action_of(menu, "lab a")->trigger();
    CHECK(d.window.bench().sheet().find(d.id)->lens == "lab.a");
    d.settle();
    QTest::keyClick(d.view, Qt::Key_D);
    CHECK(d.window.bench().sheet().find(d.id)->lens == "difference");
    d.settle();
    action_of(menu, "bars_hd")->trigger();
    d.settle();
    CHECK(d.view->result()->space == "rec709-display");
    QMenu after;
    d.view->fill_menu(after);
    action_of(after, "Settings of the target")->trigger();
    auto* dialog = d.view->findChild<QDialog*>("settings");
    REQUIRE(dialog);
    auto* narrow = dialog->findChild<NumberField*>("narrow");
    REQUIRE(narrow);
    narrow->selectAll();
    QTest::keyClicks(narrow, "1");
    QTest::keyClick(narrow, Qt::Key_Return);
    d.settle();
    CHECK(narrow->value() == 1);
    CHECK(d.window.bench().sheet().find(d.id)->settings == std::vector<double>{1});
    CHECK(d.view->result()->before_pixels->at(5, 5)[0] == Approx(414.0 / 1023).margin(0.001));
    dialog->close();
    QTest::keyClick(d.view, Qt::Key_Delete);
    d.settle();
    CHECK(d.window.bench().sheet().find(d.id) == nullptr);
}

TEST_CASE("pins are set, read before and after, dragged and removed", "[gui][sheet]") {
    Cloths d;
    const QPointF at = d.view->point_of({1715, 372}); // the lantern
    QTest::mouseClick(d.view, Qt::LeftButton, Qt::ControlModifier, at.toPoint());
    d.settle();
    PinsPanel& panel = d.window.part<app::PinsPanel>();
    REQUIRE(panel.pins().size() == 1);
    CHECK(panel.isVisible());
    const Readout readout = panel.pins()[0].readout;
    REQUIRE(readout.valid);
    CHECK(readout.before[0] > 5);
    CHECK(readout.after[0] == readout.before[0] * 0.5f);
    CHECK(rows_of(readout).back().after > 1); // the difference
    d.replace_text("out.rgb = rgb * 0.25");
    d.settle();
    CHECK(panel.pins()[0].readout.after[0] == readout.before[0] * 0.25f);
    // By keyboard, at the spot; then the first is dragged.
    QTest::keyClick(d.view, Qt::Key_P);
    CHECK(d.window.bench().sheet().pins().size() == 2);
    QTest::mousePress(d.view, Qt::LeftButton, {}, at.toPoint());
    QTest::mouseMove(d.view, at.toPoint() + QPoint(-60, 20));
    QTest::mouseRelease(d.view, Qt::LeftButton, {}, at.toPoint() + QPoint(-60, 20));
    CHECK(panel.pins()[0].readout.before[0] < 5);
    CHECK_FALSE(panel.grab().isNull());
    panel.setFocus();
    QTest::keyClick(&panel, Qt::Key_Down);
    QTest::keyClick(&panel, Qt::Key_Delete);
    CHECK(d.window.bench().sheet().pins().size() == 1);
    // Its picture goes: the pin stays and says so.
    d.window.bench().sheet().remove(d.id);
    d.settle();
    CHECK_FALSE(panel.pins()[0].readout.valid);
}

TEST_CASE("a pin's numbers follow a value that is dragged, before the exact sheet comes", "[gui][sheet]") {
    Cloths d;
    d.replace_text("param k = 0 in 0 .. 400\nout.b = b + k");
    d.settle();
    QTest::mouseClick(d.view, Qt::LeftButton, Qt::ControlModifier, d.view->point_of({300, 200}).toPoint());
    d.settle();
    PinsPanel& panel = d.window.part<app::PinsPanel>();
    REQUIRE(panel.pins().size() == 1);
    const auto told = [&] {
        const Readout& readout = panel.pins()[0].readout;
        return readout.valid ? static_cast<double>(readout.after[2] - readout.before[2]) : -1;
    };
    std::vector<double> seen = {told()};
    REQUIRE(seen[0] == 0);
    for (int k = 1; k < 400 && seen.size() < 4; ++k) {
        d.session().set_value(0, k);
        QTest::qWait(8);
        if (told() != seen.back()) {
            seen.push_back(told());
            CHECK(seen.back() == Approx(std::round(seen.back())).margin(1e-3)); // of one value, none in between
            CHECK(seen.back() > seen[seen.size() - 2]);
            CHECK(seen.back() <= k);
        }
    }
    CHECK(seen.size() == 4);
    d.settle();
    CHECK(told() == Approx(d.session().values()[0]).margin(1e-3));
}

TEST_CASE("a line across a picture becomes a strip in register", "[gui][sheet]") {
    Cloths d;
    SheetModel& sheet = d.window.bench().sheet();
    const QPointF from = d.view->point_of({200, 300}), to = d.view->point_of({1700, 300});
    QTest::mousePress(d.view, Qt::LeftButton, Qt::ShiftModifier, from.toPoint());
    QTest::mouseMove(d.view, to.toPoint());
    QTest::mouseRelease(d.view, Qt::LeftButton, Qt::ShiftModifier, to.toPoint());
    d.settle();
    REQUIRE(sheet.strips().size() == 4);
    StripView* strip = d.sheet().strips()[3];
    CHECK(strip->target() == nullptr);
    REQUIRE(strip->result());
    CHECK(strip->result()->before.width == Approx(1500).margin(20));
    for (int x = 0; x < 1400; x += 100)
        CHECK(strip->result()->after.at(x, 0)[1] == strip->result()->before.at(x, 0)[1] * 0.5f);
    CHECK_FALSE(strip->grab().isNull());
    QMenu menu;
    strip->fill_menu(menu);
    action_of(menu, "Move up")->trigger();
    CHECK(sheet.strips()[2].id == strip->id());
    action_of(menu, "step_wedge")->trigger(); // shown instead
    d.settle();
    CHECK(strip->target() == targets::find("step_wedge"));
    QTest::keyClick(strip, Qt::Key_Delete);
    d.settle();
    CHECK(sheet.strips().size() == 3);
}

TEST_CASE("where a caption has no room, its words that act go before its name and lens do", "[gui][sheet]") {
    Cloths d;
    // Every place of the caption right of the middle, from the right: what a click there does.
    const auto acts = [&] {
        QStringList all;
        for (int x = d.view->width() - 3; x > d.view->width() / 2; x -= 6) {
            const int alone = d.sheet().alone();
            const bool fits = d.view->zoom().fits();
            QTest::mouseClick(d.view, Qt::LeftButton, {}, QPoint(x, 10));
            if (QWidget* menu = QApplication::activePopupWidget()) // where no word is
                menu->close();
            if (d.view->zoom().fits() != fits) {
                QTest::keyClick(d.view, Qt::Key_0);
                all << "1:1";
            }
            if (d.sheet().alone() != alone) {
                QTest::keyClick(d.view, Qt::Key_F);
                all << "fill";
            }
        }
        all.removeDuplicates();
        return all;
    };
    d.window.resize(1280, 800);
    d.settle();
    CHECK(acts() == QStringList{"1:1", "fill"});
    for (int k = 0; k < 7; ++k) // many cells: each of them is narrow
        d.window.bench().sheet().duplicate(d.id);
    d.window.bench().sheet().set_lens(d.id, "difference");
    d.settle();
    d.view = d.sheet().cell(d.id);
    REQUIRE(d.view);
    CHECK_FALSE(acts().contains("1:1"));
    QTest::keyClick(d.view, Qt::Key_F); // keys do it nevertheless, and the way back is always there
    d.settle();
    CHECK(d.sheet().alone() == d.id);
}

TEST_CASE("cells are put in order by dragging their captions and by keys", "[gui][sheet]") {
    Cloths d;
    SheetModel& sheet = d.window.bench().sheet();
    const int chart = sheet.cells()[0].id;
    CellView* other = d.sheet().cell(chart);
    QTest::mousePress(d.view, Qt::LeftButton, {}, QPoint(10, 10));
    QTest::mouseMove(d.view, QPoint(40, 30));
    QTest::mouseRelease(d.view, Qt::LeftButton, {}, d.view->mapFromGlobal(other->mapToGlobal(QPoint(20, 60))));
    CHECK(sheet.cells()[0].id == d.id);
    QTest::keyClick(d.view, Qt::Key_Right, Qt::AltModifier);
    CHECK(sheet.cells()[1].id == d.id);
    QTest::keyClick(d.view, Qt::Key_Left, Qt::AltModifier);
    CHECK(sheet.cells()[0].id == d.id);
}

TEST_CASE("a numbered sequence has a frame slider, and lens, pins and said space go along", "[gui][sheet]") {
    Driver d;
    for (int i = 1; i <= 5; ++i) {
        image::Image image = image::image_of(image::generated(32, 18, [&](int, int) {
            return std::array<double, 3>{i / 10.0, 0.5, 0};
        }));
        REQUIRE(io::save(d.file(QString("dusk.%1.exr").arg(i * 2, 4, 10, QChar('0'))).toStdString(), image));
    }
    d.window.part<app::Files>().open(d.file("dusk.0004.exr"), "red");
    d.settle();
    SheetModel& sheet = d.window.bench().sheet();
    const int id = sheet.cells()[1].id;
    CellView* view = d.sheet().cell(id);
    const auto red = [&] { return view->result()->before_pixels->at(3, 3)[0]; };
    CHECK(red() == Approx(0.2));
    sheet.add_pin(sheet.find(id)->source(), {3, 3});
    sheet.set_space(id, "acescg");
    d.settle();
    view->setFocus();
    QTest::keyClick(view, Qt::Key_Period);
    d.settle();
    CHECK(red() == Approx(0.3));
    CHECK(sheet.find(id)->lens == "red");
    CHECK(view->result()->space == "acescg");
    CHECK(d.window.part<app::PinsPanel>().pins()[0].readout.before[0] == Approx(0.3));
    QTest::keyClick(view, Qt::Key_PageUp);
    QTest::keyClick(view, Qt::Key_PageUp);
    QTest::keyClick(view, Qt::Key_PageUp); // the first: stays
    d.settle();
    CHECK(red() == Approx(0.1));
    // The slider under the picture.
    FramesBar* bar = view->findChild<FramesBar*>();
    QTest::mousePress(bar, Qt::LeftButton, {}, QPoint(bar->width() - 4, 6));
    d.settle();
    CHECK(red() == Approx(0.5));
    const QPoint third(static_cast<int>(bar->x_of(2)), 6);
    QTest::mouseMove(bar, third);
    QTest::mouseRelease(bar, Qt::LeftButton, {}, third);
    d.settle();
    CHECK(red() == Approx(0.3));
    CHECK_FALSE(view->grab().isNull());
}

TEST_CASE("identity shows the same before and after, everywhere", "[gui][sheet]") {
    Driver d;
    d.window.part<app::Files>().open(pictures + "cloths.exr");
    for (const targets::Target* target : targets::all())
        if (target->shape != targets::Shape::strip)
            d.window.bench().sheet().add_target(*target, "colour");
    for (const readings::Reading* reading : readings::all())
        d.window.bench().readings().add(*reading, {}, ShownReading::all);
    d.settle();
    for (const Cell& cell : d.window.bench().sheet().cells()) {
        INFO(cell.source());
        const CellResult* result = d.sheet().cell(cell.id)->result();
        REQUIRE(result);
        CHECK(result->before == result->after);
    }
    for (ReadingPanel* panel : d.window.part<app::ReadingsColumn>().panels()) {
        panel->set_before_only(true);
        const QImage before = panel->plot().grab().toImage();
        panel->set_before_only(false);
        CHECK_FALSE(panel->csv().isEmpty());
        CHECK_FALSE(before.isNull());
    }
}

TEST_CASE("a premultiplied edge does not change under an offset", "[gui][sheet]") {
    Driver d;
    d.replace_text("out.rgb = rgb + 0.2");
    d.window.part<app::Files>().open(pictures + "puppet.exr");
    d.settle();
    const CellResult* result = d.sheet().cell(d.window.bench().sheet().cells()[1].id)->result();
    REQUIRE(result);
    // Where there is nothing, nothing comes; alpha is as it was. Straight numbers move by 0.2 however thin the edge is.
    CHECK(result->after_pixels->planes[3] == result->before_pixels->planes[3]);
    CHECK(result->before.pixel(0, 0) == result->after.pixel(0, 0));
    int edges = 0;
    for (std::size_t i = 0; i < result->before_pixels->pixels(); i += 17) {
        const auto was = result->before_pixels->at(i), is = result->after_pixels->at(i);
        if (was[3] > 0.05f && was[3] < 0.95f) {
            ++edges;
            CHECK(is[0] == Approx(was[0] + 0.2f).margin(1e-6));
        }
    }
    CHECK(edges > 20);
}

TEST_CASE("readings are chosen, set, frozen, exported and kept", "[gui][readings]") {
    Cloths d;
    ReadingsModel& model = d.window.bench().readings();
    ReadingsColumn& column = d.window.part<app::ReadingsColumn>();
    REQUIRE(column.panels().size() == 3);
    ReadingPanel* panel = column.panels()[2];
    model.set_reading(panel->id(), *readings::find("histogram"));
    d.settle();
    const QImage first = panel->plot().grab().toImage();
    panel->toggle_frozen();
    CHECK(panel->frozen());
    d.replace_text("out.rgb = rgb * 0.1");
    d.settle();
    const QImage frozen = panel->plot().grab().toImage();
    CHECK(frozen != first);
    panel->toggle_frozen();
    CHECK(panel->plot().grab().toImage() != frozen); // the reference is before again
    // Another unit by its settings window.
    QMenu menu;
    panel->fill_menu(menu);
    action_of(menu, "Ranges and settings")->trigger();
    auto* dialog = panel->findChild<QDialog*>("settings");
    REQUIRE(dialog);
    dialog->findChild<QComboBox*>("unit")->setCurrentIndex(3);
    d.settle();
    CHECK(panel->plot().panels()[0].x.title == "stops about 0.18");
    for (QAbstractButton* button : dialog->findChildren<QAbstractButton*>())
        button->click(); // reset all
    d.settle();
    CHECK(panel->plot().panels()[0].x.title == "value");
    dialog->close();
    // Numbers as a file; a folder that is not there is told.
    CHECK(panel->export_to(d.file("histogram.csv")));
    QFile file(d.file("histogram.csv"));
    REQUIRE(file.open(QIODevice::ReadOnly));
    CHECK(file.readLine() == "value,r\n");
    CHECK_FALSE(panel->export_to(d.file("no/such/folder.csv")));
    CHECK(d.window.part<app::StatusLine>().message().contains("no/such"));
    panel->copy_picture();
    CHECK_FALSE(QApplication::clipboard()->image().isNull());
    // A window of its own follows.
    panel->tear_off();
    PlotView* torn = nullptr;
    for (QWidget* top : QApplication::topLevelWidgets())
        if (auto* plot = qobject_cast<PlotView*>(top))
            torn = plot;
    REQUIRE(torn);
    const QImage was = torn->grab().toImage();
    d.replace_text("out.rgb = rgb");
    d.settle();
    CHECK(torn->grab().toImage() != was);
    torn->close();
    action_of(menu, "Remove this reading")->trigger();
    CHECK(model.readings().size() == 2);
}

TEST_CASE("the pointer reads a plot's axes, and the panel is reached by keyboard", "[gui][readings]") {
    Cloths d;
    PlotView& plot = d.window.part<app::ReadingsColumn>().panels()[0]->plot();
    const QRectF field = plot.field_of(0);
    CHECK(plot.figures_text().contains("slope at 0.18  r 0.500  g 0.500"));
    QTest::mouseMove(&plot, field.center().toPoint() + QPoint(1, 0));
    QTest::mouseMove(&plot, field.center().toPoint());
    CHECK(plot.hover_text().startsWith("in, value 0.6"));
    QTest::mouseMove(&plot, QPoint(2, 2));
    CHECK(plot.hover_text().isEmpty());
    d.sheet().strips()[0]->setFocus();
    d.trigger("next_panel");
    CHECK(d.window.part<app::ReadingsColumn>().isAncestorOf(QApplication::focusWidget()));
    for (QToolButton* button : d.window.part<app::ReadingsColumn>().findChildren<QToolButton*>())
        CHECK_FALSE(button->accessibleName().isEmpty());
}

TEST_CASE("strips and readings are remembered", "[gui][readings]") {
    {
        Driver d;
        d.window.bench().sheet().add_strip(*targets::find("step_wedge"), {11, 0.3});
        d.window.bench().readings().add(*readings::find("vectorscope"), {1, 2, 1});
        d.window.bench().sheet().add_target(*targets::find("bars_75"), "lab.l", {1, 0.75});
        d.window.bench().sheet().add_picture((pictures + "puppet.exr").toStdString(), "veil", "robe");
        d.settle();
        d.window.close();
    }
    Driver d;
    d.window.restore_layout();
    d.settle();
    REQUIRE(d.window.bench().sheet().strips().size() == 4);
    CHECK(d.window.bench().sheet().strips()[3].settings == std::vector<double>{11, 0.3});
    REQUIRE(d.window.bench().readings().readings().size() == 4);
    CHECK(d.window.bench().readings().readings()[3].settings == std::vector<double>{1, 2, 1});
    d.window.bench().sheet().remove(d.window.bench().sheet().cells()[0].id);
    d.window.restore_sheet();
    d.settle();
    const auto& cells = d.window.bench().sheet().cells();
    REQUIRE(cells.size() == 3); // with the chart that every driver starts with
    CHECK(cells[1].target == targets::find("bars_75"));
    CHECK(cells[1].settings == std::vector<double>{1, 0.75});
    CHECK(cells[1].lens == "lab.l");
    CHECK(cells[2].layer == "robe");
    CHECK(cells[2].lens == "veil");
    QSettings().clear();
}

TEST_CASE("every reading and lens can be drawn at odd sizes and scales", "[gui][readings]") {
    Cloths d;
    for (const readings::Reading* reading : readings::all()) {
        d.window.bench().readings().set_reading(d.window.part<app::ReadingsColumn>().panels()[0]->id(), *reading);
        d.settle();
        PlotView& plot = d.window.part<app::ReadingsColumn>().panels()[0]->plot();
        for (const QSize size : {QSize(90, 70), QSize(1200, 300), QSize(300, 1200)}) {
            QImage image(size * 2, QImage::Format_RGB32);
            image.setDevicePixelRatio(2);
            plot.setFixedSize(size);
            plot.render(&image);
            CHECK_FALSE(image.isNull());
        }
        plot.setMinimumSize(0, 0);
        plot.setMaximumSize(QWIDGETSIZE_MAX, QWIDGETSIZE_MAX);
    }
    for (const Lens& lens : lenses()) {
        d.window.bench().sheet().set_lens(d.id, lens.id);
        d.settle();
        CHECK(d.view->result()->after.width() > 10);
    }
}

TEST_CASE("what is pointed at is pinned whatever has the keyboard", "[gui][pins]") {
    Driver d;
    d.replace_text("param k = 0.5 in 0 .. 1\nout.rgb = rgb * k\n");
    d.settle();
    app::SheetModel& sheet = d.window.bench().sheet();
    app::CellView* cell = d.sheet().cell(sheet.cells().front().id);
    const std::string text = d.text();
    const QString number = d.window.part<app::ValuesPanel>().field("k")->text();
    d.trigger("mix");
    d.trigger("library");
    std::size_t pins = 0;
    const auto pins_by = [&](QWidget* focus, int key, Qt::KeyboardModifiers modifiers) {
        REQUIRE(focus);
        focus->setFocus();
        QTest::mouseMove(cell, QPoint(40 + 7 * static_cast<int>(pins), 80));
        QTest::keyClick(focus, static_cast<Qt::Key>(key), modifiers);
        return sheet.pins().size() == ++pins;
    };
    CHECK(pins_by(&d.editor(), Qt::Key_P, Qt::ControlModifier));
    CHECK(pins_by(d.window.part<app::ValuesPanel>().field("k"), Qt::Key_P, Qt::NoModifier));
    CHECK(pins_by(d.window.part<app::ValuesPanel>().field("k"), Qt::Key_P, Qt::ControlModifier));
    CHECK(pins_by(d.window.findChild<QLineEdit*>("library_search"), Qt::Key_P, Qt::ControlModifier));
    CHECK(pins_by(cell, Qt::Key_P, Qt::NoModifier));
    CHECK(pins_by(&d.window, Qt::Key_P, Qt::NoModifier)); // nothing has it
    for (app::NumberField* field : d.window.part<app::MixPanel>().findChildren<app::NumberField*>())
        if (field->isVisible()) {
            CHECK(pins_by(field, Qt::Key_P, Qt::NoModifier));
            break;
        }
    CHECK(d.window.part<app::ValuesPanel>().field("k")->text() == number);
    CHECK(d.text() == text);
    d.editor().setFocus();
    QTest::keyClick(&d.editor(), Qt::Key_P); // a text takes its letters
    CHECK(sheet.pins().size() == pins);
    CHECK(d.text() != text);
}
