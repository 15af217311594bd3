#include "widgets/handover/bake_window.hpp"

#include "base/memory.hpp"
#include "base/text.hpp"
#include "model/background.hpp"
#include "model/file_names.hpp"
#include "model/on_bench.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/space_menu.hpp"
#include "widgets/parts/theme.hpp"

#include <QButtonGroup>
#include <QCheckBox>
#include <QCoreApplication>
#include <QFileDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPointer>
#include <QPushButton>
#include <QToolButton>

#include <algorithm>

namespace kasuri::app {
namespace {

QString shown(double value) { return QString::fromStdString(number_text(value, 3)).replace('-', QChar(0x2212)); }

std::optional<double> typed(const QLineEdit* field) {
    QString text = field->text();
    return parse_number(text.replace(QChar(0x2212), '-').replace(',', '.').toStdString());
}

/// A row of the table of errors.
QString row(const QString& name, const baking::LutError& e) {
    QString cells;
    for (const double value : {e.mean, e.most, e.largest, e.delta_e_mean, e.delta_e_most, e.delta_e_largest})
        cells += QStringLiteral("<td align=\"right\">%1</td>").arg(shown(value));
    return QStringLiteral("<tr><td>%1</td>%2</tr>").arg(name, cells);
}

QString place(const std::array<float, 3>& colour) {
    return QStringLiteral("(%1, %2, %3)")
        .arg(shown(static_cast<double>(colour[0])), shown(static_cast<double>(colour[1])),
             shown(static_cast<double>(colour[2])));
}

} // namespace

BakeWindow::BakeWindow(Session& session, LookModel& look, SheetModel& sheet, QWidget* parent)
    : QDialog(parent), session_(session), look_(look), sheet_(sheet) {
    setWindowTitle(tr("Hand over a LUT"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    grid->setVerticalSpacing(10);
    grid->setHorizontalSpacing(12);
    const auto named = [&](int row, const QString& name, QHBoxLayout* what) {
        grid->addWidget(new QLabel(name, this), row, 0);
        grid->addLayout(what, row, 1);
    };
    named(0, tr("Points a side"), size_row());
    named(1, tr("Smallest within"), wished_row());
    named(2, tr("Values from"), domain_row());
    named(3, tr("Spaces"), space_row());
    error_ = quiet_label({}, this);
    error_->setWordWrap(true);
    error_->setMinimumSize(560, 150);
    error_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    grid->addWidget(error_, 4, 0, 1, 2);
    write_ = new QPushButton(tr("Write the LUT\u2026"), this);
    connect(write_, &QPushButton::clicked, this, &BakeWindow::ask_write);
    grid->addWidget(write_, 5, 1, Qt::AlignRight);
    connect(sizes_, &QButtonGroup::idClicked, this, &BakeWindow::measure);
    connect(low_, &QLineEdit::textChanged, this, &BakeWindow::measure);
    connect(high_, &QLineEdit::textChanged, this, &BakeWindow::measure);
    connect(shaper_, &QCheckBox::toggled, this, &BakeWindow::measure);
    connect(&session_, &Session::rule_changed, this, &BakeWindow::measure);
    connect(&session_, &Session::values_changed, this, &BakeWindow::measure);
    connect(&look_, &LookModel::changed, this, &BakeWindow::measure);
    measure();
}

QHBoxLayout* BakeWindow::size_row() {
    auto* row = new QHBoxLayout;
    sizes_ = new QButtonGroup(this);
    for (const int size : baking::lut_sizes) {
        auto* button = new QPushButton(QString::number(size), this);
        button->setCheckable(true);
        button->setAccessibleName(tr("%1 points").arg(size));
        sizes_->addButton(button, size);
        row->addWidget(button);
        button->setChecked(size == 33);
    }
    row->addStretch(1);
    return row;
}

QLineEdit* BakeWindow::field(const QString& text, const QString& name) {
    auto* made = new QLineEdit(text, this);
    made->setFixedWidth(64);
    made->setAlignment(Qt::AlignRight);
    made->setAccessibleName(name);
    return made;
}

QHBoxLayout* BakeWindow::wished_row() {
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    wished_ = field("1",
                    tr("Largest \u0394"
                       "E2000 that is wished"));
    wished_->setObjectName("wished");
    auto* find = new QPushButton(tr("Find the size"), this);
    find->setObjectName("find_size");
    find->setAutoDefault(false);
    connect(find, &QPushButton::clicked, this, &BakeWindow::find_size);
    row->addWidget(wished_);
    row->addWidget(new QLabel(tr("\u0394"
                                 "E2000 everywhere"),
                              this));
    row->addWidget(find);
    row->addStretch(1);
    return row;
}

QHBoxLayout* BakeWindow::domain_row() {
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    low_ = field("0", tr("Lowest value that comes in"));
    high_ = field("1", tr("Highest value that comes in"));
    shaper_ = new QCheckBox(tr("points closer where values are low (.clf)"), this);
    row->addWidget(low_);
    row->addWidget(new QLabel(tr("to"), this));
    row->addWidget(high_);
    row->addWidget(shaper_);
    row->addStretch(1);
    return row;
}

QHBoxLayout* BakeWindow::space_row() {
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    row->addWidget(new QLabel(tr("in"), this));
    row->addWidget(space_button(in_space_, tr("working space"), tr("Space of what comes in")));
    row->addWidget(new QLabel(tr("out"), this));
    row->addWidget(space_button(out_space_, tr("working space"), tr("Space of what goes out")));
    row->addStretch(1);
    return row;
}

void BakeWindow::ask_write() {
    QStringList kinds;
    for (const std::string& ending : handover::lut_endings())
        kinds << "*" + QString::fromStdString(ending);
    QString file = QFileDialog::getSaveFileName(this, tr("Write the LUT"),
                                                look_.display_name() + (shaper_->isChecked() ? ".clf" : ".cube"),
                                                tr("LUTs (%1)").arg(kinds.join(' ')));
    if (file.isEmpty())
        return;
    if (!file.contains('.'))
        file += ".cube";
    write_to(file);
}

BakeWindow::~BakeWindow() { cancel_.cancel(); }

QToolButton* BakeWindow::space_button(std::string& space, const QString& usual, const QString& name) {
    auto* button = new QToolButton(this);
    button->setText(usual + " \u25be");
    button->setAccessibleName(name);
    button->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(button);
    button->setMenu(menu);
    connect(menu, &QMenu::aboutToShow, this, [this, menu, button, &space, usual] {
        menu->clear();
        const auto choose = [this, button, &space, usual](const std::string& chosen) {
            space = chosen;
            button->setText((chosen.empty() ? usual : QString::fromStdString(chosen)) + " \u25be");
            measure();
        };
        menu->addAction(usual, this, [choose] { choose({}); });
        add_spaces(*menu, space, choose, false);
    });
    return button;
}

QString BakeWindow::words() const { return error_->text(); }

void BakeWindow::measure() { start(false); }
void BakeWindow::find_size() { start(true); }

void BakeWindow::start(bool search) {
    cancel_.cancel();
    cancel_ = CancelToken();
    const int ticket = ++ticket_;
    baked_.reset();
    write_->setEnabled(false);
    const std::optional<double> low = typed(low_), high = typed(high_), wished = typed(wished_);
    Result<subject::Subject> subject = subject_on_bench(session_, look_, sheet_);
    if (!subject || !low || !high || (search && !(wished && *wished > 0))) {
        error_->setText(!subject     ? QString::fromStdString(subject.error().text())
                            : search ? tr("The wished error is a number above 0.")
                                     : tr("The ends of the range are numbers, such as 0 and 1."));
        return;
    }
    error_->setText(search ? tr("Measuring size after size\u2026") : tr("Measuring\u2026"));
    subject_ = std::make_shared<const subject::Subject>(std::move(subject.value()));
    baking::BakeOptions options{sizes_->checkedId(), *low, *high, shaper_->isChecked(), true, in_space_, out_space_};
    background().start(
        [self = QPointer<BakeWindow>(this), ticket, subject = subject_, options, search, wished, cancel = cancel_] {
            auto result = std::make_shared<Result<baking::Baked>>(within_memory("", [&] {
                return search ? baking::bake_for(*subject, options, {std::nullopt, wished}, cancel)
                              : baking::bake(*subject, options, cancel);
            }));
            QMetaObject::invokeMethod(
                qApp,
                [self, ticket, result] {
                    if (self)
                        self->show_measured(ticket, result);
                },
                Qt::QueuedConnection);
        });
}

void BakeWindow::show_measured(int ticket, const std::shared_ptr<Result<baking::Baked>>& result) {
    if (ticket != ticket_)
        return;
    if (!result->ok()) {
        QString words =
            QString::fromStdString(translated(result->error().what) + ". " + translated(result->error().remedy));
        words[0] = words[0].toUpper();
        error_->setText(words);
        return;
    }
    baked_ = std::shared_ptr<const baking::Baked>(result, &result->value());
    if (QAbstractButton* button = sizes_->button(baked_->lut.size))
        button->setChecked(true); // where it was looked for
    QString words;
    if (baked_->matrix)
        words += tr("<p>It is exactly a matrix, and .clf and .ctf hold it as one. As a table:</p>");
    else if (baked_->curves)
        words += tr("<p>It is three curves, which .clf, .ctf and .cube hold as such.</p>");
    words += QStringLiteral("<table cellspacing=\"0\" cellpadding=\"3\"><tr><td>%1</td><td align=\"right\">%2</td><td "
                            "align=\"right\">%3</td><td align=\"right\">%4</td><td align=\"right\">\u0394"
                            "E2000 "
                            "%2</td><td align=\"right\">%3</td><td align=\"right\">%4</td></tr>")
                 .arg(tr("error"), tr("mean"), tr("99.9 %"), tr("largest"));
    if (baked_->curves)
        words += row(tr("as curves"), baked_->by_curves);
    words += row(tr("read trilinearly"), baked_->trilinear) + row(tr("read tetrahedrally"), baked_->tetrahedral) +
        "</table>";
    words += tr("<p>On %1 colours between the points of the table; worst at %2.</p>")
                 .arg(baked_->samples)
                 .arg(place(baked_->tetrahedral.worst));
    if (baked_->reads_alpha)
        words += tr("<p>Alpha is read; the table holds it for alpha 1.</p>");
    error_->setText(words);
    write_->setEnabled(true);
}

void BakeWindow::write_to(const QString& file) {
    if (!baked_ || writing_)
        return;
    writing_ = true;
    write_->setEnabled(false);
    // What is said is measured on the file, which takes as long as reading it does.
    background().start([self = QPointer<BakeWindow>(this), file, subject = subject_, baked = baked_] {
        auto written = std::make_shared<Result<handover::LutFile>>(
            within_memory(bytes_of(file), [&] { return handover::write_lut(bytes_of(file), *subject, *baked); }));
        QMetaObject::invokeMethod(
            qApp,
            [self, file, written] {
                if (self)
                    self->show_written(file, *written);
            },
            Qt::QueuedConnection);
    });
}

void BakeWindow::show_written(const QString& file, const Result<handover::LutFile>& written) {
    writing_ = false;
    write_->setEnabled(baked_ != nullptr);
    if (!written) {
        emit said(QString::fromStdString(written.error().text()), true);
        return;
    }
    const handover::LutFile& made = written.value();
    if (made.exact)
        emit said(tr("Wrote %1: exactly a matrix").arg(file), false);
    else if (made.clipped > 0)
        emit said(tr("Wrote %1: %2 % of the colours are cut off at 0 or 1; largest error %3, read back")
                      .arg(file, shown(100 * made.clipped),
                           shown(std::max(made.trilinear.largest, made.tetrahedral.largest))),
                  false);
    else
        emit said(tr("Wrote %1: largest error %2, read back")
                      .arg(file, shown(std::max(made.trilinear.largest, made.tetrahedral.largest))),
                  false);
}

} // namespace kasuri::app
