#pragma once
#include "insight/solve.hpp"
#include "model/readout.hpp"
#include "model/session.hpp"

#include <QDialog>

#include <array>
#include <vector>

class QCheckBox;
class QGridLayout;
class QLabel;
class QPushButton;
class QScrollArea;

namespace kasuri::app {

class MixPanel;
class NumberField;

/// Finds the matrix that makes wished colours of given ones: a list of "this colour -> that colour", what must hold
/// exactly, and how far each wish is missed. Stays open beside the work; the matrix goes into the rule as text.
class WishesWindow : public QDialog {
    Q_OBJECT
public:
    WishesWindow(Session& session, MixPanel& mix, QWidget* parent);
    /// Beyond `most_wishes` nothing is added, and that is said.
    void add(const insight::Wish& wish);
    static constexpr std::size_t most_wishes = 48; ///< nine to twelve weights: more wishes are a chart, and for the fit
    /// Each pin's colour before and after, as wishes to be changed.
    void add_pins();
    void set_pins(std::vector<PinReadout> pins);
    void write();
    const std::vector<insight::Wish>& wishes() const { return wishes_; }
    const insight::Solved& solved() const { return solved_; }
    NumberField* field(std::size_t wish, int number) const {
        return rows_[wish].fields[static_cast<std::size_t>(number)];
    }
    QCheckBox* rows_sum() const { return sums_; }
    QString said() const;

private:
    struct Row {
        std::array<NumberField*, 6> fields{};
        std::array<QWidget*, 2> swatches{};
        QLabel* missed = nullptr;
        std::vector<QWidget*> all;
    };
    void take(const insight::Wish& wish);
    void rebuild();
    void solve();
    std::string working() const;

    Session& session_;
    MixPanel& mix_;
    std::vector<insight::Wish> wishes_;
    std::vector<PinReadout> pins_;
    insight::Solved solved_;
    std::vector<Row> rows_;
    QGridLayout* grid_;
    QScrollArea* list_;
    QCheckBox *sums_, *luminance_, *offset_;
    QLabel *matrix_, *said_, *empty_;
    QPushButton *write_, *more_, *from_pins_;
    bool full_ = false; ///< more was asked for than there is room for
};

} // namespace kasuri::app
