#include "widgets/main_window.hpp"

#include "engine/lower.hpp"
#include "widgets/actions.hpp"
#include "widgets/bench.hpp"
#include "widgets/colour_picker.hpp"
#include "widgets/editor_commands.hpp"
#include "widgets/editor_settings.hpp"
#include "widgets/heading.hpp"
#include "widgets/help_window.hpp"
#include "widgets/library_panel.hpp"
#include "widgets/library_tile.hpp"
#include "widgets/look_actions.hpp"
#include "widgets/look_line.hpp"
#include "widgets/look_row.hpp"
#include "widgets/mix_panel.hpp"
#include "widgets/numbers_panel.hpp"
#include "widgets/pins_panel.hpp"
#include "widgets/preferences.hpp"
#include "widgets/proofs_bar.hpp"
#include "widgets/readings_column.hpp"
#include "widgets/rule_editor.hpp"
#include "widgets/rule_panel.hpp"
#include "widgets/sheet_settings.hpp"
#include "widgets/sheet_view.hpp"
#include "widgets/sources_panel.hpp"
#include "widgets/status_line.hpp"
#include "widgets/step_panel.hpp"
#include "widgets/strip_view.hpp"
#include "widgets/takes_bar.hpp"
#include "widgets/theme.hpp"
#include "widgets/top_bar.hpp"
#include "widgets/torn_window.hpp"
#include "widgets/trace_window.hpp"
#include "widgets/values_panel.hpp"
#include "widgets/wishes_window.hpp"

#include <QApplication>
#include <QCloseEvent>
#include <QMenu>
#include <QMimeData>
#include <QSettings>
#include <QSplitter>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <utility>

