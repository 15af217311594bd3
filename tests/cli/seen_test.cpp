// What others see, signals of displays, and the colour solid, on the command line.
#include "cli/driver.hpp"

#include <nlohmann/json.hpp>

#include <sstream>

using namespace kasuri::test;
using Json = nlohmann::json;

namespace {

std::vector<double> numbers(const std::string& line) {
    std::vector<double> all;
    std::istringstream text(line);
    for (std::string cell; std::getline(text, cell, ',');)
        all.push_back(std::stod(cell));
    return all;
}

bool has(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

/// What a rule makes of one colour.
std::vector<double> made(const Folder& folder, const std::string& rule, const std::string& colour,
                         const std::string& more = "") {
    const Ran ran = cli(folder, "eval --rule '" + rule + "'" + more, colour + "\n");
    INFO(rule << "\n" << ran.err);
    REQUIRE(ran.exit == 0);
    return numbers(ran.out.substr(0, ran.out.find('\n')));
}

} // namespace

TEST_CASE("colours that shall stay apart are checked, and the exit code tells", "[cli][vision]") {
    const Folder folder;
    folder.write("apart.kasuri", "out.rgb = rgb\nproof \"dyes\" on (0.5, 0.1, 0.1), (0.1, 0.1, 0.5) : apart > 8\n");
    folder.write("alike.kasuri",
                 "param s = 0 in 0 .. 1\nout.rgb = mix(rgb, vec3(luminance(rgb)), s)\n"
                 "proof \"dyes\" on (0.5, 0.1, 0.1), (0.1, 0.1, 0.5) : apart_for_everyone > 8\n");
    const Ran good = cli(folder, "check " + folder.file("apart.kasuri"));
    CHECK(good.exit == 0);
    CHECK(has(good.out, "pass"));
    CHECK(has(good.out, ">= 8"));
    CHECK_FALSE(has(good.out, "proved")); // it was measured on two colours
    const Ran bad = cli(folder, "check " + folder.file("alike.kasuri") + " --json");
    CHECK(bad.exit == 1);
    const Json told = Json::parse(bad.out)["result"];
    const Json& proof = told["filters"][0]["proofs"][0];
    CHECK(proof["passed"] == false);
    CHECK(proof["figure"].get<double>() < 8);
    CHECK(proof["limit"] == 8);
    CHECK(proof["worst"]["values"]["s"] == 1);
    const Ran turned = cli(folder, "check --rule 'out.r = g\nproof \"x\" on (1, 0, 0), (0, 1, 0) : apart < 3'");
    CHECK(turned.exit != 0);
    folder.write("turned.kasuri", "out.r = g\nproof \"x\" on (1, 0, 0), (0, 1, 0) : apart < 3\n");
    const Ran said = cli(folder, "check " + folder.file("turned.kasuri"));
    CHECK(said.exit == 1);
    CHECK(has(said.out + said.err, "K317"));
}

TEST_CASE("eval knows eyes, signals and luminance, by the engine and by the reference", "[cli][vision]") {
    const Folder folder;
    for (const char* by : {"", " --reference"}) {
        INFO(by);
        // ITU-R BT.709-6, item 5.6: white of 10 bits is code 940.
        CHECK(made(folder, "out.r = narrow_encode(r, 10) * 1023", "1,0,0", by)[0] == Approx(940).epsilon(1e-6));
        // ITU-R BT.2408-7, Table 1: 75 % of HLG on a display of 1000 cd/m2 is 203 cd/m2.
        CHECK(made(folder, "out.rgb = hlg_display(rgb, 1000, hlg_gamma(1000), 0)", "0.75,0.75,0.75", by)[1] ==
              Approx(203).margin(0.6));
        // ITU-R BT.1886: black comes out as the black it is set to.
        CHECK(made(folder, "out.rgb = bt1886_display(rgb, 100, 0.05)", "0,0,0", by)[2] == Approx(0.05).epsilon(1e-4));
        // Greys stay for everyone.
        for (const char* eyes :
             {"protanope", "deuteranope", "protanope_1997", "deuteranope_1997", "tritanope", "achromat"})
            for (const double channel : made(folder, std::string("out.rgb = ") + eyes + "(rgb)", "0.4,0.4,0.4", by))
                if (channel != 1) // alpha
                    CHECK(channel == Approx(0.4).epsilon(1e-5));
        // Light agrees with XYZ to the last digit that is written.
        const auto both = made(folder, "out.rg = vec2(luminance(rgb), xyz(rgb).y)", "0.3,0.6,0.1", by);
        CHECK(both[0] == Approx(both[1]).epsilon(2e-7));
    }
}

TEST_CASE("the colour solid is measured, listed and written as CSV", "[cli][solid]") {
    const Folder folder;
    const Ran listed = cli(folder, "measure --json");
    REQUIRE(listed.exit == 0);
    CHECK(has(listed.out, "\"solid\""));
    CHECK(has(listed.out, "\"cloud\""));
    const Ran solid = cli(folder,
                          "measure solid --rule 'working rec2020-linear\nout.rgb = rgb' --with model=4 --with steps=3 "
                          "--with shells=3 -o " +
                              folder.file("solid.csv"));
    REQUIRE(solid.exit == 0);
    std::istringstream text(folder.read("solid.csv"));
    std::string line;
    REQUIRE(std::getline(text, line));
    CHECK(line == "r,g,b,r,g,b");
    int points = 0;
    while (std::getline(text, line) && !line.empty()) {
        const std::vector<double> row = numbers(line);
        REQUIRE(row.size() == 6);
        for (std::size_t c = 0; c < 3; ++c)
            CHECK(row[c] == Approx(row[c + 3]).margin(1e-6));
        ++points;
    }
    CHECK(points == 27);
    const std::string whole = folder.read("solid.csv");
    CHECK(has(whole, "edge of 2020"));
    CHECK(has(whole, "outside 2020,,0,%"));
    CHECK(has(whole, "outside 709,,"));
    // A swap onto one plane: nothing has volume any more.
    CHECK(has(cli(folder, "measure solid --rule 'out.g = b' --with steps=5").out, "cells without volume,,100,%"));
    CHECK(cli(folder, "measure solid --rule 'out.g = b' --with model=9").exit != 0);
    // Pictures: what comes out of the rule.
    REQUIRE(cli(folder, "demo " + folder.file("demo")).exit == 0);
    const Ran cloud =
        cli(folder,
            "measure cloud --rule 'out.rgb = vec3(luma(rgb))' --with model=1 --with points=500 --picture " +
                folder.file("demo") + "/cloths.exr");
    REQUIRE(cloud.exit == 0);
    std::istringstream rows(cloud.out);
    REQUIRE(std::getline(rows, line));
    CHECK(line == "r,g,b,a,b,L");
    int seen = 0;
    while (std::getline(rows, line) && !line.empty()) {
        const std::vector<double> row = numbers(line);
        CHECK(row[3] == Approx(0).margin(1e-5)); // on the grey axis of OKLab
        CHECK(row[4] == Approx(0).margin(1e-5));
        ++seen;
    }
    CHECK(seen == Approx(500).margin(2));
}

TEST_CASE("pictures are compared as colours, with mean, 99.9 % and largest", "[cli][difference]") {
    const Folder folder;
    folder.write("half.kasuri", "out.rgb = rgb * 0.5\n");
    REQUIRE(cli(folder, "target dye_chart -o " + folder.file("a.exr")).exit == 0);
    REQUIRE(
        cli(folder, "render " + folder.file("half.kasuri") + " " + folder.file("a.exr") + " " + folder.file("b.exr"))
            .exit == 0);
    const Ran ran = cli(folder, "diff " + folder.file("a.exr") + " " + folder.file("b.exr") + " --json");
    INFO(ran.out << ran.err);
    CHECK(ran.exit == 1);
    const Json told = Json::parse(ran.out)["result"];
    const Json& seen = told["ciede2000"];
    CHECK(seen["mean"].get<double>() > 1);
    CHECK(seen["within-99.9%"].get<double>() >= seen["mean"].get<double>());
    CHECK(seen["largest"].get<double>() >= seen["within-99.9%"].get<double>());
    const Json same =
        Json::parse(cli(folder, "diff " + folder.file("a.exr") + " " + folder.file("a.exr") + " --json").out)["result"];
    CHECK(same["same"] == true);
    CHECK_FALSE(same.contains("ciede2000")); // there is nothing to measure
}
