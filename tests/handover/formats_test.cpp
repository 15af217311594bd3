// LUT files of all kinds as another reader (OpenColorIO) reads them, colour decision lists, and both read back.
#include "base/file.hpp"
#include "base/file_kind.hpp"
#include "document/look_file.hpp"
#include "handover/cdl.hpp"
#include "handover/cube.hpp"
#include "handover/shader.hpp"
#include "io/lut_file.hpp"
#include "look/make.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;
using baking::bake;

namespace {

subject::Subject of_rule(const std::string& text, std::vector<double> values = {}) {
    const lang::Rule rule = good_rule(text);
    return subject::Subject(rule, values.empty() ? defaults(rule) : values);
}

std::array<double, 3> read(const ir::External& lut, const std::array<double, 3>& rgb) {
    return ir::applied(lut, rgb.data());
}

const char* const bent =
    "out.rgb = vec3(r * r * (0.5 + 0.5 * b), smoothstep(0, 1, g) * (0.7 + 0.3 * r), 0.9 * b + 0.1 * g * g)";

double largest_difference(const std::filesystem::path& file, const lang::Rule& rule, float low, float high) {
    const auto lut = io::read_lut(file);
    REQUIRE(lut);
    std::mt19937 random(11);
    std::uniform_real_distribution<float> number(low, high);
    double most = 0;
    for (int i = 0; i < 3000; ++i) {
        const Colour in = {number(random), number(random), number(random), 1};
        const auto wanted = reference_one(rule, in);
        const auto got =
            read(*lut.value(), {static_cast<double>(in[0]), static_cast<double>(in[1]), static_cast<double>(in[2])});
        for (std::size_t c = 0; c < 3; ++c)
            most = std::max(most, std::fabs(got[c] - static_cast<double>(wanted[c])));
    }
    return most;
}

} // namespace

TEST_CASE("CLF holds a matrix exactly, also far outside of 0 .. 1", "[handover]") {
    const TemporaryFolder folder;
    const std::string text =
        "param k = 0.3\nout.rgb = mat3(1 - k, k, 0, 0.1, 0.9, 0, -0.2, 0, 1.2) * rgb + vec3(0.25, 0, -0.5)";
    const auto baked = bake(of_rule(text), {});
    REQUIRE(baked);
    REQUIRE(baked.value().matrix);
    REQUIRE(handover::write_lut(folder / "m.clf", of_rule(text), baked.value()));
    CHECK(content_of(folder / "m.clf").find("LUT3D") == std::string::npos);
    CHECK(largest_difference(folder / "m.clf", good_rule(text), -100, 100) < 2e-5);
    // The identity is a file that does nothing.
    const auto nothing = bake(of_rule(""), {});
    REQUIRE(handover::write_lut(folder / "i.clf", of_rule(""), nothing.value()));
    CHECK(largest_difference(folder / "i.clf", good_rule(""), -100, 100) == 0);
}

TEST_CASE("CLF and .cube hold three curves as curves", "[handover]") {
    const TemporaryFolder folder;
    const std::string text = "out.rgb = vec3(r * r, shoulder(g, 0.4, 0.9), 1 - b)";
    for (const auto& [low, high] : {std::pair(0.0, 1.0), std::pair(-0.5, 4.0)}) {
        const auto baked = bake(of_rule(text), {17, low, high});
        REQUIRE((baked && baked.value().curves));
        for (const char* name : {"c.clf", "c.cube"}) {
            INFO(name << low);
            REQUIRE(handover::write_lut(folder / name, of_rule(text), baked.value()));
            CHECK(content_of(folder / name).find("3D") == std::string::npos);
            CHECK(largest_difference(folder / name, good_rule(text), static_cast<float>(low),
                                     static_cast<float>(high)) < 2e-5);
        }
        CHECK(baked.value().by_curves.largest < 1e-5);
    }
}