namespace kasuri::app {
namespace {

/// Chooses the model whose components the numbers panel shows.
QToolButton* model_button(NumbersPanel& numbers, QWidget* parent) {
    auto* button = new QToolButton(parent);
    button->setObjectName("model");
    button->setFont(theme::face(11.5));
    button->setPopupMode(QToolButton::InstantPopup);
    button->setAccessibleName(QObject::tr("Colour model of the numbers"));
    auto* menu = new QMenu(button);
    button->setMenu(menu);
    const auto choose = [button, &numbers](const colour::Model* model) {
        numbers.set_model(*model);
        button->setText(QString::fromUtf8(model->name.data(), static_cast<qsizetype>(model->name.size())) +
                        QString::fromUtf8(" \u25be"));
    };
    for (const colour::Model* model : colour::models())
        menu->addAction(QString::fromUtf8(model->name.data(), static_cast<qsizetype>(model->name.size())), &numbers,
                        [choose, model] { choose(model); });
    choose(&numbers.model());
    return button;
}

} // namespace

MainWindow::MainWindow(QWidget* parent) : QWidget(parent), bench_(new Bench(this)) {
    setAcceptDrops(true);
    resize(1280, 800);
    setMinimumSize(960, 600);
    lay_out();
    connect_parts();
    refresh_titles();
    rule_->editor()->setFocus();
    qApp->installEventFilter(this);
    request();
}

MainWindow::~MainWindow() { qApp->removeEventFilter(this); }

void MainWindow::lay_out() {
    auto* menu = new QMenu(this);
    fill_menu(*menu, *this, *bench_);
    top_ = new TopBar(menu, this);
    top_->add_takes(new TakesBar(*bench_, top_));
    look_ = new LookRow(*bench_, this);
    outer_ = new QSplitter(Qt::Horizontal, this);
    middle_ = new QSplitter(Qt::Vertical, outer_);
    columns_ = new QSplitter(Qt::Horizontal, middle_);
    left_ = new QSplitter(Qt::Vertical, columns_);
    rule_ = new RulePanel(bench_->session(), bench_->file_watch(), left_);
    auto* below = new QWidget(left_);
    auto* below_column = new QVBoxLayout(below);
    below_column->setContentsMargins(0, 0, 0, 0);
    below_column->setSpacing(0);
    values_ = new ValuesPanel(bench_->session(), bench_->tuning(), below);
    sources_ = new SourcesPanel(bench_->sheet(), below);
    below_column->addWidget(values_, 1);
    step_ = new StepPanel(bench_->look(), bench_->sheet(), below);
    step_->hide();
    below_column->addWidget(step_);
    below_column->addWidget(sources_);
    mix_ = new MixPanel(bench_->session(), below);
    mix_->hide();
    below_column->addWidget(mix_);
    left_->setSizes({490, 190});
    left_->setStretchFactor(0, 1);
    left_->setStretchFactor(1, 0);
    sheet_ = new SheetView(bench_->sheet(), columns_);
    right_ = new QSplitter(Qt::Vertical, outer_); // the library leaves the readings their height
    readings_ = new ReadingsColumn(bench_->readings(), bench_->sheet(), right_);
    auto* numbers_panel = new QWidget(right_);
    auto* numbers_column = new QVBoxLayout(numbers_panel);
    numbers_column->setContentsMargins(0, 0, 0, 0);
    numbers_column->setSpacing(0);
    auto* numbers_heading = new Heading(tr("Pointer"), numbers_panel);
    numbers_ = new NumbersPanel(numbers_panel);
    numbers_heading->add_control(model_button(*numbers_, numbers_heading));
    numbers_column->addWidget(numbers_heading);
    numbers_column->addWidget(numbers_, 1);
    pins_ = new PinsPanel(bench_->sheet(), numbers_panel);
    numbers_column->addWidget(pins_);
    right_->setSizes({486, 208});
    right_->setStretchFactor(0, 1);
    right_->setStretchFactor(1, 0);
    library_ = new LibraryPanel(*bench_, middle_);
    library_->hide();
    middle_->setStretchFactor(0, 1);
    middle_->setStretchFactor(1, 0);
    middle_->setSizes({500, 196});
    for (QSplitter* splitter : {outer_, columns_, left_, right_, middle_}) {
        splitter->setHandleWidth(1);
        splitter->setChildrenCollapsible(false);
    }
    left_->setMinimumWidth(260);
    right_->setMinimumWidth(200);
    columns_->setSizes({366, 630});
    outer_->setSizes({996, 284});
    // A wider window widens the columns too, the sheet most.
    columns_->setStretchFactor(0, 20);
    columns_->setStretchFactor(1, 67);
    outer_->setStretchFactor(0, 87);
    outer_->setStretchFactor(1, 13);
    proofs_ = new ProofsBar(this);
    status_ = new StatusLine(this);
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(0);
    rows->addWidget(top_);
    rows->addWidget(look_);
    rows->addWidget(outer_, 1);
    rows->addWidget(proofs_);
    rows->addWidget(status_);
}

void MainWindow::connect_parts() {
    Session& session = bench_->session();
    connect(&session, &Session::text_changed, this, &MainWindow::request);
    connect(&bench_->file_watch(), &FileWatch::used_files_changed, this, &MainWindow::request);
    connect(&session, &Session::values_changed, this, &MainWindow::request);
    connect(sheet_, &SheetView::wanted, this, &MainWindow::request);
    connect(&session, &Session::rule_changed, this, &MainWindow::refresh_titles);
    connect(&session, &Session::rule_changed, this, &MainWindow::take_rule);
    connect(&session, &Session::file_changed, this, &MainWindow::refresh_titles);
    connect(&session, &Session::diagnostics_changed, this, &MainWindow::mark_old);
    connect(&preview_, &Preview::checked, &session, &Session::set_checked);
    connect(&preview_, &Preview::sheet_ready, this, [this](const SheetPtr& sheet) {
        shown_ = sheet->generation;
        sheet_->show_result(sheet);
        show_trace(*sheet);
        rule_->show_sheet(sheet->operations);
        sources_->set_sources(sheet->sources);
        sources_->set_missing(sheet->missing_sources);
        show_step_faults(*sheet);
        refresh_against(sheet->against_fault);
        status_->show_times(sheet->check_ms, sheet->total_ms);
        emit sheet_shown();
    });
    connect(&preview_, &Preview::readings_ready, this, [this](const ReadingsPtr& readings) {
        read_ = readings->generation;
        readings_->show_results(readings);
        emit readings_shown();
    });
    connect(&preview_, &Preview::proofs_ready, this, [this](const ProofsPtr& proofs) {
        proved_ = proofs->generation;
        proofs_->show_outcomes(proofs->outcomes, proofs->of_rule, QString::fromStdString(proofs->look_fault));
        rule_->show_understood(proofs->understood);
        look_->show_amounts(QString::fromStdString(proofs->amounts));
        if (looked_into_ &&
            std::all_of(proofs->outcomes.begin(), proofs->outcomes.end(),
                        [](const proof::Outcome& outcome) { return outcome.passed; })) {
            looked_into_.reset(); // it is mended
            request();
        }
    });
    connect(&bench_->look(), &LookModel::changed, this, &MainWindow::request);
    connect(&bench_->look(), &LookModel::changed, this, &MainWindow::refresh_titles);
    connect(&bench_->look(), &LookModel::file_changed, this, &MainWindow::refresh_titles);
    connect(bench_, &Bench::library_wanted, this, &MainWindow::toggle_library);
    connect(bench_, &Bench::help_wanted, this, [this](const QString& page) {
        if (!help_)
            help_ = new HelpWindow(this);
        help_->show_page(page);
        help_->show();
        help_->raise();
    });
    connect(bench_, &Bench::preferences_wanted, this, [this] {
        if (!preferences_)
            preferences_ = new PreferencesWindow({*bench_, *library_, *rule_->editor()}, this);
        preferences_->show();
        preferences_->raise();
    });
    connect(library_, &LibraryPanel::closed, this, &MainWindow::toggle_library);
    connect(library_, &LibraryPanel::said, status_, &StatusLine::say);
    connect(step_, &StepPanel::mask_shown, this, [this] { see_lens("step_mask"); });
    connect(top_, &TopBar::add_opening, &bench_->look_actions(), &LookActions::fill_add);
    connect(proofs_, &ProofsBar::add_opening, this, [this](QMenu& menu) {
        rule_->commands()->fill_proofs(menu);
        bench_->look_actions().add_proofs(menu);
    });
    connect(proofs_, &ProofsBar::followed, this, &MainWindow::follow);
    connect(top_, &TopBar::before_held, this, &MainWindow::show_before);
    connect(top_, &TopBar::screen_chosen, &bench_->sheet(), &SheetModel::set_screen);
    connect(bench_, &Bench::said, status_, &StatusLine::say);
    connect(bench_, &Bench::spaces_changed, this, &MainWindow::request);
    connect(bench_, &Bench::fix_wanted, rule_->editor(), &RuleEditor::apply_fix);
    connect(bench_, &Bench::next_fault_wanted, rule_->editor(), &RuleEditor::go_to_next_fault);
    connect(bench_, &Bench::next_panel_wanted, this, &MainWindow::next_panel);
    connect(rule_->editor(), &RuleEditor::files_dropped, bench_, &Bench::open_urls);
    connect(&bench_->readings(), &ReadingsModel::changed, this, &MainWindow::request);
    connect(readings_, &ReadingsColumn::said, status_, &StatusLine::say);
    connect(&bench_->against(), &Against::changed, this, [this] {
        refresh_against({});
        request();
    });
    connect(top_, &TopBar::against_opening, bench_, &Bench::fill_against);
    connect(bench_, &Bench::mix_wanted, this, [this] { mix_->setVisible(!mix_->isVisible()); });
    connect(bench_, &Bench::editor_wanted, this, [this](Bench::InEditor what) { what(*rule_); });
    connect(bench_, &Bench::editor_menu_wanted, this,
            [this](QMenu& menu, Bench::FillInEditor fill) { fill(*rule_, menu); });
    connect(rule_->commands(), &EditorCommands::said, status_, &StatusLine::say);
    connect(rule_->picker(), &ColourPicker::said, status_, &StatusLine::say);
    connect(rule_->picker(), &ColourPicker::pick_wanted, this,
            [this] { sheet_->pick([this](const Readout& readout) { rule_->picker()->take(readout); }); });
    connect(sheet_, &SheetView::pins_read, rule_->picker(), &ColourPicker::set_pins);
    connect(bench_, &Bench::wishes_wanted, this, [this] {
        if (!wishes_) {
            wishes_ = new WishesWindow(bench_->session(), *mix_, this);
            connect(sheet_, &SheetView::pins_read, wishes_, &WishesWindow::set_pins);
            wishes_->set_pins(pins_->pins());
        }
        wishes_->show();
        wishes_->raise();
    });
    connect(bench_, &Bench::takes_wanted, this,
            [this](const std::vector<Take>& takes) { bench_->sheet().show_takes(sheet_->current_cell(), takes); });
    connect(bench_, &Bench::trace_wanted, this, &MainWindow::open_trace);
    connect(bench_, &Bench::peek_wanted, this, &MainWindow::peek);
    connect(bench_, &Bench::sheet_window_wanted, this, &MainWindow::tear_off_sheet);
    connect_sheet();
}

void MainWindow::connect_sheet() {
    connect(sheet_, &SheetView::pointed, numbers_, &NumbersPanel::show_readout);
    connect(sheet_, &SheetView::pointed, status_, &StatusLine::show_readout);
    connect(&bench_->sheet(), &SheetModel::changed, this, &MainWindow::show_sample);
    connect(sheet_, &SheetView::current_changed, this, [this](int cell) {
        show_sample();
        readings_->set_current_cell(cell);
        request();
    });
    connect(sheet_, &SheetView::files_dropped, bench_, &Bench::open_urls);
    connect(sheet_, &SheetView::cell_dropped, sources_, &SourcesPanel::drop_cell);
    connect(&bench_->sheet(), &SheetModel::pins_changed, this, [this] {
        looked_into_.reset();
        request(); // the rule is looked into there
    });
    connect(sheet_, &SheetView::pins_read, pins_, &PinsPanel::show_pins);
    connect(pins_, &PinsPanel::chosen, sheet_, &SheetView::point_at_pin);
}

void MainWindow::take_rule() {
    const lang::Rule* rule = bench_->session().rule();
    QStringList names;
    if (rule)
        for (const lang::Local& local : rule->locals)
            names << QString::fromStdString(local.name);
    bench_->sheet().set_peeks(names);
}

void MainWindow::show_trace(const SheetResult& sheet) {
    if (sheet.text != bench_->session().text())
        return; // of a text that is gone; the next is on its way
    std::vector<RuleEditor::LineValue> values;
    for (const engine::TraceNode& node : sheet.trace)
        if (node.depth == 0) {
            const bool bad =
                std::any_of(node.value.begin(), node.value.end(), [](double x) { return !std::isfinite(x); });
            values.push_back({node.span.end, value_text(node), bad});
        }
    rule_->editor()->set_line_values(std::move(values));
    const Pin* pin = bench_->sheet().active_pin();
    if (trace_)
        trace_->show_trace(sheet,
                           looked_into_ ? tr("the worst colour of a proof")
                               : pin    ? tr("pin %1").arg(pin->number)
                                        : tr("no pin"));
}

void MainWindow::open_trace() {
    if (!bench_->sheet().active_pin() && !looked_into_) {
        status_->say(tr("Pin a place first: click in a cell with Ctrl, or P."), true);
        return;
    }
    if (!trace_) {
        trace_ = new TraceWindow(this);
        connect(trace_, &TraceWindow::chosen, rule_->editor(), &RuleEditor::select);
    }
    trace_->show();
    trace_->raise();
    request();
}

void MainWindow::peek() {
    const QString expression = rule_->editor()->expression_at_caret();
    const Cell* cell = bench_->sheet().find(sheet_->current_cell());
    if (cell && expression.isEmpty()) {
        status_->say(tr("Put the caret on a name, or select an expression."), true);
        return;
    }
    see_lens(peek_lens(expression.toStdString()));
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

/// The thumbnails of the library are made of what the cell in hand shows.
void MainWindow::show_sample() {
    const Cell* cell = bench_->sheet().find(sheet_->current_cell());
    if (!library_->isVisible() || !cell)
        return;
    const PicturePtr picture = cell->target ? nullptr : bench_->sheet().picture_of(*cell);
    const Screen& screen = bench_->sheet().screen();
    if (!cell->target && !picture)
        return; // it is being read
    Sampled now{picture, cell->target, cell->settings, screen};
    if (now == sampled_)
        return;
    sampled_ = std::move(now);
    image::Picture whole =
        picture ? *picture : targets::make(*cell->target, LibraryTile::picture_width, cell->settings);
    if (whole.space.empty())
        whole.space = "rec709-linear";
    const QSize fits = QSize(whole.width, whole.height)
                           .scaled(LibraryTile::picture_width, LibraryTile::picture_height, Qt::KeepAspectRatio);
    image::Picture little = reduced(whole, std::max(1, fits.width()), std::max(1, fits.height()));
    little.space = whole.space;
    library_->model().set_sample(std::make_shared<const image::Picture>(std::move(little)), screen);
}

void MainWindow::see_lens(const std::string& wanted) {
    if (const Cell* cell = bench_->sheet().find(sheet_->current_cell()))
        bench_->sheet().set_lens(cell->id, cell->lens == wanted ? "colour" : wanted); // the same again: back
    else
        status_->say(tr("There is no cell to show it in."), true);
}

void MainWindow::show_step_faults(const SheetResult& sheet) {
    look_->line()->set_faults(sheet.step_faults);
    QString mine;
    for (const auto& [step, what] : sheet.step_faults)
        if (static_cast<int>(step) == bench_->look().current())
            mine = tr("Left out: %1").arg(QString::fromStdString(what));
    step_->set_fault(mine);
}

void MainWindow::refresh_against(const std::string& fault) {
    const QString& name = bench_->against().name();
    if (const QString now = name + "\n" + QString::fromStdString(fault); now == std::exchange(against_shown_, now))
        return;
    top_->set_against(name, QString::fromStdString(fault));
    const QString before = name.isEmpty() || !fault.empty() ? tr("before") : name;
    sheet_->set_before_name(before);
    numbers_->set_before_name(before);
}

void MainWindow::tear_off_sheet() {
    if (torn_) {
        torn_->close();
        return;
    }
    torn_ = new TornWindow(sheet_, *columns_, tr("Sheet \u2013 Kasuri"));
    torn_->show();
}

void MainWindow::request() {
    // Changes of one turn of the event loop go together.
    if (pending_)
        return;
    pending_ = true;
    QTimer::singleShot(0, this, [this] {
        pending_ = false;
        PreviewRequest wanted;
        wanted.text = bench_->session().text();
        wanted.path = bench_->session().path();
        wanted.files = bench_->file_watch().used_files();
        wanted.values = bench_->session().chosen_values();
        wanted.around = bench_->look().around();
        wanted.strip_pixels = sheet_->strip_pixels();
        wanted.strips = sheet_->strip_jobs();
        wanted.cells = sheet_->jobs();
        wanted.screen = bench_->sheet().screen();
        wanted.against = bench_->against().rule();
        wanted.sources = bench_->sheet().given_pictures();
        if (looked_into_)
            wanted.trace = PreviewRequest::Point{0, {}, looked_into_->before};
        else if (const Pin* pin = bench_->sheet().active_pin())
            for (const Cell& cell : bench_->sheet().cells())
                if (!wanted.trace && cell.source() == pin->source)
                    wanted.trace = PreviewRequest::Point{cell.id, pin->pixel, {}};
        readings_->set_current_cell(sheet_->current_cell());
        wanted.readings = bench_->readings().jobs(bench_->sheet(), sheet_->current_cell());
        top_->set_screen(wanted.screen);
        asked_ = preview_.request(std::move(wanted));
    });
}

bool MainWindow::settled() const {
    const Session& session = bench_->session();
    if (pending_ || bench_->sheet().loading())
        return false;
    // A first text that does not compile has nothing to show but its faults.
    const bool nothing_yet = !session.rule() && lang::has_error(session.diagnostics());
    return nothing_yet || (shown_ == asked_ && read_ == asked_ && proved_ == asked_);
}

void MainWindow::refresh_titles() {
    Session& session = bench_->session();
    const lang::Rule* rule = session.rule();
    const LookModel& look = bench_->look();
    const QString title = look.is_look() ? QString::fromStdString(look.look().title) : look.name(0);
    top_->set_step(title, look.display_name(), look.modified(), look.is_look());
    if (look.is_look() != step_->isVisibleTo(step_->parentWidget())) { // what it needs it takes from the rule
        step_->setVisible(look.is_look());
        QTimer::singleShot(
            0, this, [this, by = (look.is_look() ? 1 : -1) * (step_->sizeHint().height() - 40)] { // once it is laid out
                const QList<int> sizes = left_->sizes();
                left_->setSizes({sizes[0] - by, sizes[1] + by});
            });
    }
    top_->set_working(QString::fromStdString(std::string(rule ? engine::working_space(*rule) : "")));
    setWindowTitle(look.display_name() + (look.modified() ? "*" : "") + tr(" \u2013 Kasuri"));
}

void MainWindow::mark_old() {
    const bool old = !bench_->session().compiles();
    sheet_->set_old(old);
    proofs_->set_old(old);
}

void MainWindow::show_before(bool before) {
    sheet_->set_before_only(before);
    readings_->set_before_only(before);
    top_->set_before_shown(before);
}

void MainWindow::follow(const proof::Outcome& outcome) {
    const proof::Place& place = outcome.worst;
    if (!outcome.of_look) {
        looked_into_ = place; // beside the lines stands what the rule makes of it
        request();
    }
    const QString target = QString::fromStdString(place.target);
    if (targets::find(place.target) && targets::find(place.target)->shape == targets::Shape::strip) {
        sheet_->point_at(target, (place.index + 0.5) / place.count);
        return;
    }
    const Readout readout{
        true,         target,      outcome.of_look ? tr("worst colour of the look") : tr("worst colour"),
        place.before, place.after, outcome.space};
    numbers_->show_readout(readout);
    status_->show_readout(readout);
}

void MainWindow::next_panel() {
    QWidget* const panels[] = {look_, rule_->editor(), values_, step_, sheet_, readings_, pins_, library_, proofs_};
    constexpr int count = 9;
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
                (panel == readings_ || !qobject_cast<QToolButton*>(child))) {
                child->setFocus(Qt::TabFocusReason);
                return;
            }
    }
}

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
        if (key->key() == Qt::Key_F9 && widget && (widget->window() == this || (torn_ && widget->window() == torn_))) {
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
    bench_->open_urls(event->mimeData()->urls());
    event->acceptProposedAction();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!bench_->may_leave()) {
        event->ignore();
        return;
    }
    bench_->keeper().write_now();
    if (torn_)
        torn_->give_back();
    QSettings settings;
    settings.setValue("window/geometry", saveGeometry());
    settings.setValue("window/outer", outer_->saveState());
    settings.setValue("window/two_columns", columns_->saveState());
    settings.setValue("window/left", left_->saveState());
    settings.setValue("window/right", right_->saveState());
    settings.setValue("window/sheet", sheet_->splitter()->saveState());
    settings.setValue("window/mix", mix_->isVisible());
    settings.setValue("window/middle", middle_->saveState());
    settings.setValue("window/library", library_->isVisible());
    store_settings(bench_->sheet(), bench_->readings());
    event->accept();
}

void MainWindow::restore_sheet() {
    if (QSettings().value("start").toString() == "chart" || !restore_cells(bench_->sheet()))
        bench_->add_chart();
    bench_->session().undo_stack().clear(); // nothing that anybody did
}

void MainWindow::restore_layout() {
    QSettings settings;
    restoreGeometry(settings.value("window/geometry").toByteArray());
    outer_->restoreState(settings.value("window/outer").toByteArray());
    columns_->restoreState(settings.value("window/two_columns").toByteArray());
    left_->restoreState(settings.value("window/left").toByteArray());
    right_->restoreState(settings.value("window/right").toByteArray());
    sheet_->splitter()->restoreState(settings.value("window/sheet").toByteArray());
    mix_->setVisible(settings.value("window/mix").toBool());
    middle_->restoreState(settings.value("window/middle").toByteArray());
    if (settings.value("window/library").toBool())
        toggle_library();
    restore_settings(bench_->sheet(), bench_->readings());
    restore_editor(*rule_->editor());
    bench_->session().undo_stack().clear();
}

} // namespace kasuri::app
