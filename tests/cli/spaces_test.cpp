// Spaces by command line: numbers in and out, pictures, configs.
#include "cli/driver.hpp"
#include "io/picture_file.hpp"
#include "support/config.hpp"

#include <catch2/catch.hpp>

#include <fstream>

using namespace kasuri;
using namespace kasuri::test;

namespace {
void write(const std::string& path, const std::string& text) { std::ofstream(path) << text; }
} // namespace

TEST_CASE("eval reads and writes numbers of any space", "[cli][spaces]") {
    Folder folder;
    CHECK(cli(folder, "eval --in-space srgb --print 'lab(rgb)'", "1,0,0\n").out ==
          "53.2371063,80.0901031,67.2032623\n");
    CHECK(cli(folder, "eval --in-space srgb --print 'lab(rgb)' --reference", "1,0,0\n")
              .out.starts_with("53.2371156,80.09011"));
    CHECK(cli(folder, "eval --in-space srgb --out-space srgb --rule 'working acescct'", "0.25,0.5,1\n").out ==
          "0.25,0.5,1\n"); // nothing was done
    const Ran unknown = cli(folder, "eval --in-space srbg --rule ''", "");
    CHECK(unknown.exit == 2);
    CHECK(unknown.err.find("Did you mean srgb?") != std::string::npos);
}

TEST_CASE("picture tells what a file holds", "[cli][spaces]") {
    Folder folder;
    image::Image image = image::image_of(image::generated(3, 2, [](int, int) {
        return std::array<double, 3>{0.25, 0.5, 1};
    }));
    image.depth = image::Depth::uint16;
    image.space = "p3-d65-srgb";
    REQUIRE(io::save(folder.file("p3.png"), image));
    const Ran ran = cli(folder, "picture " + folder.file("p3.png"));
    CHECK(ran.exit == 0);
    CHECK(ran.out.find("3 x 2, 16-bit whole numbers\nspace: p3-d65-srgb (cICP chunk)\nalpha: "
                       "none\nchannels: R G B\n") != std::string::npos);
    CHECK(cli(folder, "picture nowhere.exr").exit == 3);
    // Rendered into another space, and read as another.
    write(folder.file("same.kasuri"), "working acescg\nout.rgb *= 0.5\n");
    CHECK(cli(folder,
              "render " + folder.file("same.kasuri") + " " + folder.file("p3.png") + " " + folder.file("cg.exr") +
                  " --out-space acescg")
              .exit == 0);
    CHECK(io::load(folder.file("cg.exr")).value().space == "acescg");
    CHECK(cli(folder,
              "render " + folder.file("same.kasuri") + " " + folder.file("p3.png") + " " + folder.file("x.png") +
                  " --in-space nowhere")
              .exit == 2);
}

TEST_CASE("a colour config by option and by environment", "[cli][spaces]") {
    Folder folder;
    write(folder.file("village.ocio"), village_config());
    const std::string eval = " eval --in-space 'vat film' --rule ''", grey = "0.4,0.4,0.4\n"; // 2^-2 - 0.01 = 0.24
    const Ran ran = cli(folder, "--config " + folder.file("village.ocio") + eval, grey);
    CHECK(ran.exit == 0);
    CHECK(std::stod(ran.out) == Approx(0.24).margin(1e-5));
    CHECK(ran.err.find("one way cannot be used both ways") != std::string::npos);
    CHECK(cli(folder, eval, grey).exit == 2);
    CHECK(cli(folder, "--config " + folder.file("none.ocio") + eval, grey).exit == 3);
    CHECK(cli(folder, "--config " + folder.file("village.ocio") + " eval --rule 'working \"vat film\"; out.r = g'",
              "0.1,0.2,0.3\n")
              .out == "0.200000003,0.200000003,0.300000012\n");
}
