#include "widgets/sheet/frames_bar.hpp"

#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/theme.hpp"

#include <QContextMenuEvent>
#include <QHelpEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr double button_width = 20; ///< play or stop, at the left
constexpr double line_y = 5;
constexpr double megabyte = 1024.0 * 1024;
constexpr double rates[] = {24, 25, 30, 0};
} // namespace

FramesBar::FramesBar(SheetModel& model, Playback& playback, int cell, QWidget* parent)
    : QWidget(parent), model_(model), playback_(playback), cell_(cell) {
    setAccessibleName(tr("frames"));
    connect(&playback, &Playback::changed, this, qOverload<>(&QWidget::update));
    connect(&playback.store(), &FrameStore::arrived, this, qOverload<>(&QWidget::update));
}

const io::Sequence* FramesBar::sequence() const {
    const Cell* cell = model_.find(cell_);
    const io::Sequence* sequence = cell ? &model_.sequence_of(*cell) : nullptr;
    return sequence && sequence->frames.size() > 1 ? sequence : nullptr;
}

double FramesBar::x_of(std::size_t frame) const {
    const io::Sequence* all = sequence();
    const double count = all ? static_cast<double>(all->frames.size()) : 1;
    return button_width + (static_cast<double>(frame) + 0.5) * (width() - button_width) / count;
}

QString FramesBar::words() const {
    if (playback_.last_cell() != cell_)
        return {};
    const Playback::Counts& counts = playback_.counts();
    QStringList parts;
    if (playback_.playing(cell_) && counts.shown > 1)
        parts << tr("%1 a second").arg(counts.rate, 0, 'f', 1);
    if (counts.left_out > 0)
        parts << tr("%n frame(s) left out", nullptr, static_cast<int>(counts.left_out));
    return parts.join(", ");
}

void FramesBar::paintEvent(QPaintEvent*) {
    const io::Sequence* all = sequence();
    const Cell* cell = model_.find(cell_);
    if (!all || !cell)
        return;
    QPainter painter(this);
    const double left = button_width, wide = width() - left;
    const double step = wide / static_cast<double>(all->frames.size());
    const Playback::Range range = playback_.range(cell_);
    const QColor bright = theme::on_surround;
    QColor faint = bright;
    faint.setAlphaF(0.4F);
    painter.fillRect(QRectF(left, line_y, wide, 1), faint);
    const double from = left + static_cast<double>(range.first) * step,
                 to = left + static_cast<double>(range.last + 1) * step;
    painter.fillRect(QRectF(from, line_y, to - from, 1), bright);
    if (range.first > 0)
        painter.fillRect(QRectF(std::round(from), line_y - 4, 1, 9), bright);
    if (range.last + 1 < all->frames.size())
        painter.fillRect(QRectF(std::round(to) - 1, line_y - 4, 1, 9), bright);
    const std::string space = model_.frame_file(cell->picture).space;
    double drawn = -1; // of frames that share a pixel one is asked about
    for (std::size_t i = 0; i < all->frames.size(); ++i) {
        const double x = left + static_cast<double>(i) * step;
        if (x - drawn < 1)
            continue;
        drawn = x;
        if (playback_.store().holds({all->frames[i].path.string(), space}))
            painter.fillRect(QRectF(x, line_y, std::max(1.0, step), 2),
                             i >= range.first && i <= range.last ? bright : faint);
        if (step > 4) // a mark for each frame, where they can be told apart
            painter.fillRect(QRectF(std::round(x + 0.5 * step), line_y - 1, 1, 3), bright);
    }
    const double x = std::round(x_of(all->at));
    painter.fillRect(QRectF(x - 1.5, line_y - 4, 3, 9), bright);
    painter.setFont(theme::face(11.5));
    painter.setPen(bright);
    const auto file = model_.file_of(*cell);
    const QString code = file && file->movie ? QString::fromStdString(file->movie->timecode) : QString();
    const QString number = tr("frame %1").arg(all->frames[all->at].number) +
        (code.isEmpty() ? QString() : QString::fromUtf8(" \u00b7 ") + code);
    const QString words = this->words();
    const int number_wide = painter.fontMetrics().horizontalAdvance(number),
              words_wide = painter.fontMetrics().horizontalAdvance(words);
    double at = std::clamp(x + 6, left, width() - number_wide - 1.0);
    if (!words.isEmpty() && left + number_wide + 12 + words_wide < width()) { // else the bar's tip has it
        painter.drawText(QRectF(width() - words_wide - 1, line_y + 4, words_wide + 1, 14),
                         Qt::AlignRight | Qt::AlignVCenter, words);
        at = std::min(at, static_cast<double>(width() - words_wide - 12 - number_wide));
    }
    painter.drawText(QRectF(at, line_y + 4, number_wide + 1, 14), Qt::AlignLeft | Qt::AlignVCenter, number);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(bright);
    if (playback_.playing(cell_)) {
        painter.drawRect(QRectF(3, 6, 9, 9));
    } else {
        const QPointF triangle[3] = {{3, 5}, {3, 17}, {13, 11}};
        painter.drawPolygon(triangle, 3);
    }
}

