#pragma once
#include "colour/matrix3.hpp"

#include <array>
#include <span>
#include <string_view>

namespace kasuri::colour {

/// One kind of colour vision that lacks, or has shifted, one of the three cones.
struct Deficiency {
    std::string_view name; ///< protan
    std::string_view doc;
    /// Linear light of BT.709 to what it is seen as, for severities 0, 0.1 ... 1. Source: Machado, Oliveira and
    /// Fernandes 2009, IEEE TVCG 15(6), 1291, table 1 (numbers from memory; rows that do not sum to 1 would show a
    /// slip).
    std::array<Matrix3, 11> by_severity;
};

/// All three.
std::span<const Deficiency> deficiencies();
/// Between two rows of its table by straight lines, as the paper has it; a severity out of 0 to 1 is the nearer end,
/// NaN makes NaN.
Matrix3 seen_by(const Deficiency& deficiency, double severity);

/// One kind of vision without one cone, as a projection in the space of the cones: onto one plane, or onto two that
/// meet in the greys.
struct Dichromat {
    std::string_view name;
    std::string_view doc;
    std::string_view source;
    Matrix3 seen; ///< linear light of BT.709 to what it is seen as
    /// The same on the other side of the greys, where the sum of `side` times light is below 0; the sides agree where
    /// it is 0. With one plane `side` is 0.
    Matrix3 beyond;
    Triple side;
};
/// Those of Viénot, Brettel and Mollon 1999 (Color Research and Application 24(4), 243), one plane through black, white
/// and blue, and of Brettel, Viénot and Mollon 1997 (J. Opt. Soc. Am. A 14(10), 2647), two half-planes through the
/// greys and the lights of two wavelengths that are seen alike.
std::span<const Dichromat> dichromats();
/// What a dichromat sees in linear light of BT.709.
Triple seen_by(const Dichromat& dichromat, const Triple& light);

} // namespace kasuri::colour
