#include "handover/shader.hpp"

#include "base/text.hpp"
#include "handover/precision.hpp"
#include "handover/shader_writer.hpp"

#include <fmt/format.h>

namespace kasuri::handover {
namespace {

std::string signature(const ShaderWriter& writer, const subject::Subject& subject, const std::string& name) {
    std::string text = fmt::format("vec4 {}(vec4 colour{}", name, writer.placed() ? ", vec2 pixel" : "");
    for (std::size_t i = 0; i < subject.sources().size(); ++i) {
        const int channels = width(subject.sources()[i].type);
        text += fmt::format(", {} {}", channels == 1 ? "float" : fmt::format("vec{}", channels), writer.sources()[i]);
    }
    return text + ") {\n";
}

std::string c_signature(const ShaderWriter& writer, const subject::Subject& subject, const std::string& name) {
    std::string text =
        fmt::format("static void {}(const float colour[4]{}", name, writer.placed() ? ", const float pixel[2]" : "");
    for (std::size_t i = 0; i < subject.sources().size(); ++i)
        text += fmt::format(", const float {}[{}]", writer.sources()[i],
                            static_cast<int>(width(subject.sources()[i].type)));
    if (!writer.values().empty() || writer.sized())
        text += fmt::format(", const struct {}_values *values", name);
    return text + ", float out[4]) {\n";
}

std::string described(const Precision& precision) {
    return fmt::format(
        "// Single precision, at these values: within {} of double on {} colours from 0 to 1, within {} on as "
        "many from -1 to 4.\n",
        number_text(precision.inside, 2), precision.colours, number_text(precision.wide, 2));
}

} // namespace

Result<std::string> shader(const subject::Subject& subject, const ShaderOptions& options) {
    const Dialect* dialect = find_dialect(options.dialect);
    if (!dialect)
        return Error{said("there is no dialect {}", options.dialect), "", "330, es300, vulkan450 and c are known."};
    ShaderWriter writer(subject, options, *dialect);
    std::vector<std::string> made;
    const Result<std::string> body = writer.statements(writer.outputs(), made);
    if (!body)
        return body.error();
    const bool in_c = dialect->values == Values::argument;
    const auto precision = in_c ? std::nullopt : single_precision(subject, options.in_space, options.out_space);
    std::string whole = writer.title() + (precision ? described(*precision) : "") + "\n" +
        (in_c ? "#include <math.h>\n\n" : "") + writer.value_texts(writer.sized()) + writer.helper_texts();
    if (!in_c)
        return whole + signature(writer, subject, options.function) + body.value() +
            fmt::format("    return vec4({}, {}, {}, {});\n}}\n", made[0], made[1], made[2], made[3]);
    whole += c_signature(writer, subject, options.function) + body.value();
    for (std::size_t i = 0; i < 4; ++i)
        whole += fmt::format("    out[{}] = (float){};\n", i, made[i]);
    return whole + "}\n";
}

} // namespace kasuri::handover
