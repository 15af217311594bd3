// How cells are looked at, kept from one start to the next.
#include "widgets/sheet/cell_view.hpp"
#include "widgets/sheet/sheet_view.hpp"

#include <algorithm>

namespace kasuri::app {
namespace {

/// What a cell shows; its layer may not be known yet when the view is taken up again.
QString shown(const Cell& cell) {
    return QString::fromStdString((cell.target ? "target:" + std::string(cell.target->name) : cell.picture) + "|" +
                                  cell.lens);
}

} // namespace

QVariantList SheetView::stored_views() const {
    QVariantList all;
    for (const Cell& cell : model_.cells())
        if (const CellView* view = this->cell(cell.id); view && !cell.take)
            all << QVariantMap{{"shows", shown(cell)},
                               {"compare", static_cast<int>(view->compare())},
                               {"split", view->split()},
                               {"scale", view->zoom().own_scale()},
                               {"middle", view->zoom().middle()}};
    return all;
}

void SheetView::restore_views(const QVariantList& stored) {
    QVariantList left = stored;
    for (const Cell& cell : std::vector<Cell>(model_.cells())) {
        CellView* const view = this->cell(cell.id);
        const auto found = std::find_if(left.begin(), left.end(), [&](const QVariant& entry) {
            return entry.toMap().value("shows").toString() == shown(cell);
        });
        if (!view || found == left.end())
            continue;
        const QVariantMap kept = found->toMap();
        left.erase(found);
        const int compare = kept.value("compare").toInt();
        view->set_compare(compare == static_cast<int>(Compare::split)       ? Compare::split
                              : compare == static_cast<int>(Compare::twice) ? Compare::twice
                                                                            : Compare::after);
        view->set_split(kept.value("split", 0.5).toDouble());
        view->set_zoom(Zoom::at(kept.value("scale").toDouble(), kept.value("middle").toPointF()));
    }
}

} // namespace kasuri::app
