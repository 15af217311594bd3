#include "colour/adaptation.hpp"

namespace kasuri::colour {
namespace {

constexpr Adaptation table[] = {
    {"bradford",
     "Linear Bradford transform, the usual one.",
     "K. M. Lam, 1985; ICC.1:2022, Annex E",
     {{{0.8951, 0.2664, -0.1614}, {-0.7502, 1.7135, 0.0367}, {0.0389, -0.0685, 1.0296}}}},
    {"cat02",
     "The transform of CIECAM02, for complete adaptation.",
     "CIE 159:2004",
     {{{0.7328, 0.4296, -0.1624}, {-0.7036, 1.6975, 0.0061}, {0.0030, 0.0136, 0.9834}}}},
    {"von_kries",
     "Von Kries's rule on the cones of Hunt, Pointer and Estevez, normalised to D65.",
     "R. W. G. Hunt, Measuring Colour, 3rd edition, 1998 (from memory)",
     {{{0.40024, 0.70760, -0.08081}, {-0.22630, 1.16532, 0.04570}, {0, 0, 0.91822}}}},
    {"scaling",
     "X, Y and Z scaled by themselves; simple, and the least like seeing.",
     "CIE 15:2018, as L*a*b* does it",
     {{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}}},
};

Triple xyz_of(Chromaticity c) { return {c.x / c.y, 1, (1 - c.x - c.y) / c.y}; }

} // namespace

std::span<const Adaptation> adaptations() { return table; }
const Adaptation& bradford = table[0];

Matrix3 adaptation(const Adaptation& method, Chromaticity from, Chromaticity to) {
    const Triple before = method.cones * xyz_of(from), after = method.cones * xyz_of(to);
    Matrix3 scaled = method.cones;
    for (std::size_t i = 0; i < 3; ++i)
        for (double& weight : scaled[i])
            weight *= after[i] / before[i];
    return times(inverse(method.cones), scaled);
}

} // namespace kasuri::colour
