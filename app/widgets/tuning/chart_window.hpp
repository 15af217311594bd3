#pragma once
#include "model/chart_model.hpp"

#include <QDialog>

class QLabel;
class QPushButton;
class QToolButton;

namespace kasuri::app {

class ChartView;
class NumberField;

/// A chart in a picture: its four corners put by hand, and what it is compared with. Stays open beside the work;
/// pictures can be dropped on it.
class ChartWindow : public QDialog {
    Q_OBJECT
public:
    explicit ChartWindow(QWidget* parent = nullptr);

    /// The picture of the chart; `space`: what its numbers mean, empty: what the file says.
    void open(const QString& file, const std::string& space = {});
    /// The same chart in another picture, instead of published values.
    void open_other(const QString& file);
    ChartModel& model() { return model_; }
    ChartView* view(ChartModel::Side side) const { return views_[side]; }
    NumberField* field(int axis) const { return fields_[static_cast<std::size_t>(axis)]; }
    QString words() const;

signals:
    /// The corners are put: find the rule.
    void wanted();

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    QWidget* sources();
    QWidget* corner_row();
    void fill_against();
    void ask_picture(ChartModel::Side side);
    void ask_values();
    void show_held(ChartModel::Side side);
    void show_state();

    ChartModel model_;
    std::string space_;
    std::array<ChartView*, 2> views_;
    std::array<NumberField*, 2> fields_;
    ChartModel::Side held_ = ChartModel::seen;
    QToolButton* against_;
    QPushButton *picture_, *find_;
    QLabel *corner_, *words_;
};

} // namespace kasuri::app
