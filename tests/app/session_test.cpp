#include "model/display.hpp"
#include "model/readout.hpp"
#include "model/session.hpp"

#include "colour/space.hpp"
#include "proof/proof.hpp"

#include <catch2/catch.hpp>

#include <cmath>

using namespace kasuri;
using namespace kasuri::app;

namespace {
void understand(Session& session) {
    session.set_checked(session.text(),
                        std::make_shared<const lang::Checked>(lang::check(session.text(), proof::vocabulary())));
}
void type(Session& session, const std::string& text) {
    for (const char c : text)
        session.record_edit({static_cast<std::uint32_t>(session.text().size()), "", std::string(1, c)});
}
} // namespace

TEST_CASE("typing without a pause is one step of undo", "[model]") {
    Session session;
    const std::string start = session.text();
    type(session, "out.g = b");
    CHECK(session.undo_stack().count() == 1);
    session.undo_stack().undo();
    CHECK(session.text() == start);
    session.undo_stack().redo();
    CHECK(session.text() == start + "out.g = b");
}

TEST_CASE("a check of a text that is gone changes nothing", "[model]") {
    Session session;
    const std::string before = session.text();
    type(session, "nonsense");
    session.set_checked(before, std::make_shared<const lang::Checked>(lang::check(before, proof::vocabulary())));
    CHECK(session.rule() == nullptr);
    understand(session);
    CHECK_FALSE(session.compiles());
}

TEST_CASE("chosen values outlive a broken text and follow a narrowed range", "[model]") {
    Session session;
    type(session, "param k = 0 in 0 .. 4\nout.r = k\n");
    understand(session);
    session.set_value(0, 3);
    type(session, "x x");
    understand(session);
    CHECK_FALSE(session.compiles());
    CHECK(session.values() == std::vector<double>{3});
    const std::string text = "param k = 0 in 0 .. 2\nout.r = k";
    session.apply_edit({0, session.text(), text}, "new");
    understand(session);
    CHECK(session.values() == std::vector<double>{2});
}

TEST_CASE("values become a preset or the defaults in the text, undoably", "[model]") {
    Session session;
    session.apply_edit({0, session.text(), "param k = 0 in 0 .. 1\nout.r = k"}, "new");
    understand(session);
    session.set_value(0, 0.25);
    session.write_preset("Quarter");
    CHECK(session.text() == "param k = 0 in 0 .. 1\npreset \"Quarter\" k = 0.25\nout.r = k");
    understand(session);
    session.write_defaults();
    CHECK(session.text() == "param k = 0.25 in 0 .. 1\npreset \"Quarter\" k = 0.25\nout.r = k");
    session.undo_stack().undo();
    session.undo_stack().undo();
    CHECK(session.text() == "param k = 0 in 0 .. 1\nout.r = k");
}

TEST_CASE("display codes are those of the sRGB encoding", "[model]") {
    CHECK(display_code(0) == 0);
    CHECK(display_code(1) == 255);
    CHECK(display_code(20) == 255);
    CHECK(display_code(-1) == 0);
    CHECK(display_code(std::nanf("")) == 0);
    for (int code = 0; code < 256; ++code) // every code comes back
        CHECK(display_code(static_cast<float>(colour::srgb_decode(code / 255.0))) == code);
}

TEST_CASE("reducing a picture averages it, weighted by alpha", "[model]") {
    image::Picture picture = image::generated(4, 2, [](int x, int y) {
        return std::array<double, 3>{x + 4.0 * y, 1, 0};
    });
    const image::Picture small = downscaled(picture, 2, 1);
    CHECK(small.at(0, 0)[0] == 2.5f); // of 0 1 4 5
    CHECK(small.at(1, 0)[1] == 1);
    picture.planes[3] = image::make_plane({1, 0, 1, 0, 1, 0, 1, 0});
    const image::Picture weighted = downscaled(picture, 2, 1);
    CHECK(weighted.at(0, 0)[0] == 2); // of 0 and 4
    CHECK(weighted.at(0, 0)[3] == 0.5f);
    const image::Picture large = downscaled(picture, 8, 4); // nearest where enlarged
    CHECK(large.at(7, 3) == picture.at(3, 1));
}

