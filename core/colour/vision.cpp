#include "colour/vision.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::colour {
namespace {

constexpr Matrix3 unchanged = {{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}};

constexpr Deficiency table[] = {
    {"protan",
     "The L cones (long waves) are shifted, or missing at 1.",
     {{unchanged,
       {{{0.856167, 0.182038, -0.038205}, {0.029342, 0.955115, 0.015544}, {-0.002880, -0.001563, 1.004443}}},
       {{{0.734766, 0.334872, -0.069637}, {0.051840, 0.919198, 0.028963}, {-0.004928, -0.004209, 1.009137}}},
       {{{0.630323, 0.465641, -0.095964}, {0.069181, 0.890046, 0.040773}, {-0.006308, -0.007724, 1.014032}}},
       {{{0.539009, 0.579343, -0.118352}, {0.082546, 0.866121, 0.051332}, {-0.007136, -0.011959, 1.019095}}},
       {{{0.458064, 0.679578, -0.137642}, {0.092785, 0.846313, 0.060902}, {-0.007494, -0.016807, 1.024301}}},
       {{{0.385450, 0.769005, -0.154455}, {0.100526, 0.829802, 0.069673}, {-0.007442, -0.022190, 1.029632}}},
       {{{0.319627, 0.849633, -0.169261}, {0.106241, 0.815969, 0.077790}, {-0.007025, -0.028051, 1.035076}}},
       {{{0.259411, 0.923008, -0.182420}, {0.110296, 0.804340, 0.085364}, {-0.006276, -0.034346, 1.040622}}},
       {{{0.203876, 0.990338, -0.194214}, {0.112975, 0.794542, 0.092483}, {-0.005222, -0.041043, 1.046265}}},
       {{{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}}}}}},
    {"deutan",
     "The M cones (middle waves) are shifted, or missing at 1.",
     {{unchanged,
       {{{0.866435, 0.177704, -0.044139}, {0.049567, 0.939063, 0.011370}, {-0.003453, 0.007233, 0.996220}}},
       {{{0.760729, 0.319078, -0.079807}, {0.090568, 0.889315, 0.020117}, {-0.006027, 0.013325, 0.992702}}},
       {{{0.675425, 0.433850, -0.109275}, {0.125303, 0.847755, 0.026942}, {-0.007950, 0.018572, 0.989378}}},
       {{{0.605511, 0.528560, -0.134071}, {0.155318, 0.812366, 0.032316}, {-0.009376, 0.023176, 0.986200}}},
       {{{0.547494, 0.607765, -0.155259}, {0.181692, 0.781742, 0.036566}, {-0.010410, 0.027275, 0.983136}}},
       {{{0.498864, 0.674741, -0.173604}, {0.205199, 0.754872, 0.039929}, {-0.011131, 0.030969, 0.980162}}},
       {{{0.457771, 0.731899, -0.189670}, {0.226409, 0.731012, 0.042579}, {-0.011595, 0.034333, 0.977261}}},
       {{{0.422823, 0.781057, -0.203881}, {0.245752, 0.709602, 0.044646}, {-0.011843, 0.037423, 0.974421}}},
       {{{0.392952, 0.823610, -0.216562}, {0.263559, 0.690210, 0.046232}, {-0.011910, 0.040281, 0.971630}}},
       {{{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}}}}}},
    {"tritan",
     "The S cones (short waves) are shifted, or missing at 1.",
     {{unchanged,
       {{{0.926670, 0.092514, -0.019184}, {0.021191, 0.964503, 0.014306}, {0.008437, 0.054813, 0.936750}}},
       {{{0.895720, 0.133330, -0.029050}, {0.029997, 0.945400, 0.024603}, {0.013027, 0.104707, 0.882266}}},
       {{{0.905871, 0.127791, -0.033662}, {0.026856, 0.941251, 0.031893}, {0.013410, 0.148296, 0.838294}}},
       {{{0.948035, 0.089490, -0.037526}, {0.014364, 0.946792, 0.038844}, {0.010853, 0.193991, 0.795156}}},
       {{{1.017277, 0.027029, -0.044306}, {-0.006113, 0.958479, 0.047634}, {0.006379, 0.248708, 0.744913}}},
       {{{1.104996, -0.046633, -0.058363}, {-0.032137, 0.971635, 0.060503}, {0.001336, 0.317922, 0.680742}}},
       {{{1.193214, -0.109812, -0.083402}, {-0.058496, 0.979410, 0.079086}, {-0.002346, 0.403492, 0.598854}}},
       {{{1.257728, -0.139648, -0.118081}, {-0.078003, 0.975409, 0.102594}, {-0.003316, 0.501214, 0.502102}}},
       {{{1.278864, -0.125333, -0.153531}, {-0.084748, 0.957674, 0.127074}, {-0.000989, 0.601151, 0.399838}}},
       {{{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}}}}}},
};

/// Linear light of BT.709 to the cones, as the paper of 1999 has it (Smith and Pokorny 1975, for the phosphors of a
/// display; from memory).
constexpr Matrix3 cones = {{{17.8824, 43.5161, 4.11935}, {3.45565, 27.1554, 3.86714}, {0.0299566, 0.184309, 1.46709}}};

/// The missing cone's answer as what the two others say of it, so that white and blue stay.
Matrix3 without(std::size_t missing) {
    const std::size_t a = missing == 0 ? 1 : 0, b = 2;
    const Triple white = cones * Triple{1, 1, 1}, blue = cones * Triple{0, 0, 1};
    const double all = white[a] * blue[b] - white[b] * blue[a];
    Matrix3 projection = unchanged;
    projection[missing] = {};
    projection[missing][a] = (white[missing] * blue[b] - white[b] * blue[missing]) / all;
    projection[missing][b] = (white[a] * blue[missing] - white[missing] * blue[a]) / all;
    return times(inverse(cones), times(projection, cones));
}

/// Chromaticities of 1931 as J. J. Vos corrected them (Color Research and Application 3, 125, 1978; from memory), which
/// the cones of Smith and Pokorny stand on.
Chromaticity corrected(double x, double y) {
    const double by = 0.03845 * x + 0.01496 * y + 1;
    return {(1.0271 * x - 0.00008 * y - 0.00009) / by, (0.00376 * x + 1.0072 * y + 0.00764) / by};
}

/// Smith and Pokorny 1975, Vision Research 15, 161 (from memory): cones of corrected XYZ, in units of luminance.
constexpr Matrix3 smith_pokorny = {{{0.15514, 0.54312, -0.03286}, {-0.15514, 0.45684, 0.03286}, {0, 0, 0.00801}}};

/// Chromaticities of single wavelengths, CIE 15:2018, table T.4 (from memory).
struct Wavelength {
    double nm, x, y;
};
constexpr Wavelength nm475{475, 0.10959, 0.08684}, nm485{485, 0.06871, 0.20072}, nm575{575, 0.47877, 0.52020},
    nm660{660, 0.72997, 0.27003};

Triple crossed(const Triple& a, const Triple& b) {
    return {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
}

/// Onto the plane of white and `anchor`, along the axis of the missing cone.
Matrix3 onto(const Matrix3& of_light, std::size_t missing, const Triple& white, const Triple& anchor) {
    const Triple normal = crossed(white, anchor);
    Matrix3 projection = unchanged;
    for (std::size_t i = 0; i < 3; ++i)
        projection[missing][i] = i == missing ? 0 : -normal[i] / normal[missing];
    return times(inverse(of_light), times(projection, of_light));
}

/// `more` is seen alike where there is more of what S (for the tritanope: M) says than in white, `less` where less.
Dichromat by_halves(std::string_view name, std::string_view doc, std::size_t missing, const Wavelength& more,
                    const Wavelength& less) {
    // Those of `cones` but for the unit of S, which the paper of 1999 chose otherwise.
    const Chromaticity d65 = corrected(0.3127, 0.3290);
    const Matrix3 of_light =
        times(smith_pokorny, rgb_to_xyz({corrected(0.64, 0.33), corrected(0.30, 0.60), corrected(0.15, 0.06)}, d65));
    const Triple white = of_light * Triple{1, 1, 1};
    const auto anchor = [](const Wavelength& light) {
        const Chromaticity c = corrected(light.x, light.y);
        return smith_pokorny * Triple{c.x / c.y, 1, (1 - c.x - c.y) / c.y};
    };
    // Of the two cones that are left, the one of the longer waves first.
    const std::size_t longer = missing == 0 ? 1 : 0, shorter = missing == 2 ? 1 : 2;
    Triple side{};
    for (std::size_t i = 0; i < 3; ++i)
        side[i] = of_light[shorter][i] * white[longer] - of_light[longer][i] * white[shorter];
    return {
        name,
        doc,
        "Brettel, Vi\u00e9not and Mollon 1997, J. Opt. Soc. Am. A 14(10), 2647; greys instead of equal energy, as in "
        "the paper of 1999",
        onto(of_light, missing, white, anchor(more)),
        onto(of_light, missing, white, anchor(less)),
        side};
}

constexpr std::string_view source_1999 =
    "Vi\u00e9not, Brettel and Mollon 1999, Color Research and Application 24(4), 243; the published way to bring all "
    "results into range first is left out";

} // namespace

std::span<const Deficiency> deficiencies() { return table; }

Matrix3 seen_by(const Deficiency& deficiency, double severity) {
    if (std::isnan(severity)) {
        Matrix3 nothing;
        for (auto& row : nothing)
            row.fill(severity);
        return nothing;
    }
    const double place = std::clamp(severity, 0.0, 1.0) * 10;
    const auto below = static_cast<std::size_t>(std::min(9.0, std::floor(place)));
    const double share = place - static_cast<double>(below);
    Matrix3 made;
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t j = 0; j < 3; ++j)
            made[i][j] =
                deficiency.by_severity[below][i][j] * (1 - share) + deficiency.by_severity[below + 1][i][j] * share;
    return made;
}

std::span<const Dichromat> dichromats() {
    static const Dichromat all[] = {
        {"protanope",
         "Without L cones (long waves): black, white and blue stay.",
         source_1999,
         without(0),
         without(0),
         {}},
        {"deuteranope",
         "Without M cones (middle waves): black, white and blue stay.",
         source_1999,
         without(1),
         without(1),
         {}},
        by_halves("protanope_1997", "Without L cones (long waves): greys and the lights of 475 and 575 nm stay.", 0,
                  nm475, nm575),
        by_halves("deuteranope_1997", "Without M cones (middle waves): greys and the lights of 475 and 575 nm stay.", 1,
                  nm475, nm575),
        by_halves("tritanope", "Without S cones (short waves): greys and the lights of 485 and 660 nm stay.", 2, nm485,
                  nm660),
    };
    return all;
}

Triple seen_by(const Dichromat& dichromat, const Triple& light) {
    const double side = dichromat.side[0] * light[0] + dichromat.side[1] * light[1] + dichromat.side[2] * light[2];
    return (side < 0 ? dichromat.beyond : dichromat.seen) * light;
}

} // namespace kasuri::colour
