// Tools of the text in the real editor: names, comments, numbers, find and replace, recipes, proofs.
#include "gui/driver.hpp"
#include "model/function_picture.hpp"
#include "widgets/frame/trace_window.hpp"
#include "widgets/parts/message_box.hpp"
#include "widgets/sheet/cell_view.hpp"
#include "widgets/writing/colour_picker.hpp"
#include "widgets/writing/editor_commands.hpp"
#include "widgets/writing/find_bar.hpp"

#include <QMenu>
#include <QMouseEvent>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Hands : Driver {
    explicit Hands(const QString& text) {
        window.activateWindow();
        replace_text(text);
        session().undo_stack().clear();
        editor().setFocus();
        settle_text();
    }
    void caret_in(const char* place, int by = 0) {
        const std::size_t at = text().find(place);
        REQUIRE(at != std::string::npos);
        editor().SendScintilla(QsciScintillaBase::SCI_GOTOPOS,
                               static_cast<unsigned long>(at + static_cast<std::size_t>(by)));
    }
    QPoint point_of(const char* place) {
        const auto at = static_cast<long>(text().find(place));
        return {static_cast<int>(editor().SendScintilla(QsciScintillaBase::SCI_POINTXFROMPOSITION, 0, at)) + 2,
                static_cast<int>(editor().SendScintilla(QsciScintillaBase::SCI_POINTYFROMPOSITION, 0, at)) + 5};
    }
    void mouse(QEvent::Type type, const QPoint& at, Qt::KeyboardModifiers modifiers) {
        const bool up = type == QEvent::MouseButtonRelease;
        QMouseEvent event(type, at, editor().viewport()->mapToGlobal(at),
                          type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton, up ? Qt::NoButton : Qt::LeftButton,
                          modifiers);
        QApplication::sendEvent(editor().viewport(), &event);
    }
    EditorCommands& commands() { return *window.part<app::RulePanel>().commands(); }
    FindBar& find() { return *window.part<app::RulePanel>().find_bar(); }
    QString said() { return window.part<app::StatusLine>().message(); }
};

} // namespace

TEST_CASE("F2 renames a name in all its places as one step, and says why it cannot", "[gui][writing]") {
    Hands d("param meet = 0 in 0 .. 1\nout.g = mix(g, b, meet)\n");
    d.caret_in("meet)", 2);
    d.trigger("rename");
    QLineEdit* field = d.commands().rename_field();
    REQUIRE(field);
    CHECK(field->selectedText() == "meet");
    QTest::keyClicks(field, "rgb");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.commands().rename_field() == field); // refused, to be mended
    CHECK(d.text().find("meet") != std::string::npos);
    field->selectAll();
    QTest::keyClicks(field, "share");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.text() == "param share = 0 in 0 .. 1\nout.g = mix(g, b, share)\n");
    CHECK(d.session().undo_stack().undoText() == "rename meet");
    CHECK(d.editor().hasFocus());
    d.trigger("undo");
    CHECK(d.text().find("param meet") != std::string::npos);
    d.settle();
    d.caret_in("mix", 1);
    d.trigger("rename");
    CHECK_FALSE(d.commands().rename_field());
    d.caret_in("meet)");
    d.trigger("rename");
    QTest::keyClick(d.commands().rename_field(), Qt::Key_Escape);
    QTest::qWait(5);
    CHECK_FALSE(d.commands().rename_field());
    d.caret_in("meet)");
    d.trigger("definition");
    CHECK(d.editor().selectedText() == "meet");
    CHECK(d.editor().SendScintilla(QsciScintillaBase::SCI_GETSELECTIONSTART) == 6);
}

TEST_CASE("lines become comments and come back", "[gui][writing]") {
    Hands d("out.r = g\nout.g = r\n");
    d.caret_in("out.r");
    d.trigger("comment");
    CHECK(d.text() == "// out.r = g\nout.g = r\n");
    d.trigger("comment"); // the next line
    CHECK(d.text() == "// out.r = g\n// out.g = r\n");
    d.editor().selectAll();
    d.trigger("comment");
    CHECK(d.text() == "out.r = g\nout.g = r\n");
    d.trigger("undo");
    d.trigger("undo");
    d.trigger("undo");
    CHECK(d.text() == "out.r = g\nout.g = r\n");
    d.settle();
}

