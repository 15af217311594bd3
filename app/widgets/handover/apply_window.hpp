#pragma once
#include "model/apply_model.hpp"
#include "model/look_model.hpp"
#include "model/sheet.hpp"

#include <QDialog>
#include <QTimer>

class QComboBox;
class QCheckBox;
class QLabel;
class QLineEdit;
class QListView;
class QProgressBar;
class QGridLayout;
class QHBoxLayout;
class QPushButton;

namespace kasuri::app {

/// Applies the rule or the look on the bench to many pictures: a contact sheet of how they come out, and their
/// rendering to files with progress and a way to call it off. Stays open beside the work and follows it.
class ApplyWindow : public QDialog {
    Q_OBJECT
public:
    ApplyWindow(Session& session, LookModel& look, const SheetModel& sheet, QWidget* parent = nullptr);
    ApplyModel& model() { return *model_; }
    void set_inputs(const QStringList& inputs);
    void set_output(const QString& output);
    /// Begins, or calls off what is going on.
    void render_or_cancel();
    QString words() const;

protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    QPushButton* button(const QString& text);
    QHBoxLayout* input_row();
    void make_list();
    QGridLayout* output_grid();
    QHBoxLayout* option_row();
    void make_progress();
    QHBoxLayout* last_row();
    void follow_bench();
    void connect_model();
    void say_finished();
    void take_subject();
    void say(const QString& text, bool bad);

    Session& session_;
    LookModel& look_;
    const SheetModel& sheet_;
    ApplyModel* model_;
    QTimer pause_;
    QLabel* from_;
    QListView* list_;
    QLineEdit* output_;
    QComboBox* kind_;
    QLineEdit* frames_;
    QLineEdit* rate_;
    QCheckBox* resume_;
    QProgressBar* progress_;
    QLabel* words_;
    QPushButton* go_;
};

} // namespace kasuri::app
