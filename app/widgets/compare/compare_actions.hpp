#pragma once
#include "model/takes.hpp"

class QMenu;
class QWidget;

namespace kasuri::app {

class Bench;

/// What "before" is, and takes: states of the rule to flip to, to see side by side and to write as filters.
class CompareActions : public QObject {
    Q_OBJECT
public:
    CompareActions(Bench& bench, QWidget* window);

    /// What before may be: the picture as it comes, the rule as it is now, another filter.
    void fill(QMenu& menu);
    void with_now();
    void with_file(const QString& file);
    void with_take(int index);
    void remember_take();
    /// All takes as cells of one picture, or back.
    void show_takes();
    /// A filter of its own, with the take's values as defaults.
    bool write_take(int index, const QString& file);

signals:
    void takes_wanted(const std::vector<kasuri::document::KeptTake>& takes);

private:
    void ask_file();

    Bench& bench_;
    QWidget* window_;
};

} // namespace kasuri::app
