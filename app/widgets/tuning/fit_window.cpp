#include "widgets/tuning/fit_window.hpp"

#include "base/file_kind.hpp"
#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/residual_plot.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/space_menu.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/readings/plot_view.hpp"
#include "widgets/tuning/chart_window.hpp"

#include <QCheckBox>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSplitter>
#include <QTableView>
#include <QToolButton>
#include <QUndoStack>
#include <QVBoxLayout>

#include <algorithm>

namespace kasuri::app {
namespace {
constexpr double most_enlarged = 1000;
constexpr int mark_width = 26, figure_width = 76, wide_figure = 112;
} // namespace

FitWindow::FitWindow(Bench& bench, QWidget* parent) : QDialog(parent), bench_(bench) {
    setWindowTitle(tr("Find the rule"));
    setAcceptDrops(true);
    resize(860, 640);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    column->setSpacing(8);
    column->addWidget(quiet_label(tr("Every kind of rule is fitted to what went in and what came out. The marked one "
                                     "explains most with fewest numbers."),
                                  this));
    column->addWidget(sources());
    words_ = new QLabel(this);
    words_->setWordWrap(true);
    words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    column->addWidget(words_);
    column->addWidget(results(), 1);
    auto* end = new QHBoxLayout;
    all_ = new QCheckBox(tr("All families"), this);
    all_->setToolTip(tr("Not those alone that are closer than all with fewer numbers"));
    stop_ = new QPushButton(tr("Call it off"), this);
    takes_ = new QPushButton(tr("Keep all as takes"), this);
    takes_->setToolTip(tr("Each row becomes a take of the rule on the bench, to flip through and to see side by side"));
    rest_ = new QPushButton(tr("With a table for the rest"), this);
    rest_->setToolTip(tr("Puts the rule on the bench, and behind it a LUT of 17 points for what the rule leaves"));
    take_ = new QPushButton(tr("Put it on the bench"), this);
    take_->setToolTip(tr("In the place of the rule there; behind a LUT, which is then switched off"));
    take_->setDefault(true);
    end->addWidget(all_);
    end->addStretch(1);
    end->addWidget(stop_);
    end->addWidget(takes_);
    end->addWidget(rest_);
    end->addWidget(take_);
    column->addLayout(end);
    connect(all_, &QCheckBox::toggled, this, [this](bool all) {
        model_.show_all(all);
        choose(model_.best_row());
    });
    connect(stop_, &QPushButton::clicked, &model_, &FitModel::cancel);
    connect(takes_, &QPushButton::clicked, this, &FitWindow::keep_as_takes);
    connect(take_, &QPushButton::clicked, this, &FitWindow::take);
    connect(rest_, &QPushButton::clicked, this, &FitWindow::take_with_rest);
    connect(&model_, &FitModel::rest_ready, this, &FitWindow::put_rest);
    connect(&model_, &FitModel::residual_ready, this, &FitWindow::show_residual);
    connect(table_, &QTableView::doubleClicked, this, &FitWindow::take);
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, &FitWindow::show_chosen);
    connect(&model_, &FitModel::progressed, this, &FitWindow::show_state);
    connect(&model_, &FitModel::finished, this, [this] {
        choose(model_.best_row());
        show_state();
    });
    show_state();
    show_residual();
}

