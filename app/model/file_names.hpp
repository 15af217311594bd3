#pragma once
#include "base/file_kind.hpp"

#include <QString>

#include <initializer_list>

namespace kasuri::app {

/// "*.kasuri *.kasurilook", for a file dialog.
QString patterns(std::initializer_list<FileKind> kinds);
bool is_kind(const QString& file, FileKind kind);
/// `file` with the first ending of `kind`, unless it has one of them; nothing stays nothing.
QString with_ending(const QString& file, FileKind kind);
QString text_of(const std::filesystem::path& path);

} // namespace kasuri::app
