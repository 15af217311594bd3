#pragma once
#include "model/preview_request.hpp"
#include "model/sheet.hpp"

#include <QObject>

#include <string>
#include <vector>

namespace kasuri::app {

/// One reading beside the sheet.
struct ShownReading {
    /// Which cells are read: the one that was used last, all of them, or one by its id.
    static constexpr int current = 0, all = -1;

    int id = 0;
    const readings::Reading* reading = nullptr;
    std::vector<double> settings{}; ///< empty: the usual ones
    int of = current;
};

/// The readings that are shown, in their order.
class ReadingsModel : public QObject {
    Q_OBJECT
public:
    explicit ReadingsModel(QObject* parent = nullptr) : QObject(parent) {}

    const std::vector<ShownReading>& readings() const { return readings_; }
    const ShownReading* find(int id) const;
    int add(const readings::Reading& reading, std::vector<double> settings = {}, int of = ShownReading::current);
    void remove(int id);
    void move(int id, int by); ///< up or down
    void set_reading(int id, const readings::Reading& reading);
    void set_settings(int id, std::vector<double> settings);
    void set_of(int id, int of);

    /// What is to be measured. `current_cell`: the one that was used last.
    std::vector<ReadingJob> jobs(const SheetModel& sheet, int current_cell) const;
    /// The cells that a reading counts.
    static std::vector<int> cells_of(const ShownReading& reading, const SheetModel& sheet, int current_cell);

    /// "waveform|0,0,1|-1" for each, and back; what is not understood is left out.
    std::vector<std::string> stored() const;
    void restore(const std::vector<std::string>& lines);

signals:
    void changed();

private:
    ShownReading* at(int id);

    int next_id_ = 1;
    std::vector<ShownReading> readings_;
};

} // namespace kasuri::app
