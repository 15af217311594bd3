// A look of five steps by command line: checked, applied to a sequence, handed over as LUT, shader and page.
#include "cli/driver.hpp"

#include <fmt/format.h>

using namespace kasuri::test;

namespace {
const std::string look = std::string(KASURI_SOURCE_DIR) + "/data/looks/river-cloth.kasurilook";
const std::string filters = std::string(KASURI_SOURCE_DIR) + "/data/filters/";
} // namespace

TEST_CASE("a look is checked step by step at its values", "[cli][look]") {
    const Folder folder;
    const Ran good = cli(folder, "check " + look);
    CHECK(good.exit == 0);
    CHECK(good.out.find("step 2 (More blue only)") != std::string::npos);
    CHECK(good.out.find("step 4") == std::string::npos); // it is off
    CHECK(good.out.find("0 of 5 filters fail") != std::string::npos);
    CHECK(good.out.find("river-cloth.kasurilook, as a whole\npass  greys stay grey") != std::string::npos);
    folder.write(
        "whole.kasurilook",
        R"x({"kasuri-look": 1, "proofs": ["proof \"greys\" : neutral"], "steps": [{"text": "out.r += 0.1\nproof \"p\" : finite\n"}, {"text": "out.r -= 0.1\nproof \"p\" : finite\n"}]})x");
    CHECK(cli(folder, "check " + folder.file("whole.kasurilook")).exit ==
          0); // the second step mends what the first does
    folder.write(
        "worse.kasurilook",
        R"x({"kasuri-look": 1, "proofs": ["proof \"greys\" : neutral"], "steps": [{"text": "out.r += 0.1\nproof \"p\" : finite\n"}]})x");
    const Ran worse = cli(folder, "check " + folder.file("worse.kasurilook"));
    CHECK(worse.exit == 1);
    CHECK(worse.out.find("FAIL  greys  0.1 > 0.0001") != std::string::npos);
    folder.write(
        "line.kasurilook",
        R"x({"kasuri-look": 1, "proofs": ["proof \"greys\" : neutral", "out.r = 1"], "steps": [{"text": "out.r = g\n"}]})x");
    CHECK(cli(folder, "check " + folder.file("line.kasurilook")).err.find("proofs of the look, line 2") !=
          std::string::npos);
    folder.write(
        "outer.kasurilook",
        R"x({"kasuri-look": 1, "steps": [{"steps": [{"text": "out.r += 0.1\nproof \"p\" : finite\n"}], "proofs": ["proof \"greys\" : neutral"]}]})x");
    CHECK(cli(folder, "check " + folder.file("outer.kasurilook")).exit == 1); // as a step it is held to it too
    folder.write("bad.kasurilook",
                 R"({"kasuri-look": 1, "steps": [{"text": "out.r += 0.1\nproof \"greys\" : neutral\n"}]})");
    CHECK(cli(folder, "check " + folder.file("bad.kasurilook")).exit == 1);
    folder.write("mask.kasurilook",
                 R"x({"kasuri-look": 1, "steps": [{"text": "out.r = g\n", "mask": "nothing(r)"}]})x");
    const Ran mask = cli(folder, "check " + folder.file("mask.kasurilook"));
    CHECK(mask.exit == 1);
    CHECK(mask.err.find("its mask") != std::string::npos);
    CHECK(cli(folder, "check " + folder.file("gone.kasurilook")).exit == 3);
}

TEST_CASE("a look is evaluated and explained", "[cli][look]") {
    const Folder folder;
    folder.write(
        "two.kasurilook",
        R"x({"kasuri-look": 1, "steps": [{"text": "out.rgb = rgb.gbr\n"}, {"text": "out.rgb = rgb * 0.5\n", "opacity": 0.5}]})x");
    const std::string two = folder.file("two.kasurilook");
    CHECK(cli(folder, "eval " + two, "1,0.5,0.25\n").out == "0.375,0.1875,0.75\n");
    CHECK(cli(folder, "eval " + two + " --print 'out.b - b'", "1,0.5,0.25\n").out == "0.5\n");
    const Ran known = cli(folder, "explain " + two + " --stage known");
    CHECK(known.out.find("all 2 steps are one exact matrix") != std::string::npos);
    CHECK(cli(folder, "explain " + two + " --stage tiles").out.find("pass 1 of 1") == 0);
    CHECK(cli(folder, "explain " + two + " --stage tree").exit == 2);
}