QWidget* FitWindow::results() {
    auto* halves = new QSplitter(Qt::Vertical, this);
    table_ = new QTableView(this);
    table_->setModel(&model_);
    table_->setAccessibleName(tr("Candidates, from simple to exact"));
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setShowGrid(false);
    table_->setWordWrap(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setSectionResizeMode(FitModel::title, QHeaderView::Stretch);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->horizontalHeader()->setMinimumSectionSize(mark_width);
    table_->horizontalHeader()->setSectionResizeMode(FitModel::marked, QHeaderView::Fixed);
    table_->setColumnWidth(FitModel::marked, mark_width);
    for (const int figures : {FitModel::mean, FitModel::most, FitModel::largest, FitModel::channel}) {
        table_->horizontalHeader()->setSectionResizeMode(figures, QHeaderView::Fixed);
        table_->setColumnWidth(figures, figures == FitModel::mean ? wide_figure : figure_width);
    }
    halves->addWidget(table_);
    text_ = new QPlainTextEdit(this);
    text_->setReadOnly(true);
    text_->setFont(theme::mono());
    text_->setLineWrapMode(QPlainTextEdit::NoWrap);
    text_->setAccessibleName(tr("The chosen rule"));
    auto* below = new QSplitter(this);
    below->addWidget(text_);
    auto* residual = new QWidget(this);
    auto* stack = new QVBoxLayout(residual);
    stack->setContentsMargins(6, 0, 0, 0);
    stack->setSpacing(2);
    auto* head = new QHBoxLayout;
    plot_words_ = quiet_label({}, residual);
    head->addWidget(plot_words_, 1);
    view_ = new QToolButton(residual);
    view_->setToolTip(tr("On the plane of a* and b*, or in the room of L*a*b*, which is turned by dragging"));
    connect(view_, &QToolButton::clicked, this, [this] { show_room(!room_); });
    head->addWidget(view_);
    on_sheet_ = new QToolButton(residual);
    on_sheet_->setText(tr("on the sheet"));
    connect(on_sheet_, &QToolButton::clicked, this, &FitWindow::see_on_sheet);
    head->addWidget(on_sheet_);
    stack->addLayout(head);
    plot_ = new PlotView(residual);
    plot_->setAccessibleName(tr("Where the chosen rule is off"));
    stack->addWidget(plot_, 1);
    below->addWidget(residual);
    below->setSizes({440, 400});
    below->setStretchFactor(0, 1);
    halves->addWidget(below);
    halves->setSizes({210, 320});
    halves->setStretchFactor(1, 1);
    return halves;
}

QWidget* FitWindow::sources() {
    auto* row = new QWidget(this);
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    const auto button = [&](const QString& text, const QString& tip) {
        auto* made = new QPushButton(text, row);
        made->setToolTip(tip);
        made->setAutoDefault(false);
        layout->addWidget(made);
        return made;
    };
    connect(button(tr("From the bench"), tr("The active step by itself: its LUT or its rule")), &QPushButton::clicked,
            this, &FitWindow::find_of_bench);
    connect(button(tr("From a LUT or table\u2026"),
                   tr("A LUT, a look, a filter, or a table of r, g, b before and after (.csv); or drop it here")),
            &QPushButton::clicked, this, &FitWindow::ask_file);
    connect(
        button(tr("From two pictures\u2026"),
               tr("Before and after; shifted, cropped or scaled ones are brought over each other. Or drop both here")),
        &QPushButton::clicked, this, &FitWindow::ask_pictures);
    connect(button(tr("From a chart\u2026"), tr("A chart in a picture: its four corners are put by hand")),
            &QPushButton::clicked, this, [this] {
                chart().show();
                chart().raise();
            });
    layout->addStretch(1);
    layout->addWidget(quiet_label(tr("Numbers mean"), row));
    space_button_ = space_button();
    layout->addWidget(space_button_);
    options_button_ = options_menu();
    layout->addWidget(options_button_);
    return row;
}

QToolButton* FitWindow::options_menu() {
    auto* button = new QToolButton(this);
    button->setText(tr("holding") + QString::fromUtf8(" \u25be"));
    button->setToolTip(tr("What every rule keeps, and how differences count"));
    button->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(button);
    button->setMenu(menu);
    const auto option = [&](const QString& title, bool fit::Options::*which) {
        QAction* action = menu->addAction(title);
        action->setCheckable(true);
        connect(action, &QAction::toggled, this, [this, which](bool on) {
            fit::Options options = model_.options();
            options.*which = on;
            model_.set_options(std::move(options));
            if (asked_)
                again();
        });
    };
    option(tr("Greys stay as they are, proved"), &fit::Options::keep_greys);
    option(tr("Every colour keeps its luminance"), &fit::Options::keep_luminance);
    option(tr("Every colour keeps r + g + b"), &fit::Options::keep_sums);
    menu->addSeparator();
    option(tr("Differences count as the eye sees them"), &fit::Options::by_eye);
    return button;
}

QToolButton* FitWindow::space_button() {
    auto* button = new QToolButton(this);
    const QString usual = tr("what the file says");
    button->setText(usual + QString::fromUtf8(" \u25be"));
    button->setAccessibleName(tr("What the numbers of the files mean"));
    button->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(button);
    button->setMenu(menu);
    connect(menu, &QMenu::aboutToShow, this, [this, menu, button, usual] {
        menu->clear();
        const auto choose = [this, button, usual](const std::string& chosen) {
            space_ = chosen;
            button->setText((chosen.empty() ? usual : QString::fromStdString(chosen)) + QString::fromUtf8(" \u25be"));
            if (asked_ && (of_chart_ || !files_.isEmpty()))
                again();
        };
        menu->addAction(usual, this, [choose] { choose({}); });
        add_spaces(*menu, space_, choose, false);
    });
    return button;
}

void FitWindow::ask_file() {
    const QString file = QFileDialog::getOpenFileName(
        this, tr("Of which LUT or table?"), {},
        tr("LUTs, looks, filters, tables (%1)")
            .arg(patterns({FileKind::lut, FileKind::look, FileKind::filter}) + " *.csv *.tsv *.txt"));
    if (!file.isEmpty())
        find({file});
}

void FitWindow::ask_pictures() {
    const QString kinds = tr("Pictures (%1)").arg(patterns({FileKind::picture, FileKind::movie}));
    const QString before = QFileDialog::getOpenFileName(this, tr("The picture before"), {}, kinds);
    if (before.isEmpty())
        return;
    const QString after = QFileDialog::getOpenFileName(this, tr("The picture after"), QFileInfo(before).path(), kinds);
    if (!after.isEmpty())
        find({before, after});
}

ChartWindow& FitWindow::chart() {
    if (chart_)
        return *chart_;
    chart_ = new ChartWindow(this);
    const std::vector<Cell>& cells = bench_.sheet().cells();
    const auto picture = std::find_if(cells.begin(), cells.end(), [](const Cell& cell) { return !cell.target; });
    if (picture != cells.end())
        chart_->open(text_of(picture->picture), space_);
    connect(chart_, &ChartWindow::wanted, this, [this] {
        asked_ = of_chart_ = true;
        again();
        show();
        raise();
    });
    return *chart_;
}

void FitWindow::find_of_bench() {
    // The active step alone: what is found takes its place, and the steps around it stay.
    const LookModel& look = bench_.look();
    document::LookStep step = look.step();
    if (!bench_.session().fixed()) {
        step.text = bench_.session().text();
        step.values = bench_.session().chosen_values();
    }
    files_.clear();
    asked_ = true;
    of_chart_ = false;
    asked_of_ = bench_.look_as_worked_on();
    model_.find(std::move(step), look.name(look.current()).toStdString());
    show_state();
}

void FitWindow::find(const QStringList& files) {
    files_ = files;
    asked_ = true;
    of_chart_ = false;
    again();
}

void FitWindow::again() {
    std::vector<std::string> names;
    for (const QString& file : files_)
        names.push_back(bytes_of(file));
    pairing::PairingOptions options;
    options.lut_space = options.in_space = space_;
    if (!of_chart_ && files_.isEmpty()) {
        find_of_bench();
        return;
    }
    if (of_chart_)
        model_.find(chart_->model().wish(), options);
    else
        model_.find(std::move(names), std::move(options));
    show_state();
}

void FitWindow::choose(int row) {
    if (row >= 0)
        table_->selectRow(row);
    show_chosen();
}

int FitWindow::chosen() const { return table_->currentIndex().isValid() ? table_->currentIndex().row() : -1; }

QString FitWindow::words() const { return words_->text(); }
QString FitWindow::text() const { return text_->toPlainText(); }

void FitWindow::show_state() {
    if (model_.running())
        taken_ = -1;
    words_->setText(asked_ ? model_.words() : tr("Choose what to find the rule of, or drop it here."));
    stop_->setEnabled(model_.running());
    const bool there = !model_.running() && model_.best_row() >= 0;
    all_->setEnabled(there);
    take_->setEnabled(there);
    takes_->setEnabled(there && !bench_.session().fixed());
    rest_->setEnabled(there);
}

void FitWindow::show_chosen() {
    text_->setPlainText(QString::fromStdString(model_.text(chosen())));
    model_.ask_residual(chosen());
    show_residual();
}

void FitWindow::show_room(bool room) {
    room_ = room;
    show_residual();
}

void FitWindow::show_residual() {
    view_->setText(room_ ? tr("plane") : tr("room"));
    const fit::Residual* residual = model_.residual();
    view_->setVisible(residual != nullptr);
    const Status seen = can_be_seen(source());
    on_sheet_->setVisible(residual != nullptr);
    on_sheet_->setEnabled(seen.ok());
    on_sheet_->setToolTip(seen ? tr("The chosen rule goes on the bench, before becomes what it was found of, and a "
                                    "cell of the sheet shows the difference")
                               : QString::fromStdString(seen.error().text()));
    if (!residual) {
        plot_words_->clear();
        plot_->show_plot({}, {}, {});
        return;
    }
    const ResidualPlot plot = room_ ? residual_room(*residual) : residual_plane(*residual);
    plot_words_->setText(plot.times >= most_enlarged ? tr("Nothing is off that could be seen")
                             : plot.times == 1       ? tr("Where it is off: from what was wanted to what it makes")
                                                     : tr("Where it is off, %1 times as long").arg(plot.times));
    plot_->show_plot(plot.panels, {}, plot.measured);
}

FitSource FitWindow::source() const {
    FitSource source{files_, space_, {}, model_.moved()};
    if (!of_chart_ && files_.isEmpty())
        source.bench = asked_of_;
    return of_chart_ ? FitSource{} : source;
}

void FitWindow::see_on_sheet() {
    if (chosen() < 0 || model_.running())
        return;
    QUndoStack& history = bench_.session().undo_stack();
    history.beginMacro(tr("where a rule is off"));
    // A rule that was taken and changed since is looked at as it is now.
    const std::string now = bench_.session().text(), chosen_text = model_.text(chosen());
    if (taken_ != chosen() || now.substr(0, now.find('\n')) != chosen_text.substr(0, chosen_text.find('\n')))
        take();
    const Result<int> cell = see_where_it_is_off(bench_, source(), model_.candidate(chosen())->errors.delta_e_mean);
    history.endMacro();
    if (!cell)
        words_->setText(QString::fromStdString(cell.error().text()));
    else
        bench_.say(tr("Before is now what the rule was found of; a cell shows the difference."));
}

void FitWindow::take() {
    const std::string text = model_.text(chosen());
    if (text.empty() || model_.running())
        return;
    const QString name = tr("a rule that was found");
    taken_ = chosen();
    Session& session = bench_.session();
    if (!session.fixed()) {
        session.recall(text, {}, name);
        return;
    }
    // A LUT cannot be written in: the rule goes behind it, and the LUT is switched off, one click away.
    LookModel& look = bench_.look();
    session.undo_stack().beginMacro(name);
    const int at = look.current();
    document::LookStep step;
    step.text = text;
    look.add(std::move(step), at + 1);
    look.set_on(at, false);
    session.undo_stack().endMacro();
}

void FitWindow::take_with_rest() {
    constexpr int points = 17;
    if (chosen() < 0 || model_.running())
        return;
    words_->setText(tr("Working out the table for what the rule leaves\u2026"));
    rest_->setEnabled(false);
    model_.ask_rest(chosen(), points);
}

void FitWindow::put_rest() {
    show_state();
    const Result<pairing::RestLook>* rest = model_.rest();
    if (!rest || !*rest) {
        if (rest)
            words_->setText(QString::fromStdString(rest->error().text()));
        return;
    }
    const pairing::RestLook& made = rest->value();
    Session& session = bench_.session();
    LookModel& look = bench_.look();
    session.undo_stack().beginMacro(tr("a rule that was found, and a table for its rest"));
    take();
    look.add(made.look.steps.back(), look.current() + 1);
    session.undo_stack().endMacro();
    words_->setText(tr("With the table a channel is off by %1 at most, and by CIEDE2000 %2 on average.")
                        .arg(made.errors.largest, 0, 'g', 3)
                        .arg(made.errors.delta_e_mean, 0, 'g', 3));
}

void FitWindow::keep_as_takes() {
    Session& session = bench_.session();
    if (session.fixed() || model_.running() || model_.rowCount() == 0)
        return;
    const std::string text = session.text();
    const ValueMap values = session.chosen_values();
    session.undo_stack().beginMacro(tr("rules that were found, as takes"));
    for (int row = 0; row < model_.rowCount(); ++row) {
        session.recall(model_.text(row), {}, tr("a rule that was found"));
        const int take = bench_.takes().remember();
        const auto text_at = [&](int column) { return model_.index(row, column).data().toString(); };
        bench_.takes().rename(take, text_at(FitModel::numbers) + ": " + text_at(FitModel::title));
    }
    session.recall(text, values, tr("a rule that was found"));
    session.undo_stack().endMacro();
    bench_.say(tr("%n takes were kept.", nullptr, model_.rowCount()));
}

void FitWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void FitWindow::dropEvent(QDropEvent* event) {
    QStringList files;
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile())
            files << local_file(url);
    if (files.size() == 1 || files.size() == 2) {
        event->acceptProposedAction();
        if (files.size() == 1 && is_kind(bytes_of(files.front()), FileKind::picture)) {
            chart().open(files.front(), space_);
            chart().show();
            chart().raise();
        } else {
            find(files);
        }
    } else {
        words_->setText(tr("Drop one LUT or table, two pictures, or one of a chart."));
    }
}

} // namespace kasuri::app
