// What the one view of all readings draws.
#include "gui/driver.hpp"
#include "widgets/readings/plot_view.hpp"
#include "widgets/readings/reading_panel.hpp"
#include "widgets/readings/readings_column.hpp"

#include <QImage>
#include <QMouseEvent>
#include <QtTest/QtTest>

#include <catch2/catch.hpp>
#include <cmath>

using namespace kasuri;
using namespace kasuri::app;

namespace {

readings::Panel panel(bool square = false) {
    readings::Panel made;
    made.x = {"across", 0, 2, readings::even_ticks(0, 2, 4)};
    made.y = {"up", 0, 1, readings::even_ticks(0, 1, 4)};
    made.square = square;
    return made;
}

MeasuredPtr of(std::vector<readings::Layer> layers, std::vector<readings::Figure> figures = {}) {
    return std::make_shared<const readings::Measured>(readings::Measured{std::move(layers), std::move(figures)});
}

QImage drawn(PlotView& view) { return view.grab().toImage().convertToFormat(QImage::Format_RGB32); }

/// How much darker than the empty plot a place is.
int ink(const QImage& with, const QImage& without, const QPointF& at) {
    int most = 0;
    for (int dy = -1; dy <= 1; ++dy)
        for (int dx = -1; dx <= 1; ++dx) {
            const QPoint p = at.toPoint() + QPoint(dx, dy);
            most = std::max(most, qGray(without.pixel(p)) - qGray(with.pixel(p)));
        }
    return most;
}

} // namespace

TEST_CASE("a trace stands where its numbers say, and a NaN leaves a gap", "[plot]") {
    PlotView view;
    view.resize(300, 200);
    view.show_plot({panel()}, nullptr, of({}));
    const QImage empty = drawn(view);
    readings::Trace trace{readings::Ink::red, "r", {}};
    for (int i = 0; i <= 100; ++i)
        trace.points.push_back({static_cast<float>(2 * i / 100.0), i > 40 && i < 60 ? std::nanf("") : 0.37f});
    view.show_plot({panel()}, nullptr, of({{0, trace}}));
    const QImage with = drawn(view);
    const QRectF field = view.field_of(0);
    const auto at = [&](double share, double up) {
        return QPointF(field.left() + share * field.width(), field.bottom() - up * field.height());
    };
    CHECK(ink(with, empty, at(0.2, 0.37)) > 40);
    CHECK(ink(with, empty, at(0.8, 0.37)) > 40);
    CHECK(ink(with, empty, at(0.5, 0.37)) == 0);
    CHECK(ink(with, empty, at(0.2, 0.62)) == 0);
    // Fainter as a reference.
    view.show_plot({panel()}, of({{0, trace}}), of({}));
    CHECK(ink(drawn(view), empty, at(0.2, 0.37)) > 0);
    CHECK(ink(drawn(view), empty, at(0.2, 0.37)) < ink(with, empty, at(0.2, 0.37)));
    view.set_before_only(true);
    CHECK(ink(drawn(view), empty, at(0.2, 0.37)) > 40);
}

TEST_CASE("a density is dark where its counts are, single ones too", "[plot]") {
    PlotView view;
    view.resize(300, 200);
    view.show_plot({panel()}, nullptr, of({}));
    const QImage empty = drawn(view);
    readings::Density density{readings::Ink::neutral, "pixels", 480, 256, std::vector<std::uint32_t>(480 * 256)};
    density.counts[200 * 480 + 120] = 1;      // a quarter across, high up
    density.counts[50 * 480 + 360] = 100'000; // three quarters, low
    view.show_plot({panel()}, nullptr, of({{0, density}}));
    const QImage with = drawn(view);
    const QRectF field = view.field_of(0);
    const auto at = [&](double column, double row) {
        return QPointF(field.left() + column / 480 * field.width(), field.bottom() - row / 256 * field.height());
    };
    CHECK(ink(with, empty, at(120.5, 200.5)) > 30); // one in a hundred thousand is seen
    CHECK(ink(with, empty, at(360.5, 50.5)) > ink(with, empty, at(120.5, 200.5)));
    CHECK(ink(with, empty, at(120.5, 50.5)) == 0);
    CHECK(ink(with, empty, at(360.5, 200.5)) == 0);
}

