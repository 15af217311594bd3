#pragma once
#include "model/preview_result.hpp"
#include "model/readings_model.hpp"

#include <QPointer>
#include <QWidget>

class QMenu;
class QToolButton;

namespace kasuri::app {

class PlotView;

/// One reading with its heading: which one, of what, and what can be done with it.
class ReadingPanel : public QWidget {
    Q_OBJECT
public:
    ReadingPanel(ReadingsModel& readings, SheetModel& sheet, int id, QWidget* parent = nullptr);

    int id() const { return id_; }
    PlotView& plot() { return *plot_; }
    void show_result(const ReadingResult& result);
    void set_before_only(bool before);
    /// Words of the heading; after the models or the current cell changed.
    void refresh(int current_cell);
    void fill_menu(QMenu& menu);
    /// Keeps what is shown as the faint reference under what comes; a second time takes it away.
    void toggle_frozen();
    bool frozen() const { return frozen_ != nullptr; }
    /// A window of its own that follows.
    void tear_off();
    QString csv() const;
    bool export_to(const QString& file);
    /// The reading as a PNG.
    bool write_picture(const QString& file);
    void copy_picture();
    void ask_picture();

signals:
    void said(const QString& message, bool bad);

private:
    void ask_export();
    void feed(PlotView& plot) const;
    /// From where rooms are looked at is remembered, for all of them.
    void keep_eye(PlotView& plot);

    ReadingsModel& model_;
    SheetModel& sheet_;
    int id_;
    QToolButton *name_, *of_, *more_;
    PlotView* plot_;
    QPointer<PlotView> torn_;
    ReadingResult result_;
    MeasuredPtr frozen_;
    bool before_only_ = false;
};

} // namespace kasuri::app
