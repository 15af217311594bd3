#include "cli/driver.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

/// The demo filter of the green and the blue channel that share a dye, as a LUT without a recipe.
std::string lut(const Folder& folder, const std::string& name, const std::string& more = "") {
    const Ran baked =
        cli(folder,
            std::string("bake ") + KASURI_SOURCE_DIR + "/data/filters/indigo-over-madder.kasuri --preset 'Vat blue' " +
                folder.file(name) + more);
    REQUIRE(baked.exit == 0);
    return folder.file(name);
}

} // namespace

TEST_CASE("a LUT of a demo filter gives the filter's own numbers, and both are the same", "[cli][fit]") {
    const Folder folder;
    const std::string table = lut(folder, "found.cube");
    const Ran fitted = cli(folder, "fit " + table + " --lut-space rec709-linear -o " + folder.file("back.kasuri"));
    REQUIRE(fitted.exit == 0);
    CHECK_THAT(fitted.out, Contains("* ") && Contains("matrix-density in rec709-linear"));
    CHECK_THAT(folder.read("back.kasuri"), Contains("0, 0.5, 0.5,") && Contains("density(mixed, 0.2)"));
    CHECK(cli(folder, "check " + folder.file("back.kasuri")).exit == 0);
    const Ran same = cli(folder, std::string("diff ") + folder.file("back.kasuri") + " " + table + " --within 0.004");
    CHECK(same.exit == 0); // the table itself is no nearer to what it was baked from
    CHECK(cli(folder, "format --check " + folder.file("back.kasuri")).exit == 0);
}

TEST_CASE("a table's own axis is met, wherever it begins and however many points it has", "[cli][fit]") {
    const Folder folder;
    for (const char* more : {" --size 17", " --domain -0.25 1.5"}) {
        CAPTURE(more);
        const std::string table = lut(folder, "axis.cube", more);
        const Ran fitted = cli(folder, "fit " + table + " --lut-space rec709-linear --family matrix-density --json");
        REQUIRE(fitted.exit == 0);
        const auto told = nlohmann::json::parse(fitted.out)["result"];
        CHECK(told["candidates"][0]["largest"].get<double>() < 1e-5);
        CHECK(told["measured"].get<int>() > 500);
    }
}

TEST_CASE("a table of colours on standard output's side: rule there, words elsewhere", "[cli][fit]") {
    const Folder folder;
    std::string table = "r,g,b,R,G,B\n";
    for (int i = 0; i < 60; ++i) {
        const double r = (i * 37 % 61) / 61.0, g = (i * 17 % 59) / 59.0, b = (i * 23 % 53) / 53.0;
        table += fmt::format("{},{},{},{},{},{}\n", r, g, b, 0.9 * r, 0.75 * g, 1.1 * b);
    }
    const std::string file = folder.write("swatches.csv", table);
    const Ran fitted = cli(folder, "fit " + file + " --in-space rec709-linear -o -");
    REQUIRE(fitted.exit == 0);
    CHECK_THAT(fitted.out,
               Contains("filter \"As in swatches.csv\"") && Contains("param red = 0.9") && Contains("proof"));
    CHECK_THAT(fitted.err, Contains("channel-gains in rec709-linear"));
}

TEST_CASE("what cannot be fitted is said, with what to do", "[cli][fit]") {
    const Folder folder;
    const std::string bad = folder.write("bad.csv", "1,2,3\n");
    CHECK(cli(folder, "fit " + bad).exit == 3);
    CHECK_THAT(cli(folder, "fit " + bad).err, Contains("bad.csv: line 1"));
    CHECK(cli(folder, "fit " + folder.file("none.cube")).exit == 3);
    const std::string place = folder.write("place.kasuri", "out.r = pos.x\n");
    CHECK(cli(folder, "fit " + place).exit == 1);
    CHECK_THAT(cli(folder, "fit " + place).err, Contains("more than a function of a colour"));
    const std::string rule = folder.write("rule.kasuri", "out.r = g\n");
    CHECK(cli(folder, "fit " + rule + " --family nonsense").exit == 2);
    CHECK_THAT(cli(folder, "fit " + rule + " --family nonsense").err, Contains("matrix-balanced"));
    CHECK(cli(folder, "fit " + rule + " --domain 1 0").exit == 2);
    CHECK(cli(folder, "fit picture.exr").exit == 2);
    CHECK(cli(folder, "fit target:grey_ramp target:dye_chart").exit == 3); // not of one size
}

