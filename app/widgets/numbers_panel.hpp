#pragma once
#include "model/readout.hpp"

#include <QWidget>

namespace kasuri::app {

/// The pixel under the pointer, before, after and the change between, in channels and in L*a*b*.
class NumbersPanel : public QWidget {
    Q_OBJECT
public:
    explicit NumbersPanel(QWidget* parent = nullptr);
    void show_readout(const Readout& readout);

protected:
    void paintEvent(QPaintEvent* event) override;
    QSize minimumSizeHint() const override { return {200, 60 + 8 * 19}; }

private:
    Readout readout_;
};

} // namespace kasuri::app
