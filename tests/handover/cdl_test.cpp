// Colour decision lists by the formulas of ASC CDL 1.2, in both forms and by both ways in; and back.
#include "handover/cdl.hpp"
#include "io/lut_file.hpp"
#include "support/support.hpp"

#include <fmt/format.h>

using namespace kasuri;
using namespace kasuri::test;
using handover::CdlForm;

namespace {

/// ASC CDL 1.2, 3.1 and 3.2, written down here again: out = clamp(in * slope + offset) ^ power; luma of BT.709;
/// out = clamp(luma + saturation * (out - luma)). Without clamps, as OpenColorIO and CLF have it ("FwdNoClamp"), a base
/// below 0 stays as it is.
std::array<double, 3> published(const io::Cdl& list, bool clamped, const std::array<double, 3>& in) {
    std::array<double, 3> made{};
    for (std::size_t c = 0; c < 3; ++c) {
        double base = in[c] * list.slope[c] + list.offset[c];
        if (clamped)
            base = std::min(1.0, std::max(0.0, base));
        made[c] = base < 0 ? base : std::pow(base, list.power[c]);
    }
    const double luma = 0.2126 * made[0] + 0.7152 * made[1] + 0.0722 * made[2];
    for (double& x : made) {
        x = luma + list.saturation * (x - luma);
        if (clamped)
            x = std::min(1.0, std::max(0.0, x));
    }
    return made;
}

/// 73 lists: the one that does nothing, each number by itself, and drawn ones, with few decimals as they are typed.
std::vector<io::Cdl> lists() {
    std::vector<io::Cdl> all(1);
    for (std::size_t c = 0; c < 3; ++c)
        for (int what = 0; what < 4; ++what) {
            io::Cdl list;
            (what == 0       ? list.slope
                 : what == 3 ? list.power
                             : list.offset)[c] = what == 0 ? 1.3
                : what == 1                                ? 0.08
                : what == 2                                ? -0.12
                                                           : 0.7;
            all.push_back(list);
        }
    std::mt19937 random(8);
    const auto between = [&](double low, double high) {
        return std::round(1000 * (low + (high - low) * static_cast<double>(random()) / 4294967296.0)) / 1000;
    };
    while (all.size() < 73) {
        io::Cdl list;
        for (std::size_t c = 0; c < 3; ++c) {
            list.slope[c] = between(0.6, 1.5);
            list.offset[c] = between(-0.1, 0.15);
            list.power[c] = between(0.6, 1.8);
        }
        list.saturation = all.size() % 3 == 0 ? 1 : between(0.4, 1.6);
        all.push_back(list);
    }
    return all;
}

std::string as_clf(const io::Cdl& list, bool clamped) {
    const auto three = [](const std::array<double, 3>& x) { return fmt::format("{} {} {}", x[0], x[1], x[2]); };
    return fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<ProcessList compCLFversion=\"3\" id=\"t\">\n<ASC_CDL "
        "inBitDepth=\"32f\" outBitDepth=\"32f\" style=\"{}\">\n<SOPNode><Slope>{}</Slope><Offset>{}</"
        "Offset><Power>{}</Power></SOPNode>\n<SatNode><Saturation>{}</Saturation></SatNode>\n</"
        "ASC_CDL>\n</ProcessList>\n",
        clamped ? "Fwd" : "FwdNoClamp", three(list.slope), three(list.offset), three(list.power), list.saturation);
}

} // namespace

TEST_CASE("146 lists and forms: as a filter and inside a CLF, all are the published formulas", "[handover][cdl]") {
    int cases = 0;
    for (const io::Cdl& list : lists())
        for (const bool clamped : {false, true}) {
            INFO("slope " << list.slope[0] << " offset " << list.offset[0] << " power " << list.power[0]
                          << " saturation " << list.saturation << (clamped ? " clamped" : ""));
            ++cases;
            const lang::Rule rule = good_rule(handover::filter_of(list, "t", "rec709-linear", clamped));
            const auto in_clf = io::read_lut(as_clf(list, clamped), ".clf", "t.clf");
            REQUIRE(in_clf);
            std::mt19937 random(4);
            for (int i = 0; i < 60; ++i) {
                std::array<double, 3> in{};
                for (double& x : in)
                    x = -0.25 + 1.5 * static_cast<double>(random()) / 4294967296.0;
                const auto wanted = published(list, clamped, in);
                const Colour made =
                    run(rule, {{static_cast<float>(in[0]), static_cast<float>(in[1]), static_cast<float>(in[2]), 1}})
                        .front();
                const auto by_clf = ir::applied(*in_clf.value(), in.data());
                for (std::size_t c = 0; c < 3; ++c) {
                    REQUIRE(std::fabs(static_cast<double>(made[c]) - wanted[c]) < 3e-6);
                    REQUIRE(std::fabs(by_clf[c] - wanted[c]) < 2e-5); // OpenColorIO's own powers
                }
            }
        }
    CHECK(cases == 146);
}

TEST_CASE("every list that comes in goes out as it came, in the form it has", "[handover][cdl]") {
    for (const io::Cdl& list : lists())
        for (const bool clamped : {false, true}) {
            INFO("slope " << list.slope[0] << " " << list.slope[1] << " " << list.slope[2] << " offset "
                          << list.offset[0] << " " << list.offset[1] << " " << list.offset[2] << " power "
                          << list.power[0] << " " << list.power[1] << " " << list.power[2] << " saturation "
                          << list.saturation << (clamped ? " clamped" : ""));
            const lang::Rule rule = good_rule(handover::filter_of(list, "t", "acescct", clamped));
            const auto found = handover::cdl_of(subject::Subject(rule, defaults(rule)));
            REQUIRE(found);
            CHECK(found->exact);
            CHECK(found->form == (clamped ? CdlForm::clamped : CdlForm::open));
            CHECK(found->cdl.slope == list.slope);
            CHECK(found->cdl.offset == list.offset);
            CHECK(found->cdl.power == list.power);
            CHECK(found->cdl.saturation == list.saturation);
        }
}

TEST_CASE("the demo's lift and pull is a list at all of its presets", "[handover][cdl]") {
    const lang::Rule rule =
        good_rule(content_of(std::filesystem::path(KASURI_SOURCE_DIR) / "data/filters/lift-and-pull.kasuri"));
    REQUIRE_FALSE(rule.presets.empty());
    for (const lang::Preset& preset : rule.presets) {
        INFO(preset.name);
        const auto found = handover::cdl_of(subject::Subject(rule, preset.values));
        REQUIRE(found);
        CHECK(found->exact);
    }
}
