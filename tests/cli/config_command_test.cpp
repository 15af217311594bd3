// A config of OpenColorIO with our looks, read by OpenColorIO itself.
#include "cli/driver.hpp"
#include "support/config.hpp"

#include <nlohmann/json.hpp>

using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

constexpr char mixed[] = "working acescct\nout.rgb = mat3(0.8, 0.2, 0,  0.1, 0.8, 0.1,  0, 0.3, 0.7) * rgb\n";
constexpr char bent[] = "working srgb\nout.rgb = rgb * rgb * 0.5 + rgb * 0.5\n";

} // namespace

TEST_CASE("a new config holds our looks, and OpenColorIO makes by it what the engine makes", "[cli][config]") {
    const Folder folder;
    const std::string a = folder.write("first dip.kasuri", mixed), b = folder.write("bent.kasuri", bent);
    const Ran made = cli(folder, "config \"" + a + "\" " + b + " -o " + folder.file("show.ocio") + " --json");
    INFO(made.out << made.err);
    REQUIRE(made.exit == 0);
    const auto json = nlohmann::json::parse(made.out)["result"];
    REQUIRE(json["looks"].size() == 2);
    CHECK(json["looks"][0]["look"] == "first-dip");
    CHECK(json["looks"][0]["largest"] < 2e-4); // a matrix, through light in single precision
    CHECK(json["looks"][1]["largest"] < 1e-3); // curves
    CHECK(std::filesystem::exists(folder.file("show-luts/first-dip.clf")));
    const std::string text = folder.read("show.ocio");
    CHECK_THAT(text, Contains("search_path: show-luts") && Contains("first-dip") && Contains("scene_linear: acescg"));
    // We read it ourselves as a config: its views are there, and seeing through one is what the look and sRGB make.
    const std::string grey = folder.write("grey.ppm", "P6\n1 1\n255\n" + std::string(3, '\x80')),
                      same = folder.write("same.kasuri", "out.rgb = rgb\n"), by_us = folder.file("by-us.png"),
                      by_view = folder.file("by-view.png"), with = "--config " + folder.file("show.ocio");
    REQUIRE(cli(folder, "render " + b + " " + grey + " " + by_us + " --depth 16").exit == 0);
    const Ran through =
        cli(folder, with + " render " + same + " " + grey + " " + by_view + " --depth 16 --out-space 'bent on sRGB'");
    INFO(through.err);
    REQUIRE(through.exit == 0);
    const Ran apart = cli(folder, "diff " + by_us + " " + by_view + " --within 2e-3");
    INFO(apart.out);
    CHECK(apart.exit == 0);
    const Ran plain =
        cli(folder, "--config " + folder.file("show.ocio") + " eval --rule 'working srgb; out.rgb = rgb' ",
            "0.2,0.4,0.6\n");
    INFO(plain.err);
    CHECK(plain.exit == 0);
}

TEST_CASE("our looks are added to a config that is there, with the spaces that they need", "[cli][config]") {
    const Folder folder;
    const std::string look = folder.write("dip.kasuri", mixed);
    const std::string base = folder.write("village.ocio", village_config());
    const Ran made = cli(folder, "config " + look + " --base " + base + " -o " + folder.file("more.ocio"));
    INFO(made.out << made.err);
    REQUIRE(made.exit == 0);
    CHECK_THAT(made.out, Contains("dip: in acescct, OpenColorIO makes the same by this config within"));
    CHECK_THAT(made.err, Contains("the space acescct was added") && Contains("the view dip on loom shows plain"));
    CHECK(folder.read("village.ocio") == village_config());
    const std::string text = folder.read("more.ocio");
    CHECK_THAT(text, Contains("vat film") && Contains("dusk") && Contains("dip.clf"));
    // Once more on top of itself: the name is taken.
    const Ran again =
        cli(folder, "config " + look + " --base " + folder.file("more.ocio") + " -o " + folder.file("again.ocio"));
    CHECK(again.exit == 3);
    CHECK_THAT(again.err, Contains("has a look named dip already"));
    const Ran odd = cli(folder,
                        "config " + folder.write("odd.kasuri", "working rec2100-pq\nout.r = g\n") + " -o " +
                            folder.file("odd.ocio"));
    CHECK(odd.exit == 3);
    CHECK_THAT(odd.err, Contains("no space rec2100-pq and no curve for it"));
    CHECK_FALSE(std::filesystem::exists(folder.file("odd.ocio")));
    const Ran blurred =
        cli(folder,
            "config " + folder.write("soft.kasuri", "out.rgb = blur(rgb, 2)\n") + " -o " + folder.file("soft.ocio"));
    CHECK(blurred.exit == 1);
    CHECK_FALSE(std::filesystem::exists(folder.file("again-luts"))); // nothing was written before it was known
    // The village's srgb is its light by another name: that is noticed, for it is measured from ACES2065-1.
    const Ran other = cli(
        folder, "config " + folder.write("bent.kasuri", bent) + " --base " + base + " -o " + folder.file("other.ocio"));
    CHECK(other.exit == 1);
    CHECK_THAT(other.err, Contains("what the config calls srgb is not what Kasuri calls so"));
    // Into another folder: the base's own LUTs are still found.
    folder.write("house/luts/half.cube", "LUT_1D_SIZE 2\n0 0 0\n0.5 0.5 0.5\n");
    std::string house = village_config();
    house.replace(house.find("search_path: \"\""), 15, "search_path: luts");
    house.replace(house.find("!<CDLTransform> {slope: [1.2, 1, 0.7]}"), 38, "!<FileTransform> {src: half.cube}");
    const Ran moved = cli(folder,
                          "config " + look + " --base " + folder.write("house/house.ocio", house) + " -o " +
                              folder.file("moved.ocio"));
    INFO(moved.out << moved.err);
    CHECK(moved.exit == 0);
    const std::string grey = folder.write("grey.ppm", "P6\n1 1\n255\n" + std::string(3, '\x80')),
                      same = folder.write("same.kasuri", "out.rgb = rgb\n");
    CHECK(cli(folder,
              "--config " + folder.file("moved.ocio") + " render " + same + " " + grey + " " + folder.file("half.png") +
                  " --out-space 'dusk on loom'")
              .exit == 0);
}
