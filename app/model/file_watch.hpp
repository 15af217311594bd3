#pragma once
#include "model/session.hpp"

#include <QFileSystemWatcher>
#include <QTimer>

#include <cstdint>
#include <filesystem>
#include <map>
#include <string>

namespace kasuri::app {

/// Notices when somebody else changes the filter's file. What the bench has not touched follows it; changes of
/// different lines are merged; where both sides changed the same lines nothing happens until one of the ways is chosen.
class FileWatch : public QObject {
    Q_OBJECT
public:
    explicit FileWatch(Session& session, QObject* parent = nullptr);

    /// Whether the bench follows the file. A step of a look does not: then it is only told that somebody has changed
    /// it.
    void set_following(bool following);
    /// Looks at once; otherwise a moment after the file changes. True if nothing stands in the way of saving.
    bool look();
    /// Both sides have changed the same lines; `theirs` is what the file holds.
    bool clashes() const { return clash_; }
    /// Why the file cannot be read any more, though it is there; empty: it can, or there is none.
    const QString& unreadable() const { return unreadable_; }
    enum class Way { mine, theirs, merged };
    void choose(Way way);

    /// Another number when one of the files that the rule uses says something else now.
    std::uint64_t used_files() const { return used_files_; }

signals:
    void used_files_changed();
    void noticed(); ///< a file that is not followed may be another
    void said(const QString& message, bool bad);
    void clash_changed();

private:
    void watch();
    void look_at_used_files();
    void settle(const std::string& text, const QString& step, const QString& message);

    Session& session_;
    QFileSystemWatcher watcher_;
    QTimer pause_;
    std::filesystem::path path_;
    std::string theirs_;
    std::map<std::filesystem::path, std::string> used_; ///< what they said when they were looked at
    std::uint64_t used_files_ = 0;
    QString unreadable_;
    bool clash_ = false, gone_ = false, following_ = true;
};

} // namespace kasuri::app
