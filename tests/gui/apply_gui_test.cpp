// A look on a folder of pictures: contact sheet, rendering, calling off; a LUT and a colour decision list on the bench.
#include "gui/driver.hpp"
#include "handover/cdl.hpp"
#include "io/movie_file.hpp"
#include "io/picture_file.hpp"
#include "widgets/handover/apply_window.hpp"
#include "widgets/handover/bake_window.hpp"
#include "widgets/look/look_actions.hpp"
#include "widgets/look/step_panel.hpp"

#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

void picture(const QString& path, double red) {
    const image::Picture made = image::generated(32, 18, [&](int, int) {
        return std::array<double, 3>{red, 0.5, 0.25};
    });
    image::Image image = image::image_of(made);
    image.depth = image::Depth::half;
    REQUIRE(io::save(path.toStdString(), image));
}

struct Apply : Driver {
    ApplyWindow* apply = nullptr;
    Apply() {
        replace_text("out.rgb = rgb * vec3(0.5, 1, 1)\n");
        settle();
        REQUIRE(QDir(folder.path()).mkdir("in"));
        for (int i = 1; i <= 4; ++i)
            picture(file(QString("in/f.%1.exr").arg(i)), 0.2 * i);
        trigger("apply");
        apply = window.findChild<ApplyWindow*>();
        REQUIRE(apply);
        apply->set_inputs({file("in")});
        REQUIRE(QTest::qWaitFor([this] { return !apply->model().drawing(); }, 20000));
    }
    ~Apply() { apply->close(); }
    void wait() {
        REQUIRE(QTest::qWaitFor([this] { return !apply->model().rendering(); }, 20000));
    }
};

} // namespace

TEST_CASE("a folder is seen through the rule and rendered", "[gui][apply]") {
    Apply d;
    REQUIRE(d.apply->model().rowCount() == 4);
    const auto red = [&](int i) {
        return qRed(d.apply->model().index(i).data(Qt::DecorationRole).value<QImage>().pixel(5, 5));
    };
    CHECK(red(0) < red(3));
    const int before = red(3);
    d.replace_text("out.rgb = rgb * vec3(0.25, 1, 1)\n"); // it follows the bench
    d.settle();
    CHECK(QTest::qWaitFor([&] { return !d.apply->model().drawing() && red(3) < before; }, 20000));
    d.apply->set_output(d.file("out"));
    d.apply->render_or_cancel();
    d.wait();
    CHECK(d.apply->model().report().written == 4);
    CHECK(d.apply->words().contains("4 written"));
    const auto made = io::load(d.file("out/f.3.exr").toStdString());
    REQUIRE(made);
    CHECK(static_cast<double>(image::picture_of(made.value(), "")->at(0)[0]) == Approx(0.15).epsilon(0.002));
    // Frames, and what cannot be.
    d.apply->findChild<QLineEdit*>("frames")->setText("2-3");
    d.apply->set_output(d.file("some/"));
    d.apply->render_or_cancel();
    d.wait();
    CHECK(d.apply->model().report().written == 2);
    d.apply->findChild<QLineEdit*>("frames")->setText("backwards");
    d.apply->render_or_cancel();
    CHECK(d.apply->words().contains("1-240"));
    d.apply->findChild<QLineEdit*>("frames")->clear();
    d.apply->set_output(d.file("in/"));
    d.apply->render_or_cancel();
    CHECK(d.apply->words().contains("written over"));
    d.apply->set_inputs({d.file("nothing/*.exr")});
    CHECK(d.apply->words().contains("there is no such folder"));
    d.apply->set_inputs({d.file("in/nothing-*.exr")});
    CHECK(d.apply->words().contains("fits no file"));
    CHECK(d.apply->model().rowCount() == 4); // nothing is lost
}

TEST_CASE("a broken picture says so on the sheet, and rendering is called off", "[gui][apply]") {
    Apply d;
    QFile broken(d.file("in/f.2.exr"));
    REQUIRE(broken.open(QIODevice::WriteOnly));
    broken.write("no picture");
    broken.close();
    d.apply->set_inputs({d.file("in")});
    REQUIRE(QTest::qWaitFor([&] { return !d.apply->model().drawing(); }, 20000));
    CHECK_FALSE(d.apply->model().index(1).data(Qt::ToolTipRole).toString().isEmpty());
    d.apply->set_output(d.file("out"));
    d.apply->render_or_cancel();
    d.apply->render_or_cancel(); // and off
    d.wait();
    const auto& report = d.apply->model().report();
    CHECK(report.written + report.failed + report.called_off == 4);
}

