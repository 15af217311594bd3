// Playing a numbered sequence in the real window, through the rule.
#include "gui/driver.hpp"
#include "io/movie_file.hpp"
#include "io/picture_file.hpp"
#include "model/playback.hpp"
#include "widgets/sheet/frames_bar.hpp"
#include "widgets/sheet/sheet_settings.hpp"

#include <QMenu>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Played {
    Driver d;
    int id = 0;
    Played() {
        for (int i = 1; i <= 6; ++i) {
            image::Image image = image::image_of(image::generated(32, 18, [&](int x, int) {
                return std::array<double, 3>{i / 10.0, 0.5, x / 31.0};
            }));
            REQUIRE(io::save(d.file(QString("dusk.%1.exr").arg(i, 4, 10, QChar('0'))).toStdString(), image));
        }
        d.window.part<app::Files>().open(d.file("dusk.0001.exr"), "colour");
        d.replace_text("working rec709-linear\nout.r = r * 0.5\n");
        d.settle();
        id = d.window.bench().sheet().cells()[1].id;
    }
    CellView* view() { return d.sheet().cell(id); }
    FramesBar* bar() { return view()->findChild<FramesBar*>(); }
    Playback& playback() { return d.window.bench().playback(); }
    void wait_for_end() {
        REQUIRE(QTest::qWaitFor([this] { return !playback().playing(); }, 20000));
        d.settle();
    }
};

} // namespace

TEST_CASE("F5 plays the frames through the rule, and Ctrl+Z goes back to where it began", "[gui][playback]") {
    Played p;
    p.playback().set_loops(false);
    p.playback().set_rate(0);
    std::vector<float> after;
    QObject::connect(&p.d.window, &MainWindow::sheet_shown, &p.d.window, [&] {
        if (const PicturePtr& shown = p.view()->result()->after_pixels;
            shown && (after.empty() || after.back() != shown->at(0)[0]))
            after.push_back(shown->at(0)[0]);
    });
    p.d.trigger("play");
    CHECK(p.playback().playing(p.id));
    CHECK(p.bar()->isVisible());
    p.wait_for_end();
    REQUIRE_FALSE(after.empty());
    CHECK(after.back() == Approx(0.3)); // half of 0.6
    CHECK(std::is_sorted(after.begin(), after.end()));
    CHECK(p.playback().counts().shown == 5);
    p.d.trigger("undo");
    p.d.settle();
    CHECK(p.view()->result()->after_pixels->at(0)[0] == Approx(0.05));
    p.d.trigger("redo");
    p.d.settle();
    CHECK(p.view()->result()->after_pixels->at(0)[0] == Approx(0.3));
}

TEST_CASE("the bar under the picture plays, stops and goes to a frame, and its menu says what is played",
          "[gui][playback]") {
    Played p;
    p.playback().set_rate(0);
    QTest::mouseClick(p.bar(), Qt::LeftButton, {}, QPoint(8, 10));
    CHECK(p.playback().playing(p.id));
    REQUIRE(QTest::qWaitFor([&] { return p.playback().counts().shown > 12; }, 20000)); // over and over
    CHECK(p.bar()->words().contains("a second"));
    QTest::mouseClick(p.bar(), Qt::LeftButton, {}, QPoint(8, 10));
    CHECK_FALSE(p.playback().playing());
    QTest::mouseClick(p.bar(), Qt::LeftButton, {}, QPoint(static_cast<int>(p.bar()->x_of(2)), 6));
    p.d.settle();
    CHECK(p.view()->result()->before_pixels->at(0)[0] == Approx(0.3));
    p.d.trigger("play_from");
    QTest::mouseClick(p.bar(), Qt::LeftButton, {}, QPoint(static_cast<int>(p.bar()->x_of(4)), 6));
    p.d.trigger("play_up_to");
    CHECK(p.playback().range(p.id) == Playback::Range{2, 4});
    QMenu menu;
    FramesBar::fill_menu(menu, p.playback(), p.id);
    const auto named = [&](const QString& text) {
        for (QAction* action : menu.actions())
            if (action->text().startsWith(text))
                return action;
        FAIL("no entry " << text.toStdString());
        return static_cast<QAction*>(nullptr);
    };
    CHECK(named("Every frame")->isChecked());
    named("25 frames")->trigger();
    CHECK(p.playback().rate() == 25);
    named("Over and over")->trigger();
    CHECK_FALSE(p.playback().loops());
    named("Play all")->trigger();
    CHECK(p.playback().range(p.id) == Playback::Range{0, 5});
    CHECK_FALSE(p.view()->grab().isNull());
}

TEST_CASE("without numbered pictures F5 says what is missing", "[gui][playback]") {
    Driver d;
    d.trigger("play");
    CHECK_FALSE(d.window.bench().playback().playing());
    CHECK(d.window.part<app::StatusLine>().message().contains("numbered sequence"));
    d.trigger("over_time");
    CHECK(d.window.part<app::StatusLine>().message().contains("pin"));
}

