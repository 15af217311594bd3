#include "model/recovery_keeper.hpp"

#include "base/file.hpp"
#include "document/look_text.hpp"

#include <QCoreApplication>
#include <QLockFile>
#include <QStandardPaths>

#include <atomic>
#include <fmt/format.h>
#include <utility>

namespace kasuri::app {
namespace {

constexpr int soon_ms = 300;
constexpr const char* ending = ".kasuri-recovery";
constexpr std::size_t longest = 64u << 20;

QString lock_of(const std::filesystem::path& file) { return QString::fromStdString(file.string() + ".lock"); }

} // namespace

std::filesystem::path RecoveryKeeper::usual_folder() {
    return std::filesystem::path(QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation).toStdString()) /
        "recovery";
}

RecoveryKeeper::RecoveryKeeper(Session& session, LookModel& look, BenchKeeper& bench, std::filesystem::path folder,
                               QObject* parent)
    : QObject(parent), session_(session), look_(look), bench_(bench), folder_(std::move(folder)) {
    static std::atomic<int> count = 0; // several windows of one program
    file_ = folder_ / fmt::format("{}-{}{}", QCoreApplication::applicationPid(), ++count, ending);
    writer_.setMaxThreadCount(1);
    soon_.setSingleShot(true);
    soon_.setInterval(soon_ms);
    connect(&soon_, &QTimer::timeout, this, &RecoveryKeeper::write_now);
    connect(&session_, &Session::text_changed, this, &RecoveryKeeper::changed);
    connect(&session_, &Session::values_changed, this, &RecoveryKeeper::changed);
    connect(&session_, &Session::file_changed, this, &RecoveryKeeper::changed);
    connect(&look_, &LookModel::file_changed, this, &RecoveryKeeper::changed);
}

RecoveryKeeper::~RecoveryKeeper() {
    remove(); // left in order: what was not saved was given up
    finish();
}

void RecoveryKeeper::remove() {
    written_.reset();
    if (lock_)
        writer_.start([file = file_] {
            std::error_code error;
            std::filesystem::remove(file, error);
        });
}

void RecoveryKeeper::changed() {
    if (!soon_.isActive()) // not put off by what goes on: never older than that
        soon_.start();
}

void RecoveryKeeper::write_now() {
    soon_.stop();
    if (!look_.modified()) {
        if (written_)
            remove();
        return;
    }
    if (!lock_) {
        std::error_code error;
        std::filesystem::create_directories(folder_, error);
        lock_ = std::make_unique<QLockFile>(lock_of(file_));
        lock_->setStaleLockTime(0); // it is ours as long as the process lives
        if (!lock_->tryLock(0))
            lock_.reset();
    }
    if (!lock_) {
        wrote(Error{"cannot be locked", file_.string(), ""});
        return;
    }
    document::Recovery recovery{session_.path().string(), session_.text(), session_.chosen_values(),
                                bench_.bench(session_.path().empty() ? folder_ / "untitled" : session_.path())};
    document::Look look;
    if (const AroundPtr around = look_.around()) {
        recovery.path = look_.path().string();
        recovery.active = static_cast<int>(around->active);
        look = around->look;
    }
    if (written_ && written_->first == recovery && written_->second == look)
        return;
    written_ = {recovery, look};
    writer_.start([this, file = file_, recovery = std::move(recovery), look = std::move(look)]() mutable {
        if (!look.steps.empty()) // which may hold megabytes of LUTs: written down here
        {
            for (document::LookStep& step : look.steps) // what comes back reads nothing but what it holds
                document::keep_used_files(step);
            recovery.look = document::look_text(look);
        }
        const std::string text = document::recovery_text(recovery);
        const Status status = write_file(file, text);
        // The keeper waits for this thread before it goes; a message that comes later than that is dropped with it.
        QMetaObject::invokeMethod(
            this, [this, status] { wrote(status); }, Qt::QueuedConnection);
    });
}

void RecoveryKeeper::wrote(const Status& status) {
    if (status) {
        told_ = false;
        emit kept();
        return;
    }
    written_.reset(); // tried again with the next change
    if (!std::exchange(told_, true))
        emit failed(Error{fmt::format("unsaved work cannot be kept: {}", status.error().text()), folder_.string(),
                          "Save often, or make room there."});
}

std::vector<LeftBehind> RecoveryKeeper::left_behind(const std::filesystem::path& folder) {
    std::vector<LeftBehind> all;
    std::error_code error;
    for (const auto& entry : std::filesystem::directory_iterator(folder, error)) {
        const std::filesystem::path& file = entry.path();
        if (file.extension() != ending)
            continue;
        if (const std::string name = file.filename().string(); name.starts_with('.')) {
            // A write that was cut short, ".NAME.PID-N.part": its program's file is the one before it. Cleared away
            // when that program is gone.
            const std::filesystem::path whole = folder / (name.substr(1, name.find('.', 1) - 1) + ending);
            QLockFile of_whole(lock_of(whole));
            of_whole.setStaleLockTime(0);
            std::error_code ignored;
            if (of_whole.tryLock(0))
                std::filesystem::remove(file, ignored);
            continue;
        }
        QLockFile lock(lock_of(file));
        lock.setStaleLockTime(0);
        if (!lock.tryLock(0))
            continue; // its program runs
        const Result<std::string> text = read_file(file, longest);
        if (!text)
            continue;
        if (Result<document::Recovery> recovery = document::recovery_of(text.value(), file.string()))
            all.push_back({file, std::move(recovery.value())});
    }
    return all;
}

void RecoveryKeeper::forget(const LeftBehind& left) {
    std::error_code error;
    std::filesystem::remove(left.file, error);
}

} // namespace kasuri::app
