// Looks in the real window: steps by mouse and keyboard, what the sheet shows, masks, files.
#include "base/file.hpp"
#include "gui/driver.hpp"
#include "support/support.hpp"
#include "widgets/look/look_actions.hpp"
#include "widgets/look/look_line.hpp"
#include "widgets/look/look_row.hpp"
#include "widgets/look/step_panel.hpp"
#include "widgets/tuning/values_panel.hpp"

#include <QLabel>
#include <QMenu>
#include <QPlainTextEdit>
#include <QTextBlock>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Looks : Driver {
    LookModel& look;
    LookLine* line;
    LookRow* row;

    Looks() : look(window.bench().look()), line(window.findChild<LookLine*>()), row(window.findChild<LookRow*>()) {
        REQUIRE((line && row));
        replace_text("param k = 0.5 in 0 .. 1\nout.rgb = rgb * k\n");
        settle();
    }
    void save(const char* name) { REQUIRE(look.save((folder.path() + name).toStdString())); }
    void add(const QString& text) {
        trigger("empty_step");
        settle();
        replace_text(text);
        settle();
    }
    /// Of the grey ramp, in the middle.
    double red() {
        return static_cast<double>(after(0, 0.8)[0]) /
            static_cast<double>(sheet().strips()[0]->result()->before.at(
                static_cast<std::size_t>(sheet().strips()[0]->sample_at(0.8)))[0]);
    }
    CellView* cell() { return sheet().cell(window.bench().sheet().cells().front().id); }
    void click(const QPoint& at) { QTest::mouseClick(line, Qt::LeftButton, {}, at); }
};

} // namespace

TEST_CASE("two steps are one look: the sheet shows both, up to one, before one, and without one", "[gui][look]") {
    Looks d;
    CHECK_FALSE(d.row->isVisible());
    CHECK(d.red() == Approx(0.5));
    d.add("out.rgb = rgb * 0.5 + 0\n");
    CHECK(d.row->isVisible());
    CHECK(d.red() == Approx(0.25));
    CHECK(d.row->amounts().startsWith("all 2 steps are one exact matrix"));
    d.click(d.line->place(0).center()); // the first one active
    d.settle();
    CHECK(d.look.current() == 0);
    CHECK(d.text() == "param k = 0.5 in 0 .. 1\nout.rgb = rgb * k\n");
    CHECK(d.red() == Approx(0.25));
    CHECK(d.window.part<app::ValuesPanel>().field("k")->value() == 0.5);
    d.session().set_value(0, 0.8); // its value works in the look
    d.settle();
    CHECK(d.red() == Approx(0.4));
    d.trigger("up_to_here");
    d.settle();
    CHECK(d.red() == Approx(0.8));
    d.trigger("up_to_here");
    d.window.bench().against().set_what_comes_in();
    d.trigger("step_after"); // the second active: what comes in is what the first makes
    d.settle();
    CHECK(d.red() == Approx(0.5));
    d.window.bench().against().clear();
    d.click(d.line->box(0).center());
    d.settle();
    CHECK_FALSE(d.look.steps()[0].on);
    CHECK(d.red() == Approx(0.5));
    d.session().undo_stack().undo();
    d.settle();
    CHECK(d.red() == Approx(0.4));
    CHECK(d.outcome("identity")); // proofs are those of the active rule
}

TEST_CASE("the line of steps by keyboard: opacity, order, off, and away", "[gui][look]") {
    Looks d;
    d.add("out.rgb = rgb + 1\n");
    CHECK(d.red() ==
          Approx(0.5 +
                 1 /
                     static_cast<double>(d.sheet().strips()[0]->result()->before.at(
                         static_cast<std::size_t>(d.sheet().strips()[0]->sample_at(0.8)))[0])));
    d.line->setFocus();
    for (int i = 0; i < 10; ++i)
        QTest::keyClick(d.line, Qt::Key_Down, Qt::ControlModifier);
    CHECK(d.look.step().opacity == 0);
    d.settle();
    CHECK(d.red() == Approx(0.5));
    QTest::keyClick(d.line, Qt::Key_Up);
    QTest::keyClick(d.line, Qt::Key_Up, Qt::ShiftModifier);
    CHECK(d.look.step().opacity == Approx(0.011));
    d.session().undo_stack().undo(); // all of that without a pause is one step
    CHECK(d.look.step().opacity == 1);
    QTest::keyClick(d.line, Qt::Key_Left, Qt::ShiftModifier);
    CHECK((d.look.current() == 0 && d.look.step().text == "out.rgb = rgb + 1\n"));
    QTest::keyClick(d.line, Qt::Key_Right);
    CHECK(d.look.current() == 1);
    QTest::keyClick(d.line, Qt::Key_Space);
    CHECK_FALSE(d.look.step().on);
    QTest::keyClick(d.line, Qt::Key_Delete);
    CHECK(d.look.count() == 1);
    d.settle();
    CHECK_FALSE(d.row->isVisible()); // a filter again
}

