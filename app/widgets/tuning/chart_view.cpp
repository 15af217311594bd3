#include "widgets/tuning/chart_view.hpp"

#include "image/perspective.hpp"
#include "model/display.hpp"
#include "widgets/parts/theme.hpp"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr double ring = 7, reach = 18;              ///< of a corner: its radius, and how near the pointer has to be
constexpr double glass_side = 150, glass_times = 6; ///< the enlarged piece: its side, and screen pixels for one
} // namespace

ChartView::ChartView(ChartModel& model, ChartModel::Side side, QWidget* parent)
    : QWidget(parent), model_(model), side_(side) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("The picture of the chart and its corners"));
    setAccessibleDescription(
        tr("Keys 1 to 4 hold a corner, arrows move it by a pixel, with Shift by a tenth, with Ctrl by "
           "ten."));
    connect(&model, &ChartModel::measured, this, qOverload<>(&QWidget::update));
    connect(&model, &ChartModel::picture_changed, this, [this](int changed) {
        if (changed == side_)
            hold(-1);
        update();
    });
    connect(&theme::changes(), &theme::Changes::surround_changed, this, qOverload<>(&QWidget::update));
}

void ChartView::hold(int corner) {
    held_ = corner;
    update();
    emit held_changed();
}

double ChartView::scale() const {
    const QSize size = model_.size(side_);
    constexpr double room = 2 * 12;
    return size.isEmpty()
        ? 1
        : std::max(0.01, std::min((width() - room) / size.width(), (height() - room) / size.height()));
}

QRectF ChartView::place() const {
    const QSizeF size = QSizeF(model_.size(side_)) * scale();
    return {(width() - size.width()) / 2, (height() - size.height()) / 2, size.width(), size.height()};
}

QPointF ChartView::on_screen(const image::Point& point) const {
    return place().topLeft() + QPointF(point.x, point.y) * scale();
}

image::Point ChartView::of_picture(const QPointF& at) const {
    const QPointF point = (at - place().topLeft()) / scale();
    return {point.x(), point.y()};
}

void ChartView::move_held(const image::Point& to) {
    const QSize size = model_.size(side_);
    if (held_ < 0 || size.isEmpty())
        return;
    image::Corners corners = model_.corners(side_);
    // A hundredth of a pixel is finer than anybody can put it.
    const auto kept = [](double x, int end) { return std::round(100 * std::clamp(x, 0.0, double(end))) / 100; };
    corners[static_cast<std::size_t>(held_)] = {kept(to.x, size.width()), kept(to.y, size.height())};
    model_.set_corners(side_, corners);
}

void ChartView::draw_patches(QPainter& painter) const {
    const auto view = image::Perspective::make(model_.corners(side_));
    if (!view)
        return;
    const auto [columns, rows] = model_.grid();
    const std::vector<pairing::Patch>& seen = model_.patches(side_);
    for (int row = 0; row < rows; ++row)
        for (int column = 0; column < columns; ++column) {
            const auto index = static_cast<std::size_t>(row * columns + column);
            const auto square = [&](double half) {
                QPolygonF made;
                for (const auto& [u, v] : {std::pair{-half, -half}, {half, -half}, {half, half}, {-half, half}})
                    made << on_screen(view->at((column + 0.5 + u) / columns, (row + 0.5 + v) / rows));
                return made;
            };
            const bool counts = index >= seen.size() || seen[index].why_not.empty();
            const QPolygonF half = square(0.25);
            painter.setBrush(Qt::NoBrush);
            for (const QPen& pen : {QPen(QColor(0, 0, 0, 160), 3), QPen(QColor(Qt::white), 1)}) {
                painter.setPen(pen);
                painter.drawPolygon(half);
                if (counts)
                    continue;
                painter.drawLine(half[0], half[2]);
                painter.drawLine(half[1], half[3]);
            }
            if (index < model_.wanted().size()) {
                painter.setPen(Qt::NoPen);
                painter.setBrush(colour_on_screen(model_.wanted()[index].colour, "rec709-linear"));
                painter.drawPolygon(square(0.11));
            }
        }
}

