#pragma once
#include "model/preview_result.hpp"
#include "model/sheet.hpp"
#include "model/zoom.hpp"
#include "widgets/sheet/frames_bar.hpp"

#include <QPointF>
#include <QRectF>
#include <QWidget>

#include <optional>
#include <vector>

class QMenu;

namespace kasuri::app {

/// How before and after stand against each other in a cell.
enum class Compare {
    after, ///< after alone
    split, ///< before left of a line that can be moved, after right of it
    twice, ///< the same part twice: before, after
};

/// One picture or chart through a lens, on the neutral surround: zoomed, compared, pinned, cut. The caption is a menu.
class CellView : public QWidget {
    Q_OBJECT
public:
    CellView(SheetModel& model, Playback& playback, int id, QWidget* parent = nullptr);

    int id() const { return id_; }
    void show_result(const CellResult& result);
    /// The whole pictures, where the coarse sheet that is shown has none; of the state that was counted last.
    void show_counted(const CellResult& counted);
    /// How far the take that it shows is from the rule; comes after the result that it is about.
    void show_apart(const readings::Apart& apart);
    const std::optional<readings::Apart>& apart() const { return apart_; }
    const CellResult* result() const { return has_result_ ? &result_ : nullptr; }
    /// Another cell stands for its number.
    void refresh();
    const FramesBar& frames() const { return *frames_; }
    void set_old(bool old);
    void set_before_only(bool before);
    void set_before_name(const QString& name);
    /// The spot that the pointer has in another cell of the same picture; null x hides it.
    void set_spot(std::optional<QPoint> pixel);
    /// Whether this cell has the sheet to itself.
    void set_alone(bool alone);
    Compare compare() const { return compare_; }
    void set_compare(Compare compare);
    double split() const { return split_; }
    void set_split(double share); ///< of the room, 0..1
    const Zoom& zoom() const { return zoom_; }
    void set_zoom(const Zoom& zoom);
    /// Device pixels of one picture pixel, about the middle of what is seen; 0 fits.
    void zoom_to(double scale);
    /// The pixels that are seen, and how many device pixels they should have here.
    QRect wanted_region() const;
    QSize wanted_pixels() const;
    /// Whether before is seen. In a picture that fits it always may be.
    bool shows_before() const { return zoom_.fits() || is_chart() || before_only_ || compare_ != Compare::after; }
    /// Width by height of what is shown.
    double aspect() const;
    /// Column and row of the picture under a point of this widget.
    std::optional<QPoint> pixel_at(const QPointF& point) const;
    /// The other way: middle of a pixel.
    QPointF point_of(const QPoint& pixel) const;
    void open_menu();
    void fill_menu(QMenu& menu);
    void pin_spot();
    void add_line_cut();

signals:
    void hovered(int id, std::optional<QPoint> pixel);
    void view_changed();                           ///< another part or size is wanted
    void alone_wanted(int id);                     ///< fill the sheet, or go back
    void dropped_on(int id, const QPoint& global); ///< its caption was dragged there
    void file_dropped(int id, const QString& file);
    void focused(int id);

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    /// A word of the caption that does something.
    struct Link {
        QString text;
        QString tip;
        bool on = false;
        void (CellView::*act)();
        QRect rect{};
    };
    enum class Grip { none, caption, pan, split, line, pin };

    bool is_chart() const; ///< patches: they fill the cell
    QSize picture_size() const;
    QRectF room() const; ///< where one copy of the picture goes
    QSizeF device_room() const;
    QRectF picture_rect() const;
    double split_x() const;
    /// Those that there is room for.
    std::vector<Link> links() const;
    /// What the caption says of the lens.
    QString lens_words(const Cell& cell) const;
    /// The caption's number: how far a take is from the rule, or what share of the pixels the screen cannot show;
    /// empty: there is none.
    QString figure_words(bool short_form) const;
    void toggle_split();
    void toggle_alone();
    void toggle_scale();
    void zoom_by(double factor, const QPointF& at);
    QPointF in_room(const QPointF& point) const; ///< device pixels
    void draw_caption(QPainter& painter) const;
    void draw_pictures(QPainter& painter) const;
    void draw_picture(QPainter& painter, const QImage& image, const QRectF& clip, double shift) const;
    void draw_values(QPainter& painter) const;
    void draw_patches(QPainter& painter, const QRectF& area) const;
    void draw_line(QPainter& painter) const;
    void draw_pins(QPainter& painter) const;
    /// A layer as a word under the picture.
    struct Badge {
        QString layer, text;
        QRect rect;
    };
    std::vector<Badge> badges() const; ///< none unless the file has several layers
    double badges_height() const;
    void draw_badges(QPainter& painter) const;
    void add_peeks(QMenu& menu, const Cell& cell);
    void add_steps(QMenu& menu, const Cell& cell);
    void ask_peek();
    double frames_height() const; ///< 0 unless the picture is one of a sequence
    void step_frame(int by);
    void add_lenses(QMenu& menu, const Cell& cell);
    void add_targets(QMenu& menu);

    SheetModel& model_;
    Playback& playback_;
    FramesBar* frames_;
    int id_;
    CellResult result_;
    bool has_result_ = false;
    bool old_ = false;
    bool before_only_ = false;
    QString before_name_;
    bool alone_ = false;
    std::optional<readings::Apart> apart_;
    QString tip_;
    Compare compare_ = Compare::after;
    double split_ = 0.5;
    Zoom zoom_;
    std::optional<QPoint> spot_;
    Grip grip_ = Grip::none;
    QPointF grip_at_;
    int grip_pin_ = 0;
};

} // namespace kasuri::app
