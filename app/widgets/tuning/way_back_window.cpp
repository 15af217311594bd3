#include "widgets/tuning/way_back_window.hpp"

#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"

#include <QCheckBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QScrollArea>
#include <QUndoStack>
#include <QVBoxLayout>

namespace kasuri::app {
namespace {
constexpr int settle_ms = 250; // after the last key or the last move of a slider
} // namespace

WayBackWindow::WayBackWindow(Bench& bench, QWidget* parent) : QDialog(parent), bench_(bench) {
    setWindowTitle(tr("The way back"));
    resize(700, 520);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    column->setSpacing(8);
    column->addWidget(quiet_label(
        tr("The rule is solved for what went in, statement by statement, and measured: there and back again."), this));
    auto* of = new QHBoxLayout;
    step_ = new QRadioButton(tr("Of the active step"), this);
    all_ = new QRadioButton(tr("Of all steps, the last first"), this);
    step_->setChecked(true);
    again_ = new QPushButton(tr("Solve again"), this);
    again_->setToolTip(tr("It follows the work by itself, until it has been put behind it"));
    again_->setAutoDefault(false);
    of->addWidget(step_);
    of->addWidget(all_);
    tables_ = new QCheckBox(tr("Tables where no rule does it"), this);
    tables_->setToolTip(
        tr("Where a step's rule cannot be solved, a LUT of 33 points takes it off, as near as that comes; "
           "LUTs are taken off so always"));
    of->addWidget(tables_);
    of->addStretch(1);
    of->addWidget(again_);
    column->addLayout(of);
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    words_ = new QLabel(scroll);
    words_->setWordWrap(true);
    words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    words_->setTextFormat(Qt::PlainText);
    words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    words_->setAccessibleName(tr("What came of it"));
    scroll->setWidget(words_);
    column->addWidget(scroll, 1);
    text_ = new QPlainTextEdit(this);
    text_->setReadOnly(true);
    text_->setFont(theme::mono());
    text_->setLineWrapMode(QPlainTextEdit::NoWrap);
    text_->setAccessibleName(tr("The way back as a rule"));
    column->addWidget(text_, 3);
    auto* end = new QHBoxLayout;
    save_ = new QPushButton(tr("Save as a look\u2026"), this);
    save_->setToolTip(tr("A look of its own, with copies of the rules that its proofs are about"));
    put_ = new QPushButton(tr("Put it behind"), this);
    put_->setToolTip(tr("As a step behind what it takes off: the picture is back. One step of undo"));
    put_->setDefault(true);
    end->addStretch(1);
    end->addWidget(save_);
    end->addWidget(put_);
    column->addLayout(end);
    later_.setSingleShot(true);
    later_.setInterval(settle_ms);
    const auto soon = [this] {
        if (isVisible() && !behind_)
            later_.start();
    };
    connect(&later_, &QTimer::timeout, this, &WayBackWindow::find);
    connect(&bench_.look(), &LookModel::changed, this, soon);
    connect(&bench_.session(), &Session::text_changed, this, soon);
    connect(&bench_.session(), &Session::values_changed, this, soon);
    connect(again_, &QPushButton::clicked, this, &WayBackWindow::find);
    connect(step_, &QRadioButton::toggled, this, &WayBackWindow::find);
    connect(tables_, &QCheckBox::toggled, this, &WayBackWindow::find);
    connect(put_, &QPushButton::clicked, this, &WayBackWindow::put_behind);
    connect(save_, &QPushButton::clicked, this, &WayBackWindow::ask_save);
    connect(&model_, &WayBack::finished, this, &WayBackWindow::show_state);
    show_state();
}

document::Look WayBackWindow::asked() const {
    const LookModel& look = bench_.look();
    document::Look made = look.look();
    document::LookStep& active = made.steps[static_cast<std::size_t>(look.current())];
    if (!bench_.session().fixed()) {
        active.text = bench_.session().text();
        active.values = bench_.session().chosen_values();
    }
    for (int i = 0; i < look.count(); ++i) {
        document::LookStep& step = made.steps[static_cast<std::size_t>(i)];
        if (step.label.empty())
            step.label = look.name(i).toStdString();
    }
    if (made.title.empty())
        made.title = look.title().toStdString();
    if (step_->isChecked()) {
        document::LookStep only = active;
        only.on = true;
        made.steps = {std::move(only)};
    }
    return made;
}

void WayBackWindow::allow_tables(bool allow) { tables_->setChecked(allow); }
void WayBackWindow::choose_all(bool all) { (all ? all_ : step_)->setChecked(true); }

void WayBackWindow::find() {
    behind_ = false;
    model_.find(asked(), bench_.look().file().parent_path(), tables_->isChecked(), all_->isChecked());
    show_state();
}

void WayBackWindow::showEvent(QShowEvent* event) {
    QDialog::showEvent(event);
    find();
}

QString WayBackWindow::words() const { return words_->text(); }
QString WayBackWindow::text() const { return text_->toPlainText(); }

void WayBackWindow::show_state() {
    words_->setText(model_.words());
    if (!model_.running() || text_->toPlainText().isEmpty())
        text_->setPlainText(model_.text());
    const inverse::LookBack* back = model_.made();
    const bool there = back && back->found && !back->look.steps.empty();
    put_->setEnabled(there && !behind_);
    save_->setEnabled(there);
}

void WayBackWindow::put_behind() {
    const inverse::LookBack* back = model_.made();
    if (!back || !back->found || behind_)
        return;
    behind_ = true;
    LookModel& look = bench_.look();
    const int active = look.current();
    int at = step_->isChecked() ? active + 1 : look.count();
    bench_.session().undo_stack().beginMacro(tr("the way back"));
    for (const document::LookStep& step : back->look.steps)
        look.add(step, at++);
    bench_.session().undo_stack().endMacro();
    show_state();
    bench_.say(tr("The way back stands behind it. Ctrl+Z takes it away again."));
}

Status WayBackWindow::save(const QString& file) {
    const inverse::LookBack* back = model_.made();
    if (!back || !back->found)
        return {};
    return document::save_look(bytes_of(file), back->look);
}

void WayBackWindow::ask_save() {
    QString file =
        QFileDialog::getSaveFileName(this, tr("Save the way back"), text_of(bench_.look().file().parent_path()),
                                     tr("Looks (%1)").arg(patterns({FileKind::look})));
    if (file.isEmpty())
        return;
    if (!file.endsWith(".kasurilook"))
        file += ".kasurilook";
    if (const Status saved = save(file); !saved)
        bench_.refuse(QString::fromStdString(saved.error().text()));
    else
        bench_.say(tr("%1 was saved.").arg(QFileInfo(file).fileName()));
}

} // namespace kasuri::app
