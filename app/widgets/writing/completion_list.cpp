#include "widgets/writing/completion_list.hpp"

#include "widgets/parts/theme.hpp"

#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include <algorithm>

namespace kasuri::app {
namespace {
constexpr int row_height = 19, max_rows = 9, list_width = 330, padding = 5;
QString of(const std::string& text) { return QString::fromStdString(text); }
} // namespace

CompletionList::CompletionList(QWidget* parent) : QFrame(parent) {
    setFocusPolicy(Qt::NoFocus);
    setCursor(Qt::ArrowCursor);
    setAccessibleName(tr("What can be written here"));
    hide();
}

int CompletionList::shown() const { return std::min(max_rows, static_cast<int>(completions_.items.size())); }

const lang::Completion* CompletionList::chosen() const {
    return at_ >= 0 && at_ < static_cast<int>(completions_.items.size())
        ? &completions_.items[static_cast<std::size_t>(at_)]
        : nullptr;
}

void CompletionList::show_items(lang::Completions completions) {
    completions_ = std::move(completions);
    at_ = first_ = 0;
    moved_ = false;
    setAccessibleDescription(chosen() ? of(chosen()->text) : QString());
    resize(sizeHint());
    update();
}

void CompletionList::choose(int by) {
    const int count = static_cast<int>(completions_.items.size());
    if (count == 0)
        return;
    moved_ = true;
    at_ = std::abs(by) == 1 ? (at_ + by + count) % count : std::clamp(at_ + by, 0, count - 1);
    first_ = std::clamp(first_, at_ - shown() + 1, at_);
    setAccessibleDescription(of(chosen()->text));
    resize(sizeHint());
    update();
}

QRect CompletionList::doc_rect() const {
    if (!chosen() || chosen()->doc.empty())
        return {};
    const QFontMetrics metrics(theme::face(11.5));
    const int wide = list_width - 2 * padding;
    const int high = metrics.boundingRect(QRect(0, 0, wide, 200), Qt::TextWordWrap, of(chosen()->doc)).height();
    return {padding, shown() * row_height + 2 * padding, wide, std::min(high, 80)};
}

QSize CompletionList::sizeHint() const {
    const QRect doc = doc_rect();
    return {list_width, shown() * row_height + 2 * padding - 2 + (doc.isEmpty() ? 0 : doc.height() + padding + 2)};
}

void CompletionList::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::current_line);
    painter.setPen(theme::hairline);
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
    for (int row = 0; row < shown(); ++row) {
        const int index = first_ + row;
        const lang::Completion& item = completions_.items[static_cast<std::size_t>(index)];
        const QRect line(1, padding - 2 + row * row_height, width() - 2, row_height);
        if (index == at_)
            painter.fillRect(line, theme::grid);
        painter.setFont(theme::mono(12, index == at_));
        painter.setPen(theme::text);
        const QRect words = line.adjusted(padding, 0, -padding, 0);
        painter.drawText(words, Qt::AlignLeft | Qt::AlignVCenter, of(item.text));
        const int used = painter.fontMetrics().horizontalAdvance(of(item.text)) + 14;
        painter.setFont(theme::face(11));
        painter.setPen(theme::third);
        painter.drawText(
            words.adjusted(used, 0, 0, 0), Qt::AlignRight | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(of(item.detail), Qt::ElideRight, std::max(0, words.width() - used)));
    }
    if (const QRect doc = doc_rect(); !doc.isEmpty()) {
        painter.fillRect(padding, doc.top() - 4, width() - 2 * padding, 1, theme::hairline);
        painter.setFont(theme::face(11.5));
        painter.setPen(theme::second);
        painter.drawText(doc, Qt::TextWordWrap, of(chosen()->doc));
    }
    if (static_cast<int>(completions_.items.size()) > shown()) { // how far down the list this is
        const double all = static_cast<double>(completions_.items.size()), high = shown() * row_height;
        painter.fillRect(QRectF(width() - 3, padding - 2 + high * first_ / all, 2, high * shown() / all), theme::third);
    }
}

void CompletionList::mousePressEvent(QMouseEvent* event) {
    const int row = (static_cast<int>(event->position().y()) - padding + 2) / row_height;
    if (row < 0 || row >= shown())
        return;
    at_ = first_ + row;
    emit accepted();
}

void CompletionList::wheelEvent(QWheelEvent* event) {
    choose(event->angleDelta().y() > 0 ? -3 : 3);
    event->accept();
}

} // namespace kasuri::app
