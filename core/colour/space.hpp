#pragma once
#include "colour/matrix3.hpp"
#include "colour/transfer.hpp"
#include "colour/triple.hpp"

#include <span>
#include <string_view>

namespace kasuri::colour {

/// What r, g and b mean: one row, a transfer function over primaries and white.
struct Space {
    std::string_view name;
    std::string_view doc;
    std::string_view source;   ///< of primaries and white
    std::string_view transfer; ///< a name of transfers()
    const std::array<Chromaticity, 3>& primaries;
    const Chromaticity& white;
};

std::span<const Space> spaces();
const Space* find_space(std::string_view name);
const Transfer& transfer_of(const Space& space);

/// Linear r, g, b of the space to CIE XYZ, Y = 1 for its white, and back: SMPTE RP 177 at double precision.
Matrix3 to_xyz(const Space& space);
Matrix3 from_xyz(const Space& space);

/// Whether both spaces have the same primaries and white, so that only their curves differ.
bool same_primaries(const Space& a, const Space& b);

/// Linear light of one space to linear light of the other; a different white is adapted to by the Bradford transform.
Matrix3 linear_between(const Space& from, const Space& to);

/// A colour of one space in the other: decoded, `linear_between`, encoded. The double-precision truth.
Triple converted(const Triple& colour, const Space& from, const Space& to);

/// XYZ under one white as XYZ under another that looks the same (K. M. Lam's linear Bradford transform, 1985, as in
/// ICC.1:2022, Annex E).
Matrix3 bradford(Chromaticity from, Chromaticity to);

/// The space in which pictures are held and in which a rule works that does not say otherwise.
inline constexpr std::string_view default_space = "rec709-linear";

/// Weights of linear r, g, b in luminance Y for BT.709 primaries and D65 (ITU-R BT.709-6, item 3.2, the
/// rounded factors of the standard).
inline constexpr Triple rec709_luminance_weights = {0.2126, 0.7152, 0.0722};

/// Weights of the space's linear r, g, b in luminance: those of the standard for BT.709's primaries, else derived.
Triple luminance_weights(const Space& space);

/// Luminance of linear BT.709 light.
double luminance(const Triple& linear);

/// CIE 1976 L*, a*, b* (CIE 15:2018, 8.2.1) of linear BT.709 light, relative to its own white D65.
Triple lab_d65(const Triple& linear);

} // namespace kasuri::colour
