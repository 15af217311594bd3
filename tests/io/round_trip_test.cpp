// Picture files through a rule and back, attribute by attribute, as the picture library's own dump has them: parts,
// numbers that name something, how they are stored. What differs is listed here, and wanted.
#include "handover/render.hpp"
#include "io/picture_file.hpp"
#include "io/picture_kinds.hpp"
#include "pictures/oiio.hpp"
#include "support/support.hpp"

#include <map>
#include <set>

using namespace kasuri;
using namespace kasuri::test;

namespace {

constexpr int wide = 70, high = 40;

OIIO::ImageSpec spec_of(std::vector<std::string> channels, OIIO::TypeDesc type) {
    OIIO::ImageSpec spec(wide, high, static_cast<int>(channels.size()), type);
    spec.channelnames = std::move(channels);
    return spec;
}

std::vector<std::uint32_t> ids_of(std::uint32_t seed) {
    std::mt19937 random(seed);
    std::vector<std::uint32_t> all(wide * high);
    for (auto& each : all)
        each = static_cast<std::uint32_t>(random());
    all[0] = 0x7f800001; // as a float it would be a NaN that signals
    all[1] = 0xffffffff;
    all[2] = 1;
    return all;
}

std::vector<float> floats(int channels) {
    std::vector<float> all;
    for (int i = 0; i < wide * high * channels; ++i)
        all.push_back(static_cast<float>(i % 61) / 64);
    return all;
}

/// Attributes of a part, and how it is stored, as words.
std::map<std::string, std::string> dump(const std::filesystem::path& path, int part = 0) {
    std::map<std::string, std::string> all;
    auto input = OIIO::ImageInput::open(path.string());
    REQUIRE(input);
    REQUIRE(input->seek_subimage(part, 0));
    const OIIO::ImageSpec spec = input->spec();
    for (const OIIO::ParamValue& each : spec.extra_attribs)
        if (!each.name().string().starts_with("ICCProfile:")) // what the profile itself says
            all[each.name().string()] = std::string(each.type().c_str()) + " " + each.get_string();
    std::string channels;
    for (int c = 0; c < spec.nchannels; ++c)
        channels += spec.channelnames[static_cast<std::size_t>(c)] + ":" +
            (spec.channelformats.empty() ? spec.format : spec.channelformats[static_cast<std::size_t>(c)]).c_str() +
            " ";
    all["(channels)"] = channels;
    all["(tiles)"] = std::to_string(spec.tile_width) + " x " + std::to_string(spec.tile_height);
    all["(window)"] = fmt::format("{} {} {} {} of {} {} {} {}", spec.x, spec.y, spec.width, spec.height, spec.full_x,
                                  spec.full_y, spec.full_width, spec.full_height);
    return all;
}

int parts_in(const std::filesystem::path& path) {
    auto input = OIIO::ImageInput::open(path.string());
    REQUIRE(input);
    int count = 0;
    while (input->seek_subimage(count, 0))
        ++count;
    return count;
}

/// Names of what is in only one of them, or differs.
std::set<std::string> differences(const std::map<std::string, std::string>& before,
                                  const std::map<std::string, std::string>& after) {
    std::set<std::string> all;
    for (const auto& [name, value] : before)
        if (const auto found = after.find(name); found == after.end() || found->second != value) {
            UNSCOPED_INFO(name << ": " << value << " -> " << (found == after.end() ? "nothing" : found->second));
            all.insert(name);
        }
    for (const auto& [name, value] : after)
        if (!before.contains(name)) {
            UNSCOPED_INFO(name << ": nothing -> " << value);
            all.insert(name);
        }
    return all;
}

void render(const std::string& rule, const std::filesystem::path& in, const std::filesystem::path& out) {
    const auto made = handover::render(good_rule(rule), {in, out});
    INFO((made ? std::string() : made.error().text()));
    REQUIRE(made);
}

std::vector<std::uint32_t> ids_in(const std::filesystem::path& path, int part, const std::string& channel) {
    auto input = OIIO::ImageInput::open(path.string());
    REQUIRE(input);
    REQUIRE(input->seek_subimage(part, 0));
    const int at = input->spec().channelindex(channel);
    REQUIRE(at >= 0);
    std::vector<std::uint32_t> all(static_cast<std::size_t>(input->spec().width * input->spec().height));
    REQUIRE(input->read_image(part, 0, at, at + 1, OIIO::TypeDesc(OIIO::TypeDesc::UINT32), all.data()));
    return all;
}

/// Rules that change nothing, numbers, and the space.
constexpr const char* rules[] = {"", "out.rgb = rgb * 0.5", "working srgb\nout.r = g"};

} // namespace

