#pragma once
#include "model/preview_result.hpp"
#include "widgets/readings/solid_paint.hpp"

#include <QImage>
#include <QWidget>

#include <array>
#include <optional>
#include <vector>

namespace kasuri::app {

/// Draws any reading: panels with axes and guides, densities, traces (plied where they coincide), arrows, spots. What
/// was before the rule, or a frozen reference, is faint under what is after. A room of three axes is turned by
/// dragging, by the arrow keys (with Shift by single degrees), and back by Home or a double click.
class PlotView : public QWidget {
    Q_OBJECT
public:
    explicit PlotView(QWidget* parent = nullptr);
    void show_plot(const std::vector<readings::Panel>& panels, const MeasuredPtr& reference,
                   const MeasuredPtr& measured);
    void set_before_only(bool before);
    /// Where a panel's field is drawn, without its axes.
    QRectF field_of(int panel) const;
    const std::vector<readings::Panel>& panels() const { return panels_; }
    /// The numbers under the pointer, empty when it is elsewhere.
    QString hover_text() const;
    /// All figures, one a line.
    QString figures_text() const;
    /// From where rooms are looked at.
    const Eye& eye() const { return eye_; }
    void look_from(const Eye& eye);

signals:
    void looked_from(const kasuri::app::Eye& eye);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    QSize sizeHint() const override { return {268, 216}; }

private:
    void draw_axes(QPainter& painter, int panel) const;
    void draw_guides(QPainter& painter, int panel) const;
    void draw_layers(QPainter& painter, int panel, const readings::Measured& measured, bool faint) const;
    /// Densities as an image of about `size` pixels: cells that fall on one pixel are added, so that few are seen as
    /// well as many.
    static QImage densities_of(const readings::Measured& measured, int panel, bool faint, const QSizeF& size);
    void draw_traces(QPainter& painter, int panel, const std::vector<const readings::Trace*>& traces, bool faint) const;
    void draw_arrows(QPainter& painter, int panel, const readings::Arrows& arrows, bool faint) const;
    void draw_spots(QPainter& painter, int panel, const readings::Spots& spots, bool faint) const;
    QPointF point(int panel, double x, double y) const;
    bool is_room() const { return !panels_.empty() && panels_.front().z.has_value(); }

    std::vector<readings::Panel> panels_;
    MeasuredPtr reference_, measured_;
    struct DrawnUp {
        QSizeF size;
        QImage image;
    };
    mutable std::vector<std::array<DrawnUp, 3>>
        densities_; ///< of each panel: the reference faint and full, what was measured
    bool before_only_ = false;
    std::optional<QPointF> hover_, dragged_from_;
    Eye eye_;
};

} // namespace kasuri::app
