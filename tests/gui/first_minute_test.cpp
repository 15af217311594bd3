// The first minute in the window: a row whose steps are ticked by doing them.
#include "driver.hpp"

#include "widgets/frame/first_minute.hpp"

#include <QSettings>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

TEST_CASE("the first minute's steps are ticked by doing them, in any order, and it goes for good", "[gui][first]") {
    QSettings().clear();
    Driver d;
    auto& first = d.window.part<FirstMinute>();
    CHECK_FALSE(first.isVisible()); // only where a person starts the program
    first.begin_if_new();
    REQUIRE(first.isVisible());
    for (std::size_t step = 0; step < FirstMinute::count; ++step)
        CHECK_FALSE(first.is_done(static_cast<FirstMinute::Step>(step)));
    // A step says how.
    first.button(FirstMinute::pin)->click();
    CHECK(d.window.part<StatusLine>().message().contains("press P"));
    d.window.part<Files>().open(KASURI_DEMO_DIR "/cloths.exr");
    d.settle();
    CHECK(first.is_done(FirstMinute::picture));
    CHECK(first.button(FirstMinute::picture)->text().startsWith(QString::fromUtf8("\u2713")));
    // What is in a file that is opened nobody has done.
    // A copy: pins are kept beside the filter.
    REQUIRE(QFile::copy(KASURI_SOURCE_DIR "/data/filters/indigo-over-madder.kasuri", d.file("madder.kasuri")));
    d.window.part<Files>().open(d.file("madder.kasuri"));
    d.settle();
    CHECK_FALSE(first.is_done(FirstMinute::rule));
    CHECK_FALSE(first.is_done(FirstMinute::value));
    CHECK_FALSE(first.is_done(FirstMinute::proof));
    CHECK_FALSE(first.is_done(FirstMinute::use));
    d.replace_text("out.g = 0.5 * g + 0.5 * b\n");
    d.settle();
    CHECK(first.is_done(FirstMinute::rule));
    CHECK_FALSE(first.is_done(FirstMinute::value));
    const int cell = d.window.bench().sheet().cells().back().id;
    d.sheet().cell(cell)->setFocus();
    const QPointF place = d.sheet().cell(cell)->point_of({300, 300});
    QTest::mouseMove(d.sheet().cell(cell), place.toPoint());
    d.trigger("pin");
    d.settle();
    CHECK(first.is_done(FirstMinute::pin));
    // One where the file had two: it is new all the same.
    d.replace_text("param one = 0 in 0 .. 1\nout.g = mix(g, b, one)\n");
    d.settle();
    CHECK(first.is_done(FirstMinute::value));
    d.session().take_as_saved(); // by the program itself
    CHECK_FALSE(first.is_done(FirstMinute::use));
    REQUIRE(d.window.part<Files>().save_to(d.file("mine.kasuri")));
    d.settle();
    CHECK(first.is_done(FirstMinute::use));
    CHECK_FALSE(first.is_done(FirstMinute::proof));
    d.replace_text("out.g = b\nproof \"mine\" : finite\n");
    d.settle();
    CHECK(first.is_done(FirstMinute::proof));
    CHECK_FALSE(first.isVisible()); // all is done
    first.begin_if_new();
    CHECK_FALSE(first.isVisible());
    d.trigger("first_minute"); // the menu has it still
    CHECK(first.isVisible());
    CHECK_FALSE(first.is_done(FirstMinute::picture));
    first.findChild<QToolButton*>("close")->click();
    CHECK_FALSE(first.isVisible());
    QSettings().clear();
}
