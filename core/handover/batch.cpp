#include "handover/batch.hpp"

#include "base/file.hpp"
#include "base/file_kind.hpp"
#include "base/movie_name.hpp"
#include "base/text.hpp"
#include "handover/movie.hpp"
#include "io/sequence.hpp"

#include <algorithm>
#include <atomic>
#include <cctype>
#include <charconv>
#include <chrono>
#include <fmt/format.h>
#include <map>
#include <mutex>
#include <new>
#include <set>
#include <system_error>
#include <thread>
#include <utility>

namespace kasuri::handover {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t max_items = 1'000'000;

std::optional<int> whole_number(std::string_view text) {
    int value = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    return error == std::errc() && end == text.data() + text.size() && value >= 0 ? std::optional(value) : std::nullopt;
}

bool is_picture(const fs::path& path) { return is_kind(path, FileKind::picture); }

/// Whether a file's name fits a pattern: * for any text, ? for one character, # in a run for digits, as many at least.
/// If it has a run of #, `digits` becomes what stands in its place. Takes length times length at most: of several *,
/// only the last one ever has to give way.
bool fits(std::string_view name, std::string_view pattern, std::string_view* digits = nullptr) {
    const auto is_digit = [](char c) { return std::isdigit(static_cast<unsigned char>(c)) != 0; };
    const std::size_t mark = pattern.find('#');
    if (mark != std::string_view::npos) {
        const std::size_t end = std::min(pattern.find_first_not_of('#', mark), pattern.size());
        // The digits are a run of their own: none stands before or behind it.
        for (std::size_t first = 0; first < name.size(); ++first) {
            if (!is_digit(name[first]) || (first > 0 && is_digit(name[first - 1])))
                continue;
            std::size_t last = first;
            while (last < name.size() && is_digit(name[last]))
                ++last;
            if (last - first >= end - mark && fits(name.substr(0, first), pattern.substr(0, mark)) &&
                fits(name.substr(last), pattern.substr(end))) {
                if (digits)
                    *digits = name.substr(first, last - first);
                return true;
            }
        }
        return false;
    }
    std::size_t n = 0, p = 0, star = std::string_view::npos, taken = 0;
    while (n < name.size()) {
        if (p < pattern.size() && (pattern[p] == '?' || pattern[p] == name[n]) && pattern[p] != '*') {
            ++n;
            ++p;
        } else if (p < pattern.size() && pattern[p] == '*') {
            star = p++;
            taken = n;
        } else if (star != std::string_view::npos) {
            p = star + 1;
            n = ++taken;
        } else {
            return false;
        }
    }
    while (p < pattern.size() && pattern[p] == '*')
        ++p;
    return p == pattern.size();
}

/// What happens to one picture is told of it, whatever it is: it must not end the others.
Result<io::SaveReport> rendered(const subject::Subject& subject, const RenderJob& job, const BatchItem& item,
                                const BatchOptions& options, std::size_t jobs, const CancelToken& cancel,
                                const std::function<void()>& step) {
    try {
        return item.frames.empty() ? render(subject, job, cancel)
                                   : render_movie(subject, job, item, options, jobs, cancel, step);
    } catch (const std::bad_alloc&) {
        return Error{"there is not enough memory for it", job.in.string(), "Render fewer pictures at a time (--jobs)."};
    } catch (const std::exception& failure) {
        return Error{failure.what(), job.in.string(), ""};
    }
}

/// A picture that was found, and its frame.
struct Found {
    fs::path path;
    std::optional<int> frame;
};

std::optional<int> frame_of(const fs::path& path) {
    const std::optional<io::FrameName> name = io::frame_name(path);
    return name ? whole_number(name->digits) : std::nullopt;
}

Status collect(const std::string& input, std::vector<Found>& found) {
    const fs::path path = input;
    std::error_code error;
    if (fs::is_directory(path, error)) {
        if (const Status readable = readable_folder(path); !readable)
            return readable;
        std::vector<fs::path> inside;
        for (fs::directory_iterator walk(path, error), end; !error && walk != end; walk.increment(error))
            if (is_picture(walk->path()) && !walk->path().filename().string().starts_with('.'))
                inside.push_back(walk->path());
        if (inside.empty())
            return Error{"has no pictures in it", input, "PNG, TIFF and EXR files are read."};
        std::sort(inside.begin(), inside.end());
        for (const fs::path& each : inside)
            found.push_back({each, frame_of(each)});
        return {};
    }
    const std::string name = path.filename().string();
    if (fs::exists(path, error) || name.find_first_of("*?#") == std::string::npos) {
        found.push_back({path, frame_of(path)});
        return {};
    }
    std::vector<Found> inside;
    const fs::path folder = path.parent_path().empty() ? fs::path(".") : path.parent_path();
    if (const Status readable = readable_folder(folder); !readable)
        return readable;
    for (fs::directory_iterator walk(folder, error), end; !error && walk != end; walk.increment(error)) {
        const std::string file = walk->path().filename().string();
        std::string_view digits;
        if (!fits(file, name, &digits) || (file.starts_with('.') && !name.starts_with('.')))
            continue; // hidden files are not meant: a killed program may have left one
        const fs::path where = path.parent_path().empty() ? walk->path().filename() : walk->path();
        inside.push_back({where, digits.empty() ? frame_of(where) : whole_number(digits)});
    }
    if (inside.empty())
        return Error{"fits no file", input, "In quotes, * stands for any letters and # for digits."};
    std::sort(inside.begin(), inside.end(), [](const Found& x, const Found& y) { return x.path < y.path; });
    found.insert(found.end(), inside.begin(), inside.end());
    return {};
}

/// The frames of movies in their place. One that is named is a picture like any other.
Status expand_movies(std::vector<Found>& found) {
    std::vector<Found> all;
    for (Found& each : found) {
        const MovieFrame movie = movie_frame(each.path);
        if (movie.movie.empty()) {
            all.push_back(std::move(each));
            continue;
        }
        const Result<image::MoviePlace> facts = io::movie_facts(each.path);
        if (!facts)
            return facts.error();
        if (!movie.at.empty()) {
            all.push_back({each.path, facts.value().frame});
            continue;
        }
        for (int number = 1; number <= facts.value().frames; ++number)
            all.push_back({frame_path(movie.movie, number), number});
    }
    found = std::move(all);
    return {};
}

/// The movie that a picture becomes a frame of; nothing: it becomes a file of its own.
std::optional<fs::path> movie_for(const BatchOrder& order, const fs::path& in, bool into_folder) {
    const MovieFrame movie = movie_frame(in);
    if (!into_folder)
        return is_kind(fs::path(order.output), FileKind::movie) ? std::optional<fs::path>(order.output) : std::nullopt;
    const bool wanted = is_kind("x" + order.ending, FileKind::movie);
    if (movie.movie.empty() ? !wanted : !order.ending.empty() && !wanted)
        return std::nullopt;
    fs::path name = movie.movie.filename();
    if (movie.movie.empty()) { // numbered pictures become a movie of their name
        const std::optional<io::FrameName> parts = io::frame_name(in);
        name = parts ? parts->before.substr(0, parts->before.find_last_not_of("._- ") + 1) : in.stem().string();
        if (name.empty())
            name = "frames";
        return fs::path(order.output) / (name.string() + order.ending);
    }
    const auto kinds = io::movie_kinds();
    const std::string own = lower_ending(name);
    if (!order.ending.empty())
        name.replace_extension(order.ending);
    else if (std::none_of(kinds.begin(), kinds.end(), [&](const io::MovieKind& kind) { return kind.ending == own; }))
        name.replace_extension(std::string(kinds.front().ending));
    return fs::path(order.output) / name;
}

fs::path output_for(const BatchOrder& order, const fs::path& in, std::optional<int> frame, bool into_folder) {
    if (into_folder) {
        fs::path name = file_of(in).filename();
        if (!order.ending.empty())
            name.replace_extension(order.ending);
        if (!movie_frame(in).movie.empty() && frame) // as numbered pictures are usually called
            name = fmt::format("{}.{:04}{}", name.stem().string(), *frame, order.ending);
        return fs::path(order.output) / name;
    }
    const std::size_t mark = order.output.find('#');
    if (mark == std::string::npos || !frame)
        return order.output;
    const std::size_t end = std::min(order.output.find_first_not_of('#', mark), order.output.size());
    return order.output.substr(0, mark) + fmt::format("{:0{}}", *frame, end - mark) + order.output.substr(end);
}

fs::path whole_path(const fs::path& path) {
    std::error_code error;
    const fs::path made = fs::weakly_canonical(path, error);
    return error ? path : made;
}

} // namespace

