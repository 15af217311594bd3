// Takes: remembered, flipped, compared, named, written as filters, kept with the document; pins with them.
#include "base/file.hpp"
#include "document/filter_file.hpp"
#include "gui/driver.hpp"
#include "widgets/compare/takes_bar.hpp"

#include <QMenu>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Takes : Driver {
    TakesModel& takes;
    TakesBar* bar;

    Takes() : takes(window.bench().takes()), bar(window.findChild<TakesBar*>()) {
        REQUIRE(bar);
        replace_text("param meet = 0 in 0 .. 1\nout.g = mix(g, b, meet)\n");
        settle();
    }
};

} // namespace

TEST_CASE("a take remembers text and values in one key, and flipping is one step back", "[gui][takes]") {
    Takes d;
    d.trigger("take");
    CHECK(d.takes.takes().size() == 1);
    CHECK(d.takes.current() == 0);
    d.trigger("take"); // the same is not kept twice
    CHECK(d.takes.takes().size() == 1);
    d.session().set_value(0, 0.5);
    CHECK(d.takes.current() == -1);
    d.trigger("take");
    d.end_of_text();
    d.type("out.r = b");
    d.settle();
    d.trigger("take");
    REQUIRE(d.takes.takes().size() == 3);
    CHECK(d.bar->buttons().size() == 3);
    CHECK(d.takes.current() == 2);
    const std::string last = d.text();
    QTest::mouseClick(d.bar->buttons()[0], Qt::LeftButton);
    d.settle();
    CHECK(d.takes.current() == 0);
    CHECK(d.text() == "param meet = 0 in 0 .. 1\nout.g = mix(g, b, meet)\n");
    CHECK(d.session().values() == std::vector<double>{0});
    CHECK(d.editor().content() == d.text());
    CHECK(d.session().undo_stack().undoText() == "take 1");
    d.window.bench().undo();
    d.settle();
    CHECK(d.text() == last);
    CHECK(d.session().values() == std::vector<double>{0.5});
    CHECK(d.takes.current() == 2);
    d.trigger("take_before");
    d.settle();
    CHECK(d.takes.current() == 1);
    CHECK(d.session().values() == std::vector<double>{0.5});
    d.trigger("take_before");
    d.trigger("take_before"); // round
    d.settle();
    CHECK(d.takes.current() == 2);
    CHECK(d.bar->buttons()[2]->accessibleName().contains("in force"));
    // Removing and naming are undone like everything else.
    d.takes.rename(0, "  as it came ");
    CHECK(d.bar->buttons()[0]->text() == "as it came");
    d.takes.remove(0);
    CHECK(d.takes.takes().size() == 2);
    d.window.bench().undo();
    d.window.bench().undo();
    CHECK(d.takes.takes().size() == 3);
    CHECK(d.takes.name(0) == "1");
    CHECK(d.takes.current() == 2); // what is on the bench did not move
}

TEST_CASE("a take stands against the rule, and becomes a filter with its values as defaults", "[gui][takes]") {
    Takes d;
    d.session().set_value(0, 0.75);
    d.trigger("take");
    d.session().set_value(0, 0);
    d.settle();
    QMenu menu;
    d.bar->fill_menu(menu, 0);
    menu.actions()[1]->trigger(); // compare
    d.settle();
    CHECK(d.window.bench().against().name() == "take 1");
    const StripResult& hues = *d.sheet().strips()[2]->result();
    CHECK(hues.before.at(5, 0)[1] ==
          Approx(0.25 * hues.after.at(5, 0)[1] + 0.75 * hues.after.at(5, 0)[2]).margin(1e-6));
    REQUIRE(d.window.part<app::CompareActions>().write_take(0, d.file("three-quarters.kasuri")));
    CHECK(document::load_filter(d.file("three-quarters.kasuri").toStdString()).value().find("meet = 0.75 in") !=
          std::string::npos);
    CHECK_FALSE(d.window.part<app::CompareActions>().write_take(0, "/nowhere/x.kasuri"));
}