TEST_CASE("a number is dragged in the text, finely and coarsely, as one step", "[gui][writing]") {
    Hands d("out.r = r * 0.50\n");
    const QPoint at = d.point_of("0.50");
    d.mouse(QEvent::MouseButtonPress, at, Qt::ControlModifier);
    d.mouse(QEvent::MouseMove, at + QPoint(20, 0), Qt::ControlModifier);
    CHECK(d.text() == "out.r = r * 0.55\n");
    d.mouse(QEvent::MouseMove, at + QPoint(40, 0), Qt::ControlModifier);
    CHECK(d.text() == "out.r = r * 0.60\n");
    d.mouse(QEvent::MouseMove, at + QPoint(40, 0), Qt::ControlModifier | Qt::ShiftModifier);
    d.mouse(QEvent::MouseMove, at + QPoint(60, 0), Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(d.text() == "out.r = r * 0.605\n");
    d.mouse(QEvent::MouseMove, at + QPoint(60, 0), Qt::ControlModifier | Qt::AltModifier);
    d.mouse(QEvent::MouseMove, at + QPoint(64, 0), Qt::ControlModifier | Qt::AltModifier);
    CHECK(d.text() == "out.r = r * 0.705\n");
    d.mouse(QEvent::MouseButtonRelease, at + QPoint(64, 0), Qt::ControlModifier);
    d.settle();
    CHECK(d.after(0, 0.999)[0] ==
          Approx(0.705 *
                 d.sheet().strips()[0]->result()->before.at(
                     static_cast<std::size_t>(d.sheet().strips()[0]->sample_at(0.999)))[0])
              .epsilon(1e-4));
    CHECK(d.session().undo_stack().count() == 1);
    d.trigger("undo");
    CHECK(d.text() == "out.r = r * 0.50\n");
    // By keys, at the caret.
    d.caret_in("0.50", 1);
    QTest::keyClick(&d.editor(), Qt::Key_Up, Qt::AltModifier);
    CHECK(d.text() == "out.r = r * 0.51\n");
    QTest::keyClick(&d.editor(), Qt::Key_Down, Qt::AltModifier | Qt::ShiftModifier);
    CHECK(d.text() == "out.r = r * 0.509\n");
    d.settle();
}

TEST_CASE("Ctrl and a click on a name goes to where it is given", "[gui][writing]") {
    Hands d("let shade = 0.5 * g\nout.r = shade\n");
    d.mouse(QEvent::MouseButtonPress, d.point_of("shade\n"), Qt::ControlModifier);
    d.mouse(QEvent::MouseButtonRelease, d.point_of("shade\n"), Qt::ControlModifier);
    CHECK(d.editor().SendScintilla(QsciScintillaBase::SCI_GETSELECTIONSTART) == 4);
}

TEST_CASE("find goes round, replace is one step, words and letters can matter", "[gui][writing]") {
    Hands d("let Red = r\nlet red2 = \u00e9\nout.r = red + Red\n");
    d.trigger("find");
    REQUIRE(d.find().isVisible());
    CHECK_FALSE(d.find().instead()->isVisible());
    QTest::keyClicks(d.find().wanted(), "red");
    CHECK(d.find().hits() == 4);
    d.find().set_whole_words(true);
    CHECK(d.find().hits() == 3);
    d.find().set_case_matters(true);
    CHECK(d.find().hits() == 1);
    d.editor().SendScintilla(QsciScintillaBase::SCI_GOTOPOS, 0UL);
    QTest::keyClick(d.find().wanted(), Qt::Key_Return);
    CHECK(d.editor().selectedText() == "red");
    CHECK(d.editor().SendScintilla(QsciScintillaBase::SCI_GETSELECTIONSTART) ==
          static_cast<long>(d.text().find("red +"))); // bytes, not letters
    d.find().set_case_matters(false);
    d.trigger("replace");
    QTest::keyClicks(d.find().instead(), "rot");
    QTest::keyClick(d.find().instead(), Qt::Key_Return, Qt::ControlModifier);
    CHECK(d.text() == "let rot = r\nlet red2 = \u00e9\nout.r = rot + rot\n");
    d.trigger("undo");
    CHECK(d.text() == "let Red = r\nlet red2 = \u00e9\nout.r = red + Red\n");
    d.find().next(1);
    d.find().replace_one();
    CHECK(d.find().hits() == 2);
    QTest::keyClick(d.find().wanted(), Qt::Key_Escape);
    CHECK_FALSE(d.find().isVisible());
    CHECK(d.editor().hasFocus());
}

TEST_CASE("a recipe is written below the line, its first number chosen", "[gui][writing]") {
    Hands d("out.r = g\nproof \"greys\" : neutral\n");
    d.caret_in("out.r", 3);
    QMenu menu;
    d.commands().fill_recipes(menu);
    for (QAction* action : menu.actions())
        if (action->text() == "Two dyes")
            action->trigger();
    CHECK(d.text().starts_with("out.r = g\nparam meet = 0 in 0 .. 1"));
    CHECK(d.editor().selectedText() == "0");
    QTest::keyClicks(&d.editor(), "0.5");
    CHECK(d.text().find("param meet = 0.5 in") != std::string::npos);
    d.settle();
    CHECK(d.session().compiles());
}

TEST_CASE("a proof is added by a click, fails, and leads into the rule", "[gui][writing]") {
    Hands d("out.r = 4 * r * (1 - r)\n");
    QMenu menu;
    d.commands().fill_proofs(menu);
    for (QAction* action : menu.actions())
        if (action->text() == "no folds")
            action->trigger();
    d.settle();
    CHECK(d.text().ends_with("proof \"no folds\" : folds\n"));
    CHECK(d.text().find("greys stay grey") == std::string::npos); // nothing else is promised with it
    CHECK(d.window.part<app::ProofsBar>().items().size() == 1);
    REQUIRE(d.outcome("folds"));
    CHECK_FALSE(d.outcome("folds")->passed);
    QTest::mouseClick(d.window.part<app::ProofsBar>().items().back(), Qt::LeftButton);
    d.settle();
    REQUIRE_FALSE(d.editor().line_values().empty()); // what the rule makes of the worst colour
    CHECK(d.editor().line_values().front().text.contains("0."));
    d.replace_text("out.r = r * r\nproof \"no folds\" : folds\n");
    d.settle();
    CHECK(d.outcome("folds")->passed);
    QTest::qWait(20);
    d.settle();
    CHECK(d.editor().line_values().empty()); // mended: nothing to look into
}

TEST_CASE("a colour in the text has a picker: typed, taken from the sheet and from a pin, one step of undo",
          "[gui][writing]") {
    Hands d("out.rgb *= vec3(0.5, 0.25, 1)\n");
    d.caret_in("0.25");
    d.trigger("colour");
    ColourPicker& picker = *d.window.part<app::RulePanel>().picker();
    REQUIRE(picker.isVisible());
    CHECK(picker.field(1)->value() == 0.25);
    picker.field(1)->setFocus();
    picker.field(1)->selectAll();
    QTest::keyClicks(picker.field(1), "0.75");
    QTest::keyClick(picker.field(1), Qt::Key_Return);
    QTest::keyClick(picker.field(1), Qt::Key_Up);
    CHECK(d.text() == "out.rgb *= vec3(0.5, 0.76, 1)\n");
    d.settle();
    // Under the text lies a bar of the colour, and clicking a cell takes what it has there.
    CHECK(d.session().undo_stack().count() == 1);
    const QPoint foot = d.point_of("0.76") +
        QPoint(0, static_cast<int>(d.editor().SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0)) - 7);
    const QRgb bar = d.editor().viewport()->grab().toImage().pixel(foot);
    CHECK(qBlue(bar) == 255);
    CHECK(qGreen(bar) > qRed(bar));
    emit picker.pick_wanted();
    CellView* cell = d.sheet().cell(d.sheet().current_cell());
    REQUIRE(cell);
    const QPoint at = cell->rect().center() + QPoint(3, 20);
    QTest::mouseMove(cell, at);
    QTest::qWait(5);
    const std::size_t pins = d.window.bench().sheet().pins().size();
    QTest::mouseClick(cell, Qt::LeftButton, Qt::NoModifier, at);
    d.settle();
    CHECK(d.text() != "out.rgb *= vec3(0.5, 0.76, 1)\n");
    CHECK(d.window.bench().sheet().pins().size() == pins);
    Readout readout;
    readout.valid = true;
    readout.space = "srgb";
    readout.before = {0.5f, 0.5f, 0.5f, 1};
    picker.take(readout);
    // IEC 61966-2-1: 0.5 decodes to 0.21404.
    CHECK(d.text() == "out.rgb *= vec3(0.21404, 0.21404, 0.21404)\n");
    QTest::keyClick(&picker, Qt::Key_Escape);
    CHECK_FALSE(picker.isVisible());
    CHECK(d.editor().hasFocus());
    d.trigger("undo");
    CHECK(d.text() == "out.rgb *= vec3(0.5, 0.25, 1)\n");
    d.caret_in("out");
    d.trigger("colour");
    CHECK_FALSE(picker.isVisible());
    CHECK(d.said().contains("three numbers"));
}

