#include "widgets/parts/library_tile.hpp"

#include "model/library_model.hpp"
#include "widgets/parts/theme.hpp"

#include <QPainter>

namespace kasuri::app {

void LibraryTile::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    painter->save();
    const QRect place(option.rect.x() + 8, option.rect.y() + 6, picture_width, picture_height);
    const QString fault = index.data(LibraryModel::fault_role).toString();
    const QImage picture = index.data(Qt::DecorationRole).value<QImage>();
    painter->fillRect(place, theme::surround);
    if (!picture.isNull()) {
        const QSize fits = picture.size().scaled(place.size(), Qt::KeepAspectRatio);
        painter->drawImage(QRect(place.center() - QPoint(fits.width() / 2 - 1, fits.height() / 2 - 1), fits), picture);
    }
    if (!fault.isEmpty()) {
        theme::draw_mark(*painter, QRectF(place.x() + 6, place.y() + 6, 16, 16), false);
        painter->setPen(theme::on_surround);
        painter->setFont(theme::face(11.5));
        painter->drawText(place.adjusted(28, 6, -4, 0), Qt::AlignLeft | Qt::AlignTop, tr("error"));
    }
    const bool chosen = option.state & QStyle::State_Selected;
    if (chosen) {
        painter->setPen(QPen(theme::accent, 2));
        painter->drawRect(place.adjusted(-2, -2, 2, 2));
    }
    QString title = index.data().toString();
    if (index.data(LibraryModel::favourite_role).toBool())
        title.prepend(QStringLiteral("\u2605 "));
    if (const int steps = index.data(LibraryModel::look_role).toInt(); steps > 0)
        title += tr(" \u00b7 %1 steps").arg(steps);
    const QFont font = theme::face(11.5, chosen);
    painter->setFont(font);
    painter->setPen(theme::text);
    const QRect words(place.x(), place.bottom() + 4, picture_width, 18);
    painter->drawText(words, Qt::AlignLeft | Qt::AlignVCenter,
                      QFontMetrics(font).elidedText(title, Qt::ElideRight, picture_width));
    painter->restore();
}

} // namespace kasuri::app
