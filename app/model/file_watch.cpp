#include "model/file_watch.hpp"

#include "document/filter_file.hpp"
#include "document/merge.hpp"
#include "model/file_names.hpp"

#include <utility>

namespace kasuri::app {
namespace {
constexpr int pause_ms = 120; ///< programs write in several steps
} // namespace

FileWatch::FileWatch(Session& session, QObject* parent) : QObject(parent), session_(session) {
    pause_.setSingleShot(true);
    pause_.setInterval(pause_ms);
    connect(&pause_, &QTimer::timeout, this, &FileWatch::look);
    connect(&pause_, &QTimer::timeout, this, &FileWatch::look_at_used_files);
    connect(&session_, &Session::rule_changed, this, &FileWatch::watch);
    connect(&watcher_, &QFileSystemWatcher::fileChanged, &pause_, qOverload<>(&QTimer::start));
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, &pause_, qOverload<>(&QTimer::start));
    connect(&session_, &Session::file_changed, this, &FileWatch::watch);
}

void FileWatch::watch() {
    const QString file = text_of(session_.path());
    const QString folder = text_of(session_.path().parent_path());
    // The folder too: many programs put another file in its place.
    QStringList wanted, watched = watcher_.files() + watcher_.directories();
    if (!file.isEmpty())
        wanted << file << (folder.isEmpty() ? QStringLiteral(".") : folder);
    std::map<std::filesystem::path, std::string> used;
    if (session_.rule())
        for (const lang::FunctionPtr& function : session_.rule()->functions) // those that used files use, too
            if (!function->file.empty() && !file.isEmpty())
                used.try_emplace(session_.path().parent_path() / function->file);
    for (auto& [path, text] : used) {
        if (const auto known = used_.find(path); known != used_.end())
            text = known->second;
        else if (const Result<std::string> read = document::load_filter(path))
            text = read.value();
        wanted << text_of(path);
    }
    used_ = std::move(used);
    for (const QString& each : watched)
        if (!wanted.contains(each))
            watcher_.removePath(each);
    for (const QString& each : wanted)
        if (!watched.contains(each))
            watcher_.addPath(each);
    const bool other = path_ != session_.path();
    path_ = session_.path();
    if (clash_ && (other || theirs_ == session_.saved_text())) { // another document, or saved meanwhile
        clash_ = false;
        emit clash_changed();
    }
}

void FileWatch::look_at_used_files() {
    bool changed = false;
    for (auto& [path, text] : used_)
        if (const Result<std::string> read = document::load_filter(path); read && read.value() != text) {
            text = read.value(); // one that is gone, or half written, is asked for again
            changed = true;
        }
    if (!changed)
        return;
    ++used_files_;
    watch(); // a file that was replaced is watched no more
    emit used_files_changed();
}

void FileWatch::settle(const std::string& text, const QString& step, const QString& message) {
    clash_ = false;
    session_.meet_file(theirs_, text, step);
    emit clash_changed();
    emit said(message, false);
}

void FileWatch::set_following(bool following) {
    following_ = following;
    if (!following && std::exchange(clash_, false))
        emit clash_changed();
}

bool FileWatch::look() {
    if (session_.path().empty())
        return true;
    if (!following_) {
        emit noticed();
        return true;
    }
    watch(); // one that was replaced is watched no more
    std::error_code failure;
    unreadable_.clear();
    if (!std::filesystem::exists(session_.path(), failure)) {
        if (!std::exchange(gone_, true))
            emit said(tr("The file %1 is gone. Saving writes it again.").arg(text_of(session_.path().filename())),
                      true);
        return true;
    }
    gone_ = false;
    Result<std::string> read = document::load_filter(session_.path());
    if (!read) {
        unreadable_ = QString::fromStdString(read.error().text());
        emit said(tr("The file cannot be read any more. Your text is here; saving asks first. %1").arg(unreadable_),
                  true);
        return true;
    }
    if (read.value() == session_.saved_text()) { // ours
        if (std::exchange(clash_, false))
            emit clash_changed();
        return true;
    }
    if (clash_ && read.value() == theirs_)
        return false;
    theirs_ = std::move(read.value());
    if (session_.text() == session_.saved_text()) {
        settle(theirs_, tr("the file as it is now"),
               tr("The file was changed by somebody else and has been read again; Ctrl+Z takes it back."));
        return true;
    }
    const document::Merged both = document::merged(session_.saved_text(), session_.text(), theirs_);
    if (both.conflicts == 0) {
        settle(both.text, tr("changes of the file"),
               tr("The file was changed by somebody else, in other lines: both changes are here now; Ctrl+Z takes "
                  "theirs back."));
        return true;
    }
    clash_ = true;
    emit clash_changed();
    return false;
}

void FileWatch::choose(Way way) {
    if (!clash_)
        return;
    if (way == Way::mine)
        settle(session_.text(), {}, tr("The text stays as it is; saving puts it in the place of theirs."));
    else if (way == Way::theirs)
        settle(theirs_, tr("the file as it is now"), tr("Theirs is here; Ctrl+Z brings yours back."));
    else
        settle(document::merged(session_.saved_text(), session_.text(), theirs_).text, tr("changes of the file"),
               tr("Both changes are here; where they met, yours stands."));
}

} // namespace kasuri::app
