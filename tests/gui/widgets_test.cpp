// The small parts by themselves.
#include "model/display.hpp"
#include "widgets/frame/actions.hpp"
#include "widgets/frame/status_line.hpp"
#include "widgets/frame/top_bar.hpp"
#include "widgets/parts/message_box.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/range_bar.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/proofs/proofs_bar.hpp"
#include "widgets/sheet/cell_view.hpp"
#include "widgets/sheet/numbers_panel.hpp"
#include "widgets/writing/rule_editor.hpp"
#include "widgets/writing/rule_lexer.hpp"

#include <QApplication>
#include <QFontInfo>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QSignalSpy>
#include <QTest>
#include <QUndoStack>

#include <catch2/catch.hpp>

#include <limits>
#include <set>

using namespace kasuri;
using namespace kasuri::app;

namespace {

proof::Outcome outcome(const std::string& function, double figure, bool passed) {
    proof::Outcome made;
    made.title = "greys stay grey";
    made.function = function;
    made.figure = figure;
    made.limit = 1e-4;
    made.passed = passed;
    made.worst.target = "grey_ramp";
    made.worst.index = 7;
    made.worst.count = 10;
    return made;
}

} // namespace

TEST_CASE("numbers have a true minus, fixed decimals and no negative zero", "[widgets]") {
    CHECK(theme::number(0.1284) == "0.128");
    CHECK(theme::number(-0.5, 1) == QString::fromUtf8("\u22120.5"));
    CHECK(theme::number(-0.0001) == "0.000");
    CHECK(theme::number(std::numeric_limits<double>::quiet_NaN()) == "NaN");
    CHECK(theme::number(std::numeric_limits<double>::infinity()) == QString::fromUtf8("\u221e"));
}

TEST_CASE("the shipped faces are the ones in use", "[widgets]") {
    CHECK(QFontInfo(theme::face()).family() == "Inter");
    CHECK(QFontInfo(theme::mono()).family() == "JetBrains Mono");
    CHECK(QFontInfo(theme::mono()).fixedPitch());
}

TEST_CASE("the interface is achromatic but for one accent", "[widgets]") {
    for (const QColor& colour : {theme::chrome, theme::field, theme::current_line, theme::hairline, theme::grid,
                                 theme::text, theme::second, theme::third, theme::surround})
        CHECK((colour.red() == colour.green() && colour.green() == colour.blue()));
    CHECK(theme::surround.red() == 0x77); // L* 50 by IEC 61966-2-1
}

TEST_CASE("steps are finer with Shift and coarser with Ctrl", "[widgets]") {
    CHECK(NumberField::factor(Qt::NoModifier) == 1);
    CHECK(NumberField::factor(Qt::ShiftModifier) == 0.1);
    CHECK(NumberField::factor(Qt::ControlModifier) == 10);
}

TEST_CASE("a number field takes commas and true minus signs, and Escape takes typing back", "[widgets]") {
    NumberField field;
    field.set_range(-1, 1, 0.01);
    field.set_value(0.5);
    QSignalSpy edited(&field, &NumberField::value_edited);
    field.selectAll();
    QTest::keyClicks(&field, "-0,25");
    QTest::keyClick(&field, Qt::Key_Return);
    CHECK(field.value() == -0.25);
    CHECK(field.text() == QString::fromUtf8("\u22120.250"));
    field.selectAll();
    QTest::keyClicks(&field, "0.9");
    QTest::keyClick(&field, Qt::Key_Escape);
    CHECK(field.value() == -0.25);
    CHECK(field.text() == QString::fromUtf8("\u22120.250"));
    CHECK(edited.count() == 1);
    // What comes from outside while one types does not disturb the typing.
    field.selectAll();
    QTest::keyClicks(&field, "0.7");
    field.set_value(0.1);
    CHECK(field.text() == "0.7");
}

TEST_CASE("a fine step shows the decimals it needs", "[widgets]") {
    NumberField field;
    field.set_range(0, 0.01, 0.0001);
    field.set_value(0.0012);
    CHECK(field.text() == "0.00120");
}