TEST_CASE("a look is baked with its error, and as small as a wish allows", "[cli][look]") {
    const Folder folder;
    const Ran cube = cli(folder, "bake " + look + " " + folder.file("l.cube") + " --size 17");
    CHECK(cube.exit == 0);
    CHECK(cube.out.find("17 points a side") != std::string::npos);
    CHECK(folder.read("l.cube").find("# step 2: dip = 0.5") != std::string::npos);
    const Ran clf = cli(folder, "bake " + look + " " + folder.file("l.clf") + " --within-delta-e 3");
    CHECK(clf.exit == 0);
    CHECK(clf.out.find("CIEDE2000") != std::string::npos);
    CHECK(folder.read("l.clf").find("<LUT3D") != std::string::npos);
    CHECK(cli(folder, "bake " + look + " " + folder.file("n.clf") + " --within 1e-9").exit == 1);
    CHECK_FALSE(std::filesystem::exists(folder.file("n.clf")));
    CHECK(cli(folder, "bake " + look + " " + folder.file("n.clf") + " --set k=1").exit == 2);
    const Ran exact =
        cli(folder, "bake " + filters + "turned-cloth.kasuri --preset 'Round once' " + folder.file("m.clf"));
    CHECK(exact.out.find("exactly a matrix") != std::string::npos);
}

TEST_CASE("a sequence is rendered in parts, again, and told as JSON", "[cli][look]") {
    const Folder folder;
    std::filesystem::create_directories(folder.path / "in");
    REQUIRE(cli(folder, "target hue_sweep -o " + folder.file("in/f.0001.exr")).exit == 0);
    for (int i = 2; i <= 6; ++i)
        std::filesystem::copy_file(folder.file("in/f.0001.exr"), folder.file(fmt::format("in/f.{:04}.exr", i)));
    const std::string in = "'" + folder.file("in/f.####.exr") + "' ";
    const Ran first = cli(folder, "render " + look + " " + in + folder.file("out/") + " --part 1/2 --json");
    CHECK(first.exit == 0);
    CHECK(first.out.find("\"what\":\"written\"") != std::string::npos);
    CHECK(first.out.find("\"frame\":5") != std::string::npos);
    CHECK(first.out.find("\"frame\":2") == std::string::npos);
    const Ran all = cli(folder, "render " + look + " " + in + folder.file("out/") + " --resume --frames 1-4");
    CHECK(all.exit == 0);
    CHECK(all.out.find("2 written, 2 there already, 0 failed") != std::string::npos);
    CHECK(cli(folder, "render " + look + " " + in + folder.file("one.exr")).exit == 3);
    CHECK(cli(folder, "render " + look + " " + in + folder.file("out/") + " --frames backwards").exit == 2);
    CHECK(cli(folder, "render " + look + " " + in + folder.file("out/") + " --part 9/8").exit == 2);
    folder.write("in/f.0007.exr", "no picture");
    const Ran broken = cli(folder, "render " + look + " " + in + folder.file("again/") + " --quiet");
    CHECK(broken.exit == 3);
    CHECK(broken.out.find("6 written, 0 there already, 1 failed") != std::string::npos);
}

TEST_CASE("colour decision lists go out and come in, and a page is written", "[cli]") {
    const Folder folder;
    const Ran out =
        cli(folder, "cdl " + filters + "lift-and-pull.kasuri --preset 'Warm pull' -o " + folder.file("w.cc"));
    CHECK(out.exit == 0);
    CHECK(out.out.find("saturation 1") != std::string::npos);
    CHECK(folder.read("w.cc").find("<Slope>1.0") != std::string::npos);
    REQUIRE(cli(folder, "cdl " + folder.file("w.cc") + " -o " + folder.file("w.kasuri")).exit == 0);
    const auto eval = [&](const std::string& rule) {
        return std::stod(cli(folder, "eval " + rule, "0.4,0.5,0.6\n").out);
    };
    CHECK(eval(folder.file("w.kasuri")) ==
          Approx(eval(filters + "lift-and-pull.kasuri --preset 'Warm pull'")).epsilon(1e-5)); // there and back
    CHECK(cli(folder, "cdl " + filters + "turned-cloth.kasuri --preset 'Round once'").exit == 1);
    CHECK(cli(folder, "cdl " + filters + "lift-and-pull.kasuri -o " + folder.file("w.txt")).exit == 2);
    const Ran page = cli(folder, "report " + look + " -o " + folder.file("r.html"));
    CHECK(page.exit == 0);
    CHECK(folder.read("r.html").find("<h2>Step 4: Smoke and straw (off)</h2>") != std::string::npos);
    CHECK(folder.read("r.html").find("<h2>Proofs of the look as a whole</h2>") != std::string::npos);
    CHECK(cli(folder, "report " + look + " --picture " + folder.file("gone.exr")).exit == 3);
    const Ran glsl = cli(folder, "glsl " + look + " --name river");
    CHECK(glsl.out.find("vec4 river(vec4 colour)") != std::string::npos);
}

TEST_CASE("the looks that ship keep what they promise", "[cli][look]") {
    const Folder folder;
    const Ran all = cli(folder, "check " KASURI_SOURCE_DIR "/data/looks");
    INFO(all.out);
    CHECK(all.exit == 0);
    CHECK(all.out.find("0 of 15 filters fail") != std::string::npos);
}
