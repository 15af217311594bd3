#include "model/recent.hpp"

#include "model/file_names.hpp"

#include <QFileInfo>
#include <QSettings>

namespace kasuri::app {
namespace {
constexpr int kept = 10;
}

QStringList recent_files() {
    QStringList files = QSettings().value("recent").toStringList();
    files.removeIf([](const QString& file) {
        std::error_code code;
        return !std::filesystem::exists(bytes_of(file), code);
    });
    return files;
}

void remember_file(const QString& file) {
    QSettings settings;
    QStringList recent = settings.value("recent").toStringList();
    const QString whole = QFileInfo(file).absoluteFilePath();
    recent.removeAll(whole);
    recent.prepend(whole);
    settings.setValue("recent", recent.mid(0, kept));
}

} // namespace kasuri::app
