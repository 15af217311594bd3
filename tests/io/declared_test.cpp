// What picture files say about their numbers: chunks of PNG, ICC profiles, EXR chromaticities, our own attribute.
#include "colour/models/models.hpp"
#include "handover/render.hpp"

#include "io/picture_file.hpp"
#include "io/png_chunks.hpp"
#include "io/profile.hpp"
#include "pictures/oiio.hpp"
#include "support/support.hpp"

#include <lcms2.h>

using namespace kasuri;
using namespace kasuri::test;
using image::Depth;
using image::Image;

namespace {

Image some_picture(Depth depth, const std::string& space) {
    Image made = image::image_of(image::generated(8, 4, [](int x, int y) {
        return std::array<double, 3>{x / 8.0, y / 4.0, (x + y) / 12.0};
    }));
    made.depth = depth;
    made.space = space;
    return made;
}

/// CRC of a PNG chunk (Portable Network Graphics, annex D).
std::uint32_t crc_of(const std::string& bytes) {
    std::uint32_t crc = 0xffffffffu;
    for (const char byte : bytes) {
        crc ^= static_cast<unsigned char>(byte);
        for (int k = 0; k < 8; ++k)
            crc = (crc & 1) != 0 ? 0xedb88320u ^ (crc >> 1) : crc >> 1;
    }
    return ~crc;
}
std::string big_endian(std::uint32_t x) {
    return {static_cast<char>(x >> 24), static_cast<char>(x >> 16), static_cast<char>(x >> 8), static_cast<char>(x)};
}
std::string chunk(const std::string& type, const std::string& data) {
    return big_endian(static_cast<std::uint32_t>(data.size())) + type + data + big_endian(crc_of(type + data));
}

/// A PNG that says these things and nothing else.
void write_png(const std::filesystem::path& path, const std::string& chunks) {
    REQUIRE(io::save(path, some_picture(Depth::uint16, "srgb")));
    std::string bytes = content_of(path), kept = bytes.substr(0, 33); // signature and IHDR
    for (std::size_t at = 33; at + 12 <= bytes.size();) {
        const auto* p = reinterpret_cast<const unsigned char*>(bytes.data() + at);
        const std::size_t length =
            12 + ((std::size_t{p[0]} << 24) | (std::size_t{p[1]} << 16) | (std::size_t{p[2]} << 8) | p[3]);
        const std::string type = bytes.substr(at + 4, 4);
        if (type == "IDAT" && chunks.size() > 0 && kept.size() == 33)
            kept += chunks;
        if (type == "IDAT" || type == "IEND")
            kept += bytes.substr(at, length);
        at += length;
    }
    write(path, kept);
}

std::vector<std::uint8_t> bytes_of(cmsHPROFILE profile) {
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(profile, nullptr, &size);
    std::vector<std::uint8_t> bytes(size);
    cmsSaveProfileToMem(profile, bytes.data(), &size);
    cmsCloseProfile(profile);
    return bytes;
}

/// Primaries between those of sRGB and P3, a power of 2: nobody's space.
cmsHPROFILE strange_profile() {
    const cmsCIExyY white{0.3127, 0.3290, 1};
    const cmsCIExyYTRIPLE primaries{{0.66, 0.325, 1}, {0.28, 0.65, 1}, {0.15, 0.055, 1}};
    cmsToneCurve* const curve = cmsBuildGamma(nullptr, 2.0);
    cmsToneCurve* curves[3] = {curve, curve, curve};
    cmsHPROFILE made = cmsCreateRGBProfile(&white, &primaries, curves);
    cmsFreeToneCurve(curve);
    return made;
}

void write_with_profile(const std::filesystem::path& path, const std::vector<std::uint8_t>& profile) {
    auto out = OIIO::ImageOutput::create(path.string());
    OIIO::ImageSpec spec(2, 1, 3, OIIO::TypeDesc::UINT16);
    spec.attribute("ICCProfile", OIIO::TypeDesc(OIIO::TypeDesc::UINT8, static_cast<int>(profile.size())),
                   profile.data());
    const float pixels[6] = {0.5f, 0.25f, 0.75f, 1, 1, 1};
    REQUIRE(out->open(path.string(), spec));
    REQUIRE(out->write_image(OIIO::TypeDesc::FLOAT, pixels));
    REQUIRE(out->close());
}

std::array<double, 3> first_pixel(const Image& image) {
    const auto c = image::picture_of(image, "")->at(0);
    return {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])};
}

} // namespace

