// Kinds of pictures: what each keeps, how it is turned, and chunks of our own.
#include "io/picture_file.hpp"
#include "io/picture_kinds.hpp"
#include "io/png_chunks.hpp"
#include "io/upright.hpp"
#include "support/support.hpp"

#include <cstring>
#include <fstream>

using namespace kasuri;
using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

/// Smooth, so that lossy kinds can be held to something; with alpha that goes across.
image::Image smooth(image::Depth depth, bool alpha) {
    constexpr int wide = 64, high = 48;
    image::Image image = image::image_of(image::generated(wide, high, [](int x, int y) {
        return std::array<double, 3>{x / 63.0, y / 47.0, 0.5};
    }));
    image.depth = depth;
    image.space = depth == image::Depth::uint8 || depth == image::Depth::uint16 ? "srgb" : "rec709-linear";
    if (alpha) {
        image::Samples values;
        for (int i = 0; i < wide * high; ++i)
            values.push_back(static_cast<float>(i % wide < 32 ? 1 : 0.5));
        image.channels.push_back({"A", image::make_plane(std::move(values))});
        image.alpha = image::Alpha::straight;
    }
    return image;
}

float value(const image::Image& image, const char* channel, std::size_t at) {
    const image::Channel* found = image.find(channel);
    REQUIRE(found);
    return (*found->plane)[at];
}

std::string bytes_of(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

void put(const std::filesystem::path& path, const std::string& bytes) {
    std::ofstream(path, std::ios::binary) << bytes;
}

} // namespace

TEST_CASE("every kind of picture that is written comes back, exact or near, and says what it left out",
          "[io][picture-kinds]") {
    const TemporaryFolder folder;
    for (const io::PictureKind& kind : io::picture_kinds())
        for (const bool alpha : {false, true}) {
            INFO(kind.ending << (alpha ? " with alpha" : ""));
            const image::Image image = smooth(kind.fallback, alpha);
            const auto path = folder / ("a" + std::string(kind.ending));
            const auto report = io::save(path, image);
            INFO((report ? "" : report.error().text()));
            REQUIRE(report);
            const auto read = io::load(path);
            REQUIRE(read);
            CHECK(read.value().width == 64);
            CHECK(read.value().height == 48);
            CHECK(read.value().space == image.space);
            const bool keeps = kind.alpha != image::Alpha::none;
            CHECK((read.value().find("A") != nullptr) == (alpha && keeps));
            // A step of the depth where it is exact; for the lossy ones what was measured, doubled.
            const float step = kind.fallback == image::Depth::uint8 ? 1 / 255.0f : 1 / 1000.0f;
            const float within = kind.exact ? step : 0.1f;
            for (const std::size_t at : {std::size_t{0}, std::size_t{20 + 64 * 10}, std::size_t{60 + 64 * 40}}) {
                float over = 1;
                if (alpha && (!keeps || read.value().alpha == image::Alpha::premultiplied))
                    over = value(image, "A", at);
                for (const char* channel : {"R", "G", "B"})
                    CHECK(std::fabs(value(read.value(), channel, at) - over * value(image, channel, at)) <= within);
            }
            std::string notes;
            for (const std::string& note : report.value().notes)
                notes += note + "\n";
            CHECK((notes.find("laid over black") != std::string::npos) == (alpha && !keeps));
        }
}

TEST_CASE("a kind that holds one colour keeps the usual layer and tells of the others", "[io][picture-kinds]") {
    const TemporaryFolder folder;
    image::Image image = smooth(image::Depth::uint8, false);
    image.channels.push_back({"lamp.R", image.channels[0].plane});
    const auto report = io::save(folder / "a.tga", image);
    REQUIRE(report);
    REQUIRE(report.value().notes.size() == 1);
    CHECK_THAT(report.value().notes[0], Contains(".tga has no place for further channels: 1 were left out"));
    CHECK(io::load(folder / "a.tga").value().channels.size() == 3);
    image::Image dark = smooth(image::Depth::float32, false);
    dark.channels[0].plane = image::make_plane(image::Samples(dark.pixels(), -0.25f));
    const auto below = io::save(folder / "a.hdr", dark);
    REQUIRE(below);
    REQUIRE_FALSE(below.value().notes.empty());
    CHECK_THAT(below.value().notes[0], Contains("3072 became 0"));
}

