#pragma once
#include <QByteArray>
#include <QPointer>
#include <QSplitter>
#include <QWidget>

namespace kasuri::app {

/// A window of its own for a part of the main window, for a second screen. Closed, it gives the part back to its place.
class TornWindow : public QWidget {
    Q_OBJECT
public:
    TornWindow(QWidget* part, QSplitter& home, const QString& title);
    ~TornWindow() override;
    void give_back();

signals:
    void given_back();

protected:
    void closeEvent(QCloseEvent* event) override;

private:
    QPointer<QWidget> part_;
    QPointer<QSplitter> home_; ///< goes before or after this window when the program ends
    int place_;
    QByteArray sizes_;
};

} // namespace kasuri::app
