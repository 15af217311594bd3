// CIE 15:2018, 8.2.2.3: chroma and hue angle of L*u*v*.
#include "colour/models/models.hpp"
#include "colour/polar.hpp"

namespace kasuri::colour {
namespace {

constexpr std::string_view source = "CIE 15:2018, 8.2.2.3";
constexpr std::array<Component, 3> components = {{{"l", "lightness L*, 0 black, 100 diffuse white", 0, 100, false},
                                                  {"c", "chroma, 0 neutral, to about 180", 0, 180, false},
                                                  {"h", "hue angle in degrees, 0 for neutrals", 0, 360, true}}};

} // namespace

const Model lchuv_model = polar_model<luv_model>(
    "lchuv", "Lightness, chroma and hue angle of L*u*v* relative to D65. A neutral has chroma 0 and hue 0.", source,
    components);
const Model lchuv50_model = polar_model<luv50_model>(
    "lchuv50", "Lightness, chroma and hue angle of L*u*v* relative to D50. A neutral has chroma 0 and hue 0.", source,
    components);

} // namespace kasuri::colour
