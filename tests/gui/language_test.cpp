// What the window does with the whole of the language: kinds of parameters, files that are used, further pictures,
// neighbourhoods, hints, the canonical form.
#include "driver.hpp"
#include "widgets/sheet/sources_panel.hpp"

#include "widgets/tuning/value_editor.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>

#include <fstream>

using namespace kasuri;
using namespace kasuri::test;

namespace {

void write(const QString& file, const std::string& text) { std::ofstream(file.toStdString()) << text; }

QString understood(Driver& d) {
    QString all;
    for (const QLabel* label : d.window.part<app::RulePanel>().findChildren<QLabel*>())
        all += label->text() + "\n";
    return all;
}

} // namespace

TEST_CASE("each kind of parameter has its editor, and undo takes it back", "[gui][language]") {
    Driver d;
    d.replace_text("param levels = 4 in 2 .. 16 whole\nparam inside = true\nparam edge = soft of soft, hard\nparam "
                   "tint = vec3(1, 1, 1)\n"
                   "out.rgb = (inside ? rgb : vec3(0)) * tint * levels / 4 * (edge.hard ? 2 : 1)\n");
    d.settle();
    const auto grey = [&] { return d.sheet().strips()[0]->result()->before.at(40)[0]; };
    app::ValuesPanel& panel = d.window.part<app::ValuesPanel>();
    auto* box = panel.editor("inside")->findChild<QCheckBox*>();
    auto* list = panel.editor("edge")->findChild<QComboBox*>();
    REQUIRE(box);
    REQUIRE(list);
    CHECK(box->isChecked());
    CHECK(list->count() == 2);
    CHECK(list->currentText() == "soft");
    QTest::mouseClick(box, Qt::LeftButton, Qt::NoModifier, QPoint(6, box->height() / 2));
    d.settle();
    CHECK(box->text() == "off");
    CHECK(d.sheet().strips()[0]->result()->after.at(40)[0] == 0);
    d.trigger("undo");
    d.settle();
    CHECK(box->isChecked());
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Down);
    d.settle();
    CHECK(d.sheet().strips()[0]->result()->after.at(40)[0] == Approx(2 * grey()));
    QTest::keyClick(list, Qt::Key_Backspace); // as a typed number is reset
    d.settle();
    CHECK(list->currentText() == "soft");
    // A whole number rounds what is typed.
    app::NumberField* levels = panel.field("levels");
    REQUIRE(levels);
    levels->setFocus();
    levels->selectAll();
    QTest::keyClicks(levels, "7.6");
    QTest::keyClick(levels, Qt::Key_Return);
    d.settle();
    CHECK(levels->value() == 8);
    CHECK(d.sheet().strips()[0]->result()->after.at(40)[0] == Approx(2 * grey()));
    // The parts of a colour are numbers of their own.
    REQUIRE(panel.field("tint.g"));
    d.session().set_value(4, 0);
    d.settle();
    CHECK(d.sheet().strips()[0]->result()->after.at(40)[1] == 0);
    d.session().write_preset("Mine");
    CHECK(d.text().find("preset \"Mine\" levels = 8, inside = true, edge = soft, tint = vec3(1, 0, 1)") !=
          std::string::npos);
    d.settle();
    CHECK(d.session().compiles());
}

TEST_CASE("functions of a file beside the filter, which is found again where the filter is saved", "[gui][language]") {
    Driver d;
    write(d.file("dyes.kasuri"), "fn steeped(c vec3, k) = c * (1 - k)\n");
    write(d.file("vat.kasuri"), "use \"dyes.kasuri\"\nout.rgb = steeped(rgb, 0.5)\n");
    d.window.part<app::Files>().open(d.file("vat.kasuri"));
    d.settle();
    REQUIRE(d.session().compiles());
    const auto* strip = d.sheet().strips()[0]->result();
    CHECK(strip->after.at(40)[0] == Approx(0.5f * strip->before.at(40)[0]));
    // A text without a file has nothing beside it.
    d.trigger("new");
    d.settle();
    d.replace_text("use \"dyes.kasuri\"\nout.rgb = steeped(rgb, 0.5)\n");
    d.settle_text();
    CHECK_FALSE(d.session().compiles());
    CHECK(d.window.part<app::Files>().save_to(d.file("other.kasuri")));
    REQUIRE(QTest::qWaitFor([&] { return d.session().compiles(); }, 20000));
}

TEST_CASE("a source is a layer of the picture in its cell, and where it is missing that is said", "[gui][language]") {
    Driver d;
    d.window.part<app::Files>().open(QString(KASURI_DEMO_DIR "/puppet.exr"));
    d.replace_text("source robe : vec3\nout.rgb = robe\n");
    d.settle();
    const app::Cell* cell = nullptr;
    for (const app::Cell& each : d.window.bench().sheet().cells())
        if (!each.target)
            cell = &each;
    REQUIRE(cell);
    const auto file = d.window.bench().sheet().file_of(*cell);
    REQUIRE(file);
    app::Cell robe = *cell;
    robe.layer = "robe";
    const auto expected = d.window.bench().sheet().picture_of(robe);
    const auto shown = d.sheet().cell(cell->id)->result()->after_pixels;
    REQUIRE(expected);
    REQUIRE(shown);
    CHECK(*shown->planes[0] == *expected->planes[0]);
    CHECK_FALSE(d.window.part<app::SourcesPanel>().said("robe").contains("0"));
    d.replace_text("source lantern : vec3\nout.rgb = lantern\n");
    d.settle();
    CHECK(d.window.part<app::SourcesPanel>().said("lantern").contains("not in every picture: 0 there"));
}

TEST_CASE("a rule that looks at its neighbours is shown, and hints are no warnings", "[gui][language]") {
    Driver d;
    d.replace_text("param reach = 0 in 0 .. 50\nout.rgb = blur(rgb, reach)\n");
    d.window.part<app::Files>().open(QString(KASURI_DEMO_DIR "/cloths.exr"));
    d.settle();
    CHECK(d.session().compiles());
    d.session().set_value(0, 12);
    d.settle();
    for (const app::Cell& cell : d.window.bench().sheet().cells()) {
        const app::CellResult& result = *d.sheet().cell(cell.id)->result();
        REQUIRE(result.after_pixels);
        CHECK(*result.after_pixels->planes[0] != *result.before_pixels->planes[0]);
    }
    d.replace_text("out.rgb = rgb.bgr\nkeep luminance\n");
    d.settle();
    CHECK(understood(d).contains("1 hint (F8)"));
    CHECK_FALSE(understood(d).contains("warning"));
}

TEST_CASE("the canonical form is one step, and a broken rule is left alone", "[gui][language]") {
    Driver d;
    d.replace_text("out.r=g*2// why\n");
    d.settle();
    d.trigger("format");
    CHECK(d.text() == "out.r = g * 2  // why\n");
    CHECK(d.editor().content() == d.text());
    d.trigger("undo");
    CHECK(d.text() == "out.r=g*2// why\n");
    d.replace_text("out.r=(");
    d.settle_text();
    d.trigger("format");
    CHECK(d.text() == "out.r=(");
    CHECK(d.window.part<app::StatusLine>().message().contains("left as it is"));
}
