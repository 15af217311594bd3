#include "base/file_kind.hpp"
#include "io/picture_file.hpp"
#include "support/support.hpp"
#include "targets/demo.hpp"

#include <unistd.h>

using namespace kasuri;
using namespace kasuri::test;
using image::Alpha;
using image::Depth;
using image::Image;

namespace {

Image small(Depth depth, bool alpha) {
    Image image = image::image_of(image::generated(5, 3, [](int x, int y) {
        return std::array<double, 3>{x / 4.0, y / 2.0, 0.2};
    }));
    image.depth = depth;
    if (alpha) {
        image::Samples values;
        for (int i = 0; i < 15; ++i)
            values.push_back(i % 5 == 0 ? 0.0f : i % 5 == 1 ? 0.5f : 1.0f);
        image.channels.push_back({"A", image::make_plane(std::move(values))});
        image.alpha = Alpha::straight;
    }
    return image;
}

float largest_difference(const Image& a, const Image& b) {
    REQUIRE(a.channels.size() == b.channels.size());
    float most = 0;
    for (const image::Channel& channel : a.channels) {
        const image::Channel* other = b.find(channel.name);
        REQUIRE(other);
        for (std::size_t i = 0; i < channel.plane->size(); ++i)
            most = std::max(most, std::fabs((*channel.plane)[i] - (*other->plane)[i]));
    }
    return most;
}

} // namespace

TEST_CASE("pictures come back as they were written, to the depth of the file", "[io]") {
    TemporaryFolder folder;
    struct Kind {
        const char* name;
        Depth depth;
        float within;
        const char* space;
    };
    const Kind kinds[] = {
        {"a8.png", Depth::uint8, 0.5f / 255, "srgb"},   {"a16.png", Depth::uint16, 0.5f / 65535, "srgb"},
        {"b8.tif", Depth::uint8, 0.5f / 255, "srgb"},   {"b16.tiff", Depth::uint16, 0.5f / 65535, "srgb"},
        {"bf.tif", Depth::float32, 0, "rec709-linear"}, {"ch.exr", Depth::half, 2.5e-4f, "rec709-linear"},
        {"cf.exr", Depth::float32, 0, "rec709-linear"}};
    for (const Kind& kind : kinds) {
        INFO(kind.name);
        Image image = small(kind.depth, false);
        image.space = kind.space;
        REQUIRE(io::save(folder / kind.name, image));
        const auto loaded = io::load(folder / kind.name);
        REQUIRE(loaded);
        CHECK(loaded.value().depth == kind.depth);
        CHECK(loaded.value().space == kind.space);
        CHECK(largest_difference(image, loaded.value()) <= kind.within * 1.01f);
    }
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) ==
          std::ssize(kinds)); // no temporaries left
}

TEST_CASE("alpha is stored the way each kind of file wants it and means the same after", "[io]") {
    TemporaryFolder folder;
    const Image image = small(Depth::float32, true);
    REQUIRE(io::save(folder / "a.exr", image));
    const Image exr = io::load(folder / "a.exr").value();
    CHECK(exr.alpha == Alpha::premultiplied);
    REQUIRE(io::save(folder / "a.tif", image));
    const Image tiff = io::load(folder / "a.tif").value();
    CHECK(tiff.alpha == Alpha::straight);
    REQUIRE(io::save(folder / "a.png", image));
    const Image png = io::load(folder / "a.png").value();
    CHECK(png.alpha == Alpha::straight);
    const image::Picture straight = *image::picture_of(image, ""), from_exr = *image::picture_of(exr, ""),
                         from_tiff = *image::picture_of(tiff, "");
    for (std::size_t i = 0; i < straight.pixels(); ++i)
        if (straight.at(i)[3] > 0) {
            CHECK(from_exr.at(i)[0] == Approx(straight.at(i)[0]));
            CHECK(from_tiff.at(i) == straight.at(i));
        }
}

TEST_CASE("layered EXR keeps its layers and channels", "[io]") {
    TemporaryFolder folder;
    const Image puppet = targets::demo_pictures()[1].make();
    REQUIRE(io::save(folder / "puppet.exr", puppet));
    const Image loaded = io::load(folder / "puppet.exr").value();
    CHECK(loaded.channels.size() == 16);
    CHECK(loaded.alpha == Alpha::premultiplied);
    std::vector<std::string> names = image::layers(loaded);
    std::sort(names.begin(), names.end());
    CHECK(names == std::vector<std::string>{"", "head", "robe", "rods"});
    CHECK(largest_difference(puppet, loaded) < 2e-3f); // half float of values up to 2.2
}

