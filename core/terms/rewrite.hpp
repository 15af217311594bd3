#pragma once
#include "base/span.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace kasuri::terms {

/// The statements of a text that do work (let, assignments, keep, hold), in order; those within functions are left out.
std::vector<Span> working_statements(std::string_view text);

/// The text with something else in the place of a statement; without its line, and the comments right above it, if it
/// has the line to itself and nothing comes in its place.
std::string with_statement(std::string_view text, Span statement, const std::string& by);

/// With these statements in the place of all that do work; at the end if there are none.
std::string with_statements(std::string_view text, const std::string& by);

} // namespace kasuri::terms
