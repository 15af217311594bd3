// The look on the bench, without a window: steps, undo, files.
#include "base/file.hpp"
#include "document/bench_file.hpp"
#include "look/sums.hpp"
#include "model/look_model.hpp"
#include "model/recovery_keeper.hpp"
#include "model/undo_commands.hpp"
#include "support/support.hpp"

#include <QTest>

using namespace kasuri;
using namespace kasuri::app;
using namespace kasuri::test;

namespace {

struct Bench {
    Session session;
    LookModel look{session};
    Bench() {
        QObject::connect(&look, &LookModel::rearranged,
                         [this](const QString& name, const QString& key, const LookArrangement& before) {
                             session.undo_stack().push(
                                 new ArrangementCommand<LookModel, LookArrangement>(look, name, key, before));
                         });
    }
    void write(const std::string& text) { session.apply_edit({0, session.text(), text}, "writing"); }
    document::LookStep step(const std::string& text) {
        document::LookStep made;
        made.text = text;
        return made;
    }
    std::vector<std::string> texts() const {
        std::vector<std::string> all;
        for (const document::LookStep& each : look.steps())
            all.push_back(each.is_look ? "look" : each.text);
        return all;
    }
};

using Texts = std::vector<std::string>;

} // namespace

TEST_CASE("a filter becomes a look with its second step, and undo makes it a filter again", "[look]") {
    Bench b;
    b.write("out.r = g\n");
    CHECK_FALSE(b.look.is_look());
    CHECK(b.look.around() == nullptr);
    b.look.add(b.step("out.g = b\n"), 1);
    CHECK(b.look.is_look());
    CHECK(b.session.text() == "out.g = b\n"); // it is active
    b.write("out.g = 0.5 * b\n");
    CHECK(b.texts() == Texts{"out.r = g\n", "out.g = 0.5 * b\n"});
    b.look.select(0);
    CHECK(b.session.text() == "out.r = g\n");
    b.write("out.r = b\n");
    CHECK(b.texts() == Texts{"out.r = b\n", "out.g = 0.5 * b\n"});
    QUndoStack& stack = b.session.undo_stack();
    stack.undo(); // the writing
    CHECK(b.session.text() == "out.r = g\n");
    stack.undo(); // which is active
    CHECK(b.session.text() == "out.g = 0.5 * b\n");
    stack.undo();
    stack.undo();
    CHECK_FALSE(b.look.is_look());
    CHECK(b.session.text() == "out.r = g\n");
    while (stack.canRedo())
        stack.redo();
    CHECK(b.texts() == Texts{"out.r = b\n", "out.g = 0.5 * b\n"});
    CHECK(b.session.text() == "out.r = b\n");
}

TEST_CASE("steps are moved, doubled, gathered and taken apart, and the active one stays the active one", "[look]") {
    Bench b;
    b.write("out.r = 0.1\n");
    for (const char* text : {"out.r = 0.2\n", "out.r = 0.3\n", "out.r = 0.4\n"})
        b.look.add(b.step(text), b.look.count());
    b.look.select(1);
    b.look.move(3, 0);
    CHECK(b.texts() == Texts{"out.r = 0.4\n", "out.r = 0.1\n", "out.r = 0.2\n", "out.r = 0.3\n"});
    CHECK((b.look.current() == 2 && b.session.text() == "out.r = 0.2\n"));
    b.look.move(2, 3);
    CHECK((b.look.current() == 3 && b.session.text() == "out.r = 0.2\n"));
    b.look.move(0, 3);
    CHECK((b.look.current() == 2 && b.session.text() == "out.r = 0.2\n"));
    b.look.move(0, 9); // nowhere
    CHECK(b.texts() == Texts{"out.r = 0.1\n", "out.r = 0.3\n", "out.r = 0.2\n", "out.r = 0.4\n"});
    b.look.gather(1, 2);
    CHECK(b.texts() == Texts{"out.r = 0.1\n", "look", "out.r = 0.4\n"});
    CHECK(b.session.fixed());
    CHECK(b.session.text().find("// 2  ") != std::string::npos); // it lists what is in it
    b.look.take_apart(1);
    CHECK(b.texts() == Texts{"out.r = 0.1\n", "out.r = 0.3\n", "out.r = 0.2\n", "out.r = 0.4\n"});
    CHECK_FALSE(b.session.fixed());
    b.look.duplicate(0);
    CHECK(b.look.count() == 5);
    b.look.remove(4);
    b.look.remove(0);
    CHECK(b.texts() == Texts{"out.r = 0.1\n", "out.r = 0.3\n", "out.r = 0.2\n"});
    for (int i = 0; i < 3; ++i)
        b.look.remove(0);
    CHECK(b.look.count() == 1); // there is always one
}

