#pragma once
#include "colour/space.hpp"

namespace kasuri::colour {

/// Light in one fixed way of seeing it, whatever space it comes from: what most colour models are computed from.
/// Diffuse white of every space has the same three numbers in a frame that adapts, and its neutrals are multiples of
/// them.
struct Frame {
    std::string_view name;
    std::string_view doc;
    const Chromaticity* white; ///< adapted to by the Bradford transform; null: the space's own, nothing is adapted
    Matrix3 (*of_xyz)();       ///< XYZ under that white, Y = 1 for diffuse white, to the frame's numbers
};

extern const Frame xyz_own_frame, xyz_d65_frame, xyz_d50_frame;
extern const Frame relative_d65_frame, relative_d50_frame; ///< X, Y, Z each divided by that of white
extern const Frame ok_cones_frame;                         ///< L, M, S of OKLab
extern const Frame pq_cones_frame;                         ///< L, M, S of BT.2100, where 1 is 10 000 cd/m2
extern const Frame hlg_cones_frame;                        ///< the same, where 1 is the peak of the scene

/// Linear light of the space (what its transfer function decodes to) to the numbers of the frame; at double precision.
Matrix3 linear_to(const Frame& frame, const Space& space);

} // namespace kasuri::colour
