#include "widgets/bench.hpp"

#include "handover/render.hpp"
#include "model/on_bench.hpp"

#include "document/filter_file.hpp"
#include "io/config.hpp"
#include "io/lut_file.hpp"
#include "lang/format.hpp"
#include "model/undo_commands.hpp"
#include "model/words.hpp"
#include "proof/proof.hpp"
#include "widgets/apply_window.hpp"
#include "widgets/bake_window.hpp"
#include "widgets/look_actions.hpp"
#include "widgets/target_menu.hpp"

#include <QCoreApplication>
#include <QDateTime>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QPointer>
#include <QPushButton>
#include <QSettings>
#include <QThreadPool>
#include <QWidget>

#include <memory>

namespace kasuri::app {
namespace {
constexpr int most_recent = 10;
const QString filters_and_pictures = QStringLiteral("*.kasuri *.kasurilook *.png *.tif *.tiff *.exr");

QString folder_of(const std::filesystem::path& path) { return QString::fromStdString(path.parent_path().string()); }
bool is_look(const QString& file) {
    return file.endsWith(
        QString::fromUtf8(document::look_ending.data(), static_cast<qsizetype>(document::look_ending.size())),
        Qt::CaseInsensitive);
}
bool is_filter(const QString& file) {
    return file.endsWith(
        QString::fromUtf8(document::filter_ending.data(), static_cast<qsizetype>(document::filter_ending.size())),
        Qt::CaseInsensitive);
}
} // namespace

Bench::Bench(QWidget* window)
    : QObject(window), window_(window), session_(this), look_(session_), sheet_(this), takes_(session_),
      watch_(session_), tuning_(session_), keeper_(session_, look_, sheet_, takes_, tuning_),
      look_actions_(new LookActions(*this, window)) {
    for (const char* name : {"response", "hue_map", "parade"})
        readings_.add(*readings::find(name));
    connect(&sheet_, &SheetModel::failed, this,
            [this](const Error& error) { emit said(QString::fromStdString(error.text()), true); });
    connect(&sheet_, &SheetModel::rearranged, this,
            [this](const QString& name, const QString& key, const Arrangement& before) {
                session_.undo_stack().push(new ArrangementCommand<SheetModel, Arrangement>(sheet_, name, key, before));
            });
    connect(&takes_, &TakesModel::rearranged, this,
            [this](const QString& name, const QString& key, const std::vector<Take>& before) {
                session_.undo_stack().push(
                    new ArrangementCommand<TakesModel, std::vector<Take>>(takes_, name, key, before));
            });
    connect(&tuning_, &Tuning::rearranged, this,
            [this](const QString& name, const QString& key, const document::KeptTuning& before) {
                session_.undo_stack().push(
                    new ArrangementCommand<Tuning, document::KeptTuning>(tuning_, name, key, before));
            });
    connect(&look_, &LookModel::rearranged, this,
            [this](const QString& name, const QString& key, const LookArrangement& before) {
                session_.undo_stack().push(
                    new ArrangementCommand<LookModel, LookArrangement>(look_, name, key, before));
            });
    connect(&look_, &LookModel::changed, this, [this] { watch_.set_following(!look_.is_look()); });
    connect(&watch_, &FileWatch::noticed, &look_, &LookModel::look_at_files);
    connect(look_actions_, &LookActions::said, this, &Bench::said);
    connect(&watch_, &FileWatch::said, this, &Bench::said);
    connect(&look_, &LookModel::refused, this, [this](const QString& why) { emit said(why, true); });
    connect(&keeper_, &BenchKeeper::failed, this,
            [this](const Error& error) { emit said(QString::fromStdString(error.text()), true); });
    connect(&sheet_, &SheetModel::noted, this, [this](const QString& note) { emit said(note, false); });
}

bool Bench::may_leave() {
    if (!look_.modified())
        return true;
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved work"),
                    tr("\u201c%1\u201d has changes that are not saved.").arg(look_.display_name()),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, window_);
    box.setDefaultButton(QMessageBox::Save);
    switch (box.exec()) {
    case QMessageBox::Save: return save();
    case QMessageBox::Discard: return true;
    default: return false;
    }
}

