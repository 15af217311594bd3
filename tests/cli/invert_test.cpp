#include "cli/driver.hpp"

#include <nlohmann/json.hpp>

using namespace kasuri::test;
using Catch::Matchers::Contains;

TEST_CASE("a demo filter is taken off, and what is written promises so and keeps it", "[cli][inverse]") {
    const Folder folder;
    const std::string filter = folder.file("dyes.kasuri");
    folder.write(
        "dyes.kasuri",
        "param meet = 0.4 in 0 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, meet)\nout.b = mix(b, "
        "shared, meet)\nlet c = hsv(out.rgb)\nc.h += 20\nout.rgb = rgb(c)\n");
    const Ran made = cli(folder, "invert " + filter + " -o " + folder.file("off.kasuri"));
    CHECK(made.exit == 0);
    CHECK_THAT(made.out, Contains("meet: only 0 .. 0.9") && Contains("it promises so"));
    CHECK_THAT(folder.read("off.kasuri"), Contains("c.h -= 20") && Contains("undoes \"dyes.kasuri\""));
    CHECK(cli(folder, "check " + folder.file("off.kasuri")).exit == 0);
    CHECK(cli(folder, "format --check " + folder.file("off.kasuri")).exit == 0);
    const Ran there = cli(folder, "eval " + filter, "0.2,0.5,0.7\n");
    const Ran back = cli(folder, "eval " + folder.file("off.kasuri"), there.out);
    double r = 0, g = 0, b = 0;
    REQUIRE(std::sscanf(back.out.c_str(), "%lf,%lf,%lf", &r, &g, &b) == 3);
    CHECK(r == Approx(0.2).margin(1e-5));
    CHECK(g == Approx(0.5).margin(1e-5));
    CHECK(b == Approx(0.7).margin(1e-5));
}

TEST_CASE("what has no way back is an exit of 1, with two colours that become one", "[cli][inverse]") {
    const Folder folder;
    const Ran grey = cli(folder, "invert --rule 'out.rgb = vec3(luma(rgb))'");
    CHECK(grey.exit == 1);
    CHECK_THAT(grey.out,
               Contains("line 1, ") && Contains("one number does not say which colour it was") &&
                   Contains("two colours become one: ("));
    CHECK(cli(folder, "invert --rule 'out.rgb = blur(rgb, 2)' -o " + folder.file("no.kasuri")).exit == 1);
    CHECK_FALSE(std::filesystem::exists(folder.file("no.kasuri")));
    CHECK(cli(folder, "invert nothing.kasuri").exit == 3);
    folder.write("x.cube", "LUT_3D_SIZE 2\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1\n");
    const Ran lut = cli(folder, "invert " + folder.file("x.cube"));
    CHECK(lut.exit == 2);
    CHECK_THAT(lut.err, Contains("kasuri-cli fit finds the rule"));
    const Ran nearest =
        cli(folder,
            "invert --nearest --rule 'out.rgb = clamp(spow(rgb, 2) * 1.25, 0, 1)' -o " + folder.file("near.kasuri"));
    CHECK(nearest.exit == 0);
    CHECK_THAT(nearest.err, Contains("fitted, not solved: ") && Contains("a channel comes back within"));
    CHECK(cli(folder, "check " + folder.file("near.kasuri")).exit == 0);
    const Ran json = cli(folder, "invert --json --rule 'out.rgb = clamp(rgb * 2, 0, 1)'");
    const auto told = nlohmann::json::parse(json.out)["result"];
    CHECK(told["found"] == true);
    CHECK(told["everywhere"] == false);
    CHECK(told["lost"].size() == 1);
}