TEST_CASE("somebody else's change of the same lines is asked about above the text, and saving waits for it",
          "[gui][writing]") {
    Driver d;
    const QString file = d.file("dye.kasuri");
    const auto write = [&](const char* text) {
        QFile out(file);
        REQUIRE(out.open(QIODevice::WriteOnly));
        out.write(text);
    };
    write("out.r = g\n");
    d.window.part<app::Files>().open(file);
    d.settle();
    d.replace_text("out.r = b\n");
    write("out.r = g * 2\n");
    CHECK_FALSE(d.window.part<app::Files>().save());
    CHECK(d.window.part<app::StatusLine>().message().contains("Not saved"));
    QToolButton* theirs = d.window.findChild<QToolButton*>("theirs");
    REQUIRE(theirs->isVisible());
    QTest::mouseClick(theirs, Qt::LeftButton);
    CHECK_FALSE(theirs->isVisible());
    CHECK(d.text() == "out.r = g * 2\n");
    d.trigger("undo");
    CHECK(d.text() == "out.r = b\n");
    CHECK(d.window.part<app::Files>().save());
    QFile in(file);
    REQUIRE(in.open(QIODevice::ReadOnly));
    CHECK(in.readAll() == "out.r = b\n");
    d.settle();
}

TEST_CASE("bodies and runs of lines fold and unfold, and what is looked for is unfolded", "[gui][writing]") {
    Hands d("param a1 = 0 in 0 .. 1\nparam b1 = 0 in 0 .. 1\nparam c1 = 0 in 0 .. 1\nfn twice(x) {\n    let y = x + "
            "x\n    y\n}\nout.r = twice(r) + a1 + b1 + c1\n");
    const auto shown = [&](long line) {
        return d.editor().SendScintilla(QsciScintillaBase::SCI_GETLINEVISIBLE, static_cast<unsigned long>(line)) != 0;
    };
    d.caret_in("c1 = 0");
    d.trigger("fold");
    CHECK((shown(0) && !shown(1) && !shown(2) && shown(3)));
    d.caret_in("y = x");
    d.trigger("fold");
    CHECK((shown(3) && !shown(4) && !shown(5)));
    d.caret_in("twice(r)", 1);
    d.trigger("definition"); // in sight already
    d.editor().select(
        {static_cast<std::uint32_t>(d.text().find("y = x")), static_cast<std::uint32_t>(d.text().find("y = x") + 1)});
    CHECK(shown(4));
    d.caret_in("param a1");
    d.trigger("fold");
    CHECK(shown(2));
    d.caret_in("out.r");
    d.trigger("fold");
    CHECK(d.said().contains("nothing to fold"));
    d.settle();
}

