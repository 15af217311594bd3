#pragma once
#include <QSettings>

class QSplitter;
class QWidget;

namespace kasuri::app {

/// Where the parts of the window are: the writing on the left, the sheet, the readings on the right, the library under
/// the first two. Its parts can be pulled; how far is remembered.
class WindowLayout {
public:
    /// Each is a part of its own; they become children of `window`.
    struct Parts {
        QWidget *top, *look;                           ///< rows above
        QWidget *rule, *values, *step, *mix, *sources; ///< left column
        QWidget* sheet;
        QWidget *readings, *pointer; ///< right column
        QWidget* library;
        QWidget *proofs, *status; ///< rows below
    };
    WindowLayout(QWidget* window, const Parts& parts);

    QSplitter& columns() const { return *columns_; }
    /// Shows the step's panel or not; what it needs it takes from the rule.
    void show_step(QWidget& panel, bool shown);
    void store(QSettings& settings) const;
    void restore(const QSettings& settings);

private:
    struct Kept {
        const char* key;
        QSplitter* splitter;
    };
    std::vector<Kept> kept() const;

    QSplitter* outer_;   ///< everything to the left, and the readings
    QSplitter* middle_;  ///< rule and sheet, the library below
    QSplitter* columns_; ///< rule, and sheet
    QSplitter* left_;    ///< rule, and values
    QSplitter* right_;   ///< readings, and the pointer
};

} // namespace kasuri::app
