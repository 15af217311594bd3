#include "widgets/sheet/cell_view.hpp"

#include "model/file_names.hpp"
#include "widgets/parts/theme.hpp"

#include <QContextMenuEvent>
#include <QDragEnterEvent>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QUrl>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr double grip_room = 6; ///< pixels around a line or a pin that hold it
constexpr double drag_start = 8;
constexpr double notch = 1.25; ///< zoom of one notch of the wheel
constexpr double between = 6;  ///< pixels between two copies
constexpr double badge_height = 22;
} // namespace

CellView::CellView(SheetModel& model, Playback& playback, int id, QWidget* parent)
    : QWidget(parent), model_(model), playback_(playback), frames_(new FramesBar(model, playback, id, this)), id_(id) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAcceptDrops(true);
    if (const Cell* cell = model_.find(id_))
        setAccessibleName(model_.title(*cell));
    connect(&model_, &SheetModel::pins_changed, this, [this] { update(); });
}

void CellView::show_result(const CellResult& result) {
    const QRect asked = wanted_region();
    result_ = result;
    has_result_ = true;
    if (!asked.isNull() && wanted_region() != asked) // a picture of another size has come: another part of it is seen
        emit view_changed();
    // Which conversions the picture goes through; those between equal spaces do not happen.
    const QString arrow = QString::fromUtf8(" \u2192 "), space = QString::fromStdString(result.space),
                  working = QString::fromStdString(result.working);
    const QString there = space == working
        ? tr("picture and rule %1").arg(space)
        : tr("picture %1").arg(space) + arrow + tr("rule %1").arg(working) + arrow + tr("picture %1").arg(space);
    apart_.reset(); // it was that of another state
    tip_ = there + arrow + tr("screen %1").arg(QString::fromStdString(model_.screen().space));
    setToolTip(tip_);
    update();
}

void CellView::show_counted(const CellResult& counted) {
    if (result_.after_pixels || result_.size != counted.size)
        return; // an exact sheet, or another picture
    result_.before_pixels = counted.before_pixels;
    result_.after_pixels = counted.after_pixels;
}

void CellView::show_apart(const readings::Apart& apart) {
    apart_ = apart;
    setToolTip(tip_ + "\n" +
               tr("CIEDE2000 from what the rule makes now: mean %1, 99.9 % of the pixels below %2, largest %3")
                   .arg(apart.mean, 0, 'g', 4)
                   .arg(apart.most, 0, 'g', 4)
                   .arg(apart.largest, 0, 'g', 4));
    update();
}

void CellView::set_old(bool old) {
    if (old != old_) {
        old_ = old;
        update();
    }
}

void CellView::set_before_only(bool before) {
    before_only_ = before;
    update();
}

void CellView::set_before_name(const QString& name) {
    before_name_ = name;
    update();
}

void CellView::set_spot(std::optional<QPoint> pixel) {
    if (pixel != spot_) {
        spot_ = pixel;
        update();
    }
}

void CellView::set_alone(bool alone) {
    alone_ = alone;
    update();
}

void CellView::set_compare(Compare compare) {
    if (compare == compare_)
        return;
    const bool resized = compare == Compare::twice || compare_ == Compare::twice, had = shows_before();
    compare_ = compare;
    update();
    if (resized || had != shows_before())
        emit view_changed();
}

void CellView::set_split(double share) {
    split_ = std::clamp(share, 0.0, 1.0);
    update();
}

void CellView::set_zoom(const Zoom& zoom) {
    if (zoom == zoom_)
        return;
    zoom_ = zoom;
    update();
    emit view_changed();
}

bool CellView::is_chart() const {
    const Cell* cell = model_.find(id_);
    return cell && cell->target && cell->target->shape == targets::Shape::patches;
}

double CellView::aspect() const {
    constexpr double usual = 16.0 / 9;
    const QSize size = picture_size();
    const double one = size.isEmpty() || is_chart() // which fills what it gets
        ? usual
        : static_cast<double>(size.width()) / size.height();
    return compare_ == Compare::twice && !is_chart() ? 2 * one : one;
}

QSize CellView::picture_size() const {
    const Cell* cell = model_.find(id_);
    if (!cell)
        return {};
    if (is_chart())
        return {cell->target->columns, cell->target->rows};
    if (cell->target) // its size may follow from its settings: known once it has been made
        return has_result_ ? result_.size : QSize(cell->target->columns, cell->target->rows);
    const PicturePtr picture = model_.picture_of(*cell);
    if (!picture && has_result_) // the next frame is being read
        return result_.size;
    return picture ? QSize(picture->width, picture->height) : QSize();
}

double CellView::frames_height() const { return playback_.can_play(id_) ? FramesBar::bar_height : 0; }

