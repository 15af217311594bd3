#include "io/profile.hpp"

#include "base/said.hpp"
#include "colour/adaptation.hpp"
#include "io/lcms.hpp"

#include <array>
#include <cmath>
#include <memory>

namespace kasuri::io {
namespace {

using colour::Matrix3;
using colour::Triple;
using colour::operator*;
using colour::times;

/// How far a profile may be from a space and still be it: profiles keep 16 bits, and some round their curves.
constexpr double same_colorant = 3e-3, same_curve = 3e-3;

using Handle = ProfileHandle;

struct CloseTransform {
    void operator()(void* transform) const { cmsDeleteTransform(transform); }
};

/// XYZ of the connection space to linear BT.709 light.
Matrix3 to_light() {
    return times(from_xyz(*colour::find_space(colour::default_space)),
                 adaptation(colour::bradford, connection_white(), colour::d65));
}

struct Shaper {
    Matrix3 matrix{};                      ///< linear r, g, b to XYZ of the connection space
    std::array<cmsToneCurve*, 3> curves{}; ///< owned by the profile
};

std::optional<Shaper> shaper_of(cmsHPROFILE profile) {
    if (!cmsIsMatrixShaper(profile))
        return std::nullopt;
    constexpr cmsTagSignature colorants[] = {cmsSigRedColorantTag, cmsSigGreenColorantTag, cmsSigBlueColorantTag};
    constexpr cmsTagSignature curves[] = {cmsSigRedTRCTag, cmsSigGreenTRCTag, cmsSigBlueTRCTag};
    Shaper made;
    for (std::size_t i = 0; i < 3; ++i) {
        const auto* xyz = static_cast<const cmsCIEXYZ*>(cmsReadTag(profile, colorants[i]));
        made.curves[i] = static_cast<cmsToneCurve*>(cmsReadTag(profile, curves[i]));
        if (!xyz || !made.curves[i])
            return std::nullopt;
        made.matrix[0][i] = xyz->X;
        made.matrix[1][i] = xyz->Y;
        made.matrix[2][i] = xyz->Z;
    }
    return made;
}

double evaluated(const cmsToneCurve* curve, double x) {
    return static_cast<double>(cmsEvalToneCurveFloat(curve, static_cast<float>(x)));
}

/// The largest deviation of the profile from a space, as a share of what is allowed.
double colorants_apart(const Shaper& shaper, const colour::Space& space) {
    double most = 0;
    const Matrix3 wanted = times(adaptation(colour::bradford, space.white, connection_white()), to_xyz(space));
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t k = 0; k < 3; ++k)
            most = std::max(most, std::fabs(wanted[i][k] - shaper.matrix[i][k]) / same_colorant);
    return most;
}
double apart(const Shaper& shaper, const colour::Space& space) {
    double most = colorants_apart(shaper, space);
    for (const cmsToneCurve* curve : shaper.curves)
        for (int step = 0; step <= 32; ++step)
            most = std::max(
                most, std::fabs(evaluated(curve, step / 32.0) - transfer_of(space).decode(step / 32.0)) / same_curve);
    return most;
}

} // namespace

std::optional<Profile> read_profile(std::span<const std::uint8_t> bytes, std::string& reason) {
    be_silent();
    std::shared_ptr<void> profile(cmsOpenProfileFromMem(bytes.data(), static_cast<cmsUInt32Number>(bytes.size())),
                                  [](void* p) {
                                      if (p)
                                          cmsCloseProfile(p);
                                  });
    if (!profile) {
        reason = "its colour profile cannot be read";
        return std::nullopt;
    }
    Profile made;
    made.name = description(profile.get());
    if (cmsGetColorSpace(profile.get()) != cmsSigRgbData) {
        reason = "its colour profile \"" + made.name + "\" is not of red, green and blue";
        return std::nullopt;
    }
    if (const std::optional<Shaper> shaper = shaper_of(profile.get())) {
        // A profile with the name of a space, and its colorants: ours, whose table cannot hold what is above 1.
        if (const colour::Space* named = colour::find_space(made.name); named && colorants_apart(*shaper, *named) < 1) {
            made.space = named->name;
            return made;
        }
        double least = 1;
        for (const colour::Space& space : colour::spaces())
            if (const double off = apart(*shaper, space); off < least) {
                least = off;
                made.space = space.name;
            }
        made.to_light = [profile, shaper = *shaper, across = times(to_light(), shaper->matrix)](const Triple& rgb) {
            return across *
                Triple{evaluated(shaper.curves[0], rgb[0]), evaluated(shaper.curves[1], rgb[1]),
                       evaluated(shaper.curves[2], rgb[2])};
        };
        return made;
    }
    const Handle xyz(cmsCreateXYZProfile());
    std::shared_ptr<void> transform(cmsCreateTransform(profile.get(), TYPE_RGB_DBL, xyz.get(), TYPE_XYZ_DBL,
                                                       INTENT_RELATIVE_COLORIMETRIC,
                                                       cmsFLAGS_NOOPTIMIZE | cmsFLAGS_NOCACHE),
                                    [](void* t) {
                                        if (t)
                                            cmsDeleteTransform(t);
                                    });
    if (!transform) {
        reason = said("its colour profile \"{}\" has no way from r, g, b to light", made.name);
        return std::nullopt;
    }
    made.note =
        said("its colour profile \"{}\" is a table, not a matrix and curves: the pixels were taken through it to "
             "linear light once, within 0..1, relative colorimetric",
             made.name);
    made.to_light = [transform, across = to_light()](const Triple& rgb) {
        Triple seen{};
        cmsDoTransform(transform.get(), rgb.data(), seen.data(), 1);
        return across * seen;
    };
    return made;
}

std::vector<std::uint8_t> made_profile(const colour::Space& space) {
    be_silent();
    // A table of so many steps is what a 16-bit file can tell apart.
    constexpr std::size_t steps = 4096;
    std::vector<float> table(steps);
    for (std::size_t i = 0; i < steps; ++i)
        table[i] = static_cast<float>(transfer_of(space).decode(static_cast<double>(i) / (steps - 1)));
    const std::unique_ptr<cmsToneCurve, decltype(&cmsFreeToneCurve)> curve(
        space.transfer == "linear" ? cmsBuildGamma(nullptr, 1)
                                   : cmsBuildTabulatedToneCurveFloat(nullptr, steps, table.data()),
        &cmsFreeToneCurve);
    const cmsCIExyY white{space.white.x, space.white.y, 1};
    const auto& p = space.primaries;
    const cmsCIExyYTRIPLE primaries{{p[0].x, p[0].y, 1}, {p[1].x, p[1].y, 1}, {p[2].x, p[2].y, 1}};
    cmsToneCurve* curves[3] = {curve.get(), curve.get(), curve.get()};
    const Handle profile(cmsCreateRGBProfile(&white, &primaries, curves));
    if (!profile)
        return {};
    const std::unique_ptr<cmsMLU, decltype(&cmsMLUfree)> name(cmsMLUalloc(nullptr, 1), &cmsMLUfree);
    cmsMLUsetASCII(name.get(), "en", "US", std::string(space.name).c_str());
    cmsWriteTag(profile.get(), cmsSigProfileDescriptionTag, name.get());
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(profile.get(), nullptr, &size);
    std::vector<std::uint8_t> bytes(size);
    if (size == 0 || !cmsSaveProfileToMem(profile.get(), bytes.data(), &size))
        return {};
    return bytes;
}

} // namespace kasuri::io
