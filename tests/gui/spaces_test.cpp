// Pictures of different spaces side by side, the screen they are shown on, and what it cannot show.
#include "driver.hpp"

#include "colour/space.hpp"
#include "io/picture_file.hpp"
#include "model/display.hpp"
#include "support/config.hpp"
#include "support/press.hpp"
#include "support/support.hpp"
#include "widgets/frame/top_bar.hpp"
#include "widgets/sheet/sheet_settings.hpp"

#include <QHelpEvent>
#include <QSettings>
#include <QTemporaryDir>
#include <QToolButton>
#include <QToolTip>

using namespace kasuri;
using namespace kasuri::test;
using app::Limits;
using app::Screen;

namespace {

image::Picture pixel_of(float r, float g, float b, const std::string& space) {
    image::Picture p;
    p.width = p.height = 12;
    for (const auto& [plane, value] : {std::pair{0, r}, std::pair{1, g}, std::pair{2, b}})
        p.planes[static_cast<std::size_t>(plane)] = image::make_plane(image::Samples(144, value));
    p.space = space;
    return p;
}

QRgb shown_pixel(const image::Picture& picture, const char* lens, const Screen& screen = {}) {
    return app::shown(picture, app::lens(lens), screen).pixel(0, 0);
}

} // namespace

TEST_CASE("pixels are converted to the screen's space", "[gui][spaces]") {
    for (const char* from : {"rec709-linear", "srgb", "acescg", "rec2020", "romm"})
        for (const char* to : {"srgb", "p3-d65-srgb", "rec2020-display", "oprgb"}) {
            const colour::Triple stored = {0.4, 0.35, 0.25};
            const colour::Triple code = colour::converted(stored, *colour::find_space(from), *colour::find_space(to));
            const QRgb got = shown_pixel(pixel_of(0.4f, 0.35f, 0.25f, from), "colour", {to, Limits::hard});
            INFO(from << " on " << to);
            CHECK(std::abs(qRed(got) - std::lround(255 * code[0])) <= 1);
            CHECK(std::abs(qGreen(got) - std::lround(255 * code[1])) <= 1);
            CHECK(std::abs(qBlue(got) - std::lround(255 * code[2])) <= 1);
        }
    // Diffuse white is 58 % of PQ (ITU-R BT.2408), in the picture and on the screen.
    CHECK(qRed(shown_pixel(pixel_of(1, 1, 1, "rec709-linear"), "colour", {"rec2100-pq", Limits::hard})) ==
          std::lround(255 * 0.5807));
    CHECK(qRed(shown_pixel(pixel_of(0.5807f, 0.5807f, 0.5807f, "rec2100-pq"), "colour")) == 255);
}

TEST_CASE("what the screen cannot show is cut off, or bent, and counted", "[gui][spaces]") {
    double outside = -1;
    const image::Picture bright = pixel_of(4, 2, 1, "rec709-linear"),
                         deep = pixel_of(0.5f, -0.2f, 0.1f, "rec709-linear");
    app::shown(bright, app::lens("colour"), {}, &outside);
    CHECK(outside == 1);
    app::shown(pixel_of(1, 0, 0.5f, "srgb"), app::lens("colour"), {}, &outside);
    CHECK(outside == 0); // the edge is inside
    app::shown(pixel_of(1, 0, 0, "p3-d65-srgb"), app::lens("colour"), {}, &outside);
    CHECK(outside == 1);
    app::shown(pixel_of(1, 0, 0, "p3-d65-srgb"), app::lens("colour"), {"p3-d65", Limits::hard}, &outside);
    CHECK(outside == 0);
    const QRgb hard = shown_pixel(bright, "colour"), soft = shown_pixel(bright, "colour", {"srgb", Limits::soft});
    CHECK(hard == qRgb(255, 255, 255));
    CHECK(qRed(soft) >= 250);
    CHECK(qGreen(soft) < qRed(soft)); // the ratio of the channels stays
    CHECK(qBlue(soft) < qGreen(soft));
    CHECK(std::abs(app::display_code(0.5f) - qGreen(soft)) <= 2);
    const QRgb lifted = shown_pixel(deep, "colour", {"srgb", Limits::soft});
    CHECK(qGreen(lifted) == 0);
    CHECK(qRed(lifted) < app::display_code(0.5f)); // towards its own luminance, not only the channel below 0
    CHECK(shown_pixel(pixel_of(0.5f, 0.2f, 0.1f, "rec709-linear"), "colour", {"srgb", Limits::soft}) ==
          shown_pixel(pixel_of(0.5f, 0.2f, 0.1f, "rec709-linear"), "colour"));
}

