#pragma once
#include "model/way_back.hpp"

#include <QDialog>
#include <QTimer>

class QCheckBox;
class QLabel;
class QPlainTextEdit;
class QPushButton;
class QRadioButton;

namespace kasuri::app {

class Bench;

/// The rule that takes the active step off again, or the look that takes all of them off: what it says, how exact it
/// is, what cannot come back, and ways to use it. Stays open beside the work and follows it.
class WayBackWindow : public QDialog {
    Q_OBJECT
public:
    WayBackWindow(Bench& bench, QWidget* parent = nullptr);

    void choose_all(bool all);
    /// Tables also where a rule cannot be solved.
    void allow_tables(bool allow);
    void find();
    /// Behind the step, or behind all of them: the picture is back.
    void put_behind();
    Status save(const QString& file);
    WayBack& model() { return model_; }
    QString words() const;
    QString text() const;

protected:
    void showEvent(QShowEvent* event) override;

private:
    document::Look asked() const;
    void ask_save();
    void show_state();

    Bench& bench_;
    WayBack model_;
    QTimer later_;
    bool behind_ = false; ///< it has just been put there: the steps on the bench are not what it is asked of
    QRadioButton *step_, *all_;
    QCheckBox* tables_;
    QLabel* words_;
    QPlainTextEdit* text_;
    QPushButton *put_, *save_, *again_;
};

} // namespace kasuri::app
