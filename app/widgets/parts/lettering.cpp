#include "widgets/parts/lettering.hpp"

#include "widgets/parts/theme.hpp"

#include <QCache>
#include <QFontMetrics>
#include <QPainter>
#include <QStaticText>

#include <utility>

namespace kasuri::app::lettering {
namespace {

using Key = std::pair<QString, std::pair<double, bool>>;

struct Line {
    QStaticText text;
    QFont font;
    int width, height;
};

constexpr int most_lines = 1000; ///< several windows full

Line& line(const QString& text, const Hand& hand) {
    static QCache<Key, Line> lines(most_lines);
    const Key key{text, {hand.pixels, hand.strong}};
    if (Line* const known = lines.object(key))
        return *known;
    auto* const made = new Line{QStaticText(text), theme::face(hand.pixels, hand.strong), 0, 0};
    const QFontMetrics metrics(made->font);
    made->width = metrics.horizontalAdvance(text);
    made->height = metrics.height();
    made->text.setTextFormat(Qt::PlainText);
    made->text.prepare({}, made->font);
    lines.insert(key, made);
    return *made;
}

} // namespace

int width(const QString& text, const Hand& hand) { return text.isEmpty() ? 0 : line(text, hand).width; }

QString fitted(const QString& text, const Hand& hand, int most) {
    return width(text, hand) <= most
        ? text
        : QFontMetrics(theme::face(hand.pixels, hand.strong)).elidedText(text, Qt::ElideRight, most);
}

void write(QPainter& painter, const QRectF& where, const QString& text, const Hand& hand, bool right) {
    if (text.isEmpty())
        return;
    const Line& made = line(text, hand);
    painter.setFont(made.font);
    painter.drawStaticText(
        QPointF(right ? where.right() - made.width : where.left(), where.top() + (where.height() - made.height) / 2),
        made.text);
}

} // namespace kasuri::app::lettering
