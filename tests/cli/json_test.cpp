// What programs read: --json of every command that tells something, and LUTs where filters stand.
#include "cli/driver.hpp"

#include <nlohmann/json.hpp>

using namespace kasuri::test;
using Json = nlohmann::json;

namespace {

const std::string filters = std::string(KASURI_SOURCE_DIR) + "/data/filters/";
const std::string look = std::string(KASURI_SOURCE_DIR) + "/data/looks/river-cloth.kasurilook";

/// The result in the one value on standard output; the exit code is asked for too.
Json told(const Folder& folder, const std::string& arguments, int exit = 0, const std::string& input = "") {
    const Ran ran = cli(folder, arguments + " --json", input);
    INFO(arguments << "\n" << ran.err);
    CHECK(ran.exit == exit);
    Json made = Json::parse(ran.out, nullptr, false);
    REQUIRE_FALSE(made.is_discarded());
    CHECK(made["version"] == 1);
    CHECK(made["exit"] == exit);
    return made["result"];
}

} // namespace

TEST_CASE("proofs are told as JSON, with the place where they fail", "[cli][json]") {
    const Folder folder;
    folder.write("a.kasuri",
                 "param lift = 0.5 in 0 .. 1\nout.r += lift\nproof \"greys\" : neutral\nproof \"finite\" : finite\n");
    folder.write("b.kasuri", "out.r = nothing\n");
    const Json one = told(folder, "check " + folder.file("a.kasuri"), 1);
    CHECK(one["failed"] == 1);
    const Json& greys = one["filters"][0]["proofs"][0];
    CHECK(greys["title"] == "greys");
    CHECK(greys["passed"] == false);
    CHECK(greys["figure"] == Approx(1).epsilon(1e-5)); // at lift 1
    CHECK(greys["worst"]["values"]["lift"] == 1);
    CHECK(greys["worst"]["before"].size() == 4);
    CHECK(one["filters"][0]["proofs"][1]["passed"] == true);
    const Json both = told(folder, "check " + folder.path.string(), 1);
    CHECK(both["all"] == 2);
    CHECK(both["filters"][1]["fault"] == "the rule does not compile");
    const Json quiet = told(folder, "check --quiet " + filters + "turned-cloth.kasuri");
    CHECK(quiet["filters"].empty());
    CHECK(quiet["failed"] == 0);
}

TEST_CASE("baking is told as JSON", "[cli][json]") {
    const Folder folder;
    folder.write("p.kasuri", "out.rgb = pow(rgb, vec3(1.3, 1.1, 0.9)) * vec3(0.9, 1, 1) + vec3(0.1 * g, 0, 0)\n");
    const Json table =
        told(folder, "bake " + folder.file("p.kasuri") + " " + folder.file("p.cube") + " --size 17 --delta-e");
    CHECK(table["kind"] == "table");
    CHECK(table["points"] == 17);
    CHECK(table["errors"]["tetrahedral"]["largest"] > 1e-4);
    CHECK(table["errors"]["tetrahedral"]["largest"] >= table["errors"]["tetrahedral"]["within-99.9%"]);
    CHECK(table["errors"]["trilinear"]["ciede2000"]["mean"] > 0);
    folder.write("m.kasuri", "out.rgb = rgb.gbr\n");
    CHECK(told(folder, "bake " + folder.file("m.kasuri") + " " + folder.file("m.clf"))["kind"] == "matrix");
    folder.write("c.kasuri", "out.rgb = pow(rgb, vec3(1.3, 1.1, 0.9))\n");
    CHECK(told(folder, "bake " + folder.file("c.kasuri") + " " + folder.file("c.clf"))["kind"] == "curves");
}

TEST_CASE("what a rule is, and which numbers it makes, is told as JSON", "[cli][json]") {
    const Folder folder;
    const Json known = told(folder, "explain --rule 'out.rgb = rgb.gbr' --stage known");
    CHECK(known["matrix"] == Json({{0, 1, 0}, {0, 0, 1}, {1, 0, 0}}));
    CHECK(known["greys-stay-grey"] == true);
    CHECK(known["stages"].size() == 1);
    CHECK(told(folder, "explain --rule 'out.r = pow(r, 2.0)'")["stages"].size() == 6);
    CHECK(told(folder, "explain " + look)["stages"].size() == 3);
    const std::string lines = cli(folder, "eval --rule 'out.r = r / 0' --json", "0.5,0.25,nan\n0,1,2\n").out;
    CHECK(lines.starts_with("[\"inf\",0.25,\"nan\"]\n[\"nan\",1.0,2.0]\n{"));
    CHECK(lines.find("\"result\":{\"lines\":2}") != std::string::npos);
    const Json solved = told(folder, "solve 1,0,0=0.8,0.1,0");
    CHECK(solved["matrix"][0] == Approx(0.8));
    CHECK(solved["missed"][0] == Approx(0).margin(1e-12));
    const Json cdl = told(folder, "cdl " + filters + "lift-and-pull.kasuri --preset 'Warm pull'");
    CHECK(cdl["saturation"] == 1);
    CHECK(cdl["slope"].size() == 3);
}

