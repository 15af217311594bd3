// CIE 15:2018, 8.2.1.3: chroma and hue angle of L*a*b*.
#include "colour/models/models.hpp"
#include "colour/polar.hpp"

namespace kasuri::colour {
namespace {

constexpr std::string_view source = "CIE 15:2018, 8.2.1.3";
constexpr std::array<Component, 3> components = {{{"l", "lightness L*, 0 black, 100 diffuse white", 0, 100, false},
                                                  {"c", "chroma, 0 neutral, to about 130", 0, 130, false},
                                                  {"h", "hue angle in degrees, 0 for neutrals", 0, 360, true}}};

} // namespace

const Model lch_model = polar_model<lab_model>(
    "lch", "Lightness, chroma and hue angle of L*a*b* relative to D65. A neutral has chroma 0 and hue 0.", source,
    components);
const Model lch50_model = polar_model<lab50_model>(
    "lch50", "Lightness, chroma and hue angle of L*a*b* relative to D50. A neutral has chroma 0 and hue 0.", source,
    components);

} // namespace kasuri::colour
