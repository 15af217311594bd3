// Further pictures, values out of range, tables as other programs write them: what commands do with them, and when they
// claim nothing.
#include "cli/driver.hpp"

#include "base/text.hpp"
#include "io/picture_file.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

void picture(const Folder& folder, const std::string& name, std::array<double, 3> colour, int size = 4) {
    image::Image made = image::image_of(image::generated(size, size, [&](int, int) { return colour; }));
    made.depth = image::Depth::float32;
    REQUIRE(io::save(folder.file(name), made));
}

bool has(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

const char* const matte_rule = "source matte : float\nout.rgb = rgb * (1 - matte)\nproof \"same\" : identity\n";

} // namespace

TEST_CASE("a rule that reads a picture there is none of is held to several, and passes nothing by default", "[cli]") {
    const Folder folder;
    folder.write("m.kasuri", matte_rule);
    folder.write("nothing.kasuri", "");
    picture(folder, "black.exr", {0, 0, 0});
    picture(folder, "half.exr", {0.5, 0.5, 0.5});
    const Ran check = cli(folder, "check " + folder.file("m.kasuri"));
    CHECK(check.exit == 1);
    CHECK(has(check.out, "FAIL  same"));
    CHECK(has(check.out, "no picture for it"));
    CHECK(cli(folder, "check " + folder.file("m.kasuri") + " --source matte=" + folder.file("black.exr")).exit == 0);
    CHECK(cli(folder, "check " + folder.file("m.kasuri") + " --source matte=" + folder.file("half.exr")).exit == 1);
    CHECK(cli(folder, "check " + folder.file("m.kasuri") + " --source veil=" + folder.file("half.exr")).exit == 3);
    const Ran json = cli(folder, "check --json " + folder.file("m.kasuri"));
    CHECK(has(json.out, "\"without-picture\":[\"matte\"]"));

    const std::string both = "diff " + folder.file("m.kasuri") + " " + folder.file("nothing.kasuri");
    const Ran diff = cli(folder, both);
    CHECK(diff.exit == 1);
    CHECK(has(diff.out, "no picture for matte"));
    CHECK(cli(folder, both + " --source matte=" + folder.file("black.exr")).exit == 0);
    CHECK(cli(folder, both + " --source matte=" + folder.file("half.exr")).exit == 1);
    CHECK(cli(folder, both + " --source veil=" + folder.file("half.exr")).exit == 3);
    // A look is compared colour by colour: with further pictures too, but not where it looks at neighbours.
    folder.write("m.kasurilook",
                 R"x({"kasuri-look": 1, "steps": [{"text": "source matte : float\nout.rgb = rgb * (1 - matte)\n"}]})x");
    CHECK(cli(folder, "diff " + folder.file("m.kasurilook") + " " + folder.file("nothing.kasuri")).exit == 1);
    CHECK(cli(folder, "diff " + folder.file("m.kasurilook") + " " + folder.file("m.kasuri")).exit == 0);
    folder.write("blur.kasurilook", R"x({"kasuri-look": 1, "steps": [{"text": "out.rgb = blur(rgb, 2)\n"}]})x");
    CHECK(cli(folder, "diff " + folder.file("blur.kasurilook") + " " + folder.file("nothing.kasuri")).exit == 4);
}

TEST_CASE("where there is no picture nothing is measured, and nothing rendered", "[cli]") {
    const Folder folder;
    folder.write("m.kasuri", matte_rule);
    picture(folder, "in.exr", {0.25, 0.5, 0.75});
    picture(folder, "half.exr", {0.5, 0.5, 0.5});
    const std::string in = folder.file("in.exr"), filter = folder.file("m.kasuri"),
                      half = " --source matte=" + folder.file("half.exr");
    const Ran measured = cli(folder, "measure histogram " + filter + " --picture " + in);
    CHECK(measured.exit == 4);
    CHECK(has(measured.err, "not measured: no picture for matte"));
    CHECK(measured.out.empty());
    CHECK(cli(folder, "measure histogram " + filter + " --picture " + in + half).exit == 0);
    CHECK(cli(folder, "render " + filter + " " + in + " " + folder.file("out.exr")).exit == 3);
    CHECK(cli(folder, "render " + filter + " " + in + " " + folder.file("out.exr") + half).exit == 0);
    const Result<image::Image> out = io::load(folder.file("out.exr"));
    REQUIRE(out);
    CHECK((*out.value().find("G")->plane)[3] == 0.25f);
    const Ran report = cli(folder, "report " + filter + " --picture " + in);
    CHECK(report.exit == 0);
    CHECK(has(report.out, "Not measured: there is no picture for matte"));
    CHECK(has(report.out, "is no picture for it"));
    CHECK_FALSE(has(report.out, "alt=\"after\""));
    CHECK(has(cli(folder, "report " + filter + half + " --picture " + in).out, "alt=\"after\""));
    // One channel of a file of several.
    image::Image layered = io::load(in).value();
    layered.channels.push_back({"mask.V", image::make_plane(image::Samples(16, 1.0f))});
    REQUIRE(io::save(folder.file("layers.exr"), layered));
    CHECK(cli(folder,
              "render " + filter + " " + in + " " + folder.file("dark.exr") +
                  " --source matte=" + folder.file("layers.exr") + ":mask.V")
              .exit == 0);
    CHECK((*io::load(folder.file("dark.exr")).value().find("R")->plane)[0] == 0);
    CHECK(has(cli(folder,
                  "render " + filter + " " + in + " " + folder.file("dark.exr") +
                      " --source matte=" + folder.file("layers.exr") + ":nothing")
                  .err,
              "Its channels are"));
}

