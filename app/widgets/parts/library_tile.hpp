#pragma once
#include <QStyledItemDelegate>

namespace kasuri::app {

/// Draws an entry of the library: its thumbnail, title, and marks for favourites, looks and errors.
class LibraryTile : public QStyledItemDelegate {
    Q_OBJECT
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    static constexpr int picture_width = 120, picture_height = 68;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        return {picture_width + 16, picture_height + 32};
    }
};

} // namespace kasuri::app
