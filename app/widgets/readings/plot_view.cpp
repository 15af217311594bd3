#include "widgets/readings/plot_view.hpp"

#include "model/display.hpp"
#include "model/words.hpp"
#include "widgets/parts/graph_paper.hpp"
#include "widgets/parts/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {

constexpr double left_room = 38, right_room = 26, top_room = 7, ticks_room = 16, figures_room = 18, panel_gap = 8;
constexpr int flat_height = 92;  ///< three of them and some pins in a window of 800
constexpr int room_height = 144; ///< two, a flat one and the pointer in a window of 800
constexpr double together = 0.8; ///< pixels within which traces count as one
constexpr double dash = 7;       ///< pixels of one ply

QColor colour_of(readings::Ink ink) {
    return ink == readings::Ink::neutral ? theme::text : theme::trace[static_cast<std::size_t>(ink) - 1];
}

QColor shown_colour(const std::array<float, 3>& light) {
    return {display_code(light[0]), display_code(light[1]), display_code(light[2])};
}

QString utf8(const std::string& text) { return QString::fromStdString(text); }

} // namespace

PlotView::PlotView(QWidget* parent) : QWidget(parent) {
    setMouseTracking(true);
    setMinimumHeight(flat_height);
    connect(&theme::changes(), &theme::Changes::room_changed, this,
            [this] { densities_.assign(densities_.size(), {}); });
}

void PlotView::show_plot(const std::vector<readings::Panel>& panels, const MeasuredPtr& reference,
                         const MeasuredPtr& measured) {
    const bool same = reference == reference_ && measured == measured_ && densities_.size() == panels.size();
    if (same)
        return;
    panels_ = panels;
    reference_ = reference;
    measured_ = measured;
    densities_.assign(panels.size(), {});
    setFocusPolicy(is_room() ? Qt::StrongFocus : Qt::NoFocus); // there are keys for it
    setMinimumHeight(is_room() ? room_height : flat_height);
    update();
}

void PlotView::set_before_only(bool before) {
    before_only_ = before;
    update();
}

QRectF PlotView::field_of(int panel) const {
    const auto count = std::max<std::size_t>(1, panels_.size());
    const QRectF room(left_room, top_room, width() - left_room - right_room,
                      height() - top_room - ticks_room - (figures_text().isEmpty() ? 4 : figures_room));
    const double wide = (room.width() - panel_gap * static_cast<double>(count - 1)) / static_cast<double>(count);
    QRectF field(room.left() + panel * (wide + panel_gap), room.top(), std::max(1.0, wide),
                 std::max(1.0, room.height()));
    if (is_room())
        return {theme::margin, 2, width() - 2.0 * theme::margin, std::max(1.0, height() - figures_room - 4.0)};
    if (!panels_.empty() && panels_[static_cast<std::size_t>(panel)].square) {
        const readings::Panel& p = panels_[static_cast<std::size_t>(panel)];
        const double unit = std::min(field.width() / (p.x.high - p.x.low), field.height() / (p.y.high - p.y.low));
        const QSizeF size(unit * (p.x.high - p.x.low), unit * (p.y.high - p.y.low));
        field = {field.center() - QPointF(size.width() / 2, size.height() / 2), size};
    }
    return {std::round(field.left()), std::round(field.top()), std::round(field.width()), std::round(field.height())};
}

QPointF PlotView::point(int panel, double x, double y) const {
    const readings::Panel& p = panels_[static_cast<std::size_t>(panel)];
    const QRectF field = field_of(panel);
    return {field.left() + p.x.share_of(x) * field.width(), field.bottom() - p.y.share_of(y) * field.height()};
}

void PlotView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    if (panels_.empty())
        return;
    if (is_room()) {
        const RoomView room(panels_.front(), field_of(0), eye_);
        painter.setClipRect(QRectF(0, 0, width(), height() - figures_room));
        room.draw_axes(painter);
        if (reference_)
            room.draw(painter, *reference_, !before_only_);
        if (measured_ && !before_only_)
            room.draw(painter, *measured_, false);
        painter.setClipping(false);
        if (hasFocus())
            painter.fillRect(QRectF(0, 0, width(), 2), theme::accent);
    }
    for (int i = 0; i < static_cast<int>(panels_.size()) && !is_room(); ++i) {
        draw_axes(painter, i);
        painter.save();
        painter.setClipRect(field_of(i).adjusted(-1, -1, 1, 1));
        draw_guides(painter, i);
        if (reference_)
            draw_layers(painter, i, *reference_, !before_only_);
        if (measured_ && !before_only_)
            draw_layers(painter, i, *measured_, false);
        painter.restore();
    }
    painter.setFont(theme::face(11.5));
    painter.setPen(theme::second);
    const QString words = hover_ ? hover_text() : figures_text().replace('\n', QString::fromUtf8("  \u00b7  "));
    const QRectF line(theme::margin, height() - figures_room, width() - 2 * theme::margin, figures_room - 2);
    painter.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(line.width())));
}