TEST_CASE("a look is taken off step by step, with its opacities and masks", "[cli][inverse]") {
    const Folder folder;
    folder.write("two.kasurilook", R"look({"kasuri-look": 1, "title": "Two baths", "steps": [
      {"text": "param k = 0 in 0 .. 1\nout.rgb = mix(rgb, rgb.gbr, k)\n", "values": {"k": 0.3}, "mask": "smoothstep(0.2, 0.8, pos.x)"},
      {"text": "working srgb\nlet c = hsv(rgb)\nc.s *= 0.8\nout.rgb = rgb(c)\n", "opacity": 0.5, "label": "pale"},
      {"text": "working acescct\nout.rgb = contrast(rgb, 1.2, 0.4)\n", "blend": "linear_dodge", "opacity": 0.25}]})look");
    const Ran made = cli(folder, "invert " + folder.file("two.kasurilook") + " -o " + folder.file("off.kasurilook"));
    CAPTURE(made.out, made.err);
    CHECK(made.exit == 0);
    CHECK_THAT(made.out, Contains("pale") && Contains("the whole look: a colour from 0 to 1 comes back within"));
    // What was written for the opacity has no line that anybody has seen.
    CHECK_THAT(made.out, Contains("looked for: how it is laid over what came in") && !Contains("mix(rgba, out"));
    CHECK(cli(folder, "check " + folder.file("off.kasurilook")).exit == 0);
    const Ran there =
        cli(folder, "eval --width 3 " + folder.file("two.kasurilook"), "0.2,0.5,0.7\n0.9,0.3,0.1\n0.4,0.4,0.4\n");
    const Ran back = cli(
        folder, "eval --width 3 --in-space rec709-linear --out-space rec709-linear " + folder.file("off.kasurilook"),
        there.out);
    double x[9];
    REQUIRE(std::sscanf(back.out.c_str(), "%lf,%lf,%lf %lf,%lf,%lf %lf,%lf,%lf", x, x + 1, x + 2, x + 3, x + 4, x + 5,
                        x + 6, x + 7, x + 8) == 9);
    const double before[] = {0.2, 0.5, 0.7, 0.9, 0.3, 0.1, 0.4, 0.4, 0.4};
    for (std::size_t i = 0; i < 9; ++i)
        CHECK(x[i] == Approx(before[i]).margin(2e-5));
}

TEST_CASE("a filter is written shorter, and --check tells that it could be", "[cli][simplify]") {
    const Folder folder;
    folder.write("swaps.kasuri",
                 "filter \"Swaps\"\n\n// There.\nout.rgb = rgb.gbr\nout.rgb = out.gbr\nout.rgb = out.gbr\n");
    const Ran check = cli(folder, "simplify --check " + folder.file("swaps.kasuri"));
    CHECK(check.exit == 1);
    CHECK_THAT(check.out, Contains("swaps.kasuri: 23 words could be 2"));
    const Ran made = cli(folder, "simplify " + folder.file("swaps.kasuri") + " -o " + folder.file("none.kasuri"));
    CHECK(made.exit == 0);
    CHECK_THAT(made.err, Contains("all of it does nothing") && Contains("proved the same"));
    CHECK(folder.read("none.kasuri") == "filter \"Swaps\"\n\n");
    CHECK(cli(folder, "diff " + folder.file("swaps.kasuri") + " " + folder.file("none.kasuri")).exit == 0);
    CHECK(cli(folder, "simplify --check " + folder.file("none.kasuri")).exit == 0);
    CHECK(cli(folder, "simplify --rule 'out.rgb = clmp(rgb)'").exit == 1);
    CHECK(cli(folder, "simplify").exit == 2);
    CHECK(cli(folder, "simplify gone.kasuri").exit == 3);
}

TEST_CASE("a filter is carried to another space, and its proof says that it is the same", "[cli][carry]") {
    const Folder folder;
    folder.write("dye.kasuri", "working acescct\nparam k = 1.2 in 0.5 .. 2\nout.rgb = contrast(rgb, k, 0.4)\n");
    const Ran made =
        cli(folder, "carry " + folder.file("dye.kasuri") + " --to rec2020-linear -o " + folder.file("light.kasuri"));
    CHECK(made.exit == 0);
    CHECK_THAT(made.err, Contains("a channel is off by"));
    CHECK_THAT(folder.read("light.kasuri"), Contains("working rec2020-linear") && Contains("equals \"dye.kasuri\""));
    CHECK(cli(folder, "check " + folder.file("light.kasuri")).exit == 0);
    CHECK(cli(folder, "carry " + folder.file("dye.kasuri") + " --to nowhere").exit == 2);
    CHECK(cli(folder, "carry " + folder.file("gone.kasuri") + " --to srgb").exit == 3);
    folder.write("look.kasurilook",
                 R"look({"kasuri-look": 1, "steps": [{"text": "out.r = g\n", "opacity": 0.5}]})look");
    CHECK(cli(folder, "carry " + folder.file("look.kasurilook") + " --to srgb -o " + folder.file("srgb.kasurilook"))
              .exit == 0);
    CHECK(
        cli(folder, "diff " + folder.file("look.kasurilook") + " " + folder.file("srgb.kasurilook") + " --within 1e-4")
            .exit == 0);
}

