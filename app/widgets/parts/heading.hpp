#pragma once
#include <QLabel>
#include <QWidget>

class QToolButton;

namespace kasuri::app {

/// The line above a panel: a strong name, a quiet detail beside it, a quiet word at the right. A click on it may fold
/// the panel away.
class Heading : public QWidget {
    Q_OBJECT
public:
    explicit Heading(const QString& title, QWidget* parent = nullptr);
    void set_detail(const QString& text);
    void set_right(const QString& text);
    /// Puts a control of the panel at the right end.
    void add_control(QWidget* control);
    /// A click on the line, or on the triangle that it gets, folds `body` away and back. How it was left is remembered
    /// under `key`.
    void fold(QWidget* body, const QString& key);
    bool is_folded() const;
    void set_folded(bool folded);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    QString title_, key_;
    QWidget* body_ = nullptr;
    QToolButton* triangle_ = nullptr;
    QLabel* detail_;
    QLabel* right_;
};

/// A label in one of the text greys.
QLabel* quiet_label(const QString& text, QWidget* parent, double pixels = 12.5);

} // namespace kasuri::app
