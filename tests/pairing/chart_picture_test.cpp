// A chart in a picture: its patches by four corners, against published values, a table, or another picture.
#include "fit/fit.hpp"
#include "io/picture_file.hpp"
#include "pairing/chart.hpp"
#include "support/support.hpp"
#include "targets/demo_pictures.hpp"

#include <Eigen/Dense>
#include <fmt/format.h>

using namespace kasuri;
using namespace kasuri::pairing;
using namespace kasuri::test;
using Catch::Matchers::Contains;
using Catch::Matchers::WithinAbs;
using Catch::Matchers::WithinRel;

namespace {

std::string demo_file() {
    static const std::string file = [] {
        const std::string made = (std::filesystem::temp_directory_path() / "kasuri-chart-test.exr").string();
        REQUIRE(io::save(made, targets::demo_chart()));
        return made;
    }();
    return file;
}

ChartWish demo_wish() {
    ChartWish wish;
    wish.picture = demo_file();
    wish.corners = targets::demo_chart_corners;
    return wish;
}

std::string written(const std::string& name, const std::string& text) {
    const std::string file = (std::filesystem::temp_directory_path() / name).string();
    std::ofstream(file) << text;
    return file;
}

} // namespace

TEST_CASE("a chart seen askew through a camera gives the camera's matrix within 1 %", "[pairing][fit]") {
    const auto made = pairs_of_chart(demo_wish(), {});
    REQUIRE(made);
    const auto& patches = made.value().patches;
    REQUIRE(patches.size() == 24);
    CHECK(patches[0].seen.name == "dark skin");
    // What cannot be believed is said and left out: the shine on red, yellow and white at the end of the sensor.
    CHECK_THAT(patches[14].seen.why_not, Contains("clipped") || Contains("uneven"));
    CHECK_THAT(patches[15].seen.why_not, Contains("clipped"));
    CHECK_THAT(patches[18].seen.why_not, Contains("clipped"));
    CHECK(made.value().paired.pairs.size() == 21);
    CHECK_THAT(made.value().paired.detail, Contains("21 of 24") && Contains("white"));
    CHECK(patches[9].seen.left_out > 0.01); // dust, without which the patch is itself
    CHECK(patches[9].seen.why_not.empty());
    fit::Options options;
    options.families = {"matrix"};
    options.spaces = {"rec709-linear"};
    const auto found = fit::fit(made.value().paired.pairs, options);
    REQUIRE(found);
    Eigen::Matrix3d sees; // as demo_chart has it
    sees << 1.05, 0.30, 0.04, 0.12, 0.92, 0.08, 0.02, 0.13, 0.44;
    const Eigen::Matrix3d wanted = sees.inverse();
    const std::vector<double>& values = found.value().candidates.front().values;
    for (int row = 0; row < 3; ++row)
        for (int column = 0; column < 3; ++column)
            CHECK_THAT(values[static_cast<std::size_t>(3 * row + column)],
                       WithinAbs(wanted(row, column), 0.01 * wanted.cwiseAbs().maxCoeff()));
    CHECK(found.value().candidates.front().errors.delta_e_mean < 0.3);
}

TEST_CASE("the same chart in another picture needs no published values", "[pairing]") {
    ChartWish wish = demo_wish();
    wish.other = demo_file();
    wish.other_corners = wish.corners;
    const auto made = pairs_of_chart(wish, {});
    REQUIRE(made);
    for (const PatchPair& patch : made.value().patches)
        CHECK(patch.seen.colour == patch.wanted.colour);
    CHECK(made.value().paired.pairs.size() == 21);
}

TEST_CASE("corners that are wrong are refused with what to do", "[pairing]") {
    ChartWish wish = demo_wish();
    std::swap(wish.corners[1], wish.corners[2]);
    CHECK_THAT(pairs_of_chart(wish, {}).error().text(), Contains("four-sided") && Contains("from the first patch"));
    wish = demo_wish();
    CHECK(pairs_of_chart(wish, {}).value().paired.notes.empty());
    std::rotate(wish.corners.begin(), wish.corners.begin() + 2, wish.corners.end());
    REQUIRE(pairs_of_chart(wish, {}).value().paired.notes.size() == 1);
    CHECK_THAT(pairs_of_chart(wish, {}).value().paired.notes[0], Contains("on its head"));
    wish = demo_wish();
    for (image::Point& p : wish.corners)
        p = {p.x / 40, p.y / 40};
    CHECK_THAT(pairs_of_chart(wish, {}).error().text(), Contains("too small"));
    wish = demo_wish();
    for (image::Point& p : wish.corners)
        p.x += 2000;
    CHECK_THAT(pairs_of_chart(wish, {}).error().text(), Contains("only 0 patches") && Contains("outside the picture"));
    wish = demo_wish();
    wish.chart = "no_chart";
    CHECK_THAT(pairs_of_chart(wish, {}).error().text(), Contains("0 x 0") || Contains("no chart"));
    wish = demo_wish();
    wish.columns = 5;
    wish.rows = 4;
    CHECK_THAT(pairs_of_chart(wish, {}).error().text(), Contains("6 x 4"));
}

TEST_CASE("values of one's own are read by the names of their columns", "[pairing]") {
    // D50 white and its mid grey. ICC.1:2022: the white of the connection space is 0.9642, 1, 0.8249; L* 50 is Y 18.4
    // %.
    ChartWish wish;
    wish.columns = 2;
    wish.rows = 1;
    const std::pair<const char*, const char*> tables[] = {
        {"a.csv", "name,L,a,b\n\"paper, dry\",100,0,0\nslate,50,0,0\n"},
        {"b.csv", "# of the mill\nX;Y;Z\n96.42;100;82.49\n17.76;18.4187;15.19\n"},
        {"c.csv", "X Y Z\n0.9642 1 0.8249\n0.1776 0.184187 0.1519\n"},
        {"d.csv", "x,y,Y\n0.3457,0.3585,100\n0.3457,0.3585,18.4187\n"},
        {"e.csv", "r,g,b\n1,1,1\n0.4663,0.4663,0.4663\n"}, // sRGB
        {"f.txt",
         "CGATS.17\nORIGINATOR \"the mill\"\nNUMBER_OF_FIELDS 4\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A "
         "LAB_B\nEND_DATA_FORMAT\nNUMBER_OF_SETS 2\nBEGIN_DATA\nA1 100 0 0\nA2 50 0 0\nEND_DATA\n"},
    };
    for (const auto& [name, text] : tables) {
        INFO(text);
        wish.values = written(name, text);
        const auto made = chart_values(wish, "");
        REQUIRE(made);
        for (std::size_t c = 0; c < 3; ++c) {
            CHECK_THAT(made.value()[0].colour[c], WithinAbs(1, 1e-3));
            CHECK_THAT(made.value()[1].colour[c], WithinAbs(0.184187, 5e-4));
        }
    }
    wish.values = written("a.csv", tables[0].second);
    CHECK(chart_values(wish, "").value()[0].name == "paper, dry");
    wish.values = written("g.csv", "one,two,three\n1,2,3\n");
    CHECK_THAT(chart_values(wish, "").error().text(), Contains("no columns") && Contains("L a b"));
    wish.values = written("h.csv", "L,a,b\n1,2,3\n");
    CHECK_THAT(chart_values(wish, "").error().text(), Contains("1 lines") && Contains("2 patches"));
    wish.values = written("i.csv", "L,a,b\n1,2,3\n4,nan,6\n");
    CHECK_THAT(chart_values(wish, "").error().text(), Contains("line 3: a is no number"));
}
