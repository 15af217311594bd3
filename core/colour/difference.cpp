#include "colour/difference.hpp"

#include "colour/models/models.hpp"
#include "colour/nodes.hpp"

#include <cmath>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

NodeId square(Graph& g, NodeId x) { return g.mul(x, x); }
NodeId chroma(Graph& g, NodeId a, NodeId b) { return g.make(Op::sqrt, g.add(square(g, a), square(g, b))); }

double distance(const Triple& a, const Triple& b) { return std::hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]); }
NodeId lower_distance(Graph& g, const NodeTriple& a, const NodeTriple& b) {
    return g.make(
        Op::sqrt,
        g.add(g.add(square(g, g.sub(a[0], b[0])), square(g, g.sub(a[1], b[1]))), square(g, g.sub(a[2], b[2]))));
}

/// The factors of CIE 116-1995 for an application.
struct Factors94 {
    double lightness, chroma, hue;
};
constexpr Factors94 graphic_arts{1, 0.045, 0.015}, textiles{2, 0.048, 0.014};

template <const Factors94& k>
NodeId lower_cie94(Graph& g, const NodeTriple& a, const NodeTriple& b) {
    const NodeId c1 = chroma(g, a[1], a[2]), c2 = chroma(g, b[1], b[2]), dc = g.sub(c1, c2), zero = g.constant(0),
                 one = g.constant(1);
    const NodeId all = g.add(square(g, g.sub(a[1], b[1])), square(g, g.sub(a[2], b[2])));
    const NodeId dh2 = g.max(g.sub(all, square(g, dc)), zero);
    const NodeId sc = g.add(one, times(g, k.chroma, c1)), sh = g.add(one, times(g, k.hue, c1));
    return g.make(Op::sqrt,
                  g.add(g.add(square(g, times(g, 1 / k.lightness, g.sub(a[0], b[0]))), square(g, g.div(dc, sc))),
                        g.div(dh2, square(g, sh))));
}

constexpr double radian = std::numbers::pi / 180;

/// cos(degrees * times - shift)
NodeId cosine(Graph& g, NodeId degrees, double by, double shift) {
    return g.make(Op::cos, g.sub(times(g, by * radian, degrees), g.constant(shift * radian)));
}

NodeId seventh(Graph& g, NodeId x) {
    const NodeId cube = cubed(g, x);
    return g.mul(g.mul(cube, cube), x);
}
constexpr double most7 = 6103515625.0; // 25^7

