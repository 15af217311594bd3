#pragma once
#include <QWidget>

namespace kasuri::app {

class NumbersPanel;
class PinsPanel;
class SheetModel;

/// The numbers at the pointer, in a model that is chosen in the heading, and the pins below.
class PointerPanel : public QWidget {
    Q_OBJECT
public:
    explicit PointerPanel(SheetModel& sheet, QWidget* parent = nullptr);
    NumbersPanel& numbers() const { return *numbers_; }
    PinsPanel& pins() const { return *pins_; }

private:
    NumbersPanel* numbers_;
    PinsPanel* pins_;
};

} // namespace kasuri::app
