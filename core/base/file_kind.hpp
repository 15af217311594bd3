#pragma once
#include <filesystem>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri {

/// What a file is, as its name says.
enum class FileKind {
    filter,     ///< a rule's text
    look,       ///< steps
    lut,        ///< can be a step of a look
    correction, ///< a colour decision list
    config,     ///< of OpenColorIO
    picture,    ///< of a kind that is written, too; others are opened as well
    print,      ///< the ICC profile of a press or printer
    movie,      ///< its frames are pictures (base/movie_name.hpp)
};

/// One row: an ending of file names, with its dot and in small letters. The only list of them: dialogs, what may be
/// dropped, sequences and the command line follow.
struct FileEnding {
    std::string_view ending;
    FileKind kind;
};
std::span<const FileEnding> file_endings();

/// What the name of `path` says, in small or capital letters; nothing if no row has its ending.
std::optional<FileKind> file_kind(const std::filesystem::path& path);
inline bool is_kind(const std::filesystem::path& path, FileKind kind) { return file_kind(path) == kind; }

/// In the order of the table; the first one is what a new file gets.
std::vector<std::string_view> endings_of(FileKind kind);

/// `file` with the first ending of `kind`, unless it has one of them.
std::string with_ending(std::string file, FileKind kind);

} // namespace kasuri
