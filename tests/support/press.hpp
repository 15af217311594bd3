#pragma once
// A press of the demo's world, as an ICC profile made by Little CMS: three inks and black that take their light away
// one after the other, on a yellowish paper. What it prints is known by a formula.
#include "support/support.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <lcms2.h>

namespace kasuri::test {

struct InkPress {
    static constexpr double strength = 0.9; ///< of the light of its primary that a full ink takes away
    static constexpr std::array<double, 3> paper = {0.92, 0.88, 0.78}; ///< X, Y, Z over those of D50

    /// Linear r, g, b of BT.709 (relative to the paper) that are left by inks of 0 to 1.
    static std::array<double, 3> left_by(const std::array<double, 4>& inks) {
        std::array<double, 3> rgb{};
        for (std::size_t i = 0; i < 3; ++i)
            rgb[i] = (1 - strength * inks[i]) * (1 - strength * inks[3]);
        return rgb;
    }
    /// Inks for such light; black takes nothing on, so that the formula can be turned.
    static std::array<double, 4> inks_for(const std::array<double, 3>& rgb) {
        std::array<double, 4> inks{};
        for (std::size_t i = 0; i < 3; ++i)
            inks[i] = std::clamp((1 - rgb[i]) / strength, 0.0, 1.0);
        return inks;
    }
};

/// BT.709 light under D50, as a profile of it has it (Bradford; IEC 61966-2-1 profiles): to XYZ, and back.
inline cmsHPROFILE light_profile() {
    cmsCIExyY d65{0.3127, 0.3290, 1};
    cmsCIExyYTRIPLE primaries{{0.64, 0.33, 1}, {0.30, 0.60, 1}, {0.15, 0.06, 1}};
    cmsToneCurve* const line = cmsBuildGamma(nullptr, 1);
    cmsToneCurve* curves[3] = {line, line, line};
    cmsHPROFILE made = cmsCreateRGBProfile(&d65, &primaries, curves);
    cmsFreeToneCurve(line);
    return made;
}

inline void write_press(const std::filesystem::path& path) {
    struct Ways {
        cmsHTRANSFORM to_lab, from_lab;
    } ways{};
    cmsHPROFILE light = light_profile(), lab = cmsCreateLab4Profile(nullptr);
    ways.to_lab = cmsCreateTransform(light, TYPE_RGB_DBL, lab, TYPE_Lab_DBL, INTENT_RELATIVE_COLORIMETRIC,
                                     cmsFLAGS_NOOPTIMIZE | cmsFLAGS_NOCACHE);
    ways.from_lab = cmsCreateTransform(lab, TYPE_Lab_DBL, light, TYPE_RGB_DBL, INTENT_RELATIVE_COLORIMETRIC,
                                       cmsFLAGS_NOOPTIMIZE | cmsFLAGS_NOCACHE);
    const auto there = [](const cmsUInt16Number in[], cmsUInt16Number out[], void* with) -> cmsInt32Number {
        std::array<double, 4> inks{};
        for (std::size_t i = 0; i < 4; ++i)
            inks[i] = in[i] / 65535.0;
        const auto rgb = InkPress::left_by(inks);
        cmsCIELab made;
        cmsDoTransform(static_cast<Ways*>(with)->to_lab, rgb.data(), &made, 1);
        cmsFloat2LabEncoded(out, &made);
        return 1;
    };
    const auto back = [](const cmsUInt16Number in[], cmsUInt16Number out[], void* with) -> cmsInt32Number {
        cmsCIELab asked;
        cmsLabEncoded2Float(&asked, in);
        std::array<double, 3> rgb{};
        cmsDoTransform(static_cast<Ways*>(with)->from_lab, &asked, rgb.data(), 1);
        const auto inks = InkPress::inks_for(rgb);
        for (std::size_t i = 0; i < 4; ++i)
            out[i] = static_cast<cmsUInt16Number>(std::lround(65535 * inks[i]));
        return 1;
    };
    cmsHPROFILE press = cmsCreateProfilePlaceholder(nullptr);
    cmsSetProfileVersion(press, 4.3);
    cmsSetDeviceClass(press, cmsSigOutputClass);
    cmsSetColorSpace(press, cmsSigCmykData);
    cmsSetPCS(press, cmsSigLabData);
    cmsMLU* text = cmsMLUalloc(nullptr, 1);
    cmsMLUsetASCII(text, "en", "US", "The press at the ford");
    cmsWriteTag(press, cmsSigProfileDescriptionTag, text);
    cmsWriteTag(press, cmsSigCopyrightTag, text);
    cmsMLUfree(text);
    const cmsCIEXYZ& d50 = *cmsD50_XYZ();
    const cmsCIEXYZ paper{d50.X * InkPress::paper[0], d50.Y * InkPress::paper[1], d50.Z * InkPress::paper[2]};
    cmsWriteTag(press, cmsSigMediaWhitePointTag, &paper);
    const auto put = [&](cmsUInt32Number in, cmsUInt32Number out, cmsUInt32Number points, cmsSAMPLER16 sampler,
                         std::initializer_list<cmsTagSignature> tags) {
        cmsPipeline* table = cmsPipelineAlloc(nullptr, in, out);
        cmsStage* stage = cmsStageAllocCLut16bit(nullptr, points, in, out, nullptr);
        cmsStageSampleCLut16bit(stage, sampler, &ways, 0);
        cmsPipelineInsertStage(table, cmsAT_END, cmsStageAllocToneCurves(nullptr, in, nullptr)); // as the type wants it
        cmsPipelineInsertStage(table, cmsAT_END, stage);
        cmsPipelineInsertStage(table, cmsAT_END, cmsStageAllocToneCurves(nullptr, out, nullptr));
        for (const cmsTagSignature tag : tags)
            cmsWriteTag(press, tag, table);
        cmsPipelineFree(table);
    };
    put(4, 3, 17, there, {cmsSigAToB0Tag, cmsSigAToB1Tag});
    put(3, 4, 49, back, {cmsSigBToA0Tag, cmsSigBToA1Tag});
    REQUIRE(cmsSaveProfileToFile(press, path.string().c_str()));
    cmsCloseProfile(press);
    cmsDeleteTransform(ways.to_lab);
    cmsDeleteTransform(ways.from_lab);
    cmsCloseProfile(light);
    cmsCloseProfile(lab);
}

} // namespace kasuri::test
