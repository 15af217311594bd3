#include "widgets/parts/heading.hpp"

#include "widgets/parts/theme.hpp"

#include <QHBoxLayout>
#include <QPainter>

namespace kasuri::app {

QLabel* quiet_label(const QString& text, QWidget* parent, double pixels) {
    auto* label = new QLabel(text, parent);
    label->setFont(theme::face(pixels));
    theme::tint(label, theme::second);
    return label;
}

Heading::Heading(const QString& title, QWidget* parent) : QWidget(parent) {
    setFixedHeight(theme::heading_height);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(theme::margin, 0, theme::margin, 0);
    row->setSpacing(8);
    auto* name = new QLabel(title, this);
    name->setFont(theme::face(12.5, true));
    detail_ = quiet_label({}, this);
    right_ = quiet_label({}, this, 11.5);
    row->addWidget(name);
    row->addWidget(detail_);
    row->addStretch(1);
    row->addWidget(right_);
}

void Heading::set_detail(const QString& text) { detail_->setText(text); }
void Heading::set_right(const QString& text) { right_->setText(text); }
void Heading::add_control(QWidget* control) { layout()->addWidget(control); }

void Heading::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(0, height() - 1, width(), 1, theme::hairline);
}

} // namespace kasuri::app
