#include "proof/look.hpp"

#include "base/text.hpp"
#include "lang/check.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::proof {
namespace {

constexpr std::size_t max_lines = 200;

/// Whether it begins a proof, is a comment, or is empty.
bool may_stand(std::string_view line) {
    line = trimmed(line);
    return line.empty() || line.starts_with("//") ||
        (line.starts_with("proof") && (line.size() == 5 || line[5] == ' ' || line[5] == '\t' || line[5] == '"'));
}

} // namespace

Result<lang::Rule> look_statements(const std::string& proofs, const std::string& space,
                                   std::function<Result<std::string>(const std::string&)> open) {
    const std::vector<std::string_view> lines = split(proofs, '\n');
    if (lines.size() > max_lines)
        return Error{said("are more than {} lines", max_lines), "proofs of the look", ""};
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (!may_stand(lines[i]))
            return Error{
                said("\"{}\" is not a proof line", trimmed(lines[i])), said("proofs of the look, line {}", i + 1),
                "Write proof \"title\" : neutral, or proof \"title\" on TARGET : a condition on r, g, b and out."};
    // The line of the space stands first, so that their own lines are one further down.
    const std::string text = fmt::format("working {}\n{}", space, proofs);
    lang::CheckOptions with;
    with.open = std::move(open);
    lang::Checked checked = lang::check(text, vocabulary(), with);
    for (const lang::Diagnostic& diagnostic : checked.diagnostics)
        if (!checked.ok && diagnostic.severity == lang::Severity::error) {
            const auto line = std::count(
                text.begin(),
                text.begin() + static_cast<std::ptrdiff_t>(std::min<std::size_t>(diagnostic.span.begin, text.size())),
                '\n');
            return Error{
                lang::message(diagnostic),
                line > 0 ? said("proofs of the look, line {}", line) : said("proofs of the look, in {}", space), ""};
        }
    return std::move(checked.rule);
}

} // namespace kasuri::proof
