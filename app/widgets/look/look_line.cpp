#include "widgets/look/look_line.hpp"

#include "model/file_names.hpp"

#include "widgets/parts/theme.hpp"

#include <QDragEnterEvent>
#include <QHelpEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {

constexpr int box_size = 12, pad = 8, between = 6, longest_name = 220, shortest_name = 36, drag_threshold = 5;

QString percent(double share) {
    return QString::number(share * 100, 'f', std::fabs(share * 100 - std::round(share * 100)) < 0.05 ? 0 : 1) +
        QStringLiteral(" %");
}

/// Behind the share: how the step is laid over, if it is not as usual.
QString manner(const document::LookStep& step) {
    QString text;
    if (step.blend != "normal")
        text += QStringLiteral("  ") + QString::fromStdString(step.blend).replace('_', ' ');
    if (!step.mask.empty())
        text += QStringLiteral("  ") + LookLine::tr("masked");
    return text;
}

QStringList files_in(const QMimeData* data) {
    QStringList files;
    for (const QUrl& url : data->urls())
        if (url.isLocalFile() &&
            (is_kind(url.path(), FileKind::filter) || is_kind(url.path(), FileKind::look) ||
             is_kind(url.path(), FileKind::lut)))
            files << local_file(url);
    return files;
}

} // namespace

LookLine::LookLine(LookModel& look, QWidget* parent) : QWidget(parent), look_(look) {
    setFocusPolicy(Qt::StrongFocus);
    setAcceptDrops(true);
    setFixedHeight(height_);
    setMouseTracking(true);
    connect(&look_, &LookModel::changed, this, &LookLine::lay_out);
    connect(&look_, &LookModel::named, this, &LookLine::lay_out);
    lay_out();
}

void LookLine::set_faults(std::vector<std::pair<std::size_t, std::string>> faults) {
    if (faults == faults_)
        return;
    faults_ = std::move(faults);
    lay_out();
}

const std::string* LookLine::fault(int index) const {
    for (const auto& [step, what] : faults_)
        if (step == static_cast<std::size_t>(index))
            return &what;
    return nullptr;
}

QSize LookLine::sizeHint() const { return {places_.empty() ? 100 : places_.back().whole.right() + 1, height_}; }

void LookLine::lay_out() {
    const QFontMetrics strong(theme::face(12.5, true)), plain(theme::face(12.5));
    places_.assign(static_cast<std::size_t>(look_.count()), {});
    std::vector<int> wanted;
    int fixed = 0, named = 0;
    QStringList spoken;
    for (int i = 0; i < look_.count(); ++i) {
        Place& place = places_[static_cast<std::size_t>(i)];
        const document::LookStep& step = look_.steps()[static_cast<std::size_t>(i)];
        place.title = QString::number(i + 1) + "  " + look_.name(i);
        place.share = percent(step.opacity) + manner(step);
        if (look_.state(i) == document::FilterState::changed)
            place.share += QStringLiteral("  ") + tr("not as its file");
        wanted.push_back(std::min(longest_name, strong.horizontalAdvance(place.title) + 2));
        named += wanted.back();
        fixed += box_size + 2 * between + plain.horizontalAdvance(place.share) + 2 * pad;
        spoken << tr("%1, %2%3")
                      .arg(place.title, step.on ? percent(step.opacity) : tr("off"),
                           i == look_.current() ? tr(", active") : QString());
    }
    const double room = std::max(0, width() - fixed);
    const double scale = named > room ? room / named : 1;
    int x = 0;
    for (std::size_t i = 0; i < places_.size(); ++i) {
        Place& place = places_[i];
        const int name = std::max(shortest_name, static_cast<int>(wanted[i] * scale)),
                  share = plain.horizontalAdvance(place.share) + 2;
        place.title = strong.elidedText(place.title, Qt::ElideRight, name);
        place.box = QRect(x + pad, (height_ - box_size) / 2, box_size, box_size);
        place.name = QRect(place.box.right() + 1 + between, 0, name, height_);
        place.opacity = QRect(place.name.right() + 1 + between, 0, share, height_);
        place.whole = QRect(x, 0, place.opacity.right() + 1 + pad - x, height_);
        x = place.whole.right() + 1;
    }
    setAccessibleName(tr("Steps of the look: %1").arg(spoken.join("; ")));
    updateGeometry();
    update();
}

