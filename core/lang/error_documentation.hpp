#pragma once
#include "lang/signature.hpp"

#include <string>

namespace kasuri::lang {

/// docs/errors.md: every row of code_table(), with what is really said about its example.
std::string error_documentation(const Vocabulary& vocabulary);

} // namespace kasuri::lang