TEST_CASE("the range lens marks what is outside without colour", "[gui][spaces]") {
    const auto values = [](const image::Picture& picture) {
        const QImage image = app::shown(picture, app::lens("range"), {});
        std::set<int> found;
        for (int y = 0; y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x) {
                CHECK(qRed(image.pixel(x, y)) == qBlue(image.pixel(x, y)));
                found.insert(qRed(image.pixel(x, y)));
            }
        return found;
    };
    const auto inside = values(pixel_of(0.5f, 0.5f, 0.5f, "rec709-linear")),
               above = values(pixel_of(1.5f, 0.5f, 0.5f, "rec709-linear")),
               below = values(pixel_of(0.5f, -0.1f, 0.5f, "rec709-linear")),
               nan = values(pixel_of(std::nanf(""), 0, 0, "rec709-linear"));
    CHECK(inside.size() == 1);
    CHECK(above.size() == 2);
    CHECK(*above.rbegin() > 200);
    CHECK(below.size() == 2);
    CHECK(*below.begin() == 0);
    CHECK(nan == std::set<int>{0, 255});
}

TEST_CASE("one matrix in linear, log and display encodings: three looks of one picture", "[gui][spaces]") {
    Driver d;
    d.window.part<app::Files>().open(KASURI_DEMO_DIR "/cloths.exr");
    d.settle();
    const app::CellView* view = d.sheet().cell(d.window.bench().sheet().cells().back().id);
    std::vector<std::array<float, 4>> looks;
    for (const char* working : {"rec709-linear", "acescct", "srgb"}) {
        d.replace_text(
            QString("working %1\nout.rgb = mat3(0.8, 0.2, 0, 0.1, 0.7, 0.2, 0, 0.3, 0.7) * rgb\n").arg(working));
        d.settle();
        looks.push_back(view->result()->after_pixels->at(300, 700));
    }
    CHECK(looks[0] != looks[1]);
    CHECK(looks[1] != looks[2]);
}

TEST_CASE("the user says what a picture means, and it is remembered", "[gui][spaces]") {
    QTemporaryDir folder;
    const std::string path = folder.filePath("cloth.exr").toStdString();
    image::Image image = image::image_of(image::generated(64, 36, [](int x, int) {
        return std::array<double, 3>{x / 64.0, 0.25, 0.5};
    }));
    image.space = "acescg";
    REQUIRE(io::save(path, image));
    Driver d;
    d.window.part<app::Files>().open(QString::fromStdString(path));
    d.settle();
    app::SheetModel& sheet = d.window.bench().sheet();
    const int id = sheet.cells().back().id;
    const app::CellView* view = d.sheet().cell(id);
    CHECK(sheet.file_of(*sheet.find(id))->space == "acescg");
    CHECK(view->result()->before_pixels->space == "acescg");
    const QImage as_declared = view->result()->before;
    sheet.set_space(id, "rec709-linear");
    REQUIRE(QTest::qWaitFor([&] { return !sheet.loading(); }, 10000));
    d.settle();
    CHECK(view->result()->before_pixels->space == "rec709-linear");
    CHECK(sheet.file_of(*sheet.find(id))->space_from == "said by you");
    CHECK(view->result()->before != as_declared);
    // Kept for the next session, with the screen.
    sheet.set_screen({"p3-d65-srgb", Limits::soft});
    d.settle();
    CHECK(
        d.window.findChild<app::TopBar*>()->findChildren<QToolButton*>().at(1)->text().startsWith("p3-d65-srgb, soft"));
    app::store_settings(sheet, d.window.bench().readings());
    app::SheetModel next;
    app::ReadingsModel next_readings;
    app::restore_settings(next, next_readings);
    CHECK(next.screen() == Screen{"p3-d65-srgb", Limits::soft});
    const int again = next.add_picture(path, "colour");
    REQUIRE(QTest::qWaitFor([&] { return !next.loading(); }, 10000));
    CHECK(next.file_of(*next.find(again))->space == "rec709-linear");
    sheet.set_space(id, "");
    REQUIRE(QTest::qWaitFor([&] { return !sheet.loading(); }, 10000));
    d.settle();
    CHECK(view->result()->before_pixels->space == "acescg");
    sheet.set_screen({});
    app::store_settings(sheet, d.window.bench().readings());
}

TEST_CASE("notes about a picture are told", "[gui][spaces]") {
    QTemporaryDir folder;
    const std::string path = folder.filePath("odd.exr").toStdString();
    image::Image image = image::image_of(image::generated(4, 4, [](int, int) {
        return std::array<double, 3>{-0.5, 0.25, 0.5};
    }));
    image.space = "srgb";
    REQUIRE(io::save(path, image));
    Driver d;
    QString said;
    QObject::connect(&d.window.bench(), &app::Bench::said, [&said](const QString& text) { said = text; });
    d.window.part<app::Files>().open(QString::fromStdString(path));
    d.settle();
    CHECK(said.startsWith("odd.exr: 16 numbers are below 0"));
}

