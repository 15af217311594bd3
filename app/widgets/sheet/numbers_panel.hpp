#pragma once
#include "model/readout.hpp"

#include <QWidget>

namespace kasuri::app {

/// The pixel under the pointer, before, after and the change between, in channels and in a colour model.
class NumbersPanel : public QWidget {
    Q_OBJECT
public:
    explicit NumbersPanel(QWidget* parent = nullptr);
    void show_readout(const Readout& readout);
    const Readout& readout() const { return readout_; }
    /// Which model's components stand under r, g, b.
    void set_model(const colour::Model& model);
    void set_before_name(const QString& name) {
        before_name_ = name;
        update();
    }
    const colour::Model& model() const { return *model_; }

protected:
    void paintEvent(QPaintEvent* event) override;
    QSize minimumSizeHint() const override { return {200, 46 + 9 * 16}; }

private:
    Readout readout_;
    QString before_name_ = tr("before");
    const colour::Model* model_ = colour::find_model("lab");
};

} // namespace kasuri::app
