#pragma once
#include "model/look_model.hpp"
#include "model/sheet.hpp"

#include <QWidget>

#include <functional>

class QCheckBox;
class QHBoxLayout;
class QLabel;
class QMenu;
class QPlainTextEdit;
class QToolButton;

namespace kasuri::app {

class Heading;
class NumberField;

/// How the active step is laid over what comes into it: opacity, blend mode, mask.
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
    NumberField* field(double low, double high, double step, const QString& name, void (LookModel::*set)(int, double),
                       double usual);
    QToolButton* button(const QString& text, const QString& tip);
    /// With a menu that is filled when it opens.
    QToolButton* menu_button(const QString& text, const QString& tip, void (StepPanel::*fill)(QMenu& menu));
    QHBoxLayout* blend_row();
    void make_space();
    QHBoxLayout* mask_row();
    QHBoxLayout* shape_row();
    void fit_mask();
    void fill_blends(QMenu& menu);
    void fill_spaces(QMenu& menu);
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
