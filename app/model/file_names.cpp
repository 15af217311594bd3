#include "model/file_names.hpp"

#include <QStringList>

namespace kasuri::app {

QString patterns(std::initializer_list<FileKind> kinds) {
    QStringList all;
    for (const FileKind kind : kinds)
        for (const std::string_view ending : endings_of(kind))
            all << "*" + QString::fromUtf8(ending.data(), static_cast<qsizetype>(ending.size()));
    return all.join(' ');
}

bool is_kind(const QString& file, FileKind kind) { return kasuri::is_kind(file.toStdString(), kind); }

QString with_ending(const QString& file, FileKind kind) {
    return file.isEmpty() ? file : QString::fromStdString(kasuri::with_ending(file.toStdString(), kind));
}

QString text_of(const std::filesystem::path& path) { return QString::fromStdString(path.string()); }

} // namespace kasuri::app