TEST_CASE("a LUT is dropped on the bench as a step whose numbers can be said, a decision list becomes a filter",
          "[gui][look]") {
    Driver d;
    d.replace_text("out.rgb = rgb.gbr\n");
    d.settle();
    d.trigger("bake");
    auto* bake = d.window.findChild<BakeWindow*>();
    REQUIRE(bake);
    REQUIRE(QTest::qWaitFor([&] { return bake->measured(); }, 20000));
    CHECK(bake->words().contains("exactly a matrix"));
    for (const char* name : {"turn.clf", "turn.cube"}) {
        bake->write_to(d.file(name));
        REQUIRE(QTest::qWaitFor([&] { return !bake->writing(); }, 20000));
    }
    bake->close();
    CHECK(QFile::exists(d.file("turn.clf")));
    d.window.part<app::Files>().open(d.file("turn.cube"));
    d.settle();
    LookModel& look = d.window.bench().look();
    REQUIRE((look.count() == 2 && look.step().lut == ".cube"));
    CHECK(d.session().fixed());
    // It is no rule: nothing is written into it, nothing is said to be proved of it, no take is of it.
    const std::string listing = d.text();
    d.session().apply_edit({0, "", "out.r = g\n"}, "not there");
    d.session().recall("out.r = g\n", {}, "not there");
    d.trigger("format");
    CHECK(d.text() == listing);
    CHECK(d.window.part<app::ProofsBar>().items().empty());
    d.trigger("take");
    CHECK(d.window.bench().takes().takes().empty());
    d.trigger("step_before");
    d.settle();
    CHECK_FALSE(d.window.part<app::ProofsBar>().items().empty()); // of the rule before it
    d.trigger("step_after");
    d.settle();
    look.set_space(1, "rec709-linear");
    d.settle();
    const std::array<float, 4> out = d.after(1, 0.5),
                               in = d.sheet().strips()[1]->result()->before.at(
                                   static_cast<std::size_t>(d.sheet().strips()[1]->sample_at(0.5)));
    CHECK(static_cast<double>(out[0]) == Approx(static_cast<double>(in[2])).margin(1e-4)); // turned twice
    REQUIRE(io::write_cdl(d.file("shot.cc").toStdString(), {{1.1, 1, 0.9}, {0, 0, 0.02}, {1, 1, 1}, 0.8, "shot", ""}));
    d.window.part<app::Files>().open(d.file("shot.cc"));
    d.settle();
    CHECK(look.count() == 3);
    CHECK(d.session().compiles());
    CHECK(look.name(2) == "shot");
    while (d.session().undo_stack().canUndo())
        d.session().undo_stack().undo();
    d.settle();
    CHECK_FALSE(look.is_look());
}

TEST_CASE("what was said of a picture's space holds for many pictures too", "[gui][apply]") {
    Apply d;
    SheetModel& sheet = d.window.bench().sheet();
    const auto red = [&](int i) {
        return qRed(d.apply->model().index(i).data(Qt::DecorationRole).value<QImage>().pixel(5, 5));
    };
    const int before = red(1);
    sheet.add_picture(d.file("in/f.1.exr").toStdString(), "colour");
    d.settle();
    sheet.set_space(sheet.cells().back().id, "p3-d65-linear"); // of one frame: then of all
    d.settle();
    REQUIRE(QTest::qWaitFor([&] { return !d.apply->model().drawing(); }, 20000));
    CHECK(red(1) != before);
    d.apply->set_output(d.file("out"));
    d.apply->render_or_cancel();
    d.wait();
    REQUIRE(d.apply->model().report().written == 4);
    handover::RenderJob job;
    job.in = d.file("in/f.3.exr").toStdString();
    job.out = d.file("alone.exr").toStdString();
    job.in_space = "p3-d65-linear";
    REQUIRE(handover::render(subject::Subject(*d.session().rule(), d.session().values()), job));
    const auto many = io::load(d.file("out/f.3.exr").toStdString()), alone = io::load(job.out);
    REQUIRE((many && alone));
    CHECK(many.value().space == alone.value().space);
    CHECK(*many.value().channels[0].plane == *alone.value().channels[0].plane);
}

TEST_CASE("the contact sheet is shown as the sheet is", "[gui][apply]") {
    Apply d;
    const auto corner = [&] { return d.apply->model().index(2).data(Qt::DecorationRole).value<QImage>().pixel(5, 5); };
    const QRgb before = corner();
    Screen screen;
    screen.space = "rec709-display";
    d.window.bench().sheet().set_screen(screen);
    REQUIRE(QTest::qWaitFor([&] { return !d.apply->model().drawing() && corner() != before; }, 20000));
    d.window.bench().sheet().set_screen({});
    REQUIRE(QTest::qWaitFor([&] { return !d.apply->model().drawing() && corner() == before; }, 20000));
}

TEST_CASE("a folder of numbered pictures becomes a movie, and a movie goes through the bench", "[gui][apply][movies]") {
    Apply d;
    auto* kind = d.apply->findChild<QComboBox*>("kind");
    auto* rate = d.apply->findChild<QLineEdit*>("rate");
    REQUIRE((kind && rate));
    const int ffv1 = kind->findText("FFV1", Qt::MatchContains);
    REQUIRE(ffv1 > 0);
    kind->setCurrentIndex(kind->findText("PNG, 8 bits"));
    CHECK_FALSE(rate->isEnabled());
    kind->setCurrentIndex(ffv1);
    CHECK(rate->isEnabled());
    rate->setText("fast");
    d.apply->set_output(d.file("out"));
    d.apply->render_or_cancel();
    CHECK(d.apply->words().contains("24, 23.976"));
    rate->setText("25");
    d.apply->render_or_cancel();
    d.wait();
    CHECK(d.apply->words().contains("1 written"));
    const std::string movie = d.file("out/f.mkv").toStdString();
    const auto facts = io::movie_facts(movie);
    REQUIRE(facts);
    CHECK((facts.value().frames == 4 && facts.value().rate == 25));
    // The movie again, to another movie of a name.
    d.apply->set_inputs({d.file("out/f.mkv")});
    CHECK(d.apply->model().rowCount() == 1);
    rate->clear();
    d.apply->set_output(d.file("again.mkv"));
    d.apply->render_or_cancel();
    d.wait();
    CHECK(io::movie_facts(d.file("again.mkv").toStdString()).value().rate == 25);
    const auto before = image::picture_of(io::load(movie).value(), ""),
               after = image::picture_of(io::load(d.file("again.mkv").toStdString()).value(), "");
    REQUIRE((before && after));
    CHECK(after->at(0)[0] < before->at(0)[0]);
    CHECK(after->at(0)[1] == before->at(0)[1]);
}
