#include "model/recovery_keeper.hpp"

#include "base/file.hpp"
#include "base/memory.hpp"
#include "document/look_text.hpp"

#include <QCoreApplication>
#include <QLockFile>
#include <QStandardPaths>

#include <atomic>
#include <fmt/format.h>
#include <utility>

namespace kasuri::app {
namespace {

constexpr int soon_ms = 150;
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
    {
        const std::lock_guard lock(mutex_);
        next_.reset();
    }
    writer_.start([this] {
        std::error_code error;
        if (lock_)
            std::filesystem::remove(file_, error);
    });
}

void RecoveryKeeper::changed() {
    // Not put off by what goes on: the first change at once, those that follow never older than that. Asked of a clock,
    // too, since the events of fast typing may come before those of the timer.
    if (!last_.isValid() || last_.hasExpired(soon_ms))
        write_now();
    else if (!soon_.isActive())
        soon_.start();
}

void RecoveryKeeper::write_now() {
    soon_.stop();
    if (!look_.modified()) {
        if (written_)
            remove();
        return;
    }
    last_.start();
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
    {
        const std::lock_guard lock(mutex_);
        next_ = {std::move(recovery), std::move(look)}; // in place of one that no disk had time for yet
    }
    // The keeper waits for this thread before it goes; a message that comes later than that is dropped with it.
    writer_.start([this] {
        std::optional<Status> status;
        const Status fits = within_memory("", [&]() -> Status {
            status = write_next();
            return {};
        });
        if (!fits)
            status = fits;
        if (status)
            QMetaObject::invokeMethod(
                this, [this, status] { wrote(*status); }, Qt::QueuedConnection);
    });
}

std::optional<Status> RecoveryKeeper::write_next() {
    std::optional<Work> work;
    {
        const std::lock_guard lock(mutex_);
        work.swap(next_);
    }
    if (!work)
        return std::nullopt; // a later one was written in its place
    if (!lock_) {
        std::error_code error;
        std::filesystem::create_directories(folder_, error);
        auto made = std::make_unique<QLockFile>(lock_of(file_));
        made->setStaleLockTime(0); // it is ours as long as the process lives
        if (!made->tryLock(0))
            return Error{error ? said("its folder cannot be made ({})", error.message())
                             : made->error() == QLockFile::PermissionError
                             ? said("nothing may be written there")
                             : said("nothing can be written there (is the disk full?)"),
                         folder_.string(), ""};
        lock_ = std::move(made);
    }
    auto& [recovery, look] = *work;
    if (!look.steps.empty()) {                      // which may hold megabytes of LUTs: written down here
        for (document::LookStep& step : look.steps) // what comes back reads nothing but what it holds
            document::keep_used_files(step);
        recovery.look = document::look_text(look);
    }
    // A few times a second: not for the disk.
    return write_file(file_, document::recovery_text(recovery), Lasts::end_of_program);
}

void RecoveryKeeper::wrote(const Status& status) {
    if (status) {
        told_ = false;
        emit kept();
        return;
    }
    written_.reset(); // tried again with the next change
    if (!std::exchange(told_, true))
        emit failed(Error{said("unsaved work cannot be kept: {}", status.error().what), folder_.string(),
                          "Save often, or make room there."});
}

std::vector<LeftBehind> RecoveryKeeper::left_behind(const std::filesystem::path& folder) {
    std::vector<LeftBehind> all;
    std::error_code error;
    remove_stale_temporaries(folder);
    for (const auto& entry : std::filesystem::directory_iterator(folder, error)) {
        const std::filesystem::path& file = entry.path();
        if (file.extension() != ending)
            continue;
        if (file.filename().string().starts_with('.'))
            continue; // is being written
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
