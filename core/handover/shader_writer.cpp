#include "handover/shader_writer.hpp"

#include "engine/lower.hpp"
#include "ir/needed.hpp"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace kasuri::handover {
namespace {

using ir::Op;

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

} // namespace

ShaderWriter::ShaderWriter(const subject::Subject& subject, const ShaderOptions& options, const Dialect& dialect)
    : subject_(subject), dialect_(dialect), in_c_(dialect.values == Values::argument), prefix_(options.function) {
    in_ = options.in_space.empty() ? std::string_view(subject.in_space()) : options.in_space;
    out_ = options.out_space.empty() ? std::string_view(subject.out_space()) : options.out_space;
    engine::CompileOptions with;
    with.in_space = in_;
    with.out_space = out_;
    outputs_ = subject.lower(graph_, with);
    std::set<std::string> taken = {"width", "height", "values", "usual", "read_picture"};
    for (const Helper& helper : helpers)
        taken.emplace(helper.name);
    for (std::string_view words = dialect_.reserved; words.size() > 1;) {
        const std::size_t end = words.find(' ', 1);
        taken.emplace(words.substr(1, end - 1));
        words.remove_prefix(end);
    }
    name_values(taken);
    for (const lang::SourceInput& source : subject.sources())
        sources_.push_back(prefix_ + "_" + identifier(source.name, taken));
}

void ShaderWriter::begin() {
    wanted_.clear();
    wanted_tables_.clear();
    placed_ = sized_ = false;
}

Result<std::string> ShaderWriter::statements(std::span<const ir::NodeId> nodes, std::vector<std::string>& results) {
    const std::vector<bool> needed = ir::needed_by(graph_, nodes);
    std::string body;
    std::vector<std::string> names(graph_.size());
    converted_.clear();
    for (ir::NodeId id = 0; id < graph_.size(); ++id) {
        if (!needed[id])
            continue;
        const ir::Node& node = graph_[id];
        if (node.op == Op::external) {
            const Result<std::string> result = external(node, names, body);
            if (!result)
                return result.error();
            names[id] = result.value();
            continue;
        }
        if (node.op == Op::input && node.slot >= graph_.first_stage_slot()) {
            const auto stage = stages_.find(node.slot);
            if (stage == stages_.end())
                return Error{"looks at its neighbours (blur and the like), which a function of one pixel cannot do", "",
                             "Write it as passes (kasuri-cli glsl --passes FOLDER)."};
            names[id] = stage->second;
            continue;
        }
        if (ir::row(node.op).arity == 0) {
            names[id] = leaf(node);
            continue;
        }
        std::string operands[ir::max_graph_operands];
        for (int k = 0; k < ir::row(node.op).arity; ++k)
            operands[k] = names[node.args[static_cast<std::size_t>(k)]];
        const OpText& row = operations[static_cast<std::size_t>(node.op) - static_cast<std::size_t>(Op::neg)];
        const std::string_view text = in_c_ && !row.c.empty() ? row.c : row.text;
        if (!row.helper.empty() && text.find("{n}") != text.npos)
            want(row.helper);
        names[id] = fmt::format("t{}", id);
        body += fmt::format("    {} t{} = {};\n", in_c_ ? "const double" : "float", id, filled(text, operands));
    }
    results.clear();
    for (const ir::NodeId id : nodes)
        results.push_back(names[id]);
    return body;
}

/// One of the three results of a conversion, which is called once for all of them.
Result<std::string> ShaderWriter::external(const ir::Node& node, const std::vector<std::string>& names,
                                           std::string& into) {
    const auto* source =
        tables_allowed_ ? dynamic_cast<const io::ShaderSource*>(graph_.externals()[node.slot]) : nullptr;
    const std::string function = fmt::format("{}_lut{}", prefix_, node.slot + 1);
    if (source && !wanted_tables_.contains(function)) {
        if (auto code = source->shader_code(function))
            wanted_tables_.emplace(function, std::move(*code));
        else
            source = nullptr;
    }
    if (!source)
        return tables_allowed_ ? Error{"uses a device link or a printer's profile, which no shader can read", "",
                                       "Bake it to a LUT (kasuri-cli bake) and take that instead."}
                               : Error{"uses a LUT file or a space of a colour config, which one function cannot hold",
                                       "", "Write it as passes with its tables (kasuri-cli glsl --passes FOLDER)."};
    const std::string in =
        fmt::format("vec4({}, {}, {}, 1.0)", names[node.args[0]], names[node.args[1]], names[node.args[2]]);
    const auto [found, made] = converted_.try_emplace(function + in, fmt::format("c{}", converted_.size()));
    if (made)
        into += fmt::format("    vec4 {} = {}({});\n", found->second, function, in);
    return fmt::format("{}.{}", found->second, "rgb"[static_cast<std::size_t>(node.value)]);
}

