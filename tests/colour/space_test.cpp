// Transfer functions, primaries and conversions between spaces. Published values first; OpenColorIO's built-in
// transforms confirm what they have (to their float32).
#include "colour/adaptation.hpp"
#include "colour/primaries.hpp"
#include "colour/space.hpp"
#include "support/support.hpp"

#include <OpenColorIO/OpenColorIO.h>

using namespace kasuri;
using namespace kasuri::colour;
using namespace kasuri::test;

namespace OCIO = OCIO_NAMESPACE;

namespace {

const Space& space(std::string_view name) {
    const Space* found = find_space(name);
    REQUIRE(found);
    return *found;
}
double encoded(std::string_view transfer, double linear) { return find_transfer(transfer)->encode(linear); }
double decoded(std::string_view transfer, double code) { return find_transfer(transfer)->decode(code); }

void check_matrix(const Matrix3& m, const Matrix3& published, double margin) {
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j) {
            INFO("row " << i << " column " << j);
            CHECK(m[i][j] == Approx(published[i][j]).margin(margin));
        }
}

/// A colour through a built-in transform of OpenColorIO.
Triple by_ocio(const char* style, const Triple& colour) {
    auto transform = OCIO::BuiltinTransform::Create();
    transform->setStyle(style);
    const auto processor = OCIO::Config::CreateRaw()->getProcessor(transform)->getDefaultCPUProcessor();
    float pixel[3] = {static_cast<float>(colour[0]), static_cast<float>(colour[1]), static_cast<float>(colour[2])};
    processor->applyRGB(pixel);
    return {static_cast<double>(pixel[0]), static_cast<double>(pixel[1]), static_cast<double>(pixel[2])};
}

} // namespace

TEST_CASE("curves have the values of their documents", "[colour][space]") {
    // ITU-R BT.709-6, item 1.2, at its branch and at white.
    CHECK(encoded("bt709", 0.018) == Approx(0.081).margin(1e-12));
    CHECK(encoded("bt709", 1) == Approx(1).margin(1e-12));
    CHECK(encoded("bt709", 0.18) == Approx(1.099 * std::pow(0.18, 0.45) - 0.099).margin(1e-12));
    CHECK(decoded("bt1886", 0.5) == Approx(0.18946457).margin(1e-8)); // 2^-2.4
    // IEC 61966-2-5: 2.19921875.
    CHECK(decoded("oprgb", 0.5) == Approx(std::exp2(-2.19921875)).margin(1e-12));
    // ISO 22028-2: 16 E below 1/512, which is 0.03125 encoded.
    CHECK(encoded("romm", 1.0 / 512) == Approx(0.03125).margin(1e-12));
    CHECK(encoded("romm", 0.001) == Approx(0.016).margin(1e-12));
    // S-2014-003 and S-2016-001: mid grey 0.18 is 0.4135884; ACEScct has its 0 at 0.0729055; ACEScc at -0.3584475.
    CHECK(encoded("acescc", 0.18) == Approx(0.4135884024).margin(1e-9));
    CHECK(encoded("acescct", 0.18) == Approx(0.4135884024).margin(1e-9));
    CHECK(encoded("acescct", 0) == Approx(0.0729055342).margin(1e-9));
    CHECK(encoded("acescc", 0) == Approx((9.72 - 16) / 17.52).margin(1e-12));
    CHECK(encoded("acescc", -1) == encoded("acescc", 0));
    CHECK(encoded("acescc", 65504) == Approx(1.4679964).margin(1e-6));
    CHECK(decoded("acescc", 2) == 65504);
    CHECK(decoded("acescct", 2) == 65504);
    // The trap: the branch is at 2^-15, not at 2^-16.
    CHECK(encoded("acescc", std::exp2(-15.5)) ==
          Approx((std::log2(std::exp2(-16) + std::exp2(-16.5)) + 9.72) / 17.52).margin(1e-12));
    // SMPTE ST 2084: black and peak; ITU-R BT.2408-4, Table 1: 203 cd/m2 is 58 %, 1000 cd/m2 is 75 %; 100 cd/m2 is
    // 0.5081 (from memory).
    CHECK(encoded("pq", 0) == Approx(0).margin(1e-6));
    CHECK(encoded("pq", 1) == Approx(1).margin(1e-12));
    CHECK(encoded("pq", 0.01) == Approx(0.508078).margin(1e-6));
    CHECK(encoded("pq", 0.0203) == Approx(0.58).margin(0.002));
    CHECK(encoded("pq", 0.1) == Approx(0.7518).margin(1e-4));
    // ITU-R BT.2100-2, Table 5: the curve turns at 1/12, which is one half.
    CHECK(encoded("hlg", 1.0 / 12) == Approx(0.5).margin(1e-12));
    CHECK(encoded("hlg", 1) == Approx(1).margin(1e-6));
    CHECK(encoded("hlg", 0.265) == Approx(0.75).margin(0.001)); // ITU-R BT.2408: 75 % HLG is 26.5 % of the scene's peak
}

