// Lenses made of expressions, zoom as arithmetic, the arrangement of the sheet, the list of readings.
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "model/display.hpp"
#include "model/readings_model.hpp"
#include "model/sheet.hpp"
#include "model/zoom.hpp"

#include <QStringList>

#include <catch2/catch.hpp>
#include <cmath>
#include <set>

using namespace kasuri;
using namespace kasuri::app;

namespace {

image::Picture one(double r, double g, double b, const std::string& space = "rec709-linear") {
    image::Picture picture = image::generated(1, 1, [&](int, int) { return std::array<double, 3>{r, g, b}; });
    picture.space = space;
    return picture;
}

int grey_of(const std::string& id, const image::Picture& picture, const image::Picture* other = nullptr) {
    readings::Views views;
    const QRgb pixel = shown(picture, lens(id), {}, nullptr, &views, other).pixel(0, 0);
    CHECK(qRed(pixel) == qGreen(pixel));
    return qRed(pixel);
}

} // namespace

TEST_CASE("a component of any model is a lens, in even steps between its ends", "[lens]") {
    std::set<std::string> ids;
    for (const Lens& each : lenses()) {
        CHECK(ids.insert(each.id).second);
        CHECK_FALSE(each.doc.empty());
        CHECK((each.shown != nullptr || !each.expression.empty() || each.of_rule()));
    }
    for (const colour::Model* model : colour::models())
        for (const colour::Component& component : model->components)
            CHECK(ids.count(std::string(model->name) + "." + std::string(component.name)) == 1);
    // L* of 0.18 is 49.5 of 100 (CIE 15): code 126 of 255; HSV saturation and value of (0.2, 0.4, 0.8): 0.75 and 0.8.
    CHECK(grey_of("lab.l", one(0.18, 0.18, 0.18)) == std::lround(255 * 0.49496));
    CHECK(grey_of("hsv.s", one(0.2, 0.4, 0.8)) == std::lround(255 * 0.75));
    CHECK(grey_of("hsv.v", one(0.2, 0.4, 0.8)) == std::lround(255 * 0.8));
    // Every model against its double-precision truth.
    const image::Picture picture = one(0.31, 0.52, 0.27, "srgb");
    for (const colour::Model* model : colour::models()) {
        const colour::Triple truth = from_rgb(*model, *colour::find_space("srgb"), {0.31, 0.52, 0.27});
        for (std::size_t c = 0; c < 3; ++c) {
            const colour::Component& component = model->components[c];
            const double share = (truth[c] - component.low) / (component.high - component.low);
            if (component.cyclic || share < 0 || share > 1)
                continue;
            INFO(model->name << "." << component.name);
            CHECK(grey_of(std::string(model->name) + "." + std::string(component.name), picture) ==
                  Approx(255 * share).margin(1));
        }
    }
}

TEST_CASE("a hue is shown as a hue, and what is no number as a chequer", "[lens]") {
    readings::Views views;
    const auto hue = [&](double r, double g, double b) {
        return QColor(shown(one(r, g, b), lens("hsv.h"), {}, nullptr, &views).pixel(0, 0));
    };
    CHECK(hue(1, 0.2, 0.2).hue() == Approx(0).margin(4));
    CHECK(hue(0.1, 0.5, 0.1).hue() == Approx(120).margin(4));
    CHECK(hue(0.2, 0.2, 0.9).hue() == Approx(240).margin(4));
    image::Picture nothing = image::generated(12, 12, [](int, int) {
        return std::array<double, 3>{std::nan(""), 0, 0};
    });
    const QImage image = shown(nothing, lens("lab.l"), {}, nullptr, &views);
    int black = 0, white = 0;
    for (int i = 0; i < 144; ++i) {
        black += qRed(image.pixel(i % 12, i / 12)) == 0 ? 1 : 0;
        white += qRed(image.pixel(i % 12, i / 12)) == 255 ? 1 : 0;
    }
    CHECK(black == 72);
    CHECK(white == 72);
}

TEST_CASE("lenses that compare: mid grey and black where nothing changed", "[lens]") {
    const image::Picture was = one(0.2, 0.4, 0.8), is = one(0.25, 0.4, 0.8);
    CHECK(grey_of("change", was, &was) == 128);
    CHECK(grey_of("difference", was, &was) == 0);
    readings::Views views;
    const QRgb changed = shown(is, lens("change"), {}, nullptr, &views, &was).pixel(0, 0);
    CHECK(qRed(changed) == Approx(255 * (0.5 + 4 * 0.05)).margin(1));
    CHECK(qGreen(changed) == 128);
    CHECK(grey_of("difference", is, &was) > 20);
}

TEST_CASE("the veil shows alpha over the picture", "[lens]") {
    image::Picture picture = image::generated(8, 8, [](int, int) { return std::array<double, 3>{0.5, 0.5, 0.5}; });
    const QImage opaque = shown(picture, lens("veil"));
    CHECK(qRed(opaque.pixel(3, 3)) == display_code(0.5f));
    picture.planes[3] = image::make_plane(image::Samples(64, 0.0f));
    const QImage clear = shown(picture, lens("veil"));
    CHECK(qBlue(clear.pixel(0, 0)) > qRed(clear.pixel(0, 0)));
    CHECK(clear.pixel(0, 0) != clear.pixel(4, 0)); // a lattice, told apart without colour too
}