TEST_CASE("a table takes off what a rule does, and another reader of tables comes back with it", "[cli][invert]") {
    const Folder folder;
    folder.write("warm.kasuri",
                 "filter \"Warm\"\nworking srgb\nout.rgb = mat3(0.9, 0.1, 0, 0.05, 0.9, 0, 0, 0.1, 0.8) * rgb\n"
                 "out.rgb = spow(out.rgb, 1.1)\n");
    const Ran made =
        cli(folder, "invert " + folder.file("warm.kasuri") + " -o " + folder.file("cool.cube") + " --json");
    REQUIRE(made.exit == 0);
    const auto json = nlohmann::json::parse(made.out)["result"];
    CHECK(json["largest"].get<double>() < 2e-3);
    CHECK(json["space"] == "srgb");
    CHECK(json["solved"].get<int>() > 10000);
    // The file, not what was held: there and back by what reads LUTs here and elsewhere (OpenColorIO, in a helper).
    const Ran there = cli(folder, "eval " + folder.file("warm.kasuri"), "0.2,0.4,0.6\n0.7,0.5,0.3\n0.05,0.1,0.9\n");
    REQUIRE(there.exit == 0);
    const Ran back = cli(folder, "eval " + folder.file("cool.cube") + " --lut-space srgb", there.out);
    INFO(back.out << back.err);
    REQUIRE(back.exit == 0);
    std::istringstream numbers(back.out);
    for (const double wanted : {0.2, 0.4, 0.6, 0.7, 0.5, 0.3, 0.05, 0.1, 0.9}) {
        double number = 0;
        numbers >> number;
        numbers.ignore(1);
        CHECK(std::fabs(number - wanted) < 1e-3);
    }
    CHECK_THAT(folder.read("cool.cube"), Contains("there and back on 20000"));
    CHECK(cli(folder, "invert " + folder.file("warm.kasuri") + " -o " + folder.file("cool.clf")).exit == 2);
    CHECK(cli(folder, "invert --rule 'out.rgb = blur(rgb, 3)' -o " + folder.file("no.cube")).exit == 1);
}

TEST_CASE("a look is made shorter step by step", "[cli][simplify]") {
    const Folder folder;
    folder.write("swaps.kasuri", "out.rgb = rgb.gbr\nout.rgb = out.gbr\nout.rgb = out.gbr\n");
    folder.write("two.kasurilook",
                 R"({"kasuri-look": 1, "title": "Two", "steps": [
                    {"text": "out.rgb = rgb.gbr\nout.rgb = out.gbr\nout.rgb = out.gbr\n"},
                    {"label": "warm", "text": "out.rgb = rgb * 2\nout.rgb = out.rgb * 3\n"}]})");
    CHECK(cli(folder, "simplify --check " + folder.file("two.kasurilook")).exit == 1);
    const Ran made = cli(folder, "simplify " + folder.file("two.kasurilook") + " -o " + folder.file("less.kasurilook"));
    REQUIRE(made.exit == 0);
    CHECK_THAT(made.err, Contains("step 1: ") && Contains("step 2 warm: "));
    CHECK(cli(folder, "diff " + folder.file("two.kasurilook") + " " + folder.file("less.kasurilook")).exit == 0);
    CHECK(cli(folder, "simplify --check " + folder.file("less.kasurilook")).exit == 0);
}

TEST_CASE("a LUT that is named by a relative path has no false note, and is read as asked", "[cli]") {
    const Folder folder;
    std::filesystem::create_directories(folder.path / "sub");
    folder.write("sub/corner.cube", "LUT_3D_SIZE 2\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n1 1 1\n");
    const std::string relative = std::filesystem::relative(folder.file("sub/corner.cube")).string();
    const Ran tetrahedral = cli(folder, "eval " + relative, "0.9,0.5,0.4\n");
    CHECK(tetrahedral.err.empty());
    CHECK_THAT(tetrahedral.out, Contains("0.4"));
    const Ran trilinear = cli(folder, "eval " + relative + " --trilinear", "0.9,0.5,0.4\n");
    CHECK(trilinear.err.empty());
    CHECK_THAT(trilinear.out, Contains("0.18") || Contains("0.179"));
    CHECK(cli(folder, "fit " + relative + " --family gain").err.empty());
    CHECK(cli(folder, "bake " + relative + " " + folder.file("again.nix")).exit == 2);
}

