// What a cell draws: caption, pictures, values of enlarged pixels, the cut's line, pins.
#include "model/display.hpp"
#include "model/words.hpp"
#include "widgets/parts/lettering.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/sheet/cell_view.hpp"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr double rim = 0.27;       ///< share of a patch that shows the colour before, on each side
constexpr double values_from = 46; ///< pixels that a picture pixel needs for its numbers
constexpr double between = 6;
constexpr lettering::Hand title_hand{12.5, true}, lens_hand{12.5, false}, small_hand{11.5, false};
} // namespace

QString CellView::lens_words(const Cell& cell) const {
    return QString::fromUtf8("\u00b7 ") + lens_caption(lens(cell.lens), true) + QString::fromUtf8(" \u25be");
}

QString CellView::figure_words(bool short_form) const {
    if (!has_result_ || is_chart())
        return {};
    if (apart_) { // what a take is looked at for
        const QString mean = QString::number(apart_->mean, 'f', 2);
        return short_form ? tr("\u0394"
                               "E %1")
                                .arg(mean)
                          : tr("\u0394"
                               "E %1, largest %2")
                                .arg(mean, QString::number(apart_->largest, 'f', 1));
    }
    const double outside = before_only_ ? result_.outside_before : result_.outside_after;
    if (outside <= 0)
        return {};
    const QString share = outside < 0.001 ? QStringLiteral("< 0.1") : QString::number(100 * outside, 'f', 1);
    return short_form ? tr("%1 %").arg(share) : tr("%1 % outside").arg(share);
}

std::vector<CellView::Link> CellView::links() const {
    std::vector<Link> all;
    const Cell* const cell = model_.find(id_);
    if (!cell)
        return all;
    if (!is_chart())
        all.push_back({tr("split"), tr("Before left of a line, after right of it (S)"), compare_ == Compare::split,
                       &CellView::toggle_split});
    all.push_back({alone_ ? tr("back") : tr("fill"), tr("This cell fills the sheet, or goes back (F, double click)"),
                   alone_, &CellView::toggle_alone});
    if (!is_chart())
        all.push_back({"1:1", tr("One pixel is one pixel of the screen, or fitted (1, 0, wheel)"),
                       !zoom_.fits() && zoom_.scale(picture_size(), device_room()) == 1, &CellView::toggle_scale});
    // Name, lens and the figure come first; words that act, of which keys and the menu remain, go one by one from the
    // right, but for those that say what is on.
    const QString figure = figure_words(true);
    const int wanted = lettering::width(model_.title(*cell), title_hand) + 8 +
        lettering::width(lens_words(*cell), lens_hand) +
        (figure.isEmpty() ? 0 : 8 + lettering::width(figure, small_hand));
    const auto free = [&] {
        int left = width();
        for (const Link& link : all)
            left -= lettering::width(link.text, small_hand) + 12;
        return left;
    };
    for (std::size_t i = all.size(); i-- > 0 && free() < wanted;)
        if (!all[i].on)
            all.erase(all.begin() + static_cast<std::ptrdiff_t>(i));
    int right = width();
    for (auto link = all.rbegin(); link != all.rend(); ++link) {
        const int wide = lettering::width(link->text, small_hand);
        link->rect = QRect(right - wide, 0, wide + 1, theme::caption_height);
        right -= wide + 12;
    }
    return all;
}

void CellView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::surround);
    const Cell* cell = model_.find(id_);
    if (!cell)
        return;
    draw_caption(painter);
    if (!has_result_) {
        painter.drawText(QRect(0, theme::caption_height, width(), height() - theme::caption_height), Qt::AlignCenter,
                         cell->target || model_.picture_of(*cell) ? QString() : tr("reading\u2026"));
    } else if (is_chart()) {
        draw_patches(painter, picture_rect());
    } else {
        draw_pictures(painter);
        draw_line(painter);
    }
    draw_badges(painter);
    if (has_result_)
        draw_pins(painter);
    if (spot_ && has_result_) {
        painter.setClipRect(QRectF(0, theme::caption_height, width(), height()));
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setBrush(Qt::NoBrush);
        QPointF at = point_of(*spot_);
        for (int copy = 0; copy < (compare_ == Compare::twice && !is_chart() ? 2 : 1); ++copy) {
            painter.setPen(QPen(Qt::black, 3));
            painter.drawEllipse(at, 5, 5);
            painter.setPen(QPen(Qt::white, 1.4));
            painter.drawEllipse(at, 5, 5);
            at.rx() += room().width() + between;
        }
        painter.setClipping(false);
    }
    if (hasFocus()) {
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.setBrush(Qt::NoBrush);
        painter.fillRect(QRectF(0, theme::caption_height - 2.5, width(), 2.5), theme::accent);
    }
}