void LookLine::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    for (int i = 0; i < look_.count() && static_cast<std::size_t>(i) < places_.size(); ++i) {
        const Place& place = places_[static_cast<std::size_t>(i)];
        const document::LookStep& step = look_.steps()[static_cast<std::size_t>(i)];
        const bool mine = i == look_.current();
        const bool later = look_.up_to_here() && i > look_.current();
        painter.setPen(QPen(theme::text, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(place.box.adjusted(0, 0, -1, -1));
        if (step.on)
            painter.fillRect(place.box.adjusted(3, 3, -3, -3), later ? theme::hairline : theme::text);
        painter.setFont(theme::face(12.5, mine));
        painter.setPen(!step.on || later ? theme::third : theme::text);
        painter.drawText(place.name, Qt::AlignVCenter | Qt::AlignLeft, place.title);
        painter.setFont(theme::face(12.5));
        painter.setPen(!step.on || later ? theme::third : theme::second);
        painter.drawText(place.opacity, Qt::AlignVCenter | Qt::AlignLeft, place.share);
        const QRect under(place.name.x(), height_ - 5, place.opacity.right() - place.name.x(), 2);
        if (fault(i))
            theme::draw_mark(painter, QRectF(place.box).adjusted(-1, -1, 1, 1), false);
        if (mine) {
            painter.fillRect(under, theme::accent);
        } else if (!step.on) {
            painter.setPen(QPen(theme::third, 1, Qt::DashLine));
            painter.drawLine(under.topLeft(), under.topRight());
        }
        if (mine && hasFocus()) {
            painter.setPen(QPen(theme::accent, 1));
            painter.drawRect(place.whole.adjusted(2, 4, -3, -2));
        }
    }
    if (gap_ >= 0 && !places_.empty()) {
        const int x = static_cast<std::size_t>(gap_) < places_.size()
            ? places_[static_cast<std::size_t>(gap_)].whole.x()
            : places_.back().whole.right();
        painter.fillRect(std::max(0, x - 1), 3, 2, height_ - 6, theme::accent);
    }
}

int LookLine::step_at(const QPoint& at) const {
    for (std::size_t i = 0; i < places_.size(); ++i)
        if (places_[i].whole.contains(at))
            return static_cast<int>(i);
    return -1;
}

int LookLine::gap_at(const QPoint& at) const {
    for (std::size_t i = 0; i < places_.size(); ++i)
        if (at.x() < places_[i].whole.center().x())
            return static_cast<int>(i);
    return static_cast<int>(places_.size());
}

QString LookLine::told(int index) const {
    const document::LookStep& step = look_.steps()[static_cast<std::size_t>(index)];
    QStringList lines = {tr("Step %1: %2").arg(index + 1).arg(look_.name(index))};
    if (const std::string* what = fault(index))
        lines << tr("Left out: %1").arg(QString::fromStdString(*what));
    if (!step.filter.empty())
        lines << text_of(step.filter);
    if (look_.state(index) == document::FilterState::changed)
        lines << tr("Its rule and its file are not the same any more; the look goes on with its own. The menu brings "
                    "it up to date, or writes it into the file.");
    if (look_.state(index) == document::FilterState::gone)
        lines << tr("Its file cannot be read; the look has its own copy.");
    if (!step.mask.empty())
        lines << tr("mask: %1%2")
                     .arg(QString::fromStdString(step.mask), step.mask_inverted ? tr(", inverted") : QString());
    lines << tr("Click makes it active, the box switches it, drag its percentage; drag it to another place; right "
                "click for the rest");
    return lines.join('\n');
}

bool LookLine::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        if (const int index = step_at(help->pos()); index >= 0)
            QToolTip::showText(help->globalPos(), told(index), this);
        else
            QToolTip::hideText();
        return true;
    }
    return QWidget::event(event);
}

