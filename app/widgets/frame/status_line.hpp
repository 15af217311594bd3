#pragma once
#include "model/readout.hpp"

#include <QWidget>

class QLabel;
class QToolButton;

namespace kasuri::app {

/// The last line: what the pointer is on, times, and messages that stay until they are dismissed.
class StatusLine : public QWidget {
    Q_OBJECT
public:
    explicit StatusLine(QWidget* parent = nullptr);
    void show_readout(const Readout& readout);
    void show_times(double check_ms, double sheet_ms);
    /// `bad`: an error, with its mark; else a confirmation that goes after a while.
    void say(const QString& message, bool bad);
    QString message() const;
    void dismiss();

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QLabel* pointer_;
    QLabel* times_;
    QLabel* message_;
    QToolButton* dismiss_;
    bool bad_ = false;
    int said_ = 0;
    double check_ms_ = 0;
};

} // namespace kasuri::app
