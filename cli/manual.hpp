#pragma once
#include <string>

namespace kasuri::cli {

/// The manual page kasuri-cli(1), in the man macros, made from the table of commands and what they define.
std::string manual_page();

/// Completion for bash: commands, their options, and files.
std::string bash_completion();

} // namespace kasuri::cli
