#pragma once
// Little CMS, and what more than one of those who use it need.
#include "colour/primaries.hpp"

#include <array>
#include <lcms2.h>
#include <memory>
#include <string>

namespace kasuri::io {

struct CloseProfile {
    void operator()(void* profile) const { cmsCloseProfile(profile); }
};
using ProfileHandle = std::unique_ptr<void, CloseProfile>;

/// Its messages are of no use to a user of ours.
inline void be_silent() {
    static const bool once = [] {
        cmsSetLogErrorHandler([](cmsContext, cmsUInt32Number, const char*) {});
        return true;
    }();
    (void)once;
}

/// What a profile says that it is of.
inline std::string description(cmsHPROFILE profile) {
    std::array<char, 200> text{};
    cmsGetProfileInfoASCII(profile, cmsInfoDescription, "en", "US", text.data(),
                           static_cast<cmsUInt32Number>(text.size()));
    std::string name(text.data());
    return name.empty() ? "without a name" : name;
}

/// White of the connection space: D50 as ICC.1 rounds it.
inline colour::Chromaticity connection_white() {
    const cmsCIEXYZ& w = *cmsD50_XYZ();
    return {w.X / (w.X + w.Y + w.Z), w.Y / (w.X + w.Y + w.Z)};
}

} // namespace kasuri::io
