// Room for everything at once: the text keeps its lines, parts fold, boundaries move, cells go by their shapes.
#include "driver.hpp"

#include "widgets/frame/trace_window.hpp"
#include "widgets/frame/window_layout.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/sheet/cell_places.hpp"
#include "widgets/tuning/mix_panel.hpp"

#include <QPlainTextEdit>
#include <QScreen>
#include <QScrollArea>
#include <QSettings>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

const QString looks = KASURI_SOURCE_DIR "/data/looks/";
constexpr QSize gap{32, 3};
constexpr int caption = 26;

std::vector<QRect> placed(const std::vector<double>& aspects, const QSize& room) {
    return cell_places(aspects, QRect(QPoint(14, 0), room), caption, gap);
}

/// How large a picture is that fits below the caption.
double seen(const QRect& place, double aspect) {
    const double width = std::min<double>(place.width(), (place.height() - caption) * aspect);
    return width * width / aspect;
}

Heading& heading_of(QWidget& part) {
    auto* heading = part.findChild<Heading*>();
    REQUIRE(heading);
    return *heading;
}

/// Whether all of it is seen in the part of the column that scrolls.
bool in_view(const QWidget& widget) {
    return widget.isVisible() && widget.visibleRegion().boundingRect().height() == widget.height();
}

} // namespace

TEST_CASE("cells are placed by the shapes of their pictures", "[gui][room]") {
    CHECK(placed({}, {600, 400}).empty());
    CHECK(placed({1.5}, {600, 400}) == std::vector<QRect>{QRect(14, 0, 600, 400)});
    // Two landscapes in a room that is not broad stand below one another, equally large; in a broad one side by side.
    const auto tall = placed({1.78, 1.78}, {600, 460}), broad = placed({1.78, 1.78}, {1200, 400});
    CHECK(tall[0].left() == tall[1].left());
    CHECK(std::abs(tall[0].height() - tall[1].height()) <= 1);
    CHECK(broad[0].top() == broad[1].top());
    CHECK(std::abs(broad[0].width() - broad[1].width()) <= 1);
    // A portrait beside a landscape leaves it the room that it does not need.
    const auto both = placed({1.78, 0.6}, {900, 400});
    CHECK(both[0].top() == both[1].top());
    CHECK(both[0].width() > 2 * both[1].width());
    CHECK(seen(both[0], 1.78) > 1.3 * seen({0, 0, (900 - 32) / 2, 400}, 1.78)); // against halves
    // Equal shapes stay equally large, also where the last row is not full.
    for (int count = 2; count <= 12; ++count) {
        const auto equal = placed(std::vector<double>(static_cast<std::size_t>(count), 1.5), {800, 600});
        for (const QRect& place : equal) {
            CHECK(std::abs(place.width() - equal[0].width()) <= 1);
            CHECK(std::abs(place.height() - equal[0].height()) <= 1);
        }
    }
    // Whatever the shapes: in the room, apart from one another, in their order.
    std::mt19937 random(5);
    std::uniform_real_distribution<double> shape(0.3, 3);
    for (int round = 0; round < 60; ++round) {
        std::vector<double> aspects(1 + random() % 14);
        for (double& aspect : aspects)
            aspect = shape(random);
        if (round % 7 == 0)
            aspects[0] = round % 2 ? 0 : std::numeric_limits<double>::quiet_NaN();
        const QSize room(300 + static_cast<int>(random() % 1200), 200 + static_cast<int>(random() % 900));
        const auto all = placed(aspects, room);
        REQUIRE(all.size() == aspects.size());
        for (std::size_t i = 0; i < all.size(); ++i) {
            CHECK(QRect(QPoint(13, -1), room + QSize(2, 2)).contains(all[i]));
            for (std::size_t k = 0; k < i; ++k)
                CHECK_FALSE(all[i].intersects(all[k]));
            if (i > 0)
                CHECK((all[i].top() > all[i - 1].top() || all[i].left() > all[i - 1].left()));
        }
    }
}

TEST_CASE("with a look, the mix table and the library open the rule keeps twelve lines, and the rest scrolls",
          "[gui][room]") {
    Driver d;
    d.window.part<Files>().open(looks + "three-times-of-day.kasurilook");
    d.trigger("library");
    d.trigger("mix");
    d.settle();
    QTest::qWait(20);
    CHECK(d.window.height() == 800);
    CHECK(d.editor().height() >= 12 * d.editor().textHeight(0));
    // What is written in, or asked for, is seen.
    auto& mix = d.window.part<MixPanel>();
    CHECK(in_view(heading_of(mix)));
    NumberField* depth = d.window.part<ValuesPanel>().field("depth");
    REQUIRE(depth);
    depth->setFocus(Qt::TabFocusReason);
    auto* scroll = qobject_cast<QScrollArea*>(mix.parentWidget()->parentWidget()->parentWidget());
    REQUIRE(scroll);
    scroll->ensureWidgetVisible(depth);
    CHECK(in_view(*depth));
    CHECK(scroll->widget()->width() <= scroll->viewport()->width()); // never sideways
    // As long as nobody has pulled the boundary, the parts have what they need, and no more.
    d.trigger("library");
    d.trigger("mix");
    d.window.part<Files>().open(QString(KASURI_SOURCE_DIR "/data/filters/indigo-over-madder.kasuri"));
    d.settle();
    QTest::qWait(20);
    CHECK(scroll->height() >= std::min(scroll->widget()->sizeHint().height(), 200));
    CHECK(scroll->height() <= scroll->widget()->sizeHint().height() + 90);
}

