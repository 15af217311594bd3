#pragma once
#include <CLI/CLI.hpp>

#include <functional>
#include <span>
#include <string_view>

namespace kasuri::cli {

/// What the shell gets.
enum Exit { good = 0, rule_failed = 1, usage = 2, input_output = 3 };

/// One row: a command of kasuri-cli. `define` adds its options and returns what runs it.
struct Command {
    std::string_view name;
    std::string_view help;
    std::function<int()> (*define)(CLI::App& app);
    std::string_view also{}; ///< another name of it
};

std::span<const Command* const> commands();

} // namespace kasuri::cli
