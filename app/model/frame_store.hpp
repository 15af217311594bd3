#pragma once
#include "base/result.hpp"
#include "model/picture_ptr.hpp"

#include <QObject>

#include <condition_variable>
#include <cstdint>
#include <filesystem>
#include <map>
#include <mutex>
#include <optional>
#include <set>
#include <string>
#include <thread>
#include <vector>

namespace kasuri::app {

/// A picture file, and what its numbers are said to mean; empty: what the file says.
struct FrameFile {
    std::string path, space;
    friend auto operator<=>(const FrameFile&, const FrameFile&) = default;
};

/// Picture files that are read ahead on a thread of its own and kept within a stated memory.
class FrameStore : public QObject {
    Q_OBJECT
public:
    explicit FrameStore(QObject* parent = nullptr);
    ~FrameStore() override;

    /// What is needed, the most urgent first; replaces what was needed before. Read in this order and kept, as far as
    /// the memory goes (two at least); what is not needed makes room.
    void want(std::vector<FrameFile> frames);
    /// To be read once each, when nothing that is wanted is missing: `arrived` tells of each. Replaces earlier ones.
    void visit(std::vector<FrameFile> frames);
    /// Null if it is not there, or has been written again since it was read.
    ImagePtr find(const FrameFile& frame);
    /// Whether it is in memory, whatever the file is now: asks no disk.
    bool holds(const FrameFile& frame) const;
    /// Whether it could not be read.
    bool is_broken(const FrameFile& frame) const;
    /// Tries again what could not be read.
    void forget_faults();

    std::size_t bytes() const;
    std::size_t limit() const;
    void set_limit(std::size_t bytes);
    static constexpr std::size_t usual_limit = std::size_t{1} << 30;

signals:
    void arrived(const kasuri::app::FrameFile& frame, const kasuri::app::ImagePtr& image);
    void failed(const kasuri::app::FrameFile& frame, const kasuri::Error& error);

private:
    struct Kept {
        ImagePtr image;
        std::size_t bytes = 0;
        std::filesystem::file_time_type written; ///< when the file was, as it was read
    };
    struct Task {
        FrameFile frame;
        bool visit = false;
    };
    void loop();
    std::optional<Task> next() const;
    void keep(const Task& task, Kept kept);
    void trim();

    mutable std::mutex mutex_;
    std::condition_variable wake_;
    std::vector<FrameFile> wanted_;
    std::vector<FrameFile> visits_; ///< the next one last
    std::map<FrameFile, Kept> kept_;
    std::set<FrameFile> broken_;
    std::size_t bytes_ = 0, limit_ = usual_limit, largest_ = 0;
    bool stop_ = false;
    std::thread thread_;
};

} // namespace kasuri::app