TEST_CASE("a part of a picture is reduced as if it were cut out", "[lens]") {
    const image::Picture picture = image::generated(20, 10, [](int x, int y) {
        return std::array<double, 3>{x / 20.0, y / 10.0, (x * y) / 200.0};
    });
    const image::Picture part = image::generated(8, 6, [](int x, int y) {
        return std::array<double, 3>{(x + 5) / 20.0, (y + 2) / 10.0, ((x + 5) * (y + 2)) / 200.0};
    });
    const image::Picture a = downscaled(picture, 4, 3, QRect(5, 2, 8, 6)), b = downscaled(part, 4, 3);
    for (std::size_t i = 0; i < 12; ++i)
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(a.at(i)[c] == b.at(i)[c]);
    CHECK(downscaled(picture, 8, 6, QRect(5, 2, 8, 6)).at(0, 0) == picture.at(5, 2));
}

TEST_CASE("zoom keeps what is under the pointer, and shows no more than there is", "[zoom]") {
    const QSize picture(1920, 1080);
    const QSizeF room(600, 400);
    Zoom zoom;
    CHECK(zoom.fits());
    CHECK(zoom.seen(picture, room) == QRect(0, 0, 1920, 1080));
    const QRectF fitted = zoom.place(picture, room);
    CHECK(fitted.width() <= 600);
    CHECK(fitted.width() / fitted.height() == Approx(16.0 / 9).epsilon(0.01));
    const QPointF at(450, 100);
    const auto under = [&](const Zoom& z) {
        const QRectF all = z.place(picture, room);
        return QPointF((at.x() - all.left()) / z.scale(picture, room), (at.y() - all.top()) / z.scale(picture, room));
    };
    const QPointF before = under(zoom);
    for (const double scale : {0.5, 1.0, 3.0, 20.0}) {
        zoom.set_scale(scale, at, picture, room);
        CHECK(zoom.scale(picture, room) == scale);
        CHECK(under(zoom).x() == Approx(before.x()).margin(1 / scale + 0.5)); // whole device pixels
        CHECK(under(zoom).y() == Approx(before.y()).margin(1 / scale + 0.5));
        const QRect seen = zoom.seen(picture, room);
        CHECK(QRect(QPoint(0, 0), picture).contains(seen));
        CHECK(seen.width() == Approx(600 / scale).margin(2));
    }
    zoom.set_scale(1000, at, picture, room);
    CHECK(zoom.scale(picture, room) == Zoom::most);
    zoom.set_scale(0.01, at, picture, room); // no smaller than fitted
    CHECK(zoom.fits());
    zoom.set_scale(2, {300, 200}, picture, room);
    zoom.pan({1e6, 1e6}, picture, room);
    CHECK(zoom.seen(picture, room).topLeft() == QPoint(0, 0));
    zoom.pan({-1e6, -1e6}, picture, room);
    CHECK(zoom.seen(picture, room).bottomRight() == QPoint(1919, 1079));
    CHECK_FALSE(zoom.seen({640, 360}, room).isEmpty()); // another picture
    CHECK_FALSE(zoom.seen({10, 10}, room).isEmpty());
    CHECK(Zoom().seen({}, room).isEmpty());
    CHECK(Zoom().place(picture, {}).isNull());
}

TEST_CASE("cells and strips are ordered, doubled and set, and a cut goes with its cell", "[sheet]") {
    SheetModel sheet;
    REQUIRE(sheet.strips().size() == 3);
    const int a = sheet.add_target(*targets::find("dye_chart"), "colour"),
              b = sheet.add_target(*targets::find("bars_75"), "colour"),
              c = sheet.add_target(*targets::find("polar"), "red");
    const auto order = [&] {
        std::vector<int> ids;
        for (const Cell& cell : sheet.cells())
            ids.push_back(cell.id);
        return ids;
    };
    sheet.move(c, a);
    CHECK(order() == std::vector<int>{c, a, b});
    sheet.move(c, 0);
    CHECK(order() == std::vector<int>{a, b, c});
    const int d = sheet.duplicate(b);
    CHECK(order() == std::vector<int>{a, b, d, c});
    sheet.set_settings(d, {1, 0.75});
    CHECK(sheet.find(d)->settings == std::vector<double>{1, 0.75});
    sheet.set_target(d, *targets::find("radial"));
    CHECK(sheet.find(d)->settings.empty());
    const int cut = sheet.add_cut(b);
    CHECK(sheet.add_cut(b) == cut); // once
    sheet.set_line(b, {0, 0.25, 1, 0.75});
    CHECK(sheet.find(b)->line.y1 == 0.75);
    sheet.move_strip(cut, sheet.strips().front().id);
    CHECK(sheet.strips().front().id == cut);
    sheet.remove(b);
    CHECK(sheet.find_strip(cut) == nullptr);
    const int wedge = sheet.add_strip(*targets::find("step_wedge"), {10, 0.3});
    sheet.set_strip_settings(wedge, {5, 0.3});
    CHECK(sheet.find_strip(wedge)->settings[0] == 5);
    sheet.set_strip(wedge, *targets::find("spectrum"));
    CHECK(sheet.find_strip(wedge)->settings.empty());
    for (const int gone : {999, 0}) { // nothing happens
        sheet.move(gone, a);
        sheet.set_line(gone, {});
        sheet.set_strip(gone, *targets::find("spectrum"));
        CHECK(sheet.duplicate(gone) == 0);
    }
}