TEST_CASE("every curve comes back, also below 0 and above 1, and keeps NaN", "[colour][space]") {
    for (const Transfer& curve : transfers()) {
        const bool positive = curve.name == "acescc";
        for (double x = positive ? 1e-4 : -0.5; x <= 4; x += 0.0137) {
            INFO(curve.name << " " << x);
            CHECK(curve.decode(curve.encode(x)) ==
                  Approx(x).margin(2e-5)); // published branch points do not meet to the last digit
        }
        CHECK(std::isnan(curve.encode(std::nan(""))));
        CHECK(std::isnan(curve.decode(std::nan(""))));
    }
}

TEST_CASE("matrices of primaries are those of the documents", "[colour][space]") {
    // ITU-R BT.2020-2, Table 4: luminance weights to four digits.
    const Triple y = to_xyz(space("rec2020-linear"))[1];
    CHECK(y[0] == Approx(0.2627).margin(5e-5));
    CHECK(y[1] == Approx(0.6780).margin(5e-5));
    CHECK(y[2] == Approx(0.0593).margin(5e-5));
    // SMPTE ST 2065-1 and S-2014-004 print these to ten digits (from memory; OpenColorIO confirms them below).
    check_matrix(to_xyz(space("aces2065-1")),
                 {{{0.9525523959, 0, 0.0000936786}, {0.3439664498, 0.7281660966, -0.0721325464}, {0, 0, 1.0088251844}}},
                 1e-9);
    check_matrix(linear_between(space("acescg"), space("aces2065-1")),
                 {{{0.6954522414, 0.1406786965, 0.1638690622},
                   {0.0447945634, 0.8596711185, 0.0955343182},
                   {-0.0055258826, 0.0040252103, 1.0015006723}}},
                 1e-9);
    // CSS Color 4, sample code for conversions (from memory).
    // Its ROMM has primaries of six digits, ISO 22028-2 of four.
    check_matrix(to_xyz(space("romm-linear")),
                 {{{0.7977666449, 0.1351812974, 0.0313477341},
                   {0.2880748288, 0.7118352342, 0.0000899369},
                   {0, 0, 0.8251046025}}},
                 1e-5);
    check_matrix(to_xyz(space("p3-d65-linear")),
                 {{{0.4865709486, 0.2656676932, 0.1982172852},
                   {0.2289745641, 0.6917385218, 0.0792869141},
                   {0, 0.0451133819, 1.0439443689}}},
                 1e-9);
    check_matrix(adaptation(bradford, d65, d50),
                 {{{1.0479298208, 0.0229467933, -0.0501922295},
                   {0.0296278157, 0.9904344846, -0.0170738250},
                   {-0.0092430582, 0.0150551449, 0.7518742900}}},
                 1e-9);
}

TEST_CASE("white is white in every space, and every conversion comes back", "[colour][space]") {
    for (const Space& from : spaces())
        for (const Space& to : spaces()) {
            INFO(from.name << " -> " << to.name);
            const Matrix3 there = linear_between(from, to), back = linear_between(to, from);
            const Triple white = there * Triple{from.white_level, from.white_level, from.white_level};
            for (std::size_t i = 0; i < 3; ++i) {
                CHECK(white[i] == Approx(to.white_level).margin(1e-12));
                Triple unit{};
                unit[i] = 1;
                const Triple again = back * (there * unit);
                for (std::size_t k = 0; k < 3; ++k)
                    CHECK(again[k] == Approx(unit[k]).margin(1e-12));
            }
        }
}

