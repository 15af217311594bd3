#include "widgets/frame/language.hpp"

#include "base/said.hpp"

#include <QCoreApplication>
#include <QDir>
#include <QLibraryInfo>
#include <QLocale>
#include <QSettings>
#include <QTranslator>

#include <string>

namespace kasuri::app {
namespace {

QString folder() { return QCoreApplication::applicationDirPath() + "/../share/kasuri/translations"; }

std::string in_window_language(std::string_view text) {
    return QCoreApplication::translate("Core", std::string(text).c_str()).toStdString();
}

} // namespace

QList<Language> languages() {
    QList<Language> all{{"en", "English"}};
    for (const QString& file : QDir(folder()).entryList({"kasuri_*.qm"}, QDir::Files, QDir::Name)) {
        const QString name = file.mid(7).chopped(3);
        QString title = QLocale(name).nativeLanguageName();
        title[0] = title[0].toUpper();
        all << Language{name, title};
    }
    return all;
}

QString chosen_language() { return QSettings().value("language").toString(); }

void choose_language(const QString& name) {
    name.isEmpty() ? QSettings().remove("language") : QSettings().setValue("language", name);
}

bool speak(QCoreApplication& application, const QString& name) {
    auto* ours = new QTranslator(&application);
    if (!ours->load("kasuri_" + name, folder())) {
        delete ours;
        return false;
    }
    QCoreApplication::installTranslator(ours);
    set_translator(in_window_language);
    // The toolkit's own dialogs and names of keys, where the system has them.
    auto* toolkit = new QTranslator(&application);
    if (toolkit->load("qtbase_" + name, QLibraryInfo::path(QLibraryInfo::TranslationsPath)))
        QCoreApplication::installTranslator(toolkit);
    return true;
}

void speak_chosen_language(QCoreApplication& application) {
    if (const QString chosen = chosen_language(); !chosen.isEmpty()) {
        speak(application, chosen);
        return;
    }
    for (const QString& wished : QLocale().uiLanguages()) { // the system's, the dearest first
        const QString name = wished.section('-', 0, 0);
        if (name == "en" || speak(application, name))
            return;
    }
}

} // namespace kasuri::app
