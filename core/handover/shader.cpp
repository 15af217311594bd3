#include "handover/shader.hpp"

#include "ir/needed.hpp"

#include "engine/lower.hpp"
#include "ir/graph.hpp"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <fmt/format.h>
#include <set>
#include <vector>

namespace kasuri::handover {
namespace {

using ir::Op;

/// One row: an operation as GLSL. {0} to {2} are its operands, {n} the prefix of helpers.
struct OpText {
    Op op;
    std::string_view text;
    std::string_view helper = {}; ///< that it calls
};

constexpr OpText operations[] = {
    {Op::neg, "-{0}"},
    {Op::abs, "abs({0})"},
    {Op::floor, "floor({0})"},
    {Op::ceil, "ceil({0})"},
    {Op::trunc, "trunc({0})"},
    {Op::round_even, "roundEven({0})"},
    {Op::sqrt, "{n}_root({0})", "root"},
    {Op::exp2, "exp2({0})"},
    {Op::log2, "{n}_log({0})", "log"},
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
    {Op::bit_and, "float({n}_bits({0}) & {n}_bits({1}))", "bits"},
    {Op::bit_or, "float({n}_bits({0}) | {n}_bits({1}))", "bits"},
    {Op::bit_xor, "float({n}_bits({0}) ^ {n}_bits({1}))", "bits"},
    {Op::fma, "{0} * {1} + {2}"},
    {Op::select, "({0} != 0.0 ? {1} : {2})"},
    {Op::hexcone_h, "{n}_hue({0}, {1}, {2})", "hue"},
    {Op::hexcone_s, "{n}_saturation({0}, {1}, {2})", "saturation"},
    {Op::hexcone_v, "{n}_value({0}, {1}, {2})", "value"},
    {Op::hexcone_r, "{n}_channel(0.0, {0}, {1}, {2})", "channel"},
    {Op::hexcone_g, "{n}_channel(240.0, {0}, {1}, {2})", "channel"},
    {Op::hexcone_b, "{n}_channel(120.0, {0}, {1}, {2})", "channel"},
};

/// Functions that the shader brings along, each after those that it calls.
struct Helper {
    std::string_view name, calls, text;
};
constexpr Helper helpers[] = {
    {"none", "", "float {n}_none() { return uintBitsToFloat(0x7fc00000u); } // no number\n"},
    {"minimum", "none",
     "float {n}_minimum(float x, float y) { return isnan(x) || isnan(y) ? {n}_none() : (y < x ? y : x); }\n"},
    {"maximum", "none",
     "float {n}_maximum(float x, float y) { return isnan(x) || isnan(y) ? {n}_none() : (x < y ? y : x); }\n"},
    {"root", "none", "float {n}_root(float x) { return x < 0.0 ? {n}_none() : sqrt(x); }\n"},
    {"log", "none",
     "float {n}_log(float x) { return x < 0.0 ? {n}_none() : x == 0.0 ? uintBitsToFloat(0xff800000u) : log2(x); }\n"},
    {"power", "none",
     "float {n}_power(float x, float y) {\n"
     "    if (y == 0.0 || x == 1.0) return 1.0;\n"
     "    if (x == 0.0) return y < 0.0 ? uintBitsToFloat(0x7f800000u) : 0.0;\n"
     "    if (x > 0.0) return pow(x, y);\n"
     "    if (x < 0.0 && floor(y) == y) return mod(y, 2.0) == 0.0 ? pow(-x, y) : -pow(-x, y);\n"
     "    return {n}_none();\n"
     "}\n"},
    {"angle", "", "float {n}_angle(float y, float x) { return x == 0.0 && y == 0.0 ? 0.0 : atan(y, x); }\n"},
    {"bits", "", "uint {n}_bits(float x) { return uint(clamp(x, 0.0, 16777216.0)); }\n"},
    {"hue", "maximum minimum",
     "float {n}_hue(float r, float g, float b) {\n"
     "    float largest = {n}_maximum({n}_maximum(r, g), b), spread = largest - {n}_minimum({n}_minimum(r, g), b);\n"
     "    if (spread == 0.0) return 0.0;\n"
     "    float angle = r == largest ? (g - b) / spread : g == largest ? 2.0 + (b - r) / spread : 4.0 + (r - g) / "
     "spread;\n"
     "    return 60.0 * (angle < 0.0 ? angle + 6.0 : angle);\n"
     "}\n"},
    {"value", "maximum minimum",
     "float {n}_value(float r, float g, float b) {\n"
     "    float largest = {n}_maximum({n}_maximum(r, g), b);\n"
     "    return largest - {n}_minimum({n}_minimum(r, g), b) != 0.0 && abs(largest) < 1e-20 ? 1e-20 : largest;\n"
     "}\n"},
    {"saturation", "value",
     "float {n}_saturation(float r, float g, float b) {\n"
     "    float spread = {n}_maximum({n}_maximum(r, g), b) - {n}_minimum({n}_minimum(r, g), b);\n"
     "    return spread == 0.0 ? 0.0 : spread / {n}_value(r, g, b);\n"
     "}\n"},
    {"channel", "maximum minimum",
     "float {n}_channel(float offset, float hue, float saturation, float value) {\n"
     "    float own = hue - 360.0 * floor(hue / 360.0) + offset;\n"
     "    own = own >= 360.0 ? own - 360.0 : own;\n"
     "    float tent = {n}_minimum({n}_maximum(({n}_minimum(own, 360.0 - own) - 60.0) / 60.0, 0.0), 1.0);\n"
     "    return value - value * saturation * tent;\n"
     "}\n"},
};

constexpr bool has_helper(std::string_view name) {
    for (const Helper& each : helpers)
        if (each.name == name)
            return true;
    return name.empty();
}

/// Whether everything that a graph can hold has its row, and everything that a row calls has its helper.
constexpr bool complete() {
    std::size_t at = 0;
    for (auto op = static_cast<int>(Op::neg); op <= static_cast<int>(Op::hexcone_b); ++op, ++at)
        if (at >= std::size(operations) || operations[at].op != static_cast<Op>(op) ||
            !has_helper(operations[at].helper))
            return false;
    for (const Helper& each : helpers)
        for (std::string_view calls = each.calls; !calls.empty();) {
            const std::size_t end = calls.find(' ') == std::string_view::npos ? calls.size() : calls.find(' ');
            if (!has_helper(calls.substr(0, end)))
                return false;
            calls.remove_prefix(end == calls.size() ? end : end + 1);
        }
    return at == std::size(operations);
}
static_assert(complete(), "one row for each operation, in the order of ir::Op, and a helper for each that is called");

std::string filled(std::string_view text, std::string_view prefix, const std::string* operands = nullptr) {
    std::string made;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '{' && i + 2 < text.size() && text[i + 2] == '}') {
            if (text[i + 1] == 'n') {
                made += prefix;
                i += 2;
                continue;
            }
            if (operands && text[i + 1] >= '0' && text[i + 1] <= '2') {
                made += operands[text[i + 1] - '0'];
                i += 2;
                continue;
            }
        }
        made += text[i];
    }
    return made;
}

