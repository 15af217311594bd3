#include "lang/outline.hpp"

#include "lang/lexer.hpp"
#include "lang/parser.hpp"
#include "lang/statement.hpp"

#include <algorithm>

namespace kasuri::lang {

std::vector<FoldLine> fold_lines(std::string_view text) {
    struct Line {
        int depth = 0; ///< of braces, where it begins
        std::string kind;
    };
    std::vector<Line> lines(1);
    int depth = 0;
    bool fresh = true; // nothing on this line yet
    for (const Token& token : lex(text, nullptr)) {
        if (token.kind == TokenKind::newline) {
            lines.push_back({depth, {}});
            fresh = true;
            continue;
        }
        if (fresh && depth == 0) {
            const std::string word(text_of(text, token.span));
            const StatementRow* statement = find_statement(word);
            lines.back().kind = token.kind == TokenKind::comment ? "//"
                : statement && statement->folds                  ? word
                                                                 : std::string();
        }
        fresh = false;
        depth += token.kind == TokenKind::open_brace ? 1 : token.kind == TokenKind::close_brace ? -1 : 0;
        depth = std::max(depth, 0);
    }
    constexpr std::size_t least = 3; // lines that are worth folding
    std::vector<FoldLine> made;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        std::size_t begin = i, end = i + 1;
        if (!lines[i].kind.empty()) {
            while (begin > 0 && lines[begin - 1].kind == lines[i].kind)
                --begin;
            while (end < lines.size() && lines[end].kind == lines[i].kind)
                ++end;
        }
        const bool run = end - begin >= least;
        made.push_back({lines[i].depth + (run && i > begin ? 1 : 0),
                        (run && i == begin) || (i + 1 < lines.size() && lines[i + 1].depth > lines[i].depth)});
    }
    return made;
}

std::vector<OutlineEntry> outline(std::string_view text) {
    using Kind = OutlineEntry::Kind;
    std::vector<Diagnostic> faults;
    std::vector<OutlineEntry> made;
    const auto first_word = [&](const Statement& s) {
        const std::size_t end = text.find_first_of(" \t\n", s.span.begin);
        return Span{s.span.begin, std::min(s.span.end, static_cast<std::uint32_t>(std::min(end, text.size())))};
    };
    for (const Statement& s : parse(text, faults).statements) {
        const auto add = [&](Kind kind, std::string name, std::string detail, Span place) {
            if (place.size() == 0)
                place = first_word(s);
            if (name.empty())
                name = std::string(text_of(text, place));
            made.push_back({kind, std::move(name), std::move(detail), cover(s.span, place), place});
        };
        switch (s.kind) {
        case StatementKind::filter: add(Kind::filter, s.text, "", {}); break;
        case StatementKind::param: add(Kind::parameter, s.name, s.text, s.name_span); break;
        case StatementKind::preset: add(Kind::preset, s.text, "", {}); break;
        case StatementKind::source: add(Kind::source, s.name, s.text, s.name_span); break;
        case StatementKind::fn: add(Kind::function, s.name, "", s.name_span); break;
        case StatementKind::let: add(Kind::local, s.name, "", s.name_span); break;
        case StatementKind::assign:
            add(Kind::output, s.component.empty() ? s.name : s.name + "." + s.component, "",
                s.component.empty() ? s.name_span : cover(s.name_span, s.component_span));
            break;
        case StatementKind::proof: add(Kind::proof, s.text, "", {}); break;
        case StatementKind::note:
        case StatementKind::tags:
        case StatementKind::working:
        case StatementKind::use:
        case StatementKind::keep:
        case StatementKind::hold:
        case StatementKind::result: break;
        }
    }
    return made;
}

} // namespace kasuri::lang
