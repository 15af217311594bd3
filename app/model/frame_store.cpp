#include "model/frame_store.hpp"

#include "base/memory.hpp"
#include "base/movie_name.hpp"
#include "handover/render.hpp"

#include <algorithm>
#include <new>
#include <utility>

#if defined(__linux__)
#include <pthread.h>
#endif

namespace kasuri::app {
namespace {

constexpr std::size_t at_least = 2; ///< frames that are kept whatever the limit: the one that is shown, and the next

std::size_t bytes_of(const image::Image& image) {
    std::set<const image::PlaneData*> planes; // channels may share one
    std::size_t bytes = 0;
    for (const image::Channel& channel : image.channels)
        bytes += planes.insert(channel.plane.get()).second ? channel.plane->bytes() : 0;
    return bytes;
}

Result<image::Image> source_image_or_fault(const std::string& path, const std::string& space) {
    return within_memory(path, [&] { return handover::source_image(path, space); });
}

std::filesystem::file_time_type written(const std::string& path) {
    std::error_code none;
    return std::filesystem::last_write_time(file_of(path), none); // of a file that is gone: the least time
}

} // namespace

FrameStore::FrameStore(QObject* parent) : QObject(parent) {
    thread_ = std::thread([this] { loop(); });
}

FrameStore::~FrameStore() {
    {
        const std::lock_guard lock(mutex_);
        stop_ = true;
    }
    wake_.notify_one();
    thread_.join();
}

void FrameStore::want(std::vector<FrameFile> frames) {
    {
        const std::lock_guard lock(mutex_);
        wanted_ = std::move(frames);
    }
    wake_.notify_one();
}

void FrameStore::visit(std::vector<FrameFile> frames) {
    {
        const std::lock_guard lock(mutex_);
        std::reverse(frames.begin(), frames.end());
        visits_ = std::move(frames);
    }
    wake_.notify_one();
}

ImagePtr FrameStore::find(const FrameFile& frame) {
    const auto now = written(frame.path);
    const std::lock_guard lock(mutex_);
    const auto found = kept_.find(frame);
    if (found == kept_.end())
        return nullptr;
    if (found->second.written == now)
        return found->second.image;
    bytes_ -= found->second.bytes;
    kept_.erase(found);
    wake_.notify_one();
    return nullptr;
}

bool FrameStore::holds(const FrameFile& frame) const {
    const std::lock_guard lock(mutex_);
    return kept_.contains(frame);
}

bool FrameStore::is_broken(const FrameFile& frame) const {
    const std::lock_guard lock(mutex_);
    return broken_.contains(frame);
}

void FrameStore::forget_faults() {
    const std::lock_guard lock(mutex_);
    broken_.clear();
}

std::size_t FrameStore::bytes() const {
    const std::lock_guard lock(mutex_);
    return bytes_;
}

std::size_t FrameStore::limit() const {
    const std::lock_guard lock(mutex_);
    return limit_;
}

void FrameStore::set_limit(std::size_t bytes) {
    {
        const std::lock_guard lock(mutex_);
        limit_ = bytes;
        trim();
    }
    wake_.notify_one();
}

/// The next to be read: of what is wanted the first that is missing, unless those before it fill the memory.
std::optional<FrameStore::Task> FrameStore::next() const {
    std::size_t before = 0;
    for (std::size_t i = 0; i < wanted_.size(); ++i) {
        if (const auto found = kept_.find(wanted_[i]); found != kept_.end()) {
            before += found->second.bytes;
            continue;
        }
        if (broken_.contains(wanted_[i]))
            continue;
        if (i >= at_least && before + largest_ > limit_)
            break;
        return Task{wanted_[i], false};
    }
    if (!visits_.empty())
        return Task{visits_.back(), true};
    return std::nullopt;
}

void FrameStore::keep(const Task& task, Kept kept) {
    largest_ = std::max(largest_, kept.bytes);
    const bool wanted = std::find(wanted_.begin(), wanted_.end(), task.frame) != wanted_.end();
    if (!wanted && bytes_ + kept.bytes > limit_)
        return; // it was only looked at
    if (const auto found = kept_.find(task.frame); found != kept_.end()) {
        bytes_ -= found->second.bytes;
        kept_.erase(found);
    }
    bytes_ += kept.bytes;
    kept_.emplace(task.frame, std::move(kept));
    trim();
}

/// What nobody wants goes first, then what is wanted last.
void FrameStore::trim() {
    const auto drop = [this](std::map<FrameFile, Kept>::iterator entry) {
        bytes_ -= entry->second.bytes;
        return kept_.erase(entry);
    };
    for (auto entry = kept_.begin(); entry != kept_.end() && bytes_ > limit_;)
        entry =
            std::find(wanted_.begin(), wanted_.end(), entry->first) == wanted_.end() ? drop(entry) : std::next(entry);
    for (std::size_t i = wanted_.size(); i-- > at_least && bytes_ > limit_;)
        if (const auto found = kept_.find(wanted_[i]); found != kept_.end())
            drop(found);
}

void FrameStore::loop() {
#if defined(__linux__)
    pthread_setname_np(pthread_self(), "frames"); // for debuggers and profilers
#endif
    std::unique_lock lock(mutex_);
    while (true) {
        wake_.wait(lock, [this] { return stop_ || next(); });
        if (stop_)
            return;
        const Task task = *next();
        if (task.visit)
            visits_.pop_back();
        ImagePtr image;
        if (const auto found = kept_.find(task.frame);
            found != kept_.end() && found->second.written == written(task.frame.path)) // to be visited, and there
            image = found->second.image;
        lock.unlock();
        std::optional<Error> fault;
        Kept kept;
        if (!image) {
            kept.written = written(task.frame.path); // before it is read: what is written meanwhile is another file
            Result<image::Image> read = source_image_or_fault(task.frame.path, task.frame.space);
            if (read) {
                image = kept.image = std::make_shared<const image::Image>(std::move(read.value()));
                kept.bytes = bytes_of(*image);
            } else {
                fault = read.error();
            }
        }
        lock.lock();
        if (stop_)
            return;
        if (kept.image)
            keep(task, std::move(kept));
        if (fault)
            broken_.insert(task.frame);
        // On the interface thread; what is still on its way goes with this object.
        QMetaObject::invokeMethod(
            this,
            [this, frame = task.frame, image, fault] {
                if (fault)
                    emit failed(frame, *fault);
                else
                    emit arrived(frame, image);
            },
            Qt::QueuedConnection);
    }
}

} // namespace kasuri::app
