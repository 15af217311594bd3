#pragma once
#include <QStringList>
#include <QTimer>
#include <QWidget>

#include <vector>

class QHBoxLayout;
class QLabel;
class QMenu;
class QToolButton;

namespace kasuri::app {

class Bench;
class CompareActions;

/// The takes as words in a row: the one in force is underlined, a click flips to another, a right click or the menu key
/// has the rest.
class TakesBar : public QWidget {
    Q_OBJECT
public:
    explicit TakesBar(Bench& bench, CompareActions& compare, QWidget* parent = nullptr);
    const std::vector<QToolButton*>& buttons() const { return buttons_; }
    void fill_menu(QMenu& menu, int index);

protected:
    /// A take is shown on the sheet for as long as the pointer rests on its name.
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    int index_of(const QObject* button) const;
    void try_out();
    void refresh();
    void ask_name(int index);
    void ask_filter(int index);

    Bench& bench_;
    CompareActions& compare_;
    QHBoxLayout* row_;
    std::vector<QToolButton*> buttons_;
    QStringList shown_; ///< the take in force, and their names
    QLabel* word_;
    QToolButton* keep_;
    QTimer rest_; ///< a pointer that only passes changes nothing
    const QObject* under_pointer_ = nullptr;
};

} // namespace kasuri::app
