#include "baking/bake.hpp"
#include "builtins/builtin.hpp"
#include "document/look_file.hpp"
#include "gui/driver.hpp"
#include "handover/cube.hpp"
#include "io/picture_file.hpp"
#include "lang/check.hpp"
#include "targets/demo_pictures.hpp"
#include "widgets/frame/side_windows.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/readings/plot_view.hpp"
#include "widgets/tuning/chart_view.hpp"
#include "widgets/tuning/chart_window.hpp"
#include "widgets/tuning/fit_window.hpp"

#include <QDragEnterEvent>
#include <QDropEvent>
#include <QMenu>
#include <QMimeData>
#include <QTemporaryDir>
#include <QToolButton>
#include <QUndoStack>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

constexpr char mixed[] =
    "out.rgb = mat3(0.8, 0.2, 0,\n               0.15, 0.7, 0.15,\n               0, 0.25, 0.75) * rgb\n";

/// A LUT of the rule above, for numbers of srgb.
QString lut(const QTemporaryDir& folder) {
    lang::Checked checked = lang::check(std::string("working srgb\n") + mixed, builtins::vocabulary());
    REQUIRE(checked.ok);
    const subject::Subject subject(std::move(checked.rule));
    const auto baked = baking::bake(subject, {});
    REQUIRE(baked);
    const QString file = folder.filePath("found.cube");
    REQUIRE(handover::write_lut(file.toStdString(), subject, baked.value()));
    return file;
}

struct Finding : Driver {
    QTemporaryDir folder;
    FitWindow* finder = nullptr;
    Finding() {
        trigger("fit");
        finder = window.part<app::SideWindows>().fit();
        REQUIRE(finder);
    }
    void wait() {
        for (int i = 0; i < 3000 && finder->model().running(); ++i)
            QTest::qWait(20);
        REQUIRE_FALSE(finder->model().running());
    }
    /// The row of the marked one is chosen when all have come.
    std::string marked() const {
        const fit::Candidate* best = finder->model().candidate(finder->model().best_row());
        return best ? best->family->name : "";
    }
};

} // namespace

