#pragma once
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri {

/// Fewest single-character insertions, deletions, replacements and neighbour swaps from `a` to `b`
/// (optimal string alignment distance).
int edit_distance(std::string_view a, std::string_view b);

/// The candidate nearest to `word`, if near enough to be meant (at most a third of it changed, at least one).
std::optional<std::string> did_you_mean(std::string_view word, std::span<const std::string> candidates);

/// `value` with `digits` significant digits in the C locale; nan, inf and -inf by those words.
std::string number_text(double value, int digits);

/// A finite or non-finite number that is the whole of `text` (C locale, outer blanks allowed).
std::optional<double> parse_number(std::string_view text);

/// How many bytes the UTF-8 letter at byte `at` takes; 0 if there is none that is well-formed (Unicode 15, table 3-7).
std::size_t letter_length(std::string_view text, std::size_t at);

/// For files that must be UTF-8: U+FFFD in place of every byte that is none.
std::string well_formed(std::string_view text);

/// For a terminal, one line of it: control characters, and bytes that are no UTF-8, as \\xNN; what is longer than
/// `longest` bytes is cut, and ends with "...".
std::string printable(std::string_view text, std::size_t longest = 400);

/// Without white space at either end.
std::string_view trimmed(std::string_view text);
/// The parts between separators, empty ones included; of an empty text one empty part.
std::vector<std::string_view> split(std::string_view text, char separator);

/// 1-based line and column (columns count Unicode code points) of a byte offset.
struct LineColumn {
    int line = 1;
    int column = 1;
};
LineColumn line_column(std::string_view text, std::size_t offset);

} // namespace kasuri
