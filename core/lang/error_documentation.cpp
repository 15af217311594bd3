#include "lang/error_documentation.hpp"

#include "lang/check.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

std::string without_numbers(std::string_view wording) {
    std::string text;
    for (std::size_t i = 0; i < wording.size(); ++i)
        if (wording[i] == '%' && i + 1 < wording.size()) {
            text += "…";
            ++i;
        } else {
            text += wording[i];
        }
    return text;
}

} // namespace

std::string error_documentation(const Vocabulary& vocabulary) {
    std::string text =
        "# What can be wrong with a rule\n\n"
        "Made by `kasuri-cli docs errors` from the table in core/lang/diagnostic.cpp; do not edit it here. Each is\n"
        "shown with a small rule that has it and with what is said about that rule. An error keeps the rule from "
        "running;\n"
        "a warning is most likely a slip; a hint is nothing wrong, only easily overlooked.\n";
    CheckOptions options;
    options.open = [](const std::string& name) -> Result<std::string> {
        return Error{"the file " + name + " does not exist", "", ""};
    };
    std::vector<CodeRow> rows(code_table().begin(), code_table().end());
    std::sort(rows.begin(), rows.end(), [](const CodeRow& a, const CodeRow& b) { return a.id < b.id; });
    for (const CodeRow& row : rows) {
        text += fmt::format("\n## {} ({}): {}\n\n", row.id, word(row.severity), without_numbers(row.wording));
        if (row.example.empty()) {
            text += fmt::format("{}\n", row.help);
            continue;
        }
        text += fmt::format("```\n{}\n```\n\n```text\n", row.example);
        for (const Diagnostic& d : check(row.example, vocabulary, options).diagnostics)
            if (d.code == row.code)
                text += rendered(d, row.example, "rule") + "\n";
        text += "```\n";
    }
    return text;
}

} // namespace kasuri::lang