TEST_CASE("two pictures give the rule between them", "[cli][fit]") {
    const Folder folder;
    const std::string rule =
        folder.write("mix.kasuri", "out.rgb = mat3(0.8, 0.2, 0, 0.15, 0.7, 0.15, 0, 0.25, 0.75) * rgb\n");
    const std::string before = std::string(KASURI_DEMO_DIR) + "/cloths.exr", after = folder.file("after.exr");
    REQUIRE(cli(folder, "render " + rule + " " + before + " " + after).exit == 0);
    const Ran fitted = cli(folder, "fit " + before + " " + after + " --json");
    REQUIRE(fitted.exit == 0);
    const auto told = nlohmann::json::parse(fitted.out)["result"];
    for (const auto& candidate : told["candidates"])
        if (candidate["marked"])
            CHECK(candidate["family"] == "matrix-balanced");
    CHECK_THAT(told["rule"].get<std::string>(), Contains("0.8, 0.2, 0,"));
    CHECK(told["unexplained"].get<double>() < 0.01);
}

TEST_CASE("a chart in a picture is fitted by its corners, and a table takes what is left", "[cli][fit]") {
    const Folder folder;
    REQUIRE(cli(folder, "demo " + folder.file("demo")).exit == 0);
    const std::string chart = folder.file("demo") + "/chart.exr";
    const std::string corners = " --corners 170 118 812 74 846 540 128 496";
    const Ran fitted = cli(folder, "fit " + chart + corners + " --family matrix --json");
    REQUIRE(fitted.exit == 0);
    const auto json = nlohmann::json::parse(fitted.out)["result"];
    REQUIRE(json["patches"].size() == 24);
    CHECK(json["patches"][0]["name"] == "dark skin");
    CHECK(json["patches"][18]["why-not"].get<std::string>().find("clipped") != std::string::npos);
    CHECK(json["candidates"][0]["ciede2000"]["mean"].get<double>() < 0.3);
    CHECK_THAT(cli(folder, "fit " + chart + corners + " --family matrix").out, Contains("21 of 24 patches"));
    // What does not go together is a usage error.
    CHECK(cli(folder, "fit " + chart).exit == 2);
    CHECK(cli(folder, "fit " + chart + " --corners 1 2 3").exit == 2);
    CHECK(cli(folder, "fit " + chart + " " + chart + corners).exit == 2);
    CHECK(cli(folder, "fit " + chart + corners + " --chart nonsense").exit == 2);
    CHECK(cli(folder, "fit " + chart + corners + " --grid 0 4").exit == 2);
    CHECK(cli(folder, "fit " + chart + corners + " --grid 5.5 4").exit == 2);
    // A target stands for either picture; one has no space of its own.
    CHECK_THAT(cli(folder, "fit target:hue_lightness target:hue_lightness --family identity").out,
               Contains("identity in rec709-linear"));
    CHECK_THAT(cli(folder, "fit " + chart + " --corners 0 0 9 9 9 0 0 9").err, Contains("four-sided"));
    const std::string look = folder.file("both.kasurilook");
    const Ran both = cli(folder, "fit " + chart + corners + " --family channel-gains --rest 5 -o " + look);
    REQUIRE(both.exit == 0);
    CHECK_THAT(both.out, Contains("+ a table"));
    CHECK(cli(folder, "check " + look).exit == 0);
    CHECK(cli(folder, "fit " + chart + corners + " --rest 5 -o " + folder.file("x.kasuri")).exit == 2);
}
