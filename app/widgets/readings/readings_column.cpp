#include "widgets/readings/readings_column.hpp"

#include "widgets/parts/part_splitter.hpp"
#include "widgets/readings/reading_panel.hpp"

#include <QVBoxLayout>

#include <algorithm>

namespace kasuri::app {

ReadingsColumn::ReadingsColumn(ReadingsModel& readings, SheetModel& sheet, QWidget* parent)
    : QWidget(parent), model_(readings), sheet_(sheet) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    splitter_ = new PartSplitter(Qt::Vertical, this);
    column->addWidget(splitter_);
    connect(&model_, &ReadingsModel::changed, this, &ReadingsColumn::rebuild);
    connect(&sheet_, &SheetModel::changed, this, [this] { set_current_cell(current_cell_); });
    rebuild();
}

ReadingPanel* ReadingsColumn::panel(int id) const {
    const auto found =
        std::find_if(panels_.begin(), panels_.end(), [id](const ReadingPanel* p) { return p->id() == id; });
    return found == panels_.end() ? nullptr : *found;
}

void ReadingsColumn::rebuild() {
    std::vector<ReadingPanel*> kept;
    for (const ShownReading& reading : model_.readings()) {
        ReadingPanel* made = panel(reading.id);
        if (!made) {
            made = new ReadingPanel(model_, sheet_, reading.id, splitter_);
            connect(made, &ReadingPanel::said, this, &ReadingsColumn::said);
        }
        splitter_->insertWidget(static_cast<int>(kept.size()), made);
        kept.push_back(made);
    }
    for (ReadingPanel* gone : panels_)
        if (std::find(kept.begin(), kept.end(), gone) == kept.end()) {
            gone->hide();
            gone->deleteLater();
        }
    const bool other = kept.size() != panels_.size();
    panels_ = std::move(kept);
    if (other) { // square plots need more height
        QList<int> heights;
        for (const ReadingPanel* each : panels_) {
            const readings::Reading& reading = *model_.find(each->id())->reading;
            heights << (reading.panels(completed(reading.settings, {})).front().square ? 200 : 125);
        }
        splitter_->set_usual(heights);
    }
    set_current_cell(current_cell_);
}

void ReadingsColumn::show_results(const ReadingsPtr& results) {
    for (const ReadingResult& result : results->readings)
        if (ReadingPanel* to = panel(result.id))
            to->show_result(result);
}

void ReadingsColumn::set_before_only(bool before) {
    for (ReadingPanel* each : panels_)
        each->set_before_only(before);
}

void ReadingsColumn::set_current_cell(int cell) {
    current_cell_ = cell;
    for (ReadingPanel* each : panels_)
        each->refresh(cell);
}

} // namespace kasuri::app
