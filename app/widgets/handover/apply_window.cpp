#include "widgets/handover/apply_window.hpp"

#include "handover/movie.hpp"
#include "model/file_names.hpp"
#include "model/words.hpp"

#include "model/on_bench.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/library_tile.hpp"
#include "widgets/parts/theme.hpp"

#include <QCheckBox>
#include <QCloseEvent>
#include <QComboBox>
#include <QCoreApplication>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QMimeData>
#include <QProgressBar>
#include <QPushButton>
#include <QSettings>

namespace kasuri::app {
namespace {
constexpr int pause_ms = 250; ///< after the last change of the rule

/// One row: what pictures can be written as; those without an ending as they came.
struct Kind {
    const char *title, *ending, *depth, *codec = ""; ///< codec: of a movie
};
constexpr Kind kinds[] = {
    {QT_TRANSLATE_NOOP("Kinds", "PNG, 8 bits"), ".png", "8"},
    {QT_TRANSLATE_NOOP("Kinds", "PNG, 16 bits"), ".png", "16"},
    {QT_TRANSLATE_NOOP("Kinds", "TIFF, 16 bits"), ".tif", "16"},
    {QT_TRANSLATE_NOOP("Kinds", "TIFF, float"), ".tif", "float"},
    {QT_TRANSLATE_NOOP("Kinds", "EXR, half"), ".exr", "half"},
    {QT_TRANSLATE_NOOP("Kinds", "EXR, float"), ".exr", "float"},
    {QT_TRANSLATE_NOOP("Kinds", "DPX, 16 bits"), ".dpx", "16"},
    {QT_TRANSLATE_NOOP("Kinds", "JPEG, 8 bits"), ".jpg", "8"},
    {QT_TRANSLATE_NOOP("Kinds", "movie, ProRes 422"), ".mov", "", "prores422"},
    {QT_TRANSLATE_NOOP("Kinds", "movie, ProRes 4444"), ".mov", "", "prores4444"},
    {QT_TRANSLATE_NOOP("Kinds", "movie, FFV1, 16 bits, without loss"), ".mkv", "16", "ffv1"},
};
} // namespace

ApplyWindow::ApplyWindow(Session& session, LookModel& look, const SheetModel& sheet, QWidget* parent)
    : QDialog(parent), session_(session), look_(look), sheet_(sheet), model_(new ApplyModel(this)) {
    model_->set_said_spaces(sheet.said_spaces());
    model_->set_screen(sheet.screen());
    connect(&sheet, &SheetModel::changed, this, [this, &sheet] {
        model_->set_screen(sheet.screen());
        pause_.start(); // other pictures for its sources, perhaps
    });
    connect(&sheet, &SheetModel::spaces_said, this, [this, &sheet] { model_->set_said_spaces(sheet.said_spaces()); });
    setWindowTitle(tr("Apply to many pictures"));
    setAttribute(Qt::WA_DeleteOnClose);
    setAcceptDrops(true);
    resize(860, 560);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    column->setSpacing(8);
    column->addLayout(input_row());
    make_list();
    column->addWidget(list_, 1);
    column->addLayout(output_grid());
    make_progress();
    column->addWidget(progress_);
    column->addLayout(last_row());
    follow_bench();
    connect_model();
    take_subject();
}

QPushButton* ApplyWindow::button(const QString& text) {
    auto* made = new QPushButton(text, this);
    made->setAutoDefault(false);
    return made;
}

QHBoxLayout* ApplyWindow::input_row() {
    auto* row = new QHBoxLayout;
    from_ = quiet_label(tr("Drop pictures, movies or a folder here, or choose them."), this);
    auto* files = button(tr("Pictures\u2026"));
    auto* folder = button(tr("A folder\u2026"));
    row->addWidget(from_, 1);
    row->addWidget(files);
    row->addWidget(folder);
    connect(files, &QPushButton::clicked, this, [this] {
        set_inputs(
            QFileDialog::getOpenFileNames(this, tr("Apply to which pictures?"), {},
                                          tr("Pictures (%1)").arg(patterns({FileKind::picture, FileKind::movie}))));
    });
    connect(folder, &QPushButton::clicked, this, [this] {
        set_inputs({QFileDialog::getExistingDirectory(this, tr("Apply to which folder of pictures?"))});
    });
    return row;
}

void ApplyWindow::make_list() {
    list_ = new QListView(this);
    list_->setModel(model_);
    list_->setViewMode(QListView::IconMode);
    list_->setMovement(QListView::Static);
    list_->setResizeMode(QListView::Adjust);
    list_->setUniformItemSizes(true);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setItemDelegate(new LibraryTile(list_));
    list_->setAccessibleName(tr("Contact sheet"));
}

QGridLayout* ApplyWindow::output_grid() {
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(10);
    grid->addWidget(new QLabel(tr("Write into"), this), 0, 0);
    output_ = new QLineEdit(this);
    output_->setObjectName("output");
    output_->setPlaceholderText(tr("a folder, a movie, or a name with #### for the frame"));
    auto* into = button(tr("Choose\u2026"));
    grid->addWidget(output_, 0, 1);
    grid->addWidget(into, 0, 2);
    grid->addWidget(new QLabel(tr("Kind"), this), 1, 0);
    grid->addLayout(option_row(), 1, 1, 1, 2);
    connect(into, &QPushButton::clicked, this, [this] {
        if (const QString chosen = QFileDialog::getExistingDirectory(this, tr("Write into which folder?"));
            !chosen.isEmpty())
            set_output(chosen);
    });
    return grid;
}

QHBoxLayout* ApplyWindow::option_row() {
    auto* options = new QHBoxLayout;
    options->setSpacing(6); // between a field and its name
    kind_ = new QComboBox(this);
    kind_->setObjectName("kind");
    kind_->addItem(tr("as they came"), QStringList{QString(), QString(), QString()});
    for (const Kind& each : kinds)
        kind_->addItem(QCoreApplication::translate("Kinds", each.title),
                       QStringList{each.ending, each.depth, each.codec});
    frames_ = new QLineEdit(this);
    frames_->setObjectName("frames");
    frames_->setPlaceholderText(tr("all frames"));
    frames_->setToolTip(tr("1-240, 1-240x2 or 1,5,9-12"));
    frames_->setFixedWidth(150);
    frames_->setAccessibleName(tr("Frames"));
    rate_ = new QLineEdit(this);
    rate_->setObjectName("rate");
    rate_->setPlaceholderText(tr("as it came, or 24"));
    rate_->setToolTip(tr("Frames in a second of a movie: 24, 23.976 or 24000/1001"));
    rate_->setFixedWidth(130);
    rate_->setAccessibleName(tr("Frames in a second"));
    connect(kind_, &QComboBox::currentIndexChanged, this, [this] {
        const QStringList kind = kind_->currentData().toStringList();
        rate_->setEnabled(kind[0].isEmpty() || !kind[2].isEmpty());
    });
    resume_ = new QCheckBox(tr("skip files that are there already and newer"), this);
    options->addWidget(kind_);
    options->addSpacing(10);
    options->addWidget(new QLabel(tr("frames"), this));
    options->addWidget(frames_);
    options->addSpacing(10);
    options->addWidget(new QLabel(tr("rate"), this));
    options->addWidget(rate_);
    options->addSpacing(10);
    options->addWidget(resume_);
    options->addStretch(1);
    return options;
}

void ApplyWindow::make_progress() {
    progress_ = new QProgressBar(this);
    progress_->setTextVisible(false);
    progress_->setFixedHeight(8);
    progress_->hide();
}

QHBoxLayout* ApplyWindow::last_row() {
    auto* row = new QHBoxLayout;
    words_ = quiet_label({}, this);
    words_->setWordWrap(true);
    go_ = new QPushButton(tr("Render"), this);
    go_->setObjectName("go");
    row->addWidget(words_, 1);
    row->addWidget(go_);
    return row;
}

void ApplyWindow::follow_bench() {
    pause_.setSingleShot(true);
    pause_.setInterval(pause_ms);
    connect(&pause_, &QTimer::timeout, this, &ApplyWindow::take_subject);
    connect(&session_, &Session::values_changed, &pause_, qOverload<>(&QTimer::start));
    connect(&session_, &Session::rule_changed, &pause_, qOverload<>(&QTimer::start));
    connect(&look_, &LookModel::changed, &pause_, qOverload<>(&QTimer::start));
}

void ApplyWindow::connect_model() {
    connect(go_, &QPushButton::clicked, this, &ApplyWindow::render_or_cancel);
    connect(model_, &ApplyModel::progressed, this, [this](std::size_t done, std::size_t all, double left) {
        progress_->setMaximum(static_cast<int>(all));
        progress_->setValue(static_cast<int>(done));
        say(tr("%1 of %2, about %3 s left").arg(done).arg(all).arg(left, 0, 'f', 0), false);
    });
    connect(model_, &ApplyModel::finished, this, &ApplyWindow::say_finished);
}

void ApplyWindow::say_finished() {
    progress_->hide();
    go_->setText(tr("Render"));
    const handover::BatchReport& report = model_->report();
    QStringList parts = {tr("%1 written").arg(report.written)};
    if (report.left > 0)
        parts << tr("%1 there already").arg(report.left);
    if (report.failed > 0)
        parts << tr("%1 failed: the reasons stand in their tool tips").arg(report.failed);
    if (report.called_off > 0)
        parts << tr("%1 called off").arg(report.called_off);
    say(parts.join(", ") + tr(", in %1 s").arg(report.seconds, 0, 'f', 1), report.failed > 0);
}

QString ApplyWindow::words() const { return words_->text(); }

void ApplyWindow::say(const QString& text, bool bad) {
    QPalette palette = words_->palette();
    palette.setColor(QPalette::WindowText, bad ? theme::bad : theme::second);
    words_->setPalette(palette);
    words_->setText(text);
}

void ApplyWindow::take_subject() {
    Result<subject::Subject> subject = subject_on_bench(session_, look_, sheet_);
    if (!subject) {
        say(QString::fromStdString(subject.error().text()), true);
        return;
    }
    say({}, false);
    model_->set_subject(std::make_shared<const subject::Subject>(std::move(subject.value())));
}

void ApplyWindow::set_inputs(const QStringList& inputs) {
    std::vector<std::string> wanted;
    for (const QString& input : inputs)
        if (!input.isEmpty())
            wanted.push_back(bytes_of(input));
    if (wanted.empty())
        return;
    if (const Status taken = model_->set_inputs(wanted); !taken) {
        say(QString::fromStdString(taken.error().text()), true);
        return;
    }
    from_->setText(inputs.size() == 1 ? inputs.front()
                                      : counted(model_->rowCount(), tr("1 picture"), tr("%1 pictures")));
    if (output_->text().isEmpty()) {
        const QFileInfo facts(inputs.front());
        set_output((facts.isDir() ? facts.absoluteFilePath() : facts.absolutePath()) + "-" +
                   look_.display_name().replace(' ', '-'));
    }
}

void ApplyWindow::set_output(const QString& output) { output_->setText(output); }

void ApplyWindow::render_or_cancel() {
    if (model_->rendering()) {
        model_->cancel();
        say(tr("Calling it off: what is being written is finished or not there\u2026"), false);
        return;
    }
    handover::BatchOrder order;
    order.inputs = model_->inputs();
    order.output = bytes_of(output_->text().trimmed());
    const QStringList kind = kind_->currentData().toStringList();
    order.ending = kind[0].toStdString();
    if (order.inputs.empty() || order.output.empty()) {
        say(order.inputs.empty() ? tr("There are no pictures yet.") : tr("Say where to write."), true);
        return;
    }
    if (!frames_->text().trimmed().isEmpty()) {
        const auto frames = handover::read_frames(frames_->text().toStdString());
        if (!frames) {
            say(tr("Frames are written as 1-240, 1-240x2 or 1,5,9-12."), true);
            return;
        }
        order.frames = *frames;
    }
    if (order.output.find('#') == std::string::npos && model_->rowCount() > 1 && !order.output.ends_with('/') &&
        !is_kind(std::filesystem::path(order.output), FileKind::movie))
        order.output += '/';
    take_subject();
    handover::BatchOptions batch;
    batch.resume = resume_->isChecked();
    batch.job.depth = image::find_depth(kind[1].toStdString());
    batch.codec = kind[2].toStdString();
    if (const QString rate = rate_->text().trimmed(); rate_->isEnabled() && !rate.isEmpty()) {
        batch.rate = handover::read_rate(rate.toStdString());
        if (!batch.rate) {
            say(tr("Frames in a second are written as 24, 23.976 or 24000/1001."), true);
            return;
        }
    }
    batch.jobs = QSettings().value("apply/jobs").toULongLong();
    if (const Status begun = model_->render(order, batch); !begun) {
        say(QString::fromStdString(begun.error().text()), true);
        return;
    }
    progress_->setMaximum(0);
    progress_->show();
    go_->setText(tr("Call it off"));
}

void ApplyWindow::closeEvent(QCloseEvent* event) {
    model_->cancel(); // the window waits for what is being written
    QDialog::closeEvent(event);
}

void ApplyWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void ApplyWindow::dropEvent(QDropEvent* event) {
    QStringList files;
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile())
            files << local_file(url);
    set_inputs(files);
    event->acceptProposedAction();
}

} // namespace kasuri::app