TEST_CASE("lenses show single numbers as neutral greys, opaque", "[model]") {
    const image::Picture picture = image::generated(1, 1, [](int, int) {
        return std::array<double, 3>{0.2, 0.5, 0.8};
    });
    for (const Lens& lens : lenses()) {
        readings::Views views;
        image::Picture of = picture;
        if (lens.of_rule()) // it gets numbers, one for each pixel
            of.planes = {picture.planes[0], picture.planes[0], picture.planes[0], nullptr};
        const QRgb shown_pixel = shown(of, lens, {}, nullptr, &views).pixel(0, 0);
        if (lens.id != "colour" && lens.id != "veil" && lens.group != "other eyes" && !lens.ring) {
            CHECK(qRed(shown_pixel) == qGreen(shown_pixel));
            CHECK(qGreen(shown_pixel) == qBlue(shown_pixel));
        }
    }
    CHECK(qRed(shown(picture, lens("green")).pixel(0, 0)) == display_code(0.5f));
    CHECK(qRed(shown(picture, lens("alpha")).pixel(0, 0)) == 255);
    CHECK(qRed(shown(picture, lens("luminance")).pixel(0, 0)) ==
          display_code(static_cast<float>(0.2126 * 0.2 + 0.7152 * 0.5 + 0.0722 * 0.8)));
    CHECK(lens("no such lens").id == "colour");
}

TEST_CASE("a transparent picture is laid over the surround", "[model]") {
    image::Picture picture = image::generated(1, 1, [](int, int) { return std::array<double, 3>{1, 0, 0}; });
    picture.planes[3] = image::make_plane({0.0f});
    CHECK(qRed(shown(picture, lens("colour")).pixel(0, 0)) == 0x77);
    for (const double lightness : {0.0, 5.0, 20.0, 75.0, 100.0}) {
        Screen screen;
        screen.surround = lightness;
        CHECK(qRed(shown(picture, lens("colour"), screen).pixel(0, 0)) == surround_colour(screen).red());
    }
}

TEST_CASE("the surround is the grey of its lightness, on every screen", "[model]") {
    const auto code = [](double lightness, const char* space = "srgb") {
        return surround_colour({space, Limits::hard, lightness}).red();
    };
    // L* of CIE 15:2018, inverted, through the sRGB curve of IEC 61966-2-1; worked out by hand.
    CHECK(code(0) == 0);
    CHECK(code(20) == 48);
    CHECK(code(50) == 119);
    CHECK(code(75) == 185);
    CHECK(code(100) == 255);
    CHECK(code(-5) == 0);
    CHECK(code(140) == 255);
    CHECK(static_cast<double>(surround_light({"srgb", Limits::hard, 4})) ==
          Approx(4 * 27.0 / 24389));          // the straight part
    CHECK(code(50, "rec709-display") == 126); // a pure power of 2.4: BT.1886
    CHECK(code(50, "no such screen") == 119);
    for (int lightness = 0; lightness <= 100; ++lightness) { // WCAG 2.2, contrast ratio
        const Screen screen{"srgb", Limits::hard, static_cast<double>(lightness)};
        const double behind = colour::srgb_decode(surround_colour(screen).redF()),
                     on = static_cast<double>(on_surround(screen).redF());
        CHECK((std::max(behind, on) + 0.05) / (std::min(behind, on) + 0.05) > 4.4);
    }
    for (const Surround& row : surrounds())
        CHECK((row.lightness >= 0 && row.lightness <= 100));
}

TEST_CASE("the numbers panel decodes before it weighs", "[model]") {
    Readout readout{true, "x", "y", {0.5f, 0.5f, 0.5f, 1}, {1, 1, 1, 1}, "srgb"};
    const auto rows = rows_of(readout);
    CHECK(rows[4].name == "Y");
    CHECK(rows[4].before == Approx(colour::srgb_decode(0.5)));
    CHECK(rows[5].after == Approx(100));
    CHECK(rows[6].after == Approx(0).margin(1e-9));
}
