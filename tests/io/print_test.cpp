// As printed: a press whose print is known by a formula, against Little CMS's own proofing, and what is outside of it.
#include "colour/space.hpp"
#include "io/config.hpp"
#include "io/print.hpp"
#include "support/press.hpp"

using namespace kasuri;
using namespace kasuri::test;
using Catch::Matchers::Contains;
using Way = io::Press::Way;

namespace {

std::array<double, 3> any_light(std::mt19937& random) {
    std::uniform_real_distribution<double> value(0, 1);
    return {value(random), value(random), value(random)};
}

double farthest(const std::array<double, 3>& a, const std::array<double, 3>& b) {
    return std::max({std::fabs(a[0] - b[0]), std::fabs(a[1] - b[1]), std::fabs(a[2] - b[2])});
}

} // namespace

TEST_CASE("a press prints what its inks leave of the light, and what it cannot hold is outside", "[io][print]") {
    const TemporaryFolder folder;
    write_press(folder / "ford.icc");
    const auto opened = io::Press::open(folder / "ford.icc");
    REQUIRE(opened);
    const io::Press& press = *opened.value();
    CHECK(press.name() == "The press at the ford");
    CHECK(press.space() == "CMYK");
    std::mt19937 random(4);
    // Between the darkest and the paper's white, light is printed as it is: near, for the tables are of 17 and 49
    // points.
    for (int i = 0; i < 200; ++i) {
        auto light = any_light(random);
        for (double& x : light)
            x = 0.12 + 0.85 * x;
        INFO(light[0] << " " << light[1] << " " << light[2]);
        CHECK(press.beyond(light) < 1);
        const auto inks = press.inks(light);
        REQUIRE(inks.size() == 4);
    }
    // What takes away more light than the inks can, and what shines, is outside.
    CHECK(press.beyond({0.9, 0.02, 0.02}) > colour::outside_print);
    CHECK(press.beyond({0, 0, 0}) > colour::outside_print);
    CHECK(press.beyond({1.5, 1.5, 1.5}) > colour::outside_print);
    CHECK(press.beyond({-0.2, 0.5, 0.5}) > colour::outside_print);
    CHECK(std::isnan(press.beyond({std::nan(""), 0, 0})));
    // White is the screen's white, or the paper's as it looks (absolute colorimetric, ICC.1:2022, 6.3.4.4 and D.6.3).
    CHECK(farthest(press.printed({1, 1, 1}, Way::relative), {1, 1, 1}) < 0.015); // between two points of the table
    const auto paper = press.printed({1, 1, 1}, Way::on_paper);
    CHECK(paper[2] < paper[1]);
    const colour::Triple xyz = colour::operator*(colour::to_xyz(*colour::find_space("rec709-linear")), paper);
    CHECK(xyz[1] == Approx(InkPress::paper[1]).margin(0.01));
    // Black is the screen's black, or that of the inks.
    CHECK(press.printed({0, 0, 0}, Way::relative)[1] < 0.005);
    CHECK(press.printed({0, 0, 0}, Way::on_paper)[1] == Approx(0.1 * InkPress::paper[1]).margin(0.02));
}

TEST_CASE("a print is seen as Little CMS's own proofing shows it", "[io][print]") {
    const TemporaryFolder folder;
    write_press(folder / "ford.icc");
    const auto press = io::Press::open(folder / "ford.icc");
    REQUIRE(press);
    cmsHPROFILE light = light_profile(), paper = cmsOpenProfileFromFile((folder / "ford.icc").string().c_str(), "r");
    REQUIRE(paper);
    // Perceptual there and relative colorimetric back is what its proofing transform does without compensation.
    cmsHTRANSFORM proof = cmsCreateProofingTransform(light, TYPE_RGB_DBL, light, TYPE_RGB_DBL, paper, INTENT_PERCEPTUAL,
                                                     INTENT_RELATIVE_COLORIMETRIC,
                                                     cmsFLAGS_SOFTPROOFING | cmsFLAGS_NOOPTIMIZE | cmsFLAGS_NOCACHE);
    REQUIRE(proof);
    std::mt19937 random(8);
    double most = 0;
    for (int i = 0; i < 500; ++i) {
        const auto asked = any_light(random);
        std::array<double, 3> theirs{};
        cmsDoTransform(proof, asked.data(), theirs.data(), 1);
        most = std::max(most, farthest(theirs, press.value()->printed(asked, Way::perceptual)));
    }
    CHECK(most < 2e-4); // its light is adapted in 16-bit steps of a profile
    cmsDeleteTransform(proof);
    cmsCloseProfile(light);
    cmsCloseProfile(paper);
}

TEST_CASE("prints are views that stay when a config is read, and what is no press is refused", "[io][print]") {
    const TemporaryFolder folder;
    write_press(folder / "ford.icc");
    const auto names = io::add_prints(folder / "ford.icc");
    REQUIRE(names);
    CHECK(names.value() == std::vector<std::string>{"ford printed", "ford printed, perceptual", "ford on its paper"});
    colour::retire_added_spaces();
    CHECK(colour::added_prints() == names.value());
    const colour::Space& view = *colour::find_space("ford on its paper");
    CHECK((view.is_view && view.beyond));
    float r = 1, g = 1, b = 1;
    float* const planes[3] = {&r, &g, &b};
    view.from_light->apply(planes, 1);
    CHECK((g < 0.99F && b < g));
    write(folder / "no.icc", "no profile");
    CHECK_THAT(io::add_prints(folder / "no.icc").error().text(), Contains("is no ICC profile"));
    cmsHPROFILE link = cmsCreateInkLimitingDeviceLink(cmsSigCmykData, 200);
    cmsSaveProfileToFile(link, (folder / "link.icc").string().c_str());
    cmsCloseProfile(link);
    CHECK_THAT(io::add_prints(folder / "link.icc").error().text(), Contains("does not say both"));
    CHECK_THAT(io::add_prints(folder / "none.icc").error().text(), Contains("there is no such file"));
    const std::string whole = content_of(folder / "ford.icc");
    std::mt19937 random(5);
    for (int i = 0; i < 40; ++i) { // damaged: an error or some press
        std::string bytes = whole.substr(0, std::uniform_int_distribution<std::size_t>(100, whole.size())(random));
        for (int k = 0; k < 8; ++k)
            bytes[std::uniform_int_distribution<std::size_t>(0, std::min<std::size_t>(bytes.size(), 600) - 1)(random)] =
                static_cast<char>(random());
        write(folder / "cut.icc", bytes);
        if (const auto cut = io::Press::open(folder / "cut.icc"))
            (void)cut.value()->beyond({0.5, 0.2, 0.7});
    }
}
