#pragma once
#include "model/preview_result.hpp"
#include "model/sheet.hpp"

#include <QWidget>

#include <string>
#include <vector>

class QMenu;

namespace kasuri::app {

/// A ramp as two thin bands, before above after, and in register under them the channels as threads.
class StripView : public QWidget {
    Q_OBJECT
public:
    StripView(SheetModel& model, int id, QWidget* parent = nullptr);

    int id() const { return id_; }
    /// Null for a cut, and for a pin over time.
    const targets::Target* target() const;
    QString title() const;
    void open_menu();
    void fill_menu(QMenu& menu);
    /// `sheet` keeps `strip` alive.
    void show_result(const SheetPtr& sheet, const StripResult& strip);
    void set_old(bool old);
    void set_before_only(bool before);
    void set_before_name(const QString& name) {
        before_name_ = name;
        update();
    }
    /// The hover line, as a share of the width; none below 0. It runs through all strips.
    void set_hover(double share, bool own);
    /// Left and right end of bands and threads, in pixels of this widget.
    int plot_left() const;
    int plot_right() const;
    /// The sample under a share of the width.
    int sample_at(double share) const;
    const StripResult* result() const { return result_; }

signals:
    void hovered(double share); ///< below 0 when the pointer leaves
    void moved(int id, int by); ///< up or down among the strips

protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;

private:
    QString describe() const;
    void draw_caption(QPainter& painter) const;
    void draw_bands(QPainter& painter) const;
    void draw_threads(QPainter& painter, const QRectF& area) const;
    void draw_ticks(QPainter& painter, const QRectF& area) const;

    std::vector<targets::Tick> ticks() const;
    /// The pin over time: what there is to know of it, and a cell that shows its picture (null: none).
    QString describe_frames() const;
    const Cell* cell_of_pin() const;

    SheetModel& model_;
    int id_;
    mutable std::vector<std::string> tick_texts_; ///< of what has no table of them
    SheetPtr sheet_;
    const StripResult* result_ = nullptr;
    QImage before_, after_;
    double hover_ = -1;
    bool own_hover_ = false;
    bool old_ = false;
    bool before_only_ = false;
    QString before_name_;
};

} // namespace kasuri::app