void Bench::keep_recovery(const std::filesystem::path& folder) {
    for (const LeftBehind& left : RecoveryKeeper::left_behind(folder)) {
        const std::filesystem::path path = left.recovery.path;
        const QString name = path.empty() ? tr("untitled") : QString::fromStdString(path.stem().string());
        QMessageBox box(
            QMessageBox::NoIcon, tr("Unsaved work"),
            tr("Kasuri ended while \u201c%1\u201d had changes that were not saved. They were kept, as of %2.")
                .arg(name,
                     QFileInfo(QString::fromStdString(left.file.string()))
                         .lastModified()
                         .toString("yyyy-MM-dd HH:mm:ss")),
            QMessageBox::NoButton, window_);
        QAbstractButton* back = box.addButton(tr("Bring them back"), QMessageBox::AcceptRole);
        QAbstractButton* away = box.addButton(tr("Throw them away"), QMessageBox::DestructiveRole);
        box.addButton(tr("Ask again next time"), QMessageBox::RejectRole);
        box.exec();
        if (box.clickedButton() == away)
            RecoveryKeeper::forget(left);
        if (box.clickedButton() != back)
            continue;
        bring_back(left);
        break; // one bench, one document: others are offered at the next start
    }
    recovery_ = new RecoveryKeeper(session_, look_, keeper_, folder, this);
    connect(recovery_, &RecoveryKeeper::failed, this,
            [this](const Error& error) { emit said(QString::fromStdString(error.text()), true); });
    recovery_->write_now();
}

void Bench::bring_back(const LeftBehind& left) {
    if (!left.recovery.look.empty()) {
        Result<document::Look> look = document::look_of(left.recovery.look, left.file.string());
        if (!look || look.value().steps.empty()) {
            emit said(look ? tr("There is nothing in %1").arg(QString::fromStdString(left.file.string()))
                           : QString::fromStdString(look.error().text()),
                      true);
            return;
        }
        look_.bring_back(left.recovery.path,
                         {std::move(look.value()), static_cast<std::size_t>(left.recovery.in_hand), false});
        RecoveryKeeper::forget(left);
        emit said(tr("The work is back, and not saved yet."), false);
        return;
    }
    session_.bring_back(left.recovery.path, left.recovery.text, left.recovery.values);
    keeper_.take(left.recovery.bench,
                 left.recovery.path.empty() ? left.file : std::filesystem::path(left.recovery.path));
    RecoveryKeeper::forget(left);
    emit said(tr("The work is back, and not saved yet."), false);
}

void Bench::new_filter() {
    if (may_leave())
        session_.start_new();
}

void Bench::ask_open() {
    const QString file =
        QFileDialog::getOpenFileName(window_, tr("Open a filter or a picture"), folder_of(session_.path()),
                                     tr("Filters and pictures (%1);;All files (*)").arg(filters_and_pictures));
    if (!file.isEmpty())
        open(file);
}

void Bench::open(const QString& file, const QString& lens) {
    if (file.endsWith(".ocio", Qt::CaseInsensitive)) {
        use_config(file);
        return;
    }
    if (is_look(file)) {
        open_look(file);
        return;
    }
    if (document::is_lut_name(file.toStdString())) {
        look_actions_->add_files({file}, look_.current() + 1);
        return;
    }
    if (io::is_cdl_file(file.toStdString())) {
        look_actions_->add_cdl(file);
        return;
    }
    if (!is_filter(file)) {
        sheet_.add_picture(file.toStdString(), lens.toStdString());
        remember(file);
        return;
    }
    // A file that cannot be read must not cost the question about unsaved work.
    if (const auto readable = document::load_filter(file.toStdString()); !readable) {
        emit said(QString::fromStdString(readable.error().text()), true);
        return;
    }
    if (!may_leave())
        return;
    if (const Status opened = session_.open(file.toStdString()); !opened)
        emit said(QString::fromStdString(opened.error().text()), true);
    else
        remember(file);
}

void Bench::open_at(const QString& file, const QString& preset) {
    open(file);
    if (session_.path().string() != file.toStdString())
        return;                     // it was not opened
    auto* once = new QObject(this); // the preset can be chosen once the text has been understood
    connect(&session_, &Session::rule_changed, once, [this, once, preset] {
        const lang::Rule* rule = session_.rule();
        if (!rule)
            return;
        once->deleteLater();
        disconnect(&session_, nullptr, once, nullptr);
        for (const lang::Preset& each : rule->presets)
            if (QString::fromStdString(each.name) == preset)
                session_.set_values(each.values, tr("preset %1").arg(preset));
    });
}

