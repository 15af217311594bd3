#pragma once
#include "document/look_file.hpp"

#include <string>
#include <string_view>

namespace kasuri::document {

/// The quoted texts that stand behind `word` at the beginnings of lines, in order.
std::vector<std::string> strings_after(std::string_view text, std::string_view word);

/// The title that a rule's text gives itself (`filter "..."`), without checking it; empty: none.
std::string title_in(std::string_view text);

/// The names of files that a rule's text uses (`use "..."`), in order.
std::vector<std::string> uses_in(std::string_view text);

/// Copies into the step what its rule uses, and what that uses in its turn; what is copied already stays as it is, and
/// what cannot be read is left out.
std::vector<std::string> keep_used_files(LookStep& step);

} // namespace kasuri::document
