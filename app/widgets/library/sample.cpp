#include "widgets/library/sample.hpp"

#include "model/library_model.hpp"
#include "widgets/parts/library_tile.hpp"

#include <QSize>

#include <algorithm>

namespace kasuri::app {

void LibrarySample::show(const Cell& cell, const SheetModel& sheet, LibraryModel& library) {
    const PicturePtr picture = cell.target ? nullptr : sheet.picture_of(cell);
    if (!cell.target && !picture)
        return; // it is being read
    Of now{picture, cell.target, cell.settings, sheet.screen()};
    if (now == shown_)
        return;
    shown_ = std::move(now);
    image::Picture whole = picture ? *picture : targets::make(*cell.target, LibraryTile::picture_width, cell.settings);
    if (whole.space.empty())
        whole.space = "rec709-linear";
    const QSize size = QSize(whole.width, whole.height)
                           .scaled(LibraryTile::picture_width, LibraryTile::picture_height, Qt::KeepAspectRatio);
    image::Picture small = downscaled(whole, std::max(1, size.width()), std::max(1, size.height()));
    small.space = whole.space;
    library.set_sample(std::make_shared<const image::Picture>(std::move(small)), shown_.screen);
}

} // namespace kasuri::app
