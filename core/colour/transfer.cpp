#include "colour/transfer.hpp"

#include "colour/nodes.hpp"

#include <cmath>
#include <limits>
#include <numbers>

namespace kasuri::colour {
namespace {

using ir::Graph;
using ir::NodeId;
using ir::Op;

// Reference and lowering of one curve stand beside each other, written apart: std functions of doubles here, operations
// of the graph there. They share the published constants, which stand once.

/// A power with a straight toe: V = slope L up to `light`, else (1 + offset) L^(1 / exponent) - offset; `code` is where
/// the standard splits the way back.
struct Toe {
    double exponent, offset, slope, light, code;
};

double decode(const Toe& c, double encoded) {
    const double x = std::fabs(encoded);
    const double y = x <= c.code ? x / c.slope : std::pow((x + c.offset) / (1 + c.offset), c.exponent);
    return std::copysign(y, encoded);
}
double encode(const Toe& c, double linear) {
    const double x = std::fabs(linear);
    const double y = x <= c.light ? c.slope * x : (1 + c.offset) * std::pow(x, 1 / c.exponent) - c.offset;
    return std::copysign(y, linear);
}

NodeId lower_decode(Graph& g, const Toe& c, NodeId encoded) {
    const NodeId x = g.make(Op::abs, encoded);
    const NodeId base = g.mul(g.add(x, g.constant(c.offset)), g.constant(1 / (1 + c.offset)));
    const NodeId curved = g.make(Op::pow, base, g.constant(c.exponent));
    const NodeId straight = g.mul(x, g.constant(1 / c.slope));
    return signed_as(g, g.select(g.less_equal(x, g.constant(c.code)), straight, curved), encoded);
}
NodeId lower_encode(Graph& g, const Toe& c, NodeId linear) {
    const NodeId x = g.make(Op::abs, linear);
    const NodeId root = g.make(Op::pow, x, g.constant(1 / c.exponent));
    const NodeId curved = g.sub(g.mul(g.constant(1 + c.offset), root), g.constant(c.offset));
    const NodeId straight = g.mul(x, g.constant(c.slope));
    return signed_as(g, g.select(g.less_equal(x, g.constant(c.light)), straight, curved), linear);
}

template <const Toe& curve>
constexpr Transfer toe(std::string_view name, std::string_view doc, std::string_view source) {
    return {name,
            doc,
            source,
            [](double x) { return decode(curve, x); },
            [](double x) { return encode(curve, x); },
            [](Graph& g, NodeId x) { return lower_decode(g, curve, x); },
            [](Graph& g, NodeId x) { return lower_encode(g, curve, x); }};
}

/// A pure power, mirrored below 0.
template <const double& exponent>
constexpr Transfer power(std::string_view name, std::string_view doc, std::string_view source) {
    return {
        name,
        doc,
        source,
        [](double x) { return std::copysign(std::pow(std::fabs(x), exponent), x); },
        [](double x) { return std::copysign(std::pow(std::fabs(x), 1 / exponent), x); },
        [](Graph& g, NodeId x) { return signed_as(g, g.make(Op::pow, g.make(Op::abs, x), g.constant(exponent)), x); },
        [](Graph& g, NodeId x) {
            return signed_as(g, g.make(Op::pow, g.make(Op::abs, x), g.constant(1 / exponent)), x);
        }};
}

constexpr Toe srgb{2.4, 0.055, 12.92, 0.0031308, 0.04045};
constexpr Toe bt709{1 / 0.45, 0.099, 4.5, 0.018, 0.081};
constexpr Toe romm{1.8, 0, 16, 1.0 / 512, 1.0 / 32};
constexpr double p18 = 1.8, p22 = 2.2, p24 = 2.4, p26 = 2.6, opRGB = 563.0 / 256;

double same(double x) { return x; }
NodeId lower_same(Graph&, NodeId x) { return x; }

// Logarithms of the ACES documents. They end at the largest half float, 65504, and ACEScc has nothing below 0.

constexpr double aces_top = 65504;

double acescc_encode(double x) {
    if (std::isnan(x))
        return x;
    const double light = x <= 0 ? std::exp2(-16) : x < std::exp2(-15) ? std::exp2(-16) + x * 0.5 : x;
    return (std::log2(light) + 9.72) / 17.52;
}
double acescc_decode(double y) {
    if (y <= (9.72 - 15) / 17.52)
        return (std::exp2(y * 17.52 - 9.72) - std::exp2(-16)) * 2;
    return y < (std::log2(aces_top) + 9.72) / 17.52 ? std::exp2(y * 17.52 - 9.72) : std::isnan(y) ? y : aces_top;
}
NodeId lower_acescc_encode(Graph& g, NodeId x) {
    const NodeId low = g.add(g.mul(g.max(x, g.constant(0)), g.constant(0.5)), g.constant(std::exp2(-16)));
    const NodeId light = g.select(g.less(x, g.constant(std::exp2(-15))), low, x);
    return g.add(g.mul(g.make(Op::log2, light), g.constant(1 / 17.52)), g.constant(9.72 / 17.52));
}
NodeId lower_acescc_decode(Graph& g, NodeId y) {
    const NodeId light =
        g.min(g.make(Op::exp2, g.sub(g.mul(y, g.constant(17.52)), g.constant(9.72))), g.constant(aces_top));
    const NodeId low = g.mul(g.sub(light, g.constant(std::exp2(-16))), g.constant(2));
    return g.select(g.less_equal(y, g.constant((9.72 - 15) / 17.52)), low, light);
}

constexpr double cct_slope = 10.5402377416545, cct_offset = 0.0729055341958355, cct_light = 0.0078125,
                 cct_code = 0.155251141552511;

double acescct_encode(double x) { return x <= cct_light ? cct_slope * x + cct_offset : (std::log2(x) + 9.72) / 17.52; }
double acescct_decode(double y) {
    if (y <= cct_code)
        return (y - cct_offset) / cct_slope;
    return y < (std::log2(aces_top) + 9.72) / 17.52 ? std::exp2(y * 17.52 - 9.72) : std::isnan(y) ? y : aces_top;
}
NodeId lower_acescct_encode(Graph& g, NodeId x) {
    const NodeId straight = g.add(g.mul(x, g.constant(cct_slope)), g.constant(cct_offset));
    const NodeId curved = g.add(g.mul(g.make(Op::log2, x), g.constant(1 / 17.52)), g.constant(9.72 / 17.52));
    return g.select(g.less_equal(x, g.constant(cct_light)), straight, curved);
}
NodeId lower_acescct_decode(Graph& g, NodeId y) {
    const NodeId straight = g.mul(g.sub(y, g.constant(cct_offset)), g.constant(1 / cct_slope));
    const NodeId curved =
        g.min(g.make(Op::exp2, g.sub(g.mul(y, g.constant(17.52)), g.constant(9.72))), g.constant(aces_top));
    return g.select(g.less_equal(y, g.constant(cct_code)), straight, curved);
}

// PQ: linear 1 is 10 000 cd/m2. HLG: linear 1 is the peak of the scene light E. Mirrored below 0.

constexpr double m1 = 2610.0 / 16384, m2 = 2523.0 / 4096 * 128, c1 = 3424.0 / 4096, c2 = 2413.0 / 4096 * 32,
                 c3 = 2392.0 / 4096 * 32;

double pq_encode(double linear) {
    const double y = std::pow(std::fabs(linear), m1);
    return std::copysign(std::pow(std::isinf(y) ? c2 / c3 : (c1 + c2 * y) / (1 + c3 * y), m2), linear);
}
double pq_decode(double encoded) {
    const double n = std::pow(std::fabs(encoded), 1 / m2);
    if (std::isnan(n))
        return n;
    const double below = c2 - c3 * n; // 0 just below twice the peak's code: no light is bright enough
    return std::copysign(
        below > 0 ? std::pow(std::fmax(n - c1, 0) / below, 1 / m1) : std::numeric_limits<double>::infinity(), encoded);
}

// With floats, the formulas as printed lose what 1 - n leaves of n, and power 78.8 magnifies it. c3 - c2 = c1 - 1 lets
// both ways go by d = 1 - n, and d and n are joined by the series of log and exp where d is small, which it always is.

NodeId lower_pq_encode(Graph& g, NodeId linear) {
    const NodeId y = g.make(Op::pow, g.make(Op::abs, linear), g.constant(m1)), one = g.constant(1);
    const NodeId d = g.div(times(g, 1 - c1, g.sub(one, y)), g.add(one, times(g, c3, y)));
    // log(1 - d) = -2 artanh(z), z = d / (2 - d) <= 0.09
    const NodeId z = g.div(d, g.sub(g.constant(2), d)), z2 = g.mul(z, z);
    NodeId series = g.constant(1.0 / 11);
    for (const double odd : {9.0, 7.0, 5.0, 3.0, 1.0})
        series = g.add(g.constant(1 / odd), g.mul(z2, series));
    const NodeId code = g.make(Op::exp2, times(g, -2 * m2 * std::numbers::log2e, g.mul(z, series)));
    const NodeId endless = g.less(g.constant(1e30), y); // inf / inf above
    return signed_as(g, g.select(endless, g.constant(std::pow(c2 / c3, m2)), code), linear);
}
NodeId lower_pq_decode(Graph& g, NodeId encoded) {
    // log n, held where the series is good; the light is 0 from -0.179 on down and infinite from 0.0088 on up.
    const NodeId log = times(g, std::numbers::ln2 / m2, g.make(Op::log2, g.make(Op::abs, encoded)));
    const NodeId x = g.clamp(log, g.constant(-0.2), g.constant(0.2));
    NodeId series = g.constant(1.0 / 9);
    for (const double term : {8.0, 7.0, 6.0, 5.0, 4.0, 3.0, 2.0}) // exp(x) - 1 = x (1 + x/2 (1 + x/3 (1 + ...)))
        series = g.mul(g.add(g.constant(1), g.mul(x, series)), g.constant(1 / term));
    const NodeId d = g.neg(g.mul(x, g.add(g.constant(1), g.mul(x, series))));
    const NodeId above = g.max(g.sub(g.constant(1 - c1), d), g.constant(0)),
                 below = g.add(g.constant(1 - c1), times(g, c3, d));
    const NodeId light = g.make(Op::pow, g.div(above, below), g.constant(1 / m1));
    const NodeId beyond = g.less_equal(below, g.constant(0));
    return signed_as(g, g.select(beyond, g.constant(std::numeric_limits<double>::infinity()), light), encoded);
}

constexpr double hlg_a = 0.17883277, hlg_b = 1 - 4 * hlg_a,
                 hlg_c = 0.55991073; // c = 0.5 - a ln(4 a), as Table 5 rounds it

double hlg_encode(double linear) {
    const double e = std::fabs(linear);
    return std::copysign(e <= 1.0 / 12 ? std::sqrt(3 * e) : hlg_a * std::log(12 * e - hlg_b) + hlg_c, linear);
}
double hlg_decode(double encoded) {
    const double x = std::fabs(encoded);
    return std::copysign(x <= 0.5 ? x * x / 3 : (std::exp((x - hlg_c) / hlg_a) + hlg_b) / 12, encoded);
}
NodeId lower_hlg_encode(Graph& g, NodeId linear) {
    const NodeId e = g.make(Op::abs, linear);
    const NodeId root = g.make(Op::sqrt, g.mul(e, g.constant(3)));
    const NodeId log = g.make(Op::log2, g.sub(g.mul(e, g.constant(12)), g.constant(hlg_b)));
    const NodeId curved = g.add(g.mul(log, g.constant(hlg_a * std::numbers::ln2)), g.constant(hlg_c));
    return signed_as(g, g.select(g.less_equal(e, g.constant(1.0 / 12)), root, curved), linear);
}
NodeId lower_hlg_decode(Graph& g, NodeId encoded) {
    const NodeId x = g.make(Op::abs, encoded);
    const NodeId square = g.mul(g.mul(x, x), g.constant(1.0 / 3));
    const NodeId power = g.make(Op::exp2, g.mul(g.sub(x, g.constant(hlg_c)), g.constant(std::numbers::log2e / hlg_a)));
    const NodeId curved = g.mul(g.add(power, g.constant(hlg_b)), g.constant(1.0 / 12));
    return signed_as(g, g.select(g.less_equal(x, g.constant(0.5)), square, curved), encoded);
}

constexpr Transfer table[] = {
    {"linear", "Proportional to light.", "by definition", same, same, lower_same, lower_same},
    toe<srgb>("srgb", "The display encoding of sRGB.", "IEC 61966-2-1:1999, clause 5.2"),
    toe<bt709>("bt709", "The camera's curve of BT.709, and of BT.601 and BT.2020 at 10 bits.",
               "ITU-R BT.709-6, item 1.2; BT.2020-2, Table 4"),
    power<p24>("bt1886", "The reference display: a power of 2.4 over a black of 0.",
               "ITU-R BT.1886, Annex 1, with L_B = 0"),
    power<opRGB>("oprgb", "A power of 563/256.", "IEC 61966-2-5:2007"),
    toe<romm>("romm", "A power of 1.8 with a straight toe.", "ISO 22028-2:2013"),
    power<p18>("gamma18", "A power of 1.8.", "by definition"),
    power<p22>("gamma22", "A power of 2.2.", "by definition"),
    power<p24>("gamma24", "A power of 2.4.", "by definition"),
    power<p26>("gamma26", "A power of 2.6, of digital cinema.", "SMPTE RP 431-2"),
    {"acescc", "A logarithm, 17.52 stops for 0 to 1; nothing below 0 can be encoded.", "S-2014-003, 4.4", acescc_decode,
     acescc_encode, lower_acescc_decode, lower_acescc_encode},
    {"acescct", "A logarithm with a straight toe, which also holds what is below 0.", "S-2016-001, 4.4", acescct_decode,
     acescct_encode, lower_acescct_decode, lower_acescct_encode},
    {"pq", "Perceptual quantiser; linear 1 is 10 000 cd/m2.", "SMPTE ST 2084:2014; ITU-R BT.2100-2, Table 4", pq_decode,
     pq_encode, lower_pq_decode, lower_pq_encode},
    {"hlg", "Hybrid log-gamma; linear 1 is the peak of the scene.", "ITU-R BT.2100-2, Table 5", hlg_decode, hlg_encode,
     lower_hlg_decode, lower_hlg_encode},
};

} // namespace

double srgb_decode(double encoded) { return decode(srgb, encoded); }
double srgb_encode(double linear) { return encode(srgb, linear); }

std::span<const Transfer> transfers() { return table; }

const Transfer* find_transfer(std::string_view name) {
    for (const Transfer& transfer : table)
        if (transfer.name == name)
            return &transfer;
    return nullptr;
}

} // namespace kasuri::colour
