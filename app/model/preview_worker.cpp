#include "model/preview_worker.hpp"

#include "colour/space.hpp"
#include "handover/look_sums.hpp"
#include "insight/algebra.hpp"
#include "insight/summary.hpp"
#include "model/display.hpp"

#include <algorithm>
#include <fmt/format.h>
#include <utility>

namespace kasuri::app {
namespace {

/// Names a picture as well as its settings.
std::string key_of(const std::string& source, const std::vector<double>& settings) {
    std::string key = source;
    for (const double value : settings)
        key += fmt::format("|{:.17g}", value);
    return key;
}

constexpr std::string_view take_mark = "|take ";

/// Names a take by what it makes of a picture.
std::string take_key(const document::KeptTake& take) {
    std::string key = fmt::format("{:x}", std::hash<std::string>{}(take.text));
    for (const auto& [name, value] : take.values)
        key += fmt::format(" {}={:.17g}", name, value);
    return key;
}

} // namespace

bool PreviewWorker::take(const PreviewRequest& request) {
    if (path_ != request.path || given_ != request.sources) { // takes look for the same files and pictures
        path_ = request.path;
        given_ = request.sources;
        forget_takes();
    }
    if (const std::uint64_t spaces = colour::spaces_generation();
        spaces != spaces_) { // another colour config: names may mean something else
        spaces_ = spaces;
        forget_before();
        forget_after();
        forget_takes();
    }
    const document::LookStep* const step = request.around && !request.around->look.steps.empty()
        ? &request.around->look.steps[request.around->in_hand]
        : nullptr;
    const RuleState::Change change =
        rule_.check(request.text, request.path, step ? step->uses : std::map<std::string, std::string>());
    if (change == RuleState::Change::rule) {
        proved_.clear();
        curves_.reset();
        forget_after();
    }
    fresh_ = change != RuleState::Change::none;
    if (!has_rule())
        return fresh_;
    if (rule_.set_values(values_for(rule(), request.values)))
        forget_after();
    if (rule_.set_given(request.sources))
        forget_after();
    if (rule_.set_around(request.around))
        forget_after();
    if (request.around != around_ && !(request.around && around_ && *request.around == *around_)) {
        around_ = request.around;
        forget_takes();
    }
    if (const std::string working = rule_.entry(); working != std::exchange(working_, working))
        measured_before_.clear();
    const bool compared = compares_;
    if (request.against) {
        const OtherRule& other = *request.against;
        const bool is_before = other.is_before && request.around;
        if (against_.check(is_before ? request.text : other.text, is_before ? request.path : other.path) ==
            RuleState::Change::rule)
            forget_before();
        compares_ = against_.has_rule() && (is_before || against_.last_checked()->ok) && is_before == other.is_before;
        if (compares_) {
            const bool values =
                           against_.set_values(values_for(against_.rule(), is_before ? request.values : other.values)),
                       given = against_.set_given(request.sources);
            const bool around = against_.set_around(is_before || other.in_step ? request.around : other.around,
                                                    is_before ? Part::before : Part::shown);
            if (values || given || around)
                forget_before();
        }
    } else {
        compares_ = false;
    }
    if (compares_ != compared)
        forget_before();
    return fresh_;
}

bool PreviewWorker::coarse_helps(const PreviewRequest& request) {
    if (rule_.program("").passes().size() > 1 || (compares_ && against_.program("").passes().size() > 1))
        return false;
    return std::any_of(request.cells.begin(), request.cells.end(), [](const CellJob& job) {
        return job.picture && job.region.isNull() && job.pixels.width() < job.picture->width &&
            job.pixels.height() < job.picture->height;
    });
}

std::shared_ptr<SheetResult> PreviewWorker::sheet(const PreviewRequest& request, bool coarse,
                                                  const CancelToken& cancel) {
    auto result = std::make_shared<SheetResult>();
    if (request.screen != screen_) {
        screen_ = request.screen;
        shown_before_.clear();
        shown_after_.clear();
    }
    result->screen = screen_;
    result->coarse = coarse;
    result->operations = rule_.program("").operations();
    result->check_ms = fresh_ ? rule_.check_ms() : 0;
    for (const auto& [index, fault] : rule_.faults())
        result->step_faults.emplace_back(index, fault.what);
    if (request.against && request.against->is_before && !compares_)
        result->against_fault = "there is no look of several steps";
    else if (request.against && !compares_)
        result->against_fault = against_.last_checked()->diagnostics.empty()
            ? "it does not compile"
            : lang::message(against_.last_checked()->diagnostics.front());
    for (const CellJob& job : request.cells)
        if (job.pixels.width() > 0 && job.pixels.height() > 0) {
            std::optional<CellResult> cell = this->cell(job, coarse, cancel);
            if (!cell)
                return nullptr;
            result->cells.push_back(std::move(*cell));
        }
    if (request.strip_pixels > 0)
        for (const StripJob& job : request.strips) {
            std::optional<StripResult> strip = this->strip(job, *result, request.strip_pixels, cancel);
            if (!strip)
                return nullptr;
            if (strip->before.width > 0)
                result->strips.push_back(std::move(*strip));
        }
    for (lang::SourceInput& source : rule_.sources())
        if (std::none_of(result->sources.begin(), result->sources.end(),
                         [&](const lang::SourceInput& known) { return known.name == source.name; }))
            result->sources.push_back(std::move(source));
    result->missing_sources = missing_sources(request);
    result->trace = trace(request);
    result->text = rule_.text();
    forget_unused(request);
    return result;
}

std::optional<StripResult> PreviewWorker::strip(const StripJob& job, const SheetResult& sheet, int pixels,
                                                const CancelToken& cancel) {
    StripResult strip;
    strip.id = job.id;
    strip.target = job.target;
    if (job.target) {
        strip.axis = targets::axis_of(*job.target, job.settings);
        image::Picture input = targets::make(*job.target, pixels, job.settings);
        const bool own = !job.target->space.empty();
        if (!own)
            input.space = working_;
        if (!run(rule_, own ? input.space : "", input, strip.after, cancel))
            return std::nullopt;
        strip.before = input;
        // Numbers of the rule's space are read by the other rule as what they are there.
        if (compares_ && !run(against_, input.space, input, strip.before, cancel))
            return std::nullopt;
        return strip;
    }
    // A cut: what the cell's picture has along its line.
    const auto cell =
        std::find_if(sheet.cells.begin(), sheet.cells.end(), [&](const CellResult& c) { return c.id == job.cell; });
    if (cell == sheet.cells.end() || !cell->after_pixels)
        return strip; // its picture is being read, or comes with the exact sheet
    strip.before = readings::along(*cell->before_pixels, job.line);
    strip.after = readings::along(*cell->after_pixels, job.line);
    strip.axis = {0, static_cast<double>(strip.before.width), targets::Scale::linear, {}, ""};
    return strip;
}

std::vector<engine::TraceNode> PreviewWorker::trace(const PreviewRequest& request) {
    if (!request.trace)
        return {};
    if (request.trace->colour) {
        engine::ReferencePixel at;
        std::copy(request.trace->colour->begin(), request.trace->colour->end(), at.rgba.begin());
        at.sources.resize(engine::source_channels(rule()));
        return engine::reference_trace(rule(), rule_.values(), at);
    }
    const int id = request.trace->cell;
    const QPoint pixel = request.trace->pixel;
    const auto job =
        std::find_if(request.cells.begin(), request.cells.end(), [id](const CellJob& c) { return c.id == id; });
    if (job == request.cells.end())
        return {};
    const bool of_rule = job->target && job->target->space.empty();
    const PicturePtr input =
        input_of(*job, key_of(of_rule ? job->source + "|" + working_ : job->source, job->settings), of_rule);
    if (pixel.x() < 0 || pixel.y() < 0 || pixel.x() >= input->width || pixel.y() >= input->height)
        return {};
    const std::string working = rule_.working();
    const auto in_rule = [&](const std::array<float, 4>& stored, const std::string& space) {
        const colour::Space *from = colour::find_space(space), *to = colour::find_space(working);
        const colour::Triple colour = {static_cast<double>(stored[0]), static_cast<double>(stored[1]),
                                       static_cast<double>(stored[2])};
        return from && to && from != to ? colour::converted(colour, *from, *to) : colour;
    };
    engine::ReferencePixel at;
    const std::array<float, 4> stored = input->at(pixel.x(), pixel.y());
    const colour::Triple colour = in_rule(stored, input->space);
    at.rgba = {colour[0], colour[1], colour[2], static_cast<double>(stored[3])};
    at.pixel = {static_cast<double>(pixel.x()), static_cast<double>(pixel.y())};
    at.pos = {(pixel.x() + 0.5) / input->width, (pixel.y() + 0.5) / input->height};
    at.aspect = static_cast<double>(input->width) / input->height;
    at.extent = {static_cast<double>(input->width), static_cast<double>(input->height)};
    if (rule_.before() && !rule_.before()->steps.empty()) { // the steps before it, in double precision too
        engine::ReferencePixel first = at;
        first.rgba = {static_cast<double>(stored[0]), static_cast<double>(stored[1]), static_cast<double>(stored[2]),
                      static_cast<double>(stored[3])};
        const engine::BoundSources& read = rule_.sources_before(job->file, input->width, input->height);
        for (const image::Plane& kept : read.kept)
            first.sources.push_back(
                kept ? static_cast<double>(
                           (*kept)[static_cast<std::size_t>(pixel.y()) * static_cast<std::size_t>(input->width) +
                                   static_cast<std::size_t>(pixel.x())])
                     : 0.0);
        const std::array<double, 4> came =
            engine::reference_chain(rule_.before()->steps, rule_.values_before(), input->space, first);
        const colour::Triple inside = colour::converted({came[0], came[1], came[2]}, *colour::find_space(input->space),
                                                        *colour::find_space(working));
        at.rgba = {inside[0], inside[1], inside[2], came[3]};
    }
    const engine::BoundSources& bound = rule_.own_sources_in(job->file, input->width, input->height);
    std::size_t plane = 0;
    const std::size_t index = static_cast<std::size_t>(pixel.y()) * static_cast<std::size_t>(input->width) +
        static_cast<std::size_t>(pixel.x());
    for (std::size_t i = 0; i < rule().sources.size(); ++i) {
        const int components = width(rule().sources[i].type);
        std::array<float, 4> values{};
        for (int c = 0; c < components; ++c, ++plane)
            if (bound.kept[plane])
                values[static_cast<std::size_t>(c)] = (*bound.kept[plane])[index];
        if (components >= 3) { // a single channel is numbers, not a colour
            const colour::Triple source = in_rule(values, bound.spaces[i].empty() ? working : bound.spaces[i]);
            for (std::size_t c = 0; c < 3; ++c)
                values[c] = static_cast<float>(source[c]);
        }
        for (int c = 0; c < components; ++c)
            at.sources.push_back(static_cast<double>(values[static_cast<std::size_t>(c)]));
    }
    return engine::reference_trace(rule(), rule_.values(), at);
}

std::vector<std::string> PreviewWorker::missing_sources(const PreviewRequest& request) {
    std::vector<ImagePtr> files;
    for (const CellJob& job : request.cells)
        if (job.file)
            files.push_back(job.file);
    if (files.empty())
        files.push_back(nullptr);
    std::vector<std::string> missing;
    for (const lang::SourceInput& source : rule_.sources())
        if (std::any_of(files.begin(), files.end(), [&](const ImagePtr& file) { return rule_.missing(source, file); }))
            missing.push_back(source.name);
    return missing;
}

RuleState* PreviewWorker::of_take(const document::KeptTake& take, std::string& fault) {
    RuleState& state = takes_[take_key(take)];
    state.check(take.text, path_);
    if (!state.has_rule()) {
        fault = "the take does not compile";
        return nullptr;
    }
    state.set_values(values_for(state.rule(), take.values));
    state.set_given(given_);
    state.set_around(around_);
    return &state;
}

std::string PreviewWorker::understood() {
    insight::Known known;
    known.matrix = insight::shown_matrix(rule(), rule_.values());
    known.identity = known.matrix && known.matrix->is_identity();
    if (!curves_)
        curves_ = insight::separable(rule());
    known.curves = *curves_;
    return insight::in_short(known);
}

bool PreviewWorker::promised(const Around* around, std::vector<proof::Outcome>& into, std::string& fault,
                             const CancelToken& cancel) {
    return !around || promise_.measure(rule_, *around, into, fault, cancel);
}

std::string PreviewWorker::amounts(const Around* around) {
    return around && rule_.whole() ? handover::described_look(*rule_.whole(), rule_.all_values()) : std::string();
}

bool PreviewWorker::run(RuleState& rule, const std::string& space, const image::Picture& before, image::Picture& after,
                        const CancelToken& cancel, const ImagePtr& file) {
    const engine::BoundSources& bound = rule.sources_in(file, before.width, before.height);
    std::optional<image::Picture> made =
        engine::evaluate(rule.program(space), before, rule.all_values(), cancel, nullptr, &pool_, bound.planes);
    if (made)
        after = std::move(*made);
    return made.has_value();
}

PicturePtr PreviewWorker::ran(std::map<std::string, PicturePtr>& cache, const std::string& key, RuleState& rule,
                              const std::string& space, const image::Picture& picture, const ImagePtr& file,
                              const CancelToken& cancel) {
    PicturePtr& entry = cache[key];
    if (!entry) {
        image::Picture made;
        if (run(rule, space, picture, made, cancel, file))
            entry = std::make_shared<const image::Picture>(std::move(made));
    }
    return entry;
}

PicturePtr PreviewWorker::input_of(const CellJob& job, const std::string& key, bool of_rule) {
    if (job.picture)
        return job.picture;
    PicturePtr& made = generated_[key];
    if (!made) {
        image::Picture picture = targets::make(*job.target, 0, job.settings);
        if (of_rule)
            picture.space = working_;
        made = std::make_shared<const image::Picture>(std::move(picture));
    }
    return made;
}

PreviewWorker::Painted PreviewWorker::painted(std::map<Shown, Painted>& cache, const Shown& shape,
                                              const image::Picture& picture, const Lens& through,
                                              const image::Picture* other) {
    Painted& entry = cache[shape];
    if (entry.image.isNull())
        entry.image = shown(picture, through, screen_, &entry.outside, &views_, other);
    return entry;
}

std::optional<image::Picture> PreviewWorker::numbers(const RuleState::Peek& peek, const image::Picture& input,
                                                     RuleState& rule, const ImagePtr& file, const CancelToken& cancel) {
    const int width = input.width, height = input.height;
    std::vector<engine::PlaneView> planes;
    engine::BoundSources of_mask;
    if (peek.is_mask) { // which has its own
        of_mask = engine::bind_sources(peek.sources, rule.pictures_for(peek.sources, file, width, height));
        planes = of_mask.planes;
    } else {
        planes = rule.own_sources_in(file, width, height).planes;
    }
    const std::vector<double> values = peek.is_mask ? std::vector<double>() : rule.values();
    if (!peek.first)
        return readings::numbers_of(*peek.program, input, values, planes, cancel);
    const std::optional<image::Picture> inside = peek.first_is_look
        ? engine::evaluate(*peek.first, input, rule.values_before(), cancel, nullptr, nullptr,
                           rule.sources_before(file, width, height).planes)
        : engine::evaluate(*peek.first, input, {}, cancel);
    return inside ? readings::numbers_of(*peek.program, *inside, values, planes, cancel) : std::nullopt;
}

PicturePtr PreviewWorker::peeked(const CellJob& job, const std::string& key, RuleState& rule,
                                 std::map<std::string, PicturePtr>& cache, const image::Picture& input,
                                 const std::string& space, std::string& fault, const CancelToken& cancel) {
    const RuleState::Peek& peek = rule.peek(lens(job.lens), space);
    if (!peek.program) {
        fault = peek.fault;
        return nullptr;
    }
    PicturePtr& entry = cache[key + "|" + job.lens];
    if (!entry) {
        std::optional<image::Picture> made = numbers(peek, input, rule, job.file, cancel);
        if (made)
            entry = std::make_shared<const image::Picture>(std::move(*made));
    }
    return entry;
}

std::optional<CellResult> PreviewWorker::cell(const CellJob& asked, bool coarse, const CancelToken& cancel) {
    CellJob job = asked;
    const bool of_rule = job.target && job.target->space.empty(); // its numbers are the rule's
    const std::string key = key_of(of_rule ? job.source + "|" + working_ : job.source, job.settings);
    PicturePtr input = input_of(job, key, of_rule);
    if (!QRect(0, 0, input->width, input->height)
             .contains(job.region)) // it was asked for a picture of another size: all of this one
        job.region = QRect();
    CellResult result;
    result.id = job.id;
    result.space = input->space;
    result.working = rule_.working();
    result.size = QSize(input->width, input->height);
    result.region = job.region.isNull() ? QRect(0, 0, input->width, input->height) : job.region;
    const std::string space = of_rule ? "" : input->space;
    const Lens& through = lens(job.lens);
    // A cell may have a rule of its own: a take.
    RuleState* const taken = job.take ? of_take(*job.take, result.fault) : nullptr;
    RuleState& mine = taken ? *taken : rule_;
    const std::string own = taken ? key + std::string(take_mark) + take_key(*job.take) : key,
                      my_space = taken ? input->space : space;
    const auto shape_of = [&](const std::string& of) {
        return Shown{of,
                     job.lens,
                     job.pixels.width(),
                     job.pixels.height(),
                     job.region.x(),
                     job.region.y(),
                     job.region.width(),
                     job.region.height()};
    };
    const Shown shape = shape_of(key);
    if (coarse && job.region.isNull() && job.pixels.width() < input->width && job.pixels.height() < input->height) {
        // Small first, then the rule: nearly the same, many times as fast. Nothing of it is kept.
        const image::Picture& little = small(small_input_, key, job, *input);
        image::Picture after, before = little;
        if (!run(mine, my_space, little, after, cancel, job.file) ||
            (compares_ && !run(against_, input->space, little, before, cancel, job.file)))
            return std::nullopt;
        const Lens* by = &through;
        if (through.of_rule()) {
            const RuleState::Peek& peek = mine.peek(through, my_space);
            result.fault = peek.fault;
            std::optional<image::Picture> made;
            if (peek.program)
                made = numbers(peek, little, mine, job.file, cancel);
            if (made)
                after = before = std::move(*made);
            else
                by = &lens("colour");
        }
        const auto painted_now = [&](const image::Picture& picture) {
            Painted made;
            made.image = shown(picture, *by, screen_, &made.outside, &views_, &before);
            return made;
        };
        const Painted was = compares_ || through.of_rule() ? painted_now(before)
                                                           : painted(shown_before_, shape, before, through, &before),
                      is = painted_now(after);
        result.before = was.image;
        result.outside_before = was.outside;
        result.after = is.image;
        result.outside_after = is.outside;
        return result;
    }
    const PicturePtr before = compares_ ? ran(before_, key, against_, input->space, *input, job.file, cancel) : input;
    const PicturePtr after = before ? ran(after_, own, mine, my_space, *input, job.file, cancel) : nullptr;
    if (!after)
        return std::nullopt;
    result.before_pixels = before;
    result.after_pixels = after;
    const auto side = [&](bool is_after) -> std::optional<Painted> {
        const image::Picture& picture = is_after ? *after : *before;
        auto& cache = is_after ? shown_after_ : shown_before_;
        auto& small_cache = is_after ? small_after_ : compares_ ? small_before_ : small_input_;
        if (through.of_rule()) {
            std::string fault;
            // Only what the rule on the bench does not know is worth telling.
            const bool of_mine = is_after || !compares_;
            RuleState& rule = of_mine ? mine : against_;
            const std::string& of = of_mine ? own : key;
            const PicturePtr numbers =
                peeked(job, of, rule, is_after ? peeked_after_ : peeked_before_, *input,
                       of_mine ? my_space : input->space, is_after ? result.fault : fault, cancel);
            if (numbers)
                return painted(cache, shape_of(of), small(small_cache, of + "|of rule|" + job.lens, job, *numbers),
                               through, nullptr);
            if (cancel.cancelled())
                return std::nullopt;
            return painted(cache, shape_of(of), small(small_cache, of, job, picture), lens("colour"), nullptr);
        }
        const image::Picture* other =
            through.compares ? &small(compares_ ? small_before_ : small_input_, key, job, *before) : nullptr;
        const std::string& of = is_after ? own : key;
        return painted(cache, shape_of(of), small(small_cache, of, job, picture), through, other);
    };
    const std::optional<Painted> was = job.both ? side(false) : Painted(), is = side(true);
    if (!was || !is)
        return std::nullopt;
    result.before = was->image;
    result.outside_before = was->outside;
    result.after = is->image;
    result.outside_after = is->outside;
    return result;
}

std::shared_ptr<ReadingsResult> PreviewWorker::readings(const PreviewRequest& request, const SheetResult& sheet,
                                                        const CancelToken& cancel) {
    auto result = std::make_shared<ReadingsResult>();
    std::map<std::string, MeasuredPtr> used_before, used_after;
    for (const ReadingJob& job : request.readings) {
        std::string key = key_of(std::string(job.reading->name), job.settings) +
            fmt::format("|{} {} {} {}", job.line.x0, job.line.y0, job.line.x1, job.line.y1);
        if (job.reading->about == readings::About::pictures)
            for (const int id : job.cells)
                for (const CellJob& cell : request.cells)
                    if (cell.id == id)
                        key += "|" + key_of(cell.source, cell.settings);
        const auto of = [&](std::map<std::string, MeasuredPtr>& cache, std::map<std::string, MeasuredPtr>& used,
                            bool after) {
            MeasuredPtr& entry = cache[key];
            if (!entry)
                if (auto made = measured(job, sheet, after, cancel))
                    entry = std::make_shared<const readings::Measured>(std::move(*made));
            used[key] = entry;
            return entry;
        };
        ReadingResult reading{job.id, job.reading, job.reading->panels(completed(job.reading->settings, job.settings)),
                              of(measured_before_, used_before, false), nullptr};
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

std::optional<readings::Measured> PreviewWorker::measured(const ReadingJob& job, const SheetResult& sheet, bool after,
                                                          const CancelToken& cancel) {
    readings::Subject subject;
    for (const int id : job.cells)
        for (const CellResult& cell : sheet.cells)
            if (cell.id == id)
                subject.pictures.push_back(after ? cell.after_pixels.get() : cell.before_pixels.get());
    subject.rule = [&](const image::Picture& picture) -> std::optional<image::Picture> {
        if (!after && !compares_)
            return picture;
        image::Picture made;
        return run(after ? rule_ : against_, after ? std::string() : picture.space, picture, made, cancel)
            ? std::optional(std::move(made))
            : std::nullopt;
    };
    subject.working = working_;
    subject.settings = completed(job.reading->settings, job.settings);
    subject.line = job.line;
    subject.views = &views_;
    subject.cancel = cancel;
    return job.reading->measure(subject);
}

std::optional<proof::Outcome> PreviewWorker::proved(std::size_t index, const lang::ProofLine& line,
                                                    const CancelToken& cancel) {
    if (const auto known = proved_.find(index); known != proved_.end())
        return known->second;
    const std::vector<std::vector<double>> settings = {rule_.values()};
    std::optional<proof::Outcome> outcome = proof::check(rule(), rule_.own_program(), line, settings, cancel);
    if (const proof::Function* function = proof::find(line.function); outcome && function && function->at_defaults)
        proved_[index] = *outcome;
    return outcome;
}

void PreviewWorker::forget_unused(const PreviewRequest& request) {
    const auto shown_file = [&](const ImagePtr& file) {
        return !file || std::any_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) {
            return job.file == file;
        });
    };
    rule_.forget_sources(shown_file);
    against_.forget_sources(shown_file);
    const auto unused = [&](const std::string& key, int width, int left, int top) {
        return std::none_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) {
            return key.starts_with(job.source) && width == job.pixels.width() && left == job.region.x() &&
                top == job.region.y();
        });
    };
    for (auto* cache : {&shown_before_, &shown_after_})
        std::erase_if(*cache, [&](const auto& entry) {
            return unused(std::get<0>(entry.first), std::get<2>(entry.first), std::get<4>(entry.first),
                          std::get<5>(entry.first));
        });
    for (auto* cache : {&small_input_, &small_before_, &small_after_})
        std::erase_if(*cache, [&](const auto& entry) {
            return unused(std::get<0>(entry.first), std::get<1>(entry.first), std::get<3>(entry.first),
                          std::get<4>(entry.first));
        });
    for (auto* cache : {&generated_, &after_, &before_})
        std::erase_if(*cache, [&](const auto& entry) {
            return std::none_of(request.cells.begin(), request.cells.end(),
                                [&](const CellJob& job) { return entry.first.starts_with(job.source); });
        });
    for (auto* cache : {&peeked_after_, &peeked_before_})
        std::erase_if(*cache, [&](const auto& entry) {
            return std::none_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) {
                return entry.first.starts_with(job.source) && entry.first.ends_with(job.lens);
            });
        });
}

