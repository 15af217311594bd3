// What pictures say besides their numbers goes along into the pictures that are made of them: attributes, windows,
// parts, depths.
#include "handover/render.hpp"

#include "io/picture_file.hpp"
#include "pictures/oiio.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

constexpr int width = 6, height = 4;

/// A header as a renderer would write it.
OIIO::ImageSpec header(std::vector<std::string> channels, OIIO::TypeDesc type = OIIO::TypeDesc::HALF) {
    OIIO::ImageSpec spec(width, height, static_cast<int>(channels.size()), type);
    spec.channelnames = std::move(channels);
    spec.x = 10;
    spec.y = -3;
    spec.full_x = 0;
    spec.full_y = 0;
    spec.full_width = 64;
    spec.full_height = 36;
    return spec;
}

std::vector<float> numbers(std::size_t channels, float scale) {
    std::vector<float> all;
    for (std::size_t i = 0; i < width * height * channels; ++i)
        all.push_back(scale * static_cast<float>(i % 32) / 32);
    return all;
}

void write(const std::filesystem::path& path, const OIIO::ImageSpec& spec) {
    auto output = OIIO::ImageOutput::create("openexr");
    const std::vector<float> data = numbers(static_cast<std::size_t>(spec.nchannels), 1);
    REQUIRE(output->open(path.string(), spec));
    REQUIRE(output->write_image(OIIO::TypeDesc::FLOAT, data.data()));
    REQUIRE(output->close());
}

OIIO::ImageSpec read(const std::filesystem::path& path) {
    auto input = OIIO::ImageInput::open(path.string());
    REQUIRE(input);
    return input->spec();
}

void render(const std::string& text, const handover::RenderJob& job) {
    const lang::Rule rule = good_rule(text);
    const auto made = handover::render(rule, job);
    INFO((made ? std::string() : made.error().text()));
    REQUIRE(made);
}

} // namespace

TEST_CASE("attributes and windows of an EXR are those of what is made of it", "[io][metadata]") {
    const TemporaryFolder folder;
    OIIO::ImageSpec spec = header({"R", "G", "B"});
    const float camera[16] = {1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 4, 5, 6, 1};
    const unsigned int code[2] = {0x01020304, 0};
    spec.attribute("worldToCamera", OIIO::TypeDesc(OIIO::TypeDesc::FLOAT, OIIO::TypeDesc::MATRIX44), camera);
    spec.attribute("smpte:TimeCode",
                   OIIO::TypeDesc(OIIO::TypeDesc::UINT, OIIO::TypeDesc::SCALAR, OIIO::TypeDesc::TIMECODE, 2), code);
    spec.attribute("Artist", "the weaver at the ford");
    spec.attribute("dye:batch", 17);
    spec.attribute("PixelAspectRatio", 2.0f);
    write(folder / "in.exr", spec);
    for (const char* rule : {"out.rgb = rgb * 0.5", "", "working srgb\nout.r = g"}) {
        INFO(rule);
        render(rule, {folder / "in.exr", folder / "out.exr"});
        const OIIO::ImageSpec made = read(folder / "out.exr");
        CHECK(made.get_string_attribute("Artist") == "the weaver at the ford");
        CHECK(made.get_int_attribute("dye:batch") == 17);
        CHECK(made.get_float_attribute("PixelAspectRatio") == 2.0f);
        float back[16] = {};
        REQUIRE(
            made.getattribute("worldToCamera", OIIO::TypeDesc(OIIO::TypeDesc::FLOAT, OIIO::TypeDesc::MATRIX44), back));
        CHECK(std::equal(camera, camera + 16, back));
        CHECK(made.find_attribute("smpte:TimeCode"));
        CHECK((made.x == 10 && made.y == -3 && made.full_width == 64 && made.full_height == 36));
        CHECK(made.format == OIIO::TypeDesc::HALF);
    }
    // Into another space: its words about the old one do not go along.
    handover::RenderJob job{folder / "in.exr", folder / "cg.exr"};
    job.out_space = "acescg";
    render("out.rgb = rgb * 0.5", job);
    CHECK(read(folder / "cg.exr").get_string_attribute("Artist") == "the weaver at the ford");
    CHECK(io::load(folder / "cg.exr").value().space == "acescg");
    CHECK(read(folder / "cg.exr").x == 10);
    // A PNG has no place for a window, and keeps the words.
    render("out.rgb = rgb * 0.5", {folder / "in.exr", folder / "out.png"});
    CHECK(read(folder / "out.png").get_string_attribute("Artist") == "the weaver at the ford");
    CHECK(read(folder / "out.png").x == 0);
}

TEST_CASE("a file is not said to be what it was made of in what has changed", "[io][metadata]") {
    const TemporaryFolder folder;
    image::Image picture = image::image_of(image::generated(width, height, [](int, int) {
        return std::array<double, 3>{0.5, 0.25, 0.125};
    }));
    picture.depth = image::Depth::uint16;
    picture.space = "p3-d65-srgb";
    REQUIRE(io::save(folder / "p3.tif", picture));
    handover::RenderJob job{folder / "p3.tif", folder / "srgb.tif"};
    job.out_space = "srgb";
    render("out.rgb = rgb", job);
    CHECK(io::load(folder / "srgb.tif").value().space == "srgb");
    const image::Image kept = io::load(folder / "p3.tif").value();
    for (const image::Attribute& each : kept.attributes) {
        CHECK(each.name.find("ICC") == std::string::npos);
        CHECK(each.name != "compression");
    }
}

