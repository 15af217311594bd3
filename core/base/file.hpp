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

/// An error unless it is a regular file (or a link to one) that can be opened: what says why not.
Status readable_file(const std::filesystem::path& path);

/// An error unless it is a folder whose names can be listed: what says why not.
Status readable_folder(const std::filesystem::path& path);

/// Reads a whole file; refuses what is no regular file, without waiting for it, and anything longer than `limit` bytes.
Result<std::string> read_file(const std::filesystem::path& path, std::size_t limit);

/// Writes `path` as a whole or not at all: `write` fills a temporary file in the same folder, which is there and empty,
/// is synced and then renamed over `path`. Whatever fails, an existing `path` stays as it was and the temporary is
/// gone. A link is followed, also to a file that is not there yet. Into a device, a pipe or a socket all of it is
/// written when `write` has done its work; nothing takes their place.
/// `lasts`: what it is to outlast. For a power loss the disk is waited for; without, it takes what the system has
/// for it when it comes to it, and a program that is killed has lost nothing.
enum class Lasts { power_loss, end_of_program };
Status write_atomically(const std::filesystem::path& path,
                        const std::function<Status(const std::filesystem::path& temporary)>& write,
                        Lasts lasts = Lasts::power_loss);

/// Writes `content` by write_atomically.
Status write_file(const std::filesystem::path& path, std::string_view content, Lasts lasts = Lasts::power_loss);

/// What temporaries begin with: hidden, and never a file that anybody means.
inline constexpr std::string_view temporary_prefix = ".kasuri-";
/// Whether it is one, left behind by a program that was killed.
bool is_temporary(const std::filesystem::path& path);

/// Removes those that nobody is writing any more; how many.
std::size_t remove_stale_temporaries(const std::filesystem::path& folder);

} // namespace kasuri