std::string literal(double value) {
    const auto number = static_cast<float>(value);
    if (std::isnan(number))
        return "uintBitsToFloat(0x7fc00000u)";
    if (std::isinf(number))
        return number > 0 ? "uintBitsToFloat(0x7f800000u)" : "uintBitsToFloat(0xff800000u)";
    std::string text = fmt::format("{:.9g}", number);
    if (text.find_first_of(".e") == text.npos)
        text += ".0";
    return text.starts_with('-') ? "(" + text + ")" : text;
}

/// A name that GLSL allows behind a prefix and _: ASCII, no two _ in a row, not one of `taken`.
std::string identifier(const std::string& name, std::set<std::string>& taken) {
    std::string plain;
    for (const char c : name) {
        const auto code = static_cast<unsigned char>(c);
        if (code >= 0x80)
            plain += fmt::format("{:x}", static_cast<int>(code));
        else if (std::isalnum(code) != 0)
            plain += c;
        else if (!plain.empty() && plain.back() != '_') // a component's point, too
            plain += '_';
    }
    std::string made = plain.empty() ? "value" : plain;
    for (int number = 2; !taken.insert(made).second; ++number)
        made = fmt::format("{}_{}", plain, number);
    return made;
}

/// Text from the rule inside a comment: it stays on its line.
std::string one_line(std::string text) {
    std::replace_if(
        text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 0x20 || c == '\\'; }, ' ');
    return text;
}

class Emitter {
public:
    Emitter(const subject::Subject& subject, const ShaderOptions& options)
        : subject_(subject), prefix_(options.function) {
        in_ = options.in_space.empty() ? std::string_view(subject.in_space()) : options.in_space;
        out_ = options.out_space.empty() ? std::string_view(subject.out_space()) : options.out_space;
        engine::CompileOptions with;
        with.in_space = in_;
        with.out_space = out_;
        outputs_ = subject.lower(graph_, with);
        std::set<std::string> taken = {"width", "height"};
        for (const Helper& helper : helpers)
            taken.emplace(helper.name);
        for (const subject::Parameter& p : subject.parameters())
            parameters_.push_back(prefix_ + "_" + identifier(p.identifier, taken));
        for (const lang::SourceInput& source : subject.sources())
            sources_.push_back(prefix_ + "_" + identifier(source.name, taken));
        needed_ = ir::needed_by(graph_, outputs_);
    }

