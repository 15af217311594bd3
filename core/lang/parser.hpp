#pragma once
#include "lang/diagnostic.hpp"
#include "lang/syntax.hpp"

#include <string_view>
#include <vector>

namespace kasuri::lang {

/// Limits that keep every later stage's recursion within a thread's stack.
inline constexpr int deepest_nesting = 200;
inline constexpr int tallest_expression = 1000;

/// Reads a whole rule. Every fault is reported; a statement that cannot be read is left out and reading
/// goes on at the next line, so the tree is usable whatever the text. The grammar stands in docs/language.md
/// and, rule by rule, above the functions of parser.cpp.
Tree parse(std::string_view source, std::vector<Diagnostic>& diagnostics);

/// Reads a single expression (the command line's --print); the root is the last expression of the tree.
ExprId parse_expression(std::string_view source, Tree& tree, std::vector<Diagnostic>& diagnostics);

} // namespace kasuri::lang
