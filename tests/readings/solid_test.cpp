// The cube of colours as a body in a room: where its corners come to lie, what folds, what is cut and what is outside.
#include "colour/models/models.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "io/print.hpp"
#include "readings/reading.hpp"
#include "support/press.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::readings;
using namespace kasuri::test;

namespace {

/// Settings in the order of the reading's table.
struct Wanted {
    double model = 0, shells = 0, steps = 5, top = 1, cut = 0, height = 0.5, hue = 0, own = 0, prints = 0;
    std::vector<double> list() const { return {model, shells, steps, top, cut, height, hue, own, prints}; }
};

struct Body {
    Measured measured;
    const Solid& solid() const {
        for (const Layer& layer : measured.layers)
            if (const auto* found = std::get_if<Solid>(&layer.data))
                return *found;
        throw std::runtime_error("no solid");
    }
    std::vector<const Wires*> wires() const {
        std::vector<const Wires*> all;
        for (const Layer& layer : measured.layers)
            if (const auto* found = std::get_if<Wires>(&layer.data))
                all.push_back(found);
        return all;
    }
    /// -1: there is no such figure.
    double figure(const std::string& name) const {
        for (const Figure& f : measured.figures)
            if (f.name == name)
                return f.value;
        return -1;
    }
};

Body body(const std::string& text, const Wanted& wanted = {}) {
    const lang::Rule rule = good_rule(text);
    const engine::ProgramPtr program = engine::compile(rule);
    const std::vector<double> values = defaults(rule);
    Views views;
    Order order;
    order.rule = [&](const image::Picture& picture) { return engine::evaluate(*program, picture, values); };
    order.working = engine::working_space(rule);
    order.settings = completed(find("solid")->settings, wanted.list());
    order.views = &views;
    const auto measured = find("solid")->measure(order);
    REQUIRE(measured);
    return {*measured};
}

/// The point that was made of these numbers.
Solid::Point at(const Solid& solid, const Solid::Point& from) {
    for (std::size_t i = 0; i < solid.from.size(); ++i)
        if (solid.from[i] == from)
            return solid.points[i];
    FAIL("no such point");
    return {};
}

} // namespace

TEST_CASE("corners of the cube lie where the models have them", "[readings][solid]") {
    // CSS Color 4's sample values of sRGB red, green and blue in OKLab (L, a, b), and CIE L*a*b* under D65 (Lindbloom's
    // calculator; both from memory, to three and two digits).
    const Body ok = body("out.rgb = rgb", {.model = 1});
    const struct {
        Solid::Point from, oklab, lab;
    } rows[] = {{{1, 0, 0}, {0.225f, 0.126f, 0.628f}, {80.09f, 67.20f, 53.24f}},
                {{0, 1, 0}, {-0.234f, 0.179f, 0.866f}, {-86.18f, 83.18f, 87.73f}},
                {{0, 0, 1}, {-0.032f, -0.312f, 0.452f}, {79.19f, -107.86f, 32.30f}},
                {{1, 1, 1}, {0, 0, 1}, {0, 0, 100}},
                {{0, 0, 0}, {0, 0, 0}, {0, 0, 0}}};
    const Body lab = body("out.rgb = rgb");
    for (const auto& row : rows) {
        const Solid::Point seen = at(ok.solid(), row.from), cie = at(lab.solid(), row.from);
        for (std::size_t i = 0; i < 3; ++i) {
            CHECK(static_cast<double>(seen[i]) == Approx(static_cast<double>(row.oklab[i])).margin(6e-4));
            CHECK(static_cast<double>(cie[i]) == Approx(static_cast<double>(row.lab[i])).margin(0.02));
        }
    }
    // Every room against the double-precision models.
    const colour::Space& space = *colour::find_space("rec709-linear");
    for (const auto& [model, index, order] : {std::tuple{&colour::lab_model, 0.0, std::array{1, 2, 0}},
                                              std::tuple{&colour::oklab_model, 1.0, std::array{1, 2, 0}},
                                              std::tuple{&colour::xyy_model, 2.0, std::array{0, 1, 2}},
                                              std::tuple{&colour::ictcp_model, 3.0, std::array{1, 2, 0}}}) {
        const Body made = body("out.rgb = rgb * 0.7 + 0.1", {.model = index});
        INFO(std::string(model->name));
        REQUIRE(made.solid().points.size() == 125);
        for (std::size_t i = 0; i < 125; ++i) {
            const auto& from = made.solid().from[i];
            const colour::Triple exact =
                colour::from_rgb(*model, space,
                                 {0.7 * static_cast<double>(from[0]) + 0.1, 0.7 * static_cast<double>(from[1]) + 0.1,
                                  0.7 * static_cast<double>(from[2]) + 0.1});
            for (std::size_t c = 0; c < 3; ++c)
                CHECK(static_cast<double>(made.solid().points[i][c]) ==
                      Approx(exact[static_cast<std::size_t>(order[c])]).epsilon(1e-4).margin(1e-4));
        }
    }
    const Body own = body("working srgb\nout.rgb = rgb.bgr", {.model = 4});
    CHECK(at(own.solid(), {1, 0.25f, 0}) == Solid::Point{0, 0.25f, 1});
}