void PreviewWorker::forget_takes() {
    takes_.clear();
    after_.clear();
    shown_after_.clear();
    small_after_.clear();
    peeked_after_.clear();
}

void PreviewWorker::forget_before() {
    before_.clear();
    shown_before_.clear();
    shown_after_.clear(); // lenses that compare
    small_before_.clear();
    measured_before_.clear();
    peeked_before_.clear();
}

void PreviewWorker::forget_after() {
    // What takes make stays.
    const auto of_rule = [](const std::string& key) { return key.find(take_mark) == std::string::npos; };
    std::erase_if(after_, [&](const auto& entry) { return of_rule(entry.first); });
    std::erase_if(shown_after_, [&](const auto& entry) { return of_rule(std::get<0>(entry.first)); });
    std::erase_if(small_after_, [&](const auto& entry) { return of_rule(std::get<0>(entry.first)); });
    measured_after_.clear();
    std::erase_if(peeked_after_, [&](const auto& entry) { return of_rule(entry.first); });
    if (!compares_) { // a peeked expression is the rule's own on both sides
        peeked_before_.clear();
        std::erase_if(shown_before_, [](const auto& entry) { return lens(std::get<1>(entry.first)).of_rule(); });
        std::erase_if(small_input_, [](const auto& entry) {
            return std::get<0>(entry.first).find("|of rule|") != std::string::npos;
        });
    }
}

const image::Picture& PreviewWorker::small(std::map<Size, image::Picture>& cache, const std::string& key,
                                           const CellJob& job, const image::Picture& picture) {
    image::Picture& entry = cache[{key, job.pixels.width(), job.pixels.height(), job.region.x(), job.region.y(),
                                   job.region.width(), job.region.height()}];
    if (!entry.planes[0])
        entry = reduced(picture, job.pixels.width(), job.pixels.height(), job.region);
    return entry;
}

} // namespace kasuri::app