TEST_CASE("a LUT that is dropped on the window gives candidates, and the marked one goes on the bench, undoably",
          "[gui][fit]") {
    Finding d;
    d.replace_text("out.r = g\n");
    d.settle();
    CHECK(d.finder->words().contains("drop it here"));
    QMimeData dropped;
    dropped.setUrls({QUrl::fromLocalFile(lut(d.folder))});
    QDragEnterEvent enter({20, 20}, Qt::CopyAction, &dropped, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(d.finder, &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop({20, 20}, Qt::CopyAction, &dropped, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(d.finder, &drop);
    CHECK(d.finder->model().running());
    d.wait();
    CHECK(d.marked() == "matrix-balanced");
    CHECK(d.finder->chosen() == d.finder->model().best_row());
    CHECK(d.finder->text().contains("0.15, 0.7, 0.15,"));
    CHECK(d.finder->words().contains("found.cube"));
    CHECK(d.finder->words().contains("srgb"));
    CHECK(d.finder->model().rowCount() >= 3);
    CHECK(d.finder->model().rowCount() < 12);
    d.finder->take();
    d.settle();
    CHECK(d.text().find("filter \"As in found.cube\"") == 0);
    CHECK(d.text().find("0, 0.25, 0.75) * rgb") != std::string::npos);
    CHECK(d.window.bench().session().rule());
    d.trigger("undo");
    CHECK(d.text() == "out.r = g\n");
    d.finder->close();
}

TEST_CASE("candidates become takes, in one step", "[gui][fit]") {
    Finding d;
    d.replace_text("out.r = g\n");
    d.settle();
    d.finder->find({lut(d.folder)});
    d.wait();
    const int rows = d.finder->model().rowCount();
    d.finder->keep_as_takes();
    d.settle();
    REQUIRE(d.window.bench().takes().takes().size() == static_cast<std::size_t>(rows));
    CHECK(d.text() == "out.r = g\n");
    d.window.bench().takes().flip_to(d.finder->model().best_row());
    d.settle();
    CHECK(d.text().find("0.15, 0.7, 0.15") != std::string::npos);
    d.trigger("undo");
    d.trigger("undo");
    CHECK(d.window.bench().takes().takes().empty());
    d.finder->close();
}

TEST_CASE("behind a LUT on the bench the rule becomes a step, and the LUT is switched off", "[gui][fit]") {
    Finding d;
    d.replace_text("out.rgb = rgb * 0.5\n"); // what stands before it stays, and is no part of what is found
    const auto step = document::step_from(lut(d.folder).toStdString());
    REQUIRE(step);
    d.window.bench().look().add(step.value(), 1);
    d.settle();
    REQUIRE(d.window.bench().session().fixed());
    d.finder->find_of_bench();
    d.wait();
    CHECK(d.marked() == "matrix-balanced");
    d.finder->take();
    d.settle();
    LookModel& look = d.window.bench().look();
    REQUIRE(look.count() == 3);
    CHECK_FALSE(look.steps()[1].on);
    CHECK(look.current() == 2);
    CHECK(d.text().find("filter \"As in found\"") == 0);
    CHECK(d.text().find("working srgb") != std::string::npos);
    CHECK(d.text().find("0.15, 0.7, 0.15") != std::string::npos);
    d.trigger("undo");
    CHECK(look.count() == 2);
    CHECK(look.steps()[1].on);
    d.finder->close();
}

TEST_CASE("what cannot be fitted is said in the window, and a search can be called off or asked anew", "[gui][fit]") {
    Finding d;
    const QString bad = d.folder.filePath("bad.csv");
    QFile file(bad);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("1,2,3\n");
    file.close();
    d.finder->find({bad});
    d.wait();
    CHECK(d.finder->words().contains("bad.csv"));
    CHECK(d.finder->words().contains("ine 1 is not six numbers"));
    CHECK(d.finder->model().failed());
    d.finder->take(); // nothing to take
    const QString table = lut(d.folder);
    d.finder->find({table});
    d.finder->model().cancel();
    CHECK(d.finder->words() == "Called off.");
    CHECK(d.finder->model().best_row() == -1);
    d.finder->find({bad}); // the latest counts
    d.finder->find({table});
    d.wait();
    CHECK(d.marked() == "matrix-balanced");
    d.finder->find({table, table, table});
    d.wait();
    CHECK(d.finder->model().failed());
    d.finder->close();
}

TEST_CASE("a chart in a picture: corners by hand, patches that count, the rule of the camera", "[gui][fit]") {
    Finding driver;
    ChartWindow& window = driver.finder->chart();
    const QString file = driver.folder.filePath("chart.exr");
    REQUIRE(io::save(file.toStdString(), targets::demo_chart()));
    window.open(file);
    window.show();
    ChartModel& model = window.model();
    REQUIRE(QTest::qWaitFor([&] { return !model.image(ChartModel::seen).isNull(); }, 20000));
    CHECK(model.size(ChartModel::seen) == QSize(960, 640));
    CHECK(window.words().contains("24 patches"));
    ChartView& view = *window.view(ChartModel::seen);
    view.setFocus();
    // Dragged by the mouse, then to the very place by typed numbers.
    for (int i = 0; i < 4; ++i) {
        const image::Point end = targets::demo_chart_corners[static_cast<std::size_t>(i)];
        const QPoint from = view.on_screen(model.corners(ChartModel::seen)[static_cast<std::size_t>(i)]).toPoint();
        QTest::mousePress(&view, Qt::LeftButton, {}, from);
        QTest::mouseMove(&view, view.on_screen(end).toPoint());
        QTest::mouseRelease(&view, Qt::LeftButton, {}, view.on_screen(end).toPoint());
        CHECK(view.held() == i);
        const image::Point now = model.corners(ChartModel::seen)[static_cast<std::size_t>(i)];
        CHECK(std::hypot(now.x - end.x, now.y - end.y) < 4);
        window.field(0)->value_edited(end.x);
        window.field(1)->value_edited(end.y);
        CHECK(model.corners(ChartModel::seen)[static_cast<std::size_t>(i)] == end);
    }
    CHECK(window.words().contains("21 of 24"));
    CHECK(window.words().contains("white"));
    CHECK(model.words_at(ChartModel::seen, {170 + 40, 118 + 40}).startsWith("dark skin: seen as 0.2"));
    CHECK(model.words_at(ChartModel::seen, {10, 10}).isEmpty());
    // Arrow keys move the corner that is held; keys 1 to 4 hold one.
    QTest::keyClick(&view, Qt::Key_2);
    CHECK(view.held() == 1);
    QTest::keyClick(&view, Qt::Key_Right);
    QTest::keyClick(&view, Qt::Key_Up, Qt::ShiftModifier);
    CHECK(model.corners(ChartModel::seen)[1] == image::Point{813, 73.9});
    model.turn(ChartModel::seen);
    CHECK(model.corners(ChartModel::seen)[0] == image::Point{813, 73.9});
    for (int i = 0; i < 3; ++i)
        model.turn(ChartModel::seen);
    emit window.wanted();
    REQUIRE(QTest::qWaitFor([&] { return driver.finder->model().best_row() >= 0; }, 20000));
    CHECK(driver.finder->words().contains("21 of 24 patches"));
    CHECK(driver.finder->text().contains("mat3("));
    // Against the same chart in another picture: here the same picture, so nothing changes.
    window.open_other(file);
    REQUIRE(QTest::qWaitFor([&] { return !model.image(ChartModel::other).isNull(); }, 20000));
    model.set_corners(ChartModel::other, model.corners(ChartModel::seen));
    emit window.wanted();
    REQUIRE(QTest::qWaitFor([&] { return driver.finder->model().best_row() >= 0 && !driver.finder->model().running(); },
                            20000));
    CHECK(driver.finder->model().candidate(driver.finder->model().best_row())->family->name == "identity");
    // Crossed corners are told, and what is no picture.
    image::Corners crossed = model.corners(ChartModel::seen);
    std::swap(crossed[0], crossed[1]);
    model.set_corners(ChartModel::seen, crossed);
    CHECK(window.words().contains("four-sided"));
    CHECK_FALSE(model.ready());
    window.open(driver.folder.filePath("none.exr"));
    REQUIRE(QTest::qWaitFor([&] { return !model.loading(ChartModel::seen); }, 20000));
    CHECK(window.words().contains("none.exr"));
    CHECK_FALSE(model.ready());
}

TEST_CASE("where a found rule is off is drawn, held wishes are fitted through, and a table takes the rest",
          "[gui][fit]") {
    Finding d;
    d.replace_text(QString("working srgb\n") + mixed + "out.rgb = mix(out.rgb, out.rgb * out.rgb, 0.2)\n");
    d.settle();
    d.finder->find_of_bench();
    d.wait();
    // The simplest row is off, and how far is drawn on the plane and in the room.
    d.finder->choose(0);
    REQUIRE(QTest::qWaitFor([&] { return d.finder->model().residual() != nullptr; }, 20000));
    REQUIRE_FALSE(d.finder->plot()->panels().empty());
    CHECK_FALSE(d.finder->plot()->panels().front().z);
    const fit::Residual& residual = *d.finder->model().residual();
    REQUIRE(residual.delta_e.size() > 300);
    double mean = 0;
    for (const double x : residual.delta_e)
        mean += x / static_cast<double>(residual.delta_e.size());
    const fit::Candidate& simplest = *d.finder->model().candidate(0);
    CHECK(std::fabs(mean - simplest.errors.delta_e_mean) < 0.2 * simplest.errors.delta_e_mean);
    d.finder->show_room(true);
    CHECK(d.finder->plot()->panels().front().z);
    d.finder->show_room(false);
    // With a table behind it, it is off by less; one undo takes both away.
    const std::string before = d.window.bench().session().text();
    d.finder->take_with_rest();
    REQUIRE(QTest::qWaitFor([&] { return d.finder->model().rest() != nullptr; }, 20000));
    REQUIRE(*d.finder->model().rest());
    CHECK(d.finder->model().rest()->value().errors.largest < 0.2 * simplest.errors.largest);
    CHECK(d.window.bench().look().look().steps.size() == 2);
    CHECK(d.window.bench().look().look().steps.back().lut == ".cube");
    CHECK(d.finder->words().contains("With the table"));
    d.window.bench().session().undo_stack().undo();
    CHECK(d.window.bench().look().look().steps.size() == 1);
    CHECK(d.window.bench().session().text() == before);
    // What is held stands in every rule.
    for (QAction* action : d.finder->options_button()->menu()->actions())
        if (action->text().contains("luminance"))
            action->setChecked(true);
    d.wait();
    d.finder->choose(d.finder->model().best_row());
    CHECK(d.finder->text().contains("keep luminance"));
}

TEST_CASE("where a rule is off is seen on the sheet, against the LUT that it was found of", "[gui][fit]") {
    Finding d;
    d.replace_text("out.r = g\n");
    d.settle();
    d.finder->find({lut(d.folder)});
    d.wait();
    d.finder->choose(0); // the simplest: far off
    d.finder->see_on_sheet();
    d.settle();
    SheetModel& sheet = d.window.bench().sheet();
    REQUIRE(d.window.bench().against().rule());
    CHECK(d.window.bench().against().name() == "found.cube");
    REQUIRE(sheet.cells().size() == 2);
    CHECK(sheet.cells()[1].lens == "difference");
    CHECK(d.text() == d.finder->text().toStdString());
    // Off where the matrix is far from nothing; the exact one shows black, and its cell is the same one.
    const auto usual = [&] {
        d.settle();
        const CellResult* cell = d.sheet().cell(sheet.cells()[1].id)->result();
        REQUIRE(cell);
        std::vector<int> all; // in the middle of all pixels: the chart has colours that no LUT of 0 to 1 knows
        for (int y = 0; y < cell->after.height(); ++y)
            for (int x = 0; x < cell->after.width(); ++x)
                all.push_back(qGray(cell->after.pixel(x, y)));
        std::nth_element(all.begin(), all.begin() + static_cast<long>(all.size() / 2), all.end());
        return all[all.size() / 2];
    };
    CHECK(usual() > 40);
    d.finder->choose(d.finder->model().best_row());
    d.finder->see_on_sheet();
    CHECK(usual() < 20);
    CHECK(sheet.cells().size() == 2);
    CHECK(sheet.cells()[1].lens == "fine_difference");
    d.replace_text(QString::fromStdString(d.text()).replace(
        "0.75)", "0.5)")); // a change of one's own is looked at, not overwritten
    d.settle();
    d.finder->see_on_sheet();
    CHECK(d.text().find("0.5)") != std::string::npos);
    CHECK(usual() > 20);
    d.finder->close();
}

TEST_CASE("where a rule of two pictures is off is seen on the picture alone", "[gui][fit]") {
    Finding d;
    d.replace_text("out.r = g\n");
    d.settle();
    const image::Image cloths = targets::demo_cloths();
    const image::Picture before = *image::picture_of(cloths, image::usual_layer(cloths));
    image::Picture after = before;
    image::Samples mixed;
    for (std::size_t i = 0; i < before.pixels(); ++i)
        mixed.push_back(0.8f * before.at(i)[0] + 0.2f * before.at(i)[1]);
    after.planes[0] = image::make_plane(std::move(mixed));
    const QString first = d.folder.filePath("before.exr"), second = d.folder.filePath("after.exr");
    REQUIRE(io::save(first.toStdString(), cloths));
    REQUIRE(io::save(second.toStdString(), image::with_picture(cloths, image::usual_layer(cloths), after)));
    d.finder->find({first, second});
    d.wait();
    d.finder->see_on_sheet();
    d.settle();
    REQUIRE(QTest::qWaitFor([&] { return !d.window.bench().sheet().loading(); }, 5000));
    d.settle();
    const SheetModel& sheet = d.window.bench().sheet();
    REQUIRE(sheet.cells().size() == 3); // the chart, the picture, the picture through the lens
    CHECK(sheet.cells()[2].lens == "fine_difference");
    const CellResult* shown = d.sheet().cell(sheet.cells()[1].id)->result();
    REQUIRE(shown);
    REQUIRE(shown->before_pixels);
    const std::size_t somewhere = before.pixels() / 2;
    CHECK(shown->before_pixels->at(somewhere)[0] == Approx(after.at(somewhere)[0]).margin(2e-3)); // halves
    CHECK(shown->input->at(somewhere)[0] == Approx(before.at(somewhere)[0]).margin(2e-3));
    const CellResult* chart = d.sheet().cell(sheet.cells()[0].id)->result();
    REQUIRE(chart);
    CHECK(chart->before_pixels == chart->input); // nothing is said of it
    d.finder->close();
}
