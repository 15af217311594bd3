// Drives the real program through a shell, as its users do.
#include "cli/driver.hpp"
#include "io/picture_file.hpp"

#include <unistd.h>

namespace fs = std::filesystem;
using namespace kasuri::test;

namespace {

const std::string demo_filter = KASURI_SOURCE_DIR "/data/filters/indigo-over-madder.kasuri";

} // namespace

TEST_CASE("eval reads and writes CSV with 9 significant digits", "[cli]") {
    Folder folder;
    const Ran ran = cli(folder, "eval --rule 'out.rgb = rgb / 3'",
                        "r,g,b,a\n1,2,-0.5\n# a comment\n\n0.25, 0.5 ,1,0.5\nnan,inf,-inf\n");
    CHECK(ran.exit == 0);
    CHECK(ran.err.empty());
    CHECK(ran.out == "0.333333343,0.666666687,-0.166666672\n0.0833333358,0.166666672,0.333333343,0.5\nnan,inf,-inf\n");
}

TEST_CASE("an empty rule is the identity on the command line, too", "[cli]") {
    Folder folder;
    const Ran ran = cli(folder, "eval --rule ''", "0.5,-2,1e30\n0.25,0.5,1,0\n");
    CHECK(ran.exit == 0);
    CHECK(ran.out == "0.5,-2,1.00000002e+30\n0.25,0.5,1,0\n");
}

TEST_CASE("the demo pictures are written where one says", "[cli]") {
    Folder folder;
    CHECK(cli(folder, "demo " + folder.file("made/here")).exit == 0);
    const auto puppet = kasuri::io::load(folder.file("made/here/puppet.exr"));
    REQUIRE(puppet);
    CHECK(puppet.value().channels.size() == 16);
    // One layer of it through a filter, on the command line.
    const std::string swap = folder.write("swap.kasuri", "out.rgb = rgb.gbr\n");
    CHECK(cli(folder,
              "render " + swap + " " + folder.file("made/here/puppet.exr") + " " + folder.file("out.exr") +
                  " --layer robe")
              .exit == 0);
    CHECK(cli(folder,
              "render " + swap + " " + folder.file("made/here/puppet.exr") + " " + folder.file("out.exr") +
                  " --layer nobody")
              .exit == 3);
    folder.write("blocked", "a file");
    CHECK(cli(folder, "demo " + folder.file("blocked")).exit == 3);
}

TEST_CASE("eval prints any expression", "[cli]") {
    Folder folder;
    CHECK(cli(folder, "eval --print 'hsv(rgb)'", "0.25,0.5,0.75\n").out == "210,0.666666687,0.75\n");
    CHECK(cli(folder, "eval --rule 'let x = 2 * g' --print 'x + out.r'", "1,2,3\n").out == "5\n");
    CHECK(cli(folder, "eval --print 'r > g'", "1,2,3\n").out == "0\n");
    CHECK(cli(folder, "eval --print 'r +'", "1,2,3\n").exit == 1);
}

TEST_CASE("eval sets parameters and presets and names what it does not know", "[cli]") {
    Folder folder;
    CHECK(cli(folder, "eval " + demo_filter + " --set meet=1", "0.1,0.2,0.4\n").out ==
          "0.100000001,0.300000012,0.300000012\n");
    CHECK(cli(folder, "eval " + demo_filter, "0.1,0.2,0.4\n").out == "0.100000001,0.200000003,0.400000006\n");
    const Ran preset = cli(folder, "eval " + demo_filter + " --preset 'Vat blue' --set depth=0", "0.1,0.2,0.4\n");
    CHECK(preset.out == "0.100000001,0.300000012,0.300000012\n");
    const Ran unknown = cli(folder, "eval " + demo_filter + " --set meat=1", "0,0,0\n");
    CHECK(unknown.exit == 2);
    CHECK(unknown.err.find("Did you mean meet?") != std::string::npos);
    CHECK(cli(folder, "eval " + demo_filter + " --set meet=lots", "0,0,0\n").exit == 2);
    CHECK(cli(folder, "eval " + demo_filter + " --preset Nope", "0,0,0\n").exit == 2);
}

