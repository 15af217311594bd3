#include "widgets/look/look_actions.hpp"

#include "builtins/builtin.hpp"
#include "document/filter_file.hpp"
#include "handover/cdl.hpp"
#include "lang/check.hpp"
#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/recent.hpp"
#include "model/words.hpp"
#include "proof/proof.hpp"
#include "widgets/proofs/promise_window.hpp"

#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>

namespace kasuri::app {
namespace {
constexpr int max_recent_shown = 8;
/// A filter that can does nothing at its defaults, and is shown at its first preset: so it comes at that. The preset's
/// name; empty: it has none.
QString at_first_preset(document::LookStep& step) {
    if (document::is_no_rule(step))
        return {};
    lang::CheckOptions options;
    options.open = document::used_by(step, {});
    const lang::Checked checked = lang::check(step.text, proof::vocabulary(), options);
    if (!checked.ok || checked.rule.presets.empty())
        return {};
    const lang::Preset& preset = checked.rule.presets.front();
    for (std::size_t i = 0; i < preset.values.size(); ++i)
        step.values[checked.rule.parameters[i].name] = preset.values[i];
    return QString::fromStdString(preset.name);
}

bool is_step_file(const QString& file) { return is_kind(file, FileKind::filter) || is_kind(file, FileKind::look); }
} // namespace

LookActions::LookActions(Bench& bench, QWidget* window) : QObject(window), bench_(bench), window_(window) {}

void LookActions::fill_add(QMenu& menu) {
    menu.clear();
    const int at = bench_.look().current() + 1;
    menu.addAction(tr("An empty step"), this, [this, at] { add_empty(at); });
    menu.addAction(tr("From the library\u2026"), this, &LookActions::library_wanted);
    menu.addAction(tr("A filter, look or LUT from a file\u2026"), this, &LookActions::ask_add);
    menu.addSeparator();
    int shown = 0;
    for (const QString& file : recent_files())
        if (is_step_file(file) && shown++ < max_recent_shown)
            menu.addAction(QFileInfo(file).completeBaseName(), this, [this, file, at] { add_files({file}, at); });
}

void LookActions::fill_blends(QMenu& menu, const std::string& now,
                              const std::function<void(const std::string&)>& choose) {
    for (const builtins::Builtin& row : builtins::all()) {
        if (!row.name.starts_with("blend_"))
            continue;
        const std::string mode(row.name.substr(6));
        QAction* action =
            menu.addAction(QString::fromStdString(mode).replace('_', ' '), [choose, mode] { choose(mode); });
        action->setCheckable(true);
        action->setChecked(mode == now);
    }
}

void LookActions::take_apart(int index) {
    const QStringList lost = bench_.look().lost_by_taking_apart(index);
    if (!lost.isEmpty()) {
        QMessageBox box(QMessageBox::NoIcon, tr("Take the look apart"),
                        tr("Its steps alone do not know %1. That would be given up, and what comes out may be another "
                           "picture; Ctrl+Z brings it back.")
                            .arg(lost.join(", ")),
                        QMessageBox::Cancel, window_);
        QAbstractButton* const go = box.addButton(tr("Take it apart"), QMessageBox::AcceptRole);
        box.exec();
        if (box.clickedButton() != go)
            return;
    }
    bench_.look().take_apart(index);
}

void LookActions::fill_step(QMenu& menu, int index) {
    LookModel& look = bench_.look();
    const document::LookStep& step = look.steps()[static_cast<std::size_t>(index)];
    menu.addAction(step.on ? tr("Switch it off") : tr("Switch it on"), this,
                   [this, index, on = !step.on] { bench_.look().set_on(index, on); });
    menu.addAction(tr("Label\u2026"), this, [this, index] { ask_label(index); });
    fill_blends(*menu.addMenu(tr("Blend mode")), step.blend,
                [this, index](const std::string& mode) { bench_.look().set_blend(index, mode); });
    menu.addSeparator();
    menu.addAction(tr("Twice"), this, [this, index] { bench_.look().duplicate(index); });
    if (index > 0)
        menu.addAction(tr("Earlier"), this, [this, index] { bench_.look().move(index, index - 1); });
    if (index + 1 < look.count())
        menu.addAction(tr("Later"), this, [this, index] { bench_.look().move(index, index + 1); });
    if (step.is_look)
        menu.addAction(tr("Take the look apart into its steps"), this, [this, index] { take_apart(index); });
    if (index > 0)
        menu.addAction(tr("Make one step of steps %1 and %2").arg(index).arg(index + 1), this,
                       [this, index] { bench_.look().gather(index - 1, index); });
    menu.addAction(tr("Remove"), this, [this, index] { bench_.look().remove(index); });
    menu.addSeparator();
    menu.addAction(tr("Before is what comes into it"), this, [this, index] {
        bench_.look().select(index);
        bench_.against().set_what_comes_in();
    });
    const document::FilterState state = look.state(index);
    if (state == document::FilterState::changed)
        menu.addAction(tr("Bring it up to date with %1").arg(QFileInfo(text_of(step.filter)).fileName()), this,
                       [this, index] {
                           if (const Status done = bench_.look().bring_up_to_date(index); !done)
                               bench_.refuse(done.error());
                       });
    const bool rule = !document::is_no_rule(step);
    if (rule && !step.filter.empty() && state != document::FilterState::same)
        menu.addAction(tr("Write it into %1").arg(QFileInfo(text_of(step.filter)).fileName()), this,
                       [this, index] { write_filter(index, false); });
    if (rule)
        menu.addAction(tr("Write it as a filter\u2026"), this, [this, index] { write_filter(index, true); });
}

void LookActions::fill_current(QMenu& menu) {
    menu.clear();
    fill_step(menu, bench_.look().current());
}

void LookActions::write_filter(int index, bool ask) {
    QString file = text_of(bench_.look().steps()[static_cast<std::size_t>(index)].filter);
    if (ask)
        file = QFileDialog::getSaveFileName(window_, tr("Write the step as a filter"),
                                            file.isEmpty() ? with_ending(bench_.look().name(index), FileKind::filter)
                                                           : file,
                                            tr("Filters (%1)").arg(patterns({FileKind::filter})));
    if (file.isEmpty())
        return;
    file = with_ending(file, FileKind::filter);
    if (const Status done = bench_.look().write_filter(index, bytes_of(file)); !done)
        bench_.refuse(done.error());
    else
        bench_.say(tr("Wrote %1").arg(file));
}

void LookActions::add_empty(int at) {
    document::LookStep step;
    step.text = document::new_filter_text();
    bench_.look().add(std::move(step), at);
}

void LookActions::add_empty_next() { add_empty(bench_.look().current() + 1); }

void LookActions::add_cdl(const QString& file) {
    const auto all = io::read_cdl(bytes_of(file));
    if (!all) {
        bench_.refuse(all.error());
        return;
    }
    for (const io::Cdl& cdl : all.value()) {
        document::LookStep step;
        step.text = handover::filter_of(cdl, cdl.id.empty() ? QFileInfo(file).completeBaseName().toStdString() : cdl.id,
                                        "acescct");
        bench_.look().add(std::move(step), bench_.look().current() + 1);
    }
    remember_file(file);
    bench_.say(
        counted(static_cast<int>(all.value().size()), tr("1 correction as a step"), tr("%1 corrections as steps")) +
        tr(", meant in acescct: change \u201cworking\u201d if they are not"));
}

void LookActions::add_files(const QStringList& files, int at) {
    for (const QString& file : files) {
        Result<document::LookStep> step = document::step_from(bytes_of(QFileInfo(file).absoluteFilePath()));
        if (!step) {
            bench_.refuse(step.error());
            continue;
        }
        const QString preset = at_first_preset(step.value());
        bench_.look().add(std::move(step.value()), at++);
        remember_file(file);
        if (!preset.isEmpty())
            bench_.say(tr("%1 at its preset \u201c%2\u201d; the values' reset goes back to its defaults")
                           .arg(QFileInfo(file).completeBaseName(), preset));
    }
}

void LookActions::ask_add() {
    const QStringList files =
        QFileDialog::getOpenFileNames(window_, tr("Which filters, looks or LUTs?"), {},
                                      tr("Filters, looks and LUTs (%1);;All files (*)")
                                          .arg(patterns({FileKind::filter, FileKind::look, FileKind::lut})));
    add_files(files, bench_.look().current() + 1);
}

void LookActions::ask_label(int index) {
    bool accepted = false;
    const QString label = QInputDialog::getText(
        window_, tr("Label the step"), tr("Label of step %1 (empty: the filter's own title):").arg(index + 1),
        QLineEdit::Normal, QString::fromStdString(bench_.look().steps()[static_cast<std::size_t>(index)].label),
        &accepted);
    if (accepted)
        bench_.look().set_label(index, label.trimmed());
}

void LookActions::ask_title() {
    bool accepted = false;
    const QString title = QInputDialog::getText(window_, tr("Title of the look"), tr("Title:"), QLineEdit::Normal,
                                                QString::fromStdString(bench_.look().look().title), &accepted);
    if (accepted)
        bench_.look().set_title(title.trimmed());
}

void LookActions::add_proofs(QMenu& menu) {
    if (!bench_.look().is_look())
        return;
    if (document::is_no_rule(bench_.look().step()))
        menu.clear(); // nothing can be promised of the active step
    menu.addSeparator();
    QMenu* whole = menu.addMenu(tr("Of the look as a whole"));
    whole->setObjectName("look_proofs");
    PromiseWindow::fill_ready_made(*whole, bench_.look());
    whole->addSeparator();
    whole->addAction(tr("Write them\u2026"), this, &LookActions::open_proofs);
}

void LookActions::open_proofs() {
    if (!bench_.look().is_look()) {
        bench_.refuse(tr("A filter by itself has its proofs in its text."));
        return;
    }
    if (!promise_)
        promise_ = new PromiseWindow(bench_.look(), window_);
    promise_->show();
    promise_->raise();
}

void LookActions::take_next(int by) {
    const int to = bench_.look().current() + by;
    if (to >= 0 && to < bench_.look().count())
        bench_.look().select(to);
}

void LookActions::toggle_up_to_here() {
    if (!bench_.look().is_look())
        bench_.refuse(tr("There is one step only."));
    else
        bench_.look().set_up_to_here(!bench_.look().up_to_here());
}

} // namespace kasuri::app
