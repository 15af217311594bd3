#include "handover/shader_dialect.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::handover {
namespace {

using ir::Op;

constexpr OpText operation_table[] = {
    {Op::neg, "-{0}"},
    {Op::abs, "abs({0})", {}, "fabs({0})"},
    {Op::floor, "floor({0})"},
    {Op::ceil, "ceil({0})"},
    {Op::trunc, "trunc({0})"},
    {Op::round_even, "roundEven({0})", {}, "nearbyint({0})"},
    {Op::sqrt, "{n}_root({0})", "root", "sqrt({0})"},
    {Op::exp2, "exp2({0})"},
    {Op::log2, "{n}_log({0})", "log", "log2({0})"},
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
    {Op::bit_and, "{f}({n}_bits({0}) & {n}_bits({1}))", "bits", "({f})({n}_bits({0}) & {n}_bits({1}))"},
    {Op::bit_or, "{f}({n}_bits({0}) | {n}_bits({1}))", "bits", "({f})({n}_bits({0}) | {n}_bits({1}))"},
    {Op::bit_xor, "{f}({n}_bits({0}) ^ {n}_bits({1}))", "bits", "({f})({n}_bits({0}) ^ {n}_bits({1}))"},
    {Op::fma, "{0} * {1} + {2}"},
    {Op::select, "({0} != 0.0 ? {1} : {2})"},
    {Op::hexcone_h, "{n}_hue({0}, {1}, {2})", "hue"},
    {Op::hexcone_s, "{n}_saturation({0}, {1}, {2})", "saturation"},
    {Op::hexcone_v, "{n}_value({0}, {1}, {2})", "value"},
    {Op::hexcone_r, "{n}_channel(0.0, {0}, {1}, {2})", "channel"},
    {Op::hexcone_g, "{n}_channel(240.0, {0}, {1}, {2})", "channel"},
    {Op::hexcone_b, "{n}_channel(120.0, {0}, {1}, {2})", "channel"},
};

constexpr Helper helper_table[] = {
    {"none", "", "{f} {n}_none() { return uintBitsToFloat(0x7fc00000u); } // no number\n",
     "{f} {n}_none(void) { return NAN; }\n"},
    {"minimum", "none",
     "{f} {n}_minimum({f} x, {f} y) { return isnan(x) || isnan(y) ? {n}_none() : (y < x ? y : x); }\n"},
    {"maximum", "none",
     "{f} {n}_maximum({f} x, {f} y) { return isnan(x) || isnan(y) ? {n}_none() : (x < y ? y : x); }\n"},
    {"root", "none", "{f} {n}_root({f} x) { return x < 0.0 ? {n}_none() : sqrt(x); }\n"},
    {"log", "none",
     "{f} {n}_log({f} x) { return x < 0.0 ? {n}_none() : x == 0.0 ? uintBitsToFloat(0xff800000u) : log2(x); }\n"},
    {"power", "none",
     "{f} {n}_power({f} x, {f} y) {\n"
     "    if (y == 0.0 || x == 1.0) return 1.0;\n"
     "    if (x == 0.0) return y < 0.0 ? uintBitsToFloat(0x7f800000u) : 0.0;\n"
     "    if (x > 0.0) return pow(x, y);\n"
     "    if (x < 0.0 && floor(y) == y) return mod(y, 2.0) == 0.0 ? pow(-x, y) : -pow(-x, y);\n"
     "    return {n}_none();\n"
     "}\n",
     "{f} {n}_power({f} x, {f} y) { return pow(x, y); }\n"},
    {"angle", "", "{f} {n}_angle({f} y, {f} x) { return x == 0.0 && y == 0.0 ? 0.0 : atan(y, x); }\n",
     "{f} {n}_angle({f} y, {f} x) { return x == 0.0 && y == 0.0 ? 0.0 : atan2(y, x); }\n"},
    {"bits", "", "uint {n}_bits({f} x) { return uint(clamp(x, 0.0, 16777216.0)); }\n",
     "unsigned {n}_bits({f} x) { return (unsigned)(x > 0.0 ? (x < 16777216.0 ? x : 16777216.0) : 0.0); }\n"},
    {"hue", "maximum minimum",
     "{f} {n}_hue({f} r, {f} g, {f} b) {\n"
     "    {f} largest = {n}_maximum({n}_maximum(r, g), b), spread = largest - {n}_minimum({n}_minimum(r, g), b);\n"
     "    if (spread == 0.0) return 0.0;\n"
     "    {f} angle = r == largest ? (g - b) / spread : g == largest ? 2.0 + (b - r) / spread : 4.0 + (r - g) / "
     "spread;\n"
     "    return 60.0 * (angle < 0.0 ? angle + 6.0 : angle);\n"
     "}\n"},
    {"value", "maximum minimum",
     "{f} {n}_value({f} r, {f} g, {f} b) {\n"
     "    {f} largest = {n}_maximum({n}_maximum(r, g), b);\n"
     "    return largest - {n}_minimum({n}_minimum(r, g), b) != 0.0 && {a}(largest) < 1e-20 ? 1e-20 : largest;\n"
     "}\n"},
    {"saturation", "value",
     "{f} {n}_saturation({f} r, {f} g, {f} b) {\n"
     "    {f} spread = {n}_maximum({n}_maximum(r, g), b) - {n}_minimum({n}_minimum(r, g), b);\n"
     "    return spread == 0.0 ? 0.0 : spread / {n}_value(r, g, b);\n"
     "}\n"},
    {"channel", "maximum minimum",
     "{f} {n}_channel({f} offset, {f} hue, {f} saturation, {f} value) {\n"
     "    {f} own = hue - 360.0 * floor(hue / 360.0) + offset;\n"
     "    own = own >= 360.0 ? own - 360.0 : own;\n"
     "    {f} tent = {n}_minimum({n}_maximum(({n}_minimum(own, 360.0 - own) - 60.0) / 60.0, 0.0), 1.0);\n"
     "    return value - value * saturation * tent;\n"
     "}\n"},
};

/// Whether everything that a graph can hold has its row, and everything that a row calls has its helper.
constexpr bool complete(std::span<const OpText> rows, std::span<const Helper> called) {
    const auto has_helper = [&](std::string_view name) {
        for (const Helper& each : called)
            if (each.name == name)
                return true;
        return name.empty();
    };
    std::size_t at = 0;
    for (auto op = static_cast<int>(ir::Op::neg); op <= static_cast<int>(ir::Op::hexcone_b); ++op, ++at)
        if (at >= rows.size() || rows[at].op != static_cast<ir::Op>(op) || !has_helper(rows[at].helper))
            return false;
    for (const Helper& each : called)
        for (std::string_view calls = each.calls; !calls.empty();) {
            const std::size_t end = calls.find(' ') == std::string_view::npos ? calls.size() : calls.find(' ');
            if (!has_helper(calls.substr(0, end)))
                return false;
            calls.remove_prefix(end == calls.size() ? end : end + 1);
        }
    return at == rows.size();
}

static_assert(complete(operation_table, helper_table),
              "one row for each operation, in the order of ir::Op, and a helper for each that is called");

/// As a number with a fraction, and one operand.
std::string with_point(std::string text) {
    if (text.find_first_of(".e") == text.npos)
        text += ".0";
    return text.starts_with('-') ? "(" + text + ")" : text;
}

std::string literal(double value) {
    const auto number = static_cast<float>(value);
    if (std::isnan(number))
        return "uintBitsToFloat(0x7fc00000u)";
    if (std::isinf(number))
        return number > 0 ? "uintBitsToFloat(0x7f800000u)" : "uintBitsToFloat(0xff800000u)";
    return with_point(fmt::format("{:.9g}", number));
}

std::string c_literal(double value) {
    if (std::isnan(value))
        return "NAN";
    if (std::isinf(value))
        return value > 0 ? "INFINITY" : "(-INFINITY)";
    return with_point(fmt::format("{:.17g}", value));
}

constexpr std::string_view c_words =
    " auto break case char const continue default do double else enum extern float for goto if inline int long "
    "register "
    "restrict return short signed sizeof static struct switch typedef union unsigned void volatile while ";

} // namespace

const std::span<const OpText> operations = operation_table;
const std::span<const Helper> helpers = helper_table;

std::span<const Dialect> dialects() {
    static const Dialect table[] = {
        {"330", "GLSL 3.30 core: parameters are uniforms with their defaults", Values::uniforms, "float", "abs",
         literal, "", "#version 330 core\n"},
        {"es300", "GLSL ES 3.00: uniforms have no defaults there; they stand in comments", Values::plain, "float",
         "abs", literal, "",
         "#version 300 es\nprecision highp float;\nprecision highp int;\nprecision highp sampler2D;\n"
         "precision highp sampler3D;\n"},
        {"vulkan450", "GLSL 4.50 for Vulkan: parameters are a uniform block (set 0, binding 0, std140)", Values::block,
         "float", "abs", literal, "", "#version 450\n"},
        {"c", "C99, in double precision: parameters are a struct", Values::argument, "double", "fabs", c_literal,
         c_words},
    };
    return table;
}

const Dialect* find_dialect(std::string_view name) {
    const auto all = dialects();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Dialect& each) { return each.name == name; });
    return found == all.end() ? nullptr : &*found;
}

} // namespace kasuri::handover
