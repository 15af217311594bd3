#pragma once
#include "base/result.hpp"
#include "wire/link.hpp"

#include <chrono>
#include <filesystem>
#include <memory>
#include <string>

namespace kasuri::io {

/// The programs beside ours that do what a library might not come back from (helpers/): whatever a file does to the
/// library, the one who asked lives on.
enum class Task {
    pictures, ///< kasuri-pictures: reads, writes and resizes with OpenImageIO
    movies,   ///< kasuri-movies: reads and writes movies with the libraries of FFmpeg
    tables,   ///< kasuri-tables: tries LUTs, colour decisions and configs with OpenColorIO
};

/// One of them, running, for one who asks at a time.
class Helper {
public:
    /// Starts it. An error says why it cannot be.
    static Result<std::unique_ptr<Helper>> started(Task task);
    ~Helper();
    Helper(const Helper&) = delete;
    Helper& operator=(const Helper&) = delete;

    /// What the errors below name as their place.
    void about(std::string where) { where_ = std::move(where); }
    /// Sends and returns at once.
    Status tell(const wire::Message& message);
    /// The next answer; words of being alive are waited through. Error: it ended, it said nothing for too long, or said
    /// what nobody understands. It is of no use any more then, and not running.
    Result<wire::Message> answer();
    Result<wire::Message> ask(const wire::Message& message);
    /// Whether it can be asked again.
    bool sound() const { return sound_; }
    /// It has done what it was asked and has nothing open: only then somebody else may ask it. Until it is said, and
    /// after anything that went wrong, it goes with its lease: a library that has met a broken file may have kept
    /// something of it, and an answer that nobody took would be taken for the next one.
    void rest() { resting_ = sound_; }
    bool resting() const { return resting_; }
    void wake() { resting_ = false; }
    /// Whether its process is still there; it may have been ended while it waited.
    bool running();
    wire::Slots& slots() { return slots_; }

private:
    Helper(int process, wire::Link link, wire::Slots slots, Task task);
    Error ended(std::string_view why);

    int process_;
    wire::Link link_;
    wire::Slots slots_;
    Task task_;
    bool sound_ = true, resting_ = false;
    std::string where_;
};

/// One that waits for work, or a new one. When the lease ends it is ended, or kept if it rests, so that the next
/// picture costs no start.
class HelperLease {
public:
    static Result<HelperLease> of(Task task, const std::string& about);
    ~HelperLease();
    HelperLease(HelperLease&&) noexcept = default;
    HelperLease& operator=(HelperLease&&) = delete;
    Helper* operator->() const { return helper_.get(); }
    Helper& operator*() const { return *helper_; }
    explicit operator bool() const { return helper_ != nullptr; } ///< false once it was moved from

private:
    explicit HelperLease(Task task, std::unique_ptr<Helper> helper) : task_(task), helper_(std::move(helper)) {}
    Task task_;
    std::unique_ptr<Helper> helper_;
};

/// For tests: this program in place of the usual one (empty: the usual one), and how long an answer is waited for.
/// Those that wait for work are ended.
void use_helper(Task task, const std::filesystem::path& program = {},
                std::chrono::milliseconds patience = std::chrono::seconds(60));

/// Ends those that wait for work; the next one who asks starts another.
void end_resting_helpers();

/// Starts one that waits for work, if none does: whoever will soon read pictures need not wait for its libraries then.
void warm_up_helper(Task task);

} // namespace kasuri::io
