#pragma once
#include <QLabel>
#include <QWidget>

namespace kasuri::app {

/// The line above a panel: a strong name, a quiet detail beside it, a quiet word at the right.
class Heading : public QWidget {
    Q_OBJECT
public:
    explicit Heading(const QString& title, QWidget* parent = nullptr);
    void set_detail(const QString& text);
    void set_right(const QString& text);
    /// Puts a control of the panel at the right end.
    void add_control(QWidget* control);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QLabel* detail_;
    QLabel* right_;
};

/// A label in one of the text greys.
QLabel* quiet_label(const QString& text, QWidget* parent, double pixels = 12.5);

} // namespace kasuri::app