TEST_CASE("a range bar follows the pointer, and Shift makes it finer", "[widgets]") {
    RangeBar bar;
    bar.resize(160, 22);
    bar.set_range(0, 1, 0);
    bar.set_value(0);
    double value = 0;
    QObject::connect(&bar, &RangeBar::value_edited, [&](double to) {
        value = to;
        bar.set_value(to);
    });
    QTest::mousePress(&bar, Qt::LeftButton, {}, QPoint(80, 11));
    CHECK(value == Approx(0.5));
    QTest::mouseRelease(&bar, Qt::LeftButton, {}, QPoint(80, 11));
    QTest::mousePress(&bar, Qt::LeftButton, {}, QPoint(500, 11));
    CHECK(value == 1);
    QTest::mouseRelease(&bar, Qt::LeftButton, {}, QPoint(500, 11));
    QTest::mousePress(&bar, Qt::LeftButton, Qt::ShiftModifier, QPoint(80, 11));
    QMouseEvent fine(QEvent::MouseMove, QPointF(70, 11), bar.mapToGlobal(QPointF(70, 11)), Qt::NoButton, Qt::LeftButton,
                     Qt::ShiftModifier);
    QApplication::sendEvent(&bar, &fine);
    CHECK(value == Approx(1 - 10.0 / 100 * 0.1));
}

TEST_CASE("a failing proof is a link, a passing one is not", "[widgets]") {
    ProofsBar bar;
    QSignalSpy followed(&bar, &ProofsBar::followed);
    bar.show_outcomes({outcome("neutral", 1e-7, true), outcome("neutral", 0.3, false)});
    REQUIRE(bar.items().size() == 2);
    QTest::mouseClick(bar.items()[0], Qt::LeftButton);
    CHECK(followed.count() == 0);
    CHECK(bar.items()[0]->focusPolicy() == Qt::NoFocus);
    QTest::mouseClick(bar.items()[1], Qt::LeftButton);
    QTest::keyClick(bar.items()[1], Qt::Key_Return);
    CHECK(followed.count() == 2);
    CHECK(bar.items()[1]->accessibleName().contains("fails"));
    CHECK(bar.items()[1]->toolTip().contains("Sampled"));
    CHECK(bar.items()[1]->sizeHint().width() > bar.items()[0]->sizeHint().width());
    bar.show_outcomes({outcome("neutral", 0, true)});
    CHECK(bar.items().size() == 1);
}

TEST_CASE("proofs come one by one, and how each is known is said", "[widgets]") {
    ProofsBar bar;
    bar.show_outcomes({outcome("neutral", 0, true), outcome("finite", 3, false), outcome("inside", 0.5, false)});
    proof::Outcome shown = outcome("neutral", 0, true), kept = outcome("finite", 0, true);
    shown.proved = true;
    kept.bounded = true;
    bar.show_outcomes({shown, kept}, true, {}, false);
    REQUIRE(bar.items().size() == 3); // the third is still being measured, and stays what it was
    CHECK(bar.items()[0]->accessibleName().contains("passes proved"));
    CHECK(bar.items()[1]->accessibleName().contains("passes bounded"));
    CHECK(bar.items()[1]->toolTip().contains("Bounded; measured"));
    CHECK(bar.items()[2]->accessibleName().contains("fails"));
    const auto says = [&](const QString& text) {
        const auto labels = bar.findChildren<QLabel*>();
        return std::any_of(labels.begin(), labels.end(), [&](const QLabel* l) { return l->text().contains(text); });
    };
    CHECK(says("measuring"));
    CHECK_FALSE(says("pass"));
    bar.show_outcomes({shown, kept});
    CHECK(bar.items().size() == 2);
    CHECK(says("all 2 pass"));
}

TEST_CASE("marks differ in shape, not only in colour", "[widgets]") {
    const auto filled = [](bool passed) {
        QImage image(26, 26, QImage::Format_RGB32);
        image.fill(Qt::white);
        QPainter painter(&image);
        theme::draw_mark(painter, QRectF(0, 0, 26, 26), passed);
        painter.end();
        int dark = 0;
        for (int y = 0; y < 26; ++y)
            for (int x = 0; x < 26; ++x)
                dark += qGray(image.pixel(x, y)) < 200 ? 1 : 0;
        return dark;
    };
    CHECK(filled(true) * 2 < filled(false)); // a ring against a full square
}

TEST_CASE("an error stays until it is dismissed, a confirmation gives way", "[widgets]") {
    StatusLine line;
    line.resize(900, 25);
    line.say("it is broken", true);
    CHECK(line.message() == "it is broken");
    CHECK_FALSE(line.grab().isNull());
    line.say("saved", false);
    CHECK(line.message() == "saved");
    line.dismiss();
    CHECK(line.message().isEmpty());
}

