#include "widgets/parts/message_box.hpp"

#include "base/said.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"

#include <QPainter>

namespace kasuri::app {
namespace {
constexpr int bar = 10; // room at the left for the rule along the message
constexpr int fix_height = 17;
constexpr int padding = 2;
} // namespace

MessageBox::MessageBox(QWidget* parent) : QFrame(parent) {
    setFocusPolicy(Qt::NoFocus);
    setCursor(Qt::ArrowCursor);
    text_ = new QLabel(this);
    text_->setFont(theme::face(11.5));
    text_->setWordWrap(true);
    text_->setTextFormat(Qt::PlainText);
    fix_ = new QPushButton(this);
    fix_->setFont(theme::face(11.5));
    fix_->setCursor(Qt::PointingHandCursor);
    fix_->setFocusPolicy(Qt::NoFocus);
    fix_->setStyleSheet("QPushButton { background: transparent; border: none; padding: 0; text-align: left; "
                        "text-decoration: underline; }");
    key_ = quiet_label(tr("Alt+Enter"), this, 10.5);
    connect(fix_, &QPushButton::clicked, this, &MessageBox::fix_clicked);
    hide();
}

void MessageBox::show_fault(const lang::Diagnostic& diagnostic) {
    QString words = QString::fromStdString(lang::message(diagnostic));
    words[0] = words[0].toUpper();
    if (!words.endsWith('?'))
        words += '.';
    const bool fixed = !diagnostic.fixes.empty();
    if (const std::string help = lang::help(diagnostic); !fixed && !help.empty())
        words += " " + QString::fromStdString(help);
    text_->setText(words);
    fix_->setVisible(fixed);
    key_->setVisible(fixed);
    if (fixed) {
        QString label = QString::fromStdString(translated(diagnostic.fixes.front().label));
        label[0] = label[0].toUpper();
        fix_->setText(label);
    }
    setAccessibleName(words);
}

int MessageBox::height_for(int width) const {
    return text_->heightForWidth(width - bar - 6) + (fix_->isVisibleTo(this) ? fix_height : 0) + padding;
}

void MessageBox::resizeEvent(QResizeEvent*) {
    const int inside = width() - bar - 6;
    const int text_height = text_->heightForWidth(inside);
    text_->setGeometry(bar, padding / 2, inside, text_height);
    fix_->adjustSize();
    fix_->setGeometry(bar, padding / 2 + text_height, fix_->sizeHint().width() + 4, fix_height);
    key_->setGeometry(fix_->geometry().right() + 8, padding / 2 + text_height, 70, fix_height);
}

void MessageBox::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::field);
    painter.fillRect(0, 2, 2, height() - 4, theme::third);
}

} // namespace kasuri::app