TEST_CASE("a PPM holds the very bytes that its format says", "[io][picture-kinds]") {
    const TemporaryFolder folder;
    image::Image image = image::image_of(image::generated(2, 1, [](int x, int) {
        return std::array<double, 3>{x == 0 ? 1.0 : 0.0, 0.5, 10 / 255.0};
    }));
    image.depth = image::Depth::uint8;
    image.space = "srgb";
    REQUIRE(io::save(folder / "a.ppm", image));
    // The Netpbm format: magic number, size, largest number, then the bytes.
    const std::string bytes = bytes_of(folder / "a.ppm");
    REQUIRE(bytes.starts_with("P6"));
    CHECK(bytes.substr(bytes.size() - 6) == std::string("\xff\x80\x0a\x00\x80\x0a", 6));
}

TEST_CASE("a PNG says by code points what its numbers mean, and other readers of it find a whole file",
          "[io][picture-kinds]") {
    // The check value of CRC-32, as catalogues of such sums give it (from memory).
    const std::string nine = "123456789";
    CHECK(io::crc32({reinterpret_cast<const unsigned char*>(nine.data()), nine.size()}) == 0xcbf43926U);
    const TemporaryFolder folder;
    for (const char* space : {"srgb", "rec2100-pq", "rec2100-hlg", "p3-d65-srgb", "rec2020"}) {
        INFO(space);
        image::Image image = smooth(image::Depth::uint16, false);
        image.space = space;
        const auto report = io::save(folder / "a.png", image);
        REQUIRE(report);
        CHECK(report.value().notes.empty());
        const auto read = io::load(folder / "a.png");
        REQUIRE(read);
        CHECK(read.value().space == space);
        CHECK(read.value().space_from == "cICP chunk");
        CHECK(value(read.value(), "G", 700) == Approx(value(image, "G", 700)).margin(1e-4));
        const std::string bytes = bytes_of(folder / "a.png");
        CHECK(bytes.substr(37, 4) == "cICP");
    }
    image::Image image = smooth(image::Depth::uint16, false);
    image.space = "acescct"; // has none: a profile says it, or nothing
    REQUIRE(io::save(folder / "b.png", image));
    CHECK_FALSE(io::png_colour(folder / "b.png")->code_points);
}

TEST_CASE("a picture is turned upright as its file says, each of the eight ways", "[io][picture-kinds]") {
    // Stored 3 x 2, numbered 0 to 5 row by row; seen as TIFF 6.0 has it (page 36): which of them lie where.
    struct Way {
        int orientation, width;
        std::vector<int> seen;
    };
    const Way ways[] = {{1, 3, {0, 1, 2, 3, 4, 5}}, {2, 3, {2, 1, 0, 5, 4, 3}}, {3, 3, {5, 4, 3, 2, 1, 0}},
                        {4, 3, {3, 4, 5, 0, 1, 2}}, {5, 2, {0, 3, 1, 4, 2, 5}}, {6, 2, {3, 0, 4, 1, 5, 2}},
                        {7, 2, {5, 2, 4, 1, 3, 0}}, {8, 2, {2, 5, 1, 4, 0, 3}}};
    for (const Way& way : ways) {
        INFO("orientation " << way.orientation);
        image::Image image;
        image.width = 3;
        image.height = 2;
        image.channels = {{"R", image::make_plane({0, 1, 2, 3, 4, 5})}};
        image::Attribute said{"Orientation", "int", {}, {}, {}};
        said.data.resize(4);
        std::memcpy(said.data.data(), &way.orientation, 4);
        image.attributes = {said};
        CHECK(io::make_upright(image) == (way.orientation != 1));
        CHECK(image.width == way.width);
        CHECK(image.attributes.empty());
        CHECK(std::vector<int>(image.channels[0].plane->begin(), image.channels[0].plane->end()) == way.seen);
    }
    // Through a file, which another library writes: TIFF has a place for it.
    const TemporaryFolder folder;
    image::Image image = smooth(image::Depth::uint8, false);
    image::Attribute said{"Orientation", "int", {}, {}, {}};
    said.data = {6, 0, 0, 0};
    image.attributes = {said};
    REQUIRE(io::save(folder / "a.tif", image));
    const auto read = io::load(folder / "a.tif");
    REQUIRE(read);
    CHECK(read.value().width == 48);
    CHECK(read.value().height == 64);
    CHECK(value(read.value(), "R", 0) ==
          Approx(value(image, "R", 47 * 64)).margin(1e-6)); // bottom left comes to top left
    CHECK(value(read.value(), "G", 0) == Approx(1).margin(1e-6));
}

