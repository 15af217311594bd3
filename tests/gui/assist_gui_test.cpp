// Help with writing in the real editor: completion, forms of calls, meanings, values beside the lines, the trace.
#include "gui/driver.hpp"
#include "widgets/frame/trace_window.hpp"
#include "widgets/sheet/pins_panel.hpp"
#include "widgets/writing/completion_list.hpp"
#include "widgets/writing/editor_assist.hpp"

#include <QLabel>
#include <QToolTip>
#include <QTreeWidget>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Writer : Driver {
    EditorAssist& assist;

    explicit Writer(const QString& text = "out.rgb = rgb\n") : assist(*window.part<app::RulePanel>().assist()) {
        window.activateWindow();
        replace_text(text);
        editor().setFocus();
        end_of_text();
        settle();
    }
    void write(const QString& text) {
        for (const QChar c : text)
            if (c == '\n')
                QTest::keyClick(&editor(), Qt::Key_Return);
            else
                QTest::keyClick(&editor(), c.toLatin1());
        QTest::qWait(5);
    }
    bool offers(const std::string& text) const {
        for (const lang::Completion& item : assist.list()->items())
            if (item.text == text)
                return true;
        return false;
    }
};

} // namespace

TEST_CASE("while a word is written, what can stand there is offered, and Return takes it", "[gui][assist]") {
    Writer d;
    d.write("out.r = satu");
    REQUIRE(d.assist.list()->isVisible());
    CHECK(d.offers("saturate"));
    CHECK_FALSE(d.assist.list()->chosen()->doc.empty());
    QTest::keyClick(&d.editor(), Qt::Key_Down);
    QTest::keyClick(&d.editor(), Qt::Key_Up);
    QTest::keyClick(&d.editor(), Qt::Key_Return);
    CHECK_FALSE(d.assist.list()->isVisible());
    CHECK(QString::fromStdString(d.text()).endsWith("out.r = saturate()"));
    // Between the brackets its form is told, and the argument at hand is the strong one.
    REQUIRE(d.assist.hint()->isVisible());
    CHECK(d.assist.hint()->text().contains("<b>c vec3</b>"));
    d.write("rgb, ");
    CHECK(d.assist.hint()->text().contains("<b>amount float</b>"));
    QTest::keyClick(&d.editor(), Qt::Key_Escape);
    CHECK_FALSE(d.assist.hint()->isVisible());
    d.write("2)"); // the bracket that is there is not written twice
    CHECK(QString::fromStdString(d.text()).endsWith("saturate(rgb, 2)"));
    CHECK_FALSE(d.assist.hint()->isVisible());
    d.settle_text();
}

TEST_CASE("components come after a point, own names come first, and the list gives way", "[gui][assist]") {
    Writer d("let shared = hsv(rgb)\n");
    d.write("out.r = sha");
    REQUIRE(d.assist.list()->isVisible());
    CHECK(d.assist.list()->items().front().text == "shared");
    QTest::keyClick(&d.editor(), Qt::Key_Tab);
    CHECK(QString::fromStdString(d.text()).endsWith("out.r = shared"));
    d.write(".");
    REQUIRE(d.assist.list()->isVisible());
    CHECK(d.offers("v"));
    QTest::keyClick(&d.editor(), Qt::Key_Escape);
    CHECK_FALSE(d.assist.list()->isVisible());
    d.write("v");
    d.write(" ");
    CHECK_FALSE(d.assist.list()->isVisible());
    QTest::keyClick(&d.editor(), Qt::Key_Space, Qt::ControlModifier);
    CHECK(d.assist.list()->isVisible());
    d.window.part<app::StatusLine>().setFocus();
    d.sheet().cell(d.window.bench().sheet().cells()[0].id)->setFocus();
    CHECK_FALSE(d.assist.list()->isVisible());
    d.editor().setFocus();
    d.write("\n");
    d.write("out.g = bl");
    const std::size_t few = d.assist.list()->items().size();
    QTest::keyClick(&d.editor(), Qt::Key_Backspace);
    QTest::qWait(5);
    CHECK(d.assist.list()->items().size() > few);
    // Words that are whole are left alone: Return goes to the next line.
    d.write("\n");
    d.write("out.b = shared.v");
    CHECK_FALSE(d.assist.list()->isVisible());
    d.settle_text();
}

TEST_CASE("what a word means is told by F1", "[gui][assist]") {
    Writer d("let shared = hsv(rgb)\nout.r = shared.v\n");
    d.editor().setCursorPosition(0, 14); // hsv
    QTest::keyClick(&d.editor(), Qt::Key_F1);
    CHECK(QToolTip::text().contains("hsv"));
    d.editor().setCursorPosition(1, 10);
    QTest::keyClick(&d.editor(), Qt::Key_F1);
    CHECK(QToolTip::text().contains("let shared"));
    QToolTip::hideText();
}

TEST_CASE("the lines say what they come to at the pin in force, and the trace says it of every part", "[gui][assist]") {
    Writer d("let sum = r + g\nout.r = sqrt(sum - 10)\n");
    CHECK(d.editor().line_values().empty()); // no pin, no values
    d.trigger("trace");
    CHECK(d.window.part<app::StatusLine>().message().contains("Pin a place"));
    SheetModel& sheet = d.window.bench().sheet();
    const Cell& chart = sheet.cells()[0];
    sheet.add_pin(chart.source(), {0, 0});
    d.settle();
    const auto colour = d.sheet().cell(chart.id)->result()->before_pixels->at(0, 0);
    REQUIRE(d.editor().line_values().size() == 2);
    CHECK(d.editor().line_values()[0].text.toDouble() ==
          Approx(static_cast<double>(colour[0] + colour[1])).margin(6e-4));
    CHECK_FALSE(d.editor().line_values()[0].bad);
    CHECK(d.editor().line_values()[1].text == "NaN");
    CHECK(d.editor().line_values()[1].bad);
    d.trigger("trace");
    d.settle();
    TraceWindow* trace = d.window.findChild<TraceWindow*>();
    REQUIRE(trace);
    CHECK(trace->tree()->topLevelItemCount() == 2);
    QTreeWidgetItem* statement = trace->tree()->topLevelItem(1);
    CHECK(statement->text(0) == "out.r = sqrt(sum - 10)");
    CHECK(statement->text(1).contains("born here"));
    // A part that is chosen is selected in the text.
    trace->tree()->setCurrentItem(statement->child(0));
    CHECK(d.editor().selectedText() == "sum - 10");
    // Another pin, other numbers; typing takes them away at once, so that they never lie.
    const QString first = d.editor().line_values()[0].text;
    sheet.add_pin(chart.source(), {7, 2});
    d.settle();
    CHECK(d.editor().line_values()[0].text != first);
    d.window.part<app::PinsPanel>().setFocus();
    QTest::keyClick(&d.window.part<app::PinsPanel>(), Qt::Key_Up);
    d.settle();
    CHECK(sheet.active_pin()->number == 1);
    CHECK(d.editor().line_values()[0].text == first);
    d.end_of_text();
    d.editor().insert("out.b = ");
    CHECK(d.editor().line_values().empty());
    d.settle_text();
}