void Bench::compare_with_file(const QString& file) {
    const Status opened = is_look(file) ? against_.open_look(file.toStdString()) : against_.open(file.toStdString());
    if (!opened)
        emit said(QString::fromStdString(opened.error().text()), true);
}

void Bench::open_look(const QString& file) {
    if (const auto readable = document::load_look(file.toStdString()); !readable) {
        emit said(QString::fromStdString(readable.error().text()), true);
        return;
    }
    if (!may_leave())
        return;
    if (const Status opened = look_.open(QFileInfo(file).absoluteFilePath().toStdString()); !opened)
        emit said(QString::fromStdString(opened.error().text()), true);
    else
        remember(file);
}

void Bench::open_urls(const QList<QUrl>& urls) {
    for (const QUrl& url : urls)
        if (url.isLocalFile())
            open(url.toLocalFile());
        else
            emit said(tr("%1: only files on this machine can be opened").arg(url.toDisplayString()), true);
}

bool Bench::save() {
    const std::filesystem::path& path = look_.is_look() ? look_.path() : session_.path();
    return path.empty() ? ask_save_as() : save_to(QString::fromStdString(path.string()));
}

bool Bench::ask_save_as() {
    if (look_.is_look()) {
        QString file = QFileDialog::getSaveFileName(
            window_, tr("Save the look"),
            look_.path().empty() ? look_.display_name() + ".kasurilook" : QString::fromStdString(look_.path().string()),
            tr("Looks (*.kasurilook)"));
        if (!file.isEmpty() && !is_look(file))
            file += ".kasurilook";
        return !file.isEmpty() && save_to(file);
    }
    const QString start = session_.path().empty() ? session_.display_name() + ".kasuri"
                                                  : QString::fromStdString(session_.path().string());
    QString file = QFileDialog::getSaveFileName(window_, tr("Save the filter"), start, tr("Filters (*.kasuri)"));
    if (file.isEmpty())
        return false;
    if (!is_filter(file))
        file += ".kasuri";
    return save_to(file);
}

bool Bench::save_to(const QString& file) {
    if (look_.is_look()) {
        if (const Status saved = look_.save(QFileInfo(file).absoluteFilePath().toStdString()); !saved) {
            emit said(QString::fromStdString(saved.error().text()), true);
            return false;
        }
        remember(file);
        emit said(tr("Saved %1").arg(file), false);
        return true;
    }
    if (std::filesystem::path(file.toStdString()) == session_.path() && !watch_.look()) {
        emit said(
            tr("Not saved: somebody else has changed the same lines of the file. Choose above the text which stay."),
            true);
        return false;
    }
    if (const Status saved = session_.save(file.toStdString()); !saved) {
        emit said(QString::fromStdString(saved.error().text()), true);
        return false;
    }
    remember(file);
    emit said(tr("Saved %1").arg(file), false);
    return true;
}

void Bench::show_takes() {
    if (sheet_.shows_takes())
        return sheet_.show_takes(0, {});
    std::vector<Take> named = takes_.takes();
    for (std::size_t i = 0; i < named.size(); ++i)
        named[i].name = takes_.name(static_cast<int>(i)).toStdString();
    if (named.empty())
        emit said(tr("There is no take yet: Ctrl+T remembers one."), true);
    else
        emit takes_wanted(named);
}

void Bench::open_bake() {
    auto* bake = new BakeWindow(session_, look_, sheet_, window_);
    connect(bake, &BakeWindow::said, this, &Bench::said);
    bake->show();
}

void Bench::open_apply() {
    auto* apply = new ApplyWindow(session_, look_, sheet_, window_);
    apply->show();
}

void Bench::ask_render() {
    const QString in = QFileDialog::getOpenFileName(window_, tr("Apply to which picture?"), {},
                                                    tr("Pictures (*.png *.tif *.tiff *.exr);;All files (*)"));
    if (in.isEmpty())
        return;
    const QFileInfo facts(in);
    const QString out = QFileDialog::getSaveFileName(window_, tr("Write the result"),
                                                     facts.path() + "/" + facts.completeBaseName() + "-" +
                                                         session_.display_name() + "." + facts.suffix(),
                                                     tr("Pictures (*.png *.tif *.tiff *.exr)"));
    if (!out.isEmpty())
        render(in, out);
}

