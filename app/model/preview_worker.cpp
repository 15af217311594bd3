#include "model/preview_worker.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "engine/lower.hpp"
#include "model/display.hpp"

#include <algorithm>
#include <chrono>
#include <fmt/format.h>

namespace kasuri::app {
namespace {

using Clock = std::chrono::steady_clock;
double milliseconds(Clock::time_point from) { return std::chrono::duration<double, std::milli>(Clock::now() - from).count(); }

/// Names a picture as well as its settings.
std::string key_of(const std::string& source, const std::vector<double>& settings) {
    std::string key = source;
    for (const double value : settings)
        key += fmt::format("|{:.17g}", value);
    return key;
}

} // namespace

bool PreviewWorker::check(const std::string& text, const std::filesystem::path& path) {
    const std::uint64_t spaces = colour::spaces_generation();
    if (checked_ && text == text_ && path == path_ && spaces == spaces_)
        return false;
    if (spaces != spaces_) { // another colour config: names may mean something else
        shown_before_.clear();
        measured_before_.clear();
        forget_after();
    }
    spaces_ = spaces;
    text_ = text;
    path_ = path;
    const auto from = Clock::now();
    lang::CheckOptions options;
    options.open = document::used_beside(path);
    checked_ = std::make_shared<const lang::Checked>(lang::check(text, proof::vocabulary(), options));
    if (checked_->ok) {
        if (good_ && engine::working_space(good_->rule) != engine::working_space(checked_->rule))
            measured_before_.clear();
        good_ = checked_;
        proved_.clear();
        programs_.clear();
        sources_.clear();
        forget_after();
        program("");
    }
    check_ms_ = milliseconds(from);
    return true;
}

void PreviewWorker::set_values(std::vector<double> values) {
    if (values == values_)
        return;
    values_ = std::move(values);
    forget_after();
}

const engine::Program& PreviewWorker::program(const std::string& space) {
    engine::ProgramPtr& entry = programs_[space];
    if (!entry) {
        engine::CompileOptions options;
        options.in_space = space;
        options.out_space = space;
        options.source_spaces.assign(good_->rule.sources.size(), space); // they are of the same file
        entry = engine::compile(good_->rule, options);
    }
    return *entry;
}

std::shared_ptr<SheetResult> PreviewWorker::sheet(const PreviewRequest& request, bool fresh, const CancelToken& cancel) {
    auto result = std::make_shared<SheetResult>();
    if (request.screen != screen_) {
        screen_ = request.screen;
        shown_before_.clear();
        shown_after_.clear();
    }
    result->screen = screen_;
    const std::string working(engine::working_space(rule()));
    result->operations = program("").operations();
    result->check_ms = fresh ? check_ms_ : 0;
    for (const CellJob& job : request.cells)
        if (job.pixels.width() > 0 && job.pixels.height() > 0) {
            std::optional<CellResult> cell = this->cell(job, working, cancel);
            if (!cell)
                return nullptr;
            result->cells.push_back(std::move(*cell));
        }
    if (request.strip_pixels > 0)
        for (const StripJob& job : request.strips) {
            std::optional<StripResult> strip = this->strip(job, *result, request.strip_pixels, working, cancel);
            if (!strip)
                return nullptr;
            if (strip->before.width > 0)
                result->strips.push_back(std::move(*strip));
        }
    result->missing_sources = missing_sources(request);
    forget_unused(request);
    return result;
}

std::optional<StripResult> PreviewWorker::strip(const StripJob& job, const SheetResult& sheet, int pixels, const std::string& working, const CancelToken& cancel) {
    StripResult strip;
    strip.id = job.id;
    strip.target = job.target;
    if (job.target) {
        strip.axis = targets::axis_of(*job.target, job.settings);
        strip.before = targets::make(*job.target, pixels, job.settings);
        if (job.target->space.empty())
            strip.before.space = working;
        const bool own = !job.target->space.empty();
        if (!run(program(own ? strip.before.space : ""), strip.before, strip.after, cancel))
            return std::nullopt;
        return strip;
    }
    // A cut: what the cell's picture has along its line.
    const auto cell = std::find_if(sheet.cells.begin(), sheet.cells.end(), [&](const CellResult& c) { return c.id == job.cell; });
    if (cell == sheet.cells.end())
        return strip; // its picture is being read
    strip.before = readings::along(*cell->before_pixels, job.line);
    strip.after = readings::along(*cell->after_pixels, job.line);
    strip.axis = {0, static_cast<double>(strip.before.width), targets::Scale::linear, {}, ""};
    return strip;
}

const engine::BoundSources& PreviewWorker::sources_in(const ImagePtr& file) {
    const auto found = sources_.find(file);
    if (found != sources_.end())
        return found->second;
    std::vector<PicturePtr> pictures;
    for (const lang::SourceInput& source : rule().sources)
        pictures.push_back(file ? engine::source_in(*file, source.name) : nullptr);
    return sources_[file] = engine::bind_sources(rule(), pictures);
}

std::vector<std::string> PreviewWorker::missing_sources(const PreviewRequest& request) {
    std::vector<ImagePtr> files;
    for (const CellJob& job : request.cells)
        if (job.file)
            files.push_back(job.file);
    if (files.empty())
        files.push_back(nullptr);
    std::vector<std::string> missing;
    std::size_t plane = 0;
    for (const lang::SourceInput& source : rule().sources) {
        if (std::any_of(files.begin(), files.end(), [&](const ImagePtr& file) { return !sources_in(file).planes[plane].data; }))
            missing.push_back(source.name);
        plane += static_cast<std::size_t>(width(source.type));
    }
    return missing;
}

bool PreviewWorker::run(const engine::Program& program, const image::Picture& before, image::Picture& after, const CancelToken& cancel, const ImagePtr& file) {
    const engine::BoundSources& bound = sources_in(file);
    std::optional<image::Picture> made = engine::evaluate(program, before, values_, cancel, nullptr, &pool_, bound.planes);
    if (made)
        after = std::move(*made);
    return made.has_value();
}

std::optional<CellResult> PreviewWorker::cell(const CellJob& job, const std::string& working, const CancelToken& cancel) {
    const bool of_working = job.target && job.target->space.empty(); // its numbers are the rule's
    const std::string key = key_of(of_working ? job.source + "|" + working : job.source, job.settings);
    PicturePtr before = job.picture;
    if (!before) {
        PicturePtr& made = generated_[key];
        if (!made) {
            image::Picture picture = targets::make(*job.target, 0, job.settings);
            if (of_working)
                picture.space = working;
            made = std::make_shared<const image::Picture>(std::move(picture));
        }
        before = made;
    }
    PicturePtr& after = after_[key];
    if (!after) {
        image::Picture picture;
        if (!run(program(of_working ? "" : before->space), *before, picture, cancel, job.file))
            return std::nullopt;
        after = std::make_shared<const image::Picture>(std::move(picture));
    }
    CellResult result;
    result.id = job.id;
    result.space = before->space;
    result.working = working;
    result.before_pixels = before;
    result.after_pixels = after;
    result.region = job.region.isNull() ? QRect(0, 0, before->width, before->height) : job.region;
    const Lens& through = lens(job.lens);
    const Shown shape{key, job.lens, job.pixels.width(), job.pixels.height(), job.region.x(), job.region.y(), job.region.width(), job.region.height()};
    const auto painted = [&](std::map<Shown, Painted>& cache, std::map<Size, image::Picture>& small_cache, const image::Picture& picture) {
        Painted& entry = cache[shape];
        if (entry.image.isNull()) {
            const image::Picture* other = through.compares ? &small(small_before_, key, job, *before) : nullptr;
            entry.image = shown(small(small_cache, key, job, picture), through, screen_, &entry.outside, &views_, other);
        }
        return entry;
    };
    const Painted was = painted(shown_before_, small_before_, *before), is = painted(shown_after_, small_after_, *after);
    result.before = was.image;
    result.outside_before = was.outside;
    result.after = is.image;
    result.outside_after = is.outside;
    return result;
}

std::shared_ptr<ReadingsResult> PreviewWorker::readings(const PreviewRequest& request, const SheetResult& sheet, const CancelToken& cancel) {
    auto result = std::make_shared<ReadingsResult>();
    std::map<std::string, MeasuredPtr> used_before, used_after;
    for (const ReadingJob& job : request.readings) {
        std::string key = key_of(std::string(job.reading->name), job.settings) + fmt::format("|{} {} {} {}", job.line.x0, job.line.y0, job.line.x1, job.line.y1);
        if (job.reading->about == readings::About::pictures)
            for (const int id : job.cells)
                for (const CellJob& cell : request.cells)
                    if (cell.id == id)
                        key += "|" + key_of(cell.source, cell.settings);
        const auto of = [&](std::map<std::string, MeasuredPtr>& cache, std::map<std::string, MeasuredPtr>& used, bool after) {
            MeasuredPtr& entry = cache[key];
            if (!entry)
                if (auto made = measured(job, sheet, after, cancel))
                    entry = std::make_shared<const readings::Measured>(std::move(*made));
            used[key] = entry;
            return entry;
        };
        ReadingResult reading{job.id, job.reading, job.reading->panels(completed(job.reading->settings, job.settings)), of(measured_before_, used_before, false), nullptr};
        reading.after = of(measured_after_, used_after, true);
        if (!reading.before || !reading.after) {
            std::erase_if(measured_before_, [](const auto& entry) { return !entry.second; });
            std::erase_if(measured_after_, [](const auto& entry) { return !entry.second; });
            return nullptr;
        }
        result->readings.push_back(std::move(reading));
    }
    measured_before_ = std::move(used_before);
    measured_after_ = std::move(used_after);
    return result;
}

std::optional<readings::Measured> PreviewWorker::measured(const ReadingJob& job, const SheetResult& sheet, bool after, const CancelToken& cancel) {
    readings::Subject subject;
    for (const int id : job.cells)
        for (const CellResult& cell : sheet.cells)
            if (cell.id == id)
                subject.pictures.push_back(after ? cell.after_pixels.get() : cell.before_pixels.get());
    subject.rule = [&](const image::Picture& picture) -> std::optional<image::Picture> {
        if (!after)
            return picture;
        image::Picture made;
        return run(program(""), picture, made, cancel) ? std::optional(std::move(made)) : std::nullopt;
    };
    subject.working = engine::working_space(rule());
    subject.settings = completed(job.reading->settings, job.settings);
    subject.line = job.line;
    subject.views = &views_;
    subject.cancel = cancel;
    return job.reading->measure(subject);
}

std::optional<proof::Outcome> PreviewWorker::proved(std::size_t index, const lang::ProofLine& line, const CancelToken& cancel) {
    if (const auto known = proved_.find(index); known != proved_.end())
        return known->second;
    const std::vector<std::vector<double>> settings = {values_};
    std::optional<proof::Outcome> outcome = proof::check(rule(), program(""), line, settings, cancel);
    if (const proof::Function* function = proof::find(line.function); outcome && function && function->at_defaults)
        proved_[index] = *outcome;
    return outcome;
}

void PreviewWorker::forget_unused(const PreviewRequest& request) {
    std::erase_if(sources_, [&](const auto& entry) {
        return entry.first && std::none_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) { return job.file == entry.first; });
    });
    const auto unused = [&](const std::string& key, int width, int left, int top) {
        return std::none_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) {
            return key.starts_with(job.source) && width == job.pixels.width() && left == job.region.x() && top == job.region.y();
        });
    };
    for (auto* cache : {&shown_before_, &shown_after_})
        std::erase_if(*cache, [&](const auto& entry) { return unused(std::get<0>(entry.first), std::get<2>(entry.first), std::get<4>(entry.first), std::get<5>(entry.first)); });
    for (auto* cache : {&small_before_, &small_after_})
        std::erase_if(*cache, [&](const auto& entry) { return unused(std::get<0>(entry.first), std::get<1>(entry.first), std::get<3>(entry.first), std::get<4>(entry.first)); });
    for (auto* cache : {&generated_, &after_})
        std::erase_if(*cache, [&](const auto& entry) {
            return std::none_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) { return entry.first.starts_with(job.source); });
        });
}

void PreviewWorker::forget_after() {
    after_.clear();
    shown_after_.clear();
    small_after_.clear();
    measured_after_.clear();
}

const image::Picture& PreviewWorker::small(std::map<Size, image::Picture>& cache, const std::string& key, const CellJob& job, const image::Picture& picture) {
    image::Picture& entry = cache[{key, job.pixels.width(), job.pixels.height(), job.region.x(), job.region.y(), job.region.width(), job.region.height()}];
    if (!entry.planes[0])
        entry = reduced(picture, job.pixels.width(), job.pixels.height(), job.region);
    return entry;
}

} // namespace kasuri::app