void ShaderWriter::name_values(std::set<std::string>& taken) {
    const auto all = subject_.parameters();
    const auto is = [&](std::size_t i, const char* part) { return i < all.size() && all[i].name.ends_with(part); };
    for (std::size_t i = 0; i < all.size(); ++i) {
        const bool colour = is(i, ".r") && is(i + 1, ".g") && is(i + 2, ".b");
        const std::string& own = all[i].identifier;
        const std::string name = identifier(colour ? own.substr(0, own.size() - 2) : own, taken);
        const std::string called = in_c_ ? "values->" + name : prefix_ + "_" + name;
        values_.push_back({in_c_ ? name : called, i, colour});
        if (!colour) {
            parameters_.push_back(called);
            continue;
        }
        for (std::size_t k = 0; k < 3; ++k)
            parameters_.push_back(called + (in_c_ ? fmt::format("[{}]", k) : fmt::format(".{}", "rgb"[k])));
        i += 2;
    }
}

std::string ShaderWriter::leaf(const ir::Node& node) {
    if (node.op == Op::constant)
        return dialect_.literal(node.value);
    if (node.op == Op::uniform) {
        if (node.slot >= ir::first_parameter_slot)
            return parameters_[node.slot - ir::first_parameter_slot];
        sized_ = true;
        constexpr std::string_view sizes[] = {"({s}width / {s}height)", "{s}width", "{s}height"};
        return with_size(sizes[node.slot]);
    }
    if (node.slot < 4)
        return in_c_ ? fmt::format("(double)colour[{}]", node.slot) : fmt::format("colour.{}", "rgba"[node.slot]);
    if (node.slot < ir::input_count) {
        placed_ = true;
        sized_ = sized_ || node.slot >= static_cast<std::uint32_t>(ir::Input::pos_x);
        constexpr std::string_view places[] = {"{p}0", "{p}1", "(({p}0 + 0.5) / {s}width)",
                                               "(({p}1 + 0.5) / {s}height)"};
        return with_size(places[node.slot - 4]);
    }
    std::uint32_t slot = node.slot - ir::input_count;
    for (std::size_t i = 0; i < subject_.sources().size(); ++i) {
        const auto channels = static_cast<std::uint32_t>(width(subject_.sources()[i].type));
        if (slot < channels)
            return in_c_ ? fmt::format("(double){}[{}]", sources_[i], slot)
                         : sources_[i] + (channels == 1 ? std::string() : fmt::format(".{}", "rgba"[slot]));
        slot -= channels;
    }
    return "0.0";
}

std::string ShaderWriter::with_size(std::string_view text) const {
    std::string made;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text.substr(i, 3) == "{s}") {
            made += in_c_ ? "values->" : prefix_ + "_";
            i += 2;
        } else if (text.substr(i, 3) == "{p}") {
            made += in_c_ ? fmt::format("(double)pixel[{}]", text[i + 3]) : text[i + 3] == '0' ? "pixel.x" : "pixel.y";
            i += 3;
        } else {
            made += text[i];
        }
    }
    return made;
}

std::string ShaderWriter::filled(std::string_view text, const std::string* operands) const {
    std::string made;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool hole = text[i] == '{' && i + 2 < text.size() && text[i + 2] == '}';
        const char which = hole ? text[i + 1] : '\0';
        if (which == 'n')
            made += prefix_;
        else if (which == 'f')
            made += dialect_.number;
        else if (which == 'a')
            made += dialect_.absolute;
        else if (operands && which >= '0' && which <= '2')
            made += operands[which - '0'];
        else {
            made += text[i];
            continue;
        }
        i += 2;
    }
    return made;
}

