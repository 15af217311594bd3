#pragma once
#include "base/result.hpp"

#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::document {

/// What a library knows of a filter or a look without checking it.
struct LibraryEntry {
    std::filesystem::path path;
    std::uintmax_t size = 0;
    std::int64_t changed = 0; ///< time of the file, for noticing that it is another one
    std::string text;         ///< of a filter
    std::string title;        ///< its own, else the file's name
    std::string note;
    std::string tags;
    std::string working;              ///< of a filter; empty: the usual one
    std::vector<std::string> presets; ///< titles
    std::vector<std::string> calls;   ///< functions that it calls, in order, each once
    bool is_look = false;
    std::size_t steps = 1;
    std::string fault{}; ///< why it cannot be read
};

/// The most files that one folder of a library may have, and how deep it is searched.
inline constexpr std::size_t max_in_library = 20'000;
inline constexpr int deepest_folder = 6;

/// Filters and looks in a folder and below, by path. What cannot be read is left out; links to folders are not
/// followed.
std::vector<std::filesystem::path> library_files(const std::filesystem::path& folder);
/// That folder and those below it, where such files may come.
std::vector<std::filesystem::path> library_folders(const std::filesystem::path& folder);

/// Reads one. A file that cannot be read is an entry with its fault.
LibraryEntry library_entry(const std::filesystem::path& path);
/// Whether the file is still the one that was read.
bool same_file(const LibraryEntry& entry);

/// Whether every word of the query is found in title, note, tags, presets, functions, working space or file name;
/// letters of both cases are the same. An empty query matches everything.
bool matches(const LibraryEntry& entry, std::string_view query);

/// A name beside `path` that is free: "dip-2.kasuri", "dip-3.kasuri" ...
std::filesystem::path free_name(const std::filesystem::path& path);

} // namespace kasuri::document