TEST_CASE("a table brings a source as columns of its name, for rules and looks, by engine and reference", "[cli]") {
    const Folder folder;
    folder.write("m.kasuri", "source matte : float\nsource lamp : vec3\nout.rgb = rgb * matte + lamp\n");
    folder.write(
        "m.kasurilook",
        R"x({"kasuri-look": 1, "steps": [{"text": "source matte : float\nsource lamp : vec3\nout.rgb = rgb * matte + lamp\n"},
                     {"text": "out.rgb = rgb.gbr\n", "opacity": 0.5}]})x");
    const std::string columns = " --columns r,g,b,lamp.r,lamp.g,lamp.b,matte", line = "1,0.5,0.25,0.1,0.2,0.3,0.5\n";
    const auto numbers = [](const Ran& ran) {
        std::vector<double> all;
        for (const std::string_view part : split(trimmed(ran.out), ','))
            all.push_back(parse_number(part).value_or(-1));
        return all;
    };
    for (const std::string way : {"", " --reference"}) {
        INFO(way);
        const auto rule = numbers(cli(folder, "eval " + folder.file("m.kasuri") + columns + way, line));
        REQUIRE(rule.size() == 3);
        CHECK(rule[0] == Approx(0.6));
        CHECK(rule[2] == Approx(0.425));
        const auto look = numbers(cli(folder, "eval " + folder.file("m.kasurilook") + columns + way, line));
        REQUIRE(look.size() == 3);
        CHECK(look[0] == Approx(0.5 * (0.6 + 0.45)));
        // An expression about what goes in and what comes out, and a column of its own.
        const auto print =
            numbers(cli(folder, "eval " + folder.file("m.kasurilook") + columns + ",k --print '(out.r - r) * k'" + way,
                        "1,0.5,0.25,0.1,0.2,0.3,0.5,10\n"));
        REQUIRE(print.size() == 1);
        CHECK(print[0] == Approx(10 * (0.525 - 1)));
    }
    const Ran missing = cli(folder, "eval " + folder.file("m.kasuri"), "1,0.5,0.25\n");
    CHECK(missing.exit == 2);
    CHECK(has(missing.err, "--columns r,g,b,matte"));
    folder.write("lut.cube",
                 "LUT_3D_SIZE 2\n0 0 0\n0.5 0 0\n0 0.5 0\n0.5 0.5 0\n0 0 0.5\n0.5 0 0.5\n0 0.5 0.5\n0.5 0.5 0.5\n");
    CHECK(cli(folder, "eval " + folder.file("lut.cube") + " --print out.g", "1,0.5,0.25\n").out == "0.25\n");
    CHECK(numbers(cli(folder, "eval --reference " + folder.file("lut.cube"), "1,0.5,0.25\n"))[0] == Approx(0.5));
    // Neighbours have no reference through several steps.
    folder.write(
        "b.kasurilook",
        R"x({"kasuri-look": 1, "steps": [{"text": "out.rgb = blur(rgb, 1)\n"}, {"text": "out.r = g\n", "opacity": 0.5}]})x");
    CHECK(cli(folder, "eval --reference " + folder.file("b.kasurilook"), "1,0.5,0.25\n").exit == 2);
}

TEST_CASE("tables are read as spreadsheets write them", "[cli]") {
    const Folder folder;
    const std::string half = "eval --rule 'out.rgb = rgb * 0.5'";
    CHECK(cli(folder, half, "\xef\xbb\xbfr,g,b\n1,0.5,0.25\n").out == "0.5,0.25,0.125\n");
    CHECK(cli(folder, half, "r, g, b\r\n1, 0.5, 0.25\r\n").out == "0.5,0.25,0.125\n");
    CHECK(cli(folder, half, "\"r\",\"g\",\"b\"\n\"1\",\"0.5\",\"0.25\"\n").out == "0.5,0.25,0.125\n");
    CHECK(cli(folder, half, "1,0.5,0.25\nr,g,b\n").exit == 3); // a heading is the first line
    CHECK(cli(folder, half + " --width 2", "1,0.5,0.25\n").exit == 2);
}