TEST_CASE("chunks of a PNG name its space", "[io][declared]") {
    TemporaryFolder folder;
    const std::string srgb = chunk("sRGB", std::string(1, '\0'));
    const auto gamma = [](std::uint32_t value) { return chunk("gAMA", big_endian(value)); };
    const auto codes = [](char primaries, char transfer) {
        return chunk("cICP", std::string{primaries, transfer, 0, 1});
    };
    struct Row {
        std::string chunks, space, how;
    };
    for (const Row& row :
         {Row{"", "srgb", "assumed"}, Row{srgb, "srgb", "sRGB chunk"},
          Row{gamma(45455), "rec709-gamma22", "gAMA chunk, 0.45455"},
          Row{gamma(100000), "rec709-linear", "gAMA chunk, 1"}, Row{gamma(45455) + srgb, "srgb", "sRGB chunk"},
          // ITU-T H.273: 9 is BT.2020's primaries, 12 P3 with D65; 16 is PQ, 18 HLG, 13 sRGB.
          Row{codes(9, 16), "rec2100-pq", "cICP chunk"}, Row{codes(9, 18), "rec2100-hlg", "cICP chunk"},
          Row{codes(12, 13) + srgb, "p3-d65-srgb", "cICP chunk"}, Row{codes(99, 99), "srgb", "assumed"}}) {
        write_png(folder / "a.png", row.chunks);
        const auto loaded = io::load(folder / "a.png");
        REQUIRE(loaded);
        CHECK(loaded.value().space == row.space);
        CHECK(loaded.value().space_from == row.how);
        CHECK(loaded.value().notes.empty() == (row.chunks != codes(99, 99)));
    }
    // A power that is no space's: light is given back, exactly.
    write_png(folder / "a.png", gamma(50000));
    const Image light = io::load(folder / "a.png").value();
    CHECK(light.space == "rec709-linear");
    REQUIRE(light.notes.size() == 1);
    CHECK((*light.find("R")->plane)[2] == Approx(0.0625).margin(2e-5)); // 0.25 squared
    CHECK_FALSE(io::png_colour(folder / "nothing.png"));
    write(folder / "cut.png", content_of(folder / "a.png").substr(0, 40));
    CHECK(io::png_colour(folder / "cut.png")); // what is there is taken, no more
}

TEST_CASE("profiles that we write name their space when they are read", "[io][declared]") {
    for (const colour::Space& space : colour::spaces()) {
        std::string reason;
        const auto bytes = io::made_profile(space);
        REQUIRE_FALSE(bytes.empty());
        const auto read = io::read_profile(bytes, reason);
        REQUIRE(read);
        INFO(space.name << " read as " << read->space);
        CHECK(read->space == space.name);
        CHECK(read->name == space.name);
    }
    // lcms2's own sRGB is ours, too.
    std::string reason;
    const auto srgb = io::read_profile(bytes_of(cmsCreate_sRGBProfile()), reason);
    REQUIRE(srgb);
    CHECK(srgb->space == "srgb");
}