TEST_CASE("takes and pins are kept with the document, and come back with it", "[gui][takes]") {
    const QTemporaryDir kept;
    const QString file = kept.filePath("madder.kasuri"), other = kept.filePath("other.kasuri");
    const std::string source = "target:dye_chart";
    {
        Takes d;
        d.trigger("take");
        d.takes.rename(0, "first dip");
        d.window.bench().sheet().add_pin(source, {3, 1});
        CHECK_FALSE(QFile::exists(file + "-bench"));
        REQUIRE(d.window.part<app::Files>().save_to(file)); // untitled until now: written with the filter
        REQUIRE(QFile::exists(file + "-bench"));
        d.session().set_value(0, 0.5);
        d.trigger("take");
        REQUIRE(
            QTest::qWaitFor([&] { return document::load_bench(file.toStdString()).value().takes.size() == 2; }, 5000));
        d.window.bench().sheet().add_pin(source, {5, 2});
    } // closed at once: what was not written yet is written
    CHECK(document::load_bench(file.toStdString()).value().pins.size() == 2);
    {
        Driver d;
        d.window.part<app::Files>().open(file);
        d.settle();
        CHECK(d.window.bench().takes().name(0) == "first dip");
        CHECK(d.window.bench().takes().takes()[1].values.at("meet") == 0.5);
        REQUIRE(d.window.bench().sheet().pins().size() == 2);
        CHECK(d.window.bench().sheet().pins()[1].pixel == QPoint(5, 2));
        // By another name they go along; a new filter has none, and the pins go on measuring.
        REQUIRE(d.window.part<app::Files>().save_to(other));
        CHECK(document::load_bench(other.toStdString()).value().takes.size() == 2);
        d.session().start_new();
        d.settle();
        CHECK(d.window.bench().takes().takes().empty());
        CHECK(d.window.bench().sheet().pins().size() == 2);
    }
    // What a newer version wrote is told, and never overwritten.
    const std::string newer = "{\"kasuri-bench\": 9}";
    REQUIRE(write_file((file + "-bench").toStdString(), newer));
    Driver d;
    d.window.part<app::Files>().open(file);
    d.settle();
    CHECK(d.window.part<app::StatusLine>().message().contains("version 9"));
    d.trigger("take");
    d.window.bench().keeper().write_now();
    CHECK(read_file((file + "-bench").toStdString(), 1000).value() == newer);
}

TEST_CASE("pins on pictures are kept by a path relative to the filter", "[gui][takes]") {
    Driver d;
    const QString file = d.file("madder.kasuri");
    REQUIRE(QFile::copy(KASURI_DEMO_DIR "/puppet.exr", d.file("puppet.exr")));
    d.window.part<app::Files>().open(d.file("puppet.exr"));
    d.settle();
    const Cell& cell = d.window.bench().sheet().cells()[1];
    const std::string source = cell.source();
    d.window.bench().sheet().add_pin(source, {8, 9});
    REQUIRE(d.window.part<app::Files>().save_to(file));
    const auto pins = document::load_bench(file.toStdString()).value().pins;
    REQUIRE(pins.size() == 1);
    CHECK(pins[0].source == "puppet.exr#");
    d.window.bench().sheet().remove_pins();
    d.window.bench().keeper().take(document::load_bench(file.toStdString()).value(), file.toStdString());
    REQUIRE(d.window.bench().sheet().pins().size() == 1);
    CHECK(d.window.bench().sheet().pins()[0].source == source);
}

TEST_CASE("takes stand side by side on the sheet, each with its own rule, and go again", "[gui][takes]") {
    Driver d;
    d.replace_text("param gain = 1 in 0 .. 4\nout.rgb = rgb * gain\n");
    d.settle();
    d.window.part<app::CompareActions>().remember_take();
    d.session().set_value(0, 2);
    d.settle();
    d.window.part<app::CompareActions>().remember_take();
    d.replace_text("out.rgb = rgb.gbr\n");
    d.settle();
    const std::size_t cells = d.window.bench().sheet().cells().size();
    d.trigger("takes");
    d.settle();
    const auto& all = d.window.bench().sheet().cells();
    REQUIRE(all.size() == cells + 2);
    const auto after = [&](std::size_t cell) { return d.sheet().cell(all[cell].id)->result()->after_pixels->at(3, 1); };
    const auto before = d.sheet().cell(all[0].id)->result()->before_pixels->at(3, 1);
    CHECK(after(1)[0] == before[0]);
    CHECK(after(2)[0] == 2 * before[0]);
    CHECK(after(0)[0] == before[1]); // the rule on the bench
    CHECK(d.window.bench().sheet().title(all[2]).endsWith("take 2"));
    d.replace_text("out.rgb = rgb * 0.5\n"); // goes on; takes stay what they are
    d.settle();
    CHECK(after(0)[0] == before[0] / 2);
    CHECK(after(2)[0] == 2 * before[0]);
    d.window.bench().sheet().set_lens(all[2].id, "noise_gain");
    d.settle();
    CHECK(d.sheet().cell(all[2].id)->result()->fault.empty());
    // Each says how far it is from the rule on the bench.
    const auto apart = [&](std::size_t cell) { return d.sheet().cell(all[cell].id)->apart(); };
    CHECK_FALSE(apart(0));
    REQUIRE((apart(1) && apart(2)));
    CHECK(apart(1)->mean > 1);
    CHECK(apart(1)->largest >= apart(1)->most);
    CHECK(apart(1)->most >= apart(1)->mean);
    CHECK(apart(2)->mean > apart(1)->mean); // half against twice, and half against once
    CHECK(d.sheet().cell(all[1].id)->toolTip().contains("CIEDE2000"));
    d.replace_text("out.rgb = rgb * 2\n");
    d.settle();
    CHECK(apart(2)->largest < 1e-5); // it is that take now
    d.trigger("takes");
    CHECK(d.window.bench().sheet().cells().size() == cells);
    d.trigger("undo");
    CHECK(d.window.bench().sheet().cells().size() == cells + 2);
    d.trigger("redo");
    d.settle();
}

