#pragma once
#include "lang/rule.hpp"

#include <QWidget>

#include <string>
#include <vector>

class QGridLayout;
class QLabel;
class QMenu;
class QScrollArea;
class QToolButton;

namespace kasuri::app {

class Heading;
class NumberField;
class Session;
class Tuning;
class ValueEditor;

/// The parameters of the rule: an editor for its kind and a reset for each; presets in the heading.
class ValuesPanel : public QWidget {
    Q_OBJECT
public:
    ValuesPanel(Session& session, Tuning& tuning, QWidget* parent = nullptr);
    /// What can be done with how a value is set: links, ranges.
    void fill_row_menu(QMenu& menu, const std::string& name);
    ValueEditor* editor(const std::string& name) const; ///< null if there is no such parameter
    NumberField* field(const std::string& name) const;  ///< null if there is none that is typed

private:
    struct Row {
        lang::Parameter parameter; ///< with the range over which it is set
        bool linked = false;
        QWidget* widget = nullptr;
        ValueEditor* editor = nullptr;
        QToolButton* reset = nullptr;
        /// Whether the same row would be built.
        bool same(const Row& other) const {
            const lang::Parameter &a = parameter, &b = other.parameter;
            return a.name == b.name && a.kind == b.kind && a.description == b.description && a.low == b.low &&
                a.high == b.high && a.step == b.step && a.value == b.value && a.options == b.options &&
                linked == other.linked;
        }
    };
    void rebuild();
    void refresh();
    void show_presets();
    void fill_presets(QMenu& menu);

    Session& session_;
    Tuning& tuning_;
    Heading* heading_;
    QToolButton* presets_;
    QWidget* list_;
    QLabel* none_;
    std::vector<Row> rows_;
};

} // namespace kasuri::app