TEST_CASE("the surface of the cube is whole: six sides, every inner edge twice", "[readings][solid]") {
    const Body made = body("out.rgb = rgb", {.steps = 6});
    const Solid& solid = made.solid();
    CHECK(solid.points.size() == 216);
    CHECK(solid.faces.size() == 6 * 25);
    std::map<std::pair<std::uint32_t, std::uint32_t>, int> edges;
    for (const auto& face : solid.faces)
        for (std::size_t k = 0; k < 4; ++k) {
            const auto [low, high] = std::minmax(face[k], face[(k + 1) % 4]);
            ++edges[{low, high}];
        }
    // A closed surface: each edge belongs to two faces; and Euler's V - E + F = 2.
    std::set<std::uint32_t> corners;
    for (const auto& face : solid.faces)
        corners.insert(face.begin(), face.end());
    for (const auto& [edge, count] : edges)
        CHECK(count == 2);
    CHECK(static_cast<int>(corners.size()) - static_cast<int>(edges.size()) + static_cast<int>(solid.faces.size()) ==
          2);
    CHECK(solid.folded.empty());
    CHECK(solid.collapsed.empty());
    CHECK(made.figure("folded cells") == -1);
    CHECK(body("out.rgb = rgb", {.steps = 2}).solid().faces.size() == 6);
}

TEST_CASE("cells that are turned over, and cells that have lost their volume", "[readings][solid]") {
    // |x - 0.3| in every channel turns over what is below: of 8 cells along an edge two lie wholly below (0 to 0.25).
    // An odd number of channels turned makes a turned cell: 3 * 1/4 * (3/4)^2 + (1/4)^3.
    const Body folded = body("out.rgb = abs(rgb - 0.3)", {.steps = 9});
    CHECK(folded.figure("folded cells") == Approx(100 * (3 * 0.25 * 0.5625 + 0.015625)));
    CHECK(folded.solid().folded.size() == 224);
    CHECK(folded.figure("cells without volume") == -1);
    // A swap of two channels turns everything over, which is no fold: nothing is turned against the rest.
    CHECK(body("out.rgb = rgb.grb").figure("folded cells") == -1);
    CHECK(body("out.rgb = rgb.grb").figure("cells without volume") == -1);
    // A mono matrix leaves a line of it; a swap onto one plane a sheet; a clamp flattens what it clips.
    CHECK(body("out.rgb = vec3(luma(rgb))").figure("cells without volume") == Approx(100));
    CHECK(body("out.g = b").figure("cells without volume") == Approx(100));
    const Body clipped = body("out.rgb = min(rgb, 0.5)", {.steps = 5});
    CHECK(clipped.figure("cells without volume") == Approx(100 * (1 - 0.125))); // all but the 2 x 2 x 2 of 4 x 4 x 4
    CHECK(clipped.figure("folded cells") == -1);
    // What is no number has no volume, and is nowhere.
    const Body nowhere = body("out.rgb = rgb / (r > 0.6 ? 0 : 1)", {.steps = 5});
    CHECK(nowhere.figure("cells without volume") > 40);
}

TEST_CASE("what lies outside of a space is counted, and its edges are wires", "[readings][solid]") {
    const Body all = body("working rec2020-linear\nout.rgb = rgb", {.shells = 4, .steps = 9});
    REQUIRE(all.wires().size() == 4);
    CHECK(all.wires()[2]->name == "2020");
    // BT.2020's cube is inside of itself; BT.709's is inside of P3's, and that (nearly) of BT.2020's: each holds less.
    CHECK(all.figure("outside 2020") == Approx(0).margin(1e-9));
    CHECK(all.figure("outside 709") > all.figure("outside P3"));
    CHECK(all.figure("outside P3") > 10);
    for (const Wires* wires : all.wires()) {
        CHECK(wires->lines.size() == 12);
        for (const auto& line : wires->lines)
            CHECK(line.size() == 13);
    }
    // The edges of BT.709 are those of its own cube: its corners are among the points of the untouched one.
    const Body own = body("out.rgb = rgb", {.shells = 1, .steps = 2});
    CHECK(own.figure("outside 709") == 0);
    for (const auto& line : own.wires()[0]->lines)
        for (const Solid::Point& end : {line.front(), line.back()})
            CHECK(std::any_of(own.solid().points.begin(), own.solid().points.end(), [&](const Solid::Point& corner) {
                return std::hypot(corner[0] - end[0], corner[1] - end[1], corner[2] - end[2]) < 0.01f;
            }));
    // Twice as bright: of 9 levels 0 to 0.5 stay in, which is 5; (5/9)^3 of the points.
    CHECK(body("out.rgb = rgb * 2", {.shells = 1, .steps = 9}).figure("outside 709") ==
          Approx(100 * (1 - std::pow(5.0 / 9, 3))));
    CHECK(body("out.rgb = rgb", {.top = 2}).solid().from.back() == Solid::Point{2, 2, 2});
}

