#pragma once
#include <QWidget>

namespace kasuri::app {

/// The range of a value as a line: thick from the default to the value, a bar at the value, its ends in numbers.
class RangeBar : public QWidget {
    Q_OBJECT
public:
    explicit RangeBar(QWidget* parent = nullptr);
    void set_range(double low, double high, double start);
    void set_value(double value);

signals:
    void value_edited(double value);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    int left() const;
    int right() const;
    double x_of(double value) const;
    void drag_to(double x, bool fine);

    double low_ = 0, high_ = 1, default_ = 0, value_ = 0;
    double last_x_ = 0, dragged_ = 0;
};

} // namespace kasuri::app
