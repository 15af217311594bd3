#pragma once
#include "document/edit.hpp"

namespace kasuri::document {

/// One row: lines that do a usual piece of work, to be written into a rule and changed there. A name that begins with @
/// gets a name that the text does not have yet; $ is where the caret goes.
struct Recipe {
    std::string_view id, title, doc, text;
};

/// All rows, in the order of the menu.
std::span<const Recipe> recipes();

struct Written {
    TextEdit edit;
    std::size_t caret = 0;
};

/// Writes it below the line that byte `at` is in; where that line is one of several of one statement, below them.
Written with_recipe(std::string_view text, std::size_t at, const Recipe& recipe);

/// A line below everything else.
Written with_last_line(std::string_view text, std::string_view line);

} // namespace kasuri::document
