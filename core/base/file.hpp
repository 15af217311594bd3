#pragma once
#include "base/result.hpp"

#include <cstddef>
#include <filesystem>
#include <functional>
#include <string>
#include <string_view>

namespace kasuri {

/// The ending of a file's name with its dot, in small letters: ".exr".
std::string lower_ending(const std::filesystem::path& path);

/// Reads a whole file; refuses directories and anything longer than `limit` bytes.
Result<std::string> read_file(const std::filesystem::path& path, std::size_t limit);

/// Writes `path` as a whole or not at all: `write` fills a temporary file in the same folder, which is
/// synced and then renamed over `path`. Whatever fails, an existing `path` stays as it was and the temporary is gone.
Status write_atomically(const std::filesystem::path& path,
                        const std::function<Status(const std::filesystem::path& temporary)>& write);

/// Writes `content` by write_atomically.
Status write_file(const std::filesystem::path& path, std::string_view content);

} // namespace kasuri
