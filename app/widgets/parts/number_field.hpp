#pragma once
#include <QLineEdit>
#include <QPoint>

namespace kasuri::app {

/// A typed number that can be dragged sideways, stepped by arrows and wheel (Shift finer, Ctrl coarser) and
/// reset with Backspace while it is not being typed in.
class NumberField : public QLineEdit {
    Q_OBJECT
public:
    explicit NumberField(QWidget* parent = nullptr);
    void set_range(double low, double high, double step, bool whole = false);
    void set_value(double value); ///< shows it; no signal
    double value() const { return value_; }

    /// How many steps one key press or wheel notch is worth with these modifiers.
    static double factor(Qt::KeyboardModifiers modifiers);

signals:
    void value_edited(double value);
    void reset_wanted();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    void commit();
    void change(double value);
    double step(Qt::KeyboardModifiers modifiers) const;
    void show_value();

    double value_ = 0, low_ = 0, high_ = 1, step_ = 0.01;
    bool whole_ = false;
    bool typing_ = false;
    bool pressed_ = false, dragging_ = false;
    QPoint press_;
    double drag_value_ = 0;
    int drag_x_ = 0;
};

} // namespace kasuri::app
