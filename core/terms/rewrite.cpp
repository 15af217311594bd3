#include "terms/rewrite.hpp"

#include "base/text.hpp"
#include "lang/parser.hpp"

namespace kasuri::terms {
namespace {

using lang::StatementKind;

std::size_t line_begin(std::string_view text, std::size_t at) {
    const std::size_t before = at == 0 ? std::string_view::npos : text.rfind('\n', at - 1);
    return before == std::string_view::npos ? 0 : before + 1;
}
std::size_t line_end(std::string_view text, std::size_t at) {
    const std::size_t end = text.find('\n', at);
    return end == std::string_view::npos ? text.size() : end + 1;
}

} // namespace

std::vector<Span> working_statements(std::string_view text) {
    std::vector<lang::Diagnostic> faults;
    std::vector<Span> spans;
    for (const lang::Statement& s : lang::parse(text, faults).statements)
        if (s.kind == StatementKind::let || s.kind == StatementKind::assign || s.kind == StatementKind::keep ||
            s.kind == StatementKind::hold)
            spans.push_back(s.span);
    return spans;
}

std::string with_statement(std::string_view text, Span span, const std::string& by) {
    std::size_t begin = span.begin, end = span.end;
    const std::size_t line = line_begin(text, begin), next = line_end(text, end);
    const std::string_view rest = trimmed(text.substr(end, next - end));
    if (by.empty() && trimmed(text.substr(line, begin - line)).empty() && (rest.empty() || rest.starts_with("//"))) {
        begin = line;
        end = next;
        while (begin > 0) {
            const std::size_t above = line_begin(text, begin - 1);
            if (!trimmed(text.substr(above, begin - above)).starts_with("//"))
                break;
            begin = above;
        }
    } else if (by.empty() && rest.starts_with(";")) {
        end = text.find(';', end) + 1;
    }
    return std::string(text.substr(0, begin)) + by + std::string(text.substr(end));
}

std::string with_statements(std::string_view text, const std::string& by) {
    const std::vector<Span> spans = working_statements(text);
    std::string made(text);
    if (spans.empty())
        return made + (made.empty() || made.back() == '\n' ? "" : "\n") + by;
    for (std::size_t i = spans.size(); i-- > 0;)
        made = with_statement(made, spans[i], i == 0 ? by : "");
    return made;
}

} // namespace kasuri::terms