TEST_CASE("a table in CLF, with a domain and with a shaper, is what was measured", "[handover]") {
    const TemporaryFolder folder;
    const std::string text = "let c = log2(max(rgb, 0) * 16 + 1) / 8\nout.rgb = vec3(c.r * (0.8 + 0.2 * c.g), c.g * "
                             "c.g, 0.7 * c.b + 0.3 * c.r)";
    baking::BakeOptions options{33, 0, 16};
    const auto plain = bake(of_rule(text), options);
    options.shaped = true;
    const auto shaped = bake(of_rule(text), options);
    REQUIRE((plain && shaped));
    REQUIRE(handover::write_lut(folder / "p.clf", of_rule(text), plain.value()));
    REQUIRE(handover::write_lut(folder / "s.clf", of_rule(text), shaped.value()));
    CHECK(shaped.value().tetrahedral.largest < plain.value().tetrahedral.largest / 5); // that is what it is for
    for (const auto& [name, baked] : {std::pair("p.clf", &plain.value()), std::pair("s.clf", &shaped.value())}) {
        const auto lut = io::read_lut(folder / name);
        REQUIRE(lut);
        for (int i = 0; i < 200; ++i) {
            const std::array<double, 3> at = {16 * std::pow(i / 199.0, 3), 16.0 * ((i * 37) % 200) / 199,
                                              0.18 + 0.01 * i};
            const auto ours = baking::tetrahedral(baked->lut, at), theirs = read(*lut.value(), at);
            for (std::size_t c = 0; c < 3; ++c)
                CHECK_THAT(theirs[c], Catch::Matchers::WithinAbs(ours[c], 3e-5));
        }
    }
    CHECK_FALSE(handover::write_lut(folder / "s.cube", of_rule(text), shaped.value())); // it has no place for that
    CHECK_FALSE(handover::write_lut(folder / "p.3dl", of_rule(text), plain.value()));
    CHECK_FALSE(handover::write_lut(folder / "p.txt", of_rule(text), bake(of_rule(text), {}).value()));
}

TEST_CASE("every other kind that can be written can be read back", "[handover]") {
    const TemporaryFolder folder;
    const auto baked = bake(of_rule(bent), {33, 0, 1});
    REQUIRE(baked);
    int written = 0;
    for (const std::string& ending : handover::lut_endings()) {
        INFO(ending);
        const auto file = folder / ("t" + ending);
        REQUIRE(handover::write_lut(file, of_rule(bent), baked.value()));
        if (!is_kind(file, FileKind::lut))
            continue;
        ++written;
        CHECK(largest_difference(file, good_rule(bent), 0, 1) < 0.01); // some of them hold ten bits
    }
    CHECK(written >= 5);
}

TEST_CASE("the smallest table within a wished error", "[handover]") {
    const auto rough = baking::bake_for(of_rule(bent), {}, {0.05, {}}),
               fine = baking::bake_for(of_rule(bent), {}, {1e-3, {}}),
               by_eye = baking::bake_for(of_rule(bent), {}, {{}, 1.0});
    REQUIRE((rough && fine && by_eye));
    CHECK(rough.value().lut.size < fine.value().lut.size);
    for (const auto* baked : {&rough.value(), &fine.value()}) {
        const auto wished = baked == &rough.value() ? 0.05 : 1e-3;
        CHECK(baked->tetrahedral.largest <= wished);
        CHECK(baked->tetrahedral.mean <= baked->tetrahedral.most);
        CHECK(baked->tetrahedral.most <= baked->tetrahedral.largest);
    }
    CHECK((by_eye.value().tetrahedral.delta_e_largest <= 1 && by_eye.value().tetrahedral.delta_e_largest > 0));
    const auto never = baking::bake_for(of_rule("out.rgb = floor(rgb * 10) / 10"), {}, {1e-6, {}});
    REQUIRE(never);
    CHECK_FALSE(baking::near_enough(never.value(), {1e-6, {}}));
    CHECK(baking::near_enough(baking::bake_for(of_rule("out.rgb = rgb.gbr"), {}, {1e-12, {}}).value(),
                              {1e-12, {}})); // a matrix is exact
}

TEST_CASE("CIEDE2000 of a bake is that of the published test data", "[handover]") {
    // G. Sharma, W. Wu, E. N. Dalal, Color Research and Application 30 (1), 2005, pair 1 (from memory): L*a*b*
    // 50, 2.6772, -79.7751 and 50, 0, -82.7485 are 2.0425 apart. The engine's function that the errors are measured by
    // gives that.
    const Colour both = run_one("out.r = delta_e_2000(lab(50, 2.6772, -79.7751), lab(50, 0, -82.7485))", {0, 0, 0, 1});
    CHECK(static_cast<double>(both[0]) == Approx(2.0425).margin(1e-4));
}

