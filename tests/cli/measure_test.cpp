// Targets and readings by command line.
#include "cli/driver.hpp"
#include "io/picture_file.hpp"

#include <algorithm>

using namespace kasuri;
using namespace kasuri::test;

TEST_CASE("targets are listed, told, printed and written", "[cli][targets]") {
    Folder folder;
    const Ran list = cli(folder, "target");
    CHECK(list.exit == 0);
    for (const char* name : {"grey_ramp (strip)", "bars_hd (field)", "chart_1976 (patches)", "source: SMPTE RP 219"})
        CHECK(list.out.find(name) != std::string::npos);
    CHECK(cli(folder, "target step_wedge").out.find("steps = 21 in 2 .. 64") != std::string::npos);
    CHECK(cli(folder, "target step_wedge --set steps=2 --set density=0.3 --width 2 --print").out ==
          "value,r,g,b\n0.25,1,1,1\n0.75,0.501187205,0.501187205,0.501187205\n");
    CHECK(cli(folder, "target dye_chart --print").out.find("\nwhite,1,1,1\nlantern,4,2.5999999,1.10000002\n") !=
          std::string::npos);
    const Ran made = cli(folder, "target bars_75 --set narrow=1 --width 80 -o " + folder.file("bars.png"));
    CHECK(made.exit == 0);
    const auto bars = io::load(folder.file("bars.png"));
    REQUIRE(bars.ok());
    CHECK(bars.value().width == 80);
    CHECK(bars.value().height == 45);
    CHECK((*bars.value().channels[0].plane)[15] == Approx(721.0 / 1023).margin(0.003));
    // What is wrong is said with what there is.
    CHECK(cli(folder, "target bars_57").err.find("did you mean bars_75?") != std::string::npos);
    CHECK(cli(folder, "target bars_75 --set wide=1").exit == 2);
    CHECK(cli(folder, "target bars_75 --set narrow=2").err.find("outside of its range") != std::string::npos);
    CHECK(cli(folder, "target bars_75 --set narrow").err.find("name=value") != std::string::npos);
    CHECK(cli(folder, "target bars_75 -o " + folder.file("no/where.png")).exit == 3);
}

TEST_CASE("readings are listed and measured as CSV", "[cli][readings]") {
    Folder folder;
    CHECK(cli(folder, "measure").out.find("vectorscope (of pictures)") != std::string::npos);
    const Ran bars = cli(folder, "measure vectorscope --target bars_75");
    CHECK(bars.exit == 0);
    CHECK(bars.out.starts_with("Cb,Cr,count of pixels\n"));
    CHECK(bars.out.find(",28800\n") != std::string::npos); // one bar of 80 x 360
    const Ran curve = cli(folder, "measure response --rule 'param k = 1 in 0 .. 4; out.g = k * g' --set k=2");
    CHECK(curve.out.find("slope at 0.18,g,2,\n") != std::string::npos);
    folder.write("half.kasuri", "out.rgb *= 0.5\n");
    REQUIRE(cli(folder, "target radial --width 64 -o " + folder.file("radial.exr")).exit == 0);
    const Ran cut = cli(folder,
                        "measure cut " + folder.file("half.kasuri") + " --picture " + folder.file("radial.exr") +
                            " --line 0 0.5 1 0.5 --with unit=stops -o " + folder.file("cut.csv"));
    CHECK(cut.exit == 0);
    const std::string text = folder.read("cut.csv");
    CHECK(std::count(text.begin(), text.end(), '\n') ==
          3 * 65 + 2); // three headers and their rows, blank lines between
    CHECK(text.starts_with("share of the line,r\n"));
    CHECK(cli(folder, "measure wavefrom --target bars_75").err.find("did you mean waveform?") != std::string::npos);
    CHECK(cli(folder, "measure waveform").err.find("--picture or --target") != std::string::npos);
    CHECK(cli(folder, "measure waveform --target nothing").exit == 2);
    CHECK(cli(folder, "measure waveform --target bars_75 --with unit=miles")
              .err.find("neither a number nor one of its choices") != std::string::npos);
    CHECK(cli(folder, "measure waveform --picture nowhere.exr").exit == 3);
    CHECK(cli(folder, "measure waveform --target bars_75 --rule 'out.r ='").exit == 1);
}