void ShaderWriter::want(std::string_view name) {
    const auto helper =
        std::find_if(helpers.begin(), helpers.end(), [&](const Helper& each) { return each.name == name; });
    const std::string_view text = in_c_ && !helper->c.empty() ? helper->c : helper->text;
    std::string_view calls = helper->calls;
    while (!calls.empty()) {
        const std::size_t end = std::min(calls.find(' '), calls.size());
        if (text.find(std::string(calls.substr(0, end))) != text.npos)
            want(calls.substr(0, end));
        calls.remove_prefix(std::min(end + 1, calls.size()));
    }
    wanted_.insert(name);
}

std::string ShaderWriter::default_of(const Value& value) const {
    const auto number = [&](std::size_t k) { return dialect_.literal(subject_.values()[value.first + k]); };
    if (!value.colour)
        return number(0);
    const std::string three = fmt::format("{}, {}, {}", number(0), number(1), number(2));
    return in_c_ ? "{" + three + "}" : "vec3(" + three + ")";
}

std::string ShaderWriter::words_of(const Value& value) const {
    const subject::Parameter& p = subject_.parameters()[value.first];
    return fmt::format("{} .. {}  {}", p.low, p.high, one_line(p.description));
}

std::string ShaderWriter::values_as_uniforms(bool with_size) const {
    std::string text;
    const bool said = dialect_.values == Values::uniforms; // else in a comment
    for (const Value& value : values_)
        text += fmt::format("uniform {} {}{} {}{} {}\n", value.colour ? "vec3" : "float", value.name,
                            said ? " =" : "; // usual", default_of(value), said ? "; //" : ",", words_of(value));
    if (with_size)
        text += fmt::format("uniform float {0}_width{1}; // of the picture, in pixels\nuniform float {0}_height{2};\n",
                            prefix_, said ? " = 1920.0" : "", said ? " = 1080.0" : "");
    return text;
}

std::string ShaderWriter::values_as_block(bool with_size) const {
    std::string text = fmt::format("layout(std140, set = 0, binding = 0) uniform {}_values {{\n", prefix_);
    for (const Value& value : values_)
        text += fmt::format("    {} {}; // usual {}, {}\n", value.colour ? "vec3" : "float", value.name,
                            default_of(value), words_of(value));
    if (with_size)
        text += fmt::format("    float {0}_width; // of the picture, in pixels\n    float {0}_height;\n", prefix_);
    return text + "};\n";
}

std::string ShaderWriter::values_as_struct(bool with_size) const {
    std::string text = fmt::format("struct {}_values {{\n", prefix_), usual;
    for (const Value& value : values_) {
        text += fmt::format("    double {}{}; // {}\n", value.name, value.colour ? "[3]" : "", words_of(value));
        usual += (usual.empty() ? "" : ", ") + default_of(value);
    }
    if (with_size) {
        text += "    double width, height; // of the picture, in pixels\n";
        usual += std::string(usual.empty() ? "" : ", ") + "1920.0, 1080.0";
    }
    return text + fmt::format("}};\nstatic const struct {0}_values {0}_usual = {{{1}}};\n", prefix_, usual);
}

std::string ShaderWriter::helper_texts() const {
    std::string text;
    for (const Helper& helper : helpers)
        if (wanted_.contains(helper.name))
            text += in_c_ ? "static " + filled(helper.c.empty() ? helper.text : helper.c) : filled(helper.text);
    return text.empty() ? text : text + "\n";
}

std::string ShaderWriter::title() const {
    std::string text = fmt::format("// {}\n", one_line(subject_.title()));
    if (!subject_.note().empty())
        text += fmt::format("// {}\n", one_line(subject_.note()));
    return text + fmt::format("// Colours come in as {} and go out as {}, alpha straight.\n", in_, out_);
}

std::string ShaderWriter::value_texts(bool with_size) const {
    if (values_.empty() && !with_size)
        return {};
    return (dialect_.values == Values::argument    ? values_as_struct(with_size)
                : dialect_.values == Values::block ? values_as_block(with_size)
                                                   : values_as_uniforms(with_size)) +
        "\n";
}

} // namespace kasuri::handover