TEST_CASE("numbers that name something are kept as they are, whatever a rule does", "[io][round-trip]") {
    const TemporaryFolder folder;
    const auto ids = ids_of(5);
    const std::vector<float> colours = floats(3);
    OIIO::ImageSpec spec = spec_of({"R", "G", "B", "id"}, OIIO::TypeDesc::HALF);
    spec.channelformats = {OIIO::TypeDesc::HALF, OIIO::TypeDesc::HALF, OIIO::TypeDesc::HALF, OIIO::TypeDesc::UINT32};
    for (const int tile : {0, 32}) {
        spec.tile_width = spec.tile_height = tile;
        spec.tile_depth = 1;
        auto output = OIIO::ImageOutput::create("openexr");
        REQUIRE(output->open((folder / "in.exr").string(), spec));
        std::vector<unsigned char> native; // each channel in its own type
        for (std::size_t i = 0; i < ids.size(); ++i) {
            for (std::size_t c = 0; c < 3; ++c) {
                unsigned char narrow[2];
                OIIO::convert_types(OIIO::TypeDesc(OIIO::TypeDesc::FLOAT), &colours[i * 3 + c],
                                    OIIO::TypeDesc(OIIO::TypeDesc::HALF), narrow, 1);
                native.insert(native.end(), narrow, narrow + 2);
            }
            native.insert(native.end(), reinterpret_cast<const unsigned char*>(&ids[i]),
                          reinterpret_cast<const unsigned char*>(&ids[i]) + 4);
        }
        REQUIRE(output->write_image(OIIO::TypeDesc::UNKNOWN, native.data()));
        REQUIRE(output->close());
        for (const char* rule : rules) {
            INFO(rule << " tiles " << tile);
            render(rule, folder / "in.exr", folder / "out.exr");
            CHECK(ids_in(folder / "out.exr", 0, "id") == ids);
            const std::string id = "(channels)";
            CHECK(dump(folder / "in.exr").at(id) == dump(folder / "out.exr").at(id));
            CHECK(dump(folder / "out.exr").at("(tiles)") == (tile == 0 ? "0 x 0" : "32 x 32"));
        }
        // They are no layer, no channel to work on, and no colour for a kind without them.
        const auto image = io::load(folder / "in.exr").value();
        CHECK(image.channels.size() == 3);
        CHECK(image.ids.size() == 1);
        CHECK(image::layers(image).size() == 1);
        CHECK(image.depth == image::Depth::half);
        const auto report = handover::render(good_rule("out.rgb = rgb"), {folder / "in.exr", folder / "out.tif"});
        REQUIRE(report);
        CHECK(std::any_of(report.value().notes.begin(), report.value().notes.end(),
                          [](const std::string& n) { return n.find("1 were left out") != std::string::npos; }));
    }
}