TEST_CASE("a picture of printing inks is refused in one sentence", "[io][picture-kinds]") {
    // A TIFF of one pixel, PhotometricInterpretation 5 (separated), four samples; TIFF 6.0, section 16.
    std::string tiff("II*\0\x0c\0\0\0\xff\0\0\0", 12);
    const auto entry = [&](int tag, int type, unsigned count, unsigned number) {
        for (const int x : {tag, type})
            tiff += {static_cast<char>(x & 255), static_cast<char>(x >> 8)};
        for (const unsigned x : {count, number})
            for (int i = 0; i < 4; ++i)
                tiff += static_cast<char>(x >> (8 * i) & 255);
    };
    tiff += std::string("\x0a\0", 2);
    entry(256, 3, 1, 1);
    entry(257, 3, 1, 1);
    entry(258, 3, 4, 138); // four times 8, behind the list
    entry(259, 3, 1, 1);
    entry(262, 3, 1, 5);
    entry(273, 4, 1, 8);
    entry(277, 3, 1, 4);
    entry(278, 3, 1, 1);
    entry(279, 4, 1, 4);
    entry(284, 3, 1, 1);
    tiff += std::string(4, '\0') + std::string("\x08\0\x08\0\x08\0\x08\0", 8);
    REQUIRE(tiff.size() == 146);
    const TemporaryFolder folder;
    put(folder / "inks.tif", tiff);
    const auto read = io::load(folder / "inks.tif");
    REQUIRE_FALSE(read);
    CHECK_THAT(read.error().text(), Contains("inks.tif") && Contains("printing inks (CMYK)"));
}

TEST_CASE("portable pixmaps of 16 bits and of floats come in and go out as Netpbm and others define them",
          "[io][picture-kinds]") {
    const TemporaryFolder folder;
    // Written down from the formats' own definitions: larger end first; floats from the bottom row to the top, the sign
    // of the scale says which end is first.
    put(folder / "in.ppm",
        std::string("P6 # made by hand\n2 1\n65535\n") +
            std::string("\x03\xe8\x4e\x20\xff\xff\x00\x00\x00\x01\x00\x02", 12));
    const auto whole = io::load(folder / "in.ppm");
    REQUIRE(whole);
    CHECK(whole.value().depth == image::Depth::uint16);
    CHECK(value(whole.value(), "R", 0) == Approx(1000 / 65535.0));
    CHECK(value(whole.value(), "B", 0) == 1); // and not a step below
    CHECK(value(whole.value(), "B", 1) == Approx(2 / 65535.0));
    REQUIRE(io::save(folder / "out.ppm", whole.value()));
    CHECK(bytes_of(folder / "out.ppm") ==
          std::string("P6\n2 1\n65535\n") + std::string("\x03\xe8\x4e\x20\xff\xff\x00\x00\x00\x01\x00\x02", 12));
    put(folder / "ten.pgm", std::string("P5\n2 1\n1023\n") + std::string("\x03\xff\x02\x00", 4));
    const auto ten = io::load(folder / "ten.pgm");
    REQUIRE(ten);
    CHECK(value(ten.value(), "Y", 0) == 1);
    CHECK(value(ten.value(), "Y", 1) == Approx(512 / 1023.0).epsilon(1e-4));
    const auto floats = [](std::initializer_list<float> values, bool big) {
        std::string bytes;
        for (const float each : values) {
            char word[4];
            std::memcpy(word, &each, 4);
            if (big)
                std::reverse(word, word + 4);
            bytes.append(word, 4);
        }
        return bytes;
    };
    for (const bool big : {false, true}) {
        put(folder / "in.pfm",
            std::string("PF\n1 2\n") + (big ? "1.0\n" : "-1.0\n") + floats({1, 2, 3, -0.5F, 0.25F, 1e-30F}, big));
        const auto image = io::load(folder / "in.pfm");
        REQUIRE(image);
        CHECK(image.value().space == "rec709-linear");
        CHECK(value(image.value(), "R", 0) == -0.5F); // the upper row stands last
        CHECK(value(image.value(), "B", 1) == 3);
        REQUIRE(io::save(folder / "out.pfm", image.value()));
        CHECK(bytes_of(folder / "out.pfm") == "PF\n1 2\n-1.0\n" + floats({1, 2, 3, -0.5F, 0.25F, 1e-30F}, false));
    }
    for (const char* wrong : {"P6\n2 1\n65535\n\x01", "PF\n2 2\n-1.0\n\x01", "P6\n99999999 1\n65535\n",
                              "P6\n2 1\n70000\n", "PF\n1 1\n0\n....", "P6\n-1 1\n65535\n"}) {
        put(folder / "wrong.ppm", wrong);
        CHECK_FALSE(io::load(folder / "wrong.ppm"));
    }
}
