#include "widgets/sheet/strip_view.hpp"

#include "model/display.hpp"
#include "model/words.hpp"
#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/settings_dialog.hpp"
#include "widgets/parts/target_menu.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/sheet/threads.hpp"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace kasuri::app {
namespace {
constexpr double label_height = 11; ///< of levels in the threads: none stands on another
constexpr int caption_height = 20;
constexpr int mat = 3;
constexpr int letters_width = 24; // room at the right for r g b
constexpr int ticks_height = 13;

struct Measures {
    int band, gap, threads;
};
/// Strips grow with the sheet: bands a little, threads most.
Measures measures(int height) {
    const int room = height - caption_height - 2 * mat - 3 - ticks_height;
    const int band = std::clamp(room / 6, 9, 17);
    return {band, 3, std::max(24, room - 2 * band)};
}

QString utf8(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
} // namespace

StripView::StripView(SheetModel& model, int id, QWidget* parent) : QWidget(parent), model_(model), id_(id) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(84);
    setAccessibleName(title());
    if (target())
        setWhatsThis(words(target()->doc)); // no tool tip: it would lie over what is being read
}

const targets::Target* StripView::target() const {
    const Strip* strip = model_.find_strip(id_);
    return strip ? strip->target : nullptr;
}

QString StripView::title() const {
    const Strip* strip = model_.find_strip(id_);
    if (!strip)
        return {};
    return strip->target  ? words(strip->target->title)
        : strip->pin != 0 ? tr("pin %1 over time").arg(strip->pin)
                          : tr("cut");
}

std::vector<targets::Tick> StripView::ticks() const {
    if (!result_ || result_->target)
        return result_ ? result_->axis.ticks : target() ? target()->axis.ticks : std::vector<targets::Tick>();
    tick_texts_.clear();
    std::vector<targets::Tick> made;
    constexpr int parts = 4;
    const int count = result_->before.width;
    const bool frames = !result_->frames.empty();
    std::vector<double> places;
    for (int i = 0; i <= parts; ++i) {
        const int at = (frames ? count - 1 : count) * i / parts;
        if (frames && i > 0 && at == (count - 1) * (i - 1) / parts)
            continue; // fewer frames than labels
        tick_texts_.push_back(std::to_string(frames ? result_->frames[static_cast<std::size_t>(at)] : at));
        places.push_back(frames ? at + 0.5 : result_->axis.high * i / parts);
    }
    for (std::size_t i = 0; i < places.size(); ++i)
        made.push_back({places[i], tick_texts_[i]});
    return made;
}

int StripView::plot_left() const { return theme::margin; }
int StripView::plot_right() const { return width() - theme::margin - letters_width; }

void StripView::show_result(const SheetPtr& sheet, const StripResult& strip) {
    // What is the same is not painted again: the exact sheet after a coarse one, a rule that only touches other values.
    // A cut's caption tells more than its result does.
    const bool known = result_ && strip.target && strip.target == result_->target && strip.axis == result_->axis &&
        sheet->screen == sheet_->screen && image::same(strip.before, result_->before) &&
        image::same(strip.after, result_->after);
    const SheetPtr until_now = std::exchange(sheet_, sheet); // result_ is a part of it
    result_ = &strip;
    if (known)
        return;
    before_ = shown(strip.before, lens("colour"), sheet->screen);
    after_ = shown(strip.after, lens("colour"), sheet->screen);
    update();
}

void StripView::set_old(bool old) {
    if (old != old_) {
        old_ = old;
        update();
    }
}

void StripView::set_before_only(bool before) {
    before_only_ = before;
    update();
}

void StripView::set_hover(double share, bool own) {
    hover_ = share;
    own_hover_ = own;
    update();
}

int StripView::sample_at(double share) const {
    const int count = result_ ? result_->before.width : 1;
    return std::clamp(static_cast<int>(share * count), 0, count - 1);
}