void CellView::draw_caption(QPainter& painter) const {
    const Cell& cell = *model_.find(id_);
    const int high = theme::caption_height;
    const std::vector<Link> words = links();
    int end = width();
    for (const Link& link : words)
        end = std::min(end, link.rect.left() - 12);
    painter.setPen(theme::on_surround);
    const QString title = lettering::fitted(model_.title(cell), title_hand, end);
    lettering::write(painter, QRectF(0, 0, end, high), title, title_hand);
    int x = lettering::width(title, title_hand) + 8;
    const QString figure = figure_words(true);
    const int kept = figure.isEmpty() ? 0 : 8 + lettering::width(figure, small_hand);
    const QString shows = lettering::fitted(lens_words(cell), lens_hand, std::max(0, end - x - kept));
    lettering::write(painter, QRectF(x, 0, std::max(0, end - x), high), shows, lens_hand);
    x += lettering::width(shows, lens_hand) + 8;
    if (has_result_ && !result_.fault.empty()) { // what the lens cannot show is told instead
        const QString fault = QString::fromStdString(result_.fault);
        lettering::write(painter, QRectF(x, 0, std::max(0, end - x), high),
                         lettering::fitted(fault, lens_hand, std::max(0, end - x)), lens_hand);
        return;
    }
    QString right = is_chart() ? tr("rim before, square after") : QString();
    if (const auto file = model_.file_of(cell))
        right = QString::fromStdString(file->space);
    if (!zoom_.fits())
        right = tr("%1 %").arg(std::lround(100 * zoom_.scale(picture_size(), device_room()))) +
            (right.isEmpty() ? QString() : QString::fromUtf8(" \u00b7 ") + right);
    if (!figure.isEmpty()) { // it is never hidden
        const QString whole = figure_words(false);
        const QString both = right.isEmpty() || apart_ ? whole : whole + QString::fromUtf8(" \u00b7 ") + right;
        const auto fits = [&](const QString& text) { return lettering::width(text, small_hand) <= end - x; };
        right = fits(both) ? both : fits(whole) ? whole : figure;
    }
    if (before_only_)
        right = before_name_;
    if (old_)
        right = tr("old");
    if (!old_ && !before_only_ && lettering::width(right, small_hand) > end - x)
        right.clear(); // half a word says nothing; the tip tells the space
    if (end > x)
        lettering::write(painter, QRectF(x, 0, end - x, high), lettering::fitted(right, {11.5, old_}, end - x),
                         {11.5, old_}, true);
    for (const Link& link : words) {
        lettering::write(painter, link.rect, link.text, small_hand);
        if (link.on)
            painter.fillRect(QRect(link.rect.left(), high - 4, link.rect.width(), 1), theme::on_surround);
    }
}

void CellView::draw_picture(QPainter& painter, const QImage& image, const QRectF& clip, double shift) const {
    const QRectF all = picture_rect().translated(shift, 0);
    const QSize size = picture_size();
    if (image.isNull() || size.isEmpty() || clip.isEmpty())
        return;
    // The image shows a part of the picture, perhaps of the view before this one: it goes where its pixels belong.
    const double by_x = all.width() / size.width(), by_y = all.height() / size.height();
    const QRectF part(all.left() + result_.region.left() * by_x, all.top() + result_.region.top() * by_y,
                      result_.region.width() * by_x, result_.region.height() * by_y);
    painter.save();
    painter.setClipRect(clip);
    // A coarse one of fewer pixels than are shown is no picture whose pixels somebody looks at.
    painter.setRenderHint(QPainter::SmoothPixmapTransform,
                          image.width() < 0.75 * part.width() && part.width() <= result_.region.width());
    painter.drawImage(part, image);
    painter.restore();
}

void CellView::draw_pictures(QPainter& painter) const {
    const QRectF where = room();
    const QRectF whole = picture_rect();
    const QRectF seen = whole & where;
    const QImage& before = result_.before.isNull() ? result_.after : result_.before; // it comes with the next sheet
    if (before_only_) {
        draw_picture(painter, before, seen, 0);
    } else if (compare_ == Compare::twice) {
        draw_picture(painter, before, seen, 0);
        draw_picture(painter, result_.after, seen.translated(where.width() + between, 0), where.width() + between);
    } else if (compare_ == Compare::split) {
        const double x = std::round(split_x());
        draw_picture(painter, result_.after, seen, 0);
        draw_picture(painter, before, QRectF(seen.topLeft(), QPointF(x, seen.bottom())), 0);
        painter.fillRect(QRectF(x - 1.5, seen.top(), 3, seen.height()), QColor(0, 0, 0, 90));
        painter.fillRect(QRectF(x - 0.5, seen.top(), 1, seen.height()), Qt::white);
        painter.fillRect(QRectF(x - 3, seen.bottom() - 18, 6, 10), Qt::white);
        painter.setFont(theme::face(11.5));
        const QFontMetrics metrics(painter.font());
        const QString left = metrics.elidedText(before_name_, Qt::ElideMiddle,
                                                std::max(46, static_cast<int>(x - seen.left()) - 20)),
                      right = tr("after");
        const auto word = [&](double at, const QString& text) {
            const QRectF box(at, seen.bottom() - 21, metrics.horizontalAdvance(text) + 8, 16);
            painter.fillRect(box, QColor(0, 0, 0, 110));
            painter.setPen(Qt::white);
            painter.drawText(box, Qt::AlignCenter, text);
        };
        word(x - 7 - metrics.horizontalAdvance(left) - 8, left);
        word(x + 7, right);
    } else {
        draw_picture(painter, result_.after, seen, 0);
    }
    draw_values(painter);
}