TEST_CASE("the reference and the engine agree on the command line", "[cli]") {
    Folder folder;
    const std::string rule = "eval --rule 'let c = hsv(rgb); c.h += 40; c.s *= 0.5; out.rgb = rgb(c)' ";
    const std::string colours = "0.1,0.7,0.4\n2,1,0.5\n";
    const Ran fast = cli(folder, rule, colours), exact = cli(folder, rule + "--reference", colours);
    REQUIRE(fast.exit == 0);
    std::istringstream a(fast.out), b(exact.out);
    std::string x, y;
    int compared = 0;
    while (std::getline(a, x, a.peek() == '\n' ? '\n' : ',') && std::getline(b, y, b.peek() == '\n' ? '\n' : ',')) {
        CHECK(std::stod(x) == Approx(std::stod(y)).margin(5e-6));
        ++compared;
    }
    CHECK(compared >= 4);
}

TEST_CASE("faults of a rule go to standard error as file:line:column and exit with 1", "[cli]") {
    Folder folder;
    const std::string file = folder.write("bad.kasuri", "filter \"Bad\"\nout.g = shrd\nout = g\n");
    const Ran ran = cli(folder, "eval " + file, "0,0,0\n");
    CHECK(ran.exit == 1);
    CHECK(ran.out.empty());
    CHECK(ran.err.find(file + ":2:9: error K201: there is no shrd") != std::string::npos);
    CHECK(ran.err.find(file + ":3:7: error K302:") != std::string::npos);
}

TEST_CASE("faults of the input exit with 3 and name line and column", "[cli]") {
    Folder folder;
    const Ran word = cli(folder, "eval --rule ''  --print r", "0,0,0\n1,x,2\n");
    CHECK(word.exit == 3);
    CHECK(word.err == "kasuri-cli: standard input:2:3: x is not a number\n");
    CHECK(cli(folder, "eval --print r", "1,2\n").exit == 3);
    CHECK(cli(folder, "eval " + folder.file("none.kasuri"), "").exit == 3);
    CHECK(cli(folder, "eval " + folder.path.string(), "").exit == 3);
}

TEST_CASE("usage faults exit with 2, help with 0 and complete", "[cli]") {
    Folder folder;
    CHECK(cli(folder, "").exit == 2);
    CHECK(cli(folder, "nonsense").exit == 2);
    CHECK(cli(folder, "eval").exit == 2);
    CHECK(cli(folder, "eval --nope").exit == 2);
    CHECK(cli(folder, "bake " + demo_filter + " x.cube --size 16").exit == 2);
    const Ran help = cli(folder, "--help");
    CHECK(help.exit == 0);
    for (const char* command : {"eval", "render", "bake", "check", "demo"}) {
        CHECK(help.out.find(command) != std::string::npos);
        CHECK(cli(folder, std::string(command) + " --help").exit == 0);
    }
    CHECK(help.out.find("Exit codes: 0 good") != std::string::npos);
}

TEST_CASE("check measures proofs and its exit code tells", "[cli]") {
    Folder folder;
    const Ran good = cli(folder, "check " + demo_filter);
    CHECK(good.exit == 0);
    CHECK(good.out.find("pass  greys stay grey") != std::string::npos);
    CHECK(good.out.find("0 of 3 proofs fail") != std::string::npos);
    const std::string rule = "param k = 0 in 0 .. 1\nout.r = r + 0.1 * k\n";
    const std::string tinting = folder.write("tint.kasuri",
                                             rule +
                                                 "proof \"greys stay grey\" : neutral\n"
                                                 "proof \"identity at defaults\" : identity\n");
    const Ran bad = cli(folder, "check " + tinting);
    CHECK(bad.exit == 1);
    CHECK(bad.out.find("FAIL  greys stay grey  0.1 > 0.0001") != std::string::npos);
    CHECK(bad.out.find("pass  identity at defaults") != std::string::npos);
    CHECK(cli(folder, "check " + tinting + " --set k=0").exit == 0);
    // What nobody has promised is told, and judges nothing.
    const std::string free = folder.write("free.kasuri", rule);
    const Ran offered = cli(folder, "check " + free + " --junit " + folder.file("free.xml"));
    CHECK(offered.exit == 0);
    CHECK(offered.out.find("Nothing is promised") != std::string::npos);
    CHECK(offered.out.find("does not hold  greys stay grey  0.1 > 0.0001") != std::string::npos);
    CHECK(offered.out.find("holds  identity at defaults") != std::string::npos);
    CHECK(offered.out.find("FAIL") == std::string::npos);
    CHECK(folder.read("free.xml").find("tests=\"0\"") != std::string::npos);
    CHECK(cli(folder, "check --json " + free).out.find("\"promised\":false") != std::string::npos);
}

