#pragma once
#include <optional>
#include <string>
#include <string_view>

namespace kasuri::lang {

/// The rule in its canonical form: single spaces around operators and after commas, four spaces for each level of a
/// function's body, lines that go on under the bracket they belong to, one blank line at most, comments where they
/// were, two spaces before a trailing one. Columns that the author made stay: in declarations, in brackets over
/// several lines, before trailing comments. Formatting twice changes nothing more, and the meaning never changes.
/// Nothing for a text that cannot be read: what is broken is not touched.
std::optional<std::string> formatted(std::string_view source);

} // namespace kasuri::lang