void CellView::refresh() {
    frames_->setVisible(frames_height() > 0);
    frames_->setGeometry(0, height() - FramesBar::bar_height, width(), FramesBar::bar_height);
    frames_->update();
    update();
}

void CellView::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    refresh();
}

double CellView::badges_height() const {
    const Cell* cell = model_.find(id_);
    return cell && model_.layers_of(*cell).size() > 1 ? badge_height : 0;
}

std::vector<CellView::Badge> CellView::badges() const {
    const Cell* cell = model_.find(id_);
    if (!cell || badges_height() == 0)
        return {};
    std::vector<Badge> all;
    const QFontMetrics metrics(theme::face(11.5));
    const int top = height() - static_cast<int>(badge_height + frames_height());
    int left = 0;
    for (const QString& layer : model_.layers_of(*cell)) {
        const QString text = layer.isEmpty() ? tr("whole") : layer;
        const int wide = metrics.horizontalAdvance(text) + 12;
        if (left + wide > width())
            break; // the menu has them all
        all.push_back({layer, text, QRect(left, top + 3, wide, static_cast<int>(badge_height) - 4)});
        left += wide + 4;
    }
    return all;
}

void CellView::step_frame(int by) {
    const Cell* cell = model_.find(id_);
    if (!cell)
        return;
    const io::Sequence& sequence = model_.sequence_of(*cell);
    const auto to = static_cast<std::ptrdiff_t>(sequence.at) + by;
    if (to >= 0 && to < static_cast<std::ptrdiff_t>(sequence.frames.size()))
        model_.set_frame(id_, static_cast<std::size_t>(to));
}

QRectF CellView::room() const {
    const double wide = compare_ == Compare::twice && !is_chart() ? (width() - between) / 2 : width();
    return {0, theme::caption_height, std::max(0.0, wide),
            std::max(0.0, static_cast<double>(height() - theme::caption_height) - frames_height() - badges_height())};
}

QSizeF CellView::device_room() const { return room().size() * devicePixelRatioF(); }

QRectF CellView::picture_rect() const {
    const QRectF where = room();
    if (picture_size().isEmpty() || where.height() < 1)
        return {};
    if (is_chart())
        return where;
    const double ratio = devicePixelRatioF();
    const QRectF placed = zoom_.place(picture_size(), device_room());
    return {where.topLeft() + placed.topLeft() / ratio, placed.size() / ratio};
}

QRect CellView::wanted_region() const {
    return is_chart() || zoom_.fits() ? QRect() : zoom_.seen(picture_size(), device_room());
}

QSize CellView::wanted_pixels() const {
    if (is_chart())
        return picture_size();
    const QRectF area = picture_rect();
    if (zoom_.fits())
        return {static_cast<int>(area.width() * devicePixelRatioF()),
                static_cast<int>(area.height() * devicePixelRatioF())};
    const QRect seen = wanted_region();
    const double scale = zoom_.scale(picture_size(), device_room());
    // Enlarged pixels are drawn as squares: one number each is enough.
    return scale >= 1 ? seen.size()
                      : QSize(std::max(1, static_cast<int>(std::lround(seen.width() * scale))),
                              std::max(1, static_cast<int>(std::lround(seen.height() * scale))));
}

QPointF CellView::in_room(const QPointF& point) const {
    QPointF at = point;
    const QRectF where = room();
    if (compare_ == Compare::twice && at.x() > where.right() + between / 2)
        at.rx() -= where.width() + between; // on the second copy
    return (at - where.topLeft()) * devicePixelRatioF();
}

std::optional<QPoint> CellView::pixel_at(const QPointF& point) const {
    const QSize size = picture_size();
    const QRectF area = picture_rect();
    const QPointF at = in_room(point) / devicePixelRatioF() + room().topLeft();
    if (size.isEmpty() || !area.contains(at) || !room().contains(at))
        return std::nullopt;
    return QPoint(
        std::clamp(static_cast<int>((at.x() - area.left()) / area.width() * size.width()), 0, size.width() - 1),
        std::clamp(static_cast<int>((at.y() - area.top()) / area.height() * size.height()), 0, size.height() - 1));
}

QPointF CellView::point_of(const QPoint& pixel) const {
    const QRectF area = picture_rect();
    const QSize size = picture_size();
    return {area.left() + (pixel.x() + 0.5) / std::max(1, size.width()) * area.width(),
            area.top() + (pixel.y() + 0.5) / std::max(1, size.height()) * area.height()};
}

double CellView::split_x() const {
    const QRectF seen = picture_rect() & room();
    return seen.left() + split_ * seen.width();
}