TEST_CASE("parts of an EXR are layers, and channels keep a depth of their own", "[io][metadata]") {
    const TemporaryFolder folder;
    OIIO::ImageSpec first = header({"R", "G", "B", "A"}), second = header({"R", "G", "B"}),
                    third = header({"Z"}, OIIO::TypeDesc::FLOAT), fourth = header({"R"});
    first.attribute("oiio:subimagename", "beauty");
    second.attribute("oiio:subimagename", "lantern");
    third.attribute("oiio:subimagename", "depth");
    fourth.attribute("oiio:subimagename", "small");
    fourth.width = 2;
    const OIIO::ImageSpec parts[] = {first, second, third, fourth};
    auto output = OIIO::ImageOutput::create("openexr");
    REQUIRE(output->open((folder / "parts.exr").string(), 4, parts));
    for (int i = 0; i < 4; ++i) {
        if (i > 0)
            REQUIRE(output->open((folder / "parts.exr").string(), parts[i], OIIO::ImageOutput::AppendSubimage));
        const std::vector<float> data =
            numbers(static_cast<std::size_t>(parts[i].nchannels), static_cast<float>(i + 1));
        REQUIRE(output->write_image(OIIO::TypeDesc::FLOAT, data.data()));
    }
    REQUIRE(output->close());
    const auto loaded = io::load(folder / "parts.exr");
    REQUIRE(loaded);
    const image::Image& image = loaded.value();
    REQUIRE(image.channels.size() == 8);
    CHECK(image::layers(image) == std::vector<std::string>{"", "lantern", "depth"});
    REQUIRE(image.find("lantern.G"));
    CHECK((*image.find("lantern.G")->plane)[0] == Approx(2.0 / 32)); // of the second part
    CHECK(image.find("depth.Z")->depth == image::Depth::float32);
    CHECK(image.notes.empty());
    REQUIRE(image.parts.size() == 4); // one of another size is no layer, and kept
    CHECK((image.parts[3].name == "small" && image.parts[3].width == 2 && image.parts[3].channels.size() == 1));
    // One layer is worked on, the others go along as they were; the depth of each stays.
    handover::RenderJob job{folder / "parts.exr", folder / "out.exr"};
    job.layer = "lantern";
    render("out.rgb = rgb * 0.5", job);
    const image::Image made = io::load(folder / "out.exr").value();
    CHECK((*made.find("lantern.G")->plane)[0] == Approx(1.0 / 32));
    CHECK(*made.find("G")->plane == *image.find("G")->plane);
    CHECK(*made.find("depth.Z")->plane == *image.find("depth.Z")->plane);
    CHECK(made.find("depth.Z")->depth == image::Depth::float32);
    CHECK((made.depth == image::Depth::half && !made.find("G")->depth));
    CHECK(*made.parts[3].channels[0].plane == *image.parts[3].channels[0].plane);
}

TEST_CASE("the depth of what is written can be chosen", "[io][metadata]") {
    const TemporaryFolder folder;
    write(folder / "in.exr", header({"R", "G", "B"}));
    const auto depth = [&](const char* name, image::Depth wanted) {
        handover::RenderJob job{folder / "in.exr", folder / name};
        job.depth = wanted;
        const lang::Rule rule = good_rule("out.rgb = rgb * 0.5");
        const auto made = handover::render(rule, job);
        return made ? io::load(folder / name).value().depth : image::Depth::uint8;
    };
    CHECK(depth("a.png", image::Depth::uint8) == image::Depth::uint8);
    CHECK(depth("a.png", image::Depth::uint16) == image::Depth::uint16);
    CHECK(depth("a.tif", image::Depth::uint16) == image::Depth::uint16);
    CHECK(depth("a.tif", image::Depth::float32) == image::Depth::float32);
    CHECK(depth("a.exr", image::Depth::float32) == image::Depth::float32);
    // Whole numbers are encoded: of light that was a float.
    CHECK(io::load(folder / "a.png").value().space == "srgb");
    handover::RenderJob job{folder / "in.exr", folder / "no.png"};
    job.depth = image::Depth::half;
    const lang::Rule rule = good_rule("");
    const auto refused = handover::render(rule, job);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().remedy.find("JPEG 2000 hold 8 and 16") != std::string::npos);
    CHECK_FALSE(std::filesystem::exists(folder / "no.png"));
    CHECK(image::find_depth("half") == image::Depth::half);
    CHECK_FALSE(image::find_depth("32"));
}

TEST_CASE("a texture with levels is written again as a picture, without what says that it has levels",
          "[io][metadata]") {
    const TemporaryFolder folder;
    const int edge = 64;
    OIIO::ImageBuf plain(OIIO::ImageSpec(edge, edge, 3, OIIO::TypeDesc::HALF));
    OIIO::ImageBufAlgo::fill(plain, {0.5F, 0.25F, 0.125F});
    OIIO::ImageSpec config;
    config.attribute("maketx:filtername", "box");
    const std::string texture = (folder / "texture.exr").string();
    REQUIRE(OIIO::ImageBufAlgo::make_texture(OIIO::ImageBufAlgo::MakeTxTexture, plain, texture, config));
    const auto read = io::load(texture);
    REQUIRE(read);
    CHECK(read.value().width == edge);
    const auto saved = io::save(folder / "again.exr", read.value());
    REQUIRE(saved);
    const auto again = io::load(folder / "again.exr");
    REQUIRE(again);
    CHECK((*again.value().channels[0].plane)[edge * edge - 1] == 0.5f);
    for (const image::Attribute& each : again.value().attributes)
        CHECK(each.name != "textureformat");
}
