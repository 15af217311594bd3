#include "model/recovery_keeper.hpp"

#include "base/file.hpp"

#include <QCoreApplication>
#include <QLockFile>
#include <QStandardPaths>

#include <atomic>
#include <fmt/format.h>

namespace kasuri::app {
namespace {

constexpr int soon_ms = 300;
constexpr const char* ending = ".kasuri-recovery";
constexpr std::size_t longest = 64u << 20;

QString lock_of(const std::filesystem::path& file) { return QString::fromStdString(file.string() + ".lock"); }

} // namespace

std::filesystem::path RecoveryKeeper::usual_folder() {
    return std::filesystem::path(QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation).toStdString()) / "recovery";
}

RecoveryKeeper::RecoveryKeeper(Session& session, BenchKeeper& bench, std::filesystem::path folder, QObject* parent)
    : QObject(parent), session_(session), bench_(bench), folder_(std::move(folder)) {
    static std::atomic<int> count = 0; // several windows of one program
    file_ = folder_ / fmt::format("{}-{}{}", QCoreApplication::applicationPid(), ++count, ending);
    soon_.setSingleShot(true);
    soon_.setInterval(soon_ms);
    connect(&soon_, &QTimer::timeout, this, &RecoveryKeeper::write_now);
    connect(&session_, &Session::text_changed, this, &RecoveryKeeper::changed);
    connect(&session_, &Session::values_changed, this, &RecoveryKeeper::changed);
    connect(&session_, &Session::file_changed, this, &RecoveryKeeper::changed);
}

RecoveryKeeper::~RecoveryKeeper() {
    // Left in order: what was not saved was given up.
    std::error_code error;
    if (lock_)
        std::filesystem::remove(file_, error);
}

void RecoveryKeeper::changed() {
    if (!soon_.isActive()) // not put off by what goes on: never older than that
        soon_.start();
}

void RecoveryKeeper::write_now() {
    soon_.stop();
    std::error_code error;
    if (!session_.modified()) {
        if (lock_)
            std::filesystem::remove(file_, error);
        written_.clear();
        return;
    }
    if (!lock_) {
        std::filesystem::create_directories(folder_, error);
        lock_ = std::make_unique<QLockFile>(lock_of(file_));
        lock_->setStaleLockTime(0); // it is ours as long as the process lives
        if (!lock_->tryLock(0))
            lock_.reset();
    }
    document::Recovery recovery{session_.path().string(), session_.text(), session_.chosen_values(), bench_.bench(session_.path().empty() ? folder_ / "untitled" : session_.path())};
    std::string text = document::recovery_text(recovery);
    if (text == written_)
        return;
    const Status status = lock_ ? write_file(file_, text) : Status(Error{"cannot be locked", file_.string(), ""});
    if (!status) {
        if (!std::exchange(told_, true))
            emit failed(Error{fmt::format("unsaved work cannot be kept: {}", status.error().text()), folder_.string(), "Save often, or make room there."});
        return;
    }
    told_ = false;
    written_ = std::move(text);
}

std::vector<LeftBehind> RecoveryKeeper::left_behind(const std::filesystem::path& folder) {
    std::vector<LeftBehind> all;
    std::error_code error;
    for (const auto& entry : std::filesystem::directory_iterator(folder, error)) {
        const std::filesystem::path& file = entry.path();
        if (file.extension() != ending)
            continue;
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
