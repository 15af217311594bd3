// Spaces of an OpenColorIO config: as working, picture and display spaces, against OpenColorIO itself.
#include "builtins/builtin.hpp"
#include "colour/model.hpp"
#include "io/config.hpp"
#include "io/picture_file.hpp"
#include "lang/assist.hpp"
#include "lang/check.hpp"
#include "support/config.hpp"
#include "support/support.hpp"

#include <OpenColorIO/OpenColorIO.h>

using namespace kasuri;
using namespace kasuri::test;

namespace OCIO = OCIO_NAMESPACE;

namespace {

io::LoadedConfig village(const TemporaryFolder& folder) {
    write(folder / "village.ocio", village_config());
    auto loaded = io::load_config(folder / "village.ocio");
    if (!loaded)
        FAIL(loaded.error().text());
    return loaded.value();
}

std::vector<Colour> some_colours() {
    std::mt19937 random(4);
    std::uniform_real_distribution<float> spread(0.02f, 0.95f);
    std::vector<Colour> colours;
    for (int i = 0; i < 1300; ++i) // several tiles, the last of them ragged
        colours.push_back({spread(random), spread(random), spread(random), 1});
    return colours;
}

std::vector<Colour> through(const engine::Program& program, const std::vector<Colour>& in) {
    const image::Picture picture = image::generated(static_cast<int>(in.size()), 1, [&](int x, int) {
        const Colour& c = in[static_cast<std::size_t>(x)];
        return std::array<double, 3>{static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])};
    });
    const auto made = engine::evaluate(program, picture, {});
    REQUIRE(made);
    std::vector<Colour> out;
    for (std::size_t i = 0; i < in.size(); ++i)
        out.push_back(made->at(i));
    return out;
}

} // namespace

TEST_CASE("a config's spaces are known, and what cannot be used is said", "[io][config]") {
    TemporaryFolder folder;
    const io::LoadedConfig loaded = village(folder);
    CHECK(loaded.spaces == std::vector<std::string>{"village light", "vat film", "Loom & screen"});
    CHECK(colour::added_spaces() == loaded.spaces);
    REQUIRE(loaded.notes.size() == 2);
    CHECK(loaded.notes[0].find("srgb has the name of a built-in one") != std::string::npos);
    CHECK(loaded.notes[1].find("one way cannot be used both ways") != std::string::npos);
    CHECK(colour::find_space("vat film")->doc == "A logarithm over AP1");
    CHECK(colour::find_space("plates") == nullptr);
    // Another config takes their place on the list.
    write(folder / "other.ocio", village_config("  aces_interchange: village light\n"));
    REQUIRE(io::load_config(folder / "other.ocio"));
    CHECK(colour::added_spaces().size() == 3);
    colour::retire_added_spaces();
    CHECK(colour::added_spaces().empty());
    CHECK(colour::find_space("vat film") != nullptr); // a rule may still be using it
}

TEST_CASE("a config's spaces convert as OpenColorIO does, and come back", "[io][config]") {
    TemporaryFolder folder;
    village(folder);
    const OCIO::ConstConfigRcPtr config = OCIO::Config::CreateFromFile((folder / "village.ocio").c_str());
    const auto direct = config->getProcessor("vat film", "Loom & screen")->getDefaultCPUProcessor();
    const colour::Space &film = *colour::find_space("vat film"), &loom = *colour::find_space("Loom & screen"),
                        &srgb = *colour::find_space("srgb");
    for (const Colour& c : some_colours()) {
        const colour::Triple in = {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])};
        const colour::Triple made = colour::converted(in, film, loom), ours = colour::converted(in, film, srgb);
        float pixel[3] = {c[0], c[1], c[2]};
        direct->applyRGB(pixel);
        double brightest = 1;
        for (const double x : made)
            brightest = std::max(brightest, std::fabs(x));
        for (std::size_t i = 0; i < 3; ++i) {
            INFO(c[0] << " " << c[1] << " " << c[2]);
            CHECK(made[i] ==
                  Approx(static_cast<double>(pixel[i])).margin(2e-4 * brightest)); // steep near black, floats both
            if (ours[i] >= 0) // below, its curve goes straight on and ours is mirrored
                CHECK(ours[i] == Approx(made[i]).margin(2e-4 * brightest)); // the loom's screen is sRGB
        }
        const colour::Triple back = colour::converted(colour::converted(in, film, *colour::find_space("rec709-linear")),
                                                      *colour::find_space("rec709-linear"), film);
        for (std::size_t i = 0; i < 3; ++i)
            CHECK(back[i] == Approx(in[i]).margin(2e-5));
    }
    // The film's own formula: 2^((x - 0.6) / 0.1) - 0.01, neutral under AP1 and so under ours.
    const double grey = std::exp2((0.4 - 0.6) / 0.1) - 0.01;
    const colour::Triple light = colour::converted({0.4, 0.4, 0.4}, film, *colour::find_space("rec709-linear"));
    for (const double x : light)
        CHECK(x == Approx(grey).epsilon(1e-4));
    colour::retire_added_spaces();
}