TEST_CASE("a colour decision list is recognised in matrices and curves, written, and read back as a filter",
          "[handover][cdl]") {
    const TemporaryFolder folder;
    const auto check = [&](const std::string& text, const io::Cdl& wanted, bool exact) {
        INFO(text);
        const auto found = handover::cdl_of(of_rule(text));
        REQUIRE(found);
        CHECK(found->exact == exact);
        for (std::size_t c = 0; c < 3; ++c) {
            CHECK(found->cdl.slope[c] == Approx(wanted.slope[c]).margin(1e-5));
            CHECK(found->cdl.offset[c] == Approx(wanted.offset[c]).margin(1e-5));
            CHECK(found->cdl.power[c] == Approx(wanted.power[c]).margin(1e-4));
        }
        CHECK(found->cdl.saturation == Approx(wanted.saturation));
    };
    check("out.rgb = rgb * vec3(1.2, 1, 0.8) + vec3(0.1, 0, -0.05)", {{1.2, 1, 0.8}, {0.1, 0, -0.05}}, true);
    check("param s = 0.6\nlet c = rgb * vec3(1.2, 1, 0.8) + 0.1\nout.rgb = mix(vec3(dot(c, vec3(0.2126, 0.7152, "
          "0.0722))), c, s)",
          {{1.2, 1, 0.8}, {0.1, 0.1, 0.1}, {1, 1, 1}, 0.6}, true);
    check("param p = 1.4 in 0 .. 4\nout.rgb = slope_offset_power(rgb, vec3(1.1, 0.9, 1), vec3(0.02, 0, -0.1), vec3(p, "
          "0.8, 1.7))",
          {{1.1, 0.9, 1}, {0.02, 0, -0.1}, {1.4, 0.8, 1.7}}, true); // but for bases below 0, which it mirrors
    check("", {}, true);
    for (const char* none : {"out.rgb = rgb.gbr", "out.r = 0.5 * r + 0.5 * g", "out.rgb = sin(rgb)", bent,
                             "out.rgb = 1 - rgb", "out.rgb = blur(rgb, 2)"})
        CHECK_FALSE(handover::cdl_of(of_rule(none)));
    const io::Cdl list{{1.1, 0.9, 1}, {0.02, -0.01, 0}, {1.2, 1, 0.8}, 0.75, "shot-7", "warm"};
    for (const char* name : {"a.cc", "a.ccc", "a.cdl"}) {
        INFO(name);
        REQUIRE(io::write_cdl(folder / name, list));
        const auto back = io::read_cdl(folder / name);
        REQUIRE((back && back.value().size() == 1));
        CHECK(back.value()[0].slope == list.slope);
        CHECK(back.value()[0].power == list.power);
        CHECK(back.value()[0].saturation == list.saturation);
        CHECK(back.value()[0].id == "shot-7");
    }
    // ASC CDL 1.2: out = (in * slope + offset) ^ power, then saturation about luma; worked by hand here for one colour.
    const lang::Rule rule = good_rule(handover::filter_of(list, "Shot \"7\"", "acescct"));
    CHECK(rule.title == "Shot  7 ");
    const Colour got = run(rule, {{0.5f, 0.25f, 0.75f, 1}}).front();
    const double r = std::pow(0.5 * 1.1 + 0.02, 1.2), g = 0.25 * 0.9 - 0.01, b = std::pow(0.75, 0.8),
                 y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    CHECK(static_cast<double>(got[0]) == Approx(y + 0.75 * (r - y)).epsilon(1e-5));
    CHECK(static_cast<double>(got[2]) == Approx(y + 0.75 * (b - y)).epsilon(1e-5));
    write(folder / "broken.cc", "<ColorCorrection><SOPNode><Slope>1 2</Slope>");
    CHECK_FALSE(io::read_cdl(folder / "broken.cc"));
    CHECK_FALSE(io::read_cdl(folder / "gone.cc"));
}

TEST_CASE("a LUT is a step of a look, with a copy of its own, and does what it did as a rule", "[handover][look]") {
    const TemporaryFolder folder;
    const auto baked = bake(of_rule(bent), {65, 0, 1});
    REQUIRE(handover::write_lut(folder / "bent.cube", of_rule(bent), baked.value()));
    document::Look look;
    look.steps = {document::step_from(folder / "bent.cube").value()};
    look.steps[0].space = "rec709-linear";
    look.steps[0].opacity = 0.5;
    document::LookStep turn;
    turn.text = "out.rgb = rgb.gbr\n";
    look.steps.push_back(turn);
    REQUIRE(document::save_look(folder / "l.kasurilook", look));
    std::filesystem::remove(folder / "bent.cube"); // its copy is in the look
    const document::Look again = document::load_look(folder / "l.kasurilook").value();
    CHECK(again == look);
    const auto runs = look::make(again, folder.path);
    REQUIRE(runs);
    CHECK(runs.value().notes.size() == 1); // which says that the file is gone
    const auto program = runs.value().subject.program();
    const Colour in = {0.3f, 0.6f, 0.45f, 1};
    const Colour bent_colour = reference_one(good_rule(bent), in);
    const image::Picture picture = image::generated(1, 1, [&](int, int) {
        return std::array<double, 3>{0.3, 0.6, 0.45};
    });
    const auto out = engine::evaluate(*program, picture, runs.value().subject.values());
    REQUIRE(out);
    engine::ReferencePixel pixel;
    pixel.rgba = {0.3, 0.6, 0.45, 1};
    const auto reference =
        engine::reference_chain(runs.value().subject.steps(), runs.value().subject.values(), "rec709-linear", pixel);
    for (std::size_t c = 0; c < 3; ++c) {
        const std::size_t from = (c + 1) % 3;
        CHECK_THAT(static_cast<double>(out->at(0)[c]),
                   Catch::Matchers::WithinAbs(
                       0.5 * (static_cast<double>(in[from]) + static_cast<double>(bent_colour[from])), 1e-3));
        CHECK_THAT(reference[c], Catch::Matchers::WithinAbs(static_cast<double>(out->at(0)[c]), 1e-6));
    }
    document::Look wrong = again;
    wrong.steps[0].lut_text = document::SharedText("LUT_3D_SIZE 9999\n0 0 0\n");
    CHECK_FALSE(look::make(wrong, folder.path));
    wrong = again;
    wrong.steps[0].space = "nowhere";
    CHECK_FALSE(look::make(wrong, folder.path));
    CHECK_FALSE(handover::shader(runs.value().subject));
}

