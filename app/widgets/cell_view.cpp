#include "widgets/cell_view.hpp"

#include "model/display.hpp"
#include "widgets/space_menu.hpp"
#include "widgets/theme.hpp"

#include <QContextMenuEvent>
#include <QFileDialog>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace kasuri::app {
namespace {
constexpr int caption_height = 23;
constexpr double rim = 0.27; ///< share of a patch that shows the colour before, on each side
QString utf8(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
} // namespace

CellView::CellView(SheetModel& model, int id, QWidget* parent) : QWidget(parent), model_(model), id_(id) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    if (const Cell* cell = model_.find(id_))
        setAccessibleName(model_.title(*cell));
}

void CellView::show_result(const CellResult& result) {
    result_ = result;
    has_result_ = true;
    // Which conversions the picture goes through; those between equal spaces do not happen.
    const QString arrow = QString::fromUtf8(" \u2192 "), space = QString::fromStdString(result.space), working = QString::fromStdString(result.working);
    const QString there = space == working ? tr("picture and rule %1").arg(space) : tr("picture %1").arg(space) + arrow + tr("rule %1").arg(working) + arrow + tr("picture %1").arg(space);
    setToolTip(there + arrow + tr("screen %1").arg(QString::fromStdString(model_.screen().space)));
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

void CellView::set_spot(std::optional<QPoint> pixel) {
    if (pixel != spot_) {
        spot_ = pixel;
        update();
    }
}

QSize CellView::picture_size() const {
    const Cell* cell = model_.find(id_);
    if (!cell)
        return {};
    if (cell->target)
        return {cell->target->columns, cell->target->rows};
    const PicturePtr picture = model_.picture_of(*cell);
    return picture ? QSize(picture->width, picture->height) : QSize();
}

QRectF CellView::picture_rect() const {
    const QRectF room(0, caption_height, width(), height() - caption_height);
    const QSize size = picture_size();
    const Cell* cell = model_.find(id_);
    if (size.isEmpty() || !cell || room.height() < 1)
        return {};
    if (cell->target) // patches fill the cell
        return room;
    const double scale = std::min(room.width() / size.width(), room.height() / size.height());
    const QSizeF fitted(std::max(1.0, std::floor(size.width() * scale)), std::max(1.0, std::floor(size.height() * scale)));
    return {QPointF(std::floor((room.width() - fitted.width()) / 2), room.top()), fitted};
}

QSize CellView::wanted_pixels() const {
    const Cell* cell = model_.find(id_);
    if (cell && cell->target)
        return picture_size();
    const QRectF area = picture_rect();
    return {static_cast<int>(area.width() * devicePixelRatioF()), static_cast<int>(area.height() * devicePixelRatioF())};
}

std::optional<QPoint> CellView::pixel_at(const QPointF& point) const {
    const QRectF area = picture_rect();
    const QSize size = picture_size();
    if (size.isEmpty() || !area.contains(point))
        return std::nullopt;
    return QPoint(std::clamp(static_cast<int>((point.x() - area.left()) / area.width() * size.width()), 0, size.width() - 1),
                  std::clamp(static_cast<int>((point.y() - area.top()) / area.height() * size.height()), 0, size.height() - 1));
}

QPointF CellView::point_of(const QPoint& pixel) const {
    const QRectF area = picture_rect();
    const QSize size = picture_size();
    return {area.left() + (pixel.x() + 0.5) / std::max(1, size.width()) * area.width(),
            area.top() + (pixel.y() + 0.5) / std::max(1, size.height()) * area.height()};
}

bool CellView::event(QEvent* event) {
    // Over the picture the pointer measures: a tip would lie on it, and on the numbers beside it.
    if (event->type() == QEvent::ToolTip && static_cast<QHelpEvent*>(event)->pos().y() >= caption_height) {
        event->ignore();
        return true;
    }
    return QWidget::event(event);
}

void CellView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::surround);
    const Cell* cell = model_.find(id_);
    if (!cell)
        return;
    painter.setPen(theme::on_surround);
    painter.setFont(theme::face(12.5, true));
    const QString title = model_.title(*cell);
    painter.drawText(QRect(0, 0, width(), caption_height), Qt::AlignLeft | Qt::AlignVCenter, title);
    int x = painter.fontMetrics().horizontalAdvance(title) + 8;
    painter.setFont(theme::face(12.5));
    const QString shows = QString::fromUtf8("\u00b7 ") + utf8(lens(cell->lens).title) + QString::fromUtf8(" \u25be");
    painter.drawText(QRect(x, 0, width() - x, caption_height), Qt::AlignLeft | Qt::AlignVCenter, shows);
    x += painter.fontMetrics().horizontalAdvance(shows) + 8;
    QString right = cell->target ? tr("rim before, square after") : QString();
    if (const auto file = model_.file_of(*cell))
        right = QString::fromStdString(file->space);
    if (const double outside = before_only_ ? result_.outside_before : result_.outside_after; has_result_ && !cell->target && outside > 0) {
        const QString share = tr("%1 % outside").arg(outside < 0.001 ? QStringLiteral("< 0.1") : QString::number(100 * outside, 'f', 1));
        const QString both = share + QString::fromUtf8(" \u00b7 ") + right;
        right = QFontMetrics(theme::face(11.5)).horizontalAdvance(both) <= width() - x ? both : share; // what is outside is never hidden
    }
    if (before_only_)
        right = tr("before");
    if (old_)
        right = tr("old");
    painter.setFont(theme::face(11.5, old_));
    painter.drawText(QRect(x, 0, width() - x, caption_height), Qt::AlignRight | Qt::AlignVCenter, right);
    const QRectF area = picture_rect();
    if (!has_result_) {
        painter.drawText(QRect(0, caption_height, width(), height() - caption_height), Qt::AlignCenter,
                         cell->target || model_.picture_of(*cell) ? QString() : tr("reading\u2026"));
    } else if (cell->target) {
        draw_patches(painter, area);
    } else {
        painter.drawImage(area, before_only_ ? result_.before : result_.after);
    }
    if (spot_ && has_result_) {
        const QPointF at = point_of(*spot_);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(Qt::black, 3));
        painter.drawEllipse(at, 5, 5);
        painter.setPen(QPen(Qt::white, 1.4));
        painter.drawEllipse(at, 5, 5);
    }
    if (hasFocus()) {
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.setBrush(Qt::NoBrush);
        painter.fillRect(QRectF(0, caption_height - 2.5, width(), 2.5), theme::accent);
    }
}

