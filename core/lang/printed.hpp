#pragma once
#include "lang/lexer.hpp"
#include "lang/rule.hpp"
#include "lang/signature.hpp"

#include <span>
#include <string>
#include <string_view>

namespace kasuri::lang {

// What each stage made of a text, for people: `kasuri-cli explain` and tests. (The tree's is in syntax.hpp.)

/// A token a line: line:column, kind, text.
std::string printed(std::span<const Token> tokens, std::string_view source);

/// "constant", "per picture", "per pixel"
std::string_view word(Rate rate);

/// Parameters, functions and steps; under each step its expression, a node a line with its type, and its rate where
/// that is known and not "per pixel".
std::string printed(const Rule& rule, const Vocabulary& vocabulary);

} // namespace kasuri::lang
