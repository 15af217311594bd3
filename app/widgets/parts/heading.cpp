#include "widgets/parts/heading.hpp"

#include "widgets/parts/theme.hpp"

#include <QHBoxLayout>
#include <QMouseEvent>
#include <QPainter>
#include <QSettings>
#include <QToolButton>

namespace kasuri::app {

QLabel* quiet_label(const QString& text, QWidget* parent, double pixels) {
    auto* label = new QLabel(text, parent);
    label->setFont(theme::face(pixels));
    theme::tint(label, theme::second);
    return label;
}

Heading::Heading(const QString& title, QWidget* parent) : QWidget(parent), title_(title) {
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

void Heading::fold(QWidget* body, const QString& key) {
    body_ = body;
    key_ = "fold/" + key;
    triangle_ = new QToolButton(this);
    triangle_->setObjectName("fold");
    triangle_->setGeometry(0, 4, theme::margin, theme::heading_height - 8); // in the margin: names stand in line
    triangle_->setFont(theme::face(10));
    triangle_->setStyleSheet("padding: 0");
    connect(triangle_, &QToolButton::clicked, this, [this] { set_folded(!is_folded()); });
    set_folded(QSettings().value(key_).toBool());
}

bool Heading::is_folded() const { return body_ && body_->isHidden(); }

void Heading::set_folded(bool folded) {
    if (!body_)
        return;
    body_->setHidden(folded);
    QSettings().setValue(key_, folded);
    triangle_->setText(QString::fromUtf8(folded ? "\u25b8" : "\u25be"));
    triangle_->setAccessibleName((folded ? tr("Unfold %1") : tr("Fold %1")).arg(title_));
    triangle_->setToolTip(triangle_->accessibleName());
}

void Heading::mousePressEvent(QMouseEvent* event) {
    if (!body_ || event->button() != Qt::LeftButton)
        return QWidget::mousePressEvent(event);
    set_folded(!is_folded());
}

void Heading::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(0, height() - 1, width(), 1, theme::hairline);
}

} // namespace kasuri::app