void PlotView::draw_axes(QPainter& painter, int panel) const {
    const readings::Panel& p = panels_[static_cast<std::size_t>(panel)];
    const QRectF field = field_of(panel);
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setFont(theme::face(10.5));
    const QFontMetrics metrics(painter.font());
    double free_from = -1e9;
    for (const readings::Tick& tick : p.x.ticks) {
        const double x = std::round(field.left() + p.x.share_of(tick.value) * field.width()) + 0.5;
        if (x < field.left() - 1 || x > field.right() + 1)
            continue;
        painter.setPen(tick.strong ? theme::hairline : theme::grid);
        painter.drawLine(QPointF(x, field.top()), QPointF(x, field.bottom()));
        const double wide = metrics.horizontalAdvance(utf8(tick.label));
        if (x - wide / 2 < free_from || panels_.size() > 1)
            continue;
        free_from = x + wide / 2 + 6;
        painter.setPen(theme::third);
        painter.drawText(QRectF(x - 40, field.bottom() + 2, 80, 14), Qt::AlignHCenter | Qt::AlignTop, utf8(tick.label));
    }
    double free_below = 1e9;
    for (const readings::Tick& tick : p.y.ticks) {
        const double y = std::round(field.bottom() - p.y.share_of(tick.value) * field.height()) + 0.5;
        if (y < field.top() - 1 || y > field.bottom() + 1)
            continue;
        painter.setPen(tick.strong ? theme::hairline : theme::grid);
        painter.drawLine(QPointF(field.left(), y), QPointF(field.right(), y));
        if (panel > 0 || y > free_below)
            continue;
        free_below = y - 12;
        painter.setPen(theme::third);
        painter.drawText(QRectF(0, y - 8, field.left() - 5, 16), Qt::AlignRight | Qt::AlignVCenter, utf8(tick.label));
    }
    if (!p.title.empty()) {
        painter.setFont(theme::face(11, true));
        painter.setPen(panels_.size() == 3 ? theme::trace[panel] : theme::text);
        painter.drawText(QRectF(field.left(), field.bottom() + 2, field.width(), 14), Qt::AlignLeft | Qt::AlignTop,
                         words(p.title));
    }
}

void PlotView::draw_guides(QPainter& painter, int panel) const {
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(theme::face(10.5));
    const QRectF field = field_of(panel);
    for (const readings::Guide& guide : panels_[static_cast<std::size_t>(panel)].guides) {
        QPolygonF line;
        for (const auto& [x, y] : guide.points)
            line << point(panel, x, y);
        painter.setPen(QPen(guide.dashed ? theme::hairline : theme::third, guide.dashed ? 1 : 0.9,
                            guide.dashed ? Qt::DashLine : Qt::SolidLine));
        painter.drawPolyline(line);
        // Numbers on circles only where there is room for them; names of bars and gamuts always.
        if (guide.label.empty() || line.isEmpty() || (guide.dashed && field.height() < 170))
            continue;
        painter.setPen(theme::second);
        QPointF at = line.front() + QPointF(4, -3);
        at.setX(std::min(at.x(), field.right() - painter.fontMetrics().horizontalAdvance(utf8(guide.label)) - 1));
        at.setY(std::max(at.y(), field.top() + 10));
        painter.drawText(at, utf8(guide.label));
    }
}

void PlotView::draw_layers(QPainter& painter, int panel, const readings::Measured& measured, bool faint) const {
    std::vector<const readings::Trace*> traces;
    for (const readings::Layer& layer : measured.layers)
        if (const auto* trace = std::get_if<readings::Trace>(&layer.data); trace && layer.panel == panel)
            traces.push_back(trace);
    const QRectF field = field_of(panel);
    DrawnUp& drawn_up = densities_[static_cast<std::size_t>(panel)][faint ? 0 : &measured == reference_.get() ? 1 : 2];
    const QSizeF size = field.size() * devicePixelRatioF();
    if (drawn_up.size != size)
        drawn_up = {size, densities_of(measured, panel, faint, size)};
    if (!drawn_up.image.isNull()) {
        painter.save();
        painter.setCompositionMode(theme::is_dark() ? QPainter::CompositionMode_Screen
                                                    : QPainter::CompositionMode_Multiply);
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        painter.drawImage(field, drawn_up.image);
        painter.restore();
    }
    draw_traces(painter, panel, traces, faint);
    for (const readings::Layer& layer : measured.layers)
        if (layer.panel == panel) {
            if (const auto* arrows = std::get_if<readings::Arrows>(&layer.data))
                draw_arrows(painter, panel, *arrows, faint);
            else if (const auto* spots = std::get_if<readings::Spots>(&layer.data))
                draw_spots(painter, panel, *spots, faint);
        }
}

