#pragma once
#include "arguments.hpp"

#include <functional>
#include <span>
#include <string_view>

namespace kasuri::cli {

/// What the shell gets.
enum Exit {
    good = 0,
    rule_failed = 1,
    usage = 2,
    input_output = 3,
    not_measured = 4, ///< neither good nor bad: what it would have been measured on is not there
};

/// One row: a command of kasuri-cli. `define` adds its options and returns what runs it.
struct Command {
    std::string_view name;
    std::string_view help;
    std::function<int()> (*define)(Arguments& arguments);
    std::string_view also{}; ///< another name of it
};

std::span<const Command* const> commands();

} // namespace kasuri::cli