TEST_CASE("broken LUT files and lists are errors, never anything else", "[handover]") {
    const TemporaryFolder folder;
    const auto baked = bake(of_rule(bent), {9, 0, 1});
    REQUIRE(handover::write_lut(folder / "t.cube", of_rule(bent), baked.value()));
    REQUIRE(handover::write_lut(folder / "t.clf", of_rule(bent), baked.value()));
    REQUIRE(io::write_cdl(folder / "t.ccc", {}));
    std::mt19937 random(3);
    for (const char* ending : {".cube", ".clf", ".ccc"}) {
        const std::string whole = content_of(folder / (std::string("t") + ending));
        for (int trial = 0; trial < 150; ++trial) {
            std::string text = whole;
            for (int change = 1 + static_cast<int>(random() % 3); change > 0 && !text.empty(); --change) {
                const std::size_t at = random() % text.size();
                if (random() % 4 == 0)
                    text.resize(at);
                else if (random() % 2 == 0)
                    text[at] = static_cast<char>(random());
                else
                    text.erase(at, random() % 60);
            }
            const auto file = folder / (std::string("broken") + ending);
            write(file, text);
            if (is_kind(file, FileKind::correction)) {
                if (const auto read = io::read_cdl(file); !read)
                    CHECK_FALSE(read.error().text().empty());
            } else if (const auto lut = io::read_lut(file); !lut) {
                CHECK_FALSE(lut.error().text().empty());
            }
        }
    }
    write(folder / "huge.cube", "LUT_3D_SIZE 2000000000\n0 0 0\n");
    CHECK_FALSE(io::read_lut(folder / "huge.cube"));
    CHECK_FALSE(io::read_lut(folder.path));
}

TEST_CASE("values and opacities find their steps, past steps that are off and looks of nothing", "[handover][look]") {
    const auto step = [](double k, double opacity) {
        document::LookStep made;
        made.text = "param k = 0 in 0 .. 9\nout.rgb = rgb * k\n";
        made.values = {{"k", k}};
        made.opacity = opacity;
        return made;
    };
    const auto whole = [](std::vector<document::LookStep> within, double opacity) {
        document::LookStep made;
        made.is_look = true;
        made.within = std::move(within);
        made.opacity = opacity;
        return made;
    };
    document::LookStep off = step(8, 0.8);
    off.on = false;
    document::Look look;
    look.steps = {off, whole({whole({off}, 0.1), whole({step(2, 0.2), off}, 0.3), step(4, 0.4)}, 0.5), whole({}, 0.6),
                  step(7, 0.7)};
    const auto runs = look::make(look, {});
    REQUIRE(runs);
    CHECK(runs.value().numbers == std::vector<std::size_t>{1, 3});
    CHECK(runs.value().subject.values() == std::vector<double>{2, 0.2, 0.3, 4, 0.4, 0.5, 7, 0.7});
    CHECK(engine::chain_parameters(runs.value().subject.steps()) == 8);
    look.steps[1].within[2].values["k"] = 5; // other values, the same steps
    look.steps[3].opacity = 0.9;
    CHECK(look::same_structure(look, look));
    CHECK(look::values_of(runs.value(), look) == std::vector<double>{2, 0.2, 0.3, 5, 0.4, 0.5, 7, 0.9});
    document::Look other = look;
    other.steps[3].opacity = 1; // which is another structure: it is not mixed any more
    CHECK_FALSE(look::same_structure(other, look));
    const subject::Subject subject = runs.value().subject;
    CHECK(subject.parameters().size() == 8);
    CHECK(subject.parameters().back().identifier == "step4_opacity");
}