void FramesBar::choose(double x) {
    if (const io::Sequence* all = sequence()) {
        const double share = std::clamp((x - button_width) / std::max(1.0, width() - button_width), 0.0, 0.9999);
        model_.set_frame(cell_, static_cast<std::size_t>(share * static_cast<double>(all->frames.size())));
    }
}

void FramesBar::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton)
        return;
    choosing_ = event->position().x() >= button_width;
    if (choosing_)
        choose(event->position().x());
    else
        playback_.toggle(cell_);
}

void FramesBar::mouseMoveEvent(QMouseEvent* event) {
    if (choosing_ && event->buttons() & Qt::LeftButton)
        choose(event->position().x());
}

void FramesBar::contextMenuEvent(QContextMenuEvent* event) {
    pop_up(this, event->globalPos(), [this](QMenu& menu) { fill_menu(menu, playback_, cell_); });
}

bool FramesBar::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip)
        return QWidget::event(event);
    const FrameStore& store = playback_.store();
    QString tip = tr("%1 of %2 MB of frames in memory")
                      .arg(static_cast<double>(store.bytes()) / megabyte, 0, 'f', 0)
                      .arg(static_cast<double>(store.limit()) / megabyte, 0, 'f', 0);
    if (const QString played = words(); !played.isEmpty())
        tip = played + "\n" + tip;
    QToolTip::showText(static_cast<QHelpEvent*>(event)->globalPos(), tip, this);
    return true;
}

void FramesBar::fill_menu(QMenu& menu, Playback& playback, int cell) {
    menu.addAction(playback.playing(cell) ? tr("Stop\tF5") : tr("Play\tF5"), &playback,
                   [&playback, cell] { playback.toggle(cell); });
    menu.addSeparator();
    menu.addAction(tr("Play from this frame on\tCtrl+F5"), &playback, [&playback, cell] { playback.begin_here(cell); });
    menu.addAction(tr("Play up to this frame\tCtrl+Shift+F5"), &playback,
                   [&playback, cell] { playback.end_here(cell); });
    menu.addAction(tr("Play all frames"), &playback, [&playback, cell] { playback.play_all(cell); });
    menu.addSeparator();
    const auto choice = [&](const QString& text, bool on, auto act) {
        QAction* action = menu.addAction(text, &playback, act);
        action->setCheckable(true);
        action->setChecked(on);
    };
    choice(tr("Over and over"), playback.loops(), [&playback] { playback.set_loops(!playback.loops()); });
    const double own = playback.own_rate(cell);
    const bool keeps = own > 0 && playback.keeps_own_rate();
    if (own > 0)
        choice(tr("The movie's own %1 frames a second").arg(own), keeps,
               [&playback] { playback.set_keeps_own_rate(true); });
    for (const double rate : rates)
        choice(rate > 0 ? tr("%1 frames a second").arg(rate) : tr("Every frame, as fast as it goes"),
               !keeps && playback.rate() == rate, [&playback, own, rate] {
                   if (own > 0)
                       playback.set_keeps_own_rate(false);
                   playback.set_rate(rate);
               });
}

} // namespace kasuri::app
