#include "handover/cube.hpp"
#include "handover/render.hpp"
#include "support/support.hpp"
#include "targets/demo.hpp"

#include <OpenColorIO/OpenColorIO.h>

#include <cstring>

using namespace kasuri;
using namespace kasuri::baking;
using namespace kasuri::handover;
using namespace kasuri::test;
namespace ocio = OCIO_NAMESPACE;

namespace {

/// Reads a .cube with OpenColorIO and applies it: a reader that shares nothing with the writer.
std::vector<Colour> through_ocio(const std::filesystem::path& file, std::vector<Colour> colours,
                                 ocio::Interpolation interpolation) {
    const auto config = ocio::Config::CreateRaw();
    const auto transform = ocio::FileTransform::Create();
    transform->setSrc(file.c_str());
    transform->setInterpolation(interpolation);
    const auto processor = config->getProcessor(transform)->getDefaultCPUProcessor();
    for (Colour& colour : colours)
        processor->applyRGBA(colour.data());
    return colours;
}

std::vector<Colour> random_colours(int count, float low, float high) {
    std::mt19937 random(1);
    std::uniform_real_distribution<float> spread(low, high);
    std::vector<Colour> colours;
    for (int i = 0; i < count; ++i)
        colours.push_back({spread(random), spread(random), spread(random), 1});
    return colours;
}

double largest_difference(const std::vector<Colour>& a, const std::vector<Colour>& b) {
    double most = 0;
    for (std::size_t i = 0; i < a.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            most = std::max(most, std::fabs(static_cast<double>(a[i][c]) - static_cast<double>(b[i][c])));
    return most;
}

const char* bent = "out.rgb = vec3(r * r * (0.5 + 0.5 * b), smoothstep(0, 1, g) * (0.7 + 0.3 * r), sqrt(abs(b * g)))";

} // namespace

TEST_CASE("another reader gets from the file what the rule says", "[handover]") {
    TemporaryFolder folder;
    // A matrix with rows that differ: a table of it has no interpolation error, so all that is left is the file.
    const lang::Rule matrix = good_rule(
        "filter \"M\"\nout.rgb = mat3(0.5, 0.3, 0.2, -0.1, 0.9, 0.2, 0.05, 0.15, 0.8) * rgb + vec3(0.01, 0, -0.02)");
    for (const int size : lut_sizes) {
        const auto baked = bake(matrix, {size, 0, 1});
        REQUIRE(baked);
        CHECK(baked.value().trilinear.largest < 1e-6);
        CHECK(baked.value().tetrahedral.largest < 1e-6);
        REQUIRE(write_lut(folder / "m.cube", matrix, baked.value()));
        const auto colours = random_colours(2000, 0, 1);
        ocio::ClearAllCaches();
        const auto got = through_ocio(folder / "m.cube", colours, ocio::INTERP_TETRAHEDRAL);
        CHECK(largest_difference(got, run(matrix, colours)) < 2e-6);
    }
}

TEST_CASE("the stated error is the error that another reader sees", "[handover]") {
    TemporaryFolder folder;
    const lang::Rule rule = good_rule(bent);
    const auto baked = bake(rule, {17, 0, 1});
    REQUIRE(baked);
    REQUIRE(write_lut(folder / "b.cube", rule, baked.value()));
    CHECK(baked.value().trilinear.largest > 1e-3); // coarse: there is an error to speak of
    CHECK(baked.value().trilinear.mean < baked.value().trilinear.largest);
    const auto colours = random_colours(60000, 0, 1);
    const auto truth = run(rule, colours);
    const double trilinear = largest_difference(through_ocio(folder / "b.cube", colours, ocio::INTERP_LINEAR), truth);
    const double tetrahedral =
        largest_difference(through_ocio(folder / "b.cube", colours, ocio::INTERP_TETRAHEDRAL), truth);
    CHECK(trilinear == Approx(baked.value().trilinear.largest).epsilon(0.25));
    CHECK(tetrahedral == Approx(baked.value().tetrahedral.largest).epsilon(0.25));
    // The two ways do differ here, so the check can tell them apart.
    CHECK(largest_difference(through_ocio(folder / "b.cube", colours, ocio::INTERP_LINEAR),
                             through_ocio(folder / "b.cube", colours, ocio::INTERP_TETRAHEDRAL)) > 1e-4);
    // Finer tables are nearer.
    CHECK(bake(rule, {65, 0, 1}).value().tetrahedral.mean < baked.value().tetrahedral.mean / 4);
}

TEST_CASE("our interpolation is the other reader's", "[handover]") {
    TemporaryFolder folder;
    const lang::Rule rule = good_rule(bent);
    const auto baked = bake(rule, {17, -0.5, 2});
    REQUIRE(baked);
    REQUIRE(write_lut(folder / "b.cube", rule, baked.value()));
    const auto colours = random_colours(3000, -0.7f, 2.2f); // also beyond the domain, where the table's edge holds
    const auto linear = through_ocio(folder / "b.cube", colours, ocio::INTERP_LINEAR);
    const auto tetra = through_ocio(folder / "b.cube", colours, ocio::INTERP_TETRAHEDRAL);
    for (std::size_t i = 0; i < colours.size(); ++i) {
        const std::array<double, 3> at = {static_cast<double>(colours[i][0]), static_cast<double>(colours[i][1]),
                                          static_cast<double>(colours[i][2])};
        const auto a = trilinear(baked.value().lut, at), b = tetrahedral(baked.value().lut, at);
        for (std::size_t c = 0; c < 3; ++c) {
            REQUIRE(std::fabs(a[c] - static_cast<double>(linear[i][c])) < 2e-5);
            REQUIRE(std::fabs(b[c] - static_cast<double>(tetra[i][c])) < 2e-5);
        }
    }
}

TEST_CASE("a .cube follows its specification", "[handover]") {
    TemporaryFolder folder; // Cube LUT Specification 1.0: keywords, then size^3 lines, red fastest
    const lang::Rule rule = good_rule("filter \"A \\ B\"\nparam k = 1 in 0 .. 2\nout.rgb = rgb * k");
    const auto baked = bake(subject::Subject(rule, std::vector<double>{0.5}), {17, 0, 2});
    REQUIRE(write_lut(folder / "a.cube", subject::Subject(rule, std::vector<double>{0.5}), baked.value()));
    std::ifstream in(folder / "a.cube");
    std::string line;
    std::vector<std::string> numbers, words;
    while (std::getline(in, line))
        (std::isalpha(static_cast<unsigned char>(line[0])) ? words : line[0] == '#' ? words : numbers).push_back(line);
    CHECK(words[0] == "TITLE \"A \\ B\"");
    CHECK(std::find(words.begin(), words.end(), "LUT_3D_SIZE 17") != words.end());
    CHECK(std::find(words.begin(), words.end(), "DOMAIN_MAX 2 2 2") != words.end());
    CHECK(std::find(words.begin(), words.end(), "# k = 0.5") != words.end());
    REQUIRE(numbers.size() == 17 * 17 * 17);
    CHECK(numbers[1] == "0.0625 0 0"); // 2 / 16 * 0.5 in red first
    CHECK(numbers.back() == "1 1 1");
}

TEST_CASE("what a table cannot hold is refused with a reason", "[handover]") {
    TemporaryFolder folder;
    for (const char* text : {"out.r = pos.x", "out.g = pixel.y * 0.1", "out.b = aspect"}) {
        const lang::Rule rule = good_rule(text);
        const auto baked = bake(rule, {});
        REQUIRE_FALSE(baked);
        CHECK(baked.error().what.find("depends on the place") != std::string::npos);
    }
    CHECK_FALSE(bake(good_rule(""), {16, 0, 1}));
    CHECK_FALSE(bake(good_rule(""), {17, 1, 1}));
    const lang::Rule root = good_rule("out.r = sqrt(r - 0.5)");
    const auto baked = bake(root, {17, 0, 1});
    REQUIRE(baked);
    CHECK(baked.value().not_finite == 8 * 17 * 17);
    CHECK_FALSE(write_lut(folder / "nan.cube", root, baked.value()));
    CHECK_FALSE(std::filesystem::exists(folder / "nan.cube"));
    CHECK(bake(good_rule("out.r = r * a"), {}).value().reads_alpha);
    CHECK_FALSE(bake(good_rule("out.a = a * 0.5"), {}).value().reads_alpha);
}

TEST_CASE("render applies a rule to a file and keeps what it does not touch", "[handover]") {
    TemporaryFolder folder;
    const auto in = folder / "puppet.exr", out = folder / "out.exr";
    REQUIRE(io::save(in, targets::demo_pictures()[1].make()));
    // A rule that changes nothing: every number of every layer, bit for bit.
    REQUIRE(render(good_rule(""), {in, out}));
    const image::Image before = io::load(in).value(), same = io::load(out).value();
    for (const image::Channel& channel : before.channels)
        CHECK(*same.find(channel.name)->plane == *channel.plane);
    // Another layer: only that one changes, alpha stays.
    REQUIRE(render(good_rule("out.g = b"), {in, out, "robe"}));
    const image::Image after = io::load(out).value();
    CHECK(*after.find("robe.G")->plane == *after.find("robe.B")->plane);
    CHECK(*after.find("robe.A")->plane == *before.find("robe.A")->plane);
    CHECK(*after.find("head.G")->plane == *before.find("head.G")->plane);
    CHECK_FALSE(render(good_rule(""), {in, out, "nobody"}));
}

TEST_CASE("render goes from one kind of file to another through their spaces", "[handover]") {
    TemporaryFolder folder;
    image::Image image = image::image_of(image::generated(16, 1, [](int x, int) {
        return std::array<double, 3>{x / 15.0, 0.5, 1 - x / 15.0};
    }));
    image.depth = image::Depth::uint16;
    image.space = "srgb";
    REQUIRE(io::save(folder / "in.png", image));
    REQUIRE(render(good_rule(""), {folder / "in.png", folder / "out.exr"}));
    const image::Image exr = io::load(folder / "out.exr").value();
    CHECK(exr.space == "rec709-linear");
    // IEC 61966-2-1: code 0.5 is 0.2140 of light.
    CHECK((*exr.find("G")->plane)[3] == Approx(0.2140).margin(2e-4));
    REQUIRE(render(good_rule(""), {folder / "out.exr", folder / "back.png"}));
    const image::Image back = io::load(folder / "back.png").value();
    for (std::size_t i = 0; i < 16; ++i)
        CHECK((*back.find("R")->plane)[i] ==
              Approx((*image.find("R")->plane)[i]).margin(4e-4)); // half float in between
    const auto report = render(good_rule("out.rgb = rgb * 4"), {folder / "in.png", folder / "bright.png"});
    REQUIRE(report);
    CHECK(report.value().clipped > 0);
}