    Result<std::string> run() {
        std::string body;
        std::vector<std::string> names(graph_.size());
        for (ir::NodeId id = 0; id < graph_.size(); ++id) {
            if (!needed_[id])
                continue;
            const ir::Node& node = graph_[id];
            if (node.op == Op::external)
                return Error{"uses a LUT file or a space of a colour config, which a shader does not know", "",
                             "Hand the LUT over by itself, and choose one of the built-in spaces."};
            if (node.op == Op::input && node.slot >= graph_.first_stage_slot())
                return Error{"looks at its neighbours (blur and the like), which a function of one pixel cannot do", "",
                             "Hand the steps before and after it over by themselves."};
            if (ir::row(node.op).arity == 0) {
                names[id] = leaf(node);
                continue;
            }
            std::string operands[ir::max_graph_operands];
            for (int k = 0; k < ir::row(node.op).arity; ++k)
                operands[k] = names[node.args[static_cast<std::size_t>(k)]];
            const OpText& row = operations[static_cast<std::size_t>(node.op) - static_cast<std::size_t>(Op::neg)];
            if (!row.helper.empty())
                want(row.helper);
            names[id] = fmt::format("t{}", id);
            body += fmt::format("    float t{} = {};\n", id, filled(row.text, prefix_, operands));
        }
        return head() + helper_texts() + signature() + body +
            fmt::format("    return vec4({}, {}, {}, {});\n}}\n", names[outputs_[0]], names[outputs_[1]],
                        names[outputs_[2]], names[outputs_[3]]);
    }

private:
    std::string leaf(const ir::Node& node) {
        if (node.op == Op::constant)
            return literal(node.value);
        if (node.op == Op::uniform) {
            if (node.slot >= ir::first_parameter_slot)
                return parameters_[node.slot - ir::first_parameter_slot];
            sized_ = true;
            constexpr std::string_view sizes[] = {"({n}_width / {n}_height)", "{n}_width", "{n}_height"};
            return filled(sizes[node.slot], prefix_);
        }
        if (node.slot < 4)
            return fmt::format("colour.{}", "rgba"[node.slot]);
        if (node.slot < ir::input_count) {
            placed_ = true;
            sized_ = sized_ || node.slot >= static_cast<std::uint32_t>(ir::Input::pos_x);
            constexpr std::string_view places[] = {"pixel.x", "pixel.y", "((pixel.x + 0.5) / {n}_width)",
                                                   "((pixel.y + 0.5) / {n}_height)"};
            return filled(places[node.slot - 4], prefix_);
        }
        std::uint32_t slot = node.slot - ir::input_count;
        for (std::size_t i = 0; i < subject_.sources().size(); ++i) {
            const auto channels = static_cast<std::uint32_t>(width(subject_.sources()[i].type));
            if (slot < channels)
                return sources_[i] + (channels == 1 ? std::string() : fmt::format(".{}", "rgba"[slot]));
            slot -= channels;
        }
        return "0.0";
    }

    void want(std::string_view name) {
        const auto helper =
            std::find_if(std::begin(helpers), std::end(helpers), [&](const Helper& each) { return each.name == name; });
        std::string_view calls = helper->calls;
        while (!calls.empty()) {
            const std::size_t end = std::min(calls.find(' '), calls.size());
            want(calls.substr(0, end));
            calls.remove_prefix(std::min(end + 1, calls.size()));
        }
        wanted_.insert(name);
    }

    std::string head() const {
        std::string text = fmt::format("// {}\n", one_line(subject_.title()));
        if (!subject_.note().empty())
            text += fmt::format("// {}\n", one_line(subject_.note()));
        text += fmt::format("// Colours come in as {} and go out as {}, alpha straight.\n\n", in_, out_);
        for (std::size_t i = 0; i < parameters_.size(); ++i) {
            const subject::Parameter& p = subject_.parameters()[i];
            text += fmt::format("uniform float {} = {}; // {} .. {}  {}\n", parameters_[i],
                                literal(subject_.values()[i]), p.low, p.high, one_line(p.description));
        }
        if (sized_)
            text += fmt::format(
                "uniform float {0}_width = 1920.0; // of the picture, in pixels\nuniform float {0}_height = 1080.0;\n",
                prefix_);
        return text + (parameters_.empty() && !sized_ ? "" : "\n");
    }

    std::string helper_texts() const {
        std::string text;
        for (const Helper& helper : helpers)
            if (wanted_.contains(helper.name))
                text += filled(helper.text, prefix_);
        return text.empty() ? text : text + "\n";
    }

    std::string signature() const {
        std::string text = fmt::format("vec4 {}(vec4 colour{}", prefix_, placed_ ? ", vec2 pixel" : "");
        for (std::size_t i = 0; i < subject_.sources().size(); ++i) {
            const int channels = width(subject_.sources()[i].type);
            text += fmt::format(", {} {}", channels == 1 ? "float" : fmt::format("vec{}", channels), sources_[i]);
        }
        return text + ") {\n";
    }

    const subject::Subject& subject_;
    std::string prefix_;
    std::string_view in_, out_;
    ir::Graph graph_;
    std::vector<ir::NodeId> outputs_;
    std::vector<bool> needed_;
    std::set<std::string_view> wanted_;
    std::vector<std::string> parameters_, sources_; ///< as they are called in the shader
    bool placed_ = false, sized_ = false;
};

} // namespace

Result<std::string> shader(const subject::Subject& subject, const ShaderOptions& options) {
    return Emitter(subject, options).run();
}

} // namespace kasuri::handover
