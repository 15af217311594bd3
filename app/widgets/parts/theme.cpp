#include "widgets/parts/theme.hpp"

#include <QApplication>
#include <QFontDatabase>
#include <QPainter>
#include <QScreen>
#include <QStyleFactory>
#include <QWidget>

#include <cmath>
#include <utility>

namespace kasuri::app::theme {
namespace {
/// Pixel sizes may be halves, which only points can say.
double points(double pixels) {
    const QScreen* screen = QGuiApplication::primaryScreen();
    return pixels * 72 / (screen ? screen->logicalDotsPerInchY() : 96.0);
}
} // namespace

QFont face(double pixels, bool strong) {
    QFont font("Inter");
    font.setPointSizeF(points(pixels));
    font.setWeight(strong ? QFont::DemiBold : QFont::Normal);
    return font;
}

QFont mono(double pixels, bool strong) {
    QFont font("JetBrains Mono");
    font.setPointSizeF(points(pixels)); // QScintilla looks at points only
    font.setWeight(strong ? QFont::DemiBold : QFont::Normal);
    font.setStyleHint(QFont::Monospace);
    return font;
}

namespace {

/// Colours stand in it by their names in brackets.
constexpr const char* sheet =
    "QToolTip { background: {current}; color: {text}; border: 1px solid {hairline}; padding: 3px 6px; }"
    "QMenu { background: {field}; border: 1px solid {hairline}; padding: 4px 0; }"
    "QMenu::item { padding: 4px 26px 4px 14px; }"
    "QMenu::item:selected { background: {accent}; color: {on_accent}; }"
    "QMenu::item:disabled { color: {third}; }"
    "QMenu::separator { height: 1px; background: {hairline}; margin: 4px 0; }"
    "QSplitter::handle { background: {hairline}; }"
    "QToolButton { border: none; padding: 2px 6px; }"
    "QToolButton:focus { outline: none; border: 2px solid {accent}; padding: 0 4px; }"
    "QToolButton::menu-indicator { image: none; }"
    "QLineEdit { background: {field}; border: none; border-bottom: 1px solid {third}; padding: 1px 4px; }"
    "QLineEdit:focus { border: 2px solid {accent}; padding: 0 3px; }"
    "QComboBox { background: {field}; border: none; border-bottom: 1px solid {third}; padding: 1px 6px; }"
    "QComboBox:focus { border: 2px solid {accent}; padding: 0 5px; }"
    "QComboBox::drop-down { border: none; width: 20px; }"
    "QComboBox::down-arrow { image: url(:/icons/open-{arrow}.png); width: 9px; height: 6px; }"
    "QComboBox QAbstractItemView { background: {field}; border: 1px solid {hairline}; outline: none; }"
    "QComboBox QAbstractItemView::item:selected { background: {accent}; color: {on_accent}; }"
    "QScrollBar:vertical { width: 8px; background: transparent; }"
    "QScrollBar::handle:vertical { background: {hairline}; min-height: 24px; }"
    "QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }"
    "QScrollBar:horizontal { height: 8px; background: transparent; }"
    "QScrollBar::handle:horizontal { background: {hairline}; min-width: 24px; }"
    "QPushButton { background: {field}; border: 1px solid {third}; padding: 4px 12px; }"
    "QPushButton:focus { border: 2px solid {accent}; padding: 3px 11px; }"
    "QPushButton::menu-indicator { image: none; }"
    "QPushButton:pressed { background: {current}; }"
    "QPushButton:checked { background: {current}; border: 1px solid {text}; border-bottom: 3px solid {accent}; "
    "padding-bottom: 2px; }";

constexpr Room table[] = {
    {"bright",
     QT_TRANSLATE_NOOP("Rooms", "bright"),
     {0xd8, 0xd8, 0xd8},
     {0xe3, 0xe3, 0xe3},
     {0xed, 0xed, 0xed},
     {0xb3, 0xb3, 0xb3},
     {0xc4, 0xc4, 0xc4},
     {0x16, 0x16, 0x16},
     {0x44, 0x44, 0x44},
     {0x5c, 0x5c, 0x5c},
     {0xb9, 0xc3, 0xdb},
     {0x2f, 0x4a, 0x86},
     {{0xb3, 0x37, 0x2f}, {0x35, 0x80, 0x3f}, {0x2a, 0x74, 0xbd}},
     {0x2c, 0x6a, 0x3b},
     {0x9c, 0x2a, 0x22}}, // L* 86
    {"dim",
     QT_TRANSLATE_NOOP("Rooms", "dim"),
     {0x8c, 0x8c, 0x8c},
     {0x99, 0x99, 0x99},
     {0xa6, 0xa6, 0xa6},
     {0x68, 0x68, 0x68},
     {0x7c, 0x7c, 0x7c},
     {0x08, 0x08, 0x08},
     {0x1a, 0x1a, 0x1a},
     {0x28, 0x28, 0x28},
     {0x7d, 0x8b, 0xaa},
     {0x1c, 0x30, 0x62},
     {{0x80, 0x16, 0x10}, {0x10, 0x50, 0x1c}, {0x0c, 0x44, 0x82}},
     {0x10, 0x44, 0x1c},
     {0x70, 0x12, 0x0c}}, // L* 58
    {"dark",
     QT_TRANSLATE_NOOP("Rooms", "dark"),
     {0x2e, 0x2e, 0x2e},
     {0x38, 0x38, 0x38},
     {0x43, 0x43, 0x43},
     {0x5a, 0x5a, 0x5a},
     {0x49, 0x49, 0x49},
     {0xe4, 0xe4, 0xe4},
     {0xc2, 0xc2, 0xc2},
     {0xa6, 0xa6, 0xa6},
     {0x46, 0x54, 0x78},
     {0x93, 0xab, 0xe6},
     {{0xe6, 0x7d, 0x74}, {0x7c, 0xc8, 0x88}, {0x7d, 0xb6, 0xf0}},
     {0x86, 0xc8, 0x96},
     {0xe8, 0x80, 0x78}}, // L* 19
};

QString now = QStringLiteral("bright");

void take(const Room& room) {
    chrome = room.chrome;
    field = room.field;
    current_line = room.current_line;
    hairline = room.hairline;
    grid = room.grid;
    text = room.text;
    second = room.second;
    third = room.third;
    chosen = room.chosen;
    accent = room.accent;
    good = room.good;
    bad = room.bad;
    for (int i = 0; i < 3; ++i)
        trace[i] = room.trace[i];
    now = room.name;
    QPalette palette;
    palette.setColor(QPalette::Window, chrome);
    palette.setColor(QPalette::WindowText, text);
    palette.setColor(QPalette::Base, field);
    palette.setColor(QPalette::AlternateBase, field);
    palette.setColor(QPalette::Text, text);
    palette.setColor(QPalette::Button, chrome);
    palette.setColor(QPalette::ButtonText, text);
    palette.setColor(QPalette::Highlight, accent);
    palette.setColor(QPalette::HighlightedText, accent.lightness() > 128 ? Qt::black : Qt::white);
    palette.setColor(QPalette::ToolTipBase, field);
    palette.setColor(QPalette::ToolTipText, text);
    palette.setColor(QPalette::Link, text);
    palette.setColor(QPalette::PlaceholderText, third);
    for (const QPalette::ColorRole role : {QPalette::Text, QPalette::WindowText, QPalette::ButtonText})
        palette.setColor(QPalette::Disabled, role, third);
    QApplication::setPalette(palette);
    QString style = QString::fromLatin1(sheet);
    const std::pair<const char*, QColor> names[] = {{"{current}", current_line},
                                                    {"{text}", text},
                                                    {"{hairline}", hairline},
                                                    {"{field}", field},
                                                    {"{accent}", accent},
                                                    {"{third}", third},
                                                    {"{on_accent}", accent.lightness() > 128 ? Qt::black : Qt::white}};
    for (const auto& [name, colour] : names)
        style.replace(QLatin1String(name), colour.name());
    style.replace("{arrow}", is_dark() ? "light" : "dark");
    static_cast<QApplication*>(QCoreApplication::instance())->setStyleSheet(style);
}

} // namespace

std::span<const Room> rooms() { return table; }

Changes& changes() {
    static Changes one;
    return one;
}

QString room() { return now; }

bool is_dark() { return text.lightness() > chrome.lightness(); }

void set_room(const QString& name) {
    const Room* found = &table[0];
    for (const Room& each : table)
        if (name == QLatin1String(each.name))
            found = &each;
    take(*found);
    emit changes().room_changed();
    for (QWidget* widget : QApplication::allWidgets())
        widget->update();
}

void set_surround(const QColor& behind, const QColor& on) {
    if (behind == surround && on == on_surround)
        return;
    surround = behind;
    on_surround = on;
    emit changes().surround_changed();
    for (QWidget* widget : QApplication::allWidgets())
        widget->update();
}

void tint(QWidget* widget, const QColor& tone) {
    const auto paint = [widget, &tone] {
        QPalette palette = widget->palette();
        palette.setColor(QPalette::WindowText, tone);
        widget->setPalette(palette);
    };
    paint();
    QObject::connect(&changes(), &Changes::room_changed, widget, paint);
}

void apply(QApplication& application) {
    for (const char* file : {"Inter-Regular.otf", "Inter-SemiBold.otf", "JetBrainsMono-Regular.ttf",
                             "JetBrainsMono-Italic.ttf", "JetBrainsMono-SemiBold.ttf"})
        QFontDatabase::addApplicationFont(QString(":/fonts/") + file);
    application.setStyle(QStyleFactory::create("Fusion"));
    application.setFont(face());
    take(table[0]);
}

QString percentage(double value) {
    if (value > 0 && value < 0.0005)
        return "< 0.001";
    return number(value, value < 0.1 ? 3 : 1);
}

QString number(double value, int decimals) {
    if (std::isnan(value))
        return "NaN";
    if (std::isinf(value))
        return value > 0 ? QString::fromUtf8("\u221e") : QString::fromUtf8("\u2212\u221e");
    QString shown = QString::number(value, 'f', decimals);
    if (shown.startsWith('-')) {
        bool zero = true;
        for (const QChar c : shown)
            zero = zero && (c == '-' || c == '0' || c == '.');
        shown = zero ? shown.mid(1) : QString::fromUtf8("\u2212") + shown.mid(1);
    }
    return shown;
}

void draw_mark(QPainter& painter, const QRectF& where, bool passed) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    if (passed) {
        painter.setPen(QPen(good, 1.5));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(where.adjusted(0.75, 0.75, -0.75, -0.75));
        QPolygonF tick;
        tick << where.topLeft() + QPointF(where.width() * 0.28, where.height() * 0.52)
             << where.topLeft() + QPointF(where.width() * 0.45, where.height() * 0.68)
             << where.topLeft() + QPointF(where.width() * 0.74, where.height() * 0.35);
        painter.drawPolyline(tick);
    } else {
        painter.fillRect(where, bad);
        painter.setPen(QPen(Qt::white, 1.6));
        const QRectF inner =
            where.adjusted(where.width() * 0.28, where.height() * 0.28, -where.width() * 0.28, -where.height() * 0.28);
        painter.drawLine(inner.topLeft(), inner.bottomRight());
        painter.drawLine(inner.topRight(), inner.bottomLeft());
    }
    painter.restore();
}

} // namespace kasuri::app::theme
