#pragma once
#include "lang/assist.hpp"

#include <QFrame>

#include <vector>

class QLabel;

namespace kasuri::app {

/// What can be written at the caret: a short list under it, with what the chosen one means. Never takes the keyboard.
class CompletionList : public QFrame {
    Q_OBJECT
public:
    explicit CompletionList(QWidget* parent);

    void show_items(lang::Completions completions);
    const std::vector<lang::Completion>& items() const { return completions_.items; }
    const lang::Completions& completions() const { return completions_; }
    const lang::Completion* chosen() const;
    /// Whether the row was chosen by moving to it, not by being the first.
    bool moved() const { return moved_; }
    void choose(int by);
    QSize sizeHint() const override;

signals:
    void accepted();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;

private:
    int shown() const;
    QRect doc_rect() const;

    lang::Completions completions_;
    bool moved_ = false;
    int at_ = 0, first_ = 0;
};

} // namespace kasuri::app