TEST_CASE("a message shows its fix, or help where there is none", "[widgets]") {
    QWidget parent;
    MessageBox box(&parent);
    lang::Diagnostic fault{lang::Code::unknown_name,
                           lang::Severity::error,
                           {0, 1},
                           {"shrd"},
                           {{"did you mean shared?", {0, 1}, "shared"}}};
    box.show_fault(fault);
    CHECK(box.accessibleName() == "There is no shrd.");
    CHECK(box.fix_button()->text() == "Did you mean shared?");
    const int with_fix = box.height_for(300);
    fault.fixes.clear();
    box.show_fault(fault);
    CHECK_FALSE(box.fix_button()->isVisibleTo(&box));
    CHECK(box.accessibleName().contains("Inputs are"));
    CHECK(with_fix > 20);
}

TEST_CASE("a key in a long text styles what it can reach, and the rest when it is looked at", "[widgets]") {
    std::string text;
    for (int i = 0; i < 2000; ++i)
        text += i % 7 == 0 ? "// let 5 \"of\" these\n" : "let a" + std::to_string(i) + " = 0.5 * g \n";
    QUndoStack undo;
    RuleEditor editor(undo), fresh(undo);
    for (RuleEditor* each : {&editor, &fresh}) {
        each->resize(400, 200);
        each->show();
    }
    editor.replace_all(text);
    editor.recolor();
    const auto ask = [](RuleEditor& of, unsigned message, unsigned long at = 0) {
        return of.SendScintilla(message, at);
    };
    for (const int line : {0, 700, 1001, 1998}) {
        editor.setCursorPosition(line, 3);
        editor.ensureLineVisible(line);
        for (const char key : {'/', '/', '"', '7'})
            QTest::keyClick(&editor, key);
        (void)editor.grab();
        if (line < 1500) // further down nothing was asked for yet
            CHECK(ask(editor, QsciScintillaBase::SCI_GETENDSTYLED) < ask(editor, QsciScintillaBase::SCI_GETLENGTH));
        fresh.replace_all(editor.content());
        fresh.recolor();
        editor.SendScintilla(QsciScintillaBase::SCI_COLOURISE,
                             static_cast<unsigned long>(ask(editor, QsciScintillaBase::SCI_GETENDSTYLED)), -1L);
        bool same = true;
        for (unsigned long i = 0; i < editor.content().size(); ++i)
            same = same &&
                ask(editor, QsciScintillaBase::SCI_GETSTYLEAT, i) == ask(fresh, QsciScintillaBase::SCI_GETSTYLEAT, i);
        INFO("line " << line);
        CHECK(same);
    }
}

TEST_CASE("folds are those of the text after keys, scrolling and a text put in once more", "[widgets]") {
    const auto function = [](const char* name) {
        return "fn " + std::string(name) + "(x float) float {\n  x * 2\n}\n";
    };
    std::string text = function("first");
    for (int i = 0; i < 500; ++i)
        text += "let a" + std::to_string(i) + " = 0.5 * g\n";
    text += function("last");
    QUndoStack undo;
    RuleEditor editor(undo);
    editor.resize(400, 200);
    editor.show();
    const auto is_header = [&](long line) {
        return (editor.SendScintilla(QsciScintillaBase::SCI_GETFOLDLEVEL, static_cast<unsigned long>(line)) &
                QsciScintillaBase::SC_FOLDLEVELHEADERFLAG) != 0;
    };
    for (int round = 0; round < 2; ++round) { // the same text again: its lines are new ones
        editor.replace_all(text);
        editor.setFirstVisibleLine(0);
        (void)editor.grab();
        CHECK(is_header(0));
        CHECK(is_header(503));
        CHECK_FALSE(is_header(250));
        for (const int line : {100, 250, 480}) { // going on with the same text
            editor.setFirstVisibleLine(line);
            (void)editor.grab();
        }
        CHECK(is_header(503));
    }
    editor.setCursorPosition(250, 0);
    editor.ensureLineVisible(250);
    for (const char key : std::string("fn f(x float) float {"))
        QTest::keyClick(&editor, key);
    (void)editor.grab();
    CHECK(is_header(250));
    CHECK(is_header(0));
}

TEST_CASE("the editor styles the language's own tokens", "[widgets]") {
    QUndoStack undo;
    RuleEditor editor(undo);
    editor.resize(400, 200);
    editor.show();
    editor.set_parameters({"meet"});
    editor.replace_all("param meet = 0.5 // note\nnote \"text\"");
    editor.recolor();
    const auto style_at = [&](const char* word) {
        const auto at = static_cast<unsigned long>(editor.content().find(word));
        return static_cast<int>(editor.SendScintilla(QsciScintillaBase::SCI_GETSTYLEAT, at));
    };
    CHECK(style_at("param") == RuleLexer::keyword);
    CHECK(style_at("meet") == RuleLexer::parameter);
    CHECK(style_at("0.5") == RuleLexer::number);
    CHECK(style_at("// note") == RuleLexer::comment);
    CHECK(style_at("\"text\"") == RuleLexer::string);
    CHECK(style_at("= 0") == RuleLexer::plain);
}

