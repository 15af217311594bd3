#include "base/text.hpp"
#include "builtins/builtin.hpp"
#include "lang/rule.hpp"

#include <fmt/format.h>

namespace kasuri::builtins {
namespace {

std::string case_text(const Builtin& row, const lang::Signature& signature, const Case& c) {
    std::string text = fmt::format("`{}(", row.name);
    std::size_t at = 0;
    const std::size_t last = signature.parameters.size() - 1;
    for (std::size_t i = 0; at < c.arguments.size(); ++i) {
        const lang::Slot& slot = signature.parameters[std::min(i, last)];
        const std::size_t count = slot.gen ? 1 : static_cast<std::size_t>(width(slot.type));
        std::string argument;
        for (std::size_t k = 0; k < count && at < c.arguments.size(); ++k)
            argument += (k > 0 ? ", " : "") + number_text(c.arguments[at++], 6);
        text += (i > 0 ? ", " : "") + (count > 1 ? fmt::format("{}({})", name(slot.type), argument) : argument);
    }
    return text + fmt::format(")` is {}", number_text(c.result, 6));
}

} // namespace

std::string documentation() {
    std::string text = "# Functions of the language\n\n"
                       "Made by `kasuri-cli docs builtins` from the tables in core/builtins; do not edit it here. "
                       "`gen` is float, vec2,\n"
                       "vec3 or vec4, the same for all gen arguments of a call; there, a float may stand for a vector "
                       "of equal components.\n"
                       "Where the argument of a function is marked *per picture*, it may be a number or a parameter, "
                       "or made of those, but may\n"
                       "not change from pixel to pixel. The examples are checked by the tests, against the engine and "
                       "the reference. Colour models\n"
                       "and conversions between spaces are in colour.md.\n";
    std::string_view family;
    const std::span<const lang::Signature> signatures = vocabulary().functions;
    for (std::size_t i = 0; i < all().size(); ++i) {
        const Builtin& row = all()[i];
        const lang::Signature& signature = signatures[i];
        if (row.model || row.space)
            continue; // docs/colour.md
        if (row.family != family) {
            family = row.family;
            text += fmt::format("\n## {}\n", family);
        }
        text += fmt::format("\n### `{}`\n\n{}\n\n", shown(signature), row.doc);
        std::vector<std::string> fixed;
        for (std::size_t k = 0; k < signature.parameters.size(); ++k)
            if (signature.parameters[k].rate == lang::Rate::picture)
                fixed.emplace_back(signature.parameter_names[k]);
        if (!fixed.empty())
            text += fmt::format("- *Per picture:* {}\n", fmt::join(fixed, ", "));
        if (signature.neighbourhood)
            text += "- *Looks at other pixels:* a pass over the picture for each component\n";
        if (!row.cases.empty()) {
            std::string cases;
            for (const Case& c : row.cases)
                cases += (cases.empty() ? "" : "; ") + case_text(row, signature, c);
            text += fmt::format("- *Examples:* {}{}\n", cases,
                                width(signature.result.type) > 1 ? " (first component)" : "");
        }
        if (!row.source.empty())
            text += fmt::format("- *Source:* {}\n", row.source);
    }
    text +=
        "\n## Written in the language itself\n\nEvery rule can call these; read them, copy them, change the copy.\n";
    for (const lang::FunctionPtr& function : vocabulary().prelude)
        text += fmt::format("\n### `{}`\n\n{}\n\n```\n{}\n```\n", shown(*function), function->doc, function->text);
    return text;
}

} // namespace kasuri::builtins
