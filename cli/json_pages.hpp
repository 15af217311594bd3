#pragma once
#include <string>

namespace kasuri::cli {

/// docs/json.md: what --json of each command writes, field by field, made from the tables beside the commands.
std::string json_page();

/// The same as a JSON Schema (draft 7), of one line of what is written.
std::string json_schema();

} // namespace kasuri::cli