TEST_CASE("the editor mirrors every kind of edit, beyond ASCII too", "[widgets]") {
    QUndoStack undo;
    RuleEditor editor(undo);
    std::string mirror;
    QObject::connect(&editor, &RuleEditor::edited,
                     [&](const document::TextEdit& edit) { mirror = edit.applied(mirror); });
    editor.insert(QString::fromUtf8("note \"f\u00e4rben\"\n"));
    CHECK(mirror == "note \"f\u00e4rben\"\n");
    editor.setSelection(0, 6, 0, 7);
    editor.replaceSelectedText("F");
    CHECK(mirror == "note \"F\u00e4rben\"\n");
    editor.follow({6, "F", "V"});
    CHECK(editor.content() == "note \"V\u00e4rben\"\n");
    CHECK(editor.text() == QString::fromStdString(editor.content()));
    CHECK(mirror == "note \"F\u00e4rben\"\n"); // following is not told back
}

TEST_CASE("a fault at the very end is underlined all the same", "[widgets]") {
    QUndoStack undo;
    RuleEditor editor(undo);
    editor.replace_all("out.g = ");
    editor.set_diagnostics(
        {{lang::Code::expected, lang::Severity::error, {8, 8}, {"a value", "the end of the rule"}, {}}});
    CHECK(editor.SendScintilla(QsciScintillaBase::SCI_INDICATORVALUEAT, 8UL, 7L) != 0);
    editor.set_diagnostics({});
    CHECK(editor.SendScintilla(QsciScintillaBase::SCI_INDICATORVALUEAT, 8UL, 7L) == 0);
    CHECK_FALSE(editor.apply_fix());
}

TEST_CASE("a cell maps points to pixels and back, and keeps the picture's shape", "[widgets]") {
    SheetModel model;
    const int id = model.add_target(*targets::find("dye_chart"), "colour");
    app::Playback playback(model);
    CellView view(model, playback, id);
    view.resize(288, 185);
    for (int y = 0; y < 3; ++y)
        for (int x = 0; x < 8; ++x) {
            const auto back = view.pixel_at(view.point_of(QPoint(x, y)));
            REQUIRE(back);
            CHECK(*back == QPoint(x, y));
        }
    CHECK_FALSE(view.pixel_at(QPointF(10, 5))); // the caption
    CHECK(view.wanted_pixels() == QSize(8, 3));
    CHECK_FALSE(view.grab().isNull());
}

TEST_CASE("the numbers panel shows what is under the pointer, and a hint when nothing is", "[widgets]") {
    NumbersPanel panel;
    panel.resize(268, 240);
    const QImage hint = panel.grab().toImage();
    panel.show_readout({true, "cloths", "x 1   y 2", {0.1f, 0.2f, 0.3f, 1}, {0.2f, 0.2f, 0.1f, 1}, "rec709-linear"});
    CHECK(panel.grab().toImage() != hint);
}

TEST_CASE("the button shows before only while it is held", "[widgets]") {
    QMenu menu;
    TopBar bar(&menu);
    bar.resize(1280, 42);
    QSignalSpy held(&bar, &TopBar::before_held);
    QPushButton* button = bar.findChild<QPushButton*>();
    REQUIRE(button);
    QTest::mousePress(button, Qt::LeftButton);
    QTest::mouseRelease(button, Qt::LeftButton);
    REQUIRE(held.count() == 2);
    CHECK(held[0][0].toBool());
    CHECK_FALSE(held[1][0].toBool());
}

TEST_CASE("actions have one name and one key each", "[widgets]") {
    std::set<std::string> ids, keys;
    for (const ActionRow& row : action_table()) {
        if (!row.act.run && !row.fill.fill) { // a group or a line
            CHECK((row.text != nullptr) == (std::string_view(row.id) == "group"));
            continue;
        }
        CHECK(ids.insert(row.id).second);
        if (*row.shortcut)
            CHECK(keys.insert(row.shortcut).second);
    }
    CHECK(ids.size() > 10);
}

TEST_CASE("a share that is not nothing is never written as 0", "[gui]") {
    CHECK(app::theme::percentage(0) == "0.000");
    CHECK(app::theme::percentage(0.0004) == "< 0.001");
    CHECK(app::theme::percentage(1e-12) == "< 0.001");
    CHECK(app::theme::percentage(0.0006) == "0.001");
    CHECK(app::theme::percentage(0.05) == "0.050");
    CHECK(app::theme::percentage(12.34) == "12.3");
}
