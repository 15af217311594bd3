// What is seen is what is rendered and handed over.
#include "gui/driver.hpp"
#include "io/picture_file.hpp"
#include "model/on_bench.hpp"
#include "widgets/handover/apply_window.hpp"
#include "widgets/handover/bake_window.hpp"

#include <QDir>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

void picture(const QString& path, std::array<double, 3> colour, int width = 32, int height = 18) {
    image::Image image = image::image_of(image::generated(width, height, [&](int, int) { return colour; }));
    image.depth = image::Depth::float32;
    REQUIRE(io::save(path.toStdString(), image));
}

/// What a rendered file has at a pixel.
std::array<float, 4> at(const QString& path, std::size_t pixel) {
    const auto made = io::load(path.toStdString());
    REQUIRE(made);
    return image::picture_of(made.value(), "")->at(pixel);
}

bool rendered(Driver& d, const QString& in, const QString& out) {
    QString said;
    bool bad = true;
    bool heard = false;
    QObject receiver; // hears no longer than this
    QObject::connect(&d.window.bench(), &Bench::said, &receiver, [&](const QString& words, bool is_bad) {
        said = words;
        bad = is_bad;
        heard = true;
    });
    d.window.part<app::HandoverActions>().render(in, out);
    REQUIRE(QTest::qWaitFor([&] { return heard && (said.startsWith("Wrote") || bad); }, 20000));
    return !bad;
}

} // namespace

TEST_CASE("a picture that was given to a source is in what is rendered, in the contact sheet and in the report",
          "[gui]") {
    Driver d;
    picture(d.file("in.exr"), {0.25, 0.5, 0.75});
    picture(d.file("lamp.exr"), {0.5, 0.25, 0.125}, 16, 9); // of another size: stretched in both
    d.replace_text("source lamp : vec3\nout.rgb = rgb + lamp\n");
    d.window.part<app::Files>().open(d.file("in.exr"));
    d.settle();
    // Without it nothing is written, and the contact sheet says why.
    CHECK_FALSE(rendered(d, d.file("in.exr"), d.file("none.exr")));
    CHECK_FALSE(QFile::exists(d.file("none.exr")));
    d.trigger("apply");
    auto* apply = d.window.findChild<ApplyWindow*>();
    REQUIRE(apply);
    apply->set_inputs({d.file("in.exr")});
    REQUIRE(QTest::qWaitFor([&] { return !apply->model().drawing(); }, 20000));
    CHECK(apply->model().index(0).data(Qt::ToolTipRole).toString().contains("no picture for lamp"));
    d.window.bench().sheet().give("lamp", d.file("lamp.exr").toStdString());
    d.settle();
    REQUIRE(rendered(d, d.file("in.exr"), d.file("out.exr")));
    const auto written = at(d.file("out.exr"), 100);
    CHECK(written[0] == Approx(0.75).margin(1e-3));
    CHECK(written[2] == Approx(0.875).margin(1e-3));
    for (const Cell& cell : d.window.bench().sheet().cells())
        if (!cell.target)
            CHECK(d.sheet().cell(cell.id)->result()->after_pixels->at(100) == written);
    REQUIRE(QTest::qWaitFor(
        [&] {
            const auto drawn = apply->model().index(0).data(Qt::DecorationRole).value<QImage>();
            return !apply->model().drawing() && !drawn.isNull();
        },
        20000));
    apply->close();
    d.window.part<app::HandoverActions>().write_report(d.file("page.html"));
    REQUIRE(QTest::qWaitFor([&] { return QFile::exists(d.file("page.html")); }, 20000));
    QFile page(d.file("page.html"));
    REQUIRE(page.open(QIODevice::ReadOnly));
    const QByteArray text = page.readAll();
    CHECK_FALSE(text.contains("Not measured"));
    CHECK(text.contains("alt=\"after\""));
    // A mask reads one too.
    d.window.bench().undo(); // the picture is gone again
    d.settle();
    CHECK_FALSE(rendered(d, d.file("in.exr"), d.file("gone.exr")));
}

TEST_CASE("nothing is handed over from a text that does not compile", "[gui]") {
    Driver d;
    picture(d.file("in.exr"), {0.25, 0.5, 0.75});
    d.replace_text("out.rgb = rgb.gbr\n");
    d.settle();
    d.replace_text("out.rgb = rgb.gbr +\n");
    REQUIRE(QTest::qWaitFor([&] { return !d.session().compiles(); }, 20000));
    CHECK_FALSE(subject_on_bench(d.session(), d.window.bench().look(), d.window.bench().sheet()));
    CHECK_FALSE(rendered(d, d.file("in.exr"), d.file("out.exr")));
    CHECK_FALSE(QFile::exists(d.file("out.exr")));
    d.trigger("bake");
    auto* bake = d.window.findChild<BakeWindow*>();
    REQUIRE(bake);
    CHECK(bake->words().contains("does not compile"));
    CHECK_FALSE(bake->measured());
    bake->close();
    d.replace_text("out.rgb = rgb.gbr\n");
    d.settle();
    CHECK(subject_on_bench(d.session(), d.window.bench().look(), d.window.bench().sheet()));
}

TEST_CASE("a file that the rule uses is followed while it changes on disk", "[gui]") {
    Driver d;
    const auto write = [&](const char* name, const QByteArray& text) {
        QFile file(d.file(name));
        REQUIRE(file.open(QIODevice::WriteOnly));
        file.write(text);
    };
    write("dyes.kasuri", "fn dyed(x float) = 0.5 * x\n");
    write("rule.kasuri", "use \"dyes.kasuri\"\nout.r = dyed(r)\n");
    d.window.part<app::Files>().open(d.file("rule.kasuri"));
    d.settle();
    const double before = static_cast<double>(d.after(0, 0.75)[0]);
    write("dyes.kasuri", "fn dyed(x float) = 0.25 * x\n");
    CHECK(QTest::qWaitFor(
        [&] {
            return d.window.settled() && static_cast<double>(d.after(0, 0.75)[0]) == Approx(before / 2).margin(1e-4);
        },
        10000));
}