void CellView::zoom_to(double scale) {
    Zoom zoom = zoom_;
    if (scale == 0)
        zoom.fit();
    else {
        const QSizeF inside = device_room();
        QPointF about(inside.width() / 2, inside.height() / 2);
        if (spot_) // about what is pointed at
            about = in_room(point_of(*spot_));
        zoom.set_scale(scale, about, picture_size(), inside);
    }
    set_zoom(zoom);
}

void CellView::zoom_by(double factor, const QPointF& at) {
    if (is_chart())
        return;
    Zoom zoom = zoom_;
    zoom.set_scale(zoom_.scale(picture_size(), device_room()) * factor, at, picture_size(), device_room());
    set_zoom(zoom);
}

void CellView::toggle_split() { set_compare(compare_ == Compare::split ? Compare::after : Compare::split); }
void CellView::toggle_alone() { emit alone_wanted(id_); }
void CellView::toggle_scale() { zoom_to(!zoom_.fits() && zoom_.scale(picture_size(), device_room()) == 1 ? 0 : 1); }
void CellView::add_line_cut() { model_.add_cut(id_); }

void CellView::pin_spot() {
    const Cell* cell = model_.find(id_);
    const QSize size = picture_size();
    if (cell && !size.isEmpty())
        model_.add_pin(cell->source(), spot_.value_or(QPoint(size.width() / 2, size.height() / 2)));
}

bool CellView::event(QEvent* event) {
    // Over the picture the pointer measures: a tip would lie on it, and on the numbers beside it.
    if (event->type() == QEvent::ToolTip && static_cast<QHelpEvent*>(event)->pos().y() >= theme::caption_height) {
        event->ignore();
        return true;
    }
    return QWidget::event(event);
}

void CellView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton)
        return;
    const QPointF at = event->position();
    grip_at_ = at;
    grip_ = Grip::none;
    if (at.y() < theme::caption_height) {
        for (const Link& link : links())
            if (link.rect.contains(at.toPoint())) {
                (this->*link.act)();
                return;
            }
        grip_ = Grip::caption; // a menu when it is released here, a move when it is dragged
        return;
    }
    for (const Badge& badge : badges())
        if (badge.rect.contains(at.toPoint())) {
            model_.set_layer(id_, badge.layer.toStdString());
            return;
        }
    const Cell* cell = model_.find(id_);
    for (const Pin& pin : model_.pins())
        if (cell && pin.source == cell->source() && QLineF(point_of(pin.pixel), at).length() < grip_room + 2) {
            grip_ = Grip::pin;
            grip_pin_ = pin.number;
            return;
        }
    if (event->modifiers() & Qt::ControlModifier) { // not Alt: window managers move windows with it
        if (const auto pixel = pixel_at(at); pixel && cell)
            model_.add_pin(cell->source(), *pixel);
    } else if (event->modifiers() & Qt::ShiftModifier) {
        grip_ = Grip::line;
        model_.add_cut(id_);
    } else if (compare_ == Compare::split && std::fabs(at.x() - split_x()) < grip_room) {
        grip_ = Grip::split;
    } else {
        grip_ = Grip::pan;
    }
}

void CellView::mouseMoveEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    const bool over_split =
        compare_ == Compare::split && at.y() >= theme::caption_height && std::fabs(at.x() - split_x()) < grip_room;
    switch (grip_) {
    case Grip::caption:
        if ((at - grip_at_).manhattanLength() > drag_start)
            setCursor(Qt::ClosedHandCursor);
        return;
    case Grip::split: {
        const QRectF seen = picture_rect() & room();
        set_split((at.x() - seen.left()) / std::max(1.0, seen.width()));
        break;
    }
    case Grip::pan:
        if (!zoom_.fits() && !is_chart()) {
            Zoom zoom = zoom_;
            zoom.pan((at - grip_at_) * devicePixelRatioF(), picture_size(), device_room());
            grip_at_ = at;
            set_zoom(zoom);
        }
        break;
    case Grip::line: {
        const auto from = pixel_at(grip_at_), to = pixel_at(at);
        const QSize size = picture_size();
        if (from && to && *from != *to)
            model_.set_line(id_,
                            {(from->x() + 0.5) / size.width(), (from->y() + 0.5) / size.height(),
                             (to->x() + 0.5) / size.width(), (to->y() + 0.5) / size.height()});
        break;
    }
    case Grip::pin:
        if (const auto pixel = pixel_at(at))
            model_.move_pin(grip_pin_, *pixel);
        break;
    case Grip::none:
        setCursor(at.y() < theme::caption_height ? Qt::PointingHandCursor
                      : over_split               ? Qt::SplitHCursor
                                                 : Qt::CrossCursor);
        break;
    }
    emit hovered(id_, pixel_at(at));
}