TEST_CASE("a rule works in a config's space, in the engine as in the reference", "[io][config]") {
    TemporaryFolder folder;
    village(folder);
    const lang::Rule rule = good_rule("working \"vat film\"\nlet y = luminance(rgb)\nlet c = oklab(rgb)\nc.a *= "
                                      "0.8\nout.rgb = mix(rgb(c), vec3(0.4), 0.25)\nout.g += 0.1 * y\nkeep luminance");
    const auto colours = some_colours();
    engine::CompileOptions options;
    options.in_space = options.out_space = "srgb";
    options.colour_only = false;
    for (const bool fuse : {true, false}) {
        options.fuse = fuse;
        const auto program = engine::compile(rule, options);
        const auto out = through(*program, colours);
        for (std::size_t k = 0; k < colours.size(); k += 37) {
            const colour::Space &srgb = *colour::find_space("srgb"), &film = *colour::find_space("vat film");
            const colour::Triple in =
                colour::converted({static_cast<double>(colours[k][0]), static_cast<double>(colours[k][1]),
                                   static_cast<double>(colours[k][2])},
                                  srgb, film);
            engine::ReferencePixel pixel;
            pixel.rgba = {in[0], in[1], in[2], 1};
            const auto exact = engine::reference(rule, {}, pixel);
            const colour::Triple expected = colour::converted({exact[0], exact[1], exact[2]}, film, srgb);
            for (std::size_t i = 0; i < 3; ++i)
                CHECK(static_cast<double>(out[k][i]) == Approx(expected[i]).margin(1e-4)); // OpenColorIO's own floats
        }
        // One by one or all together: the same bits.
        for (std::size_t k = 0; k < colours.size(); k += 211)
            CHECK(through(*program, {colours[k]}).front() == out[k]);
    }
    // A rule that does nothing gives every picture back as it came.
    CHECK(engine::compile(good_rule("working \"vat film\""), options)->is_identity());
    // Only one result of a conversion is needed, or a constant goes in.
    const lang::Rule one =
        good_rule("working \"vat film\"\nout.r = luminance(vec3(0.4, 0.4, 0.4))\nout.g = xyz(rgb).y");
    const Colour made = run(one, {{0.4f, 0.4f, 0.4f, 1}}).front();
    CHECK(static_cast<double>(made[0]) == Approx(std::exp2(-2) - 0.01).epsilon(1e-4));
    CHECK(made[0] == Approx(made[1]).epsilon(1e-4));
    // What is the same for every pixel goes through it once a run: the turn of a held hue is one matrix.
    const lang::Rule held =
        good_rule("working \"vat film\"\nparam k = 0.25 in 0 .. 1\nout.g += k * (b - g)\nhold hue of vec3(0.5 + 0.1 * "
                  "k, 0.3, 0.35) in oklch\nout.r += luminance(vec3(k, 0.4, 0.4))");
    const auto steps = engine::compile(held)->operations();
    CHECK(steps < 60);
    for (const Colour& c : {Colour{0.5f, 0.4f, 0.3f, 1}, Colour{0.3f, 0.3f, 0.6f, 1}}) {
        const Colour fast = run(held, {c}).front(), exact = reference_one(held, c);
        for (std::size_t i = 0; i < 3; ++i)
            CHECK(fast[i] == Approx(exact[i]).margin(1e-4));
    }
    // The name is suggested like any other.
    const lang::Checked wrong = lang::check("working \"vat fulm\"", proof::vocabulary());
    REQUIRE(wrong.diagnostics.size() == 1);
    REQUIRE(wrong.diagnostics[0].fixes.size() == 1);
    CHECK(lang::check(lang::applied(wrong.diagnostics[0].fixes[0], "working \"vat fulm\""), proof::vocabulary()).ok);
    colour::retire_added_spaces();
}

