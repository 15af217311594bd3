#include "widgets/frame/main_window.hpp"

#include "engine/lower.hpp"
#include "model/bench.hpp"
#include "widgets/compare/compare_actions.hpp"
#include "widgets/compare/takes_bar.hpp"
#include "widgets/files/files.hpp"
#include "widgets/files/recovery.hpp"
#include "widgets/frame/actions.hpp"
#include "widgets/frame/application.hpp"
#include "widgets/frame/first_minute.hpp"
#include "widgets/frame/previewing.hpp"
#include "widgets/frame/side_windows.hpp"
#include "widgets/frame/status_line.hpp"
#include "widgets/frame/top_bar.hpp"
#include "widgets/frame/trace_window.hpp"
#include "widgets/frame/window_layout.hpp"
#include "widgets/handover/handover_actions.hpp"
#include "widgets/library/library_panel.hpp"
#include "widgets/library/sample.hpp"
#include "widgets/look/look_actions.hpp"
#include "widgets/look/look_line.hpp"
#include "widgets/look/look_row.hpp"
#include "widgets/look/step_panel.hpp"
#include "widgets/proofs/proofs_bar.hpp"
#include "widgets/readings/readings_column.hpp"
#include "widgets/sheet/numbers_panel.hpp"
#include "widgets/sheet/pins_panel.hpp"
#include "widgets/sheet/pointer_panel.hpp"
#include "widgets/sheet/sheet_settings.hpp"
#include "widgets/sheet/sheet_view.hpp"
#include "widgets/sheet/sources_panel.hpp"
#include "widgets/sheet/strip_view.hpp"
#include "widgets/tuning/mix_panel.hpp"
#include "widgets/tuning/values_panel.hpp"
#include "widgets/writing/colour_picker.hpp"
#include "widgets/writing/editor_commands.hpp"
#include "widgets/writing/editor_settings.hpp"
#include "widgets/writing/rule_editor.hpp"
#include "widgets/writing/rule_panel.hpp"

#include <QApplication>
#include <QCloseEvent>
#include <QMenu>
#include <QMimeData>
#include <QSettings>
#include <QSplitter>
#include <QToolButton>

#include <algorithm>
#include <cmath>
#include <utility>