TEST_CASE("a colour decision list stands where a filter does, and comes back as it was", "[cli][cdl]") {
    const Folder folder;
    folder.write(
        "hand.cc",
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<ColorCorrection id=\"hand\"><SOPNode><Slope>1.1 0.9 "
        "1.05</Slope><Offset>-0.02 0.03 0.01</Offset><Power>1.2 0.85 1</Power></SOPNode><SatNode><Saturation>0.8"
        "</Saturation></SatNode></ColorCorrection>\n");
    const std::string list = folder.file("hand.cc");
    REQUIRE(cli(folder, "cdl " + list + " -o " + folder.file("hand.kasuri") + " --space srgb").exit == 0);
    const Ran back = cli(folder, "cdl " + folder.file("hand.kasuri"));
    CHECK(back.out ==
          "slope 1.1 0.9 1.05\noffset -0.02 0.03 0.01\npower 1.2 0.85 1\nsaturation 0.8\nexact, in the form "
          "without clamps\n");
    CHECK_THAT(cli(folder, "cdl " + folder.file("hand.kasuri") + " --set clamped=true").out,
               Contains("saturation 0.8") && Contains("exact, in the form that is clamped to 0 .. 1"));
    // ASC CDL 1.2 by hand: -0.1 * 1.1 - 0.02 = -0.13 stays without clamps, and is 0 with them.
    const Ran open = cli(folder, "eval " + list + " --lut-space srgb", "-0.1,0.5,0.5\n"),
              as_filter = cli(folder, "eval " + folder.file("hand.kasuri"), "-0.1,0.5,0.5\n"),
              clamped = cli(folder, "eval " + list + " --lut-space srgb --set clamped=true", "-0.1,0.5,0.5\n");
    CHECK(open.out == as_filter.out);
    const double g = std::pow(0.48, 0.85), b = 0.535;
    for (const auto& [ran, r] : {std::pair{&open, -0.13}, std::pair{&clamped, 0.0}}) {
        const double luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        CHECK(std::stod(ran->out) == Approx(luma + 0.8 * (r - luma)).epsilon(1e-5));
    }
    CHECK(cli(folder, "bake " + list + " " + folder.file("hand.cube")).exit == 0);
    folder.write("two.ccc",
                 "<ColorCorrectionCollection><ColorCorrection id=\"a\"></ColorCorrection><ColorCorrection "
                 "id=\"b\"></ColorCorrection></ColorCorrectionCollection>");
    CHECK_THAT(cli(folder, "eval " + folder.file("two.ccc"), "0,0,0\n").err, Contains("has 2 corrections"));
}

TEST_CASE("a look that holds a LUT is taken off, and what comes back is within what was said", "[cli][inverse]") {
    const Folder folder;
    folder.write("bend.kasuri", "working srgb\nout.rgb = rgb * 0.6 + rgb * rgb * 0.4\n");
    folder.write("turn.kasuri", "working srgb\nout.rgb = mat3(0.8, 0.2, 0,  0, 0.8, 0.2,  0.2, 0, 0.8) * rgb\n");
    REQUIRE(cli(folder, "bake " + folder.file("bend.kasuri") + " " + folder.file("bend.cube") + " --size 17").exit ==
            0);
    const std::string text = folder.read("bend.cube");
    const nlohmann::json look = {{"kasuri-look", 1},
                                 {"title", "bent"},
                                 {"steps",
                                  {{{"filter", "turn.kasuri"}, {"text", folder.read("turn.kasuri")}},
                                   {{"lut", ".cube"}, {"text", text}, {"space", "srgb"}}}}};
    folder.write("bent.kasurilook", look.dump());
    const Ran made = cli(folder, "invert " + folder.file("bent.kasurilook") + " -o " + folder.file("off.kasurilook"));
    INFO(made.out << made.err);
    REQUIRE(made.exit == 0);
    CHECK_THAT(made.out, Contains("4913") || Contains("35937"));
    const Ran told = cli(folder, "invert " + folder.file("bent.kasurilook") + " --json");
    const auto json = nlohmann::json::parse(told.out)["result"];
    const double within = json["largest"];
    CHECK(within < 0.01);
    CHECK(json["steps"][0]["table"].size() == 3);
    const Ran there = cli(folder, "eval " + folder.file("bent.kasurilook"), "0.2,0.5,0.7\n");
    const Ran back = cli(folder, "eval " + folder.file("off.kasurilook"), there.out);
    double r = 0, g = 0, b = 0;
    REQUIRE(std::sscanf(back.out.c_str(), "%lf,%lf,%lf", &r, &g, &b) == 3);
    CHECK(r == Approx(0.2).margin(within));
    CHECK(g == Approx(0.5).margin(within));
    CHECK(b == Approx(0.7).margin(within));
}
