#pragma once
#include "model/session.hpp"

#include <QWidget>

class QLabel;

namespace kasuri::app {

class Heading;
class EditorAssist;
class EditorCommands;
class FileWatch;
class FindBar;
class ColourPicker;
class RuleEditor;

/// The left column's upper part: the editor, and one line of what is understood about the rule.
class RulePanel : public QWidget {
    Q_OBJECT
public:
    explicit RulePanel(Session& session, FileWatch& watch, QWidget* parent = nullptr);
    RuleEditor* editor() const { return editor_; }
    EditorAssist* assist() const { return assist_; }
    EditorCommands* commands() const { return commands_; }
    FindBar* find_bar() const { return find_; }
    ColourPicker* picker() const { return picker_; }
    void open_picker();
    /// What the rule is called as a step of a look; empty: as its file.
    void set_name(const QString& name);
    /// What the last sheet found out: the work per pixel, and whether it changes anything.
    void show_sheet(std::size_t operations, bool identity);
    void show_understood(const std::string& words);
    /// What the line says, for tests.
    QString understood() const;

private:
    void refresh();

    Session& session_;
    Heading* heading_;
    RuleEditor* editor_;
    EditorAssist* assist_;
    EditorCommands* commands_;
    FindBar* find_;
    ColourPicker* picker_;
    QLabel* understood_;
    std::size_t operations_ = 0;
    bool identity_ = false;
    QString known_;
    QString name_;
};

} // namespace kasuri::app