TEST_CASE("a file of a config's space says so where it can", "[io][config]") {
    TemporaryFolder folder;
    village(folder);
    image::Image image = image::image_of(image::generated(4, 2, [](int x, int) {
        return std::array<double, 3>{0.1 * x, 0.5, 0.25};
    }));
    image.space = "vat film";
    const auto exr = io::save(folder / "a.exr", image);
    REQUIRE(exr);
    CHECK(exr.value().notes.empty());
    CHECK(io::load(folder / "a.exr").value().space == "vat film");
    image.depth = image::Depth::uint16;
    const auto png = io::save(folder / "a.png", image);
    REQUIRE(png);
    REQUIRE(png.value().notes.size() == 1);
    CHECK(png.value().notes[0] == "the file cannot say that its numbers are of vat film");
    colour::retire_added_spaces();
}

TEST_CASE("a config that cannot be used says why, and nothing changes", "[io][config]") {
    TemporaryFolder folder;
    village(folder);
    CHECK(io::load_config(folder / "none.ocio").error().what == "there is no such colour config");
    write(folder / "broken.ocio", "ocio_profile_version: 2\nroles: [");
    const auto broken = io::load_config(folder / "broken.ocio");
    REQUIRE_FALSE(broken);
    CHECK(broken.error().what.find("cannot be used as a colour config") == 0);
    CHECK(broken.error().what.find('\n') == std::string::npos);
    write(folder / "alone.ocio", village_config("  data: plates\n"));
    CHECK(io::load_config(folder / "alone.ocio").error().what.find("names no space by which it meets others") !=
          std::string::npos);
    CHECK(colour::added_spaces().size() == 3);
    // An older config: only scene_linear.
    write(folder / "older.ocio", village_config("  scene_linear: village light\n"));
    const auto older = io::load_config(folder / "older.ocio");
    REQUIRE(older);
    CHECK(older.value().notes.front().find("taken as linear BT.709") != std::string::npos);
    const colour::Triple light =
        colour::converted({0.3, 0.2, 0.1}, *colour::find_space("village light"), *colour::find_space("rec709-linear"));
    CHECK(light[0] == Approx(0.3).margin(1e-6));
    colour::retire_added_spaces();
}

TEST_CASE("a config of more spaces than the library can look through in a second is refused", "[io][config]") {
    const TemporaryFolder folder;
    std::string config = "ocio_profile_version: 2\nroles:\n  aces_interchange: s0\n  scene_linear: s0\n  default: s0\n"
                         "displays:\n  d:\n    - !<View> {name: v, colorspace: s0}\ncolorspaces:\n";
    for (int i = 0; i < 1001; ++i)
        config += "  - !<ColorSpace>\n    name: s" + std::to_string(i) + "\n";
    write(folder / "many.ocio", config);
    const auto refused = io::load_config(folder / "many.ocio");
    REQUIRE_FALSE(refused);
    CHECK(refused.error().text().find("the config has 1001 colour spaces; the limit is 1000. Take those out") !=
          std::string::npos);
}

