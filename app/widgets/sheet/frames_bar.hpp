#pragma once
#include "model/playback.hpp"

#include <QWidget>

class QMenu;

namespace kasuri::app {

/// Under a picture that is one of a numbered sequence: plays it, and goes to any of its frames. Bright: the frames that
/// are played; broad: those in memory.
class FramesBar : public QWidget {
    Q_OBJECT
public:
    FramesBar(SheetModel& model, Playback& playback, int cell, QWidget* parent);
    static constexpr int bar_height = 22;

    /// What there is to do with frames.
    static void fill_menu(QMenu& menu, Playback& playback, int cell);
    /// How well it plays, in a few words; nothing before it did.
    QString words() const;
    /// The middle of a frame's mark, in this widget.
    double x_of(std::size_t frame) const;

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    bool event(QEvent* event) override;

private:
    const io::Sequence* sequence() const;
    void choose(double x);

    SheetModel& model_;
    Playback& playback_;
    int cell_;
    bool choosing_ = false;
};

} // namespace kasuri::app
