#pragma once
#include "base/result.hpp"

#include <filesystem>
#include <functional>
#include <string>
#include <string_view>

namespace kasuri::document {

/// Reads the text of a filter. Must be UTF-8 without zero bytes and not longer than the language's limit;
/// a byte order mark is dropped and \r\n becomes \n.
Result<std::string> load_filter(const std::filesystem::path& path);
/// The same of what stood in a file; `where` is what errors name as the place.
Result<std::string> filter_text(std::string content, const std::string& where);

/// What `use "NAME"` in a filter at `path` opens: a filter file beside it. Names stay within its folder and below.
std::function<Result<std::string>(const std::string&)> used_beside(const std::filesystem::path& path);

/// Writes it whole or not at all.
Status save_filter(const std::filesystem::path& path, std::string_view text);

/// The text that a new filter begins with: does nothing, and says so in its proofs.
std::string new_filter_text();

/// Whether all of `text` is well-formed UTF-8; otherwise the offset of the first byte that is not.
std::size_t utf8_fault(std::string_view text);

} // namespace kasuri::document
