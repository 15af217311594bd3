#include "widgets/proofs/promise_window.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "model/words.hpp"
#include "proof/look.hpp"
#include "proof/ready_made.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"

#include <QMenu>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace kasuri::app {

PromiseWindow::PromiseWindow(LookModel& look, QWidget* parent) : QDialog(parent, Qt::Tool), look_(look) {
    setObjectName("promise");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("What the look promises"));
    resize(620, 260);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, 10, theme::margin, 10);
    column->setSpacing(6);
    auto* doc = quiet_label(tr("One proof a line, about the look as a whole: r, g, b is what goes into its first step, "
                               "out what comes out of the last. Measured at its values."),
                            this, 11.5);
    doc->setWordWrap(true);
    lines_ = new QPlainTextEdit(this);
    lines_->setObjectName("promise_lines");
    lines_->setAccessibleName(tr("Proofs of the look"));
    lines_->setFont(theme::mono());
    lines_->setFrameShape(QFrame::NoFrame);
    lines_->setPlaceholderText(QStringLiteral("proof \"greys stay grey\" : neutral"));
    words_ = quiet_label({}, this, 11.5);
    words_->setObjectName("promise_words");
    words_->setWordWrap(true);
    auto* add = new QPushButton(tr("Add") + QString::fromUtf8(" \u25be"), this);
    add->setAutoDefault(false);
    auto* menu = new QMenu(add);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] {
        menu->clear();
        fill_ready_made(*menu, look_);
    });
    add->setMenu(menu);
    auto* row = new QHBoxLayout;
    row->addWidget(words_, 1);
    row->addWidget(add);
    column->addWidget(doc);
    column->addWidget(lines_, 1);
    column->addLayout(row);
    connect(lines_, &QPlainTextEdit::textChanged, this, &PromiseWindow::take);
    connect(&look_, &LookModel::changed, this, &PromiseWindow::show_lines);
    show_lines();
}

void PromiseWindow::fill_ready_made(QMenu& menu, LookModel& look) {
    menu.setToolTipsVisible(true);
    for (const proof::ReadyMade& row : proof::ready_made())
        menu.addAction(words(row.title), &look,
                       [&look, line = row.line] {
                           std::string plain = line;
                           std::erase(plain, '$'); // where a caret would go
                           look.set_proofs(look.look().proofs + plain + "\n", false);
                       })
            ->setToolTip(words(row.doc));
}

void PromiseWindow::take() {
    writing_ = true;
    look_.set_proofs(lines_->toPlainText().toStdString(), true);
    writing_ = false;
    shown_ = QString::fromStdString(look_.look().proofs);
    words_->setText(fault());
}

void PromiseWindow::show_lines() {
    if (writing_)
        return;
    const QString now = QString::fromStdString(look_.look().proofs);
    if (shown_ == now)
        return; // an opacity is being dragged
    shown_ = now;
    if (lines_->toPlainText().trimmed() != now.trimmed()) {
        const QSignalBlocker quiet(lines_);
        lines_->setPlainText(now);
    }
    words_->setText(fault());
}

QString PromiseWindow::fault() const {
    const auto around = look_.around();
    if (!around || around->look.proofs.empty())
        return {};
    // Only the words are judged here; in which space they are measured follows from the steps.
    const auto read = proof::look_statements(around->look.proofs, std::string(colour::default_space),
                                             document::used_beside(around->folder / "look"));
    return read ? tr("Measured in the row of proofs below the sheet.") : QString::fromStdString(read.error().text());
}

} // namespace kasuri::app