TEST_CASE("a mask that wraps is seen whole as soon as its look is open", "[gui][room]") {
    Driver d;
    d.window.part<Files>().open(looks + "lit-from-within.kasurilook");
    d.settle();
    QTest::qWait(30);
    auto* mask = d.window.findChild<QPlainTextEdit*>("mask");
    REQUIRE(mask);
    const double lines = mask->document()->size().height(); // in lines, for a plain text
    CHECK(lines >= 3);
    CHECK(mask->viewport()->height() >= lines * QFontMetrics(mask->font()).height() - 2);
    CHECK(in_view(*mask));
}

TEST_CASE("parts fold at their headings, by a click or a key, and stay so", "[gui][room]") {
    {
        Driver d;
        d.replace_text("param k = 0.5 in 0 .. 1\nout.r = k * g\n");
        d.settle();
        auto& values = d.window.part<ValuesPanel>();
        Heading& heading = heading_of(values);
        NumberField* field = values.field("k");
        REQUIRE(field->isVisible());
        const int open = values.height();
        QTest::mouseClick(&heading, Qt::LeftButton, {}, QPoint(120, 10));
        QTest::qWait(10);
        CHECK(heading.is_folded());
        CHECK_FALSE(field->isVisible()); // nor is it reached by Tab
        CHECK(values.height() < open);
        auto* triangle = heading.findChild<QToolButton*>("fold");
        REQUIRE(triangle->accessibleName() == "Unfold Values");
        triangle->setFocus();
        QTest::keyClick(triangle, Qt::Key_Space);
        CHECK(field->isVisible());
        QTest::keyClick(triangle, Qt::Key_Space);
        CHECK(heading.is_folded());
    }
    Driver d;
    CHECK(heading_of(d.window.part<ValuesPanel>()).is_folded());
    heading_of(d.window.part<ValuesPanel>()).set_folded(false);
}

TEST_CASE("boundaries are moved by keys too, go back to where they were, and are remembered", "[gui][room]") {
    QSettings().clear();
    Driver d;
    QSplitter& columns = d.window.part<WindowLayout>().columns();
    auto* handle = columns.handle(1);
    REQUIRE(handle->focusPolicy() == Qt::TabFocus);
    const int first = columns.sizes()[0];
    handle->setFocus();
    QTest::keyClick(handle, Qt::Key_Right);
    CHECK(columns.sizes()[0] == first + 16);
    QTest::keyClick(handle, Qt::Key_Left, Qt::ShiftModifier);
    CHECK(columns.sizes()[0] == first + 15);
    QTest::keyClick(handle, Qt::Key_Up); // is none of its keys
    CHECK(columns.sizes()[0] == first + 15);
    QTest::keyClick(handle, Qt::Key_Home);
    CHECK(std::abs(columns.sizes()[0] - first) <= 2);
    for (int i = 0; i < 3; ++i)
        QTest::keyClick(handle, Qt::Key_Right);
    const QList<int> pulled = columns.sizes();
    d.window.close();
    Driver again;
    again.window.restore_layout();
    again.settle();
    CHECK(std::abs(again.window.part<WindowLayout>().columns().sizes()[0] - pulled[0]) <= 2);
    QSettings().clear();
}

TEST_CASE("a tool's window stands beside what it speaks of, and where it was put", "[gui][room]") {
    QSettings().clear();
    Driver d;
    d.window.move(40, 30);
    d.replace_text("out.r = g\n");
    SheetModel& sheet = d.window.bench().sheet();
    sheet.add_pin(sheet.cells()[0].source(), {0, 0});
    d.settle();
    const auto opened = [&d] {
        d.trigger("trace");
        d.settle();
        auto* trace = d.window.findChild<TraceWindow*>();
        REQUIRE(trace);
        return trace;
    };
    const QWidget& rule = d.window.part<RulePanel>();
    TraceWindow* trace = opened();
    const QRect screen = trace->screen()->availableGeometry();
    CHECK(screen.adjusted(-8, -8, 8, 40).contains(trace->geometry())); // but for its frame
    const QRect there(rule.mapToGlobal(QPoint(0, 0)), rule.size());
    // On a screen as small as the offscreen one there may be no room on either side: then it is at least moved right.
    CHECK((trace->geometry().left() > there.right() || trace->geometry().right() >= screen.right() - 1));
    const QPoint mine = screen.topLeft() + QPoint(37, 53);
    trace->move(mine);
    trace->close();
    QTest::qWait(1);
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    CHECK(opened()->pos() == mine);
    QSettings().clear();
}

TEST_CASE("how a cell is split and zoomed is remembered", "[gui][room]") {
    QSettings().clear();
    const QString cloths = KASURI_DEMO_DIR "/cloths.exr";
    {
        Driver d;
        d.window.part<Files>().open(cloths);
        d.settle();
        REQUIRE(d.sheet().cell(d.window.bench().sheet().cells().back().id));
        CellView& view = *d.sheet().cell(d.window.bench().sheet().cells().back().id);
        view.set_compare(Compare::split);
        view.set_split(0.3);
        view.zoom_to(2);
        d.settle();
        d.window.close();
    }
    Driver d;
    for (const Cell& cell : std::vector<Cell>(d.window.bench().sheet().cells()))
        d.window.bench().sheet().remove(cell.id);
    d.window.restore_layout();
    d.window.restore_sheet();
    d.settle();
    const CellView& view = *d.sheet().cell(d.window.bench().sheet().cells().back().id);
    CHECK(view.compare() == Compare::split);
    CHECK(view.split() == Approx(0.3));
    CHECK(view.zoom().own_scale() == Approx(2));
    CHECK(view.wanted_region().width() < 1920);
    QSettings().clear();
}
