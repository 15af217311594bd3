// The mix table in the real window: two ways with the text.
#include "gui/driver.hpp"
#include "widgets/tuning/mix_panel.hpp"
#include "widgets/tuning/wishes_window.hpp"

#include <QCheckBox>
#include <QMenu>
#include <QToolButton>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

struct Mix : Driver {
    MixPanel& panel;

    explicit Mix(const QString& text) : panel(window.part<app::MixPanel>()) {
        trigger("mix");
        CHECK(panel.isVisible());
        replace_text(text);
        settle();
    }
    void put(int row, int column, const QString& number) {
        NumberField* field = panel.field(row, column);
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, number);
        QTest::keyClick(field, Qt::Key_Return);
        settle();
    }
};

} // namespace

TEST_CASE("a matrix in the text and the table are one thing", "[gui][mix]") {
    Mix d("out.rgb = mat3(1, 0, 0,  0, 1, 0,  0, 0, 1) * rgb // the mix\n");
    CHECK(d.panel.field(0, 0)->isEnabled());
    CHECK(d.panel.field(1, 1)->value() == 1);
    CHECK(d.panel.said().contains("luminance kept"));
    d.put(0, 1, "0.25");
    CHECK(d.text() == "out.rgb = mat3(1, 0.25, 0,  0, 1, 0,  0, 0, 1) * rgb // the mix\n");
    CHECK(d.editor().content() == d.text());
    CHECK(d.panel.said().contains("luminance moves"));
    d.put(2, 3, "0.5");
    CHECK(d.text() == "out.rgb = mat3(1, 0.25, 0,  0, 1, 0,  0, 0, 1) * rgb + vec3(0, 0, 0.5) // the mix\n");
    // The text is the truth: what is typed there is in the table.
    d.replace_text("out.rgb = mat3(0, 1, 0,  1, 0, 0,  0, 0, 0.5) * rgb\n");
    d.settle();
    CHECK(d.panel.field(0, 1)->value() == 1);
    CHECK(d.panel.field(2, 2)->value() == 0.5);
    CHECK(d.panel.said().contains("determinant"));
    // Held sums: the row keeps what it has.
    d.panel.set_hold(2); // the own channel takes it
    d.put(2, 0, "0.25");
    CHECK(d.text().find("0.25, 0, 0.25) * rgb") != std::string::npos);
    d.window.bench().undo();
    d.settle();
    CHECK(d.panel.field(2, 2)->value() == 0.5);
    d.panel.set_hold(0);
    // Arrow keys without a pause are one step.
    d.panel.field(0, 0)->setFocus();
    for (int i = 0; i < 5; ++i)
        QTest::keyClick(d.panel.field(0, 0), Qt::Key_Up);
    d.settle();
    CHECK(d.panel.field(0, 0)->value() == Approx(0.05));
    d.window.bench().undo();
    d.settle();
    CHECK(d.panel.field(0, 0)->value() == 0);
}

TEST_CASE("swaps, rotation, inverse and resets are one click and one step each", "[gui][mix]") {
    Mix d("out.rgb = mat3(2, 0, 0,  0, 1, 0,  0, 0, 1) * rgb + vec3(0.5, 0, 0)\n");
    QMenu menu;
    d.panel.fill_menu(menu);
    const auto pick = [&](const QString& text) {
        for (QAction* action : menu.actions())
            if (action->text().startsWith(text)) {
                REQUIRE(action->isEnabled());
                action->trigger();
                d.settle();
                return;
            }
        FAIL(text.toStdString());
    };
    pick("Inverse");
    CHECK(d.text() == "out.rgb = mat3(0.5, 0, 0,  0, 1, 0,  0, 0, 1) * rgb + vec3(-0.25, 0, 0)\n");
    pick("Swap r and g");
    CHECK(d.text() == "out.rgb = mat3(0, 1, 0,  0.5, 0, 0,  0, 0, 1) * rgb + vec3(0, -0.25, 0)\n");
    pick("Rotate");
    CHECK(d.panel.field(0, 0)->value() == 0.5);
    CHECK(d.panel.field(1, 2)->value() == 1);
    d.window.bench().undo();
    d.settle();
    pick("Reset g");
    CHECK(d.panel.field(1, 1)->value() == 1);
    pick("Reset all");
    CHECK(d.panel.said().contains("luminance kept"));
    CHECK(d.session().undo_stack().undoText() == "the mix reset");
}

