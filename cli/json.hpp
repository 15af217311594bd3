#pragma once
#include "arguments.hpp"
#include "base/setting.hpp"

#include <nlohmann/json.hpp>

#include <span>
#include <string>

namespace kasuri::cli {

using Json = nlohmann::ordered_json;

/// Adds --json, which a command answers with one JSON value on standard output; what goes wrong stays on
/// standard error.
void define_json(Arguments& arguments, bool& wanted, const std::string& what = "One JSON value instead of words");

/// JSON (RFC 8259) has no NaN and no infinity: they are the strings "nan", "inf" and "-inf", as in CSV.
Json json_number(double value);
Json json_numbers(std::span<const double> values);
Json json_numbers(std::span<const float> values);

/// What there is to be set.
Json json_settings(std::span<const Setting> settings);

/// On one line; text that is not UTF-8 is mended. Returns the exit code: that of the command, unless it
/// cannot be written.
int print_json(const Json& value, int exit = 0);

} // namespace kasuri::cli
