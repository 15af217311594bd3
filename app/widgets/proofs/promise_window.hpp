#pragma once
#include "model/look_model.hpp"

#include <QDialog>

#include <optional>

class QLabel;
class QMenu;
class QPlainTextEdit;

namespace kasuri::app {

/// What the look promises as a whole, as lines that can be written and picked; measured in the row of proofs. It stays
/// open beside the work.
class PromiseWindow : public QDialog {
    Q_OBJECT
public:
    explicit PromiseWindow(LookModel& look, QWidget* parent = nullptr);
    /// The ready-made ones, each of which is added by a click.
    static void fill_ready_made(QMenu& menu, LookModel& look);

private:
    void take();
    void show_lines();
    QString fault() const;

    LookModel& look_;
    QPlainTextEdit* lines_;
    QLabel* words_;
    bool writing_ = false;
    std::optional<QString> shown_; ///< the lines that were judged
};

} // namespace kasuri::app
