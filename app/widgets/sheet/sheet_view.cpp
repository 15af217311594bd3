#include "widgets/sheet/sheet_view.hpp"

#include "model/file_names.hpp"

#include "widgets/parts/part_splitter.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/sheet/cell_places.hpp"
#include "widgets/sheet/cell_view.hpp"
#include "widgets/sheet/strip_view.hpp"

#include <QApplication>
#include <QEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QUrl>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <utility>

namespace kasuri::app {
namespace {
constexpr int resize_pause_ms = 15;
constexpr int cell_gap = 32, row_gap = 3;
QString utf8(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
} // namespace

SheetView::SheetView(SheetModel& model, Playback& playback, OverTime& over_time, QWidget* parent)
    : QWidget(parent), model_(model), playback_(playback), over_time_(over_time) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    splitter_ = new PartSplitter(Qt::Vertical, this);
    strips_area_ = new QWidget(splitter_);
    strips_column_ = new QVBoxLayout(strips_area_);
    strips_column_->setContentsMargins(0, 0, 0, 2);
    strips_column_->setSpacing(0);
    cells_area_ = new QWidget(splitter_);
    cells_area_->setAutoFillBackground(true);
    const auto stand_on = [this] {
        QPalette palette = cells_area_->palette();
        palette.setColor(QPalette::Window, theme::surround);
        cells_area_->setPalette(palette);
    };
    stand_on();
    connect(&theme::changes(), &theme::Changes::surround_changed, cells_area_, stand_on);
    cells_area_->setMinimumHeight(120);
    cells_area_->installEventFilter(this);
    splitter_->addWidget(strips_area_);
    splitter_->addWidget(cells_area_);
    splitter_->set_usual({318, 380});
    splitter_->setStretchFactor(0, 45);
    splitter_->setStretchFactor(1, 55);
    column->addWidget(splitter_);
    resize_pause_.setSingleShot(true);
    resize_pause_.setInterval(resize_pause_ms);
    connect(&resize_pause_, &QTimer::timeout, this, &SheetView::wanted);
    connect(&model_, &SheetModel::changed, this,
            [this] { theme::set_surround(surround_colour(model_.screen()), on_surround(model_.screen())); });
    connect(&model_, &SheetModel::changed, this, &SheetView::rebuild);
    connect(&model_, &SheetModel::pins_changed, this, &SheetView::tell_pins);
    connect(&model_, &SheetModel::take_tried, this, &SheetView::wanted);
    connect(&over_time_, &OverTime::changed, this, &SheetView::wanted);
    rebuild();
}

void SheetView::pick(std::function<void(const Readout&)> take) {
    if (!take_)
        qApp->installEventFilter(this);
    take_ = std::move(take);
    for (QWidget* each : findChildren<QWidget*>())
        each->setCursor(Qt::CrossCursor);
}

bool SheetView::eventFilter(QObject* object, QEvent* event) {
    if (take_ && (event->type() == QEvent::MouseButtonPress || event->type() == QEvent::KeyPress)) {
        auto* widget = qobject_cast<QWidget*>(object);
        const bool escape =
            event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape;
        const bool here = event->type() == QEvent::MouseButtonPress && widget && isAncestorOf(widget) &&
            (qobject_cast<CellView*>(widget) || qobject_cast<StripView*>(widget));
        if (escape || here) {
            const auto take = std::exchange(take_, nullptr);
            qApp->removeEventFilter(this);
            for (QWidget* each : findChildren<QWidget*>())
                each->unsetCursor();
            take(here ? pointed_ : Readout());
            return true;
        }
    }
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
    if (strips_.empty() || alone_ != 0)
        return 0;
    const StripView* strip = strips_.front();
    return static_cast<int>(std::max(0, strip->plot_right() - strip->plot_left()) * devicePixelRatioF());
}

std::vector<StripJob> SheetView::strip_jobs() const {
    std::vector<StripJob> jobs;
    for (const Strip& strip : model_.strips()) {
        const Cell* cell = strip.target ? nullptr : model_.find(strip.cell);
        StripJob job{strip.id, strip.target, strip.settings, strip.cell, cell ? cell->line : readings::Line()};
        if (strip.pin != 0) {
            OverTime::Row row = over_time_.row(strip.pin);
            if (!row.colours)
                continue;
            job.over_time = std::move(row.colours);
            job.frames = std::move(row.numbers);
        }
        jobs.push_back(std::move(job));
    }
    return jobs;
}

std::vector<CellJob> SheetView::jobs() const {
    std::vector<CellJob> jobs;
    for (const CellView* view : cells_)
        if (const Cell* cell = model_.find(view->id())) {
            CellJob job{cell->id,
                        model_.picture_of(*cell),
                        cell->target,
                        cell->lens,
                        view->wanted_pixels(),
                        model_.file_of(*cell),
                        view->wanted_region(),
                        cell->settings,
                        view->shows_before(),
                        model_.take_of(*cell),
                        cell->picture};
            job.numbers = hover_cell_ == cell->id ||
                std::any_of(model_.pins().begin(), model_.pins().end(),
                            [&](const Pin& pin) { return pin.source == cell->source(); });
            if (job.target || job.picture)
                jobs.push_back(std::move(job));
        }
    return jobs;
}

int SheetView::current_cell() const {
    if (model_.find(current_))
        return current_;
    // A picture says more than a chart.
    for (const Cell& cell : model_.cells())
        if (!cell.target)
            return cell.id;
    return model_.cells().empty() ? 0 : model_.cells().front().id;
}

void SheetView::set_alone(int id) {
    const int was = std::exchange(alone_, id == alone_ || !model_.find(id) ? 0 : id);
    if (was == alone_)
        return;
    strips_area_->setVisible(alone_ == 0);
    for (CellView* view : cells_) {
        view->set_alone(view->id() == alone_);
        view->setVisible(alone_ == 0 || view->id() == alone_);
    }
    arrange_cells();
    resize_pause_.start();
    emit wanted();
}

CellView* SheetView::cell(int id) const {
    const auto found =
        std::find_if(cells_.begin(), cells_.end(), [id](const CellView* view) { return view->id() == id; });
    return found == cells_.end() ? nullptr : *found;
}

void SheetView::rebuild() {
    rebuild_strips();
    rebuild_cells();
    emit wanted();
}

void SheetView::rebuild_strips() {
    std::vector<StripView*> kept;
    for (const Strip& strip : model_.strips()) {
        const auto found =
            std::find_if(strips_.begin(), strips_.end(), [&](const StripView* view) { return view->id() == strip.id; });
        StripView* view = found == strips_.end() ? nullptr : *found;
        if (!view) {
            view = new StripView(model_, strip.id, strips_area_);
            view->set_before_name(before_name_);
            view->set_old(old_);
            view->set_before_only(before_only_);
            connect(view, &StripView::hovered, this, [this, view](double share) { hover_strips(view, share); });
            connect(view, &StripView::moved, this, &SheetView::move_strip);
        }
        kept.push_back(view);
    }
    for (StripView* view : strips_)
        if (std::find(kept.begin(), kept.end(), view) == kept.end()) {
            if (hover_strip_ == view)
                hover_strip_ = nullptr;
            strips_column_->removeWidget(view);
            view->hide();
            view->deleteLater();
        }
    strips_ = std::move(kept);
    for (StripView* view : strips_) { // in their order
        strips_column_->removeWidget(view);
        strips_column_->addWidget(view, 1);
        view->update();
    }
    strips_area_->setVisible(alone_ == 0 && !strips_.empty());
}

void SheetView::rebuild_cells() {
    std::vector<CellView*> kept;
    for (const Cell& cell : model_.cells()) {
        CellView* view = this->cell(cell.id);
        if (!view) {
            view = new CellView(model_, playback_, cell.id, cells_area_);
            view->set_before_name(before_name_);
            view->set_old(old_);
            view->set_before_only(before_only_);
            view->setVisible(alone_ == 0);
            connect(view, &CellView::hovered, this, &SheetView::hover_cells);
            connect(view, &CellView::view_changed, this, [this] {
                arrange_cells(); // two copies side by side are twice as broad
                emit wanted();
            });
            connect(view, &CellView::alone_wanted, this, &SheetView::set_alone);
            connect(view, &CellView::dropped_on, this, &SheetView::drop_cell);
            connect(view, &CellView::file_dropped, this, [this](int id, const QString& file) {
                // A picture goes into the cell it is dropped on; anything else is for the window.
                if (!is_kind(file, FileKind::picture) && !is_kind(file, FileKind::movie) && file_kind(bytes_of(file)))
                    emit files_dropped({url_of(file)});
                else
                    model_.set_picture(id, bytes_of(file));
            });
            connect(view, &CellView::focused, this, [this](int id) {
                current_ = id;
                emit current_changed(id);
            });
        }
        kept.push_back(view);
    }
    for (CellView* view : cells_)
        if (std::find(kept.begin(), kept.end(), view) == kept.end()) {
            view->hide();
            view->deleteLater();
        }
    cells_ = std::move(kept);
    if (alone_ != 0 && !model_.find(alone_))
        set_alone(0);
    arrange_cells();
    for (CellView* view : cells_)
        view->refresh();
}

void SheetView::arrange_cells() {
    const QRect room = cells_area_->rect().adjusted(theme::margin, 0, -theme::margin, -8);
    if (CellView* only = alone_ != 0 ? cell(alone_) : nullptr) {
        only->setGeometry(room);
        return;
    }
    std::vector<double> aspects;
    for (const CellView* view : cells_)
        aspects.push_back(view->aspect());
    const std::vector<QRect> places = cell_places(aspects, room, theme::caption_height, {cell_gap, row_gap});
    for (std::size_t i = 0; i < places.size(); ++i)
        cells_[i]->setGeometry(places[i]);
}

void SheetView::drop_cell(int id, const QPoint& global) {
    for (std::size_t i = 0; i < cells_.size(); ++i) {
        const CellView* view = cells_[i];
        if (view->id() == id || !view->isVisible() || !view->rect().contains(view->mapFromGlobal(global)))
            continue;
        // Dropped on a cell it takes that cell's place, whichever way it comes from.
        const auto from =
            std::find_if(cells_.begin(), cells_.end(), [id](const CellView* v) { return v->id() == id; }) -
            cells_.begin();
        const bool forward = from < static_cast<std::ptrdiff_t>(i);
        model_.move(id, !forward ? view->id() : i + 1 < cells_.size() ? cells_[i + 1]->id() : 0);
        return;
    }
    if (!rect().contains(mapFromGlobal(global)))
        emit cell_dropped(id, global);
}

void SheetView::set_before_name(const QString& name) {
    before_name_ = name;
    for (StripView* strip : strips_)
        strip->set_before_name(name);
    for (CellView* view : cells_)
        view->set_before_name(name);
}

void SheetView::move_strip(int id, int by) {
    const auto& all = model_.strips();
    const auto here = std::find_if(all.begin(), all.end(), [id](const Strip& s) { return s.id == id; }) - all.begin();
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    if (by < 0 && here > 0)
        model_.move_strip(id, all[static_cast<std::size_t>(here - 1)].id);
    else if (by > 0 && here + 1 < count)
        model_.move_strip(id, here + 2 < count ? all[static_cast<std::size_t>(here + 2)].id : 0);
}

void SheetView::show_result(const SheetPtr& sheet) {
    sheet_ = sheet;
    for (const StripResult& result : sheet->strips)
        for (StripView* strip : strips_)
            if (strip->id() == result.id)
                strip->show_result(sheet, result);
    for (const CellResult& result : sheet->cells)
        if (CellView* view = cell(result.id))
            view->show_result(result);
    if (sheet->coarse)
        return; // the numbers wait for the exact sheet
    tell();
    tell_pins();
}

void SheetView::show_counted(const ReadingsResult& readings) {
    for (const CellResult& counted : readings.counted)
        if (CellView* view = cell(counted.id))
            view->show_counted(counted);
    if (!readings.counted.empty()) {
        tell();
        tell_pins();
    }
}

void SheetView::show_apart(const ReadingsResult& readings) {
    if (!sheet_ || sheet_->generation != readings.generation)
        return;
    for (const auto& [id, apart] : readings.apart)
        if (CellView* view = cell(id))
            view->show_apart(apart);
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
    bool more = false; // something is shown that has not been painted yet
    for (CellView* view : cells_) {
        const bool had = view->shows_before();
        view->set_before_only(before);
        more = more || (view->shows_before() && !had);
    }
    if (more)
        emit wanted();
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

bool SheetView::pin_pointed() {
    CellView* view = cell(hover_cell_);
    if (view)
        view->pin_spot();
    return view != nullptr;
}

bool SheetView::cut_pointed() {
    CellView* view = cell(hover_cell_);
    if (view)
        view->add_line_cut();
    return view != nullptr;
}

void SheetView::point_at(const QString& target, double share) {
    for (StripView* strip : strips_)
        if (strip->target() && utf8(strip->target()->name) == target) {
            hover_strips(strip, share);
            strip->setFocus(Qt::OtherFocusReason);
        }
}

Readout SheetView::readout_at(const Cell& cell, const QPoint& pixel) const {
    const CellView* view = this->cell(cell.id);
    if (!view || !view->result())
        return {};
    const CellResult& result = *view->result();
    if (!result.before_pixels || !result.after_pixels || pixel.x() >= result.before_pixels->width ||
        pixel.y() >= result.before_pixels->height)
        return {};
    QString place = tr("x %1   y %2").arg(pixel.x()).arg(pixel.y());
    if (cell.target && cell.target->shape == targets::Shape::patches)
        place = QString::fromStdString(targets::patch_name(*cell.target, pixel.y() * cell.target->columns + pixel.x()));
    return {true,
            model_.title(cell),
            place,
            result.before_pixels->at(pixel.x(), pixel.y()),
            result.after_pixels->at(pixel.x(), pixel.y()),
            result.before_pixels->space};
}

void SheetView::point_at_pin(int number) {
    for (const Pin& pin : model_.pins())
        for (const Cell& cell : model_.cells())
            if (pin.number == number && cell.source() == pin.source) {
                hover_cells(cell.id, pin.pixel);
                return;
            }
}

void SheetView::tell_pins() {
    std::vector<PinReadout> all;
    for (const Pin& pin : model_.pins()) {
        PinReadout made{pin.number, {}};
        for (const Cell& cell : model_.cells())
            if (!made.readout.valid && cell.source() == pin.source)
                made.readout = readout_at(cell, pin.pixel);
        if (!made.readout.valid)
            made.readout.place = tr("x %1   y %2").arg(pin.pixel.x()).arg(pin.pixel.y());
        all.push_back(std::move(made));
    }
    emit pins_read(all);
}

void SheetView::tell() {
    Readout readout;
    if (hover_strip_ && hover_strip_->result()) {
        const StripResult& strip = *hover_strip_->result();
        const int sample = hover_strip_->sample_at(hover_share_);
        const double value = strip.axis.value_at((sample + 0.5) / strip.before.width);
        const QString place = strip.target
            ? theme::number(value, strip.axis.unit.empty() ? 3 : 1) + utf8(strip.axis.unit)
            : QString::number(sample);
        readout = {true,
                   hover_strip_->title(),
                   strip.frames.empty() ? tr("at %1").arg(place)
                                        : tr("frame %1").arg(strip.frames[static_cast<std::size_t>(sample)]),
                   strip.before.at(static_cast<std::size_t>(sample)),
                   strip.after.at(static_cast<std::size_t>(sample)),
                   strip.before.space};
    } else if (hover_pixel_) {
        if (const Cell* source = model_.find(hover_cell_))
            readout = readout_at(*source, *hover_pixel_);
    }
    pointed_ = readout;
    emit pointed(readout);
}

} // namespace kasuri::app
