#pragma once
#include "document/recovery_file.hpp"
#include "model/bench_keeper.hpp"
#include "model/session.hpp"

#include <QElapsedTimer>
#include <QObject>
#include <QThreadPool>
#include <QTimer>

#include <filesystem>
#include <memory>
#include <mutex>
#include <optional>
#include <utility>
#include <vector>

class QLockFile;

namespace kasuri::app {

/// Unsaved work that a program which is gone has left behind.
struct LeftBehind {
    std::filesystem::path file;
    document::Recovery recovery;
};

/// Writes unsaved work to a file of its own, at most a fifth of a second old, for the case that the program ends before
/// it is saved. The file goes when there is nothing unsaved. A lock beside it, which goes with the process, says whose
/// it is.
class RecoveryKeeper : public QObject {
    Q_OBJECT
public:
    /// `folder`: where the files of all running programs are; it is made when it is needed.
    RecoveryKeeper(Session& session, LookModel& look, BenchKeeper& bench, std::filesystem::path folder,
                   QObject* parent = nullptr);
    ~RecoveryKeeper() override;

    /// Writes what is unsaved now, or removes what was; on a thread of its own, for disks are slow.
    void write_now();
    /// Waits until that has been done.
    void finish() { writer_.waitForDone(); }
    /// How long a change may wait for that, in milliseconds; further changes do not put it off.
    int longest_wait() const { return soon_.interval(); }
    const std::filesystem::path& file() const { return file_; }

    /// What programs that run no more have left in the folder. What cannot be read is left out and left there.
    static std::vector<LeftBehind> left_behind(const std::filesystem::path& folder);
    static void forget(const LeftBehind& left);
    /// Of this user: in the application's data.
    static std::filesystem::path usual_folder();

signals:
    void kept();                             ///< what was unsaved when it was written stands in the file
    void failed(const kasuri::Error& error); ///< told once

private:
    void changed();
    void remove();
    void wrote(const Status& status);
    /// On the writer's thread; nothing if there is nothing to write any more.
    std::optional<Status> write_next();

    using Work = std::pair<document::Recovery, document::Look>; ///< the look, if it is one
    Session& session_;
    LookModel& look_;
    BenchKeeper& bench_;
    QTimer soon_;
    QElapsedTimer last_; ///< since it was written, or on its way
    std::filesystem::path folder_, file_;
    std::unique_ptr<QLockFile> lock_; ///< of the writer's thread: making it waits for the disk
    std::optional<Work> written_;     ///< or on its way
    std::mutex mutex_;
    std::optional<Work> next_; ///< to be written
    QThreadPool writer_;       ///< one thread: in the order in which it was asked
    bool told_ = false;
};

} // namespace kasuri::app