TEST_CASE("a pin over time is a strip of threads, before and after, and a click goes to the frame", "[gui][playback]") {
    Played p;
    SheetModel& sheet = p.d.window.bench().sheet();
    const int pin = sheet.add_pin(sheet.find(p.id)->source(), {31, 4});
    p.d.trigger("over_time");
    StripView* strip = nullptr;
    const auto shown = [&] {
        strip = p.d.sheet().strips().back();
        const StripResult* result = strip->result();
        return result && !result->frames.empty() && !std::isnan(result->before.at(5, 0)[0]) &&
            !std::isnan(result->before.at(0, 0)[0]);
    };
    REQUIRE(QTest::qWaitFor(shown, 20000));
    p.d.settle();
    CHECK(strip->title() == "pin 1 over time");
    const StripResult& result = *strip->result();
    REQUIRE(result.before.width == 6);
    for (int i = 0; i < 6; ++i) {
        CHECK(result.frames[static_cast<std::size_t>(i)] == i + 1);
        CHECK(result.before.at(i, 0)[0] == Approx((i + 1) / 10.0));
        CHECK(result.after.at(i, 0)[0] == Approx((i + 1) / 20.0));
        CHECK(result.after.at(i, 0)[2] == Approx(1));
    }
    CHECK_FALSE(strip->grab().isNull());
    QTest::mouseClick(strip, Qt::LeftButton, {},
                      QPoint(strip->plot_left() + (strip->plot_right() - strip->plot_left()) * 7 / 12, 60));
    p.d.settle();
    CHECK(p.view()->result()->before_pixels->at(0)[0] == Approx(0.4));
    // A rule that looks around cannot be known from one pixel, and it says so.
    p.d.replace_text("out.rgb = blur(rgb, 2)\n");
    p.d.settle();
    CHECK(strip->result()->needs_pictures);
    CHECK(std::isnan(strip->result()->after.at(3, 0)[0]));
    CHECK(strip->result()->before.at(3, 0)[0] == Approx(0.4));
    sheet.remove_pin(pin);
    p.d.settle();
    CHECK(p.d.sheet().strips().size() == 3);
}

TEST_CASE("how frames are played is remembered", "[gui][playback]") {
    Driver d;
    Playback& playback = d.window.bench().playback();
    playback.set_rate(30);
    playback.set_loops(false);
    app::store_playback(playback);
    SheetModel sheet;
    Playback next(sheet);
    app::restore_playback(next);
    CHECK(next.rate() == 30);
    CHECK_FALSE(next.loops());
}

TEST_CASE("a movie on the sheet is a sequence: its bar, its own rate, frames by key, pins that go along",
          "[gui][playback][movies]") {
    Driver d;
    io::MovieOrder order;
    order.out = d.file("dusk.mkv").toStdString();
    order.rate = 50;
    order.timecode = "10:00:00:00";
    int given = 0;
    REQUIRE(io::write_movie(order, [&]() -> Result<std::optional<image::Image>> {
        if (++given > 6)
            return std::optional<image::Image>();
        image::Image image = image::image_of(image::generated(32, 18, [&](int x, int) {
            return std::array<double, 3>{given / 10.0, 0.5, x / 31.0};
        }));
        image.depth = image::Depth::uint16;
        image.space = "rec709";
        return std::optional(std::move(image));
    }));
    d.window.part<app::Files>().open(d.file("dusk.mkv"), "colour");
    d.replace_text("working rec709\nout.r = r * 0.5\n");
    d.settle();
    SheetModel& sheet = d.window.bench().sheet();
    const int id = sheet.cells()[1].id;
    REQUIRE(sheet.sequence_of(*sheet.find(id)).frames.size() == 6);
    auto* bar = d.sheet().cell(id)->findChild<FramesBar*>();
    REQUIRE(bar);
    CHECK(bar->isVisible());
    const auto red = [&] { return d.sheet().cell(id)->result()->after_pixels->at(0)[0]; };
    CHECK(red() == Approx(0.05).margin(1e-4));
    sheet.set_frame(id, 4);
    d.settle();
    CHECK(red() == Approx(0.25).margin(1e-4));
    CHECK(sheet.find(id)->picture == order.out.string() + "@5");
    CHECK(sheet.file_of(*sheet.find(id))->movie->timecode == "10:00:00:04");
    Playback& playback = d.window.bench().playback();
    CHECK(playback.own_rate(id) == 50);
    QMenu menu;
    FramesBar::fill_menu(menu, playback, id);
    QStringList checked;
    for (const QAction* action : menu.actions())
        if (action->isChecked())
            checked << action->text();
    CHECK(checked.contains("The movie's own 50 frames a second"));
    playback.set_loops(false);
    playback.set_keeps_own_rate(false);
    playback.set_rate(0);
    sheet.set_frame(id, 0);
    d.settle();
    d.trigger("play");
    REQUIRE(QTest::qWaitFor([&] { return !playback.playing(); }, 20000));
    d.settle();
    CHECK(red() == Approx(0.3).margin(1e-4));
    CHECK(playback.counts().shown == 5);
    d.trigger("undo");
    d.settle();
    CHECK(red() == Approx(0.05).margin(1e-4));
    // The same sheet when it is started again.
    sheet.set_frame(id, 2);
    d.settle();
    store_settings(sheet, d.window.bench().readings());
    SheetModel again;
    restore_cells(again);
    REQUIRE(again.cells().size() == 2);
    CHECK(again.cells()[1].picture == order.out.string() + "@3");
}
