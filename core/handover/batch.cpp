#include "handover/batch.hpp"

#include "base/file.hpp"
#include "base/text.hpp"

#include <algorithm>
#include <atomic>
#include <cctype>
#include <charconv>
#include <chrono>
#include <fmt/format.h>
#include <map>
#include <mutex>
#include <set>
#include <thread>

namespace kasuri::handover {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t most_items = 1'000'000;
constexpr std::string_view picture_endings[] = {".png", ".tif", ".tiff", ".exr"};

std::optional<int> whole_number(std::string_view text) {
    int value = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    return error == std::errc() && end == text.data() + text.size() && value >= 0 ? std::optional(value) : std::nullopt;
}

bool is_picture(const fs::path& path) {
    return std::find(std::begin(picture_endings), std::end(picture_endings), lower_ending(path)) !=
        std::end(picture_endings);
}

/// * for any text, ? for one character, # in a run for digits, as many at least.
bool fits(std::string_view name, std::string_view pattern) {
    if (pattern.empty())
        return name.empty();
    if (pattern[0] == '*')
        return fits(name, pattern.substr(1)) || (!name.empty() && fits(name.substr(1), pattern));
    if (pattern[0] == '#') {
        const std::size_t run = std::min(pattern.find_first_not_of('#'), pattern.size());
        std::size_t digits = 0;
        while (digits < name.size() && std::isdigit(static_cast<unsigned char>(name[digits])) != 0)
            ++digits;
        return digits >= run && fits(name.substr(digits), pattern.substr(run));
    }
    return !name.empty() && (pattern[0] == '?' || pattern[0] == name[0]) && fits(name.substr(1), pattern.substr(1));
}

std::optional<int> frame_of(const fs::path& path) {
    const std::string stem = path.stem().string();
    const std::size_t last = stem.find_last_of("0123456789");
    if (last == std::string::npos)
        return std::nullopt;
    std::size_t first = last;
    while (first > 0 && std::isdigit(static_cast<unsigned char>(stem[first - 1])) != 0)
        --first;
    return whole_number(std::string_view(stem).substr(first, last + 1 - first));
}

Status collect(const std::string& input, std::vector<fs::path>& found) {
    const fs::path path = input;
    std::error_code error;
    if (fs::is_directory(path, error)) {
        std::vector<fs::path> inside;
        for (fs::directory_iterator walk(path, error), end; !error && walk != end; walk.increment(error))
            if (is_picture(walk->path()) && !walk->path().filename().string().starts_with('.'))
                inside.push_back(walk->path());
        if (inside.empty())
            return Error{"has no pictures in it", input, "PNG, TIFF and EXR files are read."};
        std::sort(inside.begin(), inside.end());
        found.insert(found.end(), inside.begin(), inside.end());
        return {};
    }
    const std::string name = path.filename().string();
    if (fs::exists(path, error) || name.find_first_of("*?#") == std::string::npos) {
        found.push_back(path);
        return {};
    }
    std::vector<fs::path> inside;
    const fs::path folder = path.parent_path().empty() ? fs::path(".") : path.parent_path();
    for (fs::directory_iterator walk(folder, error), end; !error && walk != end; walk.increment(error))
        if (fits(walk->path().filename().string(), name))
            inside.push_back(path.parent_path().empty() ? walk->path().filename() : walk->path());
    if (inside.empty())
        return Error{"fits no file", input, ""};
    std::sort(inside.begin(), inside.end());
    found.insert(found.end(), inside.begin(), inside.end());
    return {};
}

fs::path output_for(const BatchOrder& order, const fs::path& in, std::optional<int> frame, bool into_folder) {
    if (into_folder) {
        fs::path name = in.filename();
        if (!order.ending.empty())
            name.replace_extension(order.ending);
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
    std::vector<fs::path> found;
    for (const std::string& input : order.inputs)
        if (const Status collected = collect(input, found); !collected)
            return collected.error();
    const bool pattern = order.output.find('#') != std::string::npos;
    std::error_code error;
    const bool folder = fs::is_directory(order.output, error) || order.output.ends_with('/') ||
        (!pattern && fs::path(order.output).extension().empty());
    if (found.size() > 1 && !folder && !pattern)
        return Error{fmt::format("is one file, and there are {} pictures", found.size()), order.output,
                     "Give a folder, or a name with # for the digits of frames: out/river.####.exr."};
    std::vector<BatchItem> items;
    std::map<fs::path, fs::path> taken;
    std::set<fs::path> inputs;
    for (const fs::path& in : found)
        inputs.insert(whole_path(in));
    for (const fs::path& in : found) {
        const std::optional<int> frame = frame_of(in);
        if (!order.frames.empty() &&
            (!frame || std::none_of(order.frames.begin(), order.frames.end(), [&](const Frames& f) {
                return f.contains(*frame);
            })))
            continue;
        if (pattern && !folder && !frame)
            return Error{"has no number in its name that could take the place of the #", in.string(),
                         "Give a folder to write into."};
        BatchItem item{in, output_for(order, in, frame, folder), frame};
        const fs::path out = whole_path(item.out);
        if (inputs.contains(out))
            return Error{"would be written over one of the pictures that are read", item.out.string(),
                         "Give another folder or name."};
        if (const auto [other, fresh] = taken.try_emplace(out, in); !fresh)
            return Error{fmt::format("would be written twice, for {} and for {}", other->second.string(), in.string()),
                         item.out.string(), "Give a folder, or a name with more #."};
        items.push_back(std::move(item));
        if (items.size() > most_items)
            return Error{fmt::format("are more than {} pictures", most_items), order.inputs.front(),
                         "Render them in parts."};
    }
    if (items.empty())
        return Error{"no picture is left", fmt::format("{}", fmt::join(order.inputs, " ")),
                     order.frames.empty() ? "" : "None has a frame number in the range."};
    std::vector<BatchItem> mine;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (i % order.part.of == order.part.part - 1)
            mine.push_back(std::move(items[i]));
    return mine;
}

BatchReport render_all(const RenderWork& work, const std::vector<BatchItem>& items, const BatchOptions& options,
                       const CancelToken& cancel, const std::function<void(const BatchEvent&)>& tell) {
    using Clock = std::chrono::steady_clock;
    const auto from = Clock::now();
    const auto seconds = [&] { return std::chrono::duration<double>(Clock::now() - from).count(); };
    BatchReport report;
    std::mutex mutex;
    std::atomic<std::size_t> next = 0;
    std::size_t done = 0;
    const auto one = [&](const BatchItem& item) {
        BatchEvent event{item, BatchEvent::What::written};
        std::error_code missing;
        const auto out_time = fs::last_write_time(item.out, missing);
        const auto in_time = fs::last_write_time(item.in, missing);
        if (options.resume && !missing && out_time >= in_time &&
            (!options.younger_than || out_time >= *options.younger_than)) {
            event.what = BatchEvent::What::left;
        } else {
            fs::create_directories(item.out.parent_path(), missing);
            RenderJob job = options.job;
            job.in = item.in;
            job.out = item.out;
            if (const auto said = options.in_spaces.find(item.in); said != options.in_spaces.end())
                job.in_space = said->second;
            const Result<io::SaveReport> made = render(work, job, cancel);
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
        event.done = ++done;
        event.all = items.size();
        event.seconds = seconds();
        const std::size_t worked = done - report.left; // what was left took no time
        event.seconds_left =
            worked > 0 ? event.seconds / static_cast<double>(worked) * static_cast<double>(items.size() - done) : 0;
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
    const std::size_t cores = std::max(1u, std::thread::hardware_concurrency());
    const std::size_t count =
        std::clamp<std::size_t>(options.jobs == 0 ? cores : options.jobs, 1, std::max<std::size_t>(1, items.size()));
    std::vector<std::thread> threads;
    for (std::size_t i = 1; i < count; ++i)
        threads.emplace_back(worker);
    worker();
    for (std::thread& thread : threads)
        thread.join();
    report.called_off = items.size() - done;
    report.seconds = seconds();
    return report;
}

} // namespace kasuri::handover