std::optional<std::vector<Frames>> read_frames(std::string_view text) {
    std::vector<Frames> all;
    for (const std::string_view part : split(text, ',')) {
        Frames frames;
        std::string_view range = trimmed(part);
        if (const std::size_t by = range.find('x'); by != std::string_view::npos) {
            const auto step = whole_number(range.substr(by + 1));
            if (!step || *step == 0)
                return std::nullopt;
            frames.step = *step;
            range = range.substr(0, by);
        }
        const std::size_t dash = range.find('-');
        const auto first = whole_number(range.substr(0, dash)),
                   last = dash == std::string_view::npos ? first : whole_number(range.substr(dash + 1));
        if (!first || !last || *last < *first)
            return std::nullopt;
        frames.first = *first;
        frames.last = *last;
        all.push_back(frames);
    }
    return all.empty() ? std::nullopt : std::optional(std::move(all));
}

std::optional<BatchPart> read_part(std::string_view text) {
    const std::size_t slash = text.find('/');
    if (slash == std::string_view::npos)
        return std::nullopt;
    const auto part = whole_number(text.substr(0, slash)), of = whole_number(text.substr(slash + 1));
    if (!part || !of || *part < 1 || *part > *of)
        return std::nullopt;
    return BatchPart{static_cast<std::size_t>(*part), static_cast<std::size_t>(*of)};
}

