#pragma once
#include <QWidget>

#include <string>
#include <vector>

class QGridLayout;
class QLabel;
class QScrollArea;
class QToolButton;

namespace kasuri::app {

class Heading;
class NumberField;
class RangeBar;
class Session;

/// The parameters of the rule: a number, its range and a reset for each; presets in the heading.
class ValuesPanel : public QWidget {
    Q_OBJECT
public:
    explicit ValuesPanel(Session& session, QWidget* parent = nullptr);
    NumberField* field(const std::string& name) const; ///< null if there is no such parameter

private:
    struct Row {
        std::string name, description;
        double low, high, step, start;
        QWidget* widget;
        NumberField* field;
        RangeBar* bar;
        QToolButton* reset;
        bool same(const Row& other) const {
            return name == other.name && description == other.description && low == other.low && high == other.high &&
                   step == other.step && start == other.start;
        }
    };
    void rebuild();
    void refresh();
    void show_presets();

    Session& session_;
    Heading* heading_;
    QToolButton* presets_;
    QWidget* list_;
    QLabel* none_;
    std::vector<Row> rows_;
};

} // namespace kasuri::app
