#include "image/image.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::image;

namespace {
Plane plane(Samples values) { return make_plane(std::move(values)); }
} // namespace

TEST_CASE("layers and channels are found by their names", "[image]") {
    Image image;
    image.width = 2;
    image.height = 1;
    image.channels = {{"R", plane({1, 2})},        {"G", plane({3, 4})},           {"B", plane({5, 6})},
                      {"head.R", plane({7, 8})},   {"head.green", plane({9, 10})}, {"head.Blue", plane({11, 12})},
                      {"depth.Z", plane({13, 14})}};
    CHECK(layers(image) == std::vector<std::string>{"", "head", "depth"});
    CHECK(picture_of(image, "")->at(1, 0) == std::array<float, 4>{2, 4, 6, 1});
    CHECK(picture_of(image, "head")->at(0, 0) == std::array<float, 4>{7, 9, 11, 1});
    CHECK(picture_of(image, "depth")->at(1, 0) ==
          std::array<float, 4>{14, 14, 14, 1}); // one channel is a neutral picture
    CHECK_FALSE(picture_of(image, "none"));
    CHECK(picture_of(image, "")->planes[0] == image.channels[0].plane); // shared, not copied
}

TEST_CASE("premultiplied colour is divided before and multiplied after", "[image]") {
    Image image;
    image.width = 3;
    image.height = 1;
    image.alpha = Alpha::premultiplied;
    image.channels = {{"R", plane({0.25f, 0.7f, 0.3f})},
                      {"G", plane({0, 0, 0})},
                      {"B", plane({0, 0, 0})},
                      {"A", plane({0.5f, 1, 0})}};
    const Picture picture = *picture_of(image, "");
    CHECK(picture.at(0, 0)[0] == 0.5f);
    CHECK(picture.at(1, 0)[0] == 0.7f);
    CHECK(picture.at(2, 0)[0] == 0.3f); // light without alpha stays as it is
    const Image back = with_picture(image, "", picture);
    for (std::size_t c = 0; c < 4; ++c)
        CHECK(*back.channels[c].plane == *image.channels[c].plane);
}

TEST_CASE("a premultiplied edge is not contaminated by an offset", "[image]") {
    Image image;
    image.width = 1;
    image.height = 1;
    image.alpha = Alpha::premultiplied;
    image.channels = {{"R", plane({0.1f})}, {"G", plane({0.1f})}, {"B", plane({0.1f})}, {"A", plane({0.25f})}};
    const auto program = engine::compile(test::good_rule("out.rgb = rgb + 0.2"));
    const auto result = engine::evaluate(*program, *picture_of(image, ""), {});
    const Image back = with_picture(image, "", *result);
    CHECK((*back.channels[0].plane)[0] == Approx(0.25f * (0.4f + 0.2f)));
}

TEST_CASE("a rule that makes alpha gives the picture one", "[image]") {
    Image image;
    image.width = 1;
    image.height = 1;
    image.channels = {{"Y", plane({0.5f})}};
    const auto result = engine::evaluate(*engine::compile(test::good_rule("out.a = r")), *picture_of(image, ""), {});
    const Image made = with_picture(image, "", *result);
    CHECK(made.alpha == Alpha::straight);
    CHECK((*made.find("A")->plane)[0] == 0.5f);
    CHECK((*made.find("R")->plane)[0] == 0.5f);
}

namespace {

/// As renderers write it: one cover for all passes, passes as layers, a matte.
Image passes() {
    Image image;
    image.width = 2;
    image.height = 1;
    image.alpha = Alpha::premultiplied;
    image.channels = {
        {"A", plane({0.5f, 0})},       {"beauty.R", plane({0.25f, 0})}, {"beauty.G", plane({0.125f, 0})},
        {"beauty.B", plane({0, 0})},   {"light.R", plane({0.1f, 0})},   {"light.G", plane({0.1f, 0})},
        {"light.B", plane({0.1f, 0})}, {"light.A", plane({1, 1})},      {"mask.V", plane({0.75f, 0.25f})}};
    return image;
}

} // namespace

TEST_CASE("the layer that is meant is one that can be seen, and its cover is its own or the file's", "[image]") {
    const Image image = passes();
    CHECK(usual_layer(image) == "beauty"); // not the one that has alpha alone
    const Picture beauty = *picture_of(image, "beauty");
    CHECK(beauty.at(0) == std::array<float, 4>{0.5f, 0.25f, 0, 0.5f}); // divided by the file's A
    CHECK(picture_of(image, "light")->at(0)[3] == 1);                  // its own
    CHECK_FALSE(picture_of(image, "mask")->planes[3]);                 // a matte is numbers
    CHECK(picture_of(image, "mask")->at(0)[0] == 0.75f);
    Image grey;
    grey.width = 1;
    grey.height = 1;
    grey.channels = {{"Y", plane({0.5f})}};
    CHECK(usual_layer(grey).empty());
    grey.channels = {{"Z.V", plane({0.5f})}};
    CHECK(usual_layer(grey) == "Z");
    CHECK(usual_layer(Image()).empty());
}

TEST_CASE("no channel is lost when a layer is replaced", "[image]") {
    const Image image = passes();
    const auto names = [](const Image& of) {
        std::vector<std::string> all;
        for (const Channel& channel : of.channels)
            all.push_back(channel.name);
        return all;
    };
    const Picture beauty = *picture_of(image, "beauty");
    const Image same = with_picture(image, "beauty", beauty);
    CHECK(names(same) == names(image));
    for (std::size_t c = 0; c < image.channels.size(); ++c)
        CHECK(*same.channels[c].plane == *image.channels[c].plane);
    // Another cover is the layer's own: the others keep theirs.
    Picture thinner = beauty;
    thinner.planes[3] = plane({0.25f, 0});
    const Image thin = with_picture(image, "beauty", thinner);
    CHECK((*thin.find("A")->plane)[0] == 0.5f);
    REQUIRE(thin.find("beauty.A"));
    CHECK((*thin.find("beauty.A")->plane)[0] == 0.25f);
    CHECK((*thin.find("beauty.R")->plane)[0] == 0.125f);
    CHECK(picture_of(thin, "beauty")->at(0)[0] == 0.5f);
    // A single channel becomes three in its place; what stood beside it stays.
    Image data = passes();
    data.channels.push_back({"mask.id", plane({7, 8})});
    const Image made = with_picture(data, "mask", *picture_of(data, "mask"));
    CHECK_FALSE(made.find("mask.V"));
    CHECK((*made.find("mask.G")->plane)[1] == 0.25f);
    CHECK((*made.find("mask.id")->plane)[1] == 8);
    CHECK((*made.find("A")->plane)[0] == 0.5f);
}

TEST_CASE("buffers that wait for the next picture are few where they are large", "[image]") {
    const auto comes_back = [](std::size_t floats, int planes) {
        const kasuri::image::PlanePool pool;
        {
            std::vector<kasuri::image::Plane> used;
            for (int i = 0; i < planes; ++i) {
                kasuri::image::Samples values(floats);
                values[0] = 123.0f; // known again by it
                used.push_back(pool.plane(std::move(values)));
            }
        }
        int found = 0;
        std::vector<kasuri::image::Samples> taken;
        for (int i = 0; i < planes; ++i) {
            taken.push_back(pool.take(floats));
            found += taken.back()[0] == 123.0f ? 1 : 0;
        }
        return found;
    };
    CHECK(comes_back(3840 * 2160, 3) == 3);
    CHECK(comes_back(20'000'000, 3) == 1); // 80 MB each: fresh memory of that size is zeros
    CHECK(comes_back(40'000'000, 1) == 0);
}