TEST_CASE("a profile of no known space is taken to light, as another library does", "[io][declared]") {
    TemporaryFolder folder;
    for (const char* name : {"a.png", "a.tif"}) {
        write_with_profile(folder / name, bytes_of(strange_profile()));
        const auto loaded = io::load(folder / name);
        REQUIRE(loaded);
        CHECK(loaded.value().space == "rec709-linear");
        CHECK(loaded.value().space_from.starts_with("ICC profile"));
        REQUIRE(loaded.value().notes.size() == 1);
        // lcms2: the profile to XYZ under D50, then CSS Color 4's matrices (Bradford to D65, to linear sRGB; from
        // memory).
        cmsHPROFILE profile = strange_profile(), xyz = cmsCreateXYZProfile();
        cmsHTRANSFORM transform = cmsCreateTransform(profile, TYPE_RGB_DBL, xyz, TYPE_XYZ_DBL,
                                                     INTENT_RELATIVE_COLORIMETRIC, cmsFLAGS_NOOPTIMIZE);
        const double in[3] = {std::round(0.5 * 65535) / 65535, std::round(0.25 * 65535) / 65535,
                              std::round(0.75 * 65535) / 65535};
        double seen[3];
        cmsDoTransform(transform, in, seen, 1);
        cmsDeleteTransform(transform);
        cmsCloseProfile(profile);
        cmsCloseProfile(xyz);
        const colour::Matrix3 to_d65 = {{{0.955473421488075, -0.02309845494876471, 0.06325924320057072},
                                         {-0.0283697093338637, 1.0099953980813041, 0.021041441191917323},
                                         {0.012314014864481998, -0.020507649298898964, 1.330365926242124}}};
        const colour::Matrix3 to_rgb = {{{3.2409699419045213, -1.5373831775700935, -0.4986107602930033},
                                         {-0.9692436362808798, 1.8759675015077206, 0.04155505740717561},
                                         {0.05563007969699361, -0.20397695888897657, 1.0569715142428786}}};
        using colour::operator*;
        const colour::Triple expected = to_rgb * (to_d65 * colour::Triple{seen[0], seen[1], seen[2]});
        const auto got = first_pixel(loaded.value());
        for (std::size_t i = 0; i < 3; ++i)
            CHECK(got[i] == Approx(expected[i]).margin(2e-4));                  // a profile's matrix has 16 bits
        CHECK((*loaded.value().find("G")->plane)[1] == Approx(1).margin(2e-4)); // white is white
    }
}

TEST_CASE("a profile that is a table is used, and said", "[io][declared]") {
    TemporaryFolder folder;
    // A device link made an input profile: it has a table and no matrix.
    cmsHPROFILE from = strange_profile(), lab = cmsCreateLab4Profile(nullptr);
    cmsHTRANSFORM transform =
        cmsCreateTransform(from, TYPE_RGB_DBL, lab, TYPE_Lab_DBL, INTENT_RELATIVE_COLORIMETRIC, 0);
    cmsHPROFILE link = cmsTransform2DeviceLink(transform, 4.3, cmsFLAGS_FORCE_CLUT);
    cmsSetDeviceClass(link, cmsSigInputClass);
    cmsSetPCS(link, cmsSigLabData);
    cmsDeleteTransform(transform);
    cmsCloseProfile(from);
    cmsCloseProfile(lab);
    const auto bytes = bytes_of(link);
    std::string reason;
    const auto read = io::read_profile(bytes, reason);
    INFO(reason);
    REQUIRE(read);
    CHECK(read->space.empty());
    CHECK(read->note.find("is a table") != std::string::npos);
    const colour::Triple white = read->to_light({1, 1, 1}), grey = read->to_light({0.5, 0.5, 0.5});
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(white[i] == Approx(1).margin(5e-3));
        CHECK(grey[i] == Approx(0.25).margin(5e-3));
    }
    write_with_profile(folder / "a.png", bytes);
    const auto loaded = io::load(folder / "a.png");
    REQUIRE(loaded);
    CHECK(loaded.value().notes.size() == 1);
}

TEST_CASE("a profile that cannot be used is said, and the usual space assumed", "[io][declared]") {
    std::string reason;
    CHECK_FALSE(io::read_profile(std::vector<std::uint8_t>(200, 7), reason));
    CHECK(reason == "its colour profile cannot be read");
    const cmsCIExyY white{0.3127, 0.3290, 1};
    cmsToneCurve* const curve = cmsBuildGamma(nullptr, 2.2);
    const auto grey = bytes_of(cmsCreateGrayProfile(&white, curve));
    cmsFreeToneCurve(curve);
    CHECK_FALSE(io::read_profile(grey, reason));
    CHECK(reason.find("not of red, green and blue") != std::string::npos);
}