TEST_CASE("square panels keep their proportions, a parade has three of one size", "[plot]") {
    PlotView view;
    for (const QSize size : {QSize(300, 200), QSize(900, 160), QSize(200, 700)}) {
        view.resize(size);
        view.show_plot({panel(true)}, nullptr, of({}));
        const QRectF field = view.field_of(0);
        CHECK(field.width() / field.height() == Approx(2).epsilon(0.03)); // two units across, one up
        view.show_plot({panel(), panel(), panel()}, nullptr, of({{0, readings::Spots{}}}));
        CHECK(view.field_of(0).width() == Approx(view.field_of(2).width()).margin(1));
        CHECK(view.field_of(0).right() < view.field_of(1).left());
        CHECK(view.field_of(2).right() <= size.width());
    }
}

TEST_CASE("arrows, spots, guides and figures", "[plot]") {
    PlotView view;
    view.resize(400, 300);
    view.show_plot({panel()}, nullptr, of({}));
    const QImage empty = drawn(view);
    readings::Arrows arrows{"hues", {{{0.5f, 0.2f}, {1.5f, 0.8f}, {1, 0, 0}}}};
    readings::Spots spots{"patches", {{{1.5f, 0.2f}, {0, 0, 0}, ""}, {{std::nanf(""), 0.2f}, {0, 0, 0}, ""}}};
    view.show_plot({panel()}, nullptr,
                   of({{0, arrows}, {0, spots}},
                      {{"slope", "r", 1.5, ""}, {"above the range", "r", 2.25, "%"}, {"slope", "g", -0.5, ""}}));
    const QImage with = drawn(view);
    const QRectF field = view.field_of(0);
    const auto at = [&](double x, double y) {
        return QPointF(field.left() + x / 2 * field.width(), field.bottom() - y * field.height());
    };
    CHECK(ink(with, empty, at(1.0, 0.5)) > 20); // half way
    CHECK(ink(with, empty, at(1.5, 0.2)) > 100);
    CHECK(view.figures_text() == QString::fromUtf8("slope  r 1.500  g \u22120.500\nabove the range  r 2.3 %"));
    readings::Panel guided = panel();
    guided.guides.push_back({{{0, 0.5}, {2, 0.5}}, "middle", false});
    view.show_plot({guided}, nullptr, of({}));
    const QRectF now = view.field_of(0); // without figures there is more room
    CHECK(ink(drawn(view), empty, {now.left() + 0.15 * now.width(), now.bottom() - 0.5 * now.height()}) > 20);
}

namespace {

/// A room with a cube of two points along an edge, red at the end of x.
readings::Panel room() {
    readings::Panel made;
    made.x = {"a", 0, 1, {}};
    made.y = {"b", 0, 1, {}};
    made.z = readings::Axis{"L", 0, 1, {}};
    return made;
}
readings::Solid cube() {
    readings::Solid solid;
    for (int i = 0; i < 8; ++i) {
        const readings::Solid::Point p = {static_cast<float>(i & 1), static_cast<float>(i >> 1 & 1),
                                          static_cast<float>(i >> 2)};
        solid.points.push_back(p);
        solid.from.push_back(p);
        solid.colours.push_back({p[0], 0, 0});
    }
    solid.faces = {{0, 1, 3, 2}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 3, 7, 6}, {0, 2, 6, 4}, {1, 3, 7, 5}};
    return solid;
}

} // namespace

