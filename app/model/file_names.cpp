#include "model/file_names.hpp"

#include "base/text.hpp"

#include <QStringList>

#include <algorithm>

namespace kasuri::app {
namespace {
constexpr char16_t first_surrogate = 0xdc00;
} // namespace

QString patterns(std::initializer_list<FileKind> kinds) {
    QStringList all;
    for (const FileKind kind : kinds)
        for (const std::string_view ending : endings_of(kind))
            all << "*" + QString::fromUtf8(ending.data(), static_cast<qsizetype>(ending.size()));
    return all.join(' ');
}

bool is_kind(const QString& file, FileKind kind) { return kasuri::is_kind(bytes_of(file), kind); }

QString with_ending(const QString& file, FileKind kind) {
    return file.isEmpty() ? file : text_of(kasuri::with_ending(bytes_of(file), kind));
}

QString text_of(const std::filesystem::path& path) {
    const std::string bytes = path.string();
    QString name;
    for (std::size_t i = 0; i < bytes.size();) {
        const std::size_t letter = letter_length(bytes, i);
        if (letter == 0)
            name += QChar(static_cast<char16_t>(first_surrogate + static_cast<unsigned char>(bytes[i])));
        else
            name += QString::fromUtf8(bytes.data() + i, static_cast<qsizetype>(letter));
        i += std::max<std::size_t>(letter, 1);
    }
    return name;
}

std::string bytes_of(const QString& name) {
    std::string bytes;
    qsizetype plain = 0; // from here on it is as it is
    for (qsizetype i = 0; i <= name.size(); ++i) {
        const bool lone = i < name.size() && name[i].unicode() >= first_surrogate + 0x80 &&
            name[i].unicode() <= first_surrogate + 0xff && (i == 0 || !name[i - 1].isHighSurrogate());
        if (!lone && i < name.size())
            continue;
        bytes += QStringView(name).mid(plain, i - plain).toUtf8().toStdString();
        if (lone)
            bytes += static_cast<char>(name[i].unicode() - first_surrogate);
        plain = i + 1;
    }
    return bytes;
}

QString local_file(const QUrl& url) {
    if (!url.isLocalFile())
        return {};
    const QByteArray bytes = QByteArray::fromPercentEncoding(url.path(QUrl::FullyEncoded).toLatin1());
    return text_of(std::filesystem::path(bytes.toStdString()));
}

QUrl url_of(const QString& name) {
    return QUrl::fromEncoded("file://" + QByteArray::fromStdString(bytes_of(name)).toPercentEncoding("/"));
}

} // namespace kasuri::app