TEST_CASE("targets, readings and pictures are told as JSON", "[cli][json]") {
    const Folder folder;
    const Json targets = told(folder, "targets")["targets"]; // the other name of target
    CHECK(targets.size() > 10);
    CHECK(targets[0]["name"] == "grey_ramp");
    CHECK(targets[0]["settings"][0]["usual"] == -0.25);
    CHECK(told(folder, "target grey_ramp")["targets"][0]["shape"] == "strip");
    const Json readings = told(folder, "measure")["readings"];
    CHECK(readings.size() >= 8);
    CHECK(readings[0].contains("settings"));
    const Json response = told(folder, "measure response --rule 'out.r = 2 * g'");
    CHECK(response["figures"][0]["value"].get<double>() == Approx(2).margin(1e-4)); // the slope of red
    const Json& line = response["layers"][0]["rows"];
    REQUIRE(line.size() > 100);
    CHECK(line[50][1].get<double>() == Approx(2 * line[50][0].get<double>()).margin(1e-5));
    const Json histogram = told(folder, "measure vectorscope --target hue_sweep");
    CHECK(histogram["layers"][0]["kind"] == "density");
    REQUIRE(cli(folder, "target grey_ramp -o " + folder.file("a.exr") + " --width 8").exit == 0);
    const Json facts = told(folder, "info " + folder.file("a.exr") + " " + folder.file("gone.exr"), 3)["pictures"];
    REQUIRE(facts.size() == 1);
    CHECK(facts[0]["width"] == 8);
    CHECK(facts[0]["alpha"] == "none");
    CHECK(facts[0]["channels"] == Json({"R", "G", "B"}));
}

TEST_CASE("differences are told as JSON", "[cli][json]") {
    const Folder folder;
    REQUIRE(cli(folder, "target hue_sweep -o " + folder.file("a.exr")).exit == 0);
    folder.write("half.kasuri", "out.g = g * 0.5\n");
    folder.write("same.kasuri", "out.g = 0.5 * g\n");
    REQUIRE(
        cli(folder, "render " + folder.file("half.kasuri") + " " + folder.file("a.exr") + " " + folder.file("b.exr"))
            .exit == 0);
    const Json pictures = told(folder, "diff " + folder.file("a.exr") + " " + folder.file("b.exr"), 1);
    CHECK(pictures["channel"] == "g");
    CHECK(pictures["largest"] == Approx(0.4)); // half of the brightest green, 0.8
    CHECK(pictures["ciede2000"]["largest"] > 1);
    CHECK(told(folder, "diff " + folder.file("a.exr") + " " + folder.file("a.exr"))["same"] == true);
    // b is half of a in one channel: a share of 0.5 of the larger number allows it, one below does not.
    const std::string both = "diff " + folder.file("a.exr") + " " + folder.file("b.exr");
    CHECK(told(folder, both + " --relative 0.501")["relative"] == 0.501);
    CHECK(told(folder, both + " --relative 0.499", 1)["differ"] > 0);
    CHECK(cli(folder, both + " --within 0.1 --relative 0.4").exit == 0); // 0.4 <= 0.1 + 0.4 * 0.8
    CHECK(cli(folder, both + " --relative -1").exit == 2);
    CHECK(cli(folder, "diff " + folder.file("half.kasuri") + " " + folder.file("half.kasuri") + " --relative 0.1")
              .err.find("--within") != std::string::npos);
    REQUIRE(cli(folder, "target grey_ramp -o " + folder.file("c.exr") + " --width 3").exit == 0);
    CHECK(told(folder, "diff " + folder.file("a.exr") + " " + folder.file("c.exr"), 1)["second-size"] == Json({3, 1}));
    const Json proved = told(folder, "diff " + folder.file("half.kasuri") + " " + folder.file("same.kasuri"));
    CHECK(proved["proved"] == true);
}