TEST_CASE("a cut takes away what is above it and marks where the lattice meets it", "[readings][solid]") {
    const Body whole = body("out.rgb = rgb", {.steps = 9});
    const Body low = body("out.rgb = rgb", {.steps = 9, .cut = 1, .height = 0.5}); // L* of 60, half of 120
    CHECK(low.solid().faces.size() < whole.solid().faces.size());
    CHECK_FALSE(low.solid().section.empty());
    for (const std::uint32_t i : low.solid().section)
        CHECK(static_cast<double>(low.solid().points[i][2]) == Approx(60).margin(1e-3));
    for (const auto& face : low.solid().faces) {
        float sum = 0;
        for (const std::uint32_t corner : face)
            sum += low.solid().points[corner][2] / 4;
        CHECK(sum <= 60.001f);
    }
    // Along a hue: all points of the cut lie in the plane of that hue and of the neutral axis.
    const Body leaf = body("out.rgb = rgb", {.model = 1, .steps = 9, .cut = 2, .hue = 30});
    CHECK_FALSE(leaf.solid().section.empty());
    for (const std::uint32_t i : leaf.solid().section) {
        const Solid::Point& p = leaf.solid().points[i];
        CHECK(static_cast<double>(p[0]) * std::sin(30 * std::numbers::pi / 180) -
                  static_cast<double>(p[1]) * std::cos(30 * std::numbers::pi / 180) ==
              Approx(0).margin(1e-5));
    }
    CHECK(body("out.rgb = rgb", {.cut = 1, .height = 0}).solid().section.size() <
          low.solid().section.size()); // at most at black
}

TEST_CASE("the numbers of a solid as CSV come back by another reader", "[readings][solid]") {
    const Wanted wanted{.model = 4, .shells = 1, .steps = 3};
    const Body made = body("out.rgb = rgb.gbr", wanted);
    const std::string text = csv(find("solid")->panels(wanted.list()), made.measured);
    std::istringstream lines(text);
    std::string line;
    REQUIRE(std::getline(lines, line));
    CHECK(line == "r,g,b,r,g,b");
    int points = 0;
    while (std::getline(lines, line) && !line.empty()) {
        double v[6];
        REQUIRE(std::sscanf(line.c_str(), "%lf,%lf,%lf,%lf,%lf,%lf", &v[0], &v[1], &v[2], &v[3], &v[4], &v[5]) == 6);
        CHECK(v[3] == v[1]);
        CHECK(v[4] == v[2]);
        CHECK(v[5] == v[0]);
        ++points;
    }
    CHECK(points == 27);
    REQUIRE(std::getline(lines, line));
    CHECK(line == "r,g,b,edge of 709");
    CHECK(text.find("outside 709,,0,%") != std::string::npos);
}

TEST_CASE("the colours of pictures in a room: as many points as were asked for, about", "[readings][solid]") {
    image::Picture picture = image::generated(200, 100, [](int x, int y) {
        return std::array<double, 3>{x / 100.0, y / 99.0, 0.5}; // half of it is brighter than white
    });
    picture.space = "rec709-linear";
    Views views;
    Order order;
    order.pictures = {&picture, &picture};
    order.views = &views;
    order.settings = completed(find("cloud")->settings, std::vector<double>{4, 1, 1000});
    const auto measured = find("cloud")->measure(order);
    REQUIRE(measured);
    const Solid& solid = std::get<Solid>(measured->layers.front().data);
    CHECK(solid.points.size() == 1000);
    CHECK(solid.faces.empty());
    CHECK(solid.points == solid.from); // the room of r, g, b of the same space
    REQUIRE(measured->figures.size() == 1);
    const double out = measured->figures[0].value;
    CHECK(out == Approx(49.5).margin(1.5));
}