QImage PlotView::densities_of(const readings::Measured& measured, int panel, bool faint, const QSizeF& size) {
    std::vector<const readings::Density*> densities;
    for (const readings::Layer& layer : measured.layers)
        if (const auto* density = std::get_if<readings::Density>(&layer.data); density && layer.panel == panel)
            densities.push_back(density);
    if (densities.empty())
        return {};
    const int all_columns = densities.front()->columns, all_rows = densities.front()->rows;
    const auto pooled = [](int cells, double pixels) {
        return std::max(
            1,
            std::min(cells,
                     static_cast<int>(std::ceil(cells / std::max(1.0, std::round(cells / std::max(1.0, pixels)))))));
    };
    const int columns = pooled(all_columns, size.width()), rows = pooled(all_rows, size.height());
    // Inks lie over each other as on paper: where r, g and b meet it is dark. The more often, the deeper, by logarithm.
    // In a dark room they are lights, which is the same upside down.
    const bool lights = theme::is_dark();
    QImage image(columns, rows, QImage::Format_RGB32);
    image.fill(Qt::white);
    constexpr std::size_t steps = 256;
    std::vector<std::uint32_t> counts;
    for (const readings::Density* density : densities) {
        if (density->columns != all_columns || density->rows != all_rows)
            continue;
        counts.assign(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows), 0);
        const std::uint32_t* from = density->counts.data();
        for (int row = 0; row < all_rows; ++row) {
            std::uint32_t* to =
                counts.data() + static_cast<std::size_t>(row * rows / all_rows) * static_cast<std::size_t>(columns);
            for (int column = 0; column < all_columns; ++column)
                to[column * columns / all_columns] += *from++;
        }
        const std::uint32_t most = std::max<std::uint32_t>(1, *std::max_element(counts.begin(), counts.end()));
        const double scale = 1 / std::log1p(static_cast<double>(most));
        const auto depth = [&](double count) {
            return static_cast<float>((faint ? 0.12 : 0.38) + (faint ? 0.18 : 0.62) * std::log1p(count) * scale);
        };
        std::array<float, steps> few{}; // most cells hold few
        for (std::size_t i = 1; i < steps; ++i)
            few[i] = depth(static_cast<double>(i));
        const QColor ink = faint ? theme::third : colour_of(density->ink);
        const auto share = [lights](double of) { return static_cast<float>(lights ? of : 1 - of); };
        const float keep[3] = {share(static_cast<double>(ink.redF())), share(static_cast<double>(ink.greenF())),
                               share(static_cast<double>(ink.blueF()))};
        for (int row = 0; row < rows; ++row) {
            auto* line = reinterpret_cast<QRgb*>(image.scanLine(rows - 1 - row));
            const std::uint32_t* of = counts.data() + static_cast<std::size_t>(row) * static_cast<std::size_t>(columns);
            for (int column = 0; column < columns; ++column)
                if (of[column] != 0) {
                    const float deep = of[column] < steps ? few[of[column]] : depth(of[column]);
                    const QRgb under = line[column];
                    line[column] = qRgb(static_cast<int>(static_cast<float>(qRed(under)) * (1 - deep * keep[0])),
                                        static_cast<int>(static_cast<float>(qGreen(under)) * (1 - deep * keep[1])),
                                        static_cast<int>(static_cast<float>(qBlue(under)) * (1 - deep * keep[2])));
                }
        }
    }
    if (lights)
        image.invertPixels();
    return image;
}