namespace kasuri::app {

MainWindow::MainWindow(QWidget* parent) : QWidget(parent), bench_(new Bench(this)) {
    setAcceptDrops(true);
    resize(1280, 800);
    setMinimumSize(960, 600);
    make_commands();
    make_panels();
    lay_out();
    connect_models();
    connect_top();
    connect_rule();
    connect_sheet();
    connect_results();
    connect_words();
    refresh_titles();
    rule_->editor()->setFocus();
    qApp->installEventFilter(this);
    previewing_->request();
}

MainWindow::~MainWindow() { qApp->removeEventFilter(this); }

void MainWindow::make_commands() {
    look_actions_ = new LookActions(*bench_, this);
    files_ = new Files(*bench_, *look_actions_, this);
    recovery_ = new Recovery(*bench_, this);
    compare_ = new CompareActions(*bench_, this);
    handover_ = new HandoverActions(*bench_, this);
    side_ = new SideWindows(parts_, this);
    parts_.add(*this);
    parts_.add(*bench_);
    parts_.add(*look_actions_);
    parts_.add(*files_);
    parts_.add(*recovery_);
    parts_.add(*compare_);
    parts_.add(*handover_);
    parts_.add(*side_);
}

void MainWindow::make_panels() {
    auto* menu = new QMenu(this);
    fill_menu(*menu, *this, parts_);
    top_ = new TopBar(menu, this);
    top_->add_takes(new TakesBar(*bench_, *compare_, top_));
    first_ = new FirstMinute(*bench_, *files_, *handover_, this);
    look_ = new LookRow(bench_->look(), *look_actions_, this);
    rule_ = new RulePanel(bench_->session(), bench_->file_watch(), this);
    values_ = new ValuesPanel(bench_->session(), bench_->tuning(), this);
    step_ = new StepPanel(bench_->look(), bench_->sheet(), this);
    mix_ = new MixPanel(bench_->session(), this);
    sources_ = new SourcesPanel(bench_->sheet(), this);
    sheet_ = new SheetView(bench_->sheet(), bench_->playback(), bench_->over_time(), this);
    readings_ = new ReadingsColumn(bench_->readings(), bench_->sheet(), this);
    pointer_ = new PointerPanel(bench_->sheet(), this);
    library_ = new LibraryPanel(*bench_, *files_, *look_actions_, this);
    proofs_ = new ProofsBar(this);
    status_ = new StatusLine(this);
    previewing_ = new Previewing(*bench_, *sheet_, this);
    sample_ = std::make_unique<LibrarySample>();
    for (QWidget* part : std::initializer_list<QWidget*>{step_, mix_, library_})
        part->hide();
    parts_.add(*rule_);
    parts_.add(*values_);
    parts_.add(*mix_);
    parts_.add(*sources_);
    parts_.add(*sheet_);
    parts_.add(*readings_);
    parts_.add(pointer_->pins());
    parts_.add(*library_);
    parts_.add(*proofs_);
    parts_.add(*status_);
    parts_.add(*top_);
    parts_.add(*first_);
    parts_.add(*previewing_);
}

void MainWindow::lay_out() {
    layout_ = new WindowLayout(this,
                               {top_, first_, look_, rule_, values_, step_, mix_, sources_, sheet_, readings_, pointer_,
                                library_, proofs_, status_});
    parts_.add(*layout_);
}

void MainWindow::connect_models() {
    Session& session = bench_->session();
    connect(&session, &Session::rule_changed, this, &MainWindow::refresh_titles);
    connect(&session, &Session::rule_changed, this, &MainWindow::take_rule);
    connect(&session, &Session::file_changed, this, &MainWindow::refresh_titles);
    connect(&session, &Session::diagnostics_changed, this, &MainWindow::mark_old);
    connect(&bench_->look(), &LookModel::changed, this, &MainWindow::refresh_titles);
    connect(&bench_->look(), &LookModel::file_changed, this, &MainWindow::refresh_titles);
    connect(&bench_->look(), &LookModel::named, this, &MainWindow::refresh_titles);
    connect(&bench_->against(), &Against::changed, this, [this] { refresh_against({}); });
    connect(&bench_->sheet(), &SheetModel::changed, this, &MainWindow::show_sample);
    connect(compare_, &CompareActions::takes_wanted, this,
            [this](const std::vector<Take>& takes) { bench_->sheet().show_takes(sheet_->current_cell(), takes); });
    connect(look_actions_, &LookActions::library_wanted, this, &MainWindow::toggle_library);
    connect(library_, &LibraryPanel::closed, this, &MainWindow::toggle_library);
    connect(step_, &StepPanel::mask_shown, this, [this] { see_lens("step_mask"); });
}

void MainWindow::connect_top() {
    connect(top_, &TopBar::add_opening, look_actions_, &LookActions::fill_add);
    connect(top_, &TopBar::before_held, this, &MainWindow::show_before);
    connect(top_, &TopBar::screen_chosen, &bench_->sheet(), &SheetModel::set_screen);
    connect(top_, &TopBar::against_opening, compare_, &CompareActions::fill);
}

void MainWindow::connect_rule() {
    connect(rule_->editor(), &RuleEditor::files_dropped, files_, &Files::open_urls);
    connect(rule_->picker(), &ColourPicker::pick_wanted, this,
            [this] { sheet_->pick([this](const Readout& readout) { rule_->picker()->take(readout); }); });
    connect(sheet_, &SheetView::pins_read, rule_->picker(), &ColourPicker::set_pins);
    connect(proofs_, &ProofsBar::add_opening, this, [this](QMenu& menu) {
        rule_->commands()->fill_proofs(menu);
        look_actions_->add_proofs(menu);
    });
    connect(proofs_, &ProofsBar::followed, this, &MainWindow::follow);
}

void MainWindow::connect_sheet() {
    connect(sheet_, &SheetView::pointed, this, &MainWindow::show_pointed);
    connect(sheet_, &SheetView::current_changed, this, &MainWindow::show_sample);
    connect(sheet_, &SheetView::current_changed, readings_, &ReadingsColumn::set_current_cell);
    connect(sheet_, &SheetView::files_dropped, files_, &Files::open_urls);
    connect(sheet_, &SheetView::cell_dropped, sources_, &SourcesPanel::drop_cell);
    connect(sheet_, &SheetView::pins_read, &pointer_->pins(), &PinsPanel::show_pins);
    connect(&pointer_->pins(), &PinsPanel::chosen, sheet_, &SheetView::point_at_pin);
}

void MainWindow::connect_results() {
    connect(previewing_, &Previewing::asked, this, [this](const PreviewRequest& wanted) {
        readings_->set_current_cell(sheet_->current_cell());
        top_->set_screen(wanted.screen);
    });
    connect(previewing_, &Previewing::sheet_ready, this, &MainWindow::show_sheet);
    connect(previewing_, &Previewing::readings_ready, this, [this](const ReadingsPtr& readings) {
        readings_->show_results(readings);
        sheet_->show_counted(*readings);
        sheet_->show_apart(*readings);
        emit readings_shown();
    });
    connect(previewing_, &Previewing::proofs_ready, this, &MainWindow::show_proofs);
}

/// All that the parts have to say stands in one line.
void MainWindow::connect_words() {
    connect(bench_, &Bench::said, status_, &StatusLine::say);
    if (auto* application = qobject_cast<Application*>(QCoreApplication::instance()))
        connect(application, &Application::said, status_, &StatusLine::say);
    connect(library_, &LibraryPanel::said, status_, &StatusLine::say);
    connect(first_, &FirstMinute::said, status_, &StatusLine::say);
    connect(readings_, &ReadingsColumn::said, status_, &StatusLine::say);
    connect(rule_->commands(), &EditorCommands::said, status_, &StatusLine::say);
    connect(rule_->picker(), &ColourPicker::said, status_, &StatusLine::say);
}

void MainWindow::show_sheet(const SheetPtr& sheet) {
    sheet_->show_result(sheet);
    bench_->playback().sheet_shown(*sheet);
    if (sheet->text == bench_->session().text()) { // else of a text that is gone; the next is on its way
        show_line_values(*sheet);
        side_->show_trace(*sheet);
    }
    rule_->show_sheet(sheet->operations, sheet->identity);
    sources_->set_sources(sheet->sources);
    sources_->set_missing(sheet->missing_sources);
    show_step_faults(*sheet);
    refresh_against(sheet->against_fault);
    status_->show_times(sheet->check_ms, sheet->total_ms);
    emit sheet_shown();
}

void MainWindow::show_proofs(const ProofsPtr& proofs) {
    proofs_->show_outcomes(proofs->outcomes, proofs->of_rule, QString::fromStdString(proofs->look_fault),
                           proofs->complete);
    if (!proofs->complete)
        return;
    first_->show_proofs(*proofs);
    rule_->show_understood(proofs->understood);
    look_->show_amounts(QString::fromStdString(proofs->amounts));
}

void MainWindow::show_line_values(const SheetResult& sheet) {
    std::vector<RuleEditor::LineValue> values;
    for (const engine::TraceNode& node : sheet.trace)
        if (node.depth == 0) {
            const bool bad =
                std::any_of(node.value.begin(), node.value.end(), [](double x) { return !std::isfinite(x); });
            values.push_back({node.span.end, value_text(node), bad});
        }
    rule_->editor()->set_line_values(std::move(values));
}

void MainWindow::show_step_faults(const SheetResult& sheet) {
    look_->line()->set_faults(sheet.step_faults);
    QString mine;
    for (const auto& [step, what] : sheet.step_faults)
        if (static_cast<int>(step) == bench_->look().current())
            mine = tr("Left out: %1").arg(QString::fromStdString(what));
    step_->set_fault(mine);
}

void MainWindow::take_rule() {
    QStringList names;
    if (const lang::Rule* rule = bench_->session().rule())
        for (const lang::Local& local : rule->locals)
            names << QString::fromStdString(local.name);
    bench_->sheet().set_peeks(names);
}

void MainWindow::refresh_titles() {
    const lang::Rule* rule = bench_->session().rule();
    const LookModel& look = bench_->look();
    const QStringList steps = look.step_names();
    top_->set_step(look.title(), look.display_name(), look.modified(), !steps.isEmpty());
    rule_->set_name(steps.value(look.current()));
    bench_->sheet().set_steps(steps);
    step_->setVisible(!steps.isEmpty());
    top_->set_working(QString::fromStdString(std::string(rule ? engine::working_space(*rule) : "")));
    setWindowTitle(look.display_name() + (look.modified() ? "*" : "") + tr(" \u2013 Kasuri"));
}

void MainWindow::refresh_against(const std::string& fault) {
    const QString& name = bench_->against().name();
    if (const QString now = name + "\n" + QString::fromStdString(fault); now == std::exchange(against_shown_, now))
        return;
    top_->set_against(name, QString::fromStdString(fault));
    const QString before = name.isEmpty() || !fault.empty() ? tr("before") : name;
    sheet_->set_before_name(before);
    pointer_->numbers().set_before_name(before);
}

void MainWindow::mark_old() {
    const bool old = !bench_->session().compiles();
    sheet_->set_old(old);
    proofs_->set_old(old);
}

void MainWindow::show_pointed(const Readout& readout) {
    // The worst colour stays until another place is pointed at, or the proof is mended.
    if (readout.valid || !previewing_->looks_into())
        worst_ = {};
    const Readout& shown = worst_.valid ? worst_ : readout;
    pointer_->numbers().show_readout(shown);
    status_->show_readout(shown);
}

void MainWindow::follow(const proof::Outcome& outcome) {
    const proof::Place& place = outcome.worst;
    if (!outcome.of_look)
        previewing_->look_into(place); // beside the lines stands what the rule makes of it
    const QString target = QString::fromStdString(place.target);
    if (targets::find(place.target) && targets::find(place.target)->shape == targets::Shape::strip) {
        sheet_->point_at(target, (place.index + 0.5) / place.count);
        return;
    }
    worst_ = {true,         target,      outcome.of_look ? tr("worst colour of the look") : tr("worst colour"),
              place.before, place.after, outcome.space};
    pointer_->numbers().show_readout(worst_);
    status_->show_readout(worst_);
}

void MainWindow::peek() {
    const QString expression = rule_->editor()->expression_at_caret();
    if (bench_->sheet().find(sheet_->current_cell()) && expression.isEmpty())
        return bench_->refuse(tr("Put the caret on a name, or select an expression."));
    see_lens(peek_lens(expression.toStdString()));
}

void MainWindow::see_lens(const std::string& wanted) {
    if (const Cell* cell = bench_->sheet().find(sheet_->current_cell()))
        bench_->sheet().set_lens(cell->id, cell->lens == wanted ? "colour" : wanted); // the same again: back
    else
        bench_->refuse(tr("There is no cell to show it in."));
}

void MainWindow::toggle_library() {
    library_->setVisible(!library_->isVisible());
    if (!library_->isVisible()) {
        rule_->editor()->setFocus();
        return;
    }
    show_sample();
    library_->begin();
}

void MainWindow::toggle_mix() {
    mix_->setVisible(!mix_->isVisible());
    if (mix_->isVisible())
        layout_->reveal(*mix_);
}

void MainWindow::show_sample() {
    const Cell* cell = bench_->sheet().find(sheet_->current_cell());
    if (library_->isVisible() && cell)
        sample_->show(*cell, bench_->sheet(), library_->model());
}

void MainWindow::show_before(bool before) {
    sheet_->set_before_only(before);
    readings_->set_before_only(before);
    top_->set_before_shown(before);
}

void MainWindow::pin_pointed() {
    if (!sheet_->pin_pointed())
        bench_->refuse(tr("Point at a place in a cell first."));
}

void MainWindow::play() {
    if (bench_->playback().playing())
        bench_->playback().stop();
    else if (const int cell = playable_cell(); cell != 0)
        bench_->playback().play(cell);
}

int MainWindow::playable_cell() {
    Playback& playback = bench_->playback();
    if (playback.can_play(sheet_->current_cell()))
        return sheet_->current_cell();
    for (const Cell& cell : bench_->sheet().cells())
        if (playback.can_play(cell.id))
            return cell.id;
    bench_->refuse(tr("No cell shows a picture of a numbered sequence. Drop one of its files on the sheet."));
    return 0;
}

void MainWindow::pin_over_time() {
    const Pin* pin = bench_->sheet().active_pin();
    if (!pin)
        return bench_->refuse(tr("Put a pin into a picture of a numbered sequence first."));
    bench_->sheet().add_over_time(pin->number);
}

void MainWindow::keyPressEvent(QKeyEvent* event) {
    // What no part wanted acts on the place that is pointed at, whatever has the focus.
    const bool plain = event->modifiers() == Qt::NoModifier;
    if ((plain && event->key() == Qt::Key_P && sheet_->pin_pointed()) ||
        (plain && event->key() == Qt::Key_C && sheet_->cut_pointed()))
        return;
    QWidget::keyPressEvent(event);
}

void MainWindow::next_panel() {
    QWidget* const panels[] = {look_,     rule_->editor(),   values_,  step_,  sheet_,
                               readings_, &pointer_->pins(), library_, proofs_};
    constexpr int count = static_cast<int>(std::size(panels));
    int now = -1;
    for (int i = 0; i < count; ++i)
        if (panels[i] == QApplication::focusWidget() || panels[i]->isAncestorOf(QApplication::focusWidget()))
            now = i;
    for (int step = 1; step <= count; ++step) {
        QWidget* panel = panels[(now + step) % count];
        if ((panel->focusPolicy() & Qt::TabFocus) && panel->isVisible()) {
            panel->setFocus(Qt::TabFocusReason);
            return;
        }
        for (QWidget* child : panel->findChildren<QWidget*>())
            if ((child->focusPolicy() & Qt::TabFocus) && child->isVisible() && child->isEnabled() &&
                (panel == readings_ || panel == proofs_ || !qobject_cast<QToolButton*>(child))) {
                child->setFocus(Qt::TabFocusReason);
                return;
            }
    }
}

void MainWindow::open_menu() { top_->open_menu(); }

bool MainWindow::settled() const { return previewing_->settled(); }

bool MainWindow::event(QEvent* event) {
    if (event->type() == QEvent::WindowDeactivate)
        show_before(false); // the key may be released elsewhere
    return QWidget::event(event);
}

bool MainWindow::eventFilter(QObject* object, QEvent* event) {
    // F9 is held whatever has the focus in this window.
    if (event->type() == QEvent::KeyPress || event->type() == QEvent::KeyRelease) {
        auto* widget = qobject_cast<QWidget*>(object);
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->key() == Qt::Key_F9 && widget && (widget->window() == this || widget->window() == side_->torn())) {
            if (!key->isAutoRepeat())
                show_before(event->type() == QEvent::KeyPress);
            return true;
        }
    }
    return QWidget::eventFilter(object, event);
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    files_->open_urls(event->mimeData()->urls());
    event->acceptProposedAction();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!files_->may_leave()) {
        event->ignore();
        return;
    }
    bench_->playback().stop();
    bench_->keeper().write_now();
    side_->put_sheet_back();
    QSettings settings;
    settings.setValue("window/geometry", saveGeometry());
    layout_->store(settings);
    settings.setValue("window/sheet", sheet_->splitter()->saveState());
    settings.setValue("window/mix", mix_->isVisible());
    settings.setValue("window/library", library_->isVisible());
    settings.setValue("sheet/views", sheet_->stored_views());
    store_settings(bench_->sheet(), bench_->readings());
    store_playback(bench_->playback());
    event->accept();
}

void MainWindow::restore_sheet() {
    if (QSettings().value("start").toString() == "chart" || !restore_cells(bench_->sheet()))
        bench_->add_chart();
    sheet_->restore_views(QSettings().value("sheet/views").toList());
    bench_->session().undo_stack().clear(); // nothing that anybody did
}

void MainWindow::restore_layout() {
    const QSettings settings;
    restoreGeometry(settings.value("window/geometry").toByteArray());
    layout_->restore(settings);
    sheet_->splitter()->restoreState(settings.value("window/sheet").toByteArray());
    mix_->setVisible(settings.value("window/mix").toBool());
    if (settings.value("window/library").toBool())
        toggle_library();
    restore_settings(bench_->sheet(), bench_->readings());
    restore_playback(bench_->playback());
    restore_editor(*rule_->editor());
    bench_->session().undo_stack().clear();
}

} // namespace kasuri::app