TEST_CASE("pins get the lowest free number, move and go", "[sheet]") {
    SheetModel sheet;
    int changes = 0;
    QObject::connect(&sheet, &SheetModel::pins_changed, [&changes] { ++changes; });
    CHECK(sheet.add_pin("a", {1, 2}) == 1);
    CHECK(sheet.add_pin("b", {3, 4}) == 2);
    sheet.remove_pin(1);
    CHECK(sheet.add_pin("c", {5, 6}) == 1);
    CHECK(sheet.pins().front().source == "c");
    sheet.move_pin(2, {7, 8});
    CHECK(sheet.pins()[1].pixel == QPoint(7, 8));
    sheet.remove_pin(17);
    CHECK(changes == 5);
    sheet.remove_pins();
    CHECK(sheet.pins().empty());
}

TEST_CASE("the list of readings: what they count, and how they are kept", "[readings]") {
    SheetModel sheet;
    const int chart = sheet.add_target(*targets::find("dye_chart"), "colour"),
              bars = sheet.add_target(*targets::find("bars_75"), "colour");
    sheet.add_target(*targets::find("dye_chart"), "red"); // the same picture again
    ReadingsModel readings;
    const int a = readings.add(*readings::find("waveform")),
              b = readings.add(*readings::find("histogram"), {0, 0, 2, 1}, ShownReading::all);
    readings.set_of(a, bars);
    std::vector<ReadingJob> jobs = readings.jobs(sheet, chart);
    CHECK(jobs[0].cells == std::vector<int>{bars});
    CHECK(jobs[0].settings.size() == 3);
    CHECK(jobs[1].cells == std::vector<int>{chart, bars});
    sheet.remove(bars); // back to the cell in use
    CHECK(readings.jobs(sheet, chart)[0].cells == std::vector<int>{chart});
    readings.set_settings(a, {1, 0, 1});
    readings.move(b, -1);
    const std::vector<std::string> stored = readings.stored();
    CHECK(stored == std::vector<std::string>{"histogram|0,0,2,1|-1", "waveform|1,0,1|0"});
    ReadingsModel again;
    again.restore({stored[0], "nonsense", "no such|1|0", stored[1], "cut||0"});
    CHECK(again.stored() == std::vector<std::string>{stored[0], stored[1], "cut||0"});
    again.set_reading(again.readings()[1].id, *readings::find("parade"));
    CHECK(again.readings()[1].settings.empty());
    again.remove(again.readings()[0].id);
    CHECK(again.readings().size() == 2);
}

TEST_CASE("other eyes are lenses: greys stay, and so does what the table says of red", "[lens]") {
    const auto pixel = [](const char* id, const image::Picture& picture) {
        readings::Views views;
        return shown(picture, lens(id), {}, nullptr, &views, nullptr).pixel(0, 0);
    };
    const image::Picture red = one(0.5, 0, 0);
    // Machado, Oliveira and Fernandes 2009, table 1, severity 1: the first column times 0.5, as sRGB codes.
    const double rows[3][2] = {{0.152286, 0.114503}, {0.367322, 0.280085}, {1.255528, 0}};
    int row = 0;
    for (const char* id : {"protan", "deutan", "tritan"}) {
        INFO(id);
        const QRgb grey = pixel(id, one(0.18, 0.18, 0.18));
        CHECK(qRed(grey) == qGreen(grey));
        CHECK(std::abs(qGreen(grey) - qBlue(grey)) <= 1);
        CHECK(std::abs(qRed(grey) - qRed(pixel("colour", one(0.18, 0.18, 0.18)))) <= 1);
        CHECK(qRed(pixel(id, red)) == Approx(255 * colour::srgb_encode(0.5 * rows[row][0])).margin(1));
        CHECK(qGreen(pixel(id, red)) == Approx(255 * colour::srgb_encode(0.5 * rows[row][1])).margin(1));
        ++row;
    }
    // Without colour there is luminance alone: of red 0.212639 (SMPTE RP 177 for BT.709's primaries).
    const QRgb none = pixel("achromat", red);
    CHECK((qRed(none) == qGreen(none) && qGreen(none) == qBlue(none)));
    CHECK(qRed(none) == Approx(255 * colour::srgb_encode(0.5 * 0.212639)).margin(1));
}