TEST_CASE("steps are dragged to another place, and their opacity is dragged", "[gui][look]") {
    Looks d;
    d.add("out.r = g\n");
    d.add("out.g = b\n");
    const auto drag = [&](QPoint from, QPoint to) {
        QTest::mousePress(d.line, Qt::LeftButton, {}, from);
        for (int i = 1; i <= 4; ++i) {
            QMouseEvent move(QEvent::MouseMove, QPointF(from + (to - from) * i / 4),
                             QPointF(d.line->mapToGlobal(from + (to - from) * i / 4)), Qt::LeftButton, Qt::LeftButton,
                             Qt::NoModifier);
            QApplication::sendEvent(d.line, &move);
        }
        QTest::mouseRelease(d.line, Qt::LeftButton, {}, to);
    };
    const auto name = [&](int i) { return QPoint(d.line->box(i).right() + 20, d.line->height() / 2); };
    drag(name(2), d.line->place(0).topLeft() + QPoint(2, 10));
    CHECK(d.look.steps()[0].text == "out.g = b\n");
    CHECK(d.look.current() == 0);
    const QPoint share = d.line->opacity(1).center();
    drag(share, share - QPoint(60, 0));
    CHECK(d.look.steps()[1].opacity == Approx(0.7).margin(0.06));
    CHECK(d.look.current() == 0); // only its opacity
}

TEST_CASE("a mask is written, seen and refused with its reason, and undo goes through it", "[gui][look]") {
    Looks d;
    d.add("out.rgb = rgb + 1\n");
    auto* mask = d.window.findChild<QPlainTextEdit*>("mask");
    REQUIRE(mask);
    mask->setPlainText("r > 1 ? 1 : 0");
    d.settle();
    CHECK(d.look.step().mask == "r > 1 ? 1 : 0");
    CHECK(d.red() == Approx(0.5)); // 1.17 halved is below 1
    mask->setPlainText("nothing(r)");
    d.settle();
    auto* panel = d.window.findChild<StepPanel*>();
    bool said = false;
    for (const QLabel* label : panel->findChildren<QLabel*>())
        said = said || (label->isVisible() && label->text().contains("its mask"));
    CHECK(said);
    CHECK(d.red() == Approx(0.5)); // the step is left out
    QMenu masks;
    panel->fill_masks(masks);
    masks.actions()[2]->trigger(); // highlights
    d.settle();
    CHECK(d.look.step().mask.find("zones") != std::string::npos);
    d.window.findChild<QToolButton*>("see_mask")->click();
    d.settle();
    CHECK(d.window.bench().sheet().cells()[0].lens == "step_mask");
    CHECK(d.cell()->result()->fault.empty());
    d.window.findChild<QToolButton*>("see_mask")->click();
    while (d.session().undo_stack().canUndo())
        d.session().undo_stack().undo();
    d.settle();
    CHECK_FALSE(d.look.is_look());
}

TEST_CASE("a cell shows what comes out of any step, chosen by its menu", "[gui][look]") {
    Looks d;
    const QImage first = d.cell()->result()->after;
    d.add("out.rgb = rgb * 0.5 + 0.1\n");
    const QImage both = d.cell()->result()->after;
    REQUIRE(both != first);
    QMenu menu;
    d.cell()->fill_menu(menu);
    const auto named = [](const QMenu& in, const QString& text) {
        for (QAction* action : in.actions())
            if (action->text().contains(text))
                return action;
        return static_cast<QAction*>(nullptr);
    };
    REQUIRE(named(menu, "what comes out of a step"));
    const QMenu& steps = *named(menu, "what comes out of a step")->menu();
    REQUIRE(steps.actions().size() == 2);
    const PicturePtr whole = d.cell()->result()->after_pixels;
    steps.actions()[0]->trigger();
    d.settle();
    CHECK(d.cell()->result()->after == first);
    // Its numbers are of what is seen: the second step halves and adds 0.1.
    const PicturePtr seen = d.cell()->result()->after_pixels;
    for (std::size_t i = 0; i < seen->pixels(); i += 997)
        CHECK(seen->at(i)[0] * 0.5f + 0.1f == Approx(whole->at(i)[0]).margin(1e-6));
    steps.actions()[1]->trigger();
    d.settle();
    CHECK(d.cell()->result()->after == both);
    d.look.set_on(0, false); // nothing has been done to it then
    steps.actions()[0]->trigger();
    d.settle();
    CHECK(d.cell()->result()->after == d.cell()->result()->before);
    d.window.bench().sheet().set_lens(d.cell()->id(), step_lens(3));
    d.settle();
    CHECK(d.cell()->result()->fault == "there is no step 3");
}

