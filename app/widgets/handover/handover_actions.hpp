#pragma once
#include <QObject>

class QWidget;

namespace kasuri::app {

class Bench;

/// What leaves the bench: LUTs, rendered pictures, reports. Files are written in the background.
class HandoverActions : public QObject {
    Q_OBJECT
public:
    HandoverActions(Bench& bench, QWidget* window);

    void open_bake();
    void open_apply();
    void ask_render();
    /// Applies what is on the bench to a picture file.
    void render(const QString& in, const QString& out);
    void ask_report();
    /// One page about what is on the bench with the pictures on the sheet.
    void write_report(const QString& file);

signals:
    void wrote(); ///< a LUT or a picture

private:
    Bench& bench_;
    QWidget* window_;
};

} // namespace kasuri::app
