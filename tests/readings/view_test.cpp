// Views: expressions over pictures, as lenses and readings use them.
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "readings/reading.hpp"
#include "support/support.hpp"
#include "targets/target.hpp"

#include <thread>

using namespace kasuri;
using namespace kasuri::readings;
using namespace kasuri::test;

namespace {

image::Picture gradient(const std::string& space, int width = 37, int height = 11) {
    image::Picture picture = image::generated(width, height, [&](int x, int y) {
        return std::array<double, 3>{0.02 + x / static_cast<double>(width), 0.03 + y / static_cast<double>(height),
                                     0.5};
    });
    picture.space = space;
    return picture;
}

} // namespace

TEST_CASE("a view sees the picture in the space it is meant in", "[readings][views]") {
    Views views;
    for (const colour::Space& space : colour::spaces()) {
        const std::string name(space.name);
        INFO(name);
        const image::Picture picture = gradient(name);
        const auto planes = views.look(picture, "rec709-display", "rgb");
        REQUIRE(planes);
        for (std::size_t i = 0; i < picture.pixels(); i += 7) {
            const auto stored = picture.at(i);
            const colour::Triple truth = colour::converted(
                {static_cast<double>(stored[0]), static_cast<double>(stored[1]), static_cast<double>(stored[2])}, space,
                *colour::find_space("rec709-display"));
            for (std::size_t c = 0; c < 3; ++c) {
                // A colour outside of BT.709 has a negative channel; near 0 the curve is steep in both.
                const double scale = std::max({1.0, std::fabs(truth[0]), std::fabs(truth[1]), std::fabs(truth[2])});
                if (std::fabs(truth[c]) > 0.05)
                    CHECK((*(*planes)[c])[i] == Approx(truth[c]).margin(3e-5 * scale));
            }
        }
    }
}

TEST_CASE("one component, three, and what passes through untouched", "[readings][views]") {
    Views views;
    const image::Picture picture = gradient("acescg");
    const auto same = views.look(picture, "acescg", "rgb");
    REQUIRE(same);
    for (std::size_t c = 0; c < 3; ++c)
        CHECK((*same)[c] == picture.planes[c]); // shared, not copied
    const auto one = views.look(picture, "acescg", "0.5 * r + 0.5 * g");
    REQUIRE(one);
    CHECK((*one)[1] == nullptr);
    CHECK((*(*one)[0])[5] == Approx(0.5f * picture.at(5)[0] + 0.5f * picture.at(5)[1]));
    const auto swapped = views.look(picture, "acescg", "rgb.bgr");
    CHECK((*(*swapped)[0])[3] == picture.at(3)[2]);
    CHECK(views.program("acescg", "rgb", "acescg") == views.program("acescg", "rgb", "acescg")); // compiled once
    CHECK_THROWS(views.program("acescg", "rgb +", "acescg"));
}

TEST_CASE("a view compares two pictures", "[readings][views]") {
    Views views;
    const image::Picture was = gradient("srgb");
    image::Picture is = was;
    image::Samples moved = was.planes[0]->copied();
    for (float& value : moved)
        value += 0.25f;
    is.planes[0] = image::make_plane(std::move(moved));
    const auto change = views.look(is, "srgb", "rgb - other", {}, &was);
    REQUIRE(change);
    for (std::size_t i = 0; i < was.pixels(); i += 5) {
        CHECK((*(*change)[0])[i] == Approx(0.25).margin(1e-6));
        CHECK((*(*change)[1])[i] == 0);
    }
    const auto none = views.look(was, "srgb", "delta_e_2000(lab(rgb), lab(other))", {}, &was);
    for (const float value : *(*none)[0])
        CHECK(value == Approx(0).margin(1e-3));
}

TEST_CASE("views are shared by threads, and can be called off", "[readings][views]") {
    Views views;
    const image::Picture picture = gradient("srgb", 300, 200);
    const auto alone = views.look(picture, "rec709-linear", "lab(rgb)");
    std::vector<std::thread> threads;
    std::array<bool, 4> equal{};
    for (std::size_t t = 0; t < equal.size(); ++t)
        threads.emplace_back([&, t] {
            bool good = true;
            for (int i = 0; i < 5; ++i) {
                const auto again = views.look(picture, "rec709-linear", i % 2 == 0 ? "lab(rgb)" : "oklab(rgb)");
                good = good && again && (i % 2 != 0 || *(*again)[1] == *(*alone)[1]);
            }
            equal[t] = good;
        });
    for (std::thread& thread : threads)
        thread.join();
    CHECK(equal == std::array<bool, 4>{true, true, true, true});
    CancelToken cancel;
    cancel.cancel();
    CHECK_FALSE(views.look(picture, "rec709-linear", "lab(rgb)", cancel));
}

TEST_CASE("a reading that is called off gives nothing", "[readings]") {
    Views views;
    const image::Picture picture = gradient("srgb", 400, 300);
    for (const Reading* reading : all()) {
        INFO(reading->name);
        readings::Order subject;
        subject.pictures = {&picture};
        subject.cancel.cancel();
        subject.rule = [&](const image::Picture&) { return std::optional<image::Picture>(); };
        subject.settings = completed(reading->settings, {});
        subject.views = &views;
        CHECK_FALSE(reading->measure(subject));
    }
}

TEST_CASE("a picture of a config's or an unknown space is no reason to stop", "[readings][views]") {
    Views views;
    image::Picture odd = gradient("no such space");
    readings::Order subject;
    subject.pictures = {&odd};
    subject.settings = completed(find("histogram")->settings, {});
    subject.views = &views;
    const auto measured = find("histogram")->measure(subject); // its numbers as they are
    REQUIRE(measured);
    CHECK(measured->layers.size() == 3);
}
