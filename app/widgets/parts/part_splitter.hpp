#pragma once
#include <QSplitter>

namespace kasuri::app {

/// Parts of the window beside or below one another. Their boundaries are pulled, or moved by the arrow keys while they
/// have the focus (with Shift by single pixels); a double click, or Home, puts them back to the usual sizes.
class PartSplitter : public QSplitter {
    Q_OBJECT
public:
    explicit PartSplitter(Qt::Orientation orientation, QWidget* parent = nullptr);
    /// What Home goes back to; parts are given these sizes now.
    void set_usual(const QList<int>& sizes);
    void back_to_usual();

signals:
    void reset(); ///< the usual sizes were asked for

protected:
    QSplitterHandle* createHandle() override;

private:
    QList<int> usual_;
};

} // namespace kasuri::app
