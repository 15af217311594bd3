// Kasuri in a pipe: pictures and LUTs on standard input and output.
#include "cli/driver.hpp"

using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

std::string ramp() { // the Netpbm format: 4 x 1, 8 bits
    return std::string("P6\n4 1\n255\n") + std::string("\x00\x40\x80\xff\x40\x80\xff\x00\x10\x20\x30\x40", 12);
}

} // namespace

TEST_CASE("a picture goes through a filter in a pipe, and is what it is through files", "[cli][streams]") {
    const Folder folder;
    const std::string filter = folder.write("swap.kasuri", "working srgb\nout.rgb = rgb.bgr\n");
    const Ran made = cli(folder, "render " + filter + " - - --ending ppm", ramp());
    INFO(made.err);
    REQUIRE(made.exit == 0);
    CHECK(made.err.empty());
    CHECK(made.out.substr(made.out.size() - 12) ==
          std::string("\x80\x40\x00\xff\x80\x40\xff\x10\x00\x40\x30\x20", 12).substr(0, 3) +
              std::string("\x80\x40\xff", 3) + std::string("\x10\x00\xff", 3) + std::string("\x40\x30\x20", 3));
    for (const std::string kind : {"png", "exr", "tif"}) {
        const Ran piped = cli(folder, "render " + filter + " - - --ending " + kind, ramp());
        REQUIRE(piped.exit == 0);
        folder.write("piped." + kind, piped.out);
        folder.write("in.ppm", ramp());
        REQUIRE(
            cli(folder, "render " + filter + " " + folder.file("in.ppm") + " " + folder.file("file." + kind)).exit ==
            0);
        CHECK(cli(folder, "diff " + folder.file("piped." + kind) + " " + folder.file("file." + kind)).exit == 0);
        CHECK(cli(folder, "diff - " + folder.file("file." + kind), piped.out).exit == 0);
    }
    const Ran facts = cli(folder, "picture -", ramp());
    CHECK(facts.exit == 0);
    CHECK_THAT(facts.out, Contains("4 x 1, 8-bit whole numbers"));
    CHECK(cli(folder, "measure mean - --json", ramp()).out.find("kasuri-stream") == std::string::npos);
}

TEST_CASE("what cannot go through a pipe says so, and names what the user has named", "[cli][streams]") {
    const Folder folder;
    const std::string filter = folder.write("a.kasuri", "out.r = g\n");
    CHECK(cli(folder, "render " + filter + " - -", ramp()).exit == 2); // of which kind?
    const Ran twice = cli(folder, "render " + filter + " - - - --ending ppm", ramp());
    CHECK(twice.exit != 0);
    const Ran empty = cli(folder, "picture -", "");
    CHECK(empty.exit == 3);
    CHECK_THAT(empty.err, Contains("standard input: is empty"));
    const Ran unknown = cli(folder, "picture -", "hello");
    CHECK(unknown.exit == 3);
    CHECK_THAT(unknown.err, Contains("standard input: holds no kind of picture"));
    const Ran broken = cli(folder, "picture -", "\x89PNG and no more");
    CHECK(broken.exit == 3);
    CHECK_THAT(broken.err, Contains("kasuri-cli: standard input: "));
    CHECK_THAT(broken.err, !Contains("kasuri-stream"));
    folder.write("in.ppm", ramp());
    const std::string full = std::string(KASURI_CLI) + " render " + filter + " - - --ending ppm < " +
        folder.file("in.ppm") + " > /dev/full 2> " + folder.file("said");
    CHECK(WEXITSTATUS(std::system(full.c_str())) == 3);
    CHECK_THAT(folder.read("said"), Contains("cannot write all of the output"));
}

TEST_CASE("a LUT is baked to standard output and read from standard input", "[cli][streams]") {
    const Folder folder;
    const std::string filter = folder.write("mix.kasuri", "working srgb\nout.r = 0.7 * r + 0.3 * g\nout.g = sqrt(g)\n");
    const Ran baked = cli(folder, "bake " + filter + " - --ending .cube --size 17");
    INFO(baked.err);
    REQUIRE(baked.exit == 0);
    CHECK_THAT(baked.out, Contains("LUT_3D_SIZE 17"));
    CHECK_THAT(baked.err, Contains("tetrahedral: "));
    REQUIRE(cli(folder, "bake " + filter + " " + folder.file("mix.cube") + " --size 17").exit == 0);
    CHECK(baked.out == folder.read("mix.cube"));
    const std::string picture = folder.write("in.ppm", ramp());
    const Ran by_pipe = cli(folder, "render - --lut-ending .cube " + picture + " " + folder.file("a.png"), baked.out);
    INFO(by_pipe.err);
    REQUIRE(by_pipe.exit == 0);
    REQUIRE(cli(folder, "render " + folder.file("mix.cube") + " " + picture + " " + folder.file("b.png")).exit == 0);
    CHECK(cli(folder, "diff " + folder.file("a.png") + " " + folder.file("b.png")).exit == 0);
    const Ran broken =
        cli(folder, "render - --lut-ending .cube " + picture + " " + folder.file("c.png"), "LUT_3D_SIZE 3\n1 1\n");
    CHECK(broken.exit == 3);
    CHECK_THAT(broken.err, !Contains("kasuri-stream"));
}

TEST_CASE("a rule of places makes a picture from nothing, of the size that is asked for", "[cli][streams]") {
    const Folder folder;
    const std::string filter = folder.write("slope.kasuri", "working srgb\nout.rgb = vec3(pos.x, pos.y, 0.2)\n");
    REQUIRE(cli(folder, "render " + filter + " --size 40x20 --in-space srgb --depth 16 " + folder.file("a.png")).exit ==
            0);
    const Ran facts = cli(folder, "picture " + folder.file("a.png"));
    CHECK_THAT(facts.out, Contains("40 x 20, 16-bit whole numbers") && Contains("space: srgb"));
    // The middle of the first pixel: half a pixel of 40, half of 20; 8 bits of it.
    const Ran made =
        cli(folder, "render " + filter + " --size 40x20 --in-space srgb --out-space srgb - --ending ppm --depth 8");
    INFO(made.err);
    REQUIRE(made.exit == 0);
    CHECK(made.out.size() >= 40 * 20 * 3);
    const std::string first = made.out.substr(made.out.size() - 40 * 20 * 3, 3);
    CHECK(static_cast<unsigned char>(first[0]) == 3); // 0.0125 * 255 = 3.2
    CHECK(static_cast<unsigned char>(first[1]) == 6); // 0.025 * 255 = 6.4
    CHECK(static_cast<unsigned char>(first[2]) == 51);
    CHECK(cli(folder, "render " + filter + " --size 40 " + folder.file("b.png")).exit == 2);
    CHECK(cli(folder, "render " + filter + " --size 1000000x1000000 " + folder.file("b.png")).exit == 2);
    CHECK(cli(folder, "render " + filter + " " + folder.file("b.png")).exit == 2);
}
