#pragma once
#include "model/display.hpp"

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QMenu;
class QPushButton;
class QToolButton;

namespace kasuri::app {

/// The first line: the menu, what is on the bench (the steps of a look have a line of their own), the spaces, and the
/// way to see before.
class TopBar : public QWidget {
    Q_OBJECT
public:
    explicit TopBar(QMenu* menu, QWidget* parent = nullptr);
    void open_menu();
    void set_step(const QString& title, const QString& file, bool modified, bool is_look);
    void set_working(const QString& space);
    void set_before_shown(bool shown);
    void set_screen(const Screen& screen);
    /// What before is; empty: the picture as it comes. `fault`: why it is not what it should be.
    void set_against(const QString& name, const QString& fault = {});
    QToolButton* against_button() const { return against_; }
    /// Behind the step's name.
    void add_takes(QWidget* takes);

signals:
    void before_held(bool held);
    void screen_chosen(const kasuri::app::Screen& screen);
    void against_opening(QMenu& menu);
    void add_opening(QMenu& menu); ///< of what a second step may be

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void fill_screen_menu();

    Screen screen_;
    QMenu* screen_menu_;
    QToolButton* display_;
    QToolButton* menu_;
    QLabel* step_;
    QToolButton* add_;
    bool is_look_ = false;
    QLabel* file_;
    QLabel* working_;
    QPushButton* before_;
    QToolButton* against_;
    QHBoxLayout* row_;
};

} // namespace kasuri::app