void ChartView::draw_corners(QPainter& painter) const {
    const image::Corners& corners = model_.corners(side_);
    QPolygonF outline;
    for (const image::Point& p : corners)
        outline << on_screen(p);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(QColor(0, 0, 0, 160), 3));
    painter.drawPolygon(outline);
    painter.setPen(QPen(Qt::white, 1));
    painter.drawPolygon(outline);
    painter.setFont(theme::face(11, true));
    for (int i = 0; i < 4; ++i) {
        const QPointF at = outline[i];
        painter.setPen(QPen(QColor(0, 0, 0, 160), 4));
        painter.drawEllipse(at, ring, ring);
        painter.setPen(QPen(i == held_ ? theme::accent : QColor(Qt::white), 2));
        painter.drawEllipse(at, ring, ring);
        // The number stands outside, away from the patches.
        const QPointF middle = outline.boundingRect().center(), out = at - middle;
        const double far = std::max(1.0, std::hypot(out.x(), out.y()));
        const QPointF beside = at + out / far * 18;
        const QRectF box(beside.x() - 10, beside.y() - 10, 20, 20);
        painter.setPen(QColor(0, 0, 0, 200));
        painter.drawText(box.translated(1, 1), Qt::AlignCenter, QString::number(i + 1));
        painter.setPen(Qt::white);
        painter.drawText(box, Qt::AlignCenter, QString::number(i + 1));
    }
}

void ChartView::draw_glass(QPainter& painter) const {
    if (held_ < 0)
        return;
    const image::Point corner = model_.corners(side_)[static_cast<std::size_t>(held_)];
    const QImage& image = model_.image(side_);
    const double of_image = static_cast<double>(image.width()) / model_.size(side_).width();
    const double half = glass_side / glass_times / 2;
    // Where it hides least: in the corner of the window that is farthest away.
    const QPointF at = on_screen(corner);
    const QRectF glass(at.x() > width() / 2.0 ? 8 : width() - glass_side - 8,
                       at.y() > height() / 2.0 ? 8 : height() - glass_side - 8, glass_side, glass_side);
    painter.save();
    painter.setClipRect(glass);
    painter.fillRect(glass, theme::surround);
    painter.setRenderHint(QPainter::SmoothPixmapTransform, false);
    painter.drawImage(
        glass, image,
        QRectF((corner.x - half) * of_image, (corner.y - half) * of_image, 2 * half * of_image, 2 * half * of_image));
    painter.setPen(QPen(QColor(0, 0, 0, 160), 3));
    const auto cross = [&] {
        painter.drawLine(QPointF(glass.center().x(), glass.top()), QPointF(glass.center().x(), glass.bottom()));
        painter.drawLine(QPointF(glass.left(), glass.center().y()), QPointF(glass.right(), glass.center().y()));
    };
    cross();
    painter.setPen(QPen(Qt::white, 1));
    cross();
    painter.restore();
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme::accent, 1.5));
    painter.drawRect(glass);
}

void ChartView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::surround);
    if (model_.image(side_).isNull())
        return;
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(place(), model_.image(side_));
    painter.setRenderHint(QPainter::Antialiasing);
    draw_patches(painter);
    draw_corners(painter);
    draw_glass(painter);
    if (hasFocus()) {
        painter.setPen(QPen(theme::accent, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(rect().adjusted(0, 0, -1, -1));
    }
}

void ChartView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || model_.image(side_).isNull())
        return;
    int nearest = -1;
    double best = reach;
    for (int i = 0; i < 4; ++i) {
        const QPointF away = on_screen(model_.corners(side_)[static_cast<std::size_t>(i)]) - event->position();
        if (const double far = std::hypot(away.x(), away.y()); far < best) {
            best = far;
            nearest = i;
            grip_ = away;
        }
    }
    dragging_ = nearest >= 0;
    hold(nearest);
}

void ChartView::mouseMoveEvent(QMouseEvent* event) {
    if (dragging_)
        move_held(of_picture(event->position() + grip_));
}

bool ChartView::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip)
        return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    QToolTip::showText(help->globalPos(), model_.words_at(side_, of_picture(help->pos())), this);
    return true;
}

void ChartView::mouseReleaseEvent(QMouseEvent*) { dragging_ = false; }

void ChartView::keyPressEvent(QKeyEvent* event) {
    if (event->key() >= Qt::Key_1 && event->key() <= Qt::Key_4 && !model_.image(side_).isNull()) {
        hold(event->key() - Qt::Key_1);
        return;
    }
    const double by = event->modifiers() & Qt::ShiftModifier ? 0.1 : event->modifiers() & Qt::ControlModifier ? 10 : 1;
    double dx = 0, dy = 0;
    switch (event->key()) {
    case Qt::Key_Left: dx = -by; break;
    case Qt::Key_Right: dx = by; break;
    case Qt::Key_Up: dy = -by; break;
    case Qt::Key_Down: dy = by; break;
    default: break;
    }
    if (held_ < 0 || (dx == 0 && dy == 0)) {
        QWidget::keyPressEvent(event);
        return;
    }
    const image::Point now = model_.corners(side_)[static_cast<std::size_t>(held_)];
    move_held({now.x + dx, now.y + dy});
}

} // namespace kasuri::app
