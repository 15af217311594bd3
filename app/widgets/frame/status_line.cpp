#include "widgets/frame/status_line.hpp"

#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"

#include <QHBoxLayout>
#include <QPainter>
#include <QTimer>
#include <QToolButton>

namespace kasuri::app {
namespace {
constexpr int confirmation_ms = 6000;
}

StatusLine::StatusLine(QWidget* parent) : QWidget(parent) {
    setFixedHeight(25);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(theme::margin, 1, theme::margin, 0);
    row->setSpacing(16);
    pointer_ = quiet_label({}, this, 11.5);
    message_ = new QLabel(this);
    message_->setFont(theme::face(11.5));
    message_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    message_->hide();
    dismiss_ = new QToolButton(this);
    dismiss_->setText(tr("dismiss"));
    dismiss_->setFont(theme::face(11.5));
    dismiss_->hide();
    connect(dismiss_, &QToolButton::clicked, this, &StatusLine::dismiss);
    times_ = quiet_label({}, this, 11.5);
    times_->setToolTip(
        tr("Check: from the text to a rule that can run. Sheet: from the change to everything evaluated."));
    row->addWidget(message_, 1);
    row->addWidget(dismiss_);
    row->addWidget(pointer_, 1);
    row->addStretch(0);
    row->addWidget(times_);
}

void StatusLine::show_readout(const Readout& readout) {
    if (!readout.valid) {
        pointer_->clear();
        return;
    }
    const auto triple = [](const std::array<float, 4>& c) {
        return theme::number(static_cast<double>(c[0])) + " " + theme::number(static_cast<double>(c[1])) + " " +
            theme::number(static_cast<double>(c[2]));
    };
    pointer_->setText(QString("%1   %2      in  %3      out  %4")
                          .arg(readout.target, readout.place, triple(readout.before), triple(readout.after)));
}

void StatusLine::show_times(double check_ms, double sheet_ms) {
    if (check_ms > 0)
        check_ms_ = check_ms;
    times_->setText(tr("check %1 ms   sheet %2 ms").arg(check_ms_, 0, 'f', 1).arg(sheet_ms, 0, 'f', 0));
}

void StatusLine::say(const QString& message, bool bad) {
    bad_ = bad;
    message_->setText((bad ? "      " : "") + message);
    message_->setVisible(true);
    message_->setAccessibleName(message);
    dismiss_->setVisible(bad);
    pointer_->setVisible(false);
    update();
    const int said = ++said_;
    if (!bad)
        QTimer::singleShot(confirmation_ms, this, [this, said] {
            if (said == said_)
                dismiss();
        });
}

QString StatusLine::message() const { return message_->isVisibleTo(this) ? message_->text().trimmed() : QString(); }

void StatusLine::dismiss() {
    message_->hide();
    dismiss_->hide();
    pointer_->show();
    update();
}

void StatusLine::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(0, 0, width(), 1, theme::hairline);
    if (bad_ && message_->isVisibleTo(this))
        theme::draw_mark(painter, QRectF(theme::margin, 7, 12, 12), false);
}

} // namespace kasuri::app
