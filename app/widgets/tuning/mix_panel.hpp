#pragma once
#include "document/mix_place.hpp"
#include "insight/affine.hpp"

#include <QWidget>

#include <array>
#include <optional>
#include <vector>

class QLabel;
class QMenu;
class QToolButton;

namespace kasuri::app {

class Heading;
class NumberField;
class Session;

/// The mix as a table: how much of r, g, b and a constant goes into each channel. The text is the truth: a matrix of
/// numbers in it is edited where it stands; a rule that is a matrix otherwise is shown, and can be written as one; else
/// one can be added.
class MixPanel : public QWidget {
    Q_OBJECT
public:
    explicit MixPanel(Session& session, QWidget* parent = nullptr);
    NumberField* field(int row, int column) const { return fields_[static_cast<std::size_t>(4 * row + column)]; }
    QString said() const;
    /// Which of insight::sum_holds() is in force.
    void set_hold(int hold);
    int hold() const { return hold_; }
    /// Which of the matrices of the text is shown, from 0, where there are several.
    void choose(int which);
    int chosen() const { return chosen_; }
    QToolButton* which_button() const { return which_; }
    void write_matrix();
    /// Puts the numbers into the matrix of the text, or adds one behind the last statement.
    void write_map(const insight::Affine& map, const QString& name);
    void swap(int a, int b);
    void rotate();
    void invert();
    void reset_row(int row);
    void fill_menu(QMenu& menu);

protected:
    void showEvent(QShowEvent*) override { refresh(); }

private:
    void refresh();
    document::TextEdit appended(const insight::Affine& map) const;
    void edit(int row, int column, double value);
    void put(const insight::Affine& map, const QString& name, const QString& key = {});
    /// The matrices of a rule, where parameters stand with their values.
    std::vector<document::MixPlace> places_of(const lang::Rule& rule) const;
    /// The matrix in the text as it is now; the text may be ahead of the last check.
    std::optional<document::MixPlace> place_now() const;

    Session& session_;
    Heading* heading_;
    std::array<NumberField*, 12> fields_{};
    std::array<QLabel*, 3> sums_{};
    QLabel* said_;
    QToolButton* write_;
    QToolButton* hold_button_;
    QToolButton* which_;
    int chosen_ = 0;
    std::optional<insight::Affine> shown_;
    bool editable_ = false;
    int hold_ = 0;
};

} // namespace kasuri::app