TEST_CASE("a rule that is a matrix shows it however it is written, and can be written as one", "[gui][mix]") {
    Mix d("param meet = 0.5 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, meet)\nout.b = mix(b, "
          "shared, meet)\nproof \"greys\" : neutral\n");
    CHECK_FALSE(d.panel.field(1, 1)->isEnabled());
    CHECK(d.panel.field(1, 1)->value() == Approx(0.75));
    d.session().set_value(0, 1);
    d.settle();
    CHECK(d.panel.field(1, 1)->value() == Approx(0.5));
    const auto before = d.after(2, 0.3);
    d.panel.write_matrix();
    d.settle();
    CHECK(d.text() ==
          "param meet = 0.5 in 0 .. 1\nout.rgb = mat3(1, 0, 0,  0, 0.5, 0.5,  0, 0.5, 0.5) * rgb\nproof \"greys\" : "
          "neutral\n");
    for (std::size_t c = 0; c < 3; ++c)
        CHECK(d.after(2, 0.3)[c] == Approx(before[c]).margin(1e-6));
    CHECK(d.panel.field(1, 1)->isEnabled());
    // No matrix: said, and one can be added behind.
    d.replace_text("out.rgb = rgb * rgb\n");
    d.settle();
    CHECK(d.panel.said().contains("not a matrix"));
    d.panel.write_matrix();
    d.settle();
    CHECK(d.text() == "out.rgb = rgb * rgb\nout.rgb = mat3(1, 0, 0,  0, 1, 0,  0, 0, 1) * out.rgb\n");
    CHECK(d.panel.field(0, 0)->isEnabled());
    d.replace_text("out.rgb = ");
    d.settle_text();
    CHECK(d.panel.said().contains("does not compile"));
    CHECK_FALSE(d.panel.field(0, 0)->isEnabled());
}

TEST_CASE("wishes become a matrix in the text, with what must hold, and say how far they are missed", "[gui][mix]") {
    Driver d;
    d.replace_text("out.rgb = rgb\n");
    d.settle();
    d.trigger("wishes");
    WishesWindow* wishes = d.window.part<app::SideWindows>().wishes();
    REQUIRE(wishes);
    wishes->add({{1, 0, 0}, {0.8, 0.1, 0}});
    wishes->add({{0, 1, 0}, {0.1, 0.9, 0.1}});
    CHECK(wishes->said().contains("largest 0"));
    wishes->rows_sum()->setChecked(true);
    // By hand: the third column is what is left of 1 in each row.
    CHECK(wishes->solved().map.matrix[0][2] == Approx(0.1));
    wishes->write();
    d.settle();
    CHECK(d.text() == "out.rgb = rgb\nout.rgb = mat3(0.8, 0.1, 0.1,  0.1, 0.9, 0,  0, 0.1, 0.9) * out.rgb\n");
    NumberField* field = wishes->field(0, 3);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, "0.7");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(wishes->wishes()[0].to[0] == 0.7);
    wishes->write(); // into the one that is there
    d.settle();
    CHECK(d.text() == "out.rgb = rgb\nout.rgb = mat3(0.7, 0.1, 0.2,  0.1, 0.9, 0,  0, 0.1, 0.9) * out.rgb\n");
    d.trigger("undo");
    CHECK(d.text().find("mat3(0.8") != std::string::npos);
    // Two wishes for one colour cannot both be met: halfway, by least squares.
    wishes->add({{1, 0, 0}, {0.5, 0.1, 0}});
    CHECK(wishes->solved().largest == Approx(0.1));
    CHECK(wishes->solved().map.matrix[0][0] == Approx(0.6));
    // A key that is held on the button does not fill the memory.
    for (int i = 0; i < 100; ++i)
        wishes->add({{0.01 * i, 0, 0}, {0, 0.01 * i, 0}});
    CHECK(wishes->wishes().size() == WishesWindow::most_wishes);
    CHECK(wishes->said().contains("48 wishes are the most"));
    CHECK(wishes->height() < 800);
    wishes->close();
}

