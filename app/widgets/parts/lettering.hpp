#pragma once
#include <QRectF>
#include <QString>

class QPainter;

/// Lines of text in the window's face, shaped once: finding out the places of letters took most of the time of painting
/// a cell, and captions say the same at every keystroke. For the interface's thread.
namespace kasuri::app::lettering {

/// A size in pixels, and whether it is strong: as of `theme::face`.
struct Hand {
    double pixels = 12.5;
    bool strong = false;
};

/// How wide a line is, in pixels.
int width(const QString& text, const Hand& hand);
/// The line, or its beginning with an ellipsis where it is wider than `most`.
QString fitted(const QString& text, const Hand& hand, int most);
/// Writes it as QPainter::drawText does, centred from top to bottom; at the left, or at the right.
void write(QPainter& painter, const QRectF& where, const QString& text, const Hand& hand, bool right = false);

} // namespace kasuri::app::lettering
