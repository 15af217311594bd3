#include "lang/symbol.hpp"

#include "base/said.hpp"
#include "lang/check.hpp"
#include "lang/lexer.hpp"
#include "lang/parser.hpp"
#include "lang/statement.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::lang {
namespace {

bool inside(Span span, std::size_t at) { return at >= span.begin && at < span.end; }

/// What a text defines, and where.
class Definitions {
public:
    explicit Definitions(std::string_view source) : source_(source) {
        std::vector<Diagnostic> ignored;
        tree_ = parse(source, ignored);
        for (const Token& token : lex(source, nullptr))
            if (token.kind != TokenKind::comment && token.kind != TokenKind::newline)
                tokens_.push_back(token);
    }

    std::span<const Token> tokens() const { return tokens_; }

    /// The token at the place, or the one that ends there.
    std::optional<std::size_t> name_at(std::size_t at) const {
        for (std::size_t i = 0; i < tokens_.size(); ++i)
            if (tokens_[i].kind == TokenKind::name && at >= tokens_[i].span.begin && at <= tokens_[i].span.end &&
                is_free(i))
                return i;
        return std::nullopt;
    }

    /// The function whose lines the place is in.
    const Statement* function_around(std::size_t at) const {
        for (const Statement& s : tree_.statements)
            if (s.kind == StatementKind::fn && inside(s.span, at) && at >= s.name_span.end)
                return &s;
        return nullptr;
    }

    static std::optional<Span> local(const Statement& function, std::string_view name) {
        for (const FunctionParameter& parameter : function.parameters)
            if (parameter.name.text == name)
                return parameter.name.span;
        for (const Statement& s : function.body)
            if (s.kind == StatementKind::let && s.name == name)
                return s.name_span;
        return std::nullopt;
    }

    std::optional<Span> of_file(std::string_view name, bool function) const {
        for (const Statement& s : tree_.statements)
            if (s.name == name && (s.kind == StatementKind::fn) == function && row(s.kind).gives_name)
                return s.name_span;
        return std::nullopt;
    }

    bool is_call(std::size_t token) const {
        return token + 1 < tokens_.size() && tokens_[token + 1].kind == TokenKind::open;
    }

    /// Not a component, an option, a target, a space or a model: those are not the text's own names.
    bool is_free(std::size_t token) const {
        if (token > 0 && tokens_[token - 1].kind == TokenKind::dot)
            return false;
        const Span span = tokens_[token].span;
        const auto is = [span](Span other) { return other.begin == span.begin && other.end == span.end; };
        for (const Statement& s : tree_.statements) {
            if (!inside(s.span, span.begin))
                continue;
            if (is(s.type.span) || (is(s.name_span) && !row(s.kind).gives_name && s.kind != StatementKind::assign))
                return false;
            for (const Word& option : s.options)
                if (is(option.span))
                    return false;
            for (const FunctionParameter& parameter : s.parameters)
                if (is(parameter.type.span))
                    return false;
        }
        return true;
    }

private:
    std::string_view source_;
    Tree tree_;
    std::vector<Token> tokens_;
};

} // namespace

std::optional<Symbol> symbol_at(std::string_view source, std::size_t at) {
    const Definitions known(source);
    const std::optional<std::size_t> token = known.name_at(at);
    if (!token)
        return std::nullopt;
    const Span here = known.tokens()[*token].span;
    Symbol symbol;
    symbol.name = std::string(text_of(source, here));
    const Statement* function = known.function_around(here.begin);
    std::optional<Span> definition = function ? Definitions::local(*function, symbol.name) : std::nullopt;
    const bool is_local = definition.has_value();
    const bool is_function = !is_local && known.of_file(symbol.name, true).has_value();
    if (!is_local)
        definition = known.of_file(symbol.name, is_function);
    if (!definition || (function && !is_local && !is_function))
        return std::nullopt;
    symbol.definition = *definition;
    for (std::size_t i = 0; i < known.tokens().size(); ++i) {
        const Token& each = known.tokens()[i];
        if (each.kind != TokenKind::name || text_of(source, each.span) != symbol.name || !known.is_free(i))
            continue;
        const Statement* around = known.function_around(each.span.begin);
        const bool shadowed = around && Definitions::local(*around, symbol.name);
        const bool same = is_local ? around == function : is_function ? !shadowed : !around;
        if (same)
            symbol.places.push_back(each.span);
    }
    return symbol;
}

Renamed renamed(std::string_view source, const Symbol& symbol, std::string_view name, const Vocabulary& vocabulary) {
    const std::vector<Token> tokens = lex(name, nullptr);
    const bool is_name =
        tokens.size() >= 1 && tokens[0].kind == TokenKind::name && tokens[0].span.size() == name.size();
    if (!is_name)
        return {{},
                said("{} is not a name: letters, digits and _, a letter first, and no word of the language",
                     name.empty() ? "nothing" : name)};
    if (name == symbol.name)
        return {std::string(source), {}};
    for (const Token& token : lex(source, nullptr))
        if (token.kind == TokenKind::name && text_of(source, token.span) == name)
            return {{}, said("{} stands in the text already", name)};
    Renamed made;
    std::uint32_t done = 0;
    for (const Span place : symbol.places) {
        made.text += source.substr(done, place.begin - done);
        made.text += name;
        done = place.end;
    }
    made.text += source.substr(done);
    // What compiled must go on to: the new name may be one of the language.
    const auto errors = [&](std::string_view text) {
        const Checked checked = check(text, vocabulary);
        return std::count_if(checked.diagnostics.begin(), checked.diagnostics.end(),
                             [](const Diagnostic& d) { return d.severity == Severity::error; });
    };
    if (errors(made.text) > errors(source))
        return {{}, said("{} means something in the language already", name)};
    return made;
}

} // namespace kasuri::lang
