// Proofs of a look as a whole, in the window: added by a click, written, measured, followed, undone.
#include "gui/driver.hpp"
#include "widgets/frame/previewing.hpp"
#include "widgets/look/look_actions.hpp"
#include "widgets/proofs/promise_window.hpp"
#include "widgets/sheet/numbers_panel.hpp"

#include <QLabel>
#include <QMenu>
#include <QPlainTextEdit>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Promise : Driver {
    LookModel& look;
    Promise() : look(window.bench().look()) {
        replace_text("out.r = r + 0.25\n");
        settle();
        trigger("empty_step");
        settle();
        replace_text("param back = 0.25 in 0 .. 1\nout.r = r - back\n");
        settle();
    }
    /// The outcomes that are about the look.
    std::vector<proof::Outcome> of_look() {
        std::vector<proof::Outcome> all;
        for (const ProofItem* item : window.part<app::ProofsBar>().items())
            if (item->outcome().of_look)
                all.push_back(item->outcome());
        return all;
    }
    ProofItem* item_of_look() {
        for (ProofItem* item : window.part<app::ProofsBar>().items())
            if (item->outcome().of_look)
                return item;
        return nullptr;
    }
    QMenu* whole_menu(QMenu& menu) {
        emit window.part<app::ProofsBar>().add_opening(menu);
        return menu.findChild<QMenu*>("look_proofs");
    }
};

} // namespace

TEST_CASE("a proof of the look is added by a click and follows the values of its steps", "[gui][look]") {
    Promise d;
    QMenu menu;
    QMenu* whole = d.whole_menu(menu);
    REQUIRE(whole);
    for (QAction* action : whole->actions())
        if (action->text() == "greys stay grey")
            action->trigger();
    d.settle();
    REQUIRE(d.of_look().size() == 1);
    CHECK(d.of_look()[0].passed); // though neither step keeps it
    CHECK(d.of_look()[0].proved);
    CHECK(d.item_of_look()->accessibleName().startsWith("look: greys stay grey"));
    const int index = d.session().rule()->parameters.empty() ? -1 : 0;
    REQUIRE(index == 0);
    d.session().set_values({0.0}, "none back");
    d.settle();
    CHECK_FALSE(d.of_look()[0].passed);
    CHECK(d.of_look()[0].figure == Approx(0.25).epsilon(1e-4));
    QTest::mouseClick(d.item_of_look(), Qt::LeftButton); // leads to the worst colour
    d.trigger("undo");
    d.settle();
    CHECK(d.of_look()[0].passed);
    d.trigger("undo"); // the proof itself
    d.settle();
    CHECK(d.of_look().empty());
}

TEST_CASE("proofs of the look are written beside the work and say what is wrong with them", "[gui][look]") {
    Promise d;
    d.trigger("look_proofs");
    auto* window = d.window.findChild<PromiseWindow*>();
    REQUIRE(window);
    auto* lines = window->findChild<QPlainTextEdit*>("promise_lines");
    auto* words = window->findChild<QLabel*>("promise_words");
    REQUIRE((lines && words));
    lines->setFocus();
    QTest::keyClicks(lines, "proof \"nothing\" : identity");
    d.settle();
    REQUIRE(d.of_look().size() == 1);
    CHECK(d.of_look()[0].passed);
    CHECK(d.of_look()[0].title == "nothing");
    QTest::keyClick(lines, Qt::Key_Return);
    QTest::keyClicks(lines, "out.r = 1");
    d.settle();
    CHECK(words->text().contains("line 2"));
    CHECK(d.of_look().empty()); // nothing is said of lines that cannot be read
    CHECK(d.look.look().proofs == "proof \"nothing\" : identity\nout.r = 1\n");
    lines->setPlainText("proof \"r\" on (0.5, 0.5, 0.5) : out.r == r");
    d.settle();
    REQUIRE(d.of_look().size() == 1);
    CHECK_FALSE(words->text().contains("line"));
    const QString file = d.file("two.kasurilook");
    REQUIRE(d.look.save(file.toStdString()));
    REQUIRE(d.look.open(file.toStdString()));
    d.settle();
    CHECK(d.of_look().size() == 1);
    CHECK(lines->toPlainText().trimmed() == "proof \"r\" on (0.5, 0.5, 0.5) : out.r == r");
    d.look.set_up_to_here(true); // the promise is about all of it
    d.settle();
    CHECK(d.of_look().empty());
    window->close();
}

