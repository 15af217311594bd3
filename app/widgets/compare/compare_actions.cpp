#include "widgets/compare/compare_actions.hpp"

#include "document/filter_file.hpp"
#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/recent.hpp"
#include "proof/proof.hpp"

#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>

namespace kasuri::app {

CompareActions::CompareActions(Bench& bench, QWidget* window) : QObject(window), bench_(bench), window_(window) {}

void CompareActions::fill(QMenu& menu) {
    menu.clear();
    Against& against = bench_.against();
    const auto choice = [&](const QString& text, bool on, auto act) {
        QAction* action = menu.addAction(text, this, act);
        action->setCheckable(true);
        action->setChecked(on);
    };
    choice(tr("the picture as it comes"), !against.rule(), [&against] { against.clear(); });
    if (against.rule())
        choice(against.name(), true, [] {});
    if (bench_.look().count() > 1)
        choice(tr("what comes into the active step"), against.rule() && against.rule()->is_before,
               [&against] { against.set_what_comes_in(); });
    menu.addSeparator();
    menu.addAction(tr("The rule as it is now, kept\tCtrl+K"), this, &CompareActions::with_now);
    const TakesModel& takes = bench_.takes();
    for (int i = 0; i < static_cast<int>(takes.takes().size()); ++i)
        menu.addAction(tr("take %1").arg(takes.name(i)), this, [this, i] { with_take(i); });
    menu.addAction(tr("Another filter, look or LUT\u2026"), this, &CompareActions::ask_file);
    for (const QString& file : recent_files())
        if (is_kind(file, FileKind::filter) && bytes_of(file) != bench_.session().path().string())
            menu.addAction(QFileInfo(file).completeBaseName(), this, [this, file] { with_file(file); });
}

void CompareActions::with_now() {
    Session& session = bench_.session();
    if (!session.compiles())
        return bench_.refuse(tr("The rule does not compile (F8 shows where): there is nothing to compare with yet."));
    bench_.against().set(bench_.look().kind() == FileKind::look ? tr("the kept look") : tr("the kept rule"),
                         {session.text(), session.path(), session.chosen_values(), bench_.look().around()});
    bench_.say(tr("Before is now the rule as it is; the menu beside Before goes back to the picture."));
}

void CompareActions::with_file(const QString& file) {
    if (const Status opened = bench_.against().open(bytes_of(file)); !opened)
        bench_.refuse(opened.error());
}

void CompareActions::with_take(int index) {
    const Take& take = bench_.takes().takes()[static_cast<std::size_t>(index)];
    bench_.against().set(tr("take %1").arg(bench_.takes().name(index)),
                         {take.text, bench_.session().path(), take.values, nullptr, true});
}

void CompareActions::remember_take() {
    if (bench_.session().fixed())
        return bench_.refuse(tr("Takes are of rules; the active step is a look or a LUT."));
    const int count = static_cast<int>(bench_.takes().takes().size()), index = bench_.takes().remember();
    bench_.say(
        (index < count ? tr("Take %1 is this already") : tr("Take %1 remembered")).arg(bench_.takes().name(index)));
}

void CompareActions::show_takes() {
    if (bench_.sheet().shows_takes())
        return bench_.sheet().show_takes(0, {});
    std::vector<Take> named = bench_.takes().takes();
    for (std::size_t i = 0; i < named.size(); ++i)
        named[i].name = bench_.takes().name(static_cast<int>(i)).toStdString();
    if (named.empty())
        bench_.refuse(tr("There is no take yet: Ctrl+T remembers one."));
    else
        emit takes_wanted(named);
}

bool CompareActions::write_take(int index, const QString& file) {
    const Take& take = bench_.takes().takes()[static_cast<std::size_t>(index)];
    lang::CheckOptions options;
    options.open = document::used_beside(bench_.session().path());
    const lang::Checked checked = lang::check(take.text, proof::vocabulary(), options);
    std::string text = take.text;
    if (checked.ok)
        text = document::with_defaults(text, checked.rule, values_for(checked.rule, take.values)).applied(text);
    if (const Status saved = document::save_filter(bytes_of(file), text); !saved) {
        bench_.refuse(saved.error());
        return false;
    }
    remember_file(file);
    bench_.say(tr("Wrote %1").arg(file));
    return true;
}

void CompareActions::ask_file() {
    const QString file = QFileDialog::getOpenFileName(
        window_, tr("Compare with what?"), text_of(bench_.session().path().parent_path()),
        tr("Filters, looks and LUTs (%1)").arg(patterns({FileKind::filter, FileKind::look, FileKind::lut})));
    if (!file.isEmpty())
        with_file(file);
}

} // namespace kasuri::app