TEST_CASE("render and bake write their files", "[cli]") {
    Folder folder;
    kasuri::image::Image image = kasuri::image::image_of(kasuri::image::generated(4, 4, [](int x, int y) {
        return std::array<double, 3>{x / 3.0, y / 3.0, 0.25};
    }));
    image.depth = kasuri::image::Depth::uint8;
    image.space = "srgb";
    REQUIRE(kasuri::io::save(folder.file("in.png"), image));
    const std::string swap = folder.write("swap.kasuri", "out.rgb = rgb.gbr\n");
    CHECK(cli(folder, "render " + swap + " " + folder.file("in.png") + " " + folder.file("out.png")).exit == 0);
    const auto out = kasuri::io::load(folder.file("out.png"));
    REQUIRE(out);
    const auto in = kasuri::io::load(folder.file("in.png"));
    CHECK(*out.value().find("R")->plane == *in.value().find("G")->plane);
    CHECK(*out.value().find("B")->plane == *in.value().find("R")->plane);
    CHECK(cli(folder, "render " + swap + " " + folder.file("none.png") + " " + folder.file("o2.png")).exit == 3);
    CHECK_FALSE(fs::exists(folder.file("o2.png")));
    const Ran baked = cli(folder, "bake " + swap + " " + folder.file("s.cube") + " --size 17 --domain -1 2");
    CHECK(baked.exit == 0);
    CHECK(baked.out.find("largest") != std::string::npos);
    CHECK(folder.read("s.cube").find("DOMAIN_MIN -1 -1 -1") != std::string::npos);
    const std::string place = folder.write("place.kasuri", "out.r = pos.x\n");
    const Ran refused = cli(folder, "bake " + place + " " + folder.file("p.cube"));
    CHECK(refused.exit == 1);
    CHECK(refused.err.find("cannot hold") != std::string::npos);
    CHECK(cli(folder, "bake " + swap + " " + folder.file("no/such/s.cube")).exit == 3);
}

TEST_CASE("a read-only folder is an error that keeps the old file", "[cli]") {
    if (::geteuid() == 0)
        return; // root may write anywhere; the full-device test of base covers the failing write
    Folder folder;
    const std::string swap = folder.write("swap.kasuri", "out.rgb = rgb.gbr\n");
    fs::create_directory(folder.path / "closed");
    folder.write("closed/s.cube", "old");
    fs::permissions(folder.path / "closed", fs::perms::owner_read | fs::perms::owner_exec);
    CHECK(cli(folder, "bake " + swap + " " + folder.file("closed/s.cube")).exit == 3);
    CHECK(folder.read("closed/s.cube") == "old");
    fs::permissions(folder.path / "closed", fs::perms::owner_all);
}

