#include "model/readings_model.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::app {

ShownReading* ReadingsModel::at(int id) {
    const auto found =
        std::find_if(readings_.begin(), readings_.end(), [id](const ShownReading& r) { return r.id == id; });
    return found == readings_.end() ? nullptr : &*found;
}

const ShownReading* ReadingsModel::find(int id) const { return const_cast<ReadingsModel*>(this)->at(id); }

int ReadingsModel::add(const readings::Reading& reading, std::vector<double> settings, int of) {
    readings_.push_back({next_id_++, &reading, std::move(settings), of});
    const int id = readings_.back().id;
    emit changed();
    return id;
}

void ReadingsModel::remove(int id) {
    if (std::erase_if(readings_, [id](const ShownReading& r) { return r.id == id; }) > 0)
        emit changed();
}

void ReadingsModel::move(int id, int by) {
    const auto here =
        std::find_if(readings_.begin(), readings_.end(), [id](const ShownReading& r) { return r.id == id; });
    const auto to = here - readings_.begin() + by;
    if (here == readings_.end() || to < 0 || to >= static_cast<std::ptrdiff_t>(readings_.size()))
        return;
    std::swap(*here, readings_[static_cast<std::size_t>(to)]);
    emit changed();
}

void ReadingsModel::set_reading(int id, const readings::Reading& reading) {
    if (ShownReading* shown = at(id); shown && shown->reading != &reading) {
        shown->reading = &reading;
        shown->settings.clear();
        emit changed();
    }
}

void ReadingsModel::set_settings(int id, std::vector<double> settings) {
    if (ShownReading* shown = at(id); shown && shown->settings != settings) {
        shown->settings = std::move(settings);
        emit changed();
    }
}

void ReadingsModel::set_of(int id, int of) {
    if (ShownReading* shown = at(id); shown && shown->of != of) {
        shown->of = of;
        emit changed();
    }
}

std::vector<int> ReadingsModel::cells_of(const ShownReading& reading, const SheetModel& sheet, int current_cell) {
    if (reading.of > 0 && sheet.find(reading.of))
        return {reading.of};
    if (reading.of != ShownReading::all)
        return {current_cell};
    // The same picture in several cells is counted once.
    std::vector<int> ids;
    std::vector<const Cell*> seen;
    for (const Cell& cell : sheet.cells())
        if (std::none_of(seen.begin(), seen.end(), [&](const Cell* other) { return shows_same(*other, cell); })) {
            seen.push_back(&cell);
            ids.push_back(cell.id);
        }
    return ids;
}

std::vector<ReadingJob> ReadingsModel::jobs(const SheetModel& sheet, int current_cell) const {
    std::vector<ReadingJob> jobs;
    for (const ShownReading& shown : readings_) {
        ReadingJob job{shown.id,
                       shown.reading,
                       completed(shown.reading->settings, shown.settings),
                       cells_of(shown, sheet, current_cell),
                       {}};
        if (const Cell* first = job.cells.empty() ? nullptr : sheet.find(job.cells.front()))
            job.line = first->line;
        jobs.push_back(std::move(job));
    }
    return jobs;
}

std::vector<std::string> ReadingsModel::stored() const {
    std::vector<std::string> lines;
    for (const ShownReading& shown : readings_)
        lines.push_back(fmt::format("{}|{}|{}", shown.reading->name, fmt::join(shown.settings, ","),
                                    shown.of == ShownReading::all ? -1 : 0));
    return lines;
}

void ReadingsModel::restore(const std::vector<std::string>& lines) {
    readings_.clear();
    for (const std::string& line : lines) {
        const std::vector<std::string_view> parts = split(line, '|');
        const readings::Reading* reading = parts.size() == 3 ? readings::find(parts[0]) : nullptr;
        if (!reading)
            continue;
        std::vector<double> settings;
        if (!parts[1].empty())
            for (const std::string_view number : split(parts[1], ','))
                settings.push_back(parse_number(number).value_or(std::numeric_limits<double>::quiet_NaN()));
        readings_.push_back({next_id_++, reading, settings.empty() ? settings : completed(reading->settings, settings),
                             parts[2] == "-1" ? ShownReading::all : ShownReading::current});
    }
    emit changed();
}

} // namespace kasuri::app