TEST_CASE("one channel is a picture too", "[io]") {
    TemporaryFolder folder;
    Image image;
    image.width = 4;
    image.height = 1;
    image.depth = Depth::uint16;
    image.channels = {{"Y", image::make_plane({0, 0.25f, 0.5f, 1})}};
    REQUIRE(io::save(folder / "plate.png", image));
    const Image loaded = io::load(folder / "plate.png").value();
    REQUIRE(loaded.channels.size() == 1);
    const image::Picture picture = *image::picture_of(loaded, "");
    CHECK(picture.at(1, 0)[0] == Approx(0.25f).margin(1e-5));
    CHECK(picture.at(1, 0)[0] == picture.at(1, 0)[2]);
}

TEST_CASE("bad files are errors that say what is wrong", "[io]") {
    TemporaryFolder folder;
    CHECK(io::load(folder / "none.exr").error().what == "there is no such file");
    CHECK(io::load(folder.path).error().what == "this is a folder, not a picture");
    write(folder / "text.png", "this is not a picture");
    CHECK_FALSE(io::load(folder / "text.png"));
    write(folder / "empty.exr", "");
    CHECK_FALSE(io::load(folder / "empty.exr"));
    REQUIRE(io::save(folder / "whole.exr", targets::demo_pictures()[1].make()));
    const std::string whole = content_of(folder / "whole.exr");
    for (const std::size_t length : {std::size_t{3}, std::size_t{100}, std::size_t{2000}, whole.size() / 2}) {
        write(folder / "cut.exr", whole.substr(0, length));
        const auto cut = io::load(folder / "cut.exr");
        INFO(length);
        REQUIRE_FALSE(cut);
        CHECK(cut.error().where == (folder / "cut.exr").string());
    }
    Image png = small(Depth::uint8, false);
    REQUIRE(io::save(folder / "whole.png", png));
    write(folder / "cut.png", content_of(folder / "whole.png").substr(0, 60));
    CHECK_FALSE(io::load(folder / "cut.png"));
}

TEST_CASE("a picture that cannot be written leaves everything as it was", "[io]") {
    TemporaryFolder folder;
    const Image image = small(Depth::uint8, false);
    CHECK(io::save(folder / "a.jpeg2", image).error().what == "no picture can be written with this ending");
    CHECK_FALSE(io::save(folder / "no/such/a.png", image));
    std::filesystem::create_directory(folder / "dir.png");
    CHECK_FALSE(io::save(folder / "dir.png", image));
    CHECK(std::filesystem::is_directory(folder / "dir.png"));
}

TEST_CASE("what does not fit is counted, never silently lost", "[io]") {
    TemporaryFolder folder;
    Image image;
    image.width = 4;
    image.height = 1;
    image.depth = Depth::uint8;
    image.channels = {{"Y", image::make_plane({-0.1f, 0.5f, 2, std::nanf("")})}};
    const auto report = io::save(folder / "a.png", image);
    REQUIRE(report);
    CHECK(report.value().clipped == 2);
    CHECK(report.value().not_finite == 1);
    CHECK((*io::load(folder / "a.png").value().channels[0].plane)[3] == 0);
}

TEST_CASE("the pictures that names speak of are those that can be written, and no ending stands for two kinds",
          "[io]") {
    std::set<std::string> named, written(io::writable_endings().begin(), io::writable_endings().end());
    for (const std::string_view ending : endings_of(FileKind::picture))
        named.emplace(ending);
    CHECK(named == written);
    std::set<std::string_view> all;
    for (const FileEnding& row : file_endings()) {
        INFO(row.ending);
        CHECK(all.insert(row.ending).second);
        CHECK(row.ending.starts_with('.'));
        CHECK(is_kind("A Name" + std::string(row.ending), row.kind));
    }
    CHECK(is_kind("LOOK.KasuriLook", FileKind::look));
    CHECK(is_kind("a.kasuri.png", FileKind::picture));
    CHECK_FALSE(file_kind("kasuri").has_value());
    CHECK_FALSE(file_kind(".kasuri").has_value()); // a hidden file without an ending
    CHECK(with_ending("a", FileKind::filter) == "a.kasuri");
    CHECK(with_ending("a.cc", FileKind::correction) == "a.cc");
    CHECK(with_ending("a.v2", FileKind::look) == "a.v2.kasurilook");
}