void Bench::render(const QString& in, const QString& out) {
    Result<subject::Subject> subject = subject_on_bench(session_, look_, sheet_);
    if (!subject) {
        emit said(QString::fromStdString(subject.error().text()), true);
        return;
    }
    emit said(tr("Rendering %1\u2026").arg(out), false);
    handover::RenderJob job{in.toStdString(), out.toStdString()};
    if (const auto said = sheet_.said_spaces().find(job.in.string()); said != sheet_.said_spaces().end())
        job.in_space = said->second;
    QThreadPool::globalInstance()->start([self = QPointer<Bench>(this), subject = std::move(subject.value()), job,
                                          out] {
        auto report = std::make_shared<Result<io::SaveReport>>(handover::render(subject, job));
        QMetaObject::invokeMethod(
            qApp,
            [self, report, out] {
                if (!self)
                    return;
                if (!report->ok())
                    emit self->said(QString::fromStdString(report->error().text()), true);
                else if (report->value().clipped > 0)
                    emit self->said(
                        tr("Wrote %1; %2 values outside 0 .. 1 were clipped").arg(out).arg(report->value().clipped),
                        false);
                else if (!report->value().notes.empty())
                    emit self->said(tr("Wrote %1; %2").arg(out, QString::fromStdString(report->value().notes.front())),
                                    false);
                else
                    emit self->said(tr("Wrote %1").arg(out), false);
            },
            Qt::QueuedConnection);
    });
}

void Bench::format() {
    const std::optional<std::string> canonical = lang::formatted(session_.text());
    if (!canonical)
        emit said(tr("The rule cannot be read yet (F8 shows where); it was left as it is."), true);
    else
        session_.apply_edit({0, session_.text(), *canonical}, tr("canonical form"));
}

void Bench::add_chart() { sheet_.add_target(*targets::find("dye_chart"), "colour"); }

void Bench::fill_targets(QMenu& menu) {
    menu.clear();
    add_target_actions(
        *menu.addMenu(tr("as a strip")),
        [](const targets::Target& target) { return target.shape == targets::Shape::strip; },
        [this](const targets::Target& target) { sheet_.add_strip(target); });
    menu.addSeparator();
    add_target_actions(
        menu, [](const targets::Target& target) { return target.shape != targets::Shape::strip; },
        [this](const targets::Target& target) { sheet_.add_target(target, "colour"); });
}

void Bench::fill_readings(QMenu& menu) {
    menu.clear();
    for (const readings::Reading* reading : readings::all())
        menu.addAction(words(reading->title), this, [this, reading] { readings_.add(*reading); });
}

void Bench::fill_against(QMenu& menu) {
    menu.clear();
    const auto choice = [&](const QString& text, bool on, auto act) {
        QAction* action = menu.addAction(text, this, act);
        action->setCheckable(true);
        action->setChecked(on);
    };
    choice(tr("the picture as it comes"), !against_.rule(), [this] { against_.clear(); });
    if (against_.rule())
        choice(against_.name(), true, [] {});
    if (look_.is_look())
        choice(tr("what comes into the step in hand"), against_.rule() && against_.rule()->is_before,
               [this] { compare_with_what_comes_in(); });
    menu.addSeparator();
    menu.addAction(tr("The rule as it is now, kept\tCtrl+K"), this, &Bench::compare_with_now);
    for (int i = 0; i < static_cast<int>(takes_.takes().size()); ++i)
        menu.addAction(tr("take %1").arg(takes_.name(i)), this, [this, i] { compare_with_take(i); });
    menu.addAction(tr("Another filter\u2026"), this, &Bench::ask_against);
    for (const QString& file : QSettings().value("recent").toStringList())
        if (is_filter(file) && QFileInfo::exists(file) && file.toStdString() != session_.path().string())
            menu.addAction(QFileInfo(file).completeBaseName(), this, [this, file] {
                if (const Status opened = against_.open(file.toStdString()); !opened)
                    emit said(QString::fromStdString(opened.error().text()), true);
            });
}

void Bench::compare_with_now() {
    if (!session_.compiles()) {
        emit said(tr("The rule does not compile (F8 shows where): there is nothing to compare with yet."), true);
        return;
    }
    against_.set(look_.is_look() ? tr("the kept look") : tr("the kept rule"),
                 {session_.text(), session_.path(), session_.chosen_values(), look_.around()});
    emit said(tr("Before is now the rule as it is; the menu beside Before goes back to the picture."), false);
}

