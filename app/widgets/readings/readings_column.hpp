#pragma once
#include "model/preview_result.hpp"
#include "model/readings_model.hpp"

#include <QWidget>

#include <vector>

namespace kasuri::app {

class PartSplitter;
class ReadingPanel;

/// The readings under each other.
class ReadingsColumn : public QWidget {
    Q_OBJECT
public:
    ReadingsColumn(ReadingsModel& readings, SheetModel& sheet, QWidget* parent = nullptr);
    void show_results(const ReadingsPtr& results);
    void set_before_only(bool before);
    void set_current_cell(int cell);
    ReadingPanel* panel(int id) const;
    const std::vector<ReadingPanel*>& panels() const { return panels_; }

signals:
    void said(const QString& message, bool bad);

private:
    void rebuild();

    ReadingsModel& model_;
    SheetModel& sheet_;
    PartSplitter* splitter_;
    std::vector<ReadingPanel*> panels_;
    int current_cell_ = 0;
};

} // namespace kasuri::app
