#pragma once
#include "base/span.hpp"
#include "lang/diagnostic.hpp"

#include <string_view>
#include <vector>

namespace kasuri::lang {

enum class TokenKind {
    end,
    newline,
    comment,
    name,
    keyword,
    number,
    string,
    // punctuation and operators
    open,
    close,
    open_brace,
    close_brace,
    comma,
    dot,
    dots,
    question,
    colon,
    assign,
    add_assign,
    sub_assign,
    mul_assign,
    div_assign,
    plus,
    minus,
    star,
    slash,
    less,
    less_equal,
    greater,
    greater_equal,
    equal,
    not_equal,
    logical_and,
    logical_or,
    logical_not,
    semicolon,
    bad,
};

struct Token {
    TokenKind kind = TokenKind::end;
    Span span;
};

/// Longest rule that is read, in bytes.
inline constexpr std::size_t longest_text = std::size_t{1} << 20;

/// Every token of `source` in order, comments included, ended by one `end`. Faults go to `diagnostics`
/// (which may be null: the highlighter only wants the tokens). The same tokens feed parser and highlighter.
std::vector<Token> lex(std::string_view source, std::vector<Diagnostic>* diagnostics);

/// Whether a word cannot be a name; and all of those.
bool is_keyword(std::string_view word);
std::span<const std::string_view> keywords();

} // namespace kasuri::lang