void CellView::draw_patches(QPainter& painter, const QRectF& area) const {
    const int columns = result_.after.width(), rows = result_.after.height();
    for (int row = 0; row < rows; ++row)
        for (int column = 0; column < columns; ++column) {
            // Edges on whole pixels, so that all patches look alike.
            const double left = std::round(area.left() + area.width() * column / columns);
            const double right = std::round(area.left() + area.width() * (column + 1) / columns) - 3;
            const double top = std::round(area.top() + area.height() * row / rows);
            const double bottom = std::round(area.top() + area.height() * (row + 1) / rows) - 3;
            const QRectF patch(left, top, right - left, bottom - top);
            painter.fillRect(patch, QColor(result_.before.pixel(column, row)));
            const double by_x = std::round(patch.width() * rim), by_y = std::round(patch.height() * rim);
            if (!before_only_)
                painter.fillRect(patch.adjusted(by_x, by_y, -by_x, -by_y), QColor(result_.after.pixel(column, row)));
        }
}

void CellView::mouseMoveEvent(QMouseEvent* event) {
    setCursor(event->position().y() < caption_height ? Qt::PointingHandCursor : Qt::CrossCursor);
    emit hovered(id_, pixel_at(event->position()));
}

void CellView::leaveEvent(QEvent*) { emit hovered(id_, std::nullopt); }

void CellView::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton && event->position().y() < caption_height)
        open_menu();
}

void CellView::contextMenuEvent(QContextMenuEvent*) { open_menu(); }

void CellView::keyPressEvent(QKeyEvent* event) {
    const QPoint by = event->key() == Qt::Key_Left    ? QPoint(-1, 0)
                      : event->key() == Qt::Key_Right ? QPoint(1, 0)
                      : event->key() == Qt::Key_Up    ? QPoint(0, -1)
                      : event->key() == Qt::Key_Down  ? QPoint(0, 1)
                                                      : QPoint();
    const QSize size = picture_size();
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space) {
        open_menu();
    } else if (!by.isNull() && !size.isEmpty()) {
        const int step = (event->modifiers() & Qt::ControlModifier) ? 20 : 1;
        QPoint at = spot_.value_or(QPoint(size.width() / 2, size.height() / 2)) + by * step;
        at = {std::clamp(at.x(), 0, size.width() - 1), std::clamp(at.y(), 0, size.height() - 1)};
        emit hovered(id_, at);
    } else {
        QWidget::keyPressEvent(event);
    }
}

void CellView::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    update();
}

void CellView::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    update();
}

void CellView::open_menu() {
    const Cell* cell = model_.find(id_);
    if (!cell)
        return;
    QMenu menu(this);
    for (const Lens& each : lenses()) {
        QAction* action = menu.addAction(utf8(each.title), this, [this, lens_id = std::string(each.id)] { model_.set_lens(id_, lens_id); });
        action->setCheckable(true);
        action->setChecked(cell->lens == each.id);
        action->setToolTip(utf8(each.doc));
    }
    const QStringList layers = model_.layers_of(*cell);
    if (layers.size() > 1) {
        menu.addSeparator();
        for (const QString& layer : layers) {
            QAction* action = menu.addAction(layer.isEmpty() ? tr("layer: whole") : tr("layer: %1").arg(layer), this,
                                             [this, layer] { model_.set_layer(id_, layer.toStdString()); });
            action->setCheckable(true);
            action->setChecked(layer.toStdString() == cell->layer);
        }
    }
    if (const auto file = model_.file_of(*cell)) {
        menu.addSeparator();
        const std::string said = model_.said_space(*cell);
        QMenu* spaces = menu.addMenu(tr("space: %1 (%2)").arg(QString::fromStdString(file->space), QString::fromStdString(file->space_from)));
        QAction* as_said = spaces->addAction(tr("as the file says"), this, [this] { model_.set_space(id_, {}); });
        as_said->setCheckable(true);
        as_said->setChecked(said.empty());
        spaces->addSeparator();
        add_spaces(*spaces, said, [this](const std::string& space) { model_.set_space(id_, space); });
    }
    menu.addSeparator();
    menu.addAction(tr("Other picture\u2026"), this, [this] {
        const QString file = QFileDialog::getOpenFileName(this, tr("Show a picture"), {}, tr("Pictures (*.png *.tif *.tiff *.exr);;All files (*)"));
        if (!file.isEmpty())
            model_.set_picture(id_, file.toStdString());
    });
    menu.addAction(tr("Remove this cell"), this, [this] { model_.remove(id_); });
    menu.exec(mapToGlobal(QPoint(0, caption_height)));
}

} // namespace kasuri::app