/// sqrt(c^7 / (c^7 + 25^7)), of c / 25 so that nothing overflows
NodeId share7(Graph& g, NodeId c) {
    const NodeId power = seventh(g, times(g, 1.0 / 25, g.min(c, g.constant(10'000))));
    return g.make(Op::sqrt, g.div(power, g.add(power, g.constant(1))));
}

NodeId lower_ciede2000(Graph& g, const NodeTriple& one, const NodeTriple& two) {
    const NodeId zero = g.constant(0), unit = g.constant(1);
    const NodeId mean_c = times(g, 0.5, g.add(chroma(g, one[1], one[2]), chroma(g, two[1], two[2])));
    const NodeId stretch = g.add(unit, times(g, 0.5, g.sub(unit, share7(g, mean_c))));
    const NodeId a1 = g.mul(stretch, one[1]), a2 = g.mul(stretch, two[1]);
    const NodeId c1 = chroma(g, a1, one[2]), c2 = chroma(g, a2, two[2]), h1 = hue_of(g, a1, one[2]),
                 h2 = hue_of(g, a2, two[2]);
    const NodeId grey = g.equal(g.mul(c1, c2), zero);
    const NodeId dl = g.sub(two[0], one[0]), dc = g.sub(c2, c1);
    // 2 sqrt(c1 c2) sin((h2 - h1) / 2) with its sign, from products of the coordinates: no difference of angles is
    // taken.
    const NodeId dot = g.add(g.mul(a1, a2), g.mul(one[2], two[2])), cross = g.sub(g.mul(a1, two[2]), g.mul(a2, one[2]));
    const NodeId size = g.make(Op::sqrt, g.max(times(g, 2, g.sub(g.mul(c1, c2), dot)), zero));
    // Where the two nearly agree, that difference has no digits left: |cross| / sqrt((c1 c2 + dot) / 2) is the same.
    const NodeId near = g.div(g.make(Op::abs, cross), g.make(Op::sqrt, times(g, 0.5, g.add(g.mul(c1, c2), dot))));
    const NodeId dh_size = g.select(g.less(zero, dot), near, size);
    const NodeId dh = g.select(grey, zero, g.select(g.less(cross, zero), g.neg(dh_size), dh_size));
    const NodeId mean_l = times(g, 0.5, g.add(one[0], two[0])), mean_c2 = times(g, 0.5, g.add(c1, c2));
    // Whether the angles are at most 180 degrees apart: by the sign of the sine, where a millionth either way is
    // opposite, because floats cannot tell.
    const NodeId slack = times(g, 1e-6, g.mul(c1, c2));
    const NodeId together =
        g.select(g.less_equal(h1, h2), g.less_equal(g.neg(slack), cross), g.less_equal(cross, slack));
    const NodeId both = g.add(h1, h2);
    const NodeId middle = times(g, 0.5, both);
    const NodeId round =
        g.select(g.less(both, g.constant(360)), g.add(middle, g.constant(180)), g.sub(middle, g.constant(180)));
    const NodeId mean_h = g.select(grey, both, g.select(together, middle, round));
    const NodeId t =
        g.add(g.add(g.sub(unit, times(g, 0.17, cosine(g, mean_h, 1, 30))), times(g, 0.24, cosine(g, mean_h, 2, 0))),
              g.sub(times(g, 0.32, cosine(g, mean_h, 3, -6)), times(g, 0.20, cosine(g, mean_h, 4, 63))));
    const NodeId bell =
        g.make(Op::exp2, times(g, -std::numbers::log2e, square(g, times(g, 1.0 / 25, g.sub(mean_h, g.constant(275))))));
    const NodeId off = square(g, g.sub(mean_l, g.constant(50)));
    const NodeId sl = g.add(unit, g.div(times(g, 0.015, off), g.make(Op::sqrt, g.add(g.constant(20), off))));
    const NodeId sc = g.add(unit, times(g, 0.045, mean_c2)), sh = g.add(unit, times(g, 0.015, g.mul(mean_c2, t)));
    const NodeId turning = g.neg(g.mul(times(g, 2, share7(g, mean_c2)), g.make(Op::sin, times(g, 60 * radian, bell))));
    const NodeId l = g.div(dl, sl), c = g.div(dc, sc), h = g.div(dh, sh);
    const NodeId sum = g.add(g.add(square(g, l), square(g, c)), g.add(square(g, h), g.mul(turning, g.mul(c, h))));
    return g.make(Op::sqrt, g.max(sum, zero));
}

double itp(const Triple& a, const Triple& b) {
    return 720 * std::sqrt(std::pow(a[0] - b[0], 2) + 0.25 * std::pow(a[1] - b[1], 2) + std::pow(a[2] - b[2], 2));
}
NodeId lower_itp(Graph& g, const NodeTriple& a, const NodeTriple& b) {
    const NodeId sum = g.add(g.add(square(g, g.sub(a[0], b[0])), times(g, 0.25, square(g, g.sub(a[1], b[1])))),
                             square(g, g.sub(a[2], b[2])));
    return times(g, 720, g.make(Op::sqrt, sum));
}

const Difference table[] = {
    {"delta_e_76", "CIE 1976: the distance in L*a*b*.", "CIE 15:2018, 8.2.1.3", lab_model, cie76, lower_distance},
    {"delta_e_76", "CIE 1976: the distance in L*a*b*.", "CIE 15:2018, 8.2.1.3", lab50_model, cie76, lower_distance},
    {"delta_e_94", "CIE 1994 with the factors for graphic arts; the first colour is the standard.", "CIE 116-1995",
     lab_model, cie94, lower_cie94<graphic_arts>},
    {"delta_e_94", "CIE 1994 with the factors for graphic arts; the first colour is the standard.", "CIE 116-1995",
     lab50_model, cie94, lower_cie94<graphic_arts>},
    {"delta_e_94_textile",
     "CIE 1994 with the factors for textiles (kL = 2, K1 = 0.048, K2 = 0.014); the first colour is the standard.",
     "CIE 116-1995", lab_model, cie94_textile, lower_cie94<textiles>},
    {"delta_e_94_textile",
     "CIE 1994 with the factors for textiles (kL = 2, K1 = 0.048, K2 = 0.014); the first colour is the standard.",
     "CIE 116-1995", lab50_model, cie94_textile, lower_cie94<textiles>},
    {"delta_e_2000", "CIEDE2000 with factors of 1.",
     "G. Sharma, W. Wu, E. N. Dalal, Color Research and Application 30 (1), 2005", lab_model, ciede2000,
     lower_ciede2000},
    {"delta_e_2000", "CIEDE2000 with factors of 1.",
     "G. Sharma, W. Wu, E. N. Dalal, Color Research and Application 30 (1), 2005", lab50_model, ciede2000,
     lower_ciede2000},
    {"delta_e_ok", "The distance in OKLab; about 0.02 can just be seen.", "CSS Color 4, section 20.2", oklab_model,
     distance, lower_distance},
    {"delta_e_itp", "The difference of BT.2124 for bright pictures; about 1 can just be seen.",
     "ITU-R BT.2124-0, Annex 1", ictcp_model, itp, lower_itp},
};

} // namespace

std::span<const Difference> differences() { return table; }

double cie76(const Triple& a, const Triple& b) { return distance(a, b); }

namespace {
double cie94_with(const Factors94& k, const Triple& standard, const Triple& sample) {
    const double c1 = std::hypot(standard[1], standard[2]), c2 = std::hypot(sample[1], sample[2]);
    const double dl = standard[0] - sample[0], da = standard[1] - sample[1], db = standard[2] - sample[2], dc = c1 - c2;
    const double dh2 = std::fmax(da * da + db * db - dc * dc, 0);
    const double sum =
        std::pow(dl / k.lightness, 2) + std::pow(dc / (1 + k.chroma * c1), 2) + dh2 / std::pow(1 + k.hue * c1, 2);
    return std::isnan(da + db) ? std::nan("") : std::sqrt(sum);
}
} // namespace

double cie94(const Triple& standard, const Triple& sample) { return cie94_with(graphic_arts, standard, sample); }
double cie94_textile(const Triple& standard, const Triple& sample) { return cie94_with(textiles, standard, sample); }

double ciede2000(const Triple& one, const Triple& two) {
    // Equations (2) to (22) of the paper, in its order.
    const auto power7 = [](double x) { return std::pow(x, 7); };
    const double mean = (std::hypot(one[1], one[2]) + std::hypot(two[1], two[2])) / 2;
    const double g = 0.5 * (1 - std::sqrt(power7(mean) / (power7(mean) + most7)));
    const double a1 = (1 + g) * one[1], a2 = (1 + g) * two[1];
    const double c1 = std::hypot(a1, one[2]), c2 = std::hypot(a2, two[2]);
    const auto hue = [](double a, double b) {
        const double angle = a == 0 && b == 0 ? 0 : std::atan2(b, a) / radian;
        return angle < 0 ? angle + 360 : angle;
    };
    const double h1 = hue(a1, one[2]), h2 = hue(a2, two[2]);
    double dh = h2 - h1;
    if (c1 * c2 == 0)
        dh = 0;
    else if (dh > 180)
        dh -= 360;
    else if (dh < -180)
        dh += 360;
    const double dl = two[0] - one[0], dc = c2 - c1, big_dh = 2 * std::sqrt(c1 * c2) * std::sin(dh / 2 * radian);
    const double l = (one[0] + two[0]) / 2, c = (c1 + c2) / 2;
    double h = h1 + h2;
    if (c1 * c2 != 0) {
        if (std::fabs(h1 - h2) <= 180)
            h /= 2;
        else
            h = h < 360 ? (h + 360) / 2 : (h - 360) / 2;
    }
    const double t = 1 - 0.17 * std::cos((h - 30) * radian) + 0.24 * std::cos(2 * h * radian) +
        0.32 * std::cos((3 * h + 6) * radian) - 0.20 * std::cos((4 * h - 63) * radian);
    const double turn = 30 * std::exp(-std::pow((h - 275) / 25, 2)),
                 rc = 2 * std::sqrt(power7(c) / (power7(c) + most7));
    const double sl = 1 + 0.015 * std::pow(l - 50, 2) / std::sqrt(20 + std::pow(l - 50, 2)), sc = 1 + 0.045 * c,
                 sh = 1 + 0.015 * c * t;
    const double rt = -std::sin(2 * turn * radian) * rc;
    return std::sqrt(std::pow(dl / sl, 2) + std::pow(dc / sc, 2) + std::pow(big_dh / sh, 2) +
                     rt * (dc / sc) * (big_dh / sh));
}

} // namespace kasuri::colour
