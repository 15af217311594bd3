#pragma once
#include "lang/diagnostic.hpp"

#include <QFrame>
#include <QLabel>
#include <QPushButton>

namespace kasuri::app {

/// The message of one fault, below its line in the editor, with its fix as a link.
class MessageBox : public QFrame {
    Q_OBJECT
public:
    explicit MessageBox(QWidget* parent);
    void show_fault(const lang::Diagnostic& diagnostic);
    QPushButton* fix_button() const { return fix_; }
    int height_for(int width) const;

signals:
    void fix_clicked();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    QLabel* text_;
    QPushButton* fix_;
    QLabel* key_;
};

} // namespace kasuri::app
