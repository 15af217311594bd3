#pragma once
#include "arguments.hpp"
#include "base/setting.hpp"

#include <nlohmann/json.hpp>

#include <span>
#include <string>
#include <vector>

namespace kasuri::cli {

using Json = nlohmann::ordered_json;

/// Adds --json.
void define_json(Arguments& arguments, bool& wanted, Answers answers,
                 const std::string& what = "One JSON value instead of words: docs/json.md");

/// JSON (RFC 8259) has no NaN and no infinity: they are the strings "nan", "inf" and "-inf", as in CSV.
Json json_number(double value);
Json json_numbers(std::span<const double> values);
Json json_numbers(std::span<const float> values);

/// What there is to be set.
Json json_settings(std::span<const Setting> settings);

/// A line before the answer.
void print_json_line(const Json& value);

/// The answer, on one line; text that is not UTF-8 is mended. Returns the exit code: that of the command, unless it
/// cannot be written.
int print_json(const Json& result, int exit = 0);

/// An answer without a result, if none has been written; for when the command is over.
int finish_json(int exit);

} // namespace kasuri::cli
