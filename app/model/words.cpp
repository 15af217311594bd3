#include "model/words.hpp"

#include "model/lens.hpp"

#include <QCoreApplication>

#include <string>

namespace kasuri::app {

QString words(std::string_view text) {
    return text.empty() ? QString() : QCoreApplication::translate("Tables", std::string(text).c_str());
}

QString counted(int count, const QString& one, const QString& many) { return count == 1 ? one : many.arg(count); }

QString lens_caption(const Lens& lens, bool with_range) {
    const QString whole = QString::fromStdString(caption(lens)), title = QString::fromStdString(lens.title);
    return words(lens.title) + (with_range ? whole.mid(title.size()) : QString());
}

} // namespace kasuri::app