void StripView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Measures m = measures(height());
    draw_caption(painter);
    const int top = caption_height;
    painter.fillRect(QRect(plot_left(), top, plot_right() - plot_left(), 2 * m.band + 2 * mat), theme::surround);
    if (result_)
        draw_bands(painter);
    const QRectF area(plot_left(), top + 2 * m.band + 2 * mat + m.gap, plot_right() - plot_left(), m.threads);
    draw_ticks(painter, area);
    if (result_)
        draw_threads(painter, area);
    if (hover_ >= 0) {
        const double x = std::round(plot_left() + hover_ * (plot_right() - plot_left())) + 0.5;
        painter.setPen(QPen(theme::text, 1));
        painter.drawLine(QPointF(x, own_hover_ ? caption_height - 3 : caption_height), QPointF(x, area.bottom()));
        if (own_hover_) {
            painter.setRenderHint(QPainter::Antialiasing);
            painter.setBrush(theme::text);
            painter.setPen(Qt::NoPen);
            const QPointF peak[3] = {
                {x - 4, caption_height - 5.0}, {x + 4, caption_height - 5.0}, {x, caption_height + 1.0}};
            painter.drawPolygon(peak, 3);
        }
    }
    if (hasFocus()) {
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.fillRect(QRectF(0, 0, 2.5, height()), theme::accent);
    }
}

void StripView::draw_caption(QPainter& painter) const {
    painter.setFont(theme::face());
    painter.setPen(theme::text);
    const QString title = this->title();
    const QRect line(plot_left(), 0, width() - 2 * theme::margin, caption_height);
    painter.drawText(line, Qt::AlignLeft | Qt::AlignVCenter, title);
    int x = plot_left() + painter.fontMetrics().horizontalAdvance(title) + 9;
    painter.setFont(theme::face(11.5));
    painter.setPen(theme::third);
    QString detail = describe();
    if (before_only_)
        detail += "   " + before_name_;
    painter.drawText(QRect(x, 0, width(), caption_height), Qt::AlignLeft | Qt::AlignVCenter, detail);
    x += painter.fontMetrics().horizontalAdvance(detail) + 9;
    if (old_) {
        painter.setFont(theme::face(11.5, true));
        painter.setPen(theme::bad);
        painter.drawText(QRect(x, 0, 60, caption_height), Qt::AlignLeft | Qt::AlignVCenter, tr("old"));
    }
    if (!result_ || hover_ < 0)
        return;
    if (!result_->frames.empty()) {
        painter.setFont(theme::face(11.5));
        painter.setPen(theme::text);
        painter.drawText(QRect(x, 0, width(), caption_height), Qt::AlignLeft | Qt::AlignVCenter,
                         tr("frame %1").arg(result_->frames[static_cast<std::size_t>(sample_at(hover_))]));
    }
    const auto pixel =
        (before_only_ ? result_->before : result_->after).at(static_cast<std::size_t>(sample_at(hover_)));
    painter.setFont(theme::face(11.5));
    int right = width() - theme::margin;
    for (int c = 2; c >= 0; --c) {
        const QString value = theme::number(static_cast<double>(pixel[static_cast<std::size_t>(c)]));
        const int advance =
            std::max(painter.fontMetrics().horizontalAdvance(value), painter.fontMetrics().horizontalAdvance("0.000"));
        painter.setPen(theme::text);
        painter.drawText(QRect(right - advance, 0, advance, caption_height), Qt::AlignRight | Qt::AlignVCenter, value);
        right -= advance + 4;
        painter.setFont(theme::face(11.5, true));
        painter.setPen(theme::trace[c]);
        painter.drawText(QRect(right - 8, 0, 8, caption_height), Qt::AlignRight | Qt::AlignVCenter, theme::letters[c]);
        painter.setFont(theme::face(11.5));
        right -= 15;
    }
}

QString StripView::describe() const {
    const Strip* strip = model_.find_strip(id_);
    if (!strip)
        return {};
    if (strip->target) {
        if (strip->settings.empty() || completed(strip->target->settings, {}) == strip->settings)
            return words(strip->target->detail);
        QStringList parts;
        for (std::size_t i = 0; i < strip->settings.size(); ++i)
            parts << words(strip->target->settings[i].name) + " " + QString::number(strip->settings[i], 'g', 5);
        return parts.join(", ");
    }
    if (strip->pin != 0)
        return describe_frames();
    const Cell* cell = model_.find(strip->cell);
    if (!cell || !result_)
        return {};
    const image::Picture* whole = nullptr;
    for (const CellResult& result : sheet_->cells)
        if (result.id == strip->cell)
            whole = result.before_pixels.get();
    if (!whole)
        return model_.title(*cell);
    const auto at = [&](double x, double y) {
        return QString("%1 %2")
            .arg(std::clamp(static_cast<int>(x * whole->width), 0, whole->width - 1))
            .arg(std::clamp(static_cast<int>(y * whole->height), 0, whole->height - 1));
    };
    return tr("%1, from %2 to %3")
        .arg(model_.title(*cell), at(cell->line.x0, cell->line.y0), at(cell->line.x1, cell->line.y1));
}

