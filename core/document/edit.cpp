#include "document/edit.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::document {

std::string TextEdit::applied(std::string_view text) const {
    std::string result(text.substr(0, at));
    result += inserted;
    result += text.substr(at + removed.size());
    return result;
}

std::string number_for_text(double value) { return fmt::format("{}", static_cast<float>(value)); }

TextEdit with_defaults(std::string_view text, const lang::Rule& rule, std::span<const double> values) {
    TextEdit edit;
    for (std::size_t i = 0; i < rule.parameters.size(); ++i) {
        const lang::Parameter& p = rule.parameters[i];
        if (static_cast<float>(values[i]) == static_cast<float>(p.value))
            continue;
        // Edits stand in the order of the text: keep what lies between them.
        const std::uint32_t reached = edit.at + static_cast<std::uint32_t>(edit.removed.size());
        if (edit.removed.empty()) {
            edit.at = p.default_span.begin;
        } else {
            const std::string_view between = text_of(text, {reached, p.default_span.begin});
            edit.removed += between;
            edit.inserted += between;
        }
        edit.removed += text_of(text, p.default_span);
        edit.inserted += lang::value_text(p, values[i]);
    }
    return edit;
}

TextEdit with_preset(std::string_view text, const lang::Rule& rule, std::string_view name,
                     std::span<const double> values) {
    std::string clean(name);
    std::replace_if(
        clean.begin(), clean.end(), [](char c) { return c == '"' || c == '\n' || c == '\r'; }, '\'');
    std::string line = fmt::format("preset \"{}\" ", clean);
    for (std::size_t i = 0; i < rule.parameters.size(); ++i) {
        const lang::Parameter& p = rule.parameters[i];
        const std::string separator = i > 0 ? ", " : "";
        if (p.kind != lang::ParameterKind::colour) {
            line += fmt::format("{}{} = {}", separator, p.name, lang::value_text(p, values[i]));
            continue;
        }
        // The three numbers of a colour follow each other.
        line += fmt::format("{}{} = vec3({}, {}, {})", separator, p.name.substr(0, p.name.size() - 2),
                            lang::value_text(p, values[i]), lang::value_text(p, values[i + 1]),
                            lang::value_text(p, values[i + 2]));
        i += 2;
    }
    for (const lang::Preset& preset : rule.presets)
        if (preset.name == clean)
            return {preset.span.begin, std::string(text_of(text, preset.span)), line};
    std::uint32_t after = 0;
    for (const lang::Parameter& p : rule.parameters)
        after = std::max(after, p.span.end);
    for (const lang::Preset& preset : rule.presets)
        after = std::max(after, preset.span.end);
    // A comment at the end of that line stays with it.
    const auto end = text.find('\n', after);
    if (end == std::string_view::npos)
        return {static_cast<std::uint32_t>(text.size()), "", "\n" + line + "\n"};
    return {static_cast<std::uint32_t>(end), "", "\n" + line};
}

} // namespace kasuri::document
