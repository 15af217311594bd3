// What the one view of all readings draws.
#include "widgets/readings/plot_view.hpp"

#include <QImage>

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
