#pragma once
#include "base/result.hpp"

#include <nlohmann/json.hpp>
#include <string>
#include <string_view>

namespace kasuri::document {

using Json = nlohmann::ordered_json;

/// Levels of a JSON text that is read: what we write has three, and two for every look within a look.
inline constexpr int deepest_json = 64;

/// The JSON object of a text, whose values may be walked by recursion. Errors, with their place: it nests deeper than
/// `deepest_json`, it is no JSON (with line and column), it is no object. `remedy`: what the user can do.
Result<Json> json_object(std::string_view text, const std::string& where, const std::string& remedy);

/// A whole number under a key, of any size; `usual` if there is none.
std::int64_t whole_number(const Json& object, const char* key, std::int64_t usual);

} // namespace kasuri::document