TEST_CASE("a room is seen in parallel projection: axes, depth, and all of it in its field from everywhere",
          "[plot][solid]") {
    const readings::Panel panel = room();
    const QRectF field(10, 10, 300, 300);
    const auto at = [&](const Eye& eye, const readings::Solid::Point& p, double* depth = nullptr) {
        return RoomView(panel, field, eye).at(p, depth);
    };
    // Straight from the front: x to the right, z up, y away.
    const Eye front{0, 0};
    const QPointF middle = at(front, {0.5f, 0.5f, 0.5f});
    CHECK(middle == field.center());
    CHECK(at(front, {1, 0.5f, 0.5f}).x() > middle.x());
    CHECK(at(front, {1, 0.5f, 0.5f}).y() == Approx(middle.y()));
    CHECK(at(front, {0.5f, 0.5f, 1}).y() < middle.y());
    CHECK(at(front, {0.5f, 1, 0.5f}) == middle);
    double near = 0, far = 0;
    at(front, {0.5f, 0, 0.5f}, &near);
    at(front, {0.5f, 1, 0.5f}, &far);
    CHECK(far - near == Approx(1));
    // Straight from above: z is depth, and the highest is nearest.
    const Eye above{0, 90};
    CHECK(at(above, {0.5f, 0.5f, 1}).y() == Approx(middle.y()));
    at(above, {0.5f, 0.5f, 1}, &near);
    at(above, {0.5f, 0.5f, 0}, &far);
    CHECK(far - near == Approx(1));
    CHECK(at(above, {0.5f, 1, 0.5f}).y() < middle.y());
    // Lengths are kept: three axes at right angles make one square sum, whatever the eye (Gauss, axonometry).
    for (const Eye& eye : {Eye{}, Eye{77, 13}, Eye{200, -40}, Eye{359, 89}}) {
        double squares = 0;
        for (const readings::Solid::Point& end :
             {readings::Solid::Point{1, 0.5f, 0.5f}, {0.5f, 1, 0.5f}, {0.5f, 0.5f, 1}}) {
            const QPointF by = at(eye, end) - at(eye, {0.5f, 0.5f, 0.5f});
            squares += by.x() * by.x() + by.y() * by.y();
        }
        const QPointF unit = at(front, {1, 0.5f, 0.5f}) - middle;
        CHECK(squares == Approx(2 * unit.x() * unit.x()));
        for (const readings::Solid::Point& corner : cube().points)
            CHECK(field.adjusted(-0.02 * 300, -0.09 * 300, 0.02 * 300, 0.09 * 300).contains(at(eye, corner)));
    }
    Eye eye;
    eye.turn_by(-40, 300);
    CHECK(eye.turn == 350);
    CHECK(eye.tilt == 90);
}