TEST_CASE("a take is seen while the pointer rests on its name, and the rule again when it leaves", "[gui][takes]") {
    Driver d;
    TakesBar* const bar = d.window.findChild<TakesBar*>();
    REQUIRE(bar);
    d.replace_text("param gain = 1 in 0 .. 4\nout.rgb = rgb * gain\n");
    d.settle();
    d.window.part<app::CompareActions>().remember_take();
    d.session().set_value(0, 2);
    d.settle();
    d.window.part<app::CompareActions>().remember_take();
    REQUIRE(bar->buttons().size() == 2);
    SheetModel& sheet = d.window.bench().sheet();
    const int id = sheet.cells().front().id;
    const auto result = [&] { return d.sheet().cell(id)->result(); };
    const float before = result()->before_pixels->at(3, 1)[0];
    REQUIRE(before > 0);
    const int steps = d.session().undo_stack().count();
    const auto shows = [&](float wanted) {
        return QTest::qWaitFor([&] { return result()->after_pixels && result()->after_pixels->at(3, 1)[0] == wanted; },
                               20000);
    };
    const auto send = [&](std::size_t button, QEvent::Type type) {
        QEnterEvent enter(QPointF(2, 2), QPointF(2, 2), QPointF(2, 2));
        QEvent leave(QEvent::Leave);
        QCoreApplication::sendEvent(bar->buttons()[button],
                                    type == QEvent::Enter ? static_cast<QEvent*>(&enter) : &leave);
    };
    send(0, QEvent::Enter);
    REQUIRE(shows(before)); // the take with a gain of 1
    REQUIRE(QTest::qWaitFor([&] { return d.sheet().cell(id)->apart().has_value(); }, 20000));
    CHECK(sheet.title(sheet.cells().front()).endsWith("take 1"));
    CHECK(d.session().values().front() == 2); // the bench has not changed
    CHECK(d.session().undo_stack().count() == steps);
    CHECK(sheet.cells().front().take == nullptr);
    send(0, QEvent::Leave);
    REQUIRE(shows(2 * before));
    CHECK_FALSE(d.sheet().cell(id)->apart());
    CHECK_FALSE(sheet.title(sheet.cells().front()).contains("take"));
    // The take that is in force is what is seen already.
    send(1, QEvent::Enter);
    QTest::qWait(300);
    CHECK(sheet.tried_take() == nullptr);
    send(1, QEvent::Leave);
    // What is changed meanwhile is seen at once, though the pointer still rests there.
    send(0, QEvent::Enter);
    REQUIRE(QTest::qWaitFor([&] { return sheet.tried_take() != nullptr; }, 20000));
    d.session().set_value(0, 3);
    CHECK(sheet.tried_take() == nullptr);
    REQUIRE(shows(3 * before));
    // A pointer that only passes shows nothing.
    send(0, QEvent::Leave);
    send(0, QEvent::Enter);
    send(0, QEvent::Leave);
    QTest::qWait(300);
    CHECK(sheet.tried_take() == nullptr);
    // A click flips, as before.
    send(0, QEvent::Enter);
    REQUIRE(QTest::qWaitFor([&] { return sheet.tried_take() != nullptr; }, 20000));
    bar->buttons()[0]->click();
    CHECK(sheet.tried_take() == nullptr);
    REQUIRE(shows(before));
    CHECK(d.session().values().front() == 1);
}
