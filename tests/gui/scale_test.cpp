// The whole window at 1280x800 and 1920x1200, run once as it is and once with QT_SCALE_FACTOR=2 (tests/CMakeLists.txt).
#include "gui/driver.hpp"

#include <QImage>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

TEST_CASE("sheet, zoom, split and pointer are exact at every size and scale", "[gui][scale]") {
    const QSize size = GENERATE(QSize(1280, 800), QSize(1920, 1200));
    Driver d;
    d.replace_text("out.rgb = rgb.bgr\n");
    d.window.resize(size);
    d.window.part<app::Files>().open(QString(KASURI_DEMO_DIR "/cloths.exr"));
    d.settle();
    d.settle();
    const double scale = d.window.devicePixelRatioF();
    if (qEnvironmentVariableIsSet("QT_SCALE_FACTOR"))
        CHECK(scale == Approx(2));
    CellView* view = d.sheet().cell(d.window.bench().sheet().cells()[1].id);
    REQUIRE(view);
    const QImage whole = d.window.grab().toImage();
    CHECK(whole.size() == QSize(qRound(size.width() * scale), qRound(size.height() * scale)));
    // As many pixels are made as the screen has: nothing is blown up, nothing thrown away.
    const CellResult& result = *view->result();
    CHECK(std::abs(result.after.width() - view->wanted_pixels().width()) <= 1);
    CHECK(result.after.width() <= view->width() * scale + 1);
    CHECK(std::max(result.after.width() / (view->width() * scale), result.after.height() / (view->height() * scale)) >
          0.8); // it fills its cell, one way or the other
    const StripView* strip = d.sheet().strips().front();
    CHECK(strip->result()->before.width == static_cast<int>((strip->plot_right() - strip->plot_left()) * scale));
    // There and back for pixels of the picture.
    for (const QPoint pixel : {QPoint(0, 0), QPoint(700, 500), QPoint(1919, 1079)})
        CHECK(view->pixel_at(view->point_of(pixel)) == pixel);
    // One to one is one pixel of the picture on one of the screen.
    view->zoom_to(1);
    d.settle();
    CHECK(view->wanted_region().size() == view->wanted_pixels());
    const QPointF a = view->point_of({960, 540}), b = view->point_of({1060, 540});
    CHECK((b.x() - a.x()) * scale == Approx(100));
    const QImage seen = view->grab().toImage();
    const QPoint probe(view->width() / 2, view->height() / 2);
    const auto under = view->pixel_at(probe);
    REQUIRE(under);
    const QRect region = view->result()->region;
    CHECK(seen.pixel(qRound(view->point_of(*under).x() * scale - 0.5),
                     qRound(view->point_of(*under).y() * scale - 0.5)) ==
          view->result()->after.pixel(under->x() - region.left(), under->y() - region.top()));
    // Left of the split line is before: red and blue are the other way round.
    view->zoom_to(0);
    view->set_compare(Compare::split);
    d.settle();
    const QImage split = view->grab().toImage();
    const auto shown_at = [&](const QPoint& pixel) {
        const QPointF at = view->point_of(pixel) * scale;
        return split.pixel(at.toPoint());
    };
    const QRgb left = shown_at({200, 100}), right = shown_at({1700, 100});
    CHECK(qRed(left) < qBlue(left) + 60);
    CHECK(left != right);
    // Nothing leaves the window.
    for (QWidget* part : d.window.findChildren<QWidget*>())
        if (part->isVisible() && part->window() == &d.window && part->parentWidget() == &d.window)
            CHECK(d.window.rect().contains(part->geometry()));
}