TEST_CASE("a config's views show what OpenColorIO shows, with their looks", "[io][config]") {
    TemporaryFolder folder;
    const io::LoadedConfig loaded = village(folder);
    CHECK(loaded.views == std::vector<std::string>{"plain on loom", "dusk on loom"}); // data is not seen
    CHECK(colour::added_views() == loaded.views);
    const OCIO::ConstConfigRcPtr config = OCIO::Config::CreateFromFile((folder / "village.ocio").c_str());
    for (const char* view : {"plain", "dusk"}) {
        auto step = OCIO::DisplayViewTransform::Create();
        step->setSrc("vat film");
        step->setDisplay("loom");
        step->setView(view);
        const auto direct = config->getProcessor(step)->getDefaultCPUProcessor();
        const colour::Space &film = *colour::find_space("vat film"),
                            &seen = *colour::find_space(std::string(view) + " on loom");
        CHECK(seen.is_view);
        for (const Colour& c : some_colours()) {
            const colour::Triple in = {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])};
            const colour::Triple made = colour::converted(in, film, seen);
            float pixel[3] = {c[0], c[1], c[2]};
            direct->applyRGB(pixel);
            double brightest = 1;
            for (const float x : pixel)
                brightest = std::max(brightest, std::fabs(static_cast<double>(x)));
            for (std::size_t k = 0; k < 3; ++k)
                REQUIRE(std::fabs(made[k] - static_cast<double>(pixel[k])) <= 2e-5 * brightest);
        }
    }
    // A rule works in no view, but in what a role names.
    CHECK(lang::check("working \"scene_linear\"\nout.r = g\n", builtins::vocabulary()).ok);
    CHECK_FALSE(lang::check("working \"plain on loom\"\nout.r = g\n", builtins::vocabulary()).ok);
}

TEST_CASE("spaces of a config are known by aliases and roles, and pictures by its file rules and their attribute",
          "[io][config]") {
    TemporaryFolder folder;
    village(folder);
    REQUIRE(colour::find_space("vf"));
    CHECK(colour::find_space("vf")->name == "vat film");
    CHECK(colour::find_space("scene_linear")->name == "village light");
    CHECK(io::space_by_file_rule("/plates/a.film.0001.exr") == "vat film");
    CHECK(io::space_by_file_rule("/plates/a.0001.exr").empty());
    // As OpenColorIO decides it itself.
    const OCIO::ConstConfigRcPtr config = OCIO::Config::CreateFromFile((folder / "village.ocio").c_str());
    for (const char* path : {"/plates/film.exr", "film.exr", "/film/a.exr", "/plates/a.film.EXR", "/plates/a.film.png",
                             "/plates/FILM.exr", "/plates/fil.m.exr", "/plates/film"}) {
        INFO(path);
        const bool ruled = !config->filepathOnlyMatchesDefaultRule(path);
        CHECK(io::space_by_file_rule(path) == (ruled ? "vat film" : ""));
    }
    // A pattern that keeps matchers which try everything for ever.
    std::string slow = village_config();
    const std::string stars = "*a*a*a*a*a*a*a*a*a*a*a*a*a*a*a*a*b";
    slow.replace(slow.find("*film*"), 6, stars);
    write(folder / "slow.ocio", slow);
    REQUIRE(io::load_config(folder / "slow.ocio"));
    CHECK(io::space_by_file_rule("/" + std::string(3000, 'a') + ".exr").empty());
    village(folder);
    image::Image image = image::image_of(image::generated(2, 2, [](int, int) {
        return std::array<double, 3>{0.4, 0.4, 0.4};
    }));
    image.depth = image::Depth::uint16;
    image.space = "srgb";
    REQUIRE(io::save(folder / "film.tga", image)); // another ending
    CHECK(io::load(folder / "film.tga").value().space == "srgb");
    image.depth = image::Depth::half;
    image.space = "vat film"; // of a config: its name is said
    REQUIRE(io::save(folder / "named.exr", image));
    CHECK(io::load(folder / "named.exr").value().space == "vat film");
}

TEST_CASE("variables of a config have the values that are said, before those of the environment and its own",
          "[io][config]") {
    TemporaryFolder folder;
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
    const auto level = [&] {
        return colour::converted({1, 1, 1}, *colour::find_space("shot"), *colour::find_space("light"))[1];
    };
    REQUIRE(io::load_config(folder / "shots.ocio"));
    CHECK(level() == Approx(0.5));
    const auto said = io::load_config(folder / "shots.ocio", {{"SHOT", "deep"}});
    REQUIRE(said);
    CHECK(said.value().notes.empty());
    CHECK(level() == Approx(0.25));
    ::setenv("SHOT", "none", 1);
    REQUIRE(io::load_config(folder / "shots.ocio", {{"SHOT", "deep"}}));
    CHECK(level() == Approx(0.25));
    ::unsetenv("SHOT");
    const auto other = io::load_config(folder / "shots.ocio", {{"SEQUENCE", "river"}});
    REQUIRE(other);
    CHECK(std::any_of(other.value().notes.begin(), other.value().notes.end(),
                      [](const std::string& n) { return n.find("has no variable SEQUENCE") != std::string::npos; }));
    const auto none = io::load_config(folder / "shots.ocio", {{"SHOT", "none"}});
    CHECK((!none || !none.value().notes.empty()));
    CHECK(io::read_context("SHOT=a=b") == std::pair<std::string, std::string>("SHOT", "a=b"));
    for (const char* wrong : {"", "=a", "SHOT", "S HOT=a", "a-b=c"})
        CHECK_FALSE(io::read_context(wrong));
    const io::ConfigContext two = {{"A", "1"}, {"B", "x=y"}};
    CHECK(io::context_of(io::context_text(two)) == two);
    village(folder);
}