TEST_CASE("a room is turned by dragging and by keys, and told by its points", "[plot][solid]") {
    PlotView view;
    view.resize(300, 300);
    readings::Solid solid = cube();
    view.show_plot({room()}, nullptr, of({{0, solid}}, {{"folded cells", "", 1.5, "%"}}));
    CHECK(view.focusPolicy() == Qt::StrongFocus);
    const QImage first = drawn(view);
    const auto drag = [&](const QPoint& from, const QPoint& by) {
        QTest::mousePress(&view, Qt::LeftButton, {}, from);
        QMouseEvent move(QEvent::MouseMove, from + by, view.mapToGlobal(from + by), Qt::LeftButton, Qt::LeftButton, {});
        QCoreApplication::sendEvent(&view, &move);
        QTest::mouseRelease(&view, Qt::LeftButton, {}, from + by);
    };
    drag({150, 150}, {100, -30});
    CHECK(view.eye().turn == Approx(Eye::usual_turn + 60)); // half a turn for its width
    CHECK(view.eye().tilt == Approx(Eye::usual_tilt - 18));
    CHECK(drawn(view) != first);
    QTest::keyClick(&view, Qt::Key_Home);
    CHECK(view.eye() == Eye());
    CHECK(drawn(view) == first);
    QTest::keyClick(&view, Qt::Key_Right);
    QTest::keyClick(&view, Qt::Key_Up, Qt::ShiftModifier);
    CHECK(view.eye().turn == Approx(Eye::usual_turn + 5));
    CHECK(view.eye().tilt == Approx(Eye::usual_tilt + 1));
    QTest::mouseDClick(&view, Qt::LeftButton, {}, QPoint(20, 20));
    CHECK(view.eye() == Eye());
    // The pointer over a corner tells its numbers, and what it was made of; elsewhere the figures stand there.
    CHECK(view.figures_text() == "folded cells  1.5 %");
    const QPointF corner = RoomView(view.panels().front(), view.field_of(0), view.eye()).at({1, 0, 1});
    QTest::mouseMove(&view, corner.toPoint());
    QMouseEvent there(QEvent::MouseMove, corner, view.mapToGlobal(corner), Qt::NoButton, Qt::NoButton, {});
    QCoreApplication::sendEvent(&view, &there);
    CHECK(view.hover_text() == "a 1.000  b 0.000  L 1.000   rgb 1.000 0.000 1.000");
    QMouseEvent away(QEvent::MouseMove, QPointF(2, 2), view.mapToGlobal(QPointF(2, 2)), Qt::NoButton, Qt::NoButton, {});
    QCoreApplication::sendEvent(&view, &away);
    CHECK(view.hover_text().isEmpty());
    // Numbers that are none are nowhere, and upset nothing; what was before is faint beneath.
    solid.points[3] = {std::nanf(""), 0, 0};
    solid.folded = {0};
    solid.collapsed = {3};
    readings::Wires wires{"709", {{{0, 0, 0}, {1, 1, 1}}, {{std::nanf(""), 0, 0}}}};
    view.show_plot({room()}, of({{0, cube()}}), of({{0, solid}, {0, wires}}));
    CHECK(drawn(view) != first);
    // A plot of other axes has no keys of its own.
    view.show_plot({panel()}, nullptr, of({}));
    CHECK(view.focusPolicy() == Qt::NoFocus);
    CHECK(view.minimumHeight() < 100);
}

TEST_CASE("the nearest face covers what is behind it", "[plot][solid]") {
    PlotView view;
    view.resize(300, 300);
    view.show_plot({room()}, nullptr, of({{0, cube()}}));
    for (int k = 0; k < 20; ++k)
        QTest::keyClick(&view, Qt::Key_Down); // from below and the front
    while (view.eye().tilt < 0)
        QTest::keyClick(&view, Qt::Key_Up, Qt::ShiftModifier);
    while (std::fabs(view.eye().turn - 90) > 2) // x goes away from the eye then: its black end is in front
        QTest::keyClick(&view, Qt::Key_Right);
    const QImage black = drawn(view);
    while (std::fabs(view.eye().turn - 270) > 2)
        QTest::keyClick(&view, Qt::Key_Right);
    const QImage red = drawn(view);
    CHECK(qRed(black.pixel(150, 140)) < 10);
    CHECK(qRed(red.pixel(150, 140)) > 245);
    CHECK(qGreen(red.pixel(150, 140)) < 10);
}

TEST_CASE("from where a room is looked at is remembered, and is the same in its own window", "[gui][solid]") {
    const auto open = [](kasuri::test::Driver& d) -> PlotView& {
        auto& model = d.window.bench().readings();
        ReadingsColumn& column = d.window.part<ReadingsColumn>();
        model.add(*readings::find("solid"));
        d.settle();
        return column.panels().back()->plot();
    };
    Eye left;
    {
        kasuri::test::Driver d;
        PlotView& plot = open(d);
        QTest::keyClick(&plot, Qt::Key_Right);
        QTest::keyClick(&plot, Qt::Key_Up);
        left = plot.eye();
        CHECK_FALSE(left == Eye());
    }
    kasuri::test::Driver d;
    PlotView& plot = open(d);
    CHECK(plot.eye() == left);
    QTest::keyClick(&plot, Qt::Key_Home);
    CHECK(plot.eye() == Eye());
}
