#include "colour/frame.hpp"

#include "colour/adaptation.hpp"
#include "colour/primaries.hpp"

namespace kasuri::colour {
namespace {

Matrix3 identity() { return {{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}}; }

Matrix3 relative(Chromaticity white) {
    return {{{white.y / white.x, 0, 0}, {0, 1, 0}, {0, 0, white.y / (1 - white.x - white.y)}}};
}
Matrix3 relative_d65() { return relative(d65); }
Matrix3 relative_d50() { return relative(d50); }

/// B. Ottosson, "A perceptual color space for image processing", 2020, with the digits of CSS Color 4, which were
/// worked out again for the white 0.3127, 0.3290 (its section 17, sample code).
Matrix3 ok_cones() {
    return {{{0.8190224379967030, 0.3619062600528904, -0.1288737815209879},
             {0.0329836539323885, 0.9292868615863434, 0.0361446663506424},
             {0.0481771893596242, 0.2642395317527308, 0.6335478284694309}}};
}

/// ITU-R BT.2100-2, Table 7: cones of linear BT.2020, of which diffuse white has so much.
Matrix3 cones_2100(double white) {
    constexpr Matrix3 cones = {{{1688.0 / 4096, 2146.0 / 4096, 262.0 / 4096},
                                {683.0 / 4096, 2951.0 / 4096, 462.0 / 4096},
                                {99.0 / 4096, 309.0 / 4096, 3688.0 / 4096}}};
    Matrix3 made = times(cones, inverse(rgb_to_xyz(rec2020_primaries, d65)));
    for (Triple& row : made)
        for (double& weight : row)
            weight *= white;
    return made;
}
Matrix3 pq_cones() { return cones_2100(diffuse_white / 10'000); }
Matrix3 hlg_cones() { return cones_2100(hlg_diffuse_white); }

} // namespace

const Frame xyz_own_frame = {"xyz", "CIE XYZ under the working space's own white, which has Y = 1", nullptr, identity};
const Frame xyz_d65_frame = {"xyz65", "CIE XYZ, adapted to D65", &d65, identity};
const Frame xyz_d50_frame = {"xyz50", "CIE XYZ, adapted to D50", &d50, identity};
const Frame relative_d65_frame = {"relative65", "XYZ over that of white, adapted to D65", &d65, relative_d65};
const Frame relative_d50_frame = {"relative50", "XYZ over that of white, adapted to D50", &d50, relative_d50};
const Frame ok_cones_frame = {"ok", "cones of OKLab, adapted to D65", &d65, ok_cones};
const Frame pq_cones_frame = {"pq", "cones of BT.2100, adapted to D65, 1 is 10 000 cd/m2", &d65, pq_cones};
const Frame hlg_cones_frame = {"hlg", "cones of BT.2100, adapted to D65, 1 is the peak of the scene", &d65, hlg_cones};

Matrix3 linear_to(const Frame& frame, const Space& space) {
    Matrix3 made = to_xyz(space);
    for (Triple& row : made)
        for (double& weight : row)
            weight /= space.white_level;
    if (frame.white && (frame.white->x != space.white.x || frame.white->y != space.white.y))
        made = times(adaptation(bradford, space.white, *frame.white), made);
    return times(frame.of_xyz(), made);
}

} // namespace kasuri::colour
