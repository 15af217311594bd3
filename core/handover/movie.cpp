#include "handover/movie.hpp"

#include "base/digest.hpp"
#include "base/memory.hpp"
#include "base/movie_name.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <condition_variable>
#include <map>
#include <mutex>
#include <numeric>
#include <system_error>
#include <thread>

namespace kasuri::handover {
namespace {

/// Frames that several threads make and one takes in order.
class Line {
public:
    using Make = std::function<Result<Made>(std::size_t)>;
    Line(std::size_t count, std::size_t jobs, Make make) : count_(count), room_(2 * jobs), make_(std::move(make)) {
        try {
            for (std::size_t i = 0; i < std::min(jobs, count); ++i)
                threads_.emplace_back([this] { work(); });
        } catch (const std::system_error&) { // the system gives no more of them
            if (threads_.empty())
                throw;
        }
    }
    ~Line() {
        {
            const std::lock_guard lock(mutex_);
            stop_ = true;
        }
        changed_.notify_all();
        for (std::thread& thread : threads_)
            thread.join();
    }
    Line(const Line&) = delete;
    Line& operator=(const Line&) = delete;

    /// The next one; not to be called more than `count` times.
    Result<Made> take() {
        std::unique_lock lock(mutex_);
        changed_.wait(lock, [&] { return ready_.contains(taken_); });
        Result<Made> made = std::move(ready_.extract(taken_++).mapped());
        lock.unlock();
        changed_.notify_all();
        return made;
    }

private:
    void work() {
        for (;;) {
            std::size_t mine = 0;
            {
                std::unique_lock lock(mutex_);
                changed_.wait(lock, [&] { return stop_ || next_ >= count_ || next_ < taken_ + room_; });
                if (stop_ || next_ >= count_)
                    return;
                mine = next_++;
            }
            Result<Made> made = within_memory("", [&] { return make_(mine); });
            {
                const std::lock_guard lock(mutex_);
                ready_.emplace(mine, std::move(made));
            }
            changed_.notify_all();
        }
    }

    std::size_t count_, room_, next_ = 0, taken_ = 0;
    Make make_;
    std::mutex mutex_;
    std::condition_variable changed_;
    std::map<std::size_t, Result<Made>> ready_;
    bool stop_ = false;
    std::vector<std::thread> threads_;
};

/// The one movie that all frames are of, if they follow each other in it; else an empty path.
std::filesystem::path source_of(const BatchItem& item) {
    const std::filesystem::path movie = file_of(item.frames.front().path);
    for (std::size_t i = 0; i < item.frames.size(); ++i)
        if (movie_frame(item.frames[i].path).movie != movie || !item.frames[i].number ||
            *item.frames[i].number != *item.frames.front().number + static_cast<int>(i))
            return {};
    return movie;
}

} // namespace

std::optional<FrameRate> read_rate(std::string_view text) {
    const std::size_t slash = text.find('/');
    double rate = 0;
    const std::string_view first = text.substr(0, slash);
    auto [end, error] = std::from_chars(first.data(), first.data() + first.size(), rate);
    if (error != std::errc() || end != first.data() + first.size() || !(rate > 0) ||
        rate > (slash == std::string_view::npos ? 1e3 : 1e6))
        return std::nullopt;
    FrameRate found;
    if (slash != std::string_view::npos) {
        const std::string_view second = text.substr(slash + 1);
        const auto [stop, fault] = std::from_chars(second.data(), second.data() + second.size(), found.per);
        if (fault != std::errc() || stop != second.data() + second.size() || found.per < 1 || rate != std::floor(rate))
            return std::nullopt;
        found.rate = static_cast<int>(rate);
    } else if (const double whole = std::round(rate * 1.001);
               rate != std::floor(rate) && std::fabs(rate - whole / 1.001) < 0.005) {
        found = {static_cast<int>(whole) * 1000, 1001}; // 23.976, 29.97, 59.94
    } else {
        found = {static_cast<int>(std::lround(rate * 1000)), 1000};
    }
    const int shared = std::gcd(found.rate, found.per);
    found = {found.rate / shared, found.per / shared};
    return static_cast<double>(found.rate) / found.per <= 1000 ? std::optional(found) : std::nullopt;
}

std::string movie_made_of(const subject::Subject& subject, const RenderJob& job, const BatchItem& item,
                          const BatchOptions& options) {
    Digest digest;
    digest.add(made_of(subject, job));
    digest.add(options.codec);
    digest.add(static_cast<std::uint64_t>(options.rate ? options.rate->rate : 0));
    digest.add(static_cast<std::uint64_t>(options.rate ? options.rate->per : 0));
    for (const BatchFrame& frame : item.frames)
        digest.add(frame.path.string());
    return digest.text();
}

Result<io::SaveReport> render_movie(const subject::Subject& subject, const RenderJob& job, const BatchItem& item,
                                    const BatchOptions& options, std::size_t jobs, const CancelToken& cancel,
                                    const std::function<void()>& step) {
    io::MovieOrder order;
    order.out = item.out;
    order.codec = options.codec;
    order.made = movie_made_of(subject, job, item, options);
    std::vector<std::string> notes;
    const auto note = [&](const std::string& text) {
        if (std::find(notes.begin(), notes.end(), text) == notes.end())
            notes.push_back(text);
    };
    const bool of_movies = !movie_frame(item.frames.front().path).movie.empty();
    const std::filesystem::path source = source_of(item);
    if (of_movies) {
        const Result<image::MoviePlace> facts = io::movie_facts(item.frames.front().path);
        if (!facts)
            return facts.error();
        const image::MoviePlace& place = facts.value();
        if (place.rate > 0)
            order.rate = place.rate, order.per = place.per;
        order.timecode = place.timecode;
        const bool same_rate = !options.rate || *options.rate == FrameRate{order.rate, order.per};
        if (!source.empty() && same_rate) {
            order.sound_of = source;
            order.first = *item.frames.front().number;
            order.count = static_cast<int>(item.frames.size());
        } else {
            note(same_rate ? said("the frames do not follow each other in one movie: sound was left out")
                           : said("another rate was asked for: sound was left out"));
        }
    }
    if (options.rate)
        order.rate = options.rate->rate, order.per = options.rate->per;
    std::mutex reading; // one frame of a movie after the other: the next one is near then
    Line line(item.frames.size(), std::max<std::size_t>(jobs, 1), [&](std::size_t i) -> Result<Made> {
        if (cancel.cancelled())
            return Error{"called off", item.out.string(), "Nothing was written."};
        RenderJob own = job;
        own.in = item.frames[i].path;
        std::unique_lock lock(reading, std::defer_lock);
        if (of_movies)
            lock.lock();
        const Result<image::Image> loaded = io::load(own.in, own.in_space);
        if (of_movies)
            lock.unlock();
        return loaded ? made_image(subject, own, loaded.value(), cancel) : loaded.error();
    });
    std::size_t given = 0;
    Result<io::SaveReport> report = io::write_movie(order, [&]() -> Result<std::optional<image::Image>> {
        if (given > 0)
            step();
        if (given == item.frames.size())
            return std::optional<image::Image>();
        Result<Made> made = line.take();
        if (!made)
            return made.error();
        ++given;
        for (const std::string& text : made.value().notes)
            note(text);
        return std::optional(std::move(made.value().image));
    });
    if (report)
        report.value().notes.insert(report.value().notes.begin(), notes.begin(), notes.end());
    return report;
}

} // namespace kasuri::handover
