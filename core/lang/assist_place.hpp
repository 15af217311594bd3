#pragma once
#include "lang/assist.hpp"
#include "lang/lexer.hpp"

namespace kasuri::lang {

/// What a name that is known at a place is.
struct KnownName {
    CompletionKind kind{};
    std::string name;
    Type type;
    std::string detail; ///< "hsv, per pixel", "0 .. 1"
    std::string doc;
    std::vector<std::string> options; ///< of a choice
};

/// The surroundings of a byte of a text: the words of its statement before it, and the names that are known there.
class AssistPlace {
public:
    AssistPlace(std::string_view source, std::size_t at, const Vocabulary& vocabulary, const CheckOptions& options);

    std::string_view source;
    std::uint32_t at;
    const Vocabulary& vocabulary;
    const CheckOptions& options;
    std::vector<Token> tokens; ///< without comments
    bool in_text = false;      ///< inside a comment, a string or a number: nothing is offered
    std::size_t word = 0;      ///< the token at the place, or the one that would stand there
    bool has_word = false;     ///< there is one
    std::size_t first = 0;     ///< the token its statement begins with
    bool in_function = false;

    std::string_view text(std::size_t token) const { return text_of(source, tokens[token].span); }
    Span word_span() const { return has_word ? tokens[word].span : Span{at, at}; }
    TokenKind kind_before(std::size_t back = 1) const {
        return word >= first + back ? tokens[word - back].kind : TokenKind::newline;
    }
    std::string_view statement() const {
        return first < tokens.size() && first < word ? text(first) : std::string_view();
    }
    /// Whether a token of this kind stands in the statement before the word, outside brackets.
    bool after(TokenKind kind) const;
    bool after_word(std::string_view wanted) const;
    /// The nearest first: own names, then inputs.
    const std::vector<KnownName>& names() const { return names_; }
    const KnownName* find(std::string_view name) const;
    std::span<const FunctionPtr> functions() const { return checked_.rule.functions; }
    /// What stands before the dot at token `dot`: its first token.
    std::size_t operand_of(std::size_t dot) const;
    /// The type of the text between two tokens of the rule (in a function: of single names only).
    Type type_of(std::size_t begin, std::size_t end) const;

private:
    void collect();

    Checked checked_;
    std::vector<KnownName> names_;
};

/// "per pixel" and the like, behind a type.
std::string described(Type type, Rate rate);

} // namespace kasuri::lang