TEST_CASE("a look is saved and opened exactly, with takes, copies and paths beside it", "[look]") {
    const TemporaryFolder folder;
    std::filesystem::create_directories(folder / "filters");
    write(folder / "filters/parts.kasuri", "fn half(x float) = 0.5 * x\n");
    write(folder / "filters/dip.kasuri",
          "filter \"Dip\"\nuse \"parts.kasuri\"\nparam meet = 0 in 0 .. 1\nout.g = mix(g, half(b), meet)\n");
    Bench b;
    REQUIRE(b.session.open(folder / "filters/dip.kasuri"));
    b.look.add(b.step("out.rgb = rgb.gbr\n"), 1);
    b.look.set_opacity(1, 0.25);
    b.look.set_opacity(1, 7); // brought inside
    b.look.set_opacity(1, 0.5);
    b.look.set_blend(1, "soft_light");
    b.look.set_mask(1, "a");
    b.look.set_mask_inverted(1, true);
    b.look.set_mask_grow(1, -3);
    b.look.set_mask_soften(1, 2);
    b.look.set_label(1, "turned");
    b.look.set_on(1, false);
    b.look.set_title("River");
    document::BenchFile takes;
    takes.takes = {{"one", "out.r = b\n", {}}};
    b.look.keep_bench(document::bench_text(takes));
    CHECK(b.look.modified());
    REQUIRE(b.look.save(folder / "river.kasurilook"));
    CHECK_FALSE(b.look.modified());
    const std::string text = content_of(folder / "river.kasurilook");
    CHECK(text.find("\"filters/dip.kasuri\"") != std::string::npos); // relative
    CHECK(text.find("fn half") != std::string::npos);                // with what it uses

    Bench again;
    REQUIRE(again.look.open(folder / "river.kasurilook"));
    CHECK_FALSE(again.look.modified());
    CHECK(again.look.look() == b.look.look());
    CHECK(again.look.name(0) == "Dip");
    CHECK(again.look.name(1) == "turned");
    CHECK(again.session.path() == folder / "filters/dip.kasuri");
    again.look.select(1);
    CHECK_FALSE(again.look.modified()); // looking is no change
    // The file and what it uses change: the look does not, and says so; it follows when asked.
    write(folder / "filters/dip.kasuri", "filter \"Dip\"\nout.g = r\n");
    write(folder / "filters/parts.kasuri", "fn half(x float) = 0.25 * x\n");
    const auto becomes = [&](document::FilterState state) {
        return QTest::qWaitFor([&] { return again.look.state(0) == state; }, 5000);
    };
    CHECK(becomes(document::FilterState::changed)); // noticed by itself
    const auto runs = look::make(again.look.look(), {});
    REQUIRE(runs);
    engine::ReferencePixel pixel;
    pixel.rgba = {0.1, 0.2, 0.8, 1};
    const std::vector<double> opaque(runs.value().subject.values().size(), 1);
    CHECK(engine::reference_chain(runs.value().subject.steps(), opaque, "rec709-linear", pixel)[1] == Approx(0.4));
    REQUIRE(again.look.bring_up_to_date(0));
    CHECK(again.look.steps()[0].text == "filter \"Dip\"\nout.g = r\n");
    CHECK(becomes(document::FilterState::same));
    again.session.undo_stack().undo();
    CHECK(becomes(document::FilterState::changed));
    // A step's rule goes into its file by a command of its own.
    REQUIRE(again.look.write_filter(0, folder / "filters/dip.kasuri"));
    CHECK(becomes(document::FilterState::same));
    CHECK_FALSE(again.look.open(folder / "nowhere.kasurilook"));
    CHECK(again.look.count() == 2); // and nothing is lost
}

