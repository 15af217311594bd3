// Rules in C: the operations of the graph as C99 has them, in double precision.
#include "handover/shader_dialect.hpp"

namespace kasuri::handover {
namespace {

using ir::Op;

constexpr OpText operations[] = {
    {Op::neg, "-{0}"},
    {Op::abs, "fabs({0})"},
    {Op::floor, "floor({0})"},
    {Op::ceil, "ceil({0})"},
    {Op::trunc, "trunc({0})"},
    {Op::round_even, "nearbyint({0})"},
    {Op::sqrt, "sqrt({0})"},
    {Op::exp2, "exp2({0})"},
    {Op::log2, "log2({0})"},
    {Op::sin, "sin({0})"},
    {Op::cos, "cos({0})"},
    {Op::logical_not, "({0} == 0.0 ? 1.0 : 0.0)"},
    {Op::is_nan, "(isnan({0}) ? 1.0 : 0.0)"},
    {Op::add, "{0} + {1}"},
    {Op::sub, "{0} - {1}"},
    {Op::mul, "{0} * {1}"},
    {Op::div, "{0} / {1}"},
    {Op::min, "{n}_minimum({0}, {1})", "minimum"},
    {Op::max, "{n}_maximum({0}, {1})", "maximum"},
    {Op::pow, "{n}_power({0}, {1})", "power"},
    {Op::atan2, "{n}_angle({0}, {1})", "angle"},
    {Op::less, "({0} < {1} ? 1.0 : 0.0)"},
    {Op::less_equal, "({0} <= {1} ? 1.0 : 0.0)"},
    {Op::equal, "({0} == {1} ? 1.0 : 0.0)"},
    {Op::logical_and, "({0} != 0.0 && {1} != 0.0 ? 1.0 : 0.0)"},
    {Op::logical_or, "({0} != 0.0 || {1} != 0.0 ? 1.0 : 0.0)"},
    {Op::bit_and, "(double)({n}_bits({0}) & {n}_bits({1}))", "bits"},
    {Op::bit_or, "(double)({n}_bits({0}) | {n}_bits({1}))", "bits"},
    {Op::bit_xor, "(double)({n}_bits({0}) ^ {n}_bits({1}))", "bits"},
    {Op::fma, "{0} * {1} + {2}"},
    {Op::select, "({0} != 0.0 ? {1} : {2})"},
    {Op::hexcone_h, "{n}_hue({0}, {1}, {2})", "hue"},
    {Op::hexcone_s, "{n}_saturation({0}, {1}, {2})", "saturation"},
    {Op::hexcone_v, "{n}_value({0}, {1}, {2})", "value"},
    {Op::hexcone_r, "{n}_channel(0.0, {0}, {1}, {2})", "channel"},
    {Op::hexcone_g, "{n}_channel(240.0, {0}, {1}, {2})", "channel"},
    {Op::hexcone_b, "{n}_channel(120.0, {0}, {1}, {2})", "channel"},
};

constexpr Helper helpers[] = {
    {"minimum", "",
     "static double {n}_minimum(double x, double y) { return isnan(x) || isnan(y) ? NAN : (y < x ? y : x); }\n"},
    {"maximum", "",
     "static double {n}_maximum(double x, double y) { return isnan(x) || isnan(y) ? NAN : (x < y ? y : x); }\n"},
    {"power", "", "static double {n}_power(double x, double y) { return pow(x, y); }\n"},
    {"angle", "", "static double {n}_angle(double y, double x) { return x == 0.0 && y == 0.0 ? 0.0 : atan2(y, x); }\n"},
    {"bits", "",
     "static unsigned {n}_bits(double x) { return (unsigned)(x > 0.0 ? (x < 16777216.0 ? x : 16777216.0) : 0.0); }\n"},
    {"hue", "maximum minimum",
     "static double {n}_hue(double r, double g, double b) {\n"
     "    double largest = {n}_maximum({n}_maximum(r, g), b), spread = largest - {n}_minimum({n}_minimum(r, g), b);\n"
     "    if (spread == 0.0) return 0.0;\n"
     "    double angle = r == largest ? (g - b) / spread : g == largest ? 2.0 + (b - r) / spread : 4.0 + (r - g) / "
     "spread;\n"
     "    return 60.0 * (angle < 0.0 ? angle + 6.0 : angle);\n"
     "}\n"},
    {"value", "maximum minimum",
     "static double {n}_value(double r, double g, double b) {\n"
     "    double largest = {n}_maximum({n}_maximum(r, g), b);\n"
     "    return largest - {n}_minimum({n}_minimum(r, g), b) != 0.0 && fabs(largest) < 1e-20 ? 1e-20 : largest;\n"
     "}\n"},
    {"saturation", "value",
     "static double {n}_saturation(double r, double g, double b) {\n"
     "    double spread = {n}_maximum({n}_maximum(r, g), b) - {n}_minimum({n}_minimum(r, g), b);\n"
     "    return spread == 0.0 ? 0.0 : spread / {n}_value(r, g, b);\n"
     "}\n"},
    {"channel", "maximum minimum",
     "static double {n}_channel(double offset, double hue, double saturation, double value) {\n"
     "    double own = hue - 360.0 * floor(hue / 360.0) + offset;\n"
     "    own = own >= 360.0 ? own - 360.0 : own;\n"
     "    double tent = {n}_minimum({n}_maximum(({n}_minimum(own, 360.0 - own) - 60.0) / 60.0, 0.0), 1.0);\n"
     "    return value - value * saturation * tent;\n"
     "}\n"},
};

static_assert(complete(operations, helpers));

} // namespace

const std::span<const OpText> c_operations = operations;
const std::span<const Helper> c_helpers = helpers;

} // namespace kasuri::handover
