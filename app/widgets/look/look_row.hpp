#pragma once
#include <QString>
#include <QWidget>

class QLabel;
class QToolButton;

namespace kasuri::app {

class LookActions;
class LookLine;
class LookModel;

/// The line of a look under the first line: its steps, a further one, what they amount to, and whether all of them are
/// shown. Not there for a filter by itself.
class LookRow : public QWidget {
    Q_OBJECT
public:
    LookRow(LookModel& look, LookActions& actions, QWidget* parent = nullptr);
    LookLine* line() const { return line_; }
    /// What is certain of the whole; its first line is shown.
    void show_amounts(const QString& amounts);
    const QString& amounts() const { return amounts_; }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void refresh();

    LookModel& look_;
    LookLine* line_;
    QToolButton* add_;
    QLabel* sums_;
    QToolButton* here_;
    QString amounts_;
};

} // namespace kasuri::app
