#include "lang/token_stream.hpp"

#include <algorithm>

namespace kasuri::lang {
namespace {

constexpr BinaryRow binary_table[] = {
    {TokenKind::logical_or, Operator::logical_or, 1},
    {TokenKind::logical_and, Operator::logical_and, 2},
    {TokenKind::equal, Operator::equal, 3},
    {TokenKind::not_equal, Operator::not_equal, 3},
    {TokenKind::less, Operator::less, 4},
    {TokenKind::less_equal, Operator::less_equal, 4},
    {TokenKind::greater, Operator::greater, 4},
    {TokenKind::greater_equal, Operator::greater_equal, 4},
    {TokenKind::plus, Operator::add, 5},
    {TokenKind::minus, Operator::sub, 5},
    {TokenKind::star, Operator::mul, 6},
    {TokenKind::slash, Operator::div, 6},
};

} // namespace

const BinaryRow* binary_row(TokenKind token) {
    for (const BinaryRow& candidate : binary_table)
        if (candidate.token == token)
            return &candidate;
    return nullptr;
}

int precedence(Operator op) {
    for (const BinaryRow& row : binary_table)
        if (row.op == op)
            return row.precedence;
    return 0;
}

std::optional<Operator> assignment(TokenKind token) {
    switch (token) {
    case TokenKind::assign: return Operator::none;
    case TokenKind::add_assign: return Operator::add;
    case TokenKind::sub_assign: return Operator::sub;
    case TokenKind::mul_assign: return Operator::mul;
    case TokenKind::div_assign: return Operator::div;
    default: return std::nullopt;
    }
}

TokenStream::TokenStream(std::string_view source, std::vector<Diagnostic>& diagnostics)
    : source_(source), diagnostics_(diagnostics), tokens_(lex(source, &diagnostics)) {
    std::erase_if(tokens_, [](const Token& token) { return token.kind == TokenKind::comment; });
}

bool TokenStream::at_line_end() const {
    return look() == TokenKind::newline || look() == TokenKind::semicolon || look() == TokenKind::end ||
        (braces_ > 0 && look() == TokenKind::close_brace);
}

bool TokenStream::is_word(std::string_view word) const {
    return (look() == TokenKind::keyword || look() == TokenKind::name) && text_of(source_, token().span) == word;
}

std::string TokenStream::shown(const Token& t) const {
    if (t.kind == TokenKind::end)
        return "the end of the rule";
    if (t.kind == TokenKind::newline || t.kind == TokenKind::semicolon)
        return "the end of the line";
    return text(t);
}

void TokenStream::fault(Code code, Span span, std::vector<std::string> arguments, std::vector<Fix> fixes) {
    // A token that the lexer already complained about needs no second complaint.
    if (look() == TokenKind::bad && span == token().span)
        return;
    diagnostics_.push_back({code, row(code).severity, span, std::move(arguments), std::move(fixes)});
}

void TokenStream::give_up(std::string_view wanted) {
    Span span = token().span;
    if (look() == TokenKind::newline || look() == TokenKind::end)
        span.end = span.begin; // point at the end of the line, not at the next one
    fault(Code::expected, span, {std::string(wanted), shown(token())});
    throw GiveUp{};
}

bool TokenStream::accept(TokenKind kind) {
    if (look() != kind)
        return false;
    ++at_;
    return true;
}

bool TokenStream::accept_word(std::string_view word) {
    if (!is_word(word))
        return false;
    ++at_;
    return true;
}

Token TokenStream::expect(TokenKind kind, std::string_view wanted) {
    if (look() != kind)
        give_up(wanted);
    return tokens_[at_++];
}

Word TokenStream::expect_name(std::string_view wanted) {
    const Token t = expect(TokenKind::name, wanted);
    return {text(t), t.span};
}

std::string TokenStream::quoted() {
    const Token t = expect(TokenKind::string, "a text in quotation marks");
    std::string inside = text(t).substr(1);
    if (!inside.empty() && inside.back() == '"')
        inside.pop_back();
    return inside;
}

bool TokenStream::statement_begins_here() const {
    if (look() == TokenKind::keyword)
        return !is_word("true") && !is_word("false") && !is_word("in");
    if (look() != TokenKind::name)
        return false;
    const std::size_t next = look(1) == TokenKind::dot ? 3 : 1;
    return assignment(look(next)).has_value();
}

void TokenStream::skip_newlines() {
    while (look() == TokenKind::newline) {
        const std::size_t back = at_;
        ++at_;
        if (look() != TokenKind::newline && (statement_begins_here() || look() == TokenKind::end)) {
            at_ = back;
            return;
        }
    }
}

void TokenStream::skip_statement() {
    while (!at_line_end())
        ++at_;
}

} // namespace kasuri::lang