TEST_CASE("each zone's matrix has its table", "[gui][mix]") {
    Mix d("let zone = zones(luminance(rgb), 0.1, 0.4, 0.1)\nlet dark = mat3(1, 0, 0,  0, 1, 0,  0, 0, 1) * rgb\nlet "
          "light = mat3(0.5, 0.5, 0,  0, 1, 0,  0, 0, 1) * rgb\n"
          "out.rgb = zone.x * dark + (1 - zone.x) * light\n");
    REQUIRE(d.panel.which_button()->isVisible());
    CHECK(d.panel.which_button()->text().startsWith("dark"));
    CHECK(d.panel.field(0, 1)->value() == 0);
    d.panel.choose(1);
    CHECK(d.panel.which_button()->text().startsWith("light"));
    CHECK(d.panel.field(0, 1)->value() == 0.5);
    d.panel.field(0, 1)->setFocus();
    QTest::keyClick(d.panel.field(0, 1), Qt::Key_Up);
    d.settle();
    CHECK(d.text().find("let light = mat3(0.5, 0.51, 0,") != std::string::npos);
    CHECK(d.text().find("let dark = mat3(1, 0, 0,") != std::string::npos);
    CHECK(d.panel.chosen() == 1); // stays while the text is edited
    d.replace_text("out.rgb = mat3(1, 0, 0,  0, 1, 0,  0, 0, 1) * rgb\n");
    d.settle();
    CHECK_FALSE(d.panel.which_button()->isVisible());
}

TEST_CASE("values are linked and their ranges narrowed by the menu of their row", "[gui][mix]") {
    Driver d;
    d.replace_text("param meet = 0.5 in 0 .. 1\nparam warm = 0.2 in 0 .. 1\nout.r = r * meet + warm\n");
    d.settle();
    QMenu menu;
    d.window.part<app::ValuesPanel>().fill_row_menu(menu, "meet");
    REQUIRE(menu.actions().front()->menu());
    for (QAction* action : menu.actions().front()->menu()->actions())
        if (action->text() == "warm")
            action->trigger();
    NumberField* field = d.window.part<app::ValuesPanel>().field("meet");
    field->setFocus();
    QTest::keyClick(field, Qt::Key_Up);
    d.settle();
    CHECK(d.session().values()[1] == Approx(0.21));
    QMenu again;
    d.window.part<app::ValuesPanel>().fill_row_menu(again, "warm");
    for (QAction* action : again.actions())
        if (action->text() == "Narrow the range around the value")
            action->trigger();
    field = d.window.part<app::ValuesPanel>().field("warm");
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, "0.9"); // beyond the narrower range: its end
    QTest::keyClick(field, Qt::Key_Return);
    d.settle();
    CHECK(d.session().values()[1] == Approx(0.335));
    d.session().set_value(1, 0.9); // from elsewhere: the whole range is there again
    d.settle();
    CHECK(d.window.part<app::ValuesPanel>().field("warm")->value() == Approx(0.9));
}

TEST_CASE("matrices of lets and of parameters have the table, too", "[gui][mix]") {
    Mix d("param cross = 0.25 in 0 .. 1\n"
          "let dark = mat3(1, 0, 0,  0, 1, 0,  0, 0, 1)\n"
          "let light = mat3(1, 0, 0,  cross, 0.75, 0,  0, 0, 1)\n"
          "out.rgb = mix(dark * rgb, light * rgb, smoothstep(0, 1, g))\n");
    REQUIRE(d.panel.which_button()->isVisible());
    CHECK(d.panel.which_button()->text().startsWith("dark"));
    CHECK_FALSE(d.panel.field(0, 3)->isEnabled()); // an offset has no place there
    d.put(0, 1, "0.5");
    CHECK(d.text().find("dark = mat3(1, 0.5, 0,  0, 1, 0,") != std::string::npos);
    d.panel.choose(1);
    CHECK(d.panel.field(1, 0)->value() == 0.25);
    d.put(1, 0, "0.5"); // a parameter gets another value, and the text stays
    CHECK(d.session().values() == std::vector<double>{0.5});
    CHECK(d.text().find("cross = 0.25") != std::string::npos);
    CHECK(d.panel.field(1, 0)->value() == 0.5);
    d.window.bench().undo();
    d.settle();
    CHECK(d.session().values() == std::vector<double>{0.25});
    // A row at a time, of numbers and a parameter: one step.
    d.panel.set_hold(2); // sums are held by the own channel
    d.put(1, 0, "0.5");
    CHECK(d.session().values() == std::vector<double>{0.5});
    CHECK(d.text().find("cross, 0.5, 0,") != std::string::npos);
    d.window.bench().undo();
    d.settle();
    CHECK(d.session().values() == std::vector<double>{0.25});
    CHECK(d.text().find("cross, 0.75, 0,") != std::string::npos);
    d.panel.set_hold(0);
}
