// Help: the pages are in the program, can be searched, and name every key of the table of actions; a report is written
// from the window.
#include "gui/driver.hpp"
#include "widgets/frame/actions.hpp"
#include "widgets/frame/help_window.hpp"

#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>
#include <QTextTable>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

TEST_CASE("help is in the program, and is found by searching", "[gui][help]") {
    Driver d;
    d.trigger("help");
    auto* help = d.window.findChild<HelpWindow*>();
    REQUIRE((help && help->isVisible()));
    CHECK(help->page()->toPlainText().contains("In one minute"));
    CHECK(HelpWindow::pages().size() >= 9);
    QTest::keyClicks(help->search(), "smoothstep");
    CHECK(help->list()->count() > 3);
    CHECK(help->page()->textCursor().selectedText().compare("smoothstep", Qt::CaseInsensitive) == 0);
    help->list()->setCurrentRow(2);
    CHECK(help->page()->textCursor().hasSelection());
    help->search()->setText("no such word anywhere");
    CHECK(help->list()->count() == 1);
    d.trigger("keys");
    const QString text = help->page()->toPlainText();
    for (const ActionRow& row : action_table())
        if (row.text && *row.shortcut)
            CHECK(text.contains(QKeySequence(row.shortcut).toString(QKeySequence::NativeText)));
    QTest::keyClick(help, Qt::Key_Escape);
    CHECK_FALSE(help->isVisible());
}

TEST_CASE("every page of the help is shown with its tables", "[gui][help]") {
    Driver d;
    d.trigger("help");
    auto* help = d.window.findChild<HelpWindow*>();
    REQUIRE(help);
    const auto pages = HelpWindow::pages();
    REQUIRE(help->list()->count() == static_cast<int>(pages.size()));
    for (int i = 0; i < help->list()->count(); ++i) {
        const HelpWindow::Page& page = pages[static_cast<std::size_t>(i)];
        INFO(page.name.toStdString());
        help->list()->setCurrentRow(i);
        CHECK(help->page()->toPlainText().startsWith(page.title.section(':', 0, 0).left(8)));
        int tables = 0;
        for (QTextFrame* frame : help->page()->document()->rootFrame()->childFrames())
            tables += qobject_cast<QTextTable*>(frame) ? 1 : 0;
        CHECK((tables > 0) == (page.text.contains("\n|---") || page.text.contains("\n| ---")));
        CHECK(help->page()->document()->size().height() > 100); // it was laid out
    }
}

TEST_CASE("no two actions have one key", "[gui][help]") {
    QStringList keys;
    for (const ActionRow& row : action_table())
        if (row.text && *row.shortcut) {
            INFO(row.shortcut);
            CHECK_FALSE(keys.contains(row.shortcut));
            keys << row.shortcut;
        }
}

TEST_CASE("a report of a look is one page with everything in it", "[gui][report]") {
    Driver d;
    d.replace_text("filter \"Dip & turn\"\nparam k = 0.5 in 0 .. 1 \"How < much\"\nout.rgb = mix(rgb, rgb.gbr, "
                   "k)\nproof \"greys stay grey\" : neutral\n");
    d.settle();
    const auto written = [&] {
        d.window.part<app::HandoverActions>().write_report(d.file("r.html"));
        REQUIRE(QTest::qWaitFor([&] { return d.window.part<app::StatusLine>().message().contains("Wrote"); }, 20000));
        QFile file(d.file("r.html"));
        REQUIRE(file.open(QIODevice::ReadOnly));
        return QString::fromUtf8(file.readAll());
    };
    const QString page = written();
    for (const char* part : {"<h1>Dip &amp; turn</h1>", "How &lt; much", "exactly this matrix", "&#10003; passes",
                             "grey ramp", "data:image/png;base64,", "<svg", "</html>"})
        CHECK(page.contains(part));
    CHECK_FALSE(page.contains("http")); // nothing is fetched
    d.window.bench().look().add(d.window.bench().look().step(), 1);
    d.settle();
    CHECK(written().contains("Step 2: Dip &amp; turn"));
    d.session().undo_stack().undo();
}
