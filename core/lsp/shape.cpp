// The shape of a text: its symbols, what folds, what its words are.
#include "lang/lexer.hpp"
#include "lang/outline.hpp"
#include "lang/statement.hpp"
#include "lsp/methods.hpp"

#include <algorithm>
#include <set>

namespace kasuri::lsp {
namespace {

/// SymbolKind of LSP 3.17.
int kind_of(lang::OutlineEntry::Kind kind) {
    using Kind = lang::OutlineEntry::Kind;
    switch (kind) {
    case Kind::filter: return 2;    // Module
    case Kind::parameter: return 8; // Field
    case Kind::preset: return 10;   // Enum
    case Kind::source: return 1;    // File
    case Kind::function: return 12; // Function
    case Kind::local: return 13;    // Variable
    case Kind::output: return 7;    // Property
    case Kind::proof: return 24;    // Event
    }
    return 13;
}

Json symbols(State& state, const Json& params) {
    const Document& document = state.document_of(params);
    Json all = Json::array();
    for (const lang::OutlineEntry& each : lang::outline(document.text.clean()))
        all.push_back({{"name", each.name.empty() ? "(no title)" : each.name},
                       {"detail", each.detail},
                       {"kind", kind_of(each.kind)},
                       {"range", state.range(document, each.span)},
                       {"selectionRange", state.range(document, each.name_span)}});
    return all;
}

Json folds(State& state, const Json& params) {
    const Document& document = state.document_of(params);
    const std::vector<lang::FoldLine> lines = lang::fold_lines(document.text.clean());
    Json all = Json::array();
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (!lines[i].opens)
            continue;
        std::size_t last = i;
        while (last + 1 < lines.size() && lines[last + 1].level > lines[i].level)
            ++last;
        if (last > i)
            all.push_back({{"startLine", i}, {"endLine", last}});
    }
    return all;
}

constexpr std::string_view token_types[] = {"keyword",  "number",   "string",   "comment", "parameter",
                                            "function", "variable", "property", "operator"};
enum TokenType { keyword, number, string, comment, parameter, function, variable, property, operation };

std::optional<TokenType> type_of(lang::TokenKind kind) {
    switch (kind) {
    case lang::TokenKind::keyword: return keyword;
    case lang::TokenKind::number: return number;
    case lang::TokenKind::string: return string;
    case lang::TokenKind::comment: return comment;
    case lang::TokenKind::name: return variable;
    case lang::TokenKind::end:
    case lang::TokenKind::newline:
    case lang::TokenKind::open:
    case lang::TokenKind::close:
    case lang::TokenKind::open_brace:
    case lang::TokenKind::close_brace:
    case lang::TokenKind::comma:
    case lang::TokenKind::dot:
    case lang::TokenKind::semicolon:
    case lang::TokenKind::bad: return std::nullopt;
    default: return operation;
    }
}

Json tokens(State& state, const Json& params) {
    Document& document = state.document_of(params);
    const std::string& text = document.text.clean();
    std::set<std::string_view> parameters;
    const std::vector<lang::OutlineEntry> entries = lang::outline(text);
    for (const lang::OutlineEntry& each : entries)
        if (each.kind == lang::OutlineEntry::Kind::parameter)
            parameters.insert(each.name);
    std::vector<lang::Token> all = lang::lex(text, nullptr);
    Json data = Json::array();
    Position before;
    for (std::size_t i = 0; i < all.size(); ++i) {
        std::optional<TokenType> type = type_of(all[i].kind);
        if (!type)
            continue;
        const auto next = i + 1 < all.size() ? all[i + 1].kind : lang::TokenKind::end;
        if (type == variable && i > 0 && all[i - 1].kind == lang::TokenKind::dot)
            type = property;
        else if (type == variable && next == lang::TokenKind::open)
            type = function;
        else if (type == variable && parameters.contains(text_of(text, all[i].span)))
            type = parameter;
        const Position at = document.text.position(all[i].span.begin, state.wishes.units),
                       end = document.text.position(all[i].span.end, state.wishes.units);
        if (end.line != at.line)
            continue; // no token of ours goes over lines; one that is broken might
        data.push_back(at.line - before.line);
        data.push_back(at.line == before.line ? at.character - before.character : at.character);
        data.push_back(end.character - at.character);
        data.push_back(static_cast<int>(*type));
        data.push_back(0);
        before = at;
    }
    return {{"data", data}};
}

} // namespace

std::span<const Method> shape_methods() {
    static const Method table[] = {
        {"textDocument/documentSymbol", "documentSymbolProvider", nullptr, symbols},
        {"textDocument/foldingRange", "foldingRangeProvider", nullptr, folds},
        {"textDocument/semanticTokens/full", "semanticTokensProvider",
         [] {
             return Json{{"legend", {{"tokenTypes", token_types}, {"tokenModifiers", Json::array()}}}, {"full", true}};
         },
         tokens},
    };
    return table;
}

} // namespace kasuri::lsp
