#pragma once
#include "widgets/parts/part_splitter.hpp"

#include <QObject>
#include <QSettings>

class QScrollArea;
class QSplitter;
class QWidget;

namespace kasuri::app {

/// Where the parts of the window are: the writing on the left, the sheet, the readings on the right, the library under
/// the first two. Its boundaries can be pulled; how far is remembered. The parts below the rule scroll as one; as long
/// as nobody has pulled their boundary they have as much room as they need and the rule leaves them.
class WindowLayout : public QObject {
    Q_OBJECT
public:
    /// Each is a part of its own; they become children of `window`.
    struct Parts {
        QWidget *top, *first, *look;                   ///< rows above
        QWidget *rule, *values, *step, *mix, *sources; ///< left column
        QWidget* sheet;
        QWidget *readings, *pointer; ///< right column
        QWidget* library;
        QWidget *proofs, *status; ///< rows below
    };
    WindowLayout(QWidget* window, const Parts& parts);

    PartSplitter& columns() const { return *columns_; }
    /// Scrolls a part below the rule into view.
    void reveal(QWidget& part);
    void store(QSettings& settings) const;
    void restore(const QSettings& settings);

protected:
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    struct Kept {
        const char* key;
        PartSplitter* splitter;
    };
    std::vector<Kept> kept() const;
    void fit_below();

    PartSplitter* outer_;   ///< everything to the left, and the readings
    PartSplitter* middle_;  ///< rule and sheet, the library below
    PartSplitter* columns_; ///< rule, and sheet
    PartSplitter* left_;    ///< rule, and what is below it
    PartSplitter* right_;   ///< readings, and the pointer
    QScrollArea* below_;    ///< values, step, further pictures, mix
    bool pulled_ = false;   ///< somebody has said how much room that has
};

} // namespace kasuri::app
