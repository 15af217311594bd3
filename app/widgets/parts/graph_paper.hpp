#pragma once
#include <QColor>
#include <QImage>
#include <QPointF>
#include <QRectF>

#include <span>
#include <vector>

class QPainter;

namespace kasuri::app {

/// Transparent paper for graphs that run from left to right, on the pixels of a device. A general stroker knows nothing
/// of that and takes nine times as long (three strokes through 577 points), at every keystroke.
class GraphPaper {
public:
    /// Paper over `area`, in the units of a widget whose device has `ratio` pixels in each.
    GraphPaper(const QRectF& area, double ratio);

    /// A stroke of `width` units through points whose x never falls, in the widget's units. It is interrupted where a
    /// point's y is no number; ends are square. Edges are smooth: exact up and down, by quarters of a pixel across.
    void stroke(std::span<const QPointF> points, const QColor& colour, double width);

    void draw(QPainter& painter) const;
    const QImage& image() const { return image_; }

private:
    void segment(QPointF from, QPointF to, double half);
    void ink(const QColor& colour);

    double ratio_;
    int left_, top_; ///< of the first pixel, in pixels of the device
    QImage image_;
    struct Reach {
        float top, bottom;
    };
    std::vector<Reach> reaches_; ///< of the stroke at hand in each quarter of a column, in pixels of the image
};

} // namespace kasuri::app
