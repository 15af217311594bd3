#include "gui/driver.hpp"
#include "widgets/frame/side_windows.hpp"
#include "widgets/tuning/way_back_window.hpp"

#include <QTemporaryDir>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Back : Driver {
    WayBackWindow* back = nullptr;
    void open() {
        trigger("way_back");
        back = window.part<app::SideWindows>().way_back();
        REQUIRE(back);
        wait();
    }
    void wait() {
        settle();
        QTest::qWait(350); // what follows the work waits for it to settle
        for (int i = 0; i < 1000 && back->model().running(); ++i)
            QTest::qWait(20);
        REQUIRE_FALSE(back->model().running());
    }
};

} // namespace

TEST_CASE("a rule is put on and taken off, and the picture is back, in one step of undo", "[gui][inverse]") {
    Back d;
    d.replace_text("param k = 0.5 in 0 .. 1\nlet c = oklch(rgb)\nc.h += 40 * k\nout.rgb = rgb(c) * 1.5\n");
    d.settle();
    d.open();
    CHECK(d.back->words().contains("come back"));
    CHECK(d.back->text().contains("c.h -= 40 * k"));
    LookModel& look = d.window.part<Bench>().look();
    REQUIRE(look.count() == 1);
    d.back->put_behind();
    d.settle();
    CHECK(look.count() == 2);
    CHECK(look.name(1).contains("taken off"));
    CHECK(look.step().uses.contains("taken off.kasuri"));
    d.back->put_behind(); // once
    CHECK(look.count() == 2);
    d.back->choose_all(true); // of both together: what takes off the way back puts it on again
    d.wait();
    CHECK(d.back->words().contains("come back"));
    d.window.part<Bench>().session().undo_stack().undo();
    CHECK(look.count() == 1);
}

TEST_CASE("it follows the work, and says what is in the way", "[gui][inverse]") {
    Back d;
    d.replace_text("out.rgb = rgb.gbr\n");
    d.settle();
    d.open();
    CHECK(d.back->text().contains("rgba.brg"));
    d.replace_text("out.rgb = vec3(luma(rgb))\n");
    d.wait();
    CHECK(d.back->words().contains("There is no way back from here."));
    CHECK(d.back->words().contains("Two colours become one"));
    CHECK(d.back->text().isEmpty());
    d.replace_text("out.rgb = clmp(rgb)\n");
    d.wait();
    CHECK_FALSE(d.back->words().isEmpty());
    const QTemporaryDir folder;
    CHECK(d.back->save(folder.filePath("no.kasurilook")).ok()); // nothing is there to be saved
    CHECK_FALSE(QFile::exists(folder.filePath("no.kasurilook")));
    d.replace_text("out.rgb = rgb * 2\n");
    d.wait();
    REQUIRE(d.back->save(folder.filePath("off.kasurilook")).ok());
    const auto saved = document::load_look(folder.filePath("off.kasurilook").toStdString());
    REQUIRE(saved);
    REQUIRE(saved.value().steps.size() == 1);
    CHECK(saved.value().steps[0].text.find("rgb / 2") != std::string::npos);
}

TEST_CASE("of several steps those that stand in the way are named, before what works", "[gui][inverse]") {
    Back d;
    d.replace_text("filter \"Dip\"\nout.rgb = rgb * 2\n");
    d.settle();
    document::LookStep grey;
    grey.label = "plain grey";
    grey.text = "out.rgb = vec3(luma(rgb))\n";
    d.window.part<Bench>().look().add(grey, 0);
    d.settle();
    d.open();
    d.back->choose_all(true);
    d.wait();
    const QStringList lines = d.back->words().split('\n');
    REQUIRE(lines.size() > 2);
    CHECK(lines[0] == "There is no way back from: plain grey.");
    CHECK(lines[1] == "plain grey:");
}

TEST_CASE("a rule is made shorter where it is proved the same, in one step of undo", "[gui][simplify]") {
    Driver d;
    const char* text = "out.rgb = rgb.gbr\nlet idle = luma(rgb)\nout.rgb = out.gbr\n";
    d.replace_text(text);
    d.settle();
    d.trigger("simplify");
    app::Session& session = d.window.part<Bench>().session();
    for (int i = 0; i < 500 && session.text() == text; ++i)
        QTest::qWait(20);
    CHECK(session.text() == "out.rgb = rgb.brg\n");
    session.undo_stack().undo();
    CHECK(session.text() == text);
    d.trigger("simplify"); // it is worked on meanwhile: what was found is of another rule
    d.replace_text("out.r = g\n");
    QTest::qWait(600);
    CHECK(session.text() == "out.r = g\n");
}

TEST_CASE("a rule is carried to another space, and the picture stays", "[gui][carry]") {
    Driver d;
    Bench& bench = d.window.part<Bench>();
    const std::string text = "param k = 0.2 in 0 .. 1\nout.g = mix(g, b, k)\n";
    d.replace_text(text.c_str());
    d.settle();
    bench.session().set_value(0, 0.7);
    bench.carry("acescct");
    for (int i = 0; i < 500 && bench.session().text() == text; ++i)
        QTest::qWait(20);
    CHECK(bench.session().text().find("working acescct") != std::string::npos);
    CHECK(bench.session().text().find("to_rec709_linear(rgb)") != std::string::npos);
    CHECK(bench.session().chosen_values().at("k") == 0.7);
    bench.session().undo_stack().undo();
    CHECK(bench.session().text() == text);
    // With an opacity it is a look, whose steps are carried together: what lay over the numbers becomes statements.
    bench.look().set_opacity(0, 0.5);
    document::LookStep second;
    second.text = "working srgb\nout.r = 0.9 * r\n";
    bench.look().add(second, 1);
    const document::Look before = bench.look().look();
    bench.carry("acescct");
    for (int i = 0; i < 500 && bench.look().look() == before; ++i)
        QTest::qWait(20);
    REQUIRE(bench.look().count() == 2);
    for (const document::LookStep& step : bench.look().steps()) {
        CHECK(step.text.find("working acescct") != std::string::npos);
        CHECK(step.opacity == 1);
    }
    CHECK(bench.look().steps()[0].text.find("mix(") != std::string::npos);
    bench.session().undo_stack().undo();
    CHECK(bench.look().look() == before);
}