TEST_CASE("a function is drawn where it has one graph", "[writing]") {
    const QImage square = function_picture("srgb_encode"), step = function_picture("step");
    REQUIRE_FALSE(square.isNull());
    const auto ink = [](const QImage& image, int column) { // the middle of what is drawn there
        int sum = 0, count = 0;
        for (int y = 0; y < image.height(); ++y)
            if (qBlue(image.pixel(column, y)) - qRed(image.pixel(column, y)) > 40) {
                sum += y;
                ++count;
            }
        return count == 0 ? -1 : sum / count;
    };
    // IEC 61966-2-1: 0.5 is encoded as 0.7354; x = 0.5 is the middle column of -0.25 .. 1.25.
    CHECK(std::abs(ink(square, 75) - (100 - (0.7354 + 0.25) / 1.5 * 100)) <= 1.5);
    CHECK(ink(step, 30) > ink(step, 140));
    CHECK(function_picture("blur").isNull());
    CHECK(function_picture("no such thing").isNull());
}

TEST_CASE("the first words of a fault stand beside its line while the caret is elsewhere", "[gui][faults]") {
    Driver d;
    d.replace_text("let s = lumniance(rgb)\nout.r = 1\nout.g = nothing\nout.b = b\n");
    d.end_of_text();
    d.settle_text();
    REQUIRE(QTest::qWaitFor([&] { return !d.editor().line_faults().empty(); }, 3000));
    // One has its whole message (the first error, for the caret's line has none), the other its first words.
    REQUIRE(d.editor().line_faults().size() == 1);
    const auto& fault = d.editor().line_faults().front();
    CHECK(fault.bad);
    CHECK(fault.text.contains("nothing"));
    d.editor().setCursorPosition(2, 3); // its own line: the message goes there, and the other gives its words
    REQUIRE(QTest::qWaitFor(
        [&] {
            const auto& faults = d.editor().line_faults();
            return !faults.empty() && faults.front().text.contains("lumniance");
        },
        3000));
    CHECK(d.editor().line_faults().size() == 1);
    d.replace_text("out.r = g\n");
    d.settle();
    CHECK(d.editor().line_faults().empty());
}

TEST_CASE("the message under the last line is seen whole, however low the editor is", "[gui][faults]") {
    Driver d;
    QString text;
    for (int i = 0; i < 40; ++i)
        text += QString("let a%1 = r\n").arg(i);
    d.replace_text(text);
    d.end_of_text();
    d.type("out.g = shade");
    d.settle_text();
    auto* message = d.editor().findChild<MessageBox*>();
    REQUIRE(message);
    REQUIRE(QTest::qWaitFor([&] { return message->isVisible(); }, 3000));
    CHECK(d.editor().viewport()->rect().contains(message->geometry()));
}
