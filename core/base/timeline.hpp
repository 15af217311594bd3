#pragma once
#include <atomic>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

/// What each thread did and when: for finding out where time goes. Off unless `begin` was called; a stretch costs the
/// reading of one flag then.
namespace kasuri::timeline {

namespace detail {
extern std::atomic<bool> on;
}

/// Forgets what was recorded and records from now on.
void begin();
/// No more is recorded.
void end();

/// What was recorded between `begin` and `end`, as JSON in the Trace Event Format (an object with `traceEvents`, times
/// in microseconds since `begin`, a row for each thread by its name): trace viewers open it. Nothing may be recording.
std::string as_json();

/// One stretch of one kind of work on one thread, in microseconds since `begin`.
struct Record {
    std::string what;
    int thread;
    double from, to;
    double core; ///< for how much of it the thread had a core
};
/// The same as data, by thread and then by time; what lies inside another comes after it.
std::vector<Record> records();

/// Records from its making to its end what its thread is doing. `what` must outlive the recording, as a
/// literal does.
class Stretch {
public:
    explicit Stretch(std::string_view what) : Stretch(what, false) {}
    ~Stretch() {
        if (!what_.empty())
            close();
    }
    Stretch(const Stretch&) = delete;
    Stretch& operator=(const Stretch&) = delete;

protected:
    Stretch(std::string_view what, bool joins) : joins_(joins) {
        if (detail::on.load(std::memory_order_relaxed))
            open(what);
    }

private:
    void open(std::string_view what);
    void close();
    std::string_view what_;
    std::int64_t from_ = 0, core_ = 0;
    bool joins_;
};

/// A stretch of many small pieces, as of loops shared by all cores: pieces that follow each other within 50
/// microseconds on a thread are one.
class Share : public Stretch {
public:
    explicit Share(std::string_view what) : Stretch(what, true) {}
};

} // namespace kasuri::timeline
