#pragma once
#include <QColor>
#include <QFont>
#include <QPalette>
#include <QString>

class QApplication;
class QPainter;
class QRectF;

/// Colours, faces and measures of the window (shared by everything that draws). Achromatic but for one accent.
namespace kasuri::app::theme {

inline constexpr QColor chrome{0xd8, 0xd8, 0xd8};      // L* 86
inline constexpr QColor field{0xe3, 0xe3, 0xe3};
inline constexpr QColor current_line{0xed, 0xed, 0xed};
inline constexpr QColor hairline{0xb3, 0xb3, 0xb3};
inline constexpr QColor grid{0xc4, 0xc4, 0xc4};
inline constexpr QColor text{0x16, 0x16, 0x16};
inline constexpr QColor second{0x44, 0x44, 0x44};
inline constexpr QColor third{0x5c, 0x5c, 0x5c};
inline constexpr QColor surround{0x77, 0x77, 0x77};    // L* 50
inline constexpr QColor on_surround{0xff, 0xff, 0xff};
inline constexpr QColor accent{0x2f, 0x4a, 0x86};
inline constexpr QColor trace[3] = {{0xb3, 0x37, 0x2f}, {0x35, 0x80, 0x3f}, {0x2a, 0x74, 0xbd}};
inline constexpr QColor good{0x2c, 0x6a, 0x3b};
inline constexpr QColor bad{0x9c, 0x2a, 0x22};

inline constexpr int margin = 14;
inline constexpr int heading_height = 28;
inline constexpr int caption_height = 23; ///< over a cell

QFont face(double pixels = 12.5, bool strong = false);
QFont mono(double pixels = 12, bool strong = false);

/// Loads the shipped faces, sets palette, font and style of the application.
void apply(QApplication& application);

/// "0.128", with a true minus sign and always the same number of decimals.
QString number(double value, int decimals = 3);

/// Which marks stand for the letters r, g, b.
inline constexpr const char* letters[3] = {"r", "g", "b"};

/// A ring with a tick, or a square with a cross: states are told apart by shape as well as colour.
void draw_mark(QPainter& painter, const QRectF& where, bool passed);

} // namespace kasuri::app::theme