TEST_CASE("check goes through folders, tells what fails and writes for a build server", "[cli]") {
    Folder folder;
    folder.write("dyes/a.kasuri", "param k = 0 in 0 .. 1\nout.r = r + k\nproof \"greys <stay> grey\" : neutral");
    folder.write("dyes/deeper/b.kasuri",
                 "proof \"rows\" : sums\nproof \"undone\" : invertible\nout.r = mix(r, g, 0.25)");
    folder.write("dyes/c.kasuri", "out.r = r +");
    folder.write("dyes/notes.txt", "no filter");
    const Ran ran = cli(folder, "check " + folder.file("dyes") + " --junit " + folder.file("report.xml"));
    CHECK(ran.exit == 1);
    CHECK(ran.out.find("FAIL  greys <stay> grey  1 > 0.0001") != std::string::npos);
    CHECK(ran.out.find("pass  rows  0 <= 0.0001  [proved") != std::string::npos);
    CHECK(ran.out.ends_with("2 of 3 filters fail\n"));
    CHECK(ran.err.find("c.kasuri:1:") != std::string::npos);
    const std::string xml = folder.read("report.xml");
    CHECK(xml.find("<testsuites name=\"kasuri-cli check\" tests=\"4\" failures=\"1\" errors=\"1\"") !=
          std::string::npos);
    CHECK(xml.find("<testcase name=\"greys &lt;stay&gt; grey\"") != std::string::npos);
    const Ran quiet = cli(folder, "check --quiet " + folder.file("dyes/deeper"));
    CHECK(quiet.exit == 0);
    CHECK(quiet.out.empty());
    CHECK(cli(folder, "check " + folder.file("dyes/a.kasuri") + " --set k=0").exit == 0);
    folder.write("empty/readme.txt", "");
    CHECK(cli(folder, "check " + folder.file("empty")).exit == 3);
    CHECK(cli(folder, "check " + folder.file("nowhere.kasuri")).exit == 3);
}

TEST_CASE("glsl writes the rule for shaders, with the wished values as defaults", "[cli]") {
    Folder folder;
    const Ran ran = cli(folder, "glsl " + demo_filter + " --set meet=0.5 --name dyed");
    CHECK(ran.exit == 0);
    CHECK(ran.out.find("uniform float dyed_meet = 0.5;") != std::string::npos);
    CHECK(ran.out.find("vec4 dyed(vec4 colour) {") != std::string::npos);
    CHECK(cli(folder, "glsl " + demo_filter + " -o " + folder.file("dyed.glsl")).out.empty());
    CHECK(folder.read("dyed.glsl").starts_with("// Indigo over madder\n"));
    const Ran blur = cli(folder, "glsl --rule 'out.rgb = blur(rgb, 2)'");
    CHECK(blur.exit == 1);
    CHECK(blur.err.find("neighbours") != std::string::npos);
    CHECK(cli(folder, "glsl " + demo_filter + " --name 2x").exit == 2);
    CHECK(cli(folder, "glsl " + demo_filter + " --name gl_x").exit == 2);
    CHECK(cli(folder, "glsl " + demo_filter + " -o " + folder.file("nowhere/dyed.glsl")).exit == 3);
    CHECK(cli(folder, "glsl").exit == 2);
}

TEST_CASE("diff compares filters and pictures", "[cli]") {
    Folder folder;
    const std::string mixed = folder.write("mixed.kasuri", "param k = 0 in 0 .. 1\nout.r = mix(r, g, k)"),
                      written = folder.write("written.kasuri", "param k = 0 in 0 .. 1\nout.r = (1 - k) * r + k * g"),
                      other = folder.write("other.kasuri", "param k = 0 in 0 .. 1\nout.r = mix(r, b, k)");
    const Ran same = cli(folder, "diff " + mixed + " " + written);
    CHECK(same.exit == 0);
    CHECK(same.out.starts_with("the same for all finite colours and all values, proved"));
    const Ran different = cli(folder, "diff " + mixed + " " + other);
    CHECK(different.exit == 1);
    CHECK(different.out.starts_with("different: the largest difference is "));
    CHECK(cli(folder, "target sdr_bars -o " + folder.file("nothing.exr")).exit != 0); // no such target
    REQUIRE(cli(folder, "target grey_ramp -o " + folder.file("ramp.exr")).exit == 0);
    const std::string gain = folder.write("gain.kasuri", "out.g *= 1.25");
    REQUIRE(cli(folder, "render " + gain + " " + folder.file("ramp.exr") + " " + folder.file("gain.exr")).exit == 0);
    const Ran twice = cli(folder, "diff " + folder.file("ramp.exr") + " " + folder.file("ramp.exr"));
    CHECK(twice.exit == 0);
    CHECK(twice.out == "the same, bit for bit as numbers\n");
    const Ran changed = cli(folder, "diff " + folder.file("ramp.exr") + " " + folder.file("gain.exr"));
    CHECK(changed.exit == 1);
    CHECK(changed.out.find(" in g at x ") != std::string::npos);
    CHECK(changed.out.find("delta E2000: mean ") != std::string::npos);
    CHECK(cli(folder, "diff --within 2 " + folder.file("ramp.exr") + " " + folder.file("gain.exr")).exit ==
          0); // a quarter of 4 at most
    CHECK(cli(folder, "diff " + mixed + " " + folder.file("ramp.exr")).exit == 2);
    CHECK(cli(folder, "diff " + mixed + " " + folder.file("nowhere.kasuri")).exit == 3);
}