TEST_CASE("an EXR says its space by chromaticities, and ours by an attribute", "[io][declared]") {
    TemporaryFolder folder;
    for (const colour::Space& space : colour::spaces()) {
        const Image image = some_picture(Depth::float32, std::string(space.name));
        for (const char* name : {"a.exr", "a.tif"}) {
            REQUIRE(io::save(folder / name, image));
            const auto loaded = io::load(folder / name);
            REQUIRE(loaded);
            INFO(space.name << " in " << name << ": " << loaded.value().space_from);
            CHECK(loaded.value().space == space.name);
            CHECK((*loaded.value().find("R")->plane)[3] == (*image.find("R")->plane)[3]);
        }
    }
    // Somebody else's primaries: converted once. White stays white.
    auto out = OIIO::ImageOutput::create((folder / "odd.exr").string());
    OIIO::ImageSpec spec(2, 1, 3, OIIO::TypeDesc::FLOAT);
    const float chromaticities[8] = {0.7f, 0.3f, 0.2f, 0.7f, 0.13f, 0.05f, 0.32f, 0.34f},
                pixels[6] = {0.5f, 0.25f, 2, 1, 1, 1};
    spec.attribute("chromaticities", OIIO::TypeDesc(OIIO::TypeDesc::FLOAT, 8), chromaticities);
    REQUIRE(out->open((folder / "odd.exr").string(), spec));
    REQUIRE(out->write_image(OIIO::TypeDesc::FLOAT, pixels));
    REQUIRE(out->close());
    const Image odd = io::load(folder / "odd.exr").value();
    CHECK(odd.space == "rec709-linear");
    REQUIRE(odd.notes.size() == 1);
    CHECK((*odd.find("B")->plane)[1] == Approx(1).margin(1e-6));
    // The user's word is the last: then the numbers are as they stand.
    const Image said = io::load(folder / "odd.exr", "acescg").value();
    CHECK(said.space == "acescg");
    CHECK(said.space_from == "said by you");
    CHECK((*said.find("B")->plane)[0] == 2);
    CHECK_FALSE(io::load(folder / "odd.exr", "nowhere"));
}

TEST_CASE("numbers that contradict their space are pointed out", "[io][declared]") {
    TemporaryFolder folder;
    Image image = image::image_of(image::generated(2, 1, [](int x, int) {
        return std::array<double, 3>{-0.25 * x, 0.5, 0.5};
    }));
    image.space = "srgb";
    REQUIRE(io::save(folder / "a.exr", image));
    const Image loaded = io::load(folder / "a.exr").value();
    CHECK(loaded.space == "srgb");
    REQUIRE(loaded.notes.size() == 1);
    CHECK(loaded.notes[0].find("below 0") != std::string::npos);
    image.space = "acescg";
    REQUIRE(io::save(folder / "a.exr", image));
    CHECK(io::load(folder / "a.exr").value().notes.empty());
}

TEST_CASE("a rendered picture keeps its space where the kinds of file agree", "[io][declared][handover]") {
    TemporaryFolder folder;
    const lang::Rule rule = good_rule("out.rgb *= 0.5");
    REQUIRE(io::save(folder / "p3.png", some_picture(Depth::uint16, "p3-d65-srgb")));
    REQUIRE(handover::render(rule, {folder / "p3.png", folder / "half.png"}));
    CHECK(io::load(folder / "half.png").value().space == "p3-d65-srgb");
    REQUIRE(handover::render(rule, {folder / "p3.png", folder / "half.exr"}));
    CHECK(io::load(folder / "half.exr").value().space == "rec709-linear");
    handover::RenderJob job{folder / "half.exr", folder / "cg.exr"};
    job.out_space = "acescg";
    REQUIRE(handover::render(good_rule(""), job));
    const Image cg = io::load(folder / "cg.exr").value();
    CHECK(cg.space == "acescg");
    const auto before = first_pixel(io::load(folder / "half.exr").value()), after = first_pixel(cg);
    const colour::Triple expected = colour::converted(
        {before[0], before[1], before[2]}, *colour::find_space("rec709-linear"), *colour::find_space("acescg"));
    for (std::size_t i = 0; i < 3; ++i)
        CHECK(after[i] == Approx(expected[i]).margin(1e-3)); // half floats
    // The user's word about what comes in.
    job = {folder / "p3.png", folder / "as.png"};
    job.in_space = "oprgb";
    REQUIRE(handover::render(good_rule(""), job));
    CHECK(io::load(folder / "as.png").value().space == "oprgb");
}
