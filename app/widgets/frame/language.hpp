#pragma once
#include <QList>
#include <QString>

class QCoreApplication;

namespace kasuri::app {

/// A language of the window, by the name of its locale ("de"), as it calls itself.
struct Language {
    QString name, title;
};
/// English, in which everything is written, and those whose translations lie beside the program.
QList<Language> languages();

/// The one that was chosen in the settings; empty: the system's. Counts from the next start on.
QString chosen_language();
void choose_language(const QString& name);

/// Window, core and toolkit speak it from here on. To be called once, before there is a window.
void speak_chosen_language(QCoreApplication& application);
/// The same for one that is named; false if there is no translation of it (of English there is none).
bool speak(QCoreApplication& application, const QString& name);

} // namespace kasuri::app