TEST_CASE("OpenColorIO's built-in transforms agree to their float32", "[colour][space]") {
    struct Row {
        const char* style;
        const char* from;
        const char* to;
    };
    for (const Row& row :
         {Row{"ACEScg_to_ACES2065-1", "acescg", "aces2065-1"}, Row{"ACEScc_to_ACES2065-1", "acescc", "aces2065-1"},
          Row{"ACEScct_to_ACES2065-1", "acescct", "aces2065-1"},
          Row{"UTILITY - ACES-AP1_to_LINEAR-REC709_BFD", "acescg", "rec709-linear"}})
        for (const Triple& colour :
             {Triple{0.18, 0.18, 0.18}, Triple{0.5, 0.25, 0.4}, Triple{0.3, 0.6, 0.2}, Triple{0.1, 0.2, 0.55}}) {
            const Triple ours = converted(colour, space(row.from), space(row.to)), theirs = by_ocio(row.style, colour);
            for (std::size_t i = 0; i < 3; ++i) {
                INFO(row.style << " channel " << i);
                CHECK(ours[i] == Approx(theirs[i]).epsilon(2e-5).margin(2e-6)); // its curves are approximations
            }
        }
    for (const double code : {0.1, 0.3, 0.508078, 0.75, 0.9}) // 1 is 100 cd/m2 there
        CHECK(decoded("pq", code) * 100 ==
              Approx(by_ocio("CURVE - ST-2084_to_LINEAR", {code, code, code})[0]).epsilon(1e-3));
}

TEST_CASE("the engine converts as the double reference does, from every space into every other", "[colour][space]") {
    std::mt19937 random(3);
    std::uniform_real_distribution<float> spread(0.02f, 0.98f);
    std::vector<Colour> colours;
    for (int i = 0; i < 40; ++i)
        colours.push_back({spread(random), spread(random), spread(random), 1});
    std::array<std::vector<float>, 3> planes;
    for (const Colour& colour : colours)
        for (std::size_t c = 0; c < 3; ++c)
            planes[c].push_back(colour[c]);
    for (const Space& from : spaces())
        for (const char* working : {"rec709-linear", "acescct", "srgb"})
            for (const char* to : {"rec709-linear", "srgb", "rec2100-pq", "romm"}) {
                engine::CompileOptions options;
                options.in_space = from.name;
                options.out_space = to;
                options.colour_only = true;
                const auto program = engine::compile(good_rule(std::string("working ") + working), options);
                std::array<std::vector<float>, 3> out;
                for (auto& plane : out)
                    plane.resize(colours.size());
                float* const sinks[] = {out[0].data(), out[1].data(), out[2].data()};
                REQUIRE(engine::run(*program,
                                    {static_cast<int>(colours.size()),
                                     1,
                                     {planes[0].data(), planes[1].data(), planes[2].data(), nullptr},
                                     {}},
                                    {}, std::span<float* const>(sinks)));
                for (std::size_t i = 0; i < colours.size(); ++i) {
                    Triple exact{};
                    for (std::size_t c = 0; c < 3; ++c)
                        exact[c] = static_cast<double>(colours[i][c]);
                    if (from.name != to || from.name != working)
                        exact = converted(converted(exact, from, space(working)), space(working), space(to));
                    // What floats can do: some millionths of the brightest channel's light, as the code shows them.
                    const Transfer& code = transfer_of(space(to));
                    double brightest = 0;
                    for (const double x : exact)
                        brightest = std::max(brightest, std::fabs(code.decode(x)));
                    for (std::size_t c = 0; c < 3; ++c) {
                        INFO(from.name << " -> " << working << " -> " << to << ", channel " << c << " of "
                                       << colours[i][0] << " " << colours[i][1] << " " << colours[i][2]);
                        const double light = code.decode(exact[c]), off = 3e-6 * brightest;
                        const double slack = code.encode(light + off) - code.encode(light - off);
                        CHECK(static_cast<double>(out[c][i]) == Approx(exact[c]).epsilon(2e-6).margin(slack + 1e-6));
                    }
                }
            }
}
