#include "widgets/writing/rule_lexer.hpp"

#include "lang/lexer.hpp"
#include "lang/outline.hpp"
#include "widgets/parts/theme.hpp"

#include <Qsci/qsciscintilla.h>

#include <algorithm>
#include <string_view>
#include <vector>

namespace kasuri::app {

RuleLexer::RuleLexer(QObject* parent) : QsciLexerCustom(parent) { take_room(); }

void RuleLexer::take_room() {
    const auto set = [this](Style style, const QColor& colour, bool strong, bool italic) {
        QFont font = theme::mono(12, strong);
        font.setItalic(italic);
        setFont(font, style);
        setColor(colour, style);
        setPaper(theme::field, style);
    };
    setDefaultFont(theme::mono());
    setDefaultColor(theme::text);
    setDefaultPaper(theme::field);
    set(plain, theme::text, false, false);
    set(keyword, theme::text, true, false);
    set(number, theme::accent, false, false);
    set(string, theme::second, false, true);
    set(comment, theme::third, false, true);
    set(parameter, theme::accent, false, false);
}

QString RuleLexer::description(int style) const {
    switch (style) {
    case plain: return "plain";
    case keyword: return "keyword";
    case number: return "number";
    case string: return "text";
    case comment: return "comment";
    case parameter: return "parameter";
    default: return {};
    }
}

void RuleLexer::set_parameters(std::set<std::string> names) {
    if (names == parameters_)
        return;
    parameters_ = std::move(names);
    if (editor())
        editor()->recolor();
}

void RuleLexer::styleText(int start, int end) {
    if (!editor())
        return;
    const std::string whole = editor()->text().toStdString();
    // Whole lines, and no others: no token goes on in the next one.
    const auto at = static_cast<std::size_t>(std::max(start, 0));
    const std::size_t before = at == 0 ? std::string::npos : whole.rfind('\n', at - 1);
    const std::size_t from = before == std::string::npos ? 0 : before + 1;
    const std::size_t last = whole.find('\n', static_cast<std::size_t>(std::max({start, end, 0})));
    const std::size_t to = last == std::string::npos ? whole.size() : last + 1;
    const std::string_view text = std::string_view(whole).substr(from, to - from);
    startStyling(static_cast<int>(from));
    std::size_t styled = 0;
    for (const lang::Token& token : lang::lex(text, nullptr)) {
        Style style = plain;
        switch (token.kind) {
        case lang::TokenKind::keyword: style = keyword; break;
        case lang::TokenKind::number: style = number; break;
        case lang::TokenKind::string: style = string; break;
        case lang::TokenKind::comment: style = comment; break;
        case lang::TokenKind::name:
            style = parameters_.contains(std::string(text_of(text, token.span))) ? parameter : plain;
            break;
        default: break;
        }
        if (token.span.begin > styled)
            setStyling(static_cast<int>(token.span.begin - styled), plain);
        setStyling(static_cast<int>(token.span.size()), style);
        styled = token.span.end;
    }
    if (styled < text.size())
        setStyling(static_cast<int>(text.size() - styled), plain);
    // Going on where the same text was left, as when it is scrolled: its folds stand.
    if (from == 0 || from != styled_to_ || whole != folded_) {
        mark_folds(whole);
        folded_ = whole;
    }
    styled_to_ = to;
}

void RuleLexer::mark_folds(const std::string& text) {
    const std::vector<lang::FoldLine> lines = lang::fold_lines(text);
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const int wanted = (QsciScintillaBase::SC_FOLDLEVELBASE + lines[i].level) |
            (lines[i].opens ? QsciScintillaBase::SC_FOLDLEVELHEADERFLAG : 0);
        if (editor()->SendScintilla(QsciScintillaBase::SCI_GETFOLDLEVEL, static_cast<unsigned long>(i)) != wanted)
            editor()->SendScintilla(QsciScintillaBase::SCI_SETFOLDLEVEL, static_cast<unsigned long>(i),
                                    static_cast<long>(wanted));
    }
}

} // namespace kasuri::app
