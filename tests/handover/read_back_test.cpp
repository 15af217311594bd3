// What is said of a LUT file is said of that file: OpenColorIO reads it here, by itself, and finds no more.
#include "document/filter_file.hpp"
#include "document/look_file.hpp"
#include "handover/cube.hpp"
#include "io/icc_link.hpp"
#include "io/lut_file.hpp"
#include "look/make.hpp"
#include "support/support.hpp"

#include <fmt/format.h>
#include <functional>
#include <OpenColorIO/OpenColorIO.h>

using namespace kasuri;
using namespace kasuri::test;
namespace ocio = OCIO_NAMESPACE;

namespace {

struct Shown {
    const char *filter, *preset;
    double low, high;
};

lang::Rule demo(const char* name) {
    return good_rule(
        content_of(std::filesystem::path(KASURI_SOURCE_DIR) / "data/filters" / (std::string(name) + ".kasuri")));
}

subject::Subject of(const Shown& shown) {
    const lang::Rule rule = demo(shown.filter);
    std::vector<double> values = defaults(rule);
    for (const lang::Preset& preset : rule.presets)
        if (preset.name == shown.preset)
            values = preset.values;
    return subject::Subject(rule, values);
}

/// One colour through a file: by OpenColorIO, or of a device link by Little CMS.
std::function<void(float*)> another_reader(const std::filesystem::path& file) {
    if (file.extension() == handover::icc_ending) {
        auto link = io::read_icc_link(content_of(file), false);
        REQUIRE(link);
        return [link = std::shared_ptr<const ir::External>(std::move(link.value()))](float* pixel) {
            float* const planes[] = {pixel, pixel + 1, pixel + 2};
            link->apply(planes, 1);
        };
    }
    ocio::ClearAllCaches();
    const auto transform = ocio::FileTransform::Create();
    transform->setSrc(file.string().c_str());
    transform->setInterpolation(ocio::INTERP_TETRAHEDRAL);
    const auto processor = ocio::Config::CreateRaw()->getProcessor(transform)->getDefaultCPUProcessor();
    return [processor](float* pixel) { processor->applyRGB(pixel); };
}

/// The largest difference of a file, as another program reads it, from the double-precision reference, over colours of
/// its domain that nobody fitted anything to, and corners.
double found_by_another_reader(const std::filesystem::path& file, const subject::Subject& subject, double low,
                               double high) {
    const auto through = another_reader(file);
    std::mt19937 random(77);
    std::uniform_real_distribution<double> number(low, high);
    double most = 0;
    for (int i = 0; i < 4000; ++i) {
        std::array<double, 3> at{};
        for (std::size_t c = 0; c < 3; ++c)
            at[c] = i < 8 ? (i >> c & 1 ? high : low) : number(random);
        engine::ReferencePixel pixel;
        pixel.rgba = {at[0], at[1], at[2], 1};
        const auto wanted = engine::reference_chain(subject.steps(), subject.values(), subject.space(), pixel);
        float got[] = {static_cast<float>(at[0]), static_cast<float>(at[1]), static_cast<float>(at[2])};
        through(got);
        for (std::size_t c = 0; c < 3; ++c)
            most = std::max(most, std::fabs(static_cast<double>(got[c]) - wanted[c]));
    }
    return most;
}

constexpr Shown shown[] = {
    {"long-lantern", "Hard lantern", 0, 1},             // a matrix that leaves 0 .. 1
    {"red-thread-blue-thread", "Parted threads", 0, 1}, // a table that does
    {"held-madder", "Two baths", 0, 1},
    {"held-madder", "Two baths", -0.25, 4},
    {"smoke-and-straw", "Smoke and straw", 0, 1},
};

} // namespace

