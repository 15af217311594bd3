#pragma once
#include <string>

namespace kasuri::cli {

/// The manual page kasuri-cli(1), in the man macros, made from the table of commands and what they define.
std::string manual_page();

/// Completion for shells: short scripts that ask `kasuri-cli complete` and show what it answers.
std::string bash_completion();
std::string zsh_completion();
std::string fish_completion();

} // namespace kasuri::cli