TEST_CASE("nothing is said of a look whose step is left out", "[gui][look]") {
    Promise d;
    d.look.set_proofs("proof \"nothing\" : identity", false);
    d.settle();
    REQUIRE(d.of_look().size() == 1);
    d.look.set_mask(0, "no_such(r)");
    d.settle();
    CHECK(d.of_look().empty());
    bool said = false;
    for (const QLabel* label : d.window.part<app::ProofsBar>().findChildren<QLabel*>())
        said = said || (label->text().contains("not measured") && label->toolTip().contains("step 1"));
    CHECK(said);
    d.look.set_mask(0, "");
    d.settle();
    CHECK(d.of_look().size() == 1);
}

TEST_CASE("a filter by itself has no proofs of a look", "[gui][look]") {
    Driver d;
    d.replace_text("out.r = g\n");
    d.settle();
    QMenu menu;
    emit d.window.part<app::ProofsBar>().add_opening(menu);
    CHECK_FALSE(menu.findChild<QMenu*>("look_proofs"));
    CHECK_FALSE(menu.isEmpty());
    d.trigger("look_proofs");
    CHECK_FALSE(d.window.findChild<PromiseWindow*>());
}

TEST_CASE("the worst colour of a failing proof is told until something else is pointed at, or it is mended",
          "[gui][proofs]") {
    Driver d;
    d.replace_text("out.r = g\nproof \"kept\" on (0.5, 0.125, 0.25) : out.r == r\n"
                   "proof \"dyes\" on (0.5, 0.1, 0.1), (0.1, 0.1, 0.1) : apart > 5\n");
    d.settle();
    const auto& items = d.window.part<app::ProofsBar>().items();
    REQUIRE(items.size() == 2);
    CHECK(items[0]->outcome().worst.target == "this colour");
    const auto numbers = [&] { return d.window.findChild<NumbersPanel*>()->readout(); };
    QTest::mouseClick(items[0], Qt::LeftButton, {}, QPoint(20, 18));
    d.settle(); // the sheet is shown anew, with the rule looked into
    REQUIRE(numbers().valid);
    CHECK(numbers().before[0] == 0.5f);
    CHECK(numbers().after[0] == 0.125f);
    CHECK(d.window.part<app::Previewing>().looks_into());
    QTest::keyClick(items[1], Qt::Key_Return); // the other one, by the keyboard
    d.settle();
    CHECK(numbers().target.contains("these colours, seen by"));
    CHECK(items[1]->accessibleName().contains("fails"));
    // Another place that is pointed at takes its turn, and when nothing is, nothing is told.
    app::CellView* cell = d.sheet().cell(d.window.bench().sheet().cells().front().id);
    QTest::mouseMove(cell, QPoint(60, 60));
    REQUIRE(QTest::qWaitFor([&] { return !numbers().target.contains("these colours"); }, 5000));
    QEvent leave(QEvent::Leave);
    QCoreApplication::sendEvent(cell, &leave);
    CHECK_FALSE(numbers().valid);
    // Mended: it is gone, too.
    QTest::mouseClick(items[0], Qt::LeftButton, {}, QPoint(20, 18));
    d.settle();
    REQUIRE(numbers().valid);
    d.replace_text("out.rgb = rgb\nproof \"kept\" on (0.5, 0.125, 0.25) : out.r == r\n");
    d.settle();
    CHECK_FALSE(numbers().valid);
}