TEST_CASE("a look is rendered as its filters would be, one after the other", "[cli]") {
    Folder folder;
    const std::string first = folder.write("first.kasuri",
                                           "param k = 0 in 0 .. 1\nout.r = mix(r, g, k)\nproof \"x\" : neutral"),
                      second = folder.write("second.kasuri", "working srgb\nout.rgb = rgb * rgb");
    REQUIRE(cli(folder, "target grey_ramp -o " + folder.file("in.exr")).exit == 0);
    REQUIRE(
        cli(folder, "render " + first + " --set k=0.5 " + folder.file("in.exr") + " " + folder.file("one.exr")).exit ==
        0);
    REQUIRE(cli(folder, "render " + second + " " + folder.file("one.exr") + " " + folder.file("two.exr")).exit == 0);
    const std::string look = folder.write("dusk.kasurilook", R"({"kasuri-look": 1, "steps": [
        {"filter": "first.kasuri", "text": "param k = 0 in 0 .. 1\nout.r = mix(r, g, k)\nproof \"x\" : neutral", "values": {"k": 0.5}},
        {"label": "off", "on": false, "text": "out.rgb = out of order"},
        {"label": "squared", "filter": "second.kasuri", "text": "working srgb\nout.rgb = rgb * rgb", "mask": "a", "opacity": 1}]})");
    const Ran ran = cli(folder, "render " + look + " " + folder.file("in.exr") + " " + folder.file("look.exr"));
    INFO(ran.err);
    CHECK(ran.exit == 0);
    CHECK(ran.err.empty());
    CHECK(cli(folder, "diff --within 1e-5 " + folder.file("two.exr") + " " + folder.file("look.exr")).exit == 0);
    folder.write("second.kasuri", "out.rgb = rgb * 2"); // behind the look's back
    const Ran again = cli(folder, "render " + look + " " + folder.file("in.exr") + " " + folder.file("look.exr"));
    CHECK(again.err.find("step 3 (squared): second.kasuri says something else now") != std::string::npos);
    CHECK(cli(folder, "diff --within 1e-5 " + folder.file("two.exr") + " " + folder.file("look.exr")).exit == 0);
    const Ran broken =
        cli(folder,
            "render " +
                folder.write("bad.kasurilook",
                             R"({"kasuri-look": 1, "steps": [{}, {"label": "dip", "text": "out.r = gg"}]})") +
                " " + folder.file("in.exr") + " " + folder.file("x.exr"));
    CHECK(broken.exit == 1);
    CHECK(broken.err.find("step 2 (dip)") != std::string::npos);
    CHECK(broken.err.find("line 1, column 9") != std::string::npos);
    for (const char* wrong : {R"({"blend": "nothing"})", R"({"mask": "rgb"})", R"({"mask": "rgb +"})"})
        CHECK(cli(folder,
                  "render " +
                      folder.write("bad.kasurilook", std::string(R"({"kasuri-look": 1, "steps": [)") + wrong + "]}") +
                      " " + folder.file("in.exr") + " " + folder.file("x.exr"))
                  .exit == 1);
    CHECK(cli(folder, "render " + look + " --set k=1 " + folder.file("in.exr") + " " + folder.file("x.exr")).exit == 2);
    CHECK_FALSE(std::filesystem::exists(folder.file("x.exr")));
}
