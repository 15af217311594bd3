#include "widgets/theme.hpp"

#include <QApplication>
#include <QFontDatabase>
#include <QPainter>
#include <QScreen>
#include <QStyleFactory>

#include <cmath>

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

void apply(QApplication& application) {
    for (const char* file : {"Inter-Regular.otf", "Inter-SemiBold.otf", "JetBrainsMono-Regular.ttf",
                             "JetBrainsMono-Italic.ttf", "JetBrainsMono-SemiBold.ttf"})
        QFontDatabase::addApplicationFont(QString(":/fonts/") + file);
    application.setStyle(QStyleFactory::create("Fusion"));
    QPalette palette;
    palette.setColor(QPalette::Window, chrome);
    palette.setColor(QPalette::WindowText, text);
    palette.setColor(QPalette::Base, field);
    palette.setColor(QPalette::AlternateBase, field);
    palette.setColor(QPalette::Text, text);
    palette.setColor(QPalette::Button, chrome);
    palette.setColor(QPalette::ButtonText, text);
    palette.setColor(QPalette::Highlight, accent);
    palette.setColor(QPalette::HighlightedText, Qt::white);
    palette.setColor(QPalette::ToolTipBase, field);
    palette.setColor(QPalette::ToolTipText, text);
    palette.setColor(QPalette::Link, text);
    palette.setColor(QPalette::PlaceholderText, third);
    palette.setColor(QPalette::Disabled, QPalette::Text, third);
    palette.setColor(QPalette::Disabled, QPalette::WindowText, third);
    palette.setColor(QPalette::Disabled, QPalette::ButtonText, third);
    application.setPalette(palette);
    application.setFont(face());
    application.setStyleSheet(
        "QToolTip { background: #ededed; color: #161616; border: 1px solid #b3b3b3; padding: 3px 6px; }"
        "QMenu { background: #e3e3e3; border: 1px solid #b3b3b3; padding: 4px 0; }"
        "QMenu::item { padding: 4px 26px 4px 14px; }"
        "QMenu::item:selected { background: #2f4a86; color: white; }"
        "QMenu::item:disabled { color: #5c5c5c; }"
        "QMenu::separator { height: 1px; background: #b3b3b3; margin: 4px 0; }"
        "QSplitter::handle { background: #b3b3b3; }"
        "QToolButton { border: none; padding: 2px 6px; } "
        "QToolButton:focus { outline: none; border: 2px solid #2f4a86; padding: 0 4px; }"
        "QToolButton::menu-indicator { image: none; }"
        "QLineEdit { background: #e3e3e3; border: none; border-bottom: 1px solid #5c5c5c; padding: 1px 4px; }"
        "QLineEdit:focus { border: 2px solid #2f4a86; padding: 0 3px; }"
        "QComboBox { background: #e3e3e3; border: none; border-bottom: 1px solid #5c5c5c; padding: 1px 6px; }"
        "QComboBox:focus { border: 2px solid #2f4a86; padding: 0 5px; }"
        "QComboBox::drop-down { border: none; width: 18px; }"
        "QComboBox QAbstractItemView { background: #e3e3e3; border: 1px solid #b3b3b3; outline: none; }"
        "QComboBox QAbstractItemView::item:selected { background: #2f4a86; color: white; }"
        "QScrollBar:vertical { width: 8px; background: transparent; } "
        "QScrollBar::handle:vertical { background: #b3b3b3; min-height: 24px; }"
        "QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }"
        "QScrollBar:horizontal { height: 8px; background: transparent; } "
        "QScrollBar::handle:horizontal { background: #b3b3b3; min-width: 24px; }"
        "QPushButton { background: #e3e3e3; border: 1px solid #5c5c5c; padding: 4px 12px; }"
        "QPushButton:focus { border: 2px solid #2f4a86; padding: 3px 11px; }"
        "QPushButton:pressed { background: #ededed; }"
        "QPushButton:checked { background: #ededed; border: 1px solid #161616; border-bottom: 3px solid #2f4a86; padding-bottom: 2px; }");
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
        const QRectF inner = where.adjusted(where.width() * 0.28, where.height() * 0.28, -where.width() * 0.28, -where.height() * 0.28);
        painter.drawLine(inner.topLeft(), inner.bottomRight());
        painter.drawLine(inner.topRight(), inner.bottomLeft());
    }
    painter.restore();
}

} // namespace kasuri::app::theme
