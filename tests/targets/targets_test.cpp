#include "colour/models/models.hpp"
#include "support/support.hpp"
#include "targets/demo.hpp"
#include "targets/target.hpp"

#include <set>

using namespace kasuri;
using namespace kasuri::targets;

TEST_CASE("the grey ramp runs from -0.25 to 4, equal in all channels, and rises", "[targets]") {
    const image::Picture ramp = make(*find("grey_ramp"), 2001);
    CHECK(ramp.at(0, 0)[0] == Approx(-0.25).margin(2e-3));
    CHECK(ramp.at(2000, 0)[0] == Approx(4).margin(8e-3));
    for (int x = 1; x < 2001; ++x) {
        CHECK(ramp.at(x, 0)[0] == ramp.at(x, 0)[1]);
        CHECK(ramp.at(x, 0)[1] == ramp.at(x, 0)[2]);
        CHECK(ramp.at(x, 0)[0] > ramp.at(x - 1, 0)[0]);
    }
}

TEST_CASE("axes map values to places and back", "[targets]") {
    for (const Target* target : all())
        if (target->shape == Shape::strip) {
            CHECK(target->axis.share_of(target->axis.low) == Approx(0).margin(1e-12));
            CHECK(target->axis.share_of(target->axis.high) == Approx(1));
            for (const Tick& tick : target->axis.ticks)
                CHECK(target->axis.value_at(target->axis.share_of(tick.value)) == Approx(tick.value).margin(1e-9));
        }
}

TEST_CASE("saturation ramp and hue sweep are what HSV says", "[targets]") {
    const image::Picture saturation = make(*find("saturation_ramp"), 100), hue = make(*find("hue_sweep"), 360);
    const auto hsv = [](const image::Picture& p, int x) {
        const auto c = p.at(x, 0);
        return colour::hsv_model.from(
            {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])});
    };
    CHECK(hsv(saturation, 50)[1] == Approx(0.505).margin(1e-6));
    CHECK(hsv(saturation, 50)[0] == Approx(132).margin(1e-4));
    CHECK(hsv(saturation, 99)[2] == Approx(0.8));
    CHECK(hsv(hue, 100)[0] == Approx(100.5).margin(1e-4));
    CHECK(hsv(hue, 100)[1] == Approx(0.85));
}

TEST_CASE("the chart has 24 named patches, neutrals that are neutral and one above 1", "[targets]") {
    const Target& chart = *find("dye_chart");
    const image::Picture patches = make(chart, 0);
    REQUIRE(patches.pixels() == 24);
    std::set<std::string> names;
    for (int i = 0; i < 24; ++i)
        names.insert(patch_name(chart, i));
    CHECK(names.size() == 24);
    for (std::size_t i = 16; i < 23; ++i)
        CHECK(patches.at(i)[0] == patches.at(i)[2]);
    CHECK(patches.at(22)[0] == 1);
    CHECK(patches.at(23)[0] == 4);
}

TEST_CASE("a lattice holds every combination of its levels", "[targets]") {
    const double levels[] = {0, 0.5, 1};
    const image::Picture lattice = targets::lattice(levels);
    CHECK(lattice.pixels() == 27);
    CHECK(lattice.at(1)[0] == 0.5f);
    CHECK(lattice.at(3)[1] == 0.5f);
    CHECK(lattice.at(26)[2] == 1);
}

TEST_CASE("the demo pictures are the same at every run, finite, and hold what they promise", "[targets]") {
    for (const DemoPicture& demo : demo_pictures()) {
        INFO(demo.name);
        const image::Image once = demo.make(), again = demo.make();
        float highest = 0;
        for (std::size_t c = 0; c < once.channels.size(); ++c) {
            CHECK(*once.channels[c].plane == *again.channels[c].plane);
            for (const float value : *once.channels[c].plane) {
                REQUIRE(std::isfinite(value));
                highest = std::max(highest, value);
            }
        }
        if (demo.name == "chart")
            CHECK(highest == 1); // the camera's sensor ends there
        else
            CHECK(highest > 1); // the lantern, the glint in the eye
    }
    const image::Image cloths = demo_pictures()[0].make();
    CHECK(cloths.width == 1920);
    CHECK(cloths.height == 1080);
    CHECK(*std::max_element(cloths.channels[0].plane->begin(), cloths.channels[0].plane->end()) > 10);
    // Premultiplied: no layer has colour where it has no alpha.
    const image::Image puppet = demo_pictures()[1].make();
    bool soft = false;
    for (std::size_t i = 0; i < puppet.pixels(); ++i) {
        const float alpha = (*puppet.channels[3].plane)[i];
        soft = soft || (alpha > 0.1f && alpha < 0.9f);
        if (alpha == 0)
            REQUIRE((*puppet.channels[0].plane)[i] == 0);
    }
    CHECK(soft);
}

TEST_CASE("the demo sequence is a loop: its end is as near to its beginning as one frame to the next", "[targets]") {
    const DemoSequence& lantern = demo_sequences()[0];
    const auto moved = [](const image::Image& a, const image::Image& b) {
        double sum = 0;
        for (std::size_t i = 0; i < a.pixels(); ++i)
            sum += std::fabs(static_cast<double>((*a.channels[0].plane)[i] - (*b.channels[0].plane)[i]));
        return sum / static_cast<double>(a.pixels());
    };
    const image::Image first = lantern.make(0);
    const double one = moved(first, lantern.make(1)), round = moved(first, lantern.make(lantern.frames - 1));
    CHECK(one > 0);
    CHECK(round == Approx(one).epsilon(0.1));
    CHECK(*std::max_element(first.channels[0].plane->begin(), first.channels[0].plane->end()) > 10);
}