Result<std::vector<BatchItem>> batch_items(const BatchOrder& order) {
    std::vector<Found> found;
    for (const std::string& input : order.inputs)
        if (const Status collected = collect(input, found); !collected)
            return collected.error();
    const bool pattern = order.output.find('#') != std::string::npos;
    if (const Status expanded = expand_movies(found); !expanded)
        return expanded.error();
    std::error_code error;
    const bool folder = fs::is_directory(order.output, error) || order.output.ends_with('/') ||
        (!pattern && fs::path(order.output).extension().empty());
    if (found.size() > 1 && !folder && !pattern && !is_kind(fs::path(order.output), FileKind::movie))
        return Error{said("is one file, and there are {} pictures", found.size()), order.output,
                     "Give a folder, or a name with # for the digits of frames: out/river.####.exr."};
    std::vector<BatchItem> items;
    std::map<fs::path, fs::path> taken;
    std::set<fs::path> inputs;
    for (const Found& each : found)
        inputs.insert(whole_path(file_of(each.path)));
    const auto add = [&](BatchItem item) -> Status {
        const fs::path out = whole_path(item.out);
        if (inputs.contains(out))
            return Error{"would be written over one of the pictures that are read", item.out.string(),
                         "Give another folder or name."};
        if (const auto [other, fresh] = taken.try_emplace(out, item.in); !fresh)
            return Error{said("would be written twice, for {} and for {}", other->second.string(), item.in.string()),
                         item.out.string(), "Give a folder, or a name with more #."};
        items.push_back(std::move(item));
        return {};
    };
    BatchItem movie; // that is being put together
    for (const Found& each : found) {
        const fs::path& in = each.path;
        const std::optional<int> frame = each.frame;
        if (!order.frames.empty() &&
            (!frame || std::none_of(order.frames.begin(), order.frames.end(), [&](const Frames& f) {
                return f.contains(*frame);
            })))
            continue;
        if (const std::optional<fs::path> out = movie_for(order, in, folder)) {
            if (!movie.frames.empty() && movie.out != *out) {
                if (const Status added = add(std::exchange(movie, {})); !added)
                    return added.error();
            }
            if (movie.frames.empty())
                movie = {file_of(in), *out, {}, {}};
            movie.frames.push_back({in, frame});
            if (movie.frames.size() > max_items)
                return Error{said("are more than {} pictures", max_items), order.inputs.front(),
                             "Render them in parts."};
            continue;
        }
        if (pattern && !folder && !frame)
            return Error{"has no number in its name that could take the place of the #", in.string(),
                         "Give a folder to write into."};
        if (const Status added = add({in, output_for(order, in, frame, folder), frame}); !added)
            return added.error();
        if (items.size() > max_items)
            return Error{said("are more than {} pictures", max_items), order.inputs.front(), "Render them in parts."};
    }
    if (!movie.frames.empty())
        if (const Status added = add(std::move(movie)); !added)
            return added.error();
    if (items.empty())
        return Error{"no picture is left", said("{}", fmt::join(order.inputs, " ")),
                     order.frames.empty() ? "" : "None has a frame number in the range."};
    std::vector<BatchItem> mine;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (i % order.part.of == order.part.part - 1)
            mine.push_back(std::move(items[i]));
    return mine;
}

