#include "colour/models/models.hpp"
#include "colour/polar.hpp"

namespace kasuri::colour {

const Model oklch_model =
    polar_model<oklab_model>("oklch", "Lightness, chroma and hue angle of OKLab. A neutral has chroma 0 and hue 0.",
                             "B. Ottosson, 2020; CSS Color 4, section 9",
                             {{{"l", "lightness, 0 black, 1 diffuse white", 0, 1, false},
                               {"c", "chroma, 0 neutral, to about 0.4", 0, 0.4, false},
                               {"h", "hue angle in degrees, 0 for neutrals", 0, 360, true}}});

} // namespace kasuri::colour
