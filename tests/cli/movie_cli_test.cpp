// Movies and prints on the command line.
#include "cli/driver.hpp"

#include <nlohmann/json.hpp>

using namespace kasuri::test;
using Json = nlohmann::json;
using Catch::Matchers::Contains;

namespace {

std::string same(const Folder& folder) { return folder.write("same.kasuri", "out.rgb = rgb\n"); }

/// A movie of six frames, each another grey.
std::string movie(const Folder& folder) {
    const std::string rule =
        folder.write("grey.kasuri", "param level = 0.5 in 0 .. 1\nworking srgb\nout.rgb = vec3(level)\n");
    for (int n = 1; n <= 6; ++n)
        REQUIRE(cli(folder,
                    "render " + rule + " --set level=0." + std::to_string(n) + " --size 32x16 --in-space srgb " +
                        folder.file("f." + std::to_string(n) + ".png"))
                    .exit == 0);
    const Ran made = cli(folder,
                         "render " + same(folder) + " '" + folder.file("f.#.png") + "' " + folder.file("m.mkv") +
                             " --rate 24 --quiet");
    INFO(made.err);
    REQUIRE(made.exit == 0);
    return folder.file("m.mkv");
}

} // namespace

TEST_CASE("a frame of a movie stands wherever a picture does", "[cli][movies]") {
    const Folder folder;
    const std::string m = movie(folder);
    const Json facts = Json::parse(cli(folder, "picture --json " + m + "@4").out)["result"]["pictures"];
    CHECK(facts[0]["movie"]["frame"] == 4);
    CHECK(facts[0]["movie"]["frames"] == 6);
    CHECK(facts[0]["movie"]["rate"] == "24/1");
    CHECK_THAT(cli(folder, "picture " + m + "@0.2s").out, Contains("frame 5 of 6, 24 in a second"));
    CHECK(cli(folder, "diff " + m + "@4 " + folder.file("f.4.png") + " --within 1e-4").exit == 0);
    CHECK(cli(folder, "diff " + m + "@4 " + folder.file("f.5.png") + " --within 1e-4").exit != 0);
    CHECK_THAT(cli(folder, "measure parade --picture " + m + "@2").out, Contains(","));
    // As a further picture, whole or a channel of it, by number or time.
    const std::string lamp = folder.write("lamp.kasuri", "source lamp\nout.rgb = lamp.rgb\n");
    for (const char* where : {"@6", "@6:G", "@0.21s:R"})
        CHECK(cli(folder, "render " + lamp + " " + m + "@1 " + folder.file("s.tif") + " --source lamp=" + m + where)
                  .exit == 0);
    CHECK_THAT(cli(folder, "picture " + m + "@7").err, Contains("it has no frame 7: there are 6"));
    CHECK_THAT(cli(folder, "render " + same(folder) + " " + m + " " + folder.file("x.mkv") + " --rate fast").err,
               Contains("write 24, 23.976 or 24000/1001"));
    CHECK_THAT(cli(folder, "render " + same(folder) + " " + m + " " + folder.file("x.mkv") + " --codec nothing").err,
               Contains("prores422 (.mov)"));
}

TEST_CASE("a movie goes to standard output whole, and its frames are told as lines", "[cli][movies][streams]") {
    const Folder folder;
    const std::string m = movie(folder);
    const Ran piped = cli(folder, "render " + same(folder) + " " + m + " - --ending mkv");
    REQUIRE(piped.exit == 0);
    CHECK(piped.out.starts_with("\x1a\x45\xdf\xa3")); // EBML (RFC 8794), and nothing before it
    folder.write("p.mkv", piped.out);
    CHECK_THAT(cli(folder, "picture " + folder.file("p.mkv")).out, Contains("frame 1 of 6"));
    const Ran told = cli(folder,
                         "render " + folder.write("negative.kasuri", "out.rgb = 1 - rgb\n") + " " + m + " " +
                             folder.file("n.mkv") + " --json");
    int frames = 0, files = 0;
    std::istringstream lines(told.out);
    for (std::string line; std::getline(lines, line);) {
        const Json each = Json::parse(line);
        frames += each.contains("what") && each["what"] == "frame" ? 1 : 0;
        files += each.contains("what") && each["what"] == "written" ? 1 : 0;
    }
    CHECK((frames == 5 && files == 1));
}

TEST_CASE("what a press holds is measured, and fails where too much is outside", "[cli][print]") {
    const Folder folder;
    CHECK_THAT(cli(folder, "print " + folder.write("a.icc", "nothing") + " " + same(folder) + " target:dye_chart").err,
               Contains("is no ICC profile"));
    CHECK(cli(folder, "--print " + folder.file("a.icc") + " format -").exit == 3);
}