TEST_CASE("the stated largest error of every kind of LUT is not exceeded by another reader", "[handover]") {
    const TemporaryFolder folder;
    for (const Shown& each : shown) {
        const subject::Subject subject = of(each);
        const auto baked = baking::bake(subject, {17, each.low, each.high});
        REQUIRE(baked);
        for (const std::string& ending : handover::lut_endings()) {
            INFO(each.filter << " " << ending << " from " << each.low << " to " << each.high);
            const auto path = folder / ("x" + ending);
            const auto written = handover::write_lut(path, subject, baked.value());
            if (each.high != 1 && (ending == ".3dl" || ending == ".itx" || ending == ".cub" || ending == ".icc")) {
                REQUIRE_FALSE(written); // they have no place for a domain
                CHECK(written.error().text().find(ending == ".icc" ? "over 0 to 1" : "from 0 to 1 only") !=
                      std::string::npos);
                continue;
            }
            REQUIRE(written);
            const handover::LutFile& file = written.value();
            const double found = found_by_another_reader(path, subject, each.low, each.high);
            CHECK(found <= file.tetrahedral.largest * 1.001 + 3e-6);
            CHECK(file.tetrahedral.largest <= 3 * found + 1e-4); // and it is no number out of the air
            CHECK((file.holds == handover::LutHolds::matrix) ==
                  (std::string(each.filter) == "long-lantern" && (ending == ".clf" || ending == ".ctf")));
            CHECK(file.exact == (file.holds == handover::LutHolds::matrix));
            // Ten or twelve bits end at 1: the rule does not.
            CHECK((file.clipped > 0.1) ==
                  ((ending == ".3dl" || ending == ".icc") && std::string(each.filter) != "held-madder" &&
                   std::string(each.filter) != "smoke-and-straw"));
        }
    }
}

TEST_CASE("a wished error holds of the file, or there is none", "[handover]") {
    const subject::Subject threads = of(shown[1]);
    const auto cut = handover::lut_file_for(".3dl", threads, {}, {0.01, {}});
    REQUIRE(cut);
    CHECK_FALSE(handover::near_enough(cut.value(), {0.01, {}}));
    CHECK(cut.value().clipped > 0.1);
    const auto held = handover::lut_file_for(".cube", threads, {}, {0.01, {}});
    REQUIRE(held);
    CHECK(handover::near_enough(held.value(), {0.01, {}}));
    CHECK(held.value().tetrahedral.largest <= 0.01);
    CHECK(held.value().points > 9);
    CHECK_FALSE(handover::lut_file(".nix", threads, baking::bake(threads, {9}).value()));
    CancelToken cancel;
    cancel.cancel();
    CHECK(handover::lut_file(".cube", threads, baking::bake(threads, {9}).value(), false, cancel).error().what ==
          "called off");
}

TEST_CASE("the worst place is looked for, not met by chance", "[handover]") {
    // A peak of one cell's width that 64000 even colours fall short of.
    const subject::Subject peak(
        good_rule("out.r = r + 0.2 * exp(-pow(distance(rgb, vec3(0.484375, 0.546875, 0.390625)) * 60, 2))"));
    const auto baked = baking::bake(peak, {33, 0, 1});
    REQUIRE(baked);
    const auto file = handover::lut_file(".cube", peak, baked.value());
    REQUIRE(file);
    CHECK(file.value().tetrahedral.largest >= baked.value().tetrahedral.largest);
    CHECK(file.value().tetrahedral.largest > 0.18);
    CHECK(file.value().searched > 10000);
}

// test_core "[.kinds]" prints the table of docs/looks.md.
TEST_CASE("kinds of LUT files: what is stated, and what another reader finds", "[.kinds]") {
    const TemporaryFolder folder;
    fmt::print("| kind | of a matrix | of a table of 33 points | another domain |\n| --- | --- | --- | --- |\n");
    for (const std::string& ending : handover::lut_endings()) {
        std::string row = fmt::format("| `{}` ", ending);
        for (const Shown& each : {shown[0], shown[1], shown[3]}) {
            const subject::Subject subject = of(each);
            const auto path = folder / ("x" + ending);
            const auto written =
                handover::write_lut(path, subject, baking::bake(subject, {33, each.low, each.high}).value());
            if (!written) {
                row += "| no ";
                continue;
            }
            const handover::LutFile& file = written.value();
            const double found = found_by_another_reader(path, subject, each.low, each.high);
            CHECK(found <= file.tetrahedral.largest * 1.001 + 3e-6);
            row += fmt::format("| {}{:.2g}, found {:.2g}{} ", file.exact ? "a matrix: " : "", file.tetrahedral.largest,
                               found, file.clipped > 0 ? fmt::format(", {:.0f} % cut off", 100 * file.clipped) : "");
        }
        fmt::print("{}|\n", row);
    }
}