void CellView::draw_values(QPainter& painter) const {
    const QRect region = wanted_region();
    const double side = picture_rect().width() / std::max(1, picture_size().width());
    if (region.isNull() || side < values_from || !result_.after_pixels)
        return;
    const QRect known = region & QRect(0, 0, result_.after_pixels->width, result_.after_pixels->height);
    if (known.isEmpty())
        return;
    // All at once: what a rule makes of a large picture is made now.
    const auto seen = [&](const PicturePtr& picture) {
        return downscaled(*picture, known.width(), known.height(), known);
    };
    const image::Picture was = seen(result_.before_pixels), is = seen(result_.after_pixels);
    painter.save();
    painter.setClipRect(room());
    painter.setFont(theme::mono(10));
    for (int y = known.top(); y <= known.bottom(); ++y)
        for (int x = known.left(); x <= known.right(); ++x) {
            const QPointF middle = point_of({x, y});
            const bool before = before_only_ || (compare_ == Compare::split && middle.x() < split_x());
            const auto pixel = (before ? was : is).at(x - known.left(), y - known.top());
            const QRgb under = painter.device()->devType() == QInternal::Widget &&
                    result_.after.rect().contains(x - result_.region.left(), y - result_.region.top())
                ? (before && !result_.before.isNull() ? result_.before : result_.after)
                      .pixel(x - result_.region.left(), y - result_.region.top())
                : 0;
            painter.setPen(qGray(under) > 128 ? Qt::black : Qt::white);
            for (std::size_t c = 0; c < 3; ++c)
                painter.drawText(QRectF(middle.x() - side / 2, middle.y() - 20 + 13 * static_cast<double>(c), side, 13),
                                 Qt::AlignCenter, theme::number(static_cast<double>(pixel[c])));
        }
    painter.restore();
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

void CellView::draw_line(QPainter& painter) const {
    const Cell& cell = *model_.find(id_);
    const auto& strips = model_.strips();
    if (std::none_of(strips.begin(), strips.end(), [&](const Strip& s) { return s.is_cut() && s.cell == id_; }))
        return;
    const QRectF area = picture_rect();
    const auto at = [&](double x, double y) {
        return QPointF(area.left() + x * area.width(), area.top() + y * area.height());
    };
    painter.save();
    painter.setClipRect(room());
    painter.setRenderHint(QPainter::Antialiasing);
    for (const QPen& pen : {QPen(QColor(0, 0, 0, 130), 3), QPen(Qt::white, 1.2, Qt::DashLine)}) {
        painter.setPen(pen);
        painter.drawLine(at(cell.line.x0, cell.line.y0), at(cell.line.x1, cell.line.y1));
    }
    painter.restore();
}

void CellView::draw_badges(QPainter& painter) const {
    const Cell* cell = model_.find(id_);
    if (!cell)
        return;
    painter.setFont(theme::face(11.5));
    for (const Badge& badge : badges()) {
        const bool on = badge.layer.toStdString() == cell->layer;
        if (on)
            painter.fillRect(badge.rect, theme::on_surround);
        painter.setPen(on ? theme::surround : theme::on_surround);
        painter.drawText(badge.rect, Qt::AlignCenter, badge.text);
    }
}

void CellView::draw_pins(QPainter& painter) const {
    const Cell& cell = *model_.find(id_);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(QRectF(0, theme::caption_height, width(), height()));
    painter.setFont(theme::face(11.5, true));
    for (const Pin& pin : model_.pins()) {
        if (pin.source != cell.source())
            continue;
        const QPointF at = point_of(pin.pixel);
        const QPointF corner = at + QPointF(8, at.y() > theme::caption_height + 26 ? -22 : 6);
        const QRectF flag(corner, QSizeF(15, 15));
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(Qt::black, 3));
        painter.drawEllipse(at, 4, 4);
        painter.drawLine(at + (flag.center() - at) * 0.3, flag.center());
        painter.setPen(QPen(Qt::white, 1.4));
        painter.drawEllipse(at, 4, 4);
        painter.drawLine(at + (flag.center() - at) * 0.3, flag.center());
        painter.fillRect(flag.adjusted(-1, -1, 1, 1), Qt::black);
        painter.fillRect(flag, Qt::white);
        painter.setPen(Qt::black);
        painter.drawText(flag, Qt::AlignCenter, QString::number(pin.number));
    }
    painter.restore();
}

} // namespace kasuri::app
