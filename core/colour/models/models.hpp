#pragma once
#include "colour/model.hpp"

namespace kasuri::colour {

// One file beside this one for each line; models() lists them all.

extern const Model hsv_model, hsl_model, hwb_model, hsi_model, hsi_hexcone_model;
extern const Model ycbcr601_model, ycbcr709_model, ycbcr2020_model, ycocg_model;
extern const Model xyz_model, xyz65_model, xyz50_model, xyy_model;
extern const Model lab_model, lab50_model, lch_model, lch50_model;
extern const Model luv_model, luv50_model, lchuv_model, lchuv50_model;
extern const Model oklab_model, oklch_model, ictcp_model, ictcp_hlg_model;

} // namespace kasuri::colour
