#pragma once
#include <QApplication>

namespace kasuri::app {

/// The program, with a last net: what an event asked for and there is no memory for is dropped and said, and the work
/// goes on. Qt asks for it here: exceptions must not pass through its loop.
class Application : public QApplication {
    Q_OBJECT
public:
    using QApplication::QApplication;
    bool notify(QObject* receiver, QEvent* event) override;

signals:
    /// Sent when the event that was dropped is over.
    void said(const QString& message, bool bad);

private:
    bool telling_ = false;
};

} // namespace kasuri::app