TEST_CASE("the panel of a step is as high as its mask, and the rule is called as its step is", "[gui][look]") {
    Looks d;
    d.add("out.rgb = rgb + 1\n");
    auto* mask = d.window.findChild<QPlainTextEdit*>("mask");
    REQUIRE(mask);
    const int one = mask->height();
    mask->setPlainText("source original : vec3 = picture\nlet key = original.r\nkey");
    d.settle();
    const QTextBlock last = mask->document()->lastBlock();
    CHECK(mask->height() > one);
    CHECK(mask->cursorRect(QTextCursor(last)).bottom() <= mask->viewport()->height());
    d.look.set_label(1, "Seam");
    d.settle();
    const auto labels = d.window.part<app::RulePanel>().findChildren<QLabel*>();
    CHECK(std::any_of(labels.begin(), labels.end(), [](const QLabel* label) { return label->text() == "Seam"; }));
}

TEST_CASE("a look is saved by the window's commands, opened again, and comes back after a crash", "[gui][look]") {
    Looks d;
    d.add("filter \"Second\"\nout.r = g\n");
    CHECK(d.window.windowTitle().contains("untitled look*"));
    REQUIRE(d.window.part<app::Files>().save_to(d.file("two.kasurilook")));
    CHECK(d.window.windowTitle().startsWith("two "));
    CHECK_FALSE(d.look.modified());
    d.window.part<app::Files>().new_filter();
    d.settle();
    CHECK_FALSE(d.look.is_look());
    d.window.part<app::Files>().open(d.file("two.kasurilook"));
    d.settle();
    CHECK(d.look.count() == 2);
    CHECK(d.look.name(1) == "Second");
    d.window.part<app::LookActions>().add_files({d.file("two.kasurilook")}, 2); // a look within it
    d.settle();
    CHECK((d.look.step().is_look && d.session().fixed() && d.editor().isReadOnly()));
    CHECK(d.red() == Approx(0.25));
    document::Recovery left;
    left.path = d.look.path().string();
    left.look = document::look_text(d.look.look());
    left.active = 1;
    const auto again = document::recovery_of(document::recovery_text(left), "x");
    REQUIRE(again);
    d.window.part<app::Files>().open(d.file("nothing.kasurilook")); // an error, and nothing is lost
    CHECK(d.look.count() == 3);
    d.save("/three.kasurilook");
    d.window.part<app::Files>().new_filter();
    d.window.part<app::Recovery>().bring_back({d.file("gone").toStdString(), again.value()});
    d.settle();
    CHECK((d.look.count() == 3 && d.look.current() == 1 && d.look.modified()));
}

TEST_CASE("a take and a pin work within a look: values at lines are those of what comes into the step", "[gui][look]") {
    Looks d;
    d.add("let x = r + 0\nout.r = x\n");
    const Cell& chart = d.window.bench().sheet().cells().front();
    d.window.bench().sheet().add_pin(chart.source(), QPoint(1, 1));
    d.settle();
    const CellResult& shown = *d.cell()->result();
    const double was = static_cast<double>(shown.before_pixels->at(1, 1)[0]);
    REQUIRE_FALSE(d.editor().line_values().empty());
    CHECK(d.editor().line_values().front().text.contains(QString::number(0.5 * was, 'f', 3)));
    d.trigger("take");
    CHECK(d.look.step().bench.find("\"takes\"") != std::string::npos);
    d.trigger("step_before");
    d.settle();
    CHECK(d.window.bench().takes().takes().empty()); // of the other step
    d.trigger("step_after");
    d.settle();
    CHECK(d.window.bench().takes().takes().size() == 1);
}
