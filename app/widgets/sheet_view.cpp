#include "widgets/sheet_view.hpp"

#include "widgets/cell_view.hpp"
#include "widgets/strip_view.hpp"
#include "widgets/theme.hpp"

#include <QEvent>
#include <QPainter>
#include <QSplitter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr int resize_pause_ms = 15;
constexpr int cell_gap = 32;
QString utf8(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
} // namespace

SheetView::SheetView(SheetModel& model, QWidget* parent) : QWidget(parent), model_(model) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    splitter_ = new QSplitter(Qt::Vertical, this);
    splitter_->setHandleWidth(1);
    splitter_->setChildrenCollapsible(false);
    auto* strips_area = new QWidget(splitter_);
    auto* strips = new QVBoxLayout(strips_area);
    strips->setContentsMargins(0, 0, 0, 2);
    strips->setSpacing(0);
    for (const targets::Target* target : targets::all())
        if (target->shape == targets::Shape::strip) {
            auto* strip = new StripView(*target, strips_area);
            strips->addWidget(strip, 1);
            strips_.push_back(strip);
            connect(strip, &StripView::hovered, this, [this, strip](double share) { hover_strips(strip, share); });
        }
    cells_area_ = new QWidget(splitter_);
    cells_area_->setAutoFillBackground(true);
    QPalette palette = cells_area_->palette();
    palette.setColor(QPalette::Window, theme::surround);
    cells_area_->setPalette(palette);
    cells_area_->setMinimumHeight(120);
    cells_area_->installEventFilter(this);
    splitter_->addWidget(strips_area);
    splitter_->addWidget(cells_area_);
    splitter_->setSizes({318, 380});
    splitter_->setStretchFactor(0, 45);
    splitter_->setStretchFactor(1, 55);
    column->addWidget(splitter_);
    resize_pause_.setSingleShot(true);
    resize_pause_.setInterval(resize_pause_ms);
    connect(&resize_pause_, &QTimer::timeout, this, &SheetView::wanted);
    connect(&model_, &SheetModel::changed, this, &SheetView::rebuild_cells);
    rebuild_cells();
}

bool SheetView::eventFilter(QObject* object, QEvent* event) {
    if (object == cells_area_ && event->type() == QEvent::Resize) {
        arrange_cells();
        resize_pause_.start();
    }
    return QWidget::eventFilter(object, event);
}

void SheetView::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    resize_pause_.start();
}

int SheetView::strip_pixels() const {
    const StripView* strip = strips_.front();
    return static_cast<int>(std::max(0, strip->plot_right() - strip->plot_left()) * devicePixelRatioF());
}

std::vector<CellJob> SheetView::jobs() const {
    std::vector<CellJob> jobs;
    for (const CellView* view : cells_)
        if (const Cell* cell = model_.find(view->id())) {
            const auto file = model_.file_of(*cell);
            // Another meaning of the same numbers is another picture.
            CellJob job{cell->id, cell->source() + (file ? "@" + file->space : std::string()), model_.picture_of(*cell), cell->target, cell->lens, view->wanted_pixels(), file};
            if (job.target || job.picture)
                jobs.push_back(std::move(job));
        }
    return jobs;
}

CellView* SheetView::cell(int id) const {
    const auto found = std::find_if(cells_.begin(), cells_.end(), [id](const CellView* view) { return view->id() == id; });
    return found == cells_.end() ? nullptr : *found;
}

void SheetView::rebuild_cells() {
    std::vector<CellView*> kept;
    for (const Cell& cell : model_.cells()) {
        CellView* view = this->cell(cell.id);
        if (!view) {
            view = new CellView(model_, cell.id, cells_area_);
            view->set_old(old_);
            view->set_before_only(before_only_);
            view->show();
            connect(view, &CellView::hovered, this, &SheetView::hover_cells);
        }
        kept.push_back(view);
    }
    for (CellView* view : cells_)
        if (std::find(kept.begin(), kept.end(), view) == kept.end())
            view->deleteLater();
    cells_ = std::move(kept);
    arrange_cells();
    for (CellView* view : cells_)
        view->update();
    emit wanted();
}

