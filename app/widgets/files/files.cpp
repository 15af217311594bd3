#include "widgets/files/files.hpp"

#include "document/filter_file.hpp"
#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/recent.hpp"
#include "widgets/look/look_actions.hpp"

#include <QCoreApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QWidget>

#include <algorithm>

namespace kasuri::app {
namespace {

/// What the dialog for saving is called and offers.
struct Saving {
    FileKind kind;
    const char *question, *files;
};

constexpr Saving savings[] = {
    {FileKind::filter, QT_TRANSLATE_NOOP("Files", "Save the filter"), QT_TRANSLATE_NOOP("Files", "Filters (%1)")},
    {FileKind::look, QT_TRANSLATE_NOOP("Files", "Save the look"), QT_TRANSLATE_NOOP("Files", "Looks (%1)")},
};

} // namespace

Files::Files(Bench& bench, LookActions& look, QWidget* window)
    : QObject(window), bench_(bench), look_(look), window_(window) {}

bool Files::may_leave() {
    if (!bench_.look().modified())
        return true;
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved work"),
                    tr("\u201c%1\u201d has changes that are not saved.").arg(bench_.look().display_name()),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, window_);
    box.setDefaultButton(QMessageBox::Save);
    switch (box.exec()) {
    case QMessageBox::Save: return save();
    case QMessageBox::Discard: return true;
    default: return false;
    }
}

void Files::new_filter() {
    if (may_leave())
        bench_.session().start_new();
}

void Files::ask_open() {
    const QString wanted = patterns({FileKind::filter, FileKind::look, FileKind::lut, FileKind::correction,
                                     FileKind::config, FileKind::picture, FileKind::movie, FileKind::print});
    const QString file = QFileDialog::getOpenFileName(window_, tr("Open a filter or a picture"),
                                                      text_of(bench_.session().path().parent_path()),
                                                      tr("Filters and pictures (%1);;All files (*)").arg(wanted));
    if (!file.isEmpty())
        open(file);
}

void Files::open(const QString& file, const QString& lens) {
    switch (file_kind(bytes_of(file)).value_or(FileKind::picture)) {
    case FileKind::filter: return open_filter(file);
    case FileKind::look: return open_look(file);
    case FileKind::lut: return look_.add_files({file}, bench_.look().current() + 1);
    case FileKind::correction: return look_.add_cdl(file);
    case FileKind::config: return bench_.config().use(file);
    case FileKind::print: return bench_.use_print(QFileInfo(file).absoluteFilePath());
    case FileKind::picture:
    case FileKind::movie: break;
    }
    bench_.sheet().add_picture(bytes_of(file), lens.toStdString());
    remember_file(file);
}

void Files::open_filter(const QString& file) {
    // A file that cannot be read must not cost the question about unsaved work.
    if (const auto readable = document::load_filter(bytes_of(file)); !readable)
        return bench_.refuse(readable.error());
    if (!may_leave())
        return;
    if (const Status opened = bench_.session().open(bytes_of(file)); !opened)
        bench_.refuse(opened.error());
    else
        remember_file(file);
}

void Files::open_look(const QString& file) {
    if (const auto readable = document::load_look(bytes_of(file)); !readable)
        return bench_.refuse(readable.error());
    if (!may_leave())
        return;
    if (const Status opened = bench_.look().open(bytes_of(QFileInfo(file).absoluteFilePath())); !opened)
        bench_.refuse(opened.error());
    else
        remember_file(file);
}

void Files::open_at(const QString& file, const QString& preset) {
    open(file);
    Session& session = bench_.session();
    if (session.path().string() != bytes_of(file))
        return;                     // it was not opened
    auto* once = new QObject(this); // the preset can be chosen once the text has been understood
    connect(&session, &Session::rule_changed, once, [&session, once, preset] {
        const lang::Rule* rule = session.rule();
        if (!rule)
            return;
        once->deleteLater();
        disconnect(&session, nullptr, once, nullptr);
        for (const lang::Preset& each : rule->presets)
            if (QString::fromStdString(each.name) == preset)
                session.set_values(each.values, tr("preset %1").arg(preset));
    });
}

void Files::open_urls(const QList<QUrl>& urls) {
    for (const QUrl& url : urls)
        if (url.isLocalFile())
            open(local_file(url));
        else
            bench_.refuse(tr("%1: only files on this machine can be opened").arg(url.toDisplayString()));
}

bool Files::save() {
    const std::filesystem::path& path = bench_.look().file();
    return path.empty() ? ask_save_as() : save_to(text_of(path));
}

bool Files::ask_save_as() {
    const LookModel& look = bench_.look();
    const FileKind kind = look.kind();
    const QString now = look.file().empty() ? with_ending(look.display_name(), kind) : text_of(look.file());
    const Saving& saving =
        *std::find_if(std::begin(savings), std::end(savings), [&](const Saving& s) { return s.kind == kind; });
    const QString file =
        QFileDialog::getSaveFileName(window_, QCoreApplication::translate("Files", saving.question), now,
                                     QCoreApplication::translate("Files", saving.files).arg(patterns({kind})));
    return !file.isEmpty() && save_to(with_ending(file, kind));
}

bool Files::save_to(const QString& file) {
    const std::filesystem::path path = bytes_of(QFileInfo(file).absoluteFilePath());
    const std::filesystem::path& now = bench_.look().file();
    if (!now.empty() && path == std::filesystem::absolute(now) && !bench_.file_watch().look()) {
        bench_.refuse(
            tr("Not saved: somebody else has changed the same lines of the file. Choose above the text which stay."));
        return false;
    }
    if (!now.empty() && path == std::filesystem::absolute(now) && !bench_.file_watch().unreadable().isEmpty()) {
        QMessageBox box(QMessageBox::NoIcon, tr("Write over the file?"),
                        tr("The file holds something else now: %1").arg(bench_.file_watch().unreadable()),
                        QMessageBox::Cancel, window_);
        QPushButton* over = box.addButton(tr("Write over it"), QMessageBox::AcceptRole);
        QPushButton* elsewhere = box.addButton(tr("Save as\u2026"), QMessageBox::ActionRole);
        box.setDefaultButton(elsewhere);
        box.exec();
        if (box.clickedButton() == elsewhere)
            return ask_save_as();
        if (box.clickedButton() != over)
            return false;
    }
    if (const Status saved = bench_.look().save(path); !saved) {
        bench_.refuse(saved.error());
        return false;
    }
    remember_file(file);
    const QStringList& taken = bench_.look().taken_in();
    bench_.say(taken.isEmpty() ? tr("Saved %1").arg(file)
                               : tr("Saved %1, with a copy of %2 in it").arg(file, taken.join(", ")));
    emit this->saved();
    return true;
}

void Files::ask_config() {
    const QString file =
        QFileDialog::getOpenFileName(window_, tr("Use which colour config?"), QSettings().value("config").toString(),
                                     tr("Colour configs (%1);;All files (*)").arg(patterns({FileKind::config})));
    if (!file.isEmpty())
        bench_.config().use(file);
}

void Files::fill_recent(QMenu& menu) {
    menu.clear();
    for (const QString& file : recent_files())
        menu.addAction(QFileInfo(file).fileName() + "     " + QFileInfo(file).path(), this,
                       [this, file] { open(file); });
    if (menu.isEmpty())
        menu.addAction(tr("nothing yet"))->setEnabled(false);
}

} // namespace kasuri::app