BatchReport render_all(const subject::Subject& subject, const std::vector<BatchItem>& items,
                       const BatchOptions& options, const CancelToken& cancel,
                       const std::function<void(const BatchEvent&)>& tell) {
    using Clock = std::chrono::steady_clock;
    const auto from = Clock::now();
    const auto seconds = [&] { return std::chrono::duration<double>(Clock::now() - from).count(); };
    BatchReport report;
    std::set<fs::path> folders; // what a killed run has left behind goes first
    for (const BatchItem& item : items)
        folders.insert(item.out.parent_path());
    for (const fs::path& folder : folders)
        remove_stale_temporaries(folder);
    std::mutex mutex;
    std::atomic<std::size_t> next = 0;
    std::size_t done = 0, left = 0, all = 0, ended = 0;
    for (const BatchItem& item : items)
        all += item.steps();
    // A picture in memory for each: more at a time than there are pictures, or threads by far, help nobody.
    constexpr std::size_t max_jobs = 256;
    const std::size_t cores = std::max(1u, std::thread::hardware_concurrency());
    const std::size_t jobs = std::clamp<std::size_t>(options.jobs == 0 ? cores : options.jobs, 1, max_jobs);
    const auto timed = [&](BatchEvent& event) {
        event.done = done;
        event.all = all;
        event.seconds = seconds();
        const std::size_t worked = done - left; // what was left took no time
        event.seconds_left =
            worked > 0 ? event.seconds / static_cast<double>(worked) * static_cast<double>(all - done) : 0;
    };
    const auto one = [&](const BatchItem& item) {
        BatchEvent event{item, BatchEvent::What::written};
        std::error_code missing;
        const auto out_time = fs::last_write_time(item.out, missing);
        auto in_time = fs::last_write_time(file_of(item.in), missing);
        for (const BatchFrame& frame : item.frames)
            if (frame.path.native().find('@') == std::string::npos) // of a movie it was asked already
                in_time = std::max(in_time, fs::last_write_time(frame.path, missing));
        RenderJob job = options.job;
        job.in = item.in;
        job.out = item.out;
        if (const auto said = options.in_spaces.find(item.in); said != options.in_spaces.end())
            job.in_space = said->second;
        std::size_t told = 0; // frames
        const std::string own =
            item.frames.empty() ? made_of(subject, job) : movie_made_of(subject, job, item, options);
        if (options.resume && !missing && out_time >= in_time && io::made_by(item.out) == own) {
            event.what = BatchEvent::What::left;
        } else {
            fs::create_directories(item.out.parent_path(), missing);
            const Result<io::SaveReport> made = rendered(subject, job, item, options, jobs, cancel, [&] {
                const std::lock_guard lock(mutex);
                if (++told == item.steps())
                    return; // the last one is told with the file
                ++done;
                BatchEvent frame{item, BatchEvent::What::frame};
                timed(frame);
                if (tell)
                    tell(frame);
            });
            if (made) {
                event.notes = made.value().notes;
                event.clipped = made.value().clipped;
                event.not_finite = made.value().not_finite;
            } else {
                event.what = BatchEvent::What::failed;
                event.error = made.error();
            }
        }
        const std::lock_guard lock(mutex);
        if (event.what == BatchEvent::What::failed && cancel.cancelled()) {
            ++report.called_off;
            return;
        }
        ++(event.what == BatchEvent::What::written    ? report.written
               : event.what == BatchEvent::What::left ? report.left
                                                      : report.failed);
        const std::size_t rest = item.steps() - std::min(told, item.steps() - 1);
        done += rest;
        left += event.what == BatchEvent::What::left ? rest : 0;
        ++ended;
        timed(event);
        if (tell)
            tell(event);
    };
    const auto worker = [&] {
        for (std::size_t i = next++; i < items.size(); i = next++) {
            if (cancel.cancelled())
                return;
            one(items[i]);
        }
    };
    // Frames of a movie are made several at a time; movies are written one after the other.
    const bool movies = std::any_of(items.begin(), items.end(), [](const BatchItem& i) { return !i.frames.empty(); });
    const std::size_t count = movies ? 1 : std::min(jobs, std::max<std::size_t>(items.size(), 1));
    std::vector<std::thread> threads;
    try {
        for (std::size_t i = 1; i < count; ++i)
            threads.emplace_back(worker);
    } catch (const std::system_error&) { // the system gives no more of them: those that there are do the work
    }
    worker();
    for (std::thread& thread : threads)
        thread.join();
    report.called_off = items.size() - ended;
    report.seconds = seconds();
    return report;
}

} // namespace kasuri::handover
