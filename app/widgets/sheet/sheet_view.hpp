#pragma once
#include "model/over_time.hpp"
#include "model/playback.hpp"
#include "model/preview_request.hpp"
#include "model/preview_result.hpp"
#include "model/readout.hpp"
#include "model/sheet.hpp"

#include <QTimer>
#include <QVariant>
#include <QWidget>

#include <functional>
#include <vector>

class QVBoxLayout;

namespace kasuri::app {

class PartSplitter;
class CellView;
class StripView;

/// The middle of the window: strips in register on top, cells below. Follows the pointer through all of them.
class SheetView : public QWidget {
    Q_OBJECT
public:
    SheetView(SheetModel& model, Playback& playback, OverTime& over_time, QWidget* parent = nullptr);

    /// What the sheet wants evaluated at its present size.
    int strip_pixels() const;
    std::vector<StripJob> strip_jobs() const;
    std::vector<CellJob> jobs() const;
    void show_result(const SheetPtr& sheet);
    void set_old(bool old);
    void set_before_only(bool before);
    /// What before is called where it stands beside after.
    void set_before_name(const QString& name);
    /// Puts the pointer's line on a place, as a failing proof does.
    void point_at(const QString& target, double share);
    const std::vector<StripView*>& strips() const { return strips_; }
    CellView* cell(int id) const;
    PartSplitter* splitter() const { return splitter_; }
    /// The cell that was used last; 0 if there is none.
    int current_cell() const;
    /// The cell that has the sheet to itself; 0: all are there.
    /// Numbers of pins and of the pointer while coarse sheets follow each other.
    void show_counted(const ReadingsResult& readings);
    /// How far cells that show takes are from the rule, if it is still about what they show.
    void show_apart(const ReadingsResult& readings);
    int alone() const { return alone_; }
    void set_alone(int id);
    /// Pins the place that is pointed at, or begins a cut there; false: nothing is pointed at in a cell.
    bool pin_pointed();
    bool cut_pointed();
    /// Puts the pointer's mark on a pin.
    void point_at_pin(int number);
    /// How each cell is looked at (compared, split, zoomed), by what it shows.
    QVariantList stored_views() const;
    void restore_views(const QVariantList& stored);
    const SheetPtr& sheet() const { return sheet_; }
    /// What is clicked next goes to `take`, and does nothing else; Escape leaves it.
    void pick(std::function<void(const Readout&)> take);

signals:
    void wanted(); ///< sizes or cells changed: evaluate again
    void pointed(const kasuri::app::Readout& readout);
    void pins_read(const std::vector<kasuri::app::PinReadout>& pins);
    void current_changed(int id);
    void files_dropped(const QList<QUrl>& urls);
    void cell_dropped(int id, const QPoint& global); ///< its caption was dragged out of the sheet

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void rebuild();
    void rebuild_strips();
    void rebuild_cells();
    void arrange_cells();
    void hover_strips(StripView* source, double share);
    void hover_cells(int id, std::optional<QPoint> pixel);
    void drop_cell(int id, const QPoint& global);
    void move_strip(int id, int by);
    void tell();
    void tell_pins();
    Readout readout_at(const Cell& cell, const QPoint& pixel) const;
    bool eventFilter(QObject* object, QEvent* event) override;

    SheetModel& model_;
    Playback& playback_;
    OverTime& over_time_;
    PartSplitter* splitter_;
    QWidget* strips_area_;
    QVBoxLayout* strips_column_;
    QWidget* cells_area_;
    std::vector<StripView*> strips_;
    std::vector<CellView*> cells_;
    SheetPtr sheet_;
    QTimer resize_pause_;
    bool old_ = false, before_only_ = false;
    QString before_name_ = tr("before");
    int current_ = 0, alone_ = 0;
    // What is pointed at: a strip and a share of it, or a cell and a pixel.
    StripView* hover_strip_ = nullptr;
    double hover_share_ = -1;
    int hover_cell_ = 0;
    std::optional<QPoint> hover_pixel_;
    Readout pointed_;
    std::function<void(const Readout&)> take_;
};

} // namespace kasuri::app