TEST_CASE("a colour config's spaces serve as working, picture and display space", "[gui][spaces]") {
    QTemporaryDir folder;
    const QString file = folder.filePath("village.ocio");
    write(file.toStdString(), village_config());
    Driver d;
    QStringList said;
    QObject::connect(&d.window.bench(), &app::Bench::said, [&said](const QString& text) { said << text; });
    d.replace_text("working \"vat film\"\nout.g = b\n");
    d.settle_text();
    CHECK_FALSE(d.session().compiles()); // not yet
    d.window.part<app::Files>().open(file);
    REQUIRE(QTest::qWaitFor([&] { return !said.isEmpty(); }, 10000));
    CHECK(said.first().startsWith(
        "village.ocio: 3 spaces and 0 functions can be used now, and 2 views to see through; the config's space "
        "srgb"));
    REQUIRE(QTest::qWaitFor([&] { return d.session().compiles(); }, 10000)); // without touching the text
    d.window.part<app::Files>().open(KASURI_DEMO_DIR "/cloths.exr");
    d.settle();
    app::SheetModel& sheet = d.window.bench().sheet();
    const int id = sheet.cells().back().id;
    const app::CellView* view = d.sheet().cell(id);
    const QImage on_srgb = view->result()->after;
    sheet.set_screen({"Loom & screen", Limits::hard}); // which is sRGB by another name
    d.settle();
    const QImage on_loom = view->result()->after;
    int most = 0;
    for (int y = 0; y < on_loom.height(); y += 3)
        for (int x = 0; x < on_loom.width(); x += 3)
            most = std::max({most, std::abs(qRed(on_loom.pixel(x, y)) - qRed(on_srgb.pixel(x, y))),
                             std::abs(qGreen(on_loom.pixel(x, y)) - qGreen(on_srgb.pixel(x, y)))});
    CHECK(most <= 1);
    sheet.set_screen({"dusk on loom", Limits::hard}); // the same display through a look: red 1.2, blue 0.7 of the light
    d.settle();
    const QImage at_dusk = view->result()->after;
    long redder = 0, bluer = 0;
    for (int y = 0; y < at_dusk.height(); y += 3)
        for (int x = 0; x < at_dusk.width(); x += 3) {
            redder += qRed(at_dusk.pixel(x, y)) - qRed(on_loom.pixel(x, y));
            bluer += qBlue(at_dusk.pixel(x, y)) - qBlue(on_loom.pixel(x, y));
        }
    CHECK(redder > 0);
    CHECK(bluer < 0);
    sheet.set_screen({"Loom & screen", Limits::hard});
    d.settle();
    sheet.set_space(id, "vat film");
    REQUIRE(QTest::qWaitFor([&] { return !sheet.loading(); }, 10000));
    d.settle();
    CHECK(view->result()->before_pixels->space == "vat film");
    CHECK(view->result()->after != on_loom);
    said.clear();
    write(folder.filePath("broken.ocio").toStdString(), "nothing of the kind");
    d.window.part<app::Files>().open(folder.filePath("broken.ocio"));
    REQUIRE(QTest::qWaitFor([&] { return !said.isEmpty(); }, 10000));
    CHECK(said.first().contains("cannot be used as a colour config"));
    CHECK(d.session().compiles()); // what was there stays
    sheet.set_screen({});
    colour::retire_added_spaces();
    QSettings().remove("config");
}

TEST_CASE("a cell's caption tells the conversions, and its picture stays free of tips", "[gui][spaces]") {
    Driver d;
    d.replace_text("working acescct\nout.g = b\n");
    d.window.part<app::Files>().open(KASURI_DEMO_DIR "/cloths.exr");
    d.settle();
    app::CellView* view = d.sheet().cell(d.window.bench().sheet().cells().back().id);
    const auto tip_at = [view](const QPoint& place) {
        QHelpEvent asked(QEvent::ToolTip, place, view->mapToGlobal(place));
        QApplication::sendEvent(view, &asked);
        return QToolTip::text();
    };
    CHECK(tip_at({60, 80}) != view->toolTip()); // first: a tip goes away slowly
    CHECK(
        tip_at({60, 10}) ==
        QString::fromUtf8("picture rec709-linear \u2192 rule acescct \u2192 picture rec709-linear \u2192 screen srgb"));
    CHECK(view->toolTip() == QToolTip::text());
    QToolTip::hideText();
}