TEST_CASE("named transforms of a config are functions of rules, there and back, and go with it", "[io][config]") {
    TemporaryFolder folder;
    const auto config_text = [](const char* name, double exponent) {
        return fmt::format("ocio_profile_version: 2\n"
                           "roles: {{default: light, scene_linear: light, aces_interchange: light}}\n"
                           "displays: {{loom: [!<View> {{name: plain, colorspace: light}}]}}\n"
                           "colorspaces:\n  - !<ColorSpace> {{name: light}}\n"
                           "named_transforms:\n  - !<NamedTransform>\n    name: {}\n"
                           "    description: of the vat\n"
                           "    transform: !<ExponentTransform> {{value: {}, style: mirror}}\n",
                           name, exponent);
    };
    write(folder / "a.ocio", config_text("Vat - curve 2", 2));
    const auto loaded = io::load_config(folder / "a.ocio");
    REQUIRE(loaded);
    CHECK(loaded.value().functions == std::vector<std::string>{"config_vat_curve_2", "config_vat_curve_2_inverse"});
    const char* const squared = "out.rgb = config_vat_curve_2(rgb)";
    const lang::Rule there = good_rule(squared),
                     round = good_rule("out.rgb = config_vat_curve_2_inverse(config_vat_curve_2(rgb))");
    const OCIO::ConstConfigRcPtr config = OCIO::Config::CreateFromFile((folder / "a.ocio").c_str());
    const auto direct =
        config->getProcessor(config->getNamedTransform("Vat - curve 2")->getTransform(OCIO::TRANSFORM_DIR_FORWARD))
            ->getDefaultCPUProcessor();
    for (const Colour& c : some_colours()) {
        const Colour made = run(there, {c}).front(), back = run(round, {c}).front(), slow = reference_one(there, c);
        float pixel[3] = {c[0], c[1], c[2]};
        direct->applyRGB(pixel);
        for (std::size_t k = 0; k < 3; ++k) {
            const double scale = std::max(1.0, std::fabs(static_cast<double>(pixel[k])));
            CHECK(std::fabs(static_cast<double>(made[k]) - static_cast<double>(pixel[k])) <= 2e-5 * scale);
            CHECK(std::fabs(static_cast<double>(slow[k]) - static_cast<double>(pixel[k])) <= 2e-5 * scale);
            CHECK(std::fabs(static_cast<double>(back[k]) - static_cast<double>(c[k])) <=
                  1e-3 * std::max(1.0, std::fabs(static_cast<double>(c[k]))));
        }
    }
    // It is offered, explained, and gone with the config; a rule that was made keeps what it meant.
    const lang::Completions offered = lang::completions("out.rgb = config_v", 18, builtins::vocabulary(), {});
    CHECK(std::any_of(offered.items.begin(), offered.items.end(),
                      [](const lang::Completion& each) { return each.text == "config_vat_curve_2"; }));
    write(folder / "b.ocio", config_text("Other", 3));
    REQUIRE(io::load_config(folder / "b.ocio"));
    const lang::Checked gone = lang::check(squared, builtins::vocabulary());
    CHECK_FALSE(gone.ok);
    CHECK(lang::check("out.rgb = config_other(rgb)", builtins::vocabulary()).ok);
    CHECK(run(there, {{0.5F, 0.5F, 0.5F, 1}}).front()[1] == Approx(0.25).epsilon(1e-4));
    CHECK(lang::completions("out.rgb = ", 10, builtins::vocabulary(), {}).items.front().text != "");
    village(folder);
    CHECK_FALSE(lang::check("out.rgb = config_other(rgb)", proof::vocabulary()).ok);
}
