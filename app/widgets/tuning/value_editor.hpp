#pragma once
#include "lang/rule.hpp"

#include <QWidget>

namespace kasuri::app {

class NumberField;

/// Where one parameter is set: what it looks like depends on the parameter's kind.
class ValueEditor : public QWidget {
    Q_OBJECT
public:
    using QWidget::QWidget;
    virtual void set_value(double value) = 0;              ///< shows it; no signal
    virtual NumberField* field() const { return nullptr; } ///< of those that are typed

signals:
    void value_edited(double value);
    void reset_wanted();
};

/// A number with its range, a box to tick, or a list of options.
ValueEditor* make_value_editor(const lang::Parameter& parameter, QWidget* parent);

} // namespace kasuri::app