void PlotView::draw_traces(QPainter& painter, int panel, const std::vector<const readings::Trace*>& traces,
                           bool faint) const {
    if (traces.empty())
        return;
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF field = field_of(panel);
    const readings::Panel& p = panels_[static_cast<std::size_t>(panel)];
    const auto y_of = [&](double y) {
        return std::clamp(field.bottom() - p.y.share_of(y) * field.height(), field.top() - 50, field.bottom() + 50);
    };
    const std::size_t samples = traces.front()->points.size();
    // Those of equal length share their places across, and are plied where they coincide.
    std::vector<std::vector<double>> heights;
    std::vector<const readings::Trace*> plied;
    for (const readings::Trace* trace : traces)
        if (trace->points.size() == samples) {
            plied.push_back(trace);
            std::vector<double>& y = heights.emplace_back();
            for (const auto& at : trace->points)
                y.push_back(std::isfinite(at[1]) ? y_of(static_cast<double>(at[1])) : std::nan(""));
        } else if (!faint) { // a marked part: a broad band under the trace
            QPainterPath band;
            bool down = false;
            for (const auto& [x, y] : trace->points) {
                const bool finite = std::isfinite(x) && std::isfinite(y);
                if (finite && down)
                    band.lineTo(field.left() + p.x.share_of(static_cast<double>(x)) * field.width(),
                                y_of(static_cast<double>(y)));
                else if (finite)
                    band.moveTo(field.left() + p.x.share_of(static_cast<double>(x)) * field.width(),
                                y_of(static_cast<double>(y)));
                down = finite;
            }
            QColor mark = colour_of(trace->ink);
            mark.setAlpha(70);
            painter.strokePath(band, QPen(mark, 7, Qt::SolidLine, Qt::FlatCap));
        }
    GraphPaper paper(field.adjusted(-1, -1, 1, 1), painter.device()->devicePixelRatioF());
    for (std::size_t t = 0; t < plied.size(); ++t) {
        std::vector<QPointF> line;
        bool down = false;
        for (std::size_t i = 0; i < samples; ++i) {
            const double x = field.left() + p.x.share_of(static_cast<double>(plied[t]->points[i][0])) * field.width(),
                         y = heights[t][i];
            std::size_t plies = 1, place = 0;
            for (std::size_t other = 0; other < plied.size(); ++other)
                if (other != t && std::fabs(heights[other][i] - y) < together) {
                    ++plies;
                    place += other < t ? 1 : 0;
                }
            const bool turn = std::isfinite(x) && std::isfinite(y) &&
                (plies == 1 || static_cast<std::size_t>(std::max(0.0, x) / dash) % plies == place);
            if (turn && !down)
                line.emplace_back(x, std::nan(""));
            if (turn)
                line.emplace_back(x, y);
            down = turn;
        }
        QColor ink = colour_of(plied[t]->ink);
        if (faint)
            ink.setAlpha(90);
        paper.stroke(line, ink, faint ? 1.0 : 1.8);
    }
    paper.draw(painter);
    if (faint)
        return;
    // Letters where the traces end, kept apart.
    painter.setClipping(false);
    painter.setFont(theme::face(11, true));
    std::vector<std::pair<double, std::size_t>> ends;
    for (std::size_t t = 0; t < plied.size(); ++t)
        if (!heights[t].empty() && std::isfinite(heights[t].back()))
            ends.emplace_back(std::clamp(heights[t].back(), field.top() + 4, field.bottom() - 4), t);
    std::stable_sort(ends.begin(), ends.end());
    const bool one = ends.size() == 3 && ends.back().first - ends.front().first < together;
    double last = -1e9, x = field.right() + 4;
    for (const auto& [y, t] : ends) {
        const double at = one ? y : std::max(y, last + 11);
        painter.setPen(colour_of(plied[t]->ink));
        painter.drawText(QPointF(x, std::round(at + 3.5)), utf8(plied[t]->name));
        if (one)
            x += painter.fontMetrics().horizontalAdvance(utf8(plied[t]->name)) + 0.5;
        last = at;
    }
    painter.setClipRect(field.adjusted(-1, -1, 1, 1));
}

void PlotView::draw_arrows(QPainter& painter, int panel, const readings::Arrows& arrows, bool faint) const {
    painter.setRenderHint(QPainter::Antialiasing);
    for (const readings::Arrow& arrow : arrows.arrows) {
        const QPointF from = point(panel, static_cast<double>(arrow.from[0]), static_cast<double>(arrow.from[1]));
        const QPointF to = point(panel, static_cast<double>(arrow.to[0]), static_cast<double>(arrow.to[1]));
        if (!std::isfinite(from.x() + from.y() + to.x() + to.y()))
            continue; // it went nowhere
        if (faint) {  // before: the place alone, which the arrows of after begin at too
            painter.setPen(QPen(theme::third, 0.8));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(from, 2, 2);
            continue;
        }
        if (QLineF(from, to).length() > 1) {
            painter.setPen(QPen(theme::second, 0.9));
            painter.drawLine(from, to);
        }
        painter.setPen(QPen(theme::text, 0.8));
        painter.setBrush(shown_colour(arrow.colour));
        painter.drawEllipse(to, 2.6, 2.6);
    }
}