TEST_CASE("what steps amount to: one matrix, nothing at all, or the steps that undo one another", "[look]") {
    document::Look look;
    const auto step = [&](const std::string& text, double opacity = 1) {
        document::LookStep made;
        made.text = text;
        made.opacity = opacity;
        look.steps.push_back(made);
    };
    const auto said = [&] {
        const auto runs = look::make(look, {});
        REQUIRE(runs);
        return look::described(runs.value().subject);
    };
    step("out.rgb = rgb.grb\n");
    CHECK(said().starts_with("an exact matrix"));
    step("out.rgb = rgb.grb\n");
    CHECK(said() == "all steps together change nothing\n");
    step("out.r = 0.5 * r + 0.25 * g + 0.25 * b\n", 0.5);
    const std::string text = said();
    CHECK(text.starts_with("all 3 steps are one exact matrix\nr = 0.75 r  0.125 g  0.125 b  + 0   sum 1\n"));
    CHECK(text.find("steps 1 and 2 together are the identity") != std::string::npos);
    step("out.rgb = rgb * rgb\n");
    CHECK(said() == "steps 1 and 2 together are the identity\n");
    look.steps[1].on = false; // then they are not, and the numbers stay those of the look
    CHECK(said().empty());
    for (document::LookStep& each : look.steps)
        each.on = false;
    CHECK(said() == "no step is on: changes nothing\n");
    look.steps.clear();
    CHECK(said() == "no step is on: changes nothing\n");
}

TEST_CASE("unsaved work on a look is kept beside it, and is whole when it is read", "[look][recovery]") {
    const TemporaryFolder folder;
    Bench b;
    SheetModel sheet;
    TakesModel takes(b.session);
    Tuning tuning(b.session);
    ConfigUse config;
    BenchKeeper keeper(b.session, b.look, sheet, takes, tuning, config);
    RecoveryKeeper recovery(b.session, b.look, keeper, folder.path);
    b.write("out.r = g\n");
    document::LookStep lut = b.step("");
    lut.lut = ".cube";
    lut.lut_text = document::SharedText("LUT_1D_SIZE 2\n0 0 0\n1 1 1\n");
    b.look.add(lut, 1);
    b.look.set_opacity(1, 0.25);
    recovery.write_now();
    recovery.finish();
    const auto read = [&] {
        const auto kept = document::recovery_of(content_of(recovery.file()), "x");
        REQUIRE(kept);
        const auto look = document::look_of(kept.value().look, "x");
        REQUIRE(look);
        CHECK(kept.value().active == b.look.current());
        return look.value();
    };
    CHECK(read() == b.look.look());
    b.look.set_opacity(1, 0.75); // only an opacity: it is another state
    recovery.write_now();
    recovery.finish();
    CHECK(read().steps[1].opacity == 0.75);
    REQUIRE(b.look.save(folder / "saved.kasurilook"));
    recovery.write_now(); // nothing is unsaved any more
    recovery.finish();
    CHECK_FALSE(std::filesystem::exists(recovery.file()));
}

