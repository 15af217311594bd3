#pragma once
#include <QDialog>
#include <QString>

#include <functional>
#include <span>
#include <vector>

class QLabel;

namespace kasuri::app {

class Bench;
class Files;
class LibraryPanel;
class RuleEditor;

/// What settings are set of.
struct SettingsOf {
    Bench& bench;
    Files& files;
    LibraryPanel& library;
    RuleEditor& editor;
};

/// The control of one setting: shows what is, tells at once what is chosen.
struct PreferenceControl {
    QWidget* widget;
    std::function<void()> refresh; ///< shows what is in force
    std::function<void()> usual =
        {}; ///< puts back what it is when nobody has chosen; null where there is no such thing
};

/// One row: a setting of the program.
struct PreferenceRow {
    const char* id; ///< also the name of its control
    const char* group;
    const char* title;
    const char* doc;
    PreferenceControl (*make)(QWidget* parent, const SettingsOf& of);
};
std::span<const PreferenceRow> preference_table();

/// All settings in one window beside the work. Everything takes effect at once and is remembered; nothing has to be
/// confirmed.
class PreferencesWindow : public QDialog {
    Q_OBJECT
public:
    PreferencesWindow(const SettingsOf& of, QWidget* parent);

private:
    void refresh();

    std::vector<PreferenceControl> controls_;
};

} // namespace kasuri::app
