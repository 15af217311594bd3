#pragma once
#include "lang/diagnostic.hpp"
#include "lang/lexer.hpp"
#include "lang/syntax.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::lang {

/// Thrown to give up a statement; the fault is already reported.
struct GiveUp {};

/// How an operator token is read in an expression; larger precedence binds tighter, all group from the left
/// (GLSL 4.60, 5.1).
struct BinaryRow {
    TokenKind token;
    Operator op;
    int precedence;
};
const BinaryRow* binary_row(TokenKind token);
int precedence(Operator op);

/// The operator of an assignment (none for =), or nothing.
std::optional<Operator> assignment(TokenKind token);

/// Tokens without comments and a place in them, with the faults of reading. What parsers of statements and of
/// expressions share.
class TokenStream {
public:
    TokenStream(std::string_view source, std::vector<Diagnostic>& diagnostics);

protected:
    const Token& token() const { return tokens_[at_]; }
    TokenKind look(std::size_t ahead = 0) const {
        return tokens_[at_ + ahead < tokens_.size() ? at_ + ahead : tokens_.size() - 1].kind;
    }
    std::string text(const Token& t) const { return std::string(text_of(source_, t.span)); }
    Span last_span() const { return at_ > 0 ? tokens_[at_ - 1].span : Span{}; }
    bool at_line_end() const;
    bool is_word(std::string_view word) const;
    std::string shown(const Token& t) const;
    void fault(Code code, Span span, std::vector<std::string> arguments, std::vector<Fix> fixes = {});
    [[noreturn]] void give_up(std::string_view wanted);
    bool accept(TokenKind kind);
    bool accept_word(std::string_view word);
    Token expect(TokenKind kind, std::string_view wanted);
    Word expect_name(std::string_view wanted);
    std::string quoted();
    bool statement_begins_here() const;
    /// Inside brackets and after an operator a statement may go on in the next line.
    void skip_newlines();
    void skip_statement();

    std::string_view source_;
    std::vector<Diagnostic>& diagnostics_;
    std::vector<Token> tokens_;
    std::size_t at_ = 0;
    int braces_ = 0; ///< depth of function bodies: there } ends a statement, too
};

} // namespace kasuri::lang