QString StripView::describe_frames() const {
    if (!result_ || result_->frames.empty())
        return tr("its picture is none of a numbered sequence");
    QStringList parts{tr("frames %1 to %2").arg(result_->frames.front()).arg(result_->frames.back())};
    const auto& red = *result_->before.planes[0];
    if (const auto missing = std::count_if(red.begin(), red.end(), [](float x) { return std::isnan(x); });
        missing > 0 && !result_->needs_pictures)
        parts << tr("%n not read", nullptr, static_cast<int>(missing));
    if (result_->needs_pictures)
        parts << tr(
            "the rule looks at places, neighbours or further pictures: what it makes of one pixel is not known");
    return parts.join(", ");
}

const Cell* StripView::cell_of_pin() const {
    const Strip* strip = model_.find_strip(id_);
    if (!strip || strip->pin == 0)
        return nullptr;
    for (const Pin& pin : model_.pins())
        if (pin.number == strip->pin)
            for (const Cell& cell : model_.cells())
                if (cell.source() == pin.source)
                    return &cell;
    return nullptr;
}

void StripView::draw_bands(QPainter& painter) const {
    const Measures m = measures(height());
    const QRect upper(plot_left(), caption_height + mat, plot_right() - plot_left(), m.band);
    painter.drawImage(upper, before_);
    painter.drawImage(upper.translated(0, m.band), before_only_ ? before_ : after_);
}

void StripView::draw_ticks(QPainter& painter, const QRectF& area) const {
    painter.setFont(theme::face(10.5));
    const targets::Axis axis = result_ ? result_->axis : target() ? target()->axis : targets::Axis();
    for (const targets::Tick& tick : ticks()) {
        const double share = axis.share_of(tick.value);
        const double x = std::round(area.left() + share * area.width());
        painter.setPen(theme::grid);
        painter.drawLine(QPointF(x + 0.5, area.top()), QPointF(x + 0.5, area.bottom()));
        painter.setPen(theme::third);
        const QRectF label(x - 40, area.bottom() + 1, 80, ticks_height);
        Qt::Alignment where = Qt::AlignHCenter;
        QRectF place = label;
        if (share < 0.01) {
            where = Qt::AlignLeft;
            place.setLeft(x);
        } else if (share > 0.99) {
            where = Qt::AlignRight;
            place.setRight(x + 1);
        }
        painter.drawText(place, where | Qt::AlignTop, utf8(tick.label));
    }
}

void StripView::draw_threads(QPainter& painter, const QRectF& area) const {
    const ThreadScale scale = ThreadScale::fitting(target(), result_->before, result_->after);
    painter.setFont(theme::face(10));
    std::vector<double> labelled;
    for (const double level : {1.0, 0.0, 4.0, 16.0})
        if (level >= scale.low && level <= scale.high) {
            const double y = std::round(scale.y_of(level, area)) + 0.5;
            painter.setPen(theme::hairline);
            painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
            painter.setPen(theme::third);
            const double base = y > area.top() + 10 ? y - 2 : y + 9; // below its line where there is no room above
            if (std::any_of(labelled.begin(), labelled.end(),
                            [base](double other) { return std::fabs(base - other) < label_height; }))
                continue;
            labelled.push_back(base);
            painter.drawText(QPointF(area.left() + 2, base), QString::number(level));
        }
    if (const Cell* cell = cell_of_pin(); cell && !result_->frames.empty()) { // the frame that is shown
        const auto at = static_cast<double>(model_.sequence_of(*cell).at);
        const double x = std::round(area.left() + (at + 0.5) / result_->before.width * area.width()) + 0.5;
        painter.setPen(QPen(theme::third, 1, Qt::DashLine));
        painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()));
    }
    draw_traces(painter, area, scale, result_->before, false);
    if (!before_only_)
        draw_traces(painter, area, scale, result_->after, true);
    draw_trace_letters(painter, area, scale, before_only_ ? result_->before : result_->after);
    if (hover_ >= 0) {
        const auto pixel =
            (before_only_ ? result_->before : result_->after).at(static_cast<std::size_t>(sample_at(hover_)));
        const double x = std::round(area.left() + hover_ * area.width()) + 0.5;
        painter.setPen(Qt::NoPen);
        for (std::size_t c = 0; c < 3; ++c)
            if (!std::isnan(pixel[c])) {
                const double y = scale.y_of(static_cast<double>(pixel[c]), area);
                painter.fillRect(QRectF(x - 3, y - 3, 6, 6), theme::text);
                painter.fillRect(QRectF(x - 2, y - 2, 4, 4), theme::trace[c]);
            }
    }
}