void Bench::compare_with_what_comes_in() {
    OtherRule other;
    other.is_before = true;
    against_.set(tr("what comes in"), std::move(other));
}

void Bench::compare_with_take(int index) {
    const Take& take = takes_.takes()[static_cast<std::size_t>(index)];
    against_.set(tr("take %1").arg(takes_.name(index)),
                 {take.text, session_.path(), take.values, nullptr, look_.is_look()});
}

void Bench::remember_take() {
    if (session_.fixed()) {
        emit said(tr("Takes are of rules; what is in hand is a look or a LUT."), true);
        return;
    }
    const int count = static_cast<int>(takes_.takes().size());
    const int index = takes_.remember();
    emit said(index < count ? tr("Take %1 is this already").arg(takes_.name(index))
                            : tr("Take %1 remembered").arg(takes_.name(index)),
              false);
}

bool Bench::write_take(int index, const QString& file) {
    const Take& take = takes_.takes()[static_cast<std::size_t>(index)];
    lang::CheckOptions options;
    options.open = document::used_beside(session_.path());
    const lang::Checked checked = lang::check(take.text, proof::vocabulary(), options);
    std::string text = take.text;
    if (checked.ok)
        text = document::with_defaults(text, checked.rule, values_for(checked.rule, take.values)).applied(text);
    if (const Status saved = document::save_filter(file.toStdString(), text); !saved) {
        emit said(QString::fromStdString(saved.error().text()), true);
        return false;
    }
    remember(file);
    emit said(tr("Wrote %1").arg(file), false);
    return true;
}

void Bench::ask_against() {
    const QString file = QFileDialog::getOpenFileName(window_, tr("Compare with which filter?"),
                                                      folder_of(session_.path()), tr("Filters (*.kasuri)"));
    if (file.isEmpty())
        return;
    if (const Status opened = against_.open(file.toStdString()); !opened)
        emit said(QString::fromStdString(opened.error().text()), true);
}

void Bench::ask_config() {
    const QString file =
        QFileDialog::getOpenFileName(window_, tr("Use which colour config?"), QSettings().value("config").toString(),
                                     tr("Colour configs (*.ocio);;All files (*)"));
    if (!file.isEmpty())
        use_config(file);
}

void Bench::use_config(const QString& file) {
    QThreadPool::globalInstance()->start([self = QPointer<Bench>(this), file] {
        auto loaded = std::make_shared<Result<io::LoadedConfig>>(io::load_config(file.toStdString()));
        QMetaObject::invokeMethod(
            qApp,
            [self, loaded, file] {
                if (!self)
                    return;
                if (!loaded->ok()) {
                    emit self->said(QString::fromStdString(loaded->error().text()), true);
                    return;
                }
                QSettings().setValue("config", file);
                const auto& [spaces, notes] = loaded->value();
                emit self->said(tr("%1: %2 spaces can be used now%3")
                                    .arg(QFileInfo(file).fileName())
                                    .arg(spaces.size())
                                    .arg(notes.empty() ? QString() : "; " + QString::fromStdString(notes.front())),
                                false);
                emit self->spaces_changed();
            },
            Qt::QueuedConnection);
    });
}

void Bench::restore_config() {
    const QString kept = QSettings().value("config").toString(),
                  named = QString::fromStdString(io::config_of_environment().string());
    if (const QString& file = QFileInfo::exists(kept) ? kept : named; !file.isEmpty())
        use_config(file);
}

void Bench::quit() { window_->close(); }

void Bench::remember(const QString& file) {
    QSettings settings;
    QStringList recent = settings.value("recent").toStringList();
    const QString whole = QFileInfo(file).absoluteFilePath();
    recent.removeAll(whole);
    recent.prepend(whole);
    settings.setValue("recent", recent.mid(0, most_recent));
}

void Bench::fill_recent(QMenu& menu) {
    menu.clear();
    for (const QString& file : QSettings().value("recent").toStringList())
        if (QFileInfo::exists(file))
            menu.addAction(QFileInfo(file).fileName() + "     " + QFileInfo(file).path(), this,
                           [this, file] { open(file); });
    if (menu.isEmpty())
        menu.addAction(tr("nothing yet"))->setEnabled(false);
}

} // namespace kasuri::app