TEST_CASE("the profile of a press is seen on the sheet: paper, ink and what is outside of them", "[gui][print]") {
    Driver d;
    write_press(d.file("ford.icc").toStdString());
    d.window.part<app::Files>().open(d.file("ford.icc"));
    REQUIRE(QTest::qWaitFor([] { return colour::find_space("ford on its paper") != nullptr; }, 20000));
    d.settle();
    CHECK(QSettings().value("prints").toStringList() == QStringList{d.file("ford.icc")});
    const Screen paper{"ford on its paper", Limits::hard}, used{"ford printed", Limits::hard};
    // White is the paper's, or the screen's; the surround goes along.
    const image::Picture white = pixel_of(1, 1, 1, "rec709-linear");
    CHECK(qBlue(shown_pixel(white, "colour", paper)) < qGreen(shown_pixel(white, "colour", paper)) - 5);
    CHECK(qGreen(shown_pixel(white, "colour", used)) > 250);
    CHECK(app::surround_colour({"ford on its paper", Limits::hard, 100}).blue() < 250);
    // Outside is what the inks cannot make.
    double outside = -1;
    (void)app::shown(pixel_of(0.5F, 0.45F, 0.4F, "rec709-linear"), app::lens("colour"), paper, &outside);
    CHECK(outside == 0);
    (void)app::shown(pixel_of(0.9F, 0.01F, 0.01F, "rec709-linear"), app::lens("colour"), paper, &outside);
    CHECK(outside == 1);
    const QImage stripes = app::shown(pixel_of(0.9F, 0.01F, 0.01F, "srgb"), app::lens("range"), used);
    std::set<QRgb> greys;
    for (int x = 0; x < stripes.width(); ++x)
        greys.insert(stripes.pixel(x, 0));
    CHECK(greys.size() > 1);
}

TEST_CASE("values of the config's variables belong to the filter, are kept with it, and can be undone",
          "[gui][spaces][context]") {
    const TemporaryFolder folder;
    write(folder / "dim.spimtx", "0.5 0 0 0\n0 0.5 0 0\n0 0 0.5 0\n");
    write(folder / "deep.spimtx", "0.25 0 0 0\n0 0.25 0 0\n0 0 0.25 0\n");
    write(folder / "shots.ocio",
          "ocio_profile_version: 2\n"
          "environment: {SHOT: dim}\n"
          "search_path: .\n"
          "roles: {default: light, scene_linear: light, aces_interchange: light}\n"
          "displays: {loom: [!<View> {name: plain, colorspace: light}]}\n"
          "colorspaces:\n"
          "  - !<ColorSpace> {name: light}\n"
          "  - !<ColorSpace>\n"
          "    name: shot\n"
          "    to_scene_reference: !<FileTransform> {src: $SHOT.spimtx}\n");
    write(folder / "one.kasuri", "out.g = b\n");
    write(folder / "two.kasuri", "out.r = b\n");
    const auto level = [&] {
        const colour::Space* shot = colour::find_space("shot");
        return shot ? colour::converted({1, 1, 1}, *shot, *colour::find_space("light"))[1] : -1;
    };
    const auto comes_to = [&](double wanted) {
        return QTest::qWaitFor([&] { return std::fabs(level() - wanted) < 1e-6; }, 20000);
    };
    Driver d;
    app::Files& files = d.window.part<app::Files>();
    app::ConfigUse& config = d.window.bench().config();
    const auto open = [&](const char* name) {
        files.open(QString::fromStdString((folder / name).string()));
        d.settle();
    };
    open("one.kasuri");
    open("shots.ocio");
    REQUIRE(comes_to(0.5));
    CHECK_FALSE(config.set_values("SHOT"));
    REQUIRE(config.set_values("SHOT=dim, SHOW=ford, by night"));
    CHECK(config.arrangement().at("SHOW") == "ford, by night");
    REQUIRE(config.set_values(config.values()));
    CHECK(config.arrangement().at("SHOW") == "ford, by night");
    d.window.bench().undo();
    CHECK(config.values().isEmpty());
    REQUIRE(config.set_values(" SHOT=deep, "));
    CHECK(config.values() == "SHOT=deep");
    CHECK(comes_to(0.25));
    d.window.bench().undo();
    CHECK(config.values().isEmpty());
    CHECK(comes_to(0.5));
    d.window.bench().redo();
    CHECK(comes_to(0.25));
    d.window.bench().keeper().write_now();
    CHECK(content_of(folder / "one.kasuri-bench").find("\"SHOT\": \"deep\"") != std::string::npos);
    open("two.kasuri");
    CHECK(config.values().isEmpty());
    CHECK(comes_to(0.5));
    open("one.kasuri");
    CHECK(config.values() == "SHOT=deep");
    CHECK(comes_to(0.25));
    colour::retire_added_spaces();
    QSettings().remove("config");
}