TEST_CASE("an EXR of several parts stays one: names, views, types, sizes, storage and attributes of each",
          "[io][round-trip]") {
    const TemporaryFolder folder;
    std::vector<OIIO::ImageSpec> parts = {
        spec_of({"R", "G", "B", "A"}, OIIO::TypeDesc::HALF), spec_of({"R", "G", "B"}, OIIO::TypeDesc::HALF),
        spec_of({"Z"}, OIIO::TypeDesc::FLOAT), spec_of({"id"}, OIIO::TypeDesc::UINT32),
        spec_of({"R", "G", "B"}, OIIO::TypeDesc::HALF)};
    const char* names[] = {"beauty.left", "beauty.right", "depth", "objects", "thumb"};
    const char* compressions[] = {"piz", "zips", "rle", "zip", "none"};
    for (std::size_t i = 0; i < parts.size(); ++i) {
        parts[i].attribute("oiio:subimagename", names[i]);
        parts[i].attribute("compression", compressions[i]);
        parts[i].attribute("view", i == 1 ? "right" : "left");
        parts[i].attribute("dye:batch", static_cast<int>(17 + i));
        const int rate[2] = {24000, 1001};
        parts[i].attribute("FramesPerSecond",
                           OIIO::TypeDesc(OIIO::TypeDesc::INT, OIIO::TypeDesc::VEC2, OIIO::TypeDesc::RATIONAL), rate);
    }
    for (OIIO::ImageSpec& part : parts) // the library writes parts in rows or parts in tiles, not both
        part.tile_width = part.tile_height = 16;
    parts[4].width = 12; // of the frame that all parts share
    parts[4].height = 9;
    const auto ids = ids_of(9);
    auto output = OIIO::ImageOutput::create("openexr");
    REQUIRE(output->open((folder / "in.exr").string(), static_cast<int>(parts.size()), parts.data()));
    for (std::size_t i = 0; i < parts.size(); ++i) {
        const bool opened =
            i == 0 || output->open((folder / "in.exr").string(), parts[i], OIIO::ImageOutput::AppendSubimage);
        INFO(output->geterror());
        REQUIRE(opened);
        const std::vector<float> values = floats(4);
        const bool taken = i == 3 ? output->write_image(OIIO::TypeDesc::UINT32, ids.data())
                                  : output->write_image(OIIO::TypeDesc::FLOAT, values.data());
        REQUIRE(taken);
    }
    REQUIRE(output->close());
    for (const char* rule : {rules[0], rules[1]}) {
        INFO(rule);
        render(rule, folder / "in.exr", folder / "out.exr");
        REQUIRE(parts_in(folder / "out.exr") == 5);
        for (int i = 0; i < 5; ++i) {
            INFO("part " << i);
            const auto found = differences(dump(folder / "in.exr", i), dump(folder / "out.exr", i));
            std::set<std::string> wanted = {"kasuri:made", "chromaticities", "oiio:ColorSpace", "capDate"};
            for (const std::string& name : found)
                CHECK(wanted.contains(name));
        }
        CHECK(ids_in(folder / "out.exr", 3, "id") == ids);
        const auto read = io::load(folder / "out.exr").value();
        const float scale = rule == rules[0] ? 1 : 0.5F;
        CHECK((*read.find("G")->plane)[5] ==
              Approx(scale * (*io::load(folder / "in.exr").value().find("G")->plane)[5]));
        CHECK(*read.find("depth.Z")->plane == *io::load(folder / "in.exr").value().find("depth.Z")->plane);
    }
    // Another layer of them worked on, a single channel that becomes three, and the space changed: one part then.
    handover::RenderJob job{folder / "in.exr", folder / "right.exr"};
    job.layer = "beauty.right";
    REQUIRE(handover::render(good_rule("out.rgb = rgb * 0.25"), job));
    CHECK(parts_in(folder / "right.exr") == 5);
    CHECK(dump(folder / "right.exr", 1).at("oiio:subimagename") == "string beauty.right");
    job.layer = "depth";
    job.out = folder / "z.exr";
    REQUIRE(handover::render(good_rule("out.rgb = rgb * 0.25"), job));
    CHECK(parts_in(folder / "z.exr") == 5);
    render(rules[2], folder / "in.exr", folder / "one.tif");
}

