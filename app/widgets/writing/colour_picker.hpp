#pragma once
#include "document/line_edits.hpp"
#include "model/readout.hpp"
#include "model/session.hpp"

#include <QFrame>

class QLabel;
class QToolButton;

namespace kasuri::app {

class NumberField;
class RuleEditor;

/// Sets a colour of three numbers where it stands in the rule: typed, dragged, or taken from the sheet or a pin. Every
/// change goes into the text at once; the picker is a place to look at it, not a copy.
class ColourPicker : public QFrame {
    Q_OBJECT
public:
    ColourPicker(RuleEditor& editor, Session& session);
    /// Below the colour at byte `at`; says what is missing if there is none.
    void open(std::size_t at);
    /// What the sheet shows there comes in: the picture before the rule, brought into the rule's working space.
    void take(const Readout& readout);
    void set_pins(std::vector<PinReadout> pins) { pins_ = std::move(pins); }
    NumberField* field(int channel) const { return fields_[static_cast<std::size_t>(channel)]; }

signals:
    void said(const QString& message, bool bad);
    /// The next place that is clicked on the sheet is wanted.
    void pick_wanted();

protected:
    bool eventFilter(QObject* object, QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    std::optional<document::ColourPlace> place() const;
    void refresh();
    void write(const std::array<double, 3>& values);
    void fill_pins();
    std::string working() const;

    RuleEditor& editor_;
    const QObject* viewport_; ///< to be compared with: the editor may be going already
    Session& session_;
    std::array<NumberField*, 3> fields_{};
    QToolButton *from_sheet_, *from_pin_;
    QLabel* space_;
    std::vector<PinReadout> pins_;
    std::size_t at_ = 0;
    int opened_ = 0;
    bool picking_ = false;
};

} // namespace kasuri::app
