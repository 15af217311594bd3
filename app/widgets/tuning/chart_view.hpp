#pragma once
#include "model/chart_model.hpp"

#include <QWidget>

namespace kasuri::app {

/// The picture of a chart with its four corners, to be put by hand: dragged, or moved by arrow keys (Shift: a tenth of
/// a pixel, Ctrl: ten). The corner that is held is seen enlarged. In each patch stands what it should be; patches that
/// do not count are crossed out; pointing at one says why.
class ChartView : public QWidget {
    Q_OBJECT
public:
    ChartView(ChartModel& model, ChartModel::Side side, QWidget* parent = nullptr);

    /// Which corner arrow keys move, 0 to 3; -1: none.
    int held() const { return held_; }
    void hold(int corner);
    /// Where a point of the picture lies in the widget.
    QPointF on_screen(const image::Point& point) const;
    QSize sizeHint() const override { return {520, 360}; }
    QSize minimumSizeHint() const override { return {240, 180}; }

signals:
    void held_changed();

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    double scale() const;
    QRectF place() const;
    image::Point of_picture(const QPointF& at) const;
    void move_held(const image::Point& to);
    void draw_patches(QPainter& painter) const;
    void draw_corners(QPainter& painter) const;
    void draw_glass(QPainter& painter) const;

    ChartModel& model_;
    ChartModel::Side side_;
    int held_ = -1;
    bool dragging_ = false;
    QPointF grip_; ///< from the pointer to the corner
};

} // namespace kasuri::app
