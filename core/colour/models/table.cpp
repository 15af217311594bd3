#include "colour/models/models.hpp"

namespace kasuri::colour {

namespace {
const Model* const table[] = {
    &hsv_model,      &hsl_model,      &hwb_model,       &hsi_model,   &hsi_hexcone_model,
    &ycbcr601_model, &ycbcr709_model, &ycbcr2020_model, &ycocg_model, &xyz_model,
    &xyz65_model,    &xyz50_model,    &xyy_model,       &lab_model,   &lab50_model,
    &lch_model,      &lch50_model,    &luv_model,       &luv50_model, &lchuv_model,
    &lchuv50_model,  &oklab_model,    &oklch_model,     &ictcp_model, &ictcp_hlg_model,
};
} // namespace

std::span<const Model* const> models() { return table; }

} // namespace kasuri::colour
