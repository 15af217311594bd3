#pragma once
#include "model/fit_model.hpp"
#include "model/fit_on_sheet.hpp"

#include <QDialog>

class QCheckBox;
class QLabel;
class QPlainTextEdit;
class QPushButton;
class QTableView;
class QToolButton;

namespace kasuri::app {

class Bench;
class ChartWindow;
class PlotView;

/// Finds the rule behind a LUT, a table of colours, two pictures, a chart in a picture or what is on the bench:
/// candidates from simple to exact, the text of the chosen one, and ways onto the bench. Stays open beside the work;
/// files can be dropped on it.
class FitWindow : public QDialog {
    Q_OBJECT
public:
    FitWindow(Bench& bench, QWidget* parent = nullptr);

    void find_of_bench();
    /// One LUT, look, filter or table, or two pictures: before and after.
    void find(const QStringList& files);
    /// The window where the corners of a chart are put; a picture of the sheet is in it, if there is one.
    ChartWindow& chart();
    void choose(int row);
    int chosen() const;
    /// The chosen rule in the place of the one on the bench; behind a LUT, which is then switched off.
    void take();
    /// The chosen rule, and behind it a table for what it leaves, as steps; once that is worked out.
    void take_with_rest();
    /// All rows as takes of the rule on the bench.
    void keep_as_takes();
    FitModel& model() { return model_; }
    QString words() const;
    QString text() const;
    /// Where the chosen rule is off: on the plane, or in the room.
    void show_room(bool room);
    /// The chosen rule goes on the bench, before becomes what it was found of, and a cell shows the difference.
    void see_on_sheet();
    PlotView* plot() const { return plot_; }
    QToolButton* options_button() const { return options_button_; }

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    QWidget* sources();
    QToolButton* space_button();
    QToolButton* options_menu();
    QWidget* results();
    void show_residual();
    void put_rest();
    void ask_file();
    void ask_pictures();
    void again();
    void show_state();
    void show_chosen();
    FitSource source() const;

    Bench& bench_;
    FitModel model_;
    QStringList files_;                      ///< what was asked for; empty: the bench
    std::string space_;                      ///< of the files' numbers, if it was said
    std::optional<document::Look> asked_of_; ///< the bench as it was when it was asked of
    bool asked_ = false, of_chart_ = false;
    ChartWindow* chart_ = nullptr;
    QTableView* table_;
    QPlainTextEdit* text_;
    QLabel* words_;
    QCheckBox* all_;
    QPushButton *take_, *takes_, *rest_, *stop_;
    QToolButton *space_button_, *options_button_, *view_, *on_sheet_;
    PlotView* plot_;
    QLabel* plot_words_;
    bool room_ = false;
    int taken_ = -1; ///< the row that went onto the bench
};

} // namespace kasuri::app