void SheetView::arrange_cells() {
    const int count = static_cast<int>(cells_.size());
    if (count == 0)
        return;
    // As many columns as make the cells largest for 16:9 pictures.
    const QRect room = cells_area_->rect().adjusted(theme::margin, 0, -theme::margin, -8);
    int best_columns = 1;
    double best = 0;
    for (int columns = 1; columns <= count; ++columns) {
        const int rows = (count + columns - 1) / columns;
        const double width = (room.width() - (columns - 1) * cell_gap) / static_cast<double>(columns);
        const double height = room.height() / static_cast<double>(rows) - 26;
        const double size = std::min(width, height * 16 / 9);
        if (size > best + 0.5) {
            best = size;
            best_columns = columns;
        }
    }
    const int rows = (count + best_columns - 1) / best_columns;
    const int width = (room.width() - (best_columns - 1) * cell_gap) / best_columns;
    const int height = room.height() / rows;
    for (int i = 0; i < count; ++i)
        cells_[static_cast<std::size_t>(i)]->setGeometry(room.left() + (i % best_columns) * (width + cell_gap),
                                                         room.top() + (i / best_columns) * height, width, height - 3);
}

void SheetView::show_result(const SheetPtr& sheet) {
    sheet_ = sheet;
    for (const StripResult& result : sheet->strips)
        for (StripView* strip : strips_)
            if (&strip->target() == result.target)
                strip->show_result(sheet, result);
    for (const CellResult& result : sheet->cells)
        if (CellView* view = cell(result.id))
            view->show_result(result);
    tell();
}

void SheetView::set_old(bool old) {
    old_ = old;
    for (StripView* strip : strips_)
        strip->set_old(old);
    for (CellView* view : cells_)
        view->set_old(old);
}

void SheetView::set_before_only(bool before) {
    before_only_ = before;
    for (StripView* strip : strips_)
        strip->set_before_only(before);
    for (CellView* view : cells_)
        view->set_before_only(before);
}

void SheetView::hover_strips(StripView* source, double share) {
    hover_strip_ = share < 0 ? nullptr : source;
    hover_share_ = share;
    hover_cell_ = 0;
    hover_pixel_.reset();
    for (StripView* strip : strips_)
        strip->set_hover(share, strip == source);
    for (CellView* view : cells_)
        view->set_spot(std::nullopt);
    tell();
}

void SheetView::hover_cells(int id, std::optional<QPoint> pixel) {
    hover_strip_ = nullptr;
    hover_cell_ = pixel ? id : 0;
    hover_pixel_ = pixel;
    for (StripView* strip : strips_)
        strip->set_hover(-1, false);
    const Cell* source = model_.find(id);
    for (CellView* view : cells_) {
        // The same spot in every cell of the same picture, whichever layer it shows.
        const Cell* cell = model_.find(view->id());
        const bool same = source && cell && source->target == cell->target && source->picture == cell->picture;
        view->set_spot(same ? pixel : std::nullopt);
    }
    tell();
}

void SheetView::point_at(const QString& target, double share) {
    for (StripView* strip : strips_)
        if (utf8(strip->target().name) == target) {
            hover_strips(strip, share);
            strip->setFocus(Qt::OtherFocusReason);
        }
}

void SheetView::tell() {
    Readout readout;
    if (hover_strip_ && hover_strip_->result()) {
        const StripResult& strip = *hover_strip_->result();
        const int sample = hover_strip_->sample_at(hover_share_);
        const double value = strip.target->axis.value_at((sample + 0.5) / strip.before.width);
        const std::string_view unit = strip.target->axis.unit;
        const QString place = theme::number(value, unit.empty() ? 3 : 1) + utf8(unit);
        readout = {true, utf8(strip.target->title), tr("at %1").arg(place),
                   strip.before.at(static_cast<std::size_t>(sample)), strip.after.at(static_cast<std::size_t>(sample)), strip.before.space};
    } else if (hover_pixel_) {
        const CellView* view = cell(hover_cell_);
        const Cell* source = model_.find(hover_cell_);
        if (view && source && view->result()) {
            const CellResult& result = *view->result();
            const QPoint at = *hover_pixel_;
            if (at.x() < result.before_pixels->width && at.y() < result.before_pixels->height) {
                QString place = tr("x %1   y %2").arg(at.x()).arg(at.y());
                if (source->target)
                    place = QString::fromStdString(targets::patch_name(*source->target, at.y() * source->target->columns + at.x()));
                readout = {true, model_.title(*source), place, result.before_pixels->at(at.x(), at.y()),
                           result.after_pixels->at(at.x(), at.y()), result.before_pixels->space};
            }
        }
    }
    emit pointed(readout);
}

} // namespace kasuri::app