TEST_CASE("steps of undo share what is large in a look", "[look]") {
    Bench b;
    document::LookStep lut = b.step("");
    lut.lut = ".cube";
    lut.lut_text = document::SharedText(std::string(1 << 20, ' '));
    b.look.add(lut, 1);
    const std::string* const content = &b.look.steps()[1].lut_text.text();
    b.look.set_opacity(1, 0.5);
    b.look.select(0);
    CHECK(&b.look.steps()[1].lut_text.text() == content);
    CHECK(&b.look.around()->look.steps[1].lut_text.text() == content);
    b.session.undo_stack().undo();
    b.session.undo_stack().undo();
    CHECK(&b.look.steps()[1].lut_text.text() == content);
    CHECK(document::SharedText("same") == document::SharedText("same"));
    CHECK_FALSE(document::SharedText("same") == document::SharedText("other"));
    CHECK(document::SharedText() == document::SharedText(""));
}

TEST_CASE("a look is taken apart without another result, or what would be given up is said", "[look]") {
    Bench b;
    b.write("out.rgb = rgb\n");
    const auto made_of = [&](const std::array<double, 3>& colour) {
        const auto made = look::make(b.look.look(), {});
        REQUIRE(made);
        const image::Picture picture = image::generated(1, 1, [&](int, int) { return colour; });
        return engine::evaluate(*made.value().subject.program(), picture, made.value().subject.values())->at(0);
    };
    document::LookStep group;
    group.is_look = true;
    group.within = {b.step("out.rgb = rgb * 0.5\n"), b.step("out.rgb = rgb.gbr\n")};
    b.look.add(group, 1);
    const std::array<double, 3> colour = {0.8, 0.4, 0.2};
    const auto same_after = [&](int index) {
        const auto before = made_of(colour);
        b.look.take_apart(index);
        const bool same = made_of(colour) == before;
        b.session.undo_stack().undo();
        CHECK(made_of(colour) == before);
        return same;
    };
    CHECK(b.look.lost_by_taking_apart(1).isEmpty());
    CHECK(same_after(1));
    b.look.set_on(1, false);
    CHECK(b.look.lost_by_taking_apart(1).isEmpty());
    CHECK(same_after(1));
    b.look.set_on(1, true);
    b.look.set_opacity(1, 0.5);
    CHECK(b.look.lost_by_taking_apart(1).join(",").contains("50 %"));
    CHECK_FALSE(same_after(1));
    b.look.set_blend(1, "multiply");
    CHECK(b.look.lost_by_taking_apart(1).size() == 2);
    b.look.remove(1);
    // Of a single step within, all of it can be given on.
    group.within.pop_back();
    group.opacity = 0.5;
    group.blend = "screen";
    group.mask = "r";
    group.mask_inverted = true;
    b.look.add(group, 1);
    CHECK(b.look.lost_by_taking_apart(1).isEmpty());
    CHECK(same_after(1));
    group.within[0].opacity = 0.9;
    b.look.add(group, 2);
    CHECK(b.look.lost_by_taking_apart(2).size() == 3);
    group.proofs = "proof \"a\" : finite\n";
    group.opacity = 1;
    group.blend = "normal";
    group.mask.clear();
    b.look.add(group, 3);
    CHECK(b.look.lost_by_taking_apart(3) == QStringList{"its proofs"});
}

TEST_CASE("a look that could not be opened again is not made", "[look]") {
    Bench b;
    QString why;
    QObject::connect(&b.look, &LookModel::refused, [&](const QString& words) { why = words; });
    b.write("out.r = g\n");
    for (int i = 0; i < document::deepest_look; ++i) {
        b.look.add(b.step("out.g = b\n"), 1);
        b.look.gather(0, 1);
        REQUIRE(b.look.count() == 1);
    }
    CHECK(why.isEmpty());
    b.look.add(b.step("out.g = b\n"), 1);
    b.look.gather(0, 1);
    CHECK(b.look.count() == 2); // as it was
    CHECK(why.contains("9 deep"));
    CHECK(document::look_of(document::look_text(b.look.look()), "here"));
}