void PlotView::draw_spots(QPainter& painter, int panel, const readings::Spots& spots, bool faint) const {
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (const readings::Spot& spot : spots.spots) {
        if (!std::isfinite(spot.at[0]) || !std::isfinite(spot.at[1]))
            continue;
        const QPointF at = point(panel, static_cast<double>(spot.at[0]), static_cast<double>(spot.at[1]));
        const double half = faint ? 2 : 3;
        painter.setPen(faint ? theme::third : theme::text);
        painter.setBrush(faint ? QBrush(Qt::NoBrush) : QBrush(shown_colour(spot.colour)));
        painter.drawRect(QRectF(std::round(at.x() - half), std::round(at.y() - half), 2 * half, 2 * half));
    }
}

QString PlotView::figures_text() const {
    QStringList lines;
    const MeasuredPtr& of = before_only_ ? reference_ : measured_;
    if (!of)
        return {};
    std::vector<std::string> names; // in the order of their lines
    for (const readings::Figure& figure : of->figures) {
        const QString value = (figure.of.empty() ? QString() : utf8(figure.of) + " ") +
            (figure.unit == "%" ? theme::percentage(figure.value) : theme::number(figure.value)) +
            (figure.unit.empty() ? QString() : " " + utf8(figure.unit));
        const auto found = std::find(names.begin(), names.end(), figure.name);
        if (found != names.end()) {
            lines[found - names.begin()] += "  " + value;
            continue;
        }
        names.push_back(figure.name);
        lines << words(figure.name) + "  " + value;
    }
    return lines.join('\n');
}

QString PlotView::hover_text() const {
    if (!hover_)
        return {};
    if (is_room()) {
        const MeasuredPtr& of = before_only_ ? reference_ : measured_;
        return of ? RoomView(panels_.front(), field_of(0), eye_).words_at(*of, *hover_) : QString();
    }
    for (int i = 0; i < static_cast<int>(panels_.size()); ++i) {
        const QRectF field = field_of(i);
        if (!field.contains(*hover_))
            continue;
        const readings::Panel& p = panels_[static_cast<std::size_t>(i)];
        const auto digits = [](const readings::Axis& axis) {
            return std::clamp(static_cast<int>(std::ceil(-std::log10((axis.high - axis.low) / 400))), 0, 4);
        };
        const double x = p.x.value_at((hover_->x() - field.left()) / field.width()),
                     y = p.y.value_at((field.bottom() - hover_->y()) / field.height());
        return QString("%1 %2   %3 %4")
            .arg(words(p.x.title), theme::number(x, digits(p.x)), words(p.y.title), theme::number(y, digits(p.y)));
    }
    return {};
}

void PlotView::look_from(const Eye& eye) {
    eye_ = eye;
    hover_.reset();
    update();
    emit looked_from(eye);
}

void PlotView::mousePressEvent(QMouseEvent* event) {
    if (!is_room() || event->button() != Qt::LeftButton)
        return QWidget::mousePressEvent(event);
    dragged_from_ = event->position();
}

void PlotView::mouseReleaseEvent(QMouseEvent* event) {
    dragged_from_.reset();
    QWidget::mouseReleaseEvent(event);
}

void PlotView::mouseDoubleClickEvent(QMouseEvent* event) {
    if (is_room())
        look_from({});
    else
        QWidget::mouseDoubleClickEvent(event);
}

void PlotView::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 1 : 5;
    Eye eye = eye_;
    switch (is_room() ? event->key() : 0) {
    case Qt::Key_Left: eye.turn_by(-step, 0); break;
    case Qt::Key_Right: eye.turn_by(step, 0); break;
    case Qt::Key_Up: eye.turn_by(0, step); break;
    case Qt::Key_Down: eye.turn_by(0, -step); break;
    case Qt::Key_Home: eye = {}; break;
    default: return QWidget::keyPressEvent(event);
    }
    look_from(eye);
}

void PlotView::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_from_) { // half a turn for the width of the plot
        const QPointF by = event->position() - *dragged_from_;
        dragged_from_ = event->position();
        Eye eye = eye_;
        eye.turn_by(180 * by.x() / std::max(1, width()), 180 * by.y() / std::max(1, width()));
        return look_from(eye);
    }
    hover_ = event->position();
    if (hover_text().isEmpty())
        hover_.reset();
    update();
}

void PlotView::leaveEvent(QEvent*) {
    hover_.reset();
    update();
}

} // namespace kasuri::app