TEST_CASE("a LUT is read tetrahedrally or trilinearly, as its step says", "[handover][look]") {
    // Two points an axis, of which one corner is white: at the middle the two ways differ by the formulas' own numbers.
    const std::string text = "LUT_3D_SIZE 2\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n0 0 0\n1 1 1\n";
    document::LookStep step;
    step.lut = ".cube";
    step.lut_text = document::SharedText(text);
    step.space = "rec709-linear";
    const auto at = [&](double r, double g, double b) {
        document::Look look;
        look.steps = {step};
        const auto again = document::look_of(document::look_text(look), "x");
        REQUIRE(again);
        CHECK(again.value().steps[0].trilinear == step.trilinear);
        const auto runs = look::make(again.value(), {});
        REQUIRE(runs);
        const auto out = engine::evaluate(*runs.value().subject.program(),
                                          image::generated(1, 1,
                                                           [&](int, int) {
                                                               return std::array{r, g, b};
                                                           }),
                                          runs.value().subject.values());
        REQUIRE(out);
        return static_cast<double>(out->at(0)[0]);
    };
    CHECK(at(0.9, 0.5, 0.4) == Approx(0.4)); // the least of the three: along the axis of greys
    step.trilinear = true;
    CHECK(at(0.9, 0.5, 0.4) == Approx(0.9 * 0.5 * 0.4)); // their product
    const std::string wrong = R"({"kasuri-look": 1, "steps": [{"lut": ".cube", "text": "", "between": "nearest"}]})";
    CHECK(document::look_of(wrong, "x").error().text().find("tetrahedral or trilinear") != std::string::npos);
}

TEST_CASE("an ICC device link is what ICC.1 says, byte by byte, and both ways of reading it are what was stated",
          "[handover][icc]") {
    const subject::Subject subject = of(shown[2]);
    const auto file = handover::lut_file(".icc", subject, baking::bake(subject, {17, 0, 1}).value());
    REQUIRE(file);
    const std::string& bytes = file.value().text;
    const auto number = [&](std::size_t at) {
        std::uint32_t made = 0;
        for (std::size_t k = 0; k < 4; ++k)
            made = made << 8 | static_cast<unsigned char>(bytes[at + k]);
        return made;
    };
    // ICC.1:2022, table 17: size, version, class, spaces of data and connection, signature.
    CHECK(number(0) == bytes.size());
    CHECK(bytes[8] == 2);
    CHECK(bytes.substr(12, 4) == "link");
    CHECK(bytes.substr(16, 8) == "RGB RGB ");
    CHECK(bytes.substr(36, 4) == "acsp");
    // Table 8.6: what a device link must hold.
    for (const char* tag : {"desc", "cprt", "pseq", "A2B0"}) {
        bool there = false;
        for (std::size_t i = 0; i < number(128); ++i)
            there = there || bytes.substr(132 + 12 * i, 4) == tag;
        INFO(tag);
        CHECK(there);
    }
    const auto by_lcms = io::read_icc_link(bytes, false), by_table = io::read_icc_link(bytes, true);
    REQUIRE((by_lcms && by_table));
    std::mt19937 random(3);
    std::uniform_real_distribution<float> in(0, 1);
    for (int i = 0; i < 2000; ++i) {
        const std::array<float, 3> at = {in(random), in(random), in(random)};
        engine::ReferencePixel pixel;
        for (std::size_t c = 0; c < 3; ++c)
            pixel.rgba[c] = static_cast<double>(at[c]);
        pixel.rgba[3] = 1;
        const auto wanted = engine::reference_chain(subject.steps(), subject.values(), subject.space(), pixel);
        for (const bool trilinear : {false, true}) {
            std::array<float, 3> got = at;
            float* const planes[] = {&got[0], &got[1], &got[2]};
            (trilinear ? by_table : by_lcms).value()->apply(planes, 1);
            const double stated = (trilinear ? file.value().trilinear : file.value().tetrahedral).largest;
            for (std::size_t c = 0; c < 3; ++c)
                REQUIRE(std::fabs(static_cast<double>(got[c]) - wanted[c]) <= stated * 1.001 + 1e-5);
        }
    }
    CHECK_FALSE(io::read_icc_link("no profile", false));
    CHECK_FALSE(io::read_icc_link(bytes.substr(0, 400), true));
}
