#pragma once
#include "base/file_kind.hpp"

#include <QString>
#include <QUrl>

#include <initializer_list>

namespace kasuri::app {

/// "*.kasuri *.kasurilook", for a file dialog.
QString patterns(std::initializer_list<FileKind> kinds);
bool is_kind(const QString& file, FileKind kind);
/// `file` with the first ending of `kind`, unless it has one of them; nothing stays nothing.
QString with_ending(const QString& file, FileKind kind);

// Names of files are bytes, and may be no UTF-8: a byte that is none stands in a text as a lone surrogate, U+DC80 to
// U+DCFF, as PEP 383 has it, and comes back as the byte that it was.
QString text_of(const std::filesystem::path& path);
std::string bytes_of(const QString& name);
/// Of a local file; nothing of any other.
QString local_file(const QUrl& url);
QUrl url_of(const QString& name);

} // namespace kasuri::app
