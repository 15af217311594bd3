#pragma once
#include "model/readout.hpp"

#include <QWidget>

#include <vector>

namespace kasuri::app {

class SheetModel;

/// The pins: each with its numbers before and after and how far the rule moved it. A click shows where it is; Delete
/// takes it away.
class PinsPanel : public QWidget {
    Q_OBJECT
public:
    explicit PinsPanel(SheetModel& model, QWidget* parent = nullptr);
    void show_pins(const std::vector<PinReadout>& pins);
    const std::vector<PinReadout>& pins() const { return pins_; }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;

signals:
    void chosen(int number);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void choose(int index);

    SheetModel& model_;
    std::vector<PinReadout> pins_;
    int chosen_ = 0; ///< index
};

} // namespace kasuri::app