void StripView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton)
        return;
    if (event->position().y() < caption_height)
        return open_menu();
    const double share = (event->position().x() - plot_left()) / std::max(1, plot_right() - plot_left());
    if (const Cell* cell = cell_of_pin(); cell && share >= 0 && share < 1) // to the frame that is pointed at
        model_.set_frame(cell->id, static_cast<std::size_t>(sample_at(share)));
}

void StripView::contextMenuEvent(QContextMenuEvent*) { open_menu(); }

void StripView::open_menu() {
    pop_up(this, mapToGlobal(QPoint(plot_left(), caption_height)), [this](QMenu& menu) { fill_menu(menu); });
}

void StripView::fill_menu(QMenu& menu) {
    const auto strips = [](const targets::Target& target) { return target.shape == targets::Shape::strip; };
    add_target_actions(*menu.addMenu(tr("Show instead")), strips,
                       [this](const targets::Target& target) { model_.set_strip(id_, target); });
    add_target_actions(*menu.addMenu(tr("Add a strip")), strips,
                       [this](const targets::Target& target) { model_.add_strip(target); });
    if (const targets::Target* shown = target(); shown && !shown->settings.empty())
        menu.addAction(tr("Settings\u2026"), this, [this] {
            if (const Strip* strip = model_.find_strip(id_); strip && strip->target)
                edit_settings(this, title(), strip->target->settings, strip->settings,
                              [this](const std::vector<double>& values) { model_.set_strip_settings(id_, values); });
        });
    menu.addSeparator();
    menu.addAction(tr("Move up\tAlt+Up"), this, [this] { emit moved(id_, -1); });
    menu.addAction(tr("Move down\tAlt+Down"), this, [this] { emit moved(id_, 1); });
    menu.addAction(tr("Remove this strip\tDel"), this, [this] { model_.remove_strip(id_); });
}

void StripView::mouseMoveEvent(QMouseEvent* event) {
    const double share = (event->position().x() - plot_left()) / std::max(1, plot_right() - plot_left());
    emit hovered(share >= 0 && share < 1 ? share : -1);
}

void StripView::leaveEvent(QEvent*) { emit hovered(-1); }

void StripView::keyPressEvent(QKeyEvent* event) {
    const int count = result_ ? result_->before.width : 0;
    if (event->modifiers() & Qt::AltModifier && (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down)) {
        emit moved(id_, event->key() == Qt::Key_Up ? -1 : 1);
        return;
    }
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space) {
        open_menu();
        return;
    }
    if (event->key() == Qt::Key_Delete) {
        model_.remove_strip(id_);
        return;
    }
    const bool left = event->key() == Qt::Key_Left, right = event->key() == Qt::Key_Right;
    if (count == 0 || (!left && !right)) {
        QWidget::keyPressEvent(event);
        return;
    }
    const int by = (event->modifiers() & Qt::ControlModifier) ? 20 : 1;
    const int at = hover_ < 0 ? count / 2 : std::clamp(sample_at(hover_) + (right ? by : -by), 0, count - 1);
    emit hovered((at + 0.5) / count);
}

void StripView::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    update();
}

} // namespace kasuri::app
