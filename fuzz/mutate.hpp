#pragma once
#include <random>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::fuzz {

using Random = std::mt19937;

/// Files to begin with: the shipped filters, the cases of the language's tests, the shipped looks (by ending), in order
/// of their names.
std::vector<std::string> seeds(std::string_view ending);

/// A rule, or what becomes of one: from the grammar or one of `from`, its words and lines changed, doubled, exchanged,
/// taken out, or replaced by others of the language. Most are nearly right, as while somebody writes.
std::string rule_text(const std::vector<std::string>& from, Random& random);

/// Changes of the same kind to any text, word by word.
std::string with_words_changed(std::string text, Random& random);

/// A JSON, XML or table text with its values, keys and pieces exchanged, doubled, taken out, nested or made extreme.
std::string with_values_changed(std::string text, Random& random);

/// Bytes changed, taken out, cut off: of pictures and other files that are no text.
std::string with_bytes_changed(std::string bytes, Random& random);

} // namespace kasuri::fuzz
