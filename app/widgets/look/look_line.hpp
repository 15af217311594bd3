#pragma once
#include "model/look_model.hpp"

#include <QPoint>
#include <QRect>
#include <QStringList>
#include <QUrl>
#include <QWidget>

#include <vector>

class QMenu;

namespace kasuri::app {

/// The steps of a look in a row: on or off, number, name, opacity. A click makes one active, the box switches it, the
/// opacity is dragged, a step is dragged to another place; the keyboard does all of it too.
class LookLine : public QWidget {
    Q_OBJECT
public:
    explicit LookLine(LookModel& look, QWidget* parent = nullptr);

    /// Steps that are left out, and why.
    void set_faults(std::vector<std::pair<std::size_t, std::string>> faults);
    /// Where a step is, for tests and tools: all of it, its box, its opacity.
    QRect place(int index) const { return places_[static_cast<std::size_t>(index)].whole; }
    QRect box(int index) const { return places_[static_cast<std::size_t>(index)].box; }
    QRect opacity(int index) const { return places_[static_cast<std::size_t>(index)].opacity; }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {60, height_}; }

signals:
    void menu_wanted(int index, const QPoint& global);
    void label_wanted(int index);
    void files_dropped(const QStringList& files, int at);

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { lay_out(); }
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent*) override { update(); }
    void focusOutEvent(QFocusEvent*) override { update(); }
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dragMoveEvent(QDragMoveEvent* event) override;
    void dragLeaveEvent(QDragLeaveEvent*) override;
    void dropEvent(QDropEvent* event) override;

private:
    static constexpr int height_ = 34;
    struct Place {
        QRect whole, box, name, opacity;
        QString title, share;
    };
    enum class Held { nothing, step, opacity };
    void lay_out();
    int step_at(const QPoint& at) const; ///< -1: none
    int gap_at(const QPoint& at) const;  ///< before which step something would be put
    QString told(int index) const;       ///< what the tool tip says
    const std::string* fault(int index) const;

    LookModel& look_;
    std::vector<Place> places_;
    std::vector<std::pair<std::size_t, std::string>> faults_;
    Held held_ = Held::nothing;
    int pressed_ = -1, gap_ = -1;
    QPoint press_;
    double dragged_ = 0;
    bool moved_ = false;
};

} // namespace kasuri::app
