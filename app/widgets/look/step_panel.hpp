#pragma once
#include "model/look_model.hpp"
#include "model/sheet.hpp"

#include <QWidget>

#include <functional>

class QCheckBox;
class QLabel;
class QMenu;
class QPlainTextEdit;
class QToolButton;

namespace kasuri::app {

class Heading;
class NumberField;

/// How the step in hand is laid over what comes into it: opacity, blend mode, mask.
class StepPanel : public QWidget {
    Q_OBJECT
public:
    StepPanel(LookModel& look, SheetModel& sheet, QWidget* parent = nullptr);
    void set_fault(const QString& fault);
    void fill_masks(QMenu& menu);

protected:
    bool eventFilter(QObject* object, QEvent* event) override;

signals:
    void mask_shown(); ///< see the mask on the sheet, or back

private:
    void refresh();

    LookModel& look_;
    SheetModel& sheet_;
    Heading* heading_;
    NumberField* opacity_;
    QToolButton* blend_;
    QToolButton* space_;
    QPlainTextEdit* mask_;
    NumberField* grow_;
    NumberField* soften_;
    QCheckBox* inverted_;
    QLabel* fault_;
    bool refreshing_ = false;
};

} // namespace kasuri::app