TEST_CASE("values that a parameter cannot have are refused", "[cli]") {
    const Folder folder;
    folder.write("p.kasuri",
                 "param k = 0.5 in 0 .. 1\nparam n = 2 in 1 .. 4 whole\nparam tint = vec3(1, 1, 1) in 0 .. 2\nout.rgb "
                 "= rgb * k * n * tint\n");
    const std::string eval = "eval " + folder.file("p.kasuri");
    if (cli(folder, eval, "1,1,1\n").exit != 0) // how a whole number is written is not what is tested
        folder.write("p.kasuri",
                     "param k = 0.5 in 0 .. 1\nparam n = 2 in 1 .. 4\nparam tint = vec3(1, 1, 1) in 0 .. 2\nout.rgb = "
                     "rgb * k * n * tint\n");
    for (const char* bad : {"k=7", "k=-0.1", "k=nan", "k=inf", "tint=1,3,1", "tint=1,nan,1"}) {
        INFO(bad);
        const Ran ran = cli(folder, eval + " --set " + bad, "1,1,1\n");
        CHECK(ran.exit == 2);
        CHECK(has(ran.err, " goes from 0 to "));
    }
    CHECK(cli(folder, eval + " --set k=1 --set tint=1,2,0", "1,1,1\n").out == "2,4,0\n");
}

TEST_CASE("what is known of a look is told in numbers", "[cli][look]") {
    const Folder folder;
    folder.write(
        "two.kasurilook",
        R"x({"kasuri-look": 1, "steps": [{"text": "out.rgb = rgb * 0.123456789\n"}, {"text": "out.rgb = rgb.gbr\n"}]})x");
    const Ran known = cli(folder, "explain --json --stage known " + folder.file("two.kasurilook"));
    CHECK(known.exit == 0);
    CHECK(has(known.out, "0.123456789"));
    CHECK(has(known.out, "\"matrix\":[[0.0,0.123456789,0.0]"));
    folder.write("off.kasurilook", R"x({"kasuri-look": 1, "steps": [{"text": "out.rgb = rgb * 2\n", "on": false}]})x");
    CHECK(has(cli(folder, "explain --stage known " + folder.file("off.kasurilook")).out, "changes nothing"));
    CHECK(cli(folder, "eval " + folder.file("off.kasurilook"), "1,0.5,0.25\n").out == "1,0.5,0.25\n");
    folder.write("bare.kasurilook", R"x({"kasuri-look": 1, "steps": [{"filter": "dip.kasuri"}]})x");
    const Ran bare = cli(folder, "eval " + folder.file("bare.kasurilook"), "1,0.5,0.25\n");
    CHECK(bare.exit == 3);
    CHECK(has(bare.err, "has no copy of it"));
}

TEST_CASE("rendering goes on with what was made by the same thing", "[cli]") {
    const Folder folder;
    folder.write("k.kasuri", "param k = 1 in 0 .. 2\nout.rgb = rgb * k\n");
    for (const char* kind : {"exr", "png", "tif"}) {
        INFO(kind);
        const std::string in = std::string("in.") + kind, out = folder.file(std::string("out-") + kind) + "/";
        picture(folder, in, {0.5, 0.5, 0.5});
        const std::string render =
            "render " + folder.file("k.kasuri") + " " + folder.file(in) + " " + out + " --resume --json ";
        CHECK(has(cli(folder, render).out, "\"written\":1"));
        CHECK(has(cli(folder, render).out, "\"left\":1"));
        CHECK(has(cli(folder, render + "--set k=0").out, "\"written\":1"));
        CHECK(has(cli(folder, render + "--set k=0").out, "\"left\":1"));
        CHECK((*io::load(out + in).value().channels.front().plane)[0] == 0);
        CHECK(has(cli(folder, render).out, "\"written\":1"));
    }
}

TEST_CASE("the frame is the number in the place of the #, and any number of * ends", "[cli]") {
    const Folder folder;
    folder.write("id.kasuri", "");
    std::filesystem::create_directories(folder.path / "seq");
    for (int i = 1; i <= 3; ++i)
        picture(folder, "seq/f.000" + std::to_string(i) + ".v2.exr", {0.1 * i, 0, 0});
    const std::string id = "render " + folder.file("id.kasuri") + " ";
    CHECK(cli(folder, id + "'" + folder.file("seq/f.####.v2.exr") + "' '" + folder.file("o/f.####.exr") + "'").exit ==
          0);
    CHECK(std::filesystem::exists(folder.path / "o/f.0003.exr"));
    const Ran some = cli(folder,
                         id + "'" + folder.file("seq/f.####.v2.exr") + "' '" + folder.file("p/f.####.exr") +
                             "' --frames 1-2 --json");
    CHECK(has(some.out, "\"written\":2"));
    CHECK(
        has(cli(folder, id + folder.file("seq") + " " + folder.file("q") + " --frames 2 --json").out, "\"written\":1"));
    std::filesystem::create_directories(folder.path / "pat");
    picture(folder, "pat/" + std::string(60, 'a') + ".exr", {0, 0, 0});
    CHECK(cli(folder, id + "'" + folder.file("pat/*a*a*a*a*a*a*a*a*a*b.exr") + "' " + folder.file("r")).exit ==
          3); // and at once
    CHECK(cli(folder, id + "'" + folder.file("pat/*a*a*a*a*a*a*a*a*a*.exr") + "' " + folder.file("r")).exit == 0);
}