TEST_CASE("mip levels are left out and said, and what is compressed with loss stays so", "[io][round-trip]") {
    const TemporaryFolder folder;
    const std::vector<float> values = floats(3);
    OIIO::ImageBuf buffer(spec_of({"R", "G", "B"}, OIIO::TypeDesc::HALF));
    REQUIRE(OIIO::ImageBufAlgo::fill(buffer, {0.2F, 0.3F, 0.4F}));
    const std::string levels = (folder / "mip.exr").string();
    REQUIRE(OIIO::ImageBufAlgo::make_texture(OIIO::ImageBufAlgo::MakeTxTexture, buffer, levels, OIIO::ImageSpec()));
    const auto made = handover::render(good_rule("out.rgb = rgb * 0.5"), {folder / "mip.exr", folder / "out.exr"});
    INFO((made ? std::string() : made.error().text()));
    REQUIRE(made);
    CHECK(made.value().notes.front().find("mip levels") != std::string::npos);
    OIIO::ImageSpec spec = spec_of({"R", "G", "B"}, OIIO::TypeDesc::HALF);
    spec.attribute("compression", "dwaa:60");
    auto output = OIIO::ImageOutput::create("openexr");
    REQUIRE(output->open((folder / "dwa.exr").string(), spec));
    REQUIRE(output->write_image(OIIO::TypeDesc::FLOAT, values.data()));
    REQUIRE(output->close());
    const auto again = handover::render(good_rule("out.rgb = rgb * 0.5"), {folder / "dwa.exr", folder / "out.exr"});
    REQUIRE(again);
    CHECK(again.value().notes.front().find("with loss, as it came") != std::string::npos);
    CHECK(dump(folder / "out.exr").at("compression") == dump(folder / "dwa.exr").at("compression"));
}

TEST_CASE("attributes of every kind of picture go along", "[io][round-trip]") {
    const TemporaryFolder folder;
    /// What each kind loses or changes, and why that is wanted.
    const std::map<std::string, std::set<std::string>> wanted = {
        // What the file says of itself: how it was made, and, where it said nothing, what its numbers were taken for.
        {".png", {"kasuri:made"}},
        {".tif", {"Software", "ICCProfile"}},
        {".tiff", {"Software", "ICCProfile"}},
        {".exr", {"kasuri:made", "chromaticities"}},
        {".jpg", {"ICCProfile", "Exif:ColorSpace"}},
        {".jpeg", {"ICCProfile", "Exif:ColorSpace"}},
        {".tga", {"compression"}}, // packed where it was not
    };
    for (const io::PictureKind& kind : io::picture_kinds()) {
        if (kind.format == "portable") // it has no place for any
            continue;
        const std::string ending(kind.ending);
        const OIIO::TypeDesc type = kind.fallback == image::Depth::uint8 ? OIIO::TypeDesc::UINT8
            : kind.fallback == image::Depth::uint16                      ? OIIO::TypeDesc::UINT16
            : kind.fallback == image::Depth::half                        ? OIIO::TypeDesc::HALF
                                                                         : OIIO::TypeDesc::FLOAT;
        OIIO::ImageSpec spec = spec_of({"R", "G", "B"}, type);
        spec.width = spec.full_width = 64; // of others the library's writer of AVIF reads beyond the end of a row
        spec.attribute("Artist", "the weaver at the ford");
        spec.attribute("Copyright", "nobody");
        spec.attribute("DateTime", "2026:11:30 03:00:00");
        spec.attribute("ImageDescription", "two dyes");
        spec.attribute("Make", "a lens of glass");
        spec.attribute("Exif:FocalLength", 35.0F);
        spec.attribute("XResolution", 72.0F);
        spec.attribute("YResolution", 72.0F);
        spec.attribute("ResolutionUnit", "in");
        spec.attribute("PixelAspectRatio", 1.0F);
        auto output = OIIO::ImageOutput::create(std::string(kind.format));
        REQUIRE(output);
        REQUIRE(output->open((folder / ("in" + ending)).string(), spec));
        const std::vector<float> values = floats(3);
        REQUIRE(output->write_image(OIIO::TypeDesc::FLOAT, values.data()));
        REQUIRE(output->close());
        render("out.rgb = rgb * 0.5", folder / ("in" + ending), folder / ("out" + ending));
        INFO(ending);
        const auto found = differences(dump(folder / ("in" + ending)), dump(folder / ("out" + ending)));
        const auto own = wanted.find(ending);
        for (const std::string& name : found) {
            INFO(name);
            CHECK((own != wanted.end() && own->second.contains(name)));
        }
    }
}
