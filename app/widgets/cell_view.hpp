#pragma once
#include "model/preview.hpp"
#include "model/sheet.hpp"

#include <QPointF>
#include <QRectF>
#include <QWidget>

#include <optional>

class QMenu;

namespace kasuri::app {

/// One picture or chart through a lens, on the neutral surround. The caption is a menu: lens, layer, remove.
class CellView : public QWidget {
    Q_OBJECT
public:
    CellView(SheetModel& model, int id, QWidget* parent = nullptr);

    int id() const { return id_; }
    void show_result(const CellResult& result);
    const CellResult* result() const { return has_result_ ? &result_ : nullptr; }
    void set_old(bool old);
    void set_before_only(bool before);
    /// The spot that the pointer has in another cell of the same picture; null x hides it.
    void set_spot(std::optional<QPoint> pixel);
    /// Device pixels that the picture should have here.
    QSize wanted_pixels() const;
    /// Column and row of the picture under a point of this widget.
    std::optional<QPoint> pixel_at(const QPointF& point) const;
    /// The other way: middle of a pixel.
    QPointF point_of(const QPoint& pixel) const;
    void open_menu();

signals:
    void hovered(int id, std::optional<QPoint> pixel);

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    QSize picture_size() const;
    QRectF picture_rect() const;
    void draw_patches(QPainter& painter, const QRectF& area) const;

    SheetModel& model_;
    int id_;
    CellResult result_;
    bool has_result_ = false;
    bool old_ = false;
    bool before_only_ = false;
    std::optional<QPoint> spot_;
};

} // namespace kasuri::app
