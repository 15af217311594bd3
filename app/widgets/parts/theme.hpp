#pragma once
#include <QColor>
#include <QFont>
#include <QObject>
#include <QPalette>
#include <QString>

#include <span>

class QApplication;
class QPainter;
class QRectF;
class QWidget;

/// Colours, faces and measures of the window (shared by everything that draws). Achromatic but for one accent.
namespace kasuri::app::theme {

/// One row: the same interface for a bright, a dim or a dark room. Achromatic but for the accent, the letters of
/// channels and two marks.
struct Room {
    const char* name;
    const char* title;
    QColor chrome, field, current_line, hairline, grid, text, second, third, chosen; ///< chosen: behind selected text
    QColor accent;
    QColor trace[3];
    QColor good, bad;
};
std::span<const Room> rooms();

// Of the room that is in force. They change while the program runs: whoever keeps one follows `changes`.
inline QColor chrome, field, current_line, hairline, grid, text, second, third, chosen, accent, good, bad;
inline QColor trace[3];
// Of the screen, whatever the room: pictures are judged against it.
inline QColor surround{0x77, 0x77, 0x77}, on_surround{0xff, 0xff, 0xff};

/// Tells of another room, or of another surround.
class Changes : public QObject {
    Q_OBJECT
signals:
    void room_changed();
    void surround_changed();
};
Changes& changes();

/// Puts a room into force, by its name; one that is not known is the first.
void set_room(const QString& name);
QString room();
/// What pictures stand on, and what is written on it.
void set_surround(const QColor& behind, const QColor& on);
bool is_dark(); ///< whether text is lighter than what it stands on

/// Text of the widget in one of the colours above, in every room.
void tint(QWidget* widget, const QColor& tone);

inline constexpr int margin = 14;
inline constexpr int heading_height = 28;
inline constexpr int caption_height = 23; ///< over a cell

QFont face(double pixels = 12.5, bool strong = false);
QFont mono(double pixels = 12, bool strong = false);

/// Loads the shipped faces, sets palette, font and style of the application.
void apply(QApplication& application);

/// "0.128", with a true minus sign and always the same number of decimals.
QString number(double value, int decimals = 3);
/// Of a share in per cent, without the sign: more digits for a small one, and never 0 for what is not nothing.
QString percentage(double value);

/// Which marks stand for the letters r, g, b.
inline constexpr const char* letters[3] = {"r", "g", "b"};

/// A ring with a tick, or a square with a cross: states are told apart by shape as well as colour.
void draw_mark(QPainter& painter, const QRectF& where, bool passed);

} // namespace kasuri::app::theme