TEST_CASE("a LUT stands where a filter stands, and is compared with what it was made of", "[cli][lut]") {
    const Folder folder;
    folder.write("p.kasuri", "working srgb\nout.rgb = pow(rgb, vec3(1.3, 1.1, 0.9)) + vec3(0.05 * g, 0, 0)\n");
    const std::string rule = folder.file("p.kasuri"), cube = folder.file("p.cube");
    const Json baked = told(folder, "bake " + rule + " " + cube + " --size 33");
    const Json apart = told(folder, "diff " + rule + " " + cube, 1);
    // OpenColorIO reads the file back; the bake measured its own table: both read it tetrahedrally.
    CHECK(apart["largest"].get<double>() ==
          Approx(baked["errors"]["tetrahedral"]["largest"].get<double>()).epsilon(0.02));
    CHECK(apart["space"] == "srgb");
    CHECK(cli(folder, "diff " + cube + " " + rule + " --within 0.05").exit == 0);
    // 0 is a limit and not the usual one: the same table with one number a millionth larger.
    folder.write("one.cube", "LUT_3D_SIZE 2\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1\n");
    folder.write("near.cube", "LUT_3D_SIZE 2\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1.000001\n");
    const std::string near = "diff " + folder.file("one.cube") + " " + folder.file("near.cube");
    CHECK(cli(folder, near).exit == 0);
    CHECK(cli(folder, near + " --within 0").exit == 1);
    CHECK(cli(folder, "diff " + cube + " " + cube).exit == 0);
    const auto first = [&](const std::string& what) {
        return std::stod(cli(folder, "eval " + what, "0.4,0.5,0.6\n").out);
    };
    CHECK(first(cube) == Approx(first(rule)).epsilon(1e-3));
    CHECK(cli(folder, "eval " + cube + " --lut-space nowhere", "1,1,1\n").exit == 2);
    CHECK(cli(folder, "eval " + cube + " --set k=1", "1,1,1\n").exit == 2);
    REQUIRE(cli(folder, "target hue_sweep -o " + folder.file("a.exr")).exit == 0);
    CHECK(cli(folder, "render " + cube + " " + folder.file("a.exr") + " " + folder.file("b.exr")).exit == 0);
    CHECK(cli(folder, "diff " + rule + " " + folder.file("a.exr")).exit == 2);
    folder.write("place.kasuri", "out.r = pos.x\n");
    CHECK(cli(folder, "diff " + folder.file("place.kasuri") + " " + cube).err.find("place in the picture") !=
          std::string::npos);
    CHECK(cli(folder, "report " + cube + " -o " + folder.file("lut.html")).exit == 0);
    CHECK(cli(folder, "explain " + cube + " --stage graph").exit == 0);
    CHECK(cli(folder, "glsl " + cube).exit == 1); // no shader holds a table
    CHECK(cli(folder, "bake " + cube + " " + folder.file("again.clf") + " --size 17").exit == 0);
    folder.write("broken.cube", "LUT_3D_SIZE 33\n0 0 0\n");
    CHECK(cli(folder, "diff " + rule + " " + folder.file("broken.cube")).exit == 3);
    CHECK(cli(folder, "diff " + rule + " " + folder.file("gone.cube")).exit == 3);
}

TEST_CASE("what there is to translate is written down as source", "[cli][docs]") {
    const Folder folder;
    const Ran words = cli(folder, "docs words");
    REQUIRE(words.exit == 0);
    for (const char* text : {"QT_TRANSLATE_NOOP(\"Tables\", \"grey ramp\")", "\"greys stay grey\"", "\"Parade\"",
                             "\"noise gain\"", "#include <QtGlobal>"})
        CHECK(words.out.find(text) != std::string::npos);
    CHECK(words.out.find("\"\"") == std::string::npos);
    std::size_t lines = 0;
    for (std::size_t at = words.out.find("NOOP"); at != std::string::npos; at = words.out.find("NOOP", at + 1))
        ++lines;
    CHECK(lines > 150);
}

TEST_CASE("what a picture says besides its numbers is told", "[cli][json]") {
    const Folder folder;
    REQUIRE(cli(folder, "target hue_sweep -o " + folder.file("a.exr")).exit == 0);
    const Json facts = told(folder, "info " + folder.file("a.exr"))["pictures"];
    CHECK(facts[0]["attributes"].contains("PixelAspectRatio"));
    CHECK_FALSE(facts[0].contains("frame")); // it is all of its frame
    CHECK(cli(folder, "info " + folder.file("a.exr")).out.find("PixelAspectRatio: 1") != std::string::npos);
    folder.write("half.kasuri", "out.g = g * 0.5\n");
    for (const auto& [name, depth, wanted] :
         {std::tuple{"b.png", "8", "8-bit whole numbers"}, std::tuple{"c.png", "16", "16-bit whole numbers"},
          std::tuple{"d.exr", "half", "half floats"}, std::tuple{"e.tif", "float", "floats"}}) {
        const std::string made = folder.file(name);
        CHECK(
            cli(folder,
                "render " + folder.file("half.kasuri") + " " + folder.file("a.exr") + " " + made + " --depth " + depth)
                .exit == 0);
        CHECK(told(folder, "info " + made)["pictures"][0]["numbers"] == wanted);
    }
    CHECK(cli(folder,
              "render " + folder.file("half.kasuri") + " " + folder.file("a.exr") + " " + folder.file("f.png") +
                  " --depth half")
              .exit == 3);
    CHECK(cli(folder,
              "render " + folder.file("half.kasuri") + " " + folder.file("a.exr") + " " + folder.file("f.png") +
                  " --depth 12")
              .exit == 2);
}
