// The interface for a bright, a dim and a dark room: achromatic, readable, switched while it runs; the surround of
// pictures stays.
#include "gui/driver.hpp"
#include "widgets/parts/room_menu.hpp"
#include "widgets/parts/theme.hpp"

#include <QMenu>

#include <cmath>

using namespace kasuri;
using namespace kasuri::app;
using kasuri::test::Driver;

namespace {

/// WCAG 2.2, "contrast ratio" and "relative luminance".
double luminance(const QColor& colour) {
    const auto linear = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * linear(static_cast<double>(colour.redF())) + 0.7152 * linear(static_cast<double>(colour.greenF())) +
        0.0722 * linear(static_cast<double>(colour.blueF()));
}
double contrast(const QColor& a, const QColor& b) {
    const double x = luminance(a), y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

} // namespace

TEST_CASE("every room is achromatic, and its text can be read", "[gui][room]") {
    REQUIRE(theme::rooms().size() == 3);
    for (const theme::Room& room : theme::rooms()) {
        INFO(room.name);
        for (const QColor& grey :
             {room.chrome, room.field, room.current_line, room.hairline, room.grid, room.text, room.second, room.third})
            CHECK((grey.red() == grey.green() && grey.green() == grey.blue()));
        for (const QColor& paper :
             {room.chrome, room.field}) { // WCAG 2.2, 1.4.3 and 1.4.11: 4.5 for text, 3 for parts of graphics
            CHECK(contrast(room.text, paper) > 4.5);
            CHECK(contrast(room.second, paper) > 4.5);
            CHECK(contrast(room.third, paper) > 4);
            for (const QColor& mark : {room.accent, room.good, room.bad, room.trace[0], room.trace[1], room.trace[2]})
                CHECK(contrast(mark, paper) > 2.8);
        }
    }
}

TEST_CASE("the room is switched while the bench runs", "[gui][room]") {
    Driver d;
    const auto at = [&](QWidget& widget, int x, int y) { return QColor(widget.grab().toImage().pixel(x, y)); };
    const QColor surround = at(d.sheet(), 5, d.sheet().height() - 4);
    CHECK(at(d.window, 600, 20) == theme::rooms()[0].chrome);
    QMenu menu;
    fill_rooms(menu);
    REQUIRE(menu.actions().size() == 3);
    menu.actions()[2]->trigger();
    CHECK(theme::is_dark());
    CHECK(at(d.window, 600, 20) == theme::rooms()[2].chrome);
    CHECK(at(d.editor(), d.editor().width() - 30, d.editor().height() - 10) == theme::rooms()[2].field);
    CHECK(at(d.sheet(), 5, d.sheet().height() - 4) == surround);
    restore_room(); // it was remembered
    CHECK(theme::is_dark());
    theme::set_room("bright");
    CHECK(at(d.window, 600, 20) == theme::rooms()[0].chrome);
    CHECK(at(d.editor(), d.editor().width() - 30, d.editor().height() - 10) == theme::rooms()[0].field);
    menu.actions()[0]->trigger();
}
