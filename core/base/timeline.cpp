#include "base/timeline.hpp"

#include <algorithm>
#include <chrono>
#include <ctime>
#include <fmt/format.h>
#include <memory>
#include <mutex>
#include <pthread.h>
#include <tuple>

namespace kasuri::timeline {

std::atomic<bool> detail::on{false};

namespace {

using Clock = std::chrono::steady_clock;

struct Piece {
    std::string_view what;
    std::int64_t from, to; ///< nanoseconds of the clock
    std::int64_t core;     ///< nanoseconds that the thread ran
};

/// What one thread has recorded. Its own lock is only ever waited for while somebody reads.
struct Row {
    std::mutex mutex;
    std::string name;
    std::vector<Piece> pieces;
};

struct Rows {
    std::mutex mutex;
    std::vector<std::shared_ptr<Row>> rows;
    std::int64_t began = 0;
};

Rows& all() {
    static Rows rows;
    return rows;
}

std::int64_t now() {
    return std::chrono::duration_cast<std::chrono::nanoseconds>(Clock::now().time_since_epoch()).count();
}

/// How long this thread has run so far.
std::int64_t core_time() {
    timespec time{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &time);
    return time.tv_sec * std::int64_t{1'000'000'000} + time.tv_nsec;
}

Row& own_row() {
    thread_local const std::shared_ptr<Row> row = [] {
        auto made = std::make_shared<Row>();
        char name[16] = {};
        pthread_getname_np(pthread_self(), name, sizeof name);
        const std::lock_guard lock(all().mutex);
        made->name = name;
        all().rows.push_back(made);
        return made;
    }();
    return *row;
}

/// A string of JSON: names are ours, but threads are named by anybody.
std::string json_string(const std::string& text) {
    std::string made = "\"";
    for (const char c : text)
        if (static_cast<unsigned char>(c) < 0x20)
            made += fmt::format("\\u{:04x}", static_cast<unsigned>(c));
        else
            (c == '"' || c == '\\' ? made += '\\' : made) += c;
    return made + '"';
}

} // namespace

void begin() {
    Rows& rows = all();
    const std::lock_guard lock(rows.mutex);
    for (const auto& row : rows.rows) {
        const std::lock_guard mine(row->mutex);
        row->pieces.clear();
    }
    rows.began = now();
    detail::on.store(true);
}

void end() { detail::on.store(false); }

std::vector<Record> records() {
    Rows& rows = all();
    const std::lock_guard lock(rows.mutex);
    std::vector<Record> made;
    for (std::size_t i = 0; i < rows.rows.size(); ++i) {
        const std::lock_guard mine(rows.rows[i]->mutex);
        for (const Piece& piece : rows.rows[i]->pieces)
            made.push_back({std::string(piece.what), static_cast<int>(i),
                            static_cast<double>(piece.from - rows.began) / 1e3,
                            static_cast<double>(piece.to - rows.began) / 1e3, static_cast<double>(piece.core) / 1e3});
    }
    std::stable_sort(made.begin(), made.end(), [](const Record& a, const Record& b) {
        return std::tuple(a.thread, a.from, -a.to) < std::tuple(b.thread, b.from, -b.to);
    });
    return made;
}

std::string as_json() {
    std::vector<std::string> events;
    {
        Rows& rows = all();
        const std::lock_guard lock(rows.mutex);
        for (std::size_t i = 0; i < rows.rows.size(); ++i)
            events.push_back(fmt::format(R"({{"name":"thread_name","ph":"M","pid":1,"tid":{},"args":{{"name":{}}}}})",
                                         i, json_string(rows.rows[i]->name)));
    }
    for (const Record& record : records())
        events.push_back(
            fmt::format(R"({{"name":{},"ph":"X","pid":1,"tid":{},"ts":{:.3f},"dur":{:.3f},"tdur":{:.3f}}})",
                        json_string(record.what), record.thread, record.from, record.to - record.from, record.core));
    return fmt::format("{{\"displayTimeUnit\":\"ms\",\"traceEvents\":[\n{}\n]}}\n", fmt::join(events, ",\n"));
}

void Stretch::open(std::string_view what) {
    what_ = what;
    from_ = now();
    core_ = core_time();
}

void Stretch::close() {
    constexpr std::int64_t joint = 50'000;
    const std::int64_t to = now(), core = core_time() - core_;
    Row& row = own_row();
    const std::lock_guard lock(row.mutex);
    if (joins_ && !row.pieces.empty()) {
        Piece& last = row.pieces.back();
        if (last.what == what_ && from_ >= last.to && from_ - last.to < joint) {
            last.to = to;
            last.core += core;
            return;
        }
    }
    row.pieces.push_back({what_, from_, to, core});
}

} // namespace kasuri::timeline