TEST_CASE("measuring a solid is called off as other readings are", "[readings][solid]") {
    Views views;
    Order order;
    order.views = &views;
    order.settings = completed(find("solid")->settings, {});
    order.rule = [](const image::Picture&) { return std::optional<image::Picture>(); };
    CHECK_FALSE(find("solid")->measure(order));
    order.rule = [](const image::Picture& picture) { return std::optional(picture); };
    order.cancel.cancel();
    CHECK_FALSE(find("solid")->measure(order));
}

TEST_CASE("the edges of the rule's own space are wires too, and of the pictures' spaces", "[readings][solid]") {
    // An encoded space has the edges of its primaries: those of P3 as light, once more.
    Wanted wanted;
    wanted.own = 1;
    const Body own = body("working p3-d65\nout.r = r * 1.5", wanted);
    REQUIRE(own.wires().size() == 1);
    CHECK(own.wires()[0]->name == "p3-d65");
    CHECK(own.figure("outside p3-d65") > 0);
    wanted.own = 0;
    wanted.shells = 2;
    const Body known = body("working p3-d65\nout.r = r * 1.5", wanted);
    const auto& as_light = known.wires()[1]->lines;
    REQUIRE(as_light.size() == own.wires()[0]->lines.size());
    for (std::size_t edge = 0; edge < as_light.size(); ++edge)
        for (const std::size_t end : {std::size_t{0}, as_light[edge].size() - 1}) // between them codes are no light
            for (std::size_t i = 0; i < 3; ++i)
                CHECK(own.wires()[0]->lines[edge][end][i] == Approx(as_light[edge][end][i]).margin(0.01));
    wanted.own = 1; // known by another name already: once
    wanted.shells = 4;
    CHECK(body("working acescg\nout.r = r", wanted).wires().size() == 4);

    image::Picture picture = image::generated(4, 1, [](int x, int) { return std::array<double, 3>{x / 3.0, 0.5, 0}; });
    picture.space = "srgb";
    Views views;
    Order order;
    order.pictures = {&picture};
    order.settings = completed(find("cloud")->settings, std::vector<double>{0, 0, 100, 2});
    order.views = &views;
    const auto measured = find("cloud")->measure(order);
    REQUIRE(measured);
    const auto wires = std::find_if(measured->layers.begin(), measured->layers.end(),
                                    [](const Layer& layer) { return std::holds_alternative<Wires>(layer.data); });
    REQUIRE(wires != measured->layers.end());
    CHECK(std::get<Wires>(wires->data).name == "srgb");
}

TEST_CASE("what a press can hold is a shell whose corners are its inks, and what is outside counts by the difference",
          "[readings][solid][print]") {
    const TemporaryFolder folder;
    write_press(folder / "ford.icc");
    REQUIRE(io::add_prints(folder / "ford.icc"));
    Wanted wanted;
    wanted.model = 4; // r, g, b of linear BT.709
    CHECK(body("out.rgb = rgb", wanted).wires().empty());
    wanted.prints = 1;
    const Body shown = body("out.rgb = rgb", wanted);
    REQUIRE(shown.wires().size() == 1);
    CHECK(shown.wires()[0]->name == "ford");
    const auto& lines = shown.wires()[0]->lines;
    REQUIRE(lines.size() == 12 + 8); // of the cube of three inks, and from its corners to black
    // The formula of the press (support/press.hpp) at the ends: every corner with and without black.
    std::size_t found = 0;
    for (int corner = 0; corner < 16; ++corner) {
        std::array<double, 4> inks{};
        for (std::size_t i = 0; i < 4; ++i)
            inks[i] = corner >> i & 1;
        const auto light = InkPress::left_by(inks);
        const bool there = std::any_of(lines.begin(), lines.end(), [&](const auto& line) {
            const auto is = [&](const Solid::Point& p) {
                return std::fabs(static_cast<double>(p[0]) - light[0]) +
                    std::fabs(static_cast<double>(p[1]) - light[1]) + std::fabs(static_cast<double>(p[2]) - light[2]) <
                    0.005;
            };
            return is(line.front()) || is(line.back());
        });
        found += there ? 1 : 0;
    }
    CHECK(found == 16);
    // Of a cube of 5 points along an edge, those are outside that one by one are more than 2 away.
    const auto press = io::Press::open(folder / "ford.icc");
    int outside = 0;
    for (int i = 0; i < 125; ++i)
        outside += press.value()->beyond({i % 5 / 4.0, i / 5 % 5 / 4.0, i / 25 / 4.0}) > colour::outside_print ? 1 : 0;
    CHECK(outside > 20);
    CHECK(shown.figure("outside ford") == Approx(100 * outside / 125.0));
}