void CellView::mouseReleaseEvent(QMouseEvent* event) {
    const Grip was = std::exchange(grip_, Grip::none);
    if (was != Grip::caption)
        return;
    setCursor(Qt::PointingHandCursor);
    if ((event->position() - grip_at_).manhattanLength() > drag_start)
        emit dropped_on(id_, event->globalPosition().toPoint());
    else
        open_menu();
}

void CellView::mouseDoubleClickEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton && event->position().y() >= theme::caption_height)
        toggle_alone();
}

void CellView::wheelEvent(QWheelEvent* event) {
    if (event->position().y() >= theme::caption_height)
        zoom_by(std::pow(notch, event->angleDelta().y() / 120.0), in_room(event->position()));
    event->accept();
}

void CellView::leaveEvent(QEvent*) { emit hovered(id_, std::nullopt); }

void CellView::contextMenuEvent(QContextMenuEvent*) { open_menu(); }

void CellView::keyPressEvent(QKeyEvent* event) {
    const QPoint by = event->key() == Qt::Key_Left ? QPoint(-1, 0)
        : event->key() == Qt::Key_Right            ? QPoint(1, 0)
        : event->key() == Qt::Key_Up               ? QPoint(0, -1)
        : event->key() == Qt::Key_Down             ? QPoint(0, 1)
                                                   : QPoint();
    const QSize size = picture_size();
    const QSizeF inside = device_room();
    const QPointF middle(inside.width() / 2, inside.height() / 2);
    const bool control = event->modifiers() & Qt::ControlModifier;
    if (!by.isNull() && event->modifiers() & Qt::AltModifier) { // the cell itself moves
        const auto& cells = model_.cells();
        const auto here =
            std::find_if(cells.begin(), cells.end(), [this](const Cell& c) { return c.id == id_; }) - cells.begin();
        const auto count = static_cast<std::ptrdiff_t>(cells.size());
        if (by.x() < 0 && here > 0)
            model_.move(id_, cells[static_cast<std::size_t>(here - 1)].id);
        else if (by.x() > 0 && here + 1 < count)
            model_.move(id_, here + 2 < count ? cells[static_cast<std::size_t>(here + 2)].id : 0);
        return;
    }
    if (!by.isNull() && event->modifiers() & Qt::ShiftModifier) {
        Zoom zoom = zoom_;
        zoom.pan(QPointF(-by.x() * inside.width() / 8, -by.y() * inside.height() / 8), size, inside);
        set_zoom(zoom);
        return;
    }
    if (!by.isNull() && !size.isEmpty()) {
        QPoint at = spot_.value_or(QPoint(size.width() / 2, size.height() / 2)) + by * (control ? 20 : 1);
        at = {std::clamp(at.x(), 0, size.width() - 1), std::clamp(at.y(), 0, size.height() - 1)};
        emit hovered(id_, at);
        return;
    }
    if (control) {
        QWidget::keyPressEvent(event);
        return;
    }
    switch (event->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
    case Qt::Key_Space: open_menu(); break;
    case Qt::Key_F: toggle_alone(); break;
    case Qt::Key_S: toggle_split(); break;
    case Qt::Key_T: set_compare(compare_ == Compare::twice ? Compare::after : Compare::twice); break;
    case Qt::Key_D:
        if (const Cell* cell = model_.find(id_))
            model_.set_lens(id_, cell->lens == "difference" ? "colour" : "difference");
        break;
    case Qt::Key_P: pin_spot(); break;
    case Qt::Key_C: add_line_cut(); break;
    case Qt::Key_Plus:
    case Qt::Key_Equal: zoom_by(notch * notch, spot_ ? in_room(point_of(*spot_)) : middle); break;
    case Qt::Key_Minus: zoom_by(1 / (notch * notch), middle); break;
    case Qt::Key_0: zoom_to(0); break;
    case Qt::Key_1: zoom_to(1); break;
    case Qt::Key_BracketLeft: set_split(split_ - 0.02); break;
    case Qt::Key_BracketRight: set_split(split_ + 0.02); break;
    case Qt::Key_PageUp:
    case Qt::Key_Comma: step_frame(-1); break;
    case Qt::Key_PageDown:
    case Qt::Key_Period: step_frame(1); break;
    case Qt::Key_Delete: model_.remove(id_); break;
    default: QWidget::keyPressEvent(event);
    }
}

void CellView::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void CellView::dropEvent(QDropEvent* event) {
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile())
            emit file_dropped(id_, local_file(url));
    event->acceptProposedAction();
}

void CellView::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    emit focused(id_);
    update();
}

void CellView::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    update();
}

} // namespace kasuri::app
