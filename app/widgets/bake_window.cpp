#include "widgets/bake_window.hpp"

#include "base/text.hpp"
#include "widgets/heading.hpp"
#include "widgets/theme.hpp"

#include <QButtonGroup>
#include <QCoreApplication>
#include <QFileDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPointer>
#include <QPushButton>
#include <QThreadPool>

namespace kasuri::app {
namespace {
QString shown(double value) { return QString::fromStdString(number_text(value, 3)).replace('-', QChar(0x2212)); }
std::optional<double> typed(const QLineEdit* field) {
    QString text = field->text();
    return parse_number(text.replace(QChar(0x2212), '-').replace(',', '.').toStdString());
}
} // namespace

BakeWindow::BakeWindow(Session& session, QWidget* parent) : QDialog(parent), session_(session) {
    setWindowTitle(tr("Hand over a LUT"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    grid->setVerticalSpacing(10);
    grid->addWidget(new QLabel(tr("Points a side"), this), 0, 0);
    auto* sizes_row = new QHBoxLayout;
    sizes_ = new QButtonGroup(this);
    for (const int size : handover::lut_sizes) {
        auto* button = new QPushButton(QString::number(size), this);
        button->setCheckable(true);
        button->setAccessibleName(tr("%1 points").arg(size));
        sizes_->addButton(button, size);
        sizes_row->addWidget(button);
        button->setChecked(size == 33);
    }
    sizes_row->addStretch(1);
    grid->addLayout(sizes_row, 0, 1);
    grid->addWidget(new QLabel(tr("Values from"), this), 1, 0);
    auto* domain_row = new QHBoxLayout;
    domain_row->setSpacing(8);
    low_ = new QLineEdit("0", this);
    high_ = new QLineEdit("1", this);
    for (QLineEdit* field : {low_, high_}) {
        field->setFixedWidth(64);
        field->setAlignment(Qt::AlignRight);
    }
    low_->setAccessibleName(tr("Lowest value that comes in"));
    high_->setAccessibleName(tr("Highest value that comes in"));
    domain_row->addWidget(low_);
    domain_row->addWidget(new QLabel(tr("to"), this));
    domain_row->addWidget(high_);
    domain_row->addWidget(quiet_label(tr("in the rule's working space"), this, 11.5));
    domain_row->addStretch(1);
    grid->addLayout(domain_row, 1, 1);
    error_ = quiet_label({}, this);
    error_->setWordWrap(true);
    error_->setMinimumSize(420, 76);
    error_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    grid->addWidget(error_, 2, 0, 1, 2);
    write_ = new QPushButton(tr("Write .cube\u2026"), this);
    grid->addWidget(write_, 3, 1, Qt::AlignRight);
    connect(write_, &QPushButton::clicked, this, [this] {
        QString file = QFileDialog::getSaveFileName(this, tr("Write the LUT"), session_.display_name() + ".cube", tr("LUT (*.cube)"));
        if (file.isEmpty())
            return;
        if (!file.endsWith(".cube"))
            file += ".cube";
        write_to(file);
    });
    connect(sizes_, &QButtonGroup::idClicked, this, &BakeWindow::measure);
    connect(low_, &QLineEdit::textChanged, this, &BakeWindow::measure);
    connect(high_, &QLineEdit::textChanged, this, &BakeWindow::measure);
    connect(&session_, &Session::rule_changed, this, &BakeWindow::measure);
    connect(&session_, &Session::values_changed, this, &BakeWindow::measure);
    measure();
}

BakeWindow::~BakeWindow() { cancel_.cancel(); }

void BakeWindow::measure() {
    cancel_.cancel();
    cancel_ = CancelToken();
    const int ticket = ++ticket_;
    baked_.reset();
    write_->setEnabled(false);
    const std::optional<double> low = typed(low_), high = typed(high_);
    if (!session_.rule() || !low || !high) {
        error_->setText(session_.rule() ? tr("The ends of the range are numbers, such as 0 and 1.") : tr("There is no rule yet."));
        return;
    }
    error_->setText(tr("Measuring\u2026"));
    rule_ = std::make_shared<const lang::Rule>(*session_.rule());
    values_ = session_.values();
    handover::BakeOptions options{sizes_->checkedId(), *low, *high};
    QThreadPool::globalInstance()->start([self = QPointer<BakeWindow>(this), ticket, rule = rule_, values = values_, options, cancel = cancel_] {
        auto result = std::make_shared<Result<handover::Baked>>(handover::bake(*rule, values, options, cancel));
        QMetaObject::invokeMethod(
            qApp,
            [self, ticket, result] {
                if (self)
                    self->show_measured(ticket, result);
            },
            Qt::QueuedConnection);
    });
}

void BakeWindow::show_measured(int ticket, const std::shared_ptr<Result<handover::Baked>>& result) {
    if (ticket != ticket_)
        return;
    if (!result->ok()) {
        QString words = QString::fromStdString(result->error().what + ". " + result->error().remedy);
        words[0] = words[0].toUpper();
        error_->setText(words);
        return;
    }
    baked_ = std::shared_ptr<const handover::Baked>(result, &result->value());
    QString words = tr("Error against the rule, measured on %1 colours:\n"
                       "read with trilinear interpolation: mean %2, largest %3\n"
                       "read with tetrahedral interpolation: mean %4, largest %5")
                        .arg(baked_->samples)
                        .arg(shown(baked_->trilinear.mean), shown(baked_->trilinear.largest), shown(baked_->tetrahedral.mean), shown(baked_->tetrahedral.largest));
    if (baked_->reads_alpha)
        words += tr("\nThe rule reads alpha; the table holds it for alpha 1.");
    error_->setText(words);
    write_->setEnabled(true);
}

void BakeWindow::write_to(const QString& file) {
    if (!baked_)
        return;
    if (const Status written = handover::write_cube(file.toStdString(), *rule_, values_, *baked_); !written)
        emit said(QString::fromStdString(written.error().text()), true);
    else
        emit said(tr("Wrote %1: largest error %2").arg(file, shown(baked_->trilinear.largest)), false);
}

} // namespace kasuri::app