void LookLine::mousePressEvent(QMouseEvent* event) {
    const QPoint at = event->position().toPoint();
    pressed_ = step_at(at);
    press_ = at;
    moved_ = false;
    held_ = Held::nothing;
    if (pressed_ < 0 || event->button() != Qt::LeftButton)
        return;
    const Place& place = places_[static_cast<std::size_t>(pressed_)];
    if (place.box.adjusted(-5, -8, 4, 8).contains(at)) {
        look_.set_on(pressed_, !look_.steps()[static_cast<std::size_t>(pressed_)].on);
    } else if (place.opacity.contains(at)) {
        held_ = Held::opacity;
        dragged_ = look_.steps()[static_cast<std::size_t>(pressed_)].opacity;
    } else {
        held_ = Held::step;
    }
}

void LookLine::mouseMoveEvent(QMouseEvent* event) {
    const QPoint at = event->position().toPoint();
    if (held_ == Held::nothing) {
        const int index = step_at(at);
        setCursor(index >= 0 && places_[static_cast<std::size_t>(index)].opacity.contains(at) ? Qt::SizeHorCursor
                                                                                              : Qt::ArrowCursor);
        return;
    }
    if (!moved_ && std::abs(at.x() - press_.x()) < drag_threshold)
        return;
    if (held_ == Held::opacity) {
        const double by = (at.x() - press_.x()) * (event->modifiers() & Qt::ShiftModifier ? 0.0005 : 0.005);
        dragged_ = std::clamp(dragged_ + by, 0.0, 1.0);
        press_ = at;
        look_.set_opacity(pressed_, std::round(dragged_ * 1000) / 1000);
    } else {
        gap_ = gap_at(at);
        update();
    }
    moved_ = true;
}

void LookLine::mouseReleaseEvent(QMouseEvent* event) {
    const Held held = held_;
    held_ = Held::nothing;
    if (held == Held::step && moved_) {
        const int gap = gap_at(event->position().toPoint());
        look_.move(pressed_, gap > pressed_ ? gap - 1 : gap);
    } else if (held != Held::nothing && !moved_) {
        look_.select(pressed_);
    }
    gap_ = -1;
    update();
}

void LookLine::mouseDoubleClickEvent(QMouseEvent* event) {
    if (const int index = step_at(event->position().toPoint());
        index >= 0 && places_[static_cast<std::size_t>(index)].name.contains(event->position().toPoint()))
        emit label_wanted(index);
}

void LookLine::contextMenuEvent(QContextMenuEvent* event) {
    const bool keyboard = event->reason() == QContextMenuEvent::Keyboard;
    const int index = keyboard ? look_.current() : step_at(event->pos());
    if (index >= 0)
        emit menu_wanted(index,
                         keyboard ? mapToGlobal(places_[static_cast<std::size_t>(index)].whole.bottomLeft())
                                  : event->globalPos());
}

void LookLine::keyPressEvent(QKeyEvent* event) {
    const int current = look_.current();
    const bool shift = event->modifiers() & Qt::ShiftModifier;
    const double step = shift ? 0.001 : event->modifiers() & Qt::ControlModifier ? 0.1 : 0.01;
    switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right: {
        const int to = current + (event->key() == Qt::Key_Right ? 1 : -1);
        if (to < 0 || to >= look_.count())
            return;
        if (shift)
            look_.move(current, to);
        else
            look_.select(to);
        return;
    }
    case Qt::Key_Up:
    case Qt::Key_Down: // rounded, or tenths would not add up to a whole
        look_.set_opacity(current,
                          std::round((look_.step().opacity + (event->key() == Qt::Key_Up ? step : -step)) * 1e6) / 1e6);
        return;
    case Qt::Key_Space: look_.set_on(current, !look_.step().on); return;
    case Qt::Key_Delete: look_.remove(current); return;
    case Qt::Key_F2: emit label_wanted(current); return;
    default: QWidget::keyPressEvent(event);
    }
}

void LookLine::dragEnterEvent(QDragEnterEvent* event) {
    if (!files_in(event->mimeData()).isEmpty())
        event->acceptProposedAction();
}

void LookLine::dragMoveEvent(QDragMoveEvent* event) {
    gap_ = gap_at(event->position().toPoint());
    event->acceptProposedAction();
    update();
}

void LookLine::dragLeaveEvent(QDragLeaveEvent*) {
    gap_ = -1;
    update();
}

void LookLine::dropEvent(QDropEvent* event) {
    gap_ = -1;
    event->acceptProposedAction();
    emit files_dropped(files_in(event->mimeData()), gap_at(event->position().toPoint()));
    update();
}

} // namespace kasuri::app
