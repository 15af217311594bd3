#include "model/preview_worker.hpp"

#include "base/timeline.hpp"
#include "colour/space.hpp"
#include "engine/on_demand.hpp"
#include "insight/algebra.hpp"
#include "insight/summary.hpp"
#include "io/stretch.hpp"
#include "look/sums.hpp"
#include "model/display.hpp"

#include <algorithm>
#include <utility>

namespace kasuri::app {
namespace {

PicturePtr stretched(const PicturePtr& picture, int width, int height) {
    return std::make_shared<const image::Picture>(io::stretched(*picture, width, height));
}

std::vector<const image::Picture*> bound_to(const subject::Subject& subject) {
    std::vector<const image::Picture*> pictures;
    for (const lang::SourceInput& source : subject.sources()) {
        const auto bound = subject.bindings().find(source.name);
        pictures.push_back(bound == subject.bindings().end() ? nullptr : bound->second.picture.get());
    }
    return pictures;
}

/// The file, where the subject looks for pictures in it.
const image::Image* read_by(const subject::Subject& subject, const ImagePtr& file) {
    return subject.sources().empty() ? nullptr : file.get();
}

bool has_numbers_of_rule(const CellJob& job) { return job.target && job.target->space.empty(); }

} // namespace

PreviewWorker::PreviewWorker(std::size_t max_spare, std::size_t kept_whole)
    : kept_whole_(kept_whole), clock_(max_spare) {}

bool PreviewWorker::take(const PreviewRequest& request, const CancelToken& cancel) {
    const timeline::Stretch stretch("check and put in");
    clock_.next_request();
    const document::LookStep* const step = request.around && !request.around->look.steps.empty()
        ? &request.around->look.steps[request.around->active]
        : nullptr;
    const std::map<std::string, std::string> uses = step ? step->uses : std::map<std::string, std::string>();
    fresh_ = rule_.check(request.text, request.path, uses, request.files, cancel) != RuleState::Change::none;
    if (!has_rule() || !rule_.put(request.values, request.sources, request.around, Part::shown, cancel))
        return false;
    working_ = rule_.whole().space();
    compares_ = false;
    if (!request.against)
        return true;
    const OtherRule& other = *request.against;
    only_picture_ = other.of_picture;
    const bool is_before = other.is_before && request.around;
    against_.check(is_before ? request.text : other.text, is_before ? request.path : other.path, {}, request.files,
                   cancel);
    compares_ = against_.has_rule() && (is_before || against_.last_checked()->ok) && is_before == other.is_before;
    return !compares_ ||
        against_.put(is_before ? request.values : other.values, request.sources,
                     is_before || other.in_step ? request.around : other.around, is_before ? Part::before : Part::shown,
                     cancel);
}

bool PreviewWorker::coarse_helps(const PreviewRequest& request) {
    if (rule_.whole().program()->passes().size() > 1 || (compares_ && against_.whole().program()->passes().size() > 1))
        return false;
    return std::any_of(request.cells.begin(), request.cells.end(), [](const CellJob& job) {
        return job.picture && job.region.isNull() && job.pixels.width() < job.picture->width &&
            job.pixels.height() < job.picture->height;
    });
}

std::shared_ptr<SheetResult> PreviewWorker::sheet(const PreviewRequest& request, bool coarse,
                                                  const CancelToken& cancel) {
    const timeline::Stretch stretch(coarse ? "coarse sheet" : "exact sheet");
    auto result = std::make_shared<SheetResult>();
    screen_ = request.screen;
    result->screen = screen_;
    result->coarse = coarse;
    const engine::ProgramPtr whole = rule_.whole().program();
    result->operations = whole->operations();
    result->identity = whole->is_identity();
    result->check_ms = fresh_ ? rule_.check_ms() : 0;
    for (const auto& [index, fault] : rule_.faults())
        result->step_faults.emplace_back(index, translated(fault.what));
    if (request.against && request.against->is_before && !compares_)
        result->against_fault = said("there is no look of several steps");
    else if (request.against && !compares_)
        result->against_fault = against_.last_checked()->diagnostics.empty()
            ? said("it does not compile")
            : lang::message(against_.last_checked()->diagnostics.front());
    std::erase_if(takes_, [&](const auto& entry) {
        return std::none_of(request.cells.begin(), request.cells.end(),
                            [&](const CellJob& job) { return job.take && *job.take == *entry.first; });
    });
    for (const CellJob& job : request.cells)
        if (job.pixels.width() > 0 && job.pixels.height() > 0) {
            std::optional<CellResult> cell = this->cell(request, job, coarse, cancel);
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
    for (const lang::SourceInput& source : rule_.whole().sources())
        if (std::none_of(result->sources.begin(), result->sources.end(),
                         [&](const lang::SourceInput& known) { return known.name == source.name; }))
            result->sources.push_back(source);
    result->missing_sources = missing_sources(request);
    result->trace = trace(request);
    result->text = rule_.text();
    if (!coarse && request.readings.empty()) // what readings were made before may serve those that follow
        clock_.trim();
    return result;
}

std::shared_ptr<SheetResult> PreviewWorker::counted(const PreviewRequest& request, const CancelToken& cancel) {
    const timeline::Stretch stretch("what is counted");
    auto result = std::make_shared<SheetResult>();
    for (const CellJob& asked : request.cells) {
        if (!asked.numbers &&
            std::none_of(request.readings.begin(), request.readings.end(), [&](const ReadingJob& reading) {
                return reading.reading->about == readings::About::pictures &&
                    std::find(reading.cells.begin(), reading.cells.end(), asked.id) != reading.cells.end();
            }))
            continue;
        CellJob job = asked;
        job.pixels = QSize(0, 0);
        std::optional<CellResult> cell = this->cell(request, job, false, cancel);
        if (!cell)
            return nullptr;
        result->cells.push_back(std::move(*cell));
    }
    return result;
}

std::optional<StripResult> PreviewWorker::strip(const StripJob& job, const SheetResult& sheet, int pixels,
                                                const CancelToken& cancel) {
    const timeline::Stretch stretch("strip");
    StripResult strip;
    strip.id = job.id;
    strip.target = job.target;
    if (job.target) {
        strip.axis = targets::axis_of(*job.target, job.settings);
        image::Picture input = targets::make(*job.target, pixels, job.settings);
        if (job.target->space.empty())
            input.space = working_;
        std::optional<image::Picture> after = run(rule_.whole(), input, nullptr, cancel);
        if (!after)
            return std::nullopt;
        strip.after = std::move(*after);
        strip.before = input;
        if (compares()) {
            std::optional<image::Picture> before = run(against_.whole(), input, nullptr, cancel);
            if (!before)
                return std::nullopt;
            strip.before = std::move(*before);
        }
        return strip;
    }
    if (job.over_time)
        return over_time(job, cancel);
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
    const subject::Subject& own = rule_.own();
    engine::ReferencePixel at;
    if (request.trace->colour) {
        std::copy(request.trace->colour->begin(), request.trace->colour->end(), at.rgba.begin());
        at.sources.resize(engine::source_channels(*own.rule()));
        return engine::reference_trace(*own.rule(), own.values(), at);
    }
    const QPoint pixel = request.trace->pixel;
    const auto job = std::find_if(request.cells.begin(), request.cells.end(),
                                  [&](const CellJob& c) { return c.id == request.trace->cell; });
    if (job == request.cells.end())
        return {};
    const PicturePtr input = input_of(*job);
    if (pixel.x() < 0 || pixel.y() < 0 || pixel.x() >= input->width || pixel.y() >= input->height)
        return {};
    const std::size_t index = static_cast<std::size_t>(pixel.y()) * static_cast<std::size_t>(input->width) +
        static_cast<std::size_t>(pixel.x());
    const colour::Space *const from = colour::find_space(input->space),
                               *const working = colour::find_space(own.space());
    const std::array<float, 4> stored = input->at(index);
    const auto into_working = [&](const colour::Triple& colour, const colour::Space* space) {
        return space && working && space != working ? colour::converted(colour, *space, *working) : colour;
    };
    /// The channels of a subject's sources at the pixel, as they are stored.
    const auto channels = [&](const engine::BoundSources& bound) {
        std::vector<double> values;
        for (const image::Plane& kept : bound.kept)
            values.push_back(kept ? static_cast<double>((*kept)[index]) : 0.0);
        return values;
    };
    at.pixel = {static_cast<double>(pixel.x()), static_cast<double>(pixel.y())};
    at.pos = {(pixel.x() + 0.5) / input->width, (pixel.y() + 0.5) / input->height};
    at.aspect = static_cast<double>(input->width) / input->height;
    at.extent = {static_cast<double>(input->width), static_cast<double>(input->height)};
    at.rgba = {static_cast<double>(stored[0]), static_cast<double>(stored[1]), static_cast<double>(stored[2]),
               static_cast<double>(stored[3])};
    if (const subject::Subject& before = rule_.before(); !before.steps().empty()) { // in double precision too
        engine::ReferencePixel first = at;
        first.sources = channels(*sources(before, job->file, input->width, input->height));
        at.rgba = engine::reference_chain(before.steps(), before.values(), input->space, first);
    }
    const colour::Triple inside = into_working({at.rgba[0], at.rgba[1], at.rgba[2]}, from);
    std::copy(inside.begin(), inside.end(), at.rgba.begin());
    const auto read = looking_back(own, rule_.looks_back(), rule_, input, job->file, {});
    const auto bound = sources(read ? *read : own, job->file, input->width, input->height);
    at.sources = channels(*bound);
    std::size_t channel = 0;
    for (std::size_t i = 0; i < own.sources().size(); ++i) {
        const auto components = static_cast<std::size_t>(width(own.sources()[i].type));
        if (components >= 3) { // a single channel is numbers, not a colour
            const colour::Space* const space =
                bound->spaces[i].empty() ? working : colour::find_space(bound->spaces[i]);
            const colour::Triple made =
                into_working({at.sources[channel], at.sources[channel + 1], at.sources[channel + 2]}, space);
            std::copy(made.begin(), made.end(), at.sources.begin() + static_cast<std::ptrdiff_t>(channel));
        }
        channel += components;
    }
    return engine::reference_trace(*own.rule(), own.values(), at);
}

std::vector<std::string> PreviewWorker::missing_sources(const PreviewRequest& request) const {
    std::vector<std::string> missing;
    const auto add = [&](const image::Image* file) {
        for (std::string& name : subject::without_picture(rule_.whole(), file))
            if (std::find(missing.begin(), missing.end(), name) == missing.end())
                missing.push_back(std::move(name));
    };
    bool any = false;
    for (const CellJob& job : request.cells)
        if (job.file) {
            add(job.file.get());
            any = true;
        }
    if (!any)
        add(nullptr);
    return missing;
}

RuleState* PreviewWorker::of_take(const PreviewRequest& request, const document::KeptTake& take, std::string& fault,
                                  const CancelToken& cancel) {
    auto found = std::find_if(takes_.begin(), takes_.end(), [&](const auto& entry) { return *entry.first == take; });
    if (found == takes_.end()) {
        takes_.emplace_back(std::make_shared<const document::KeptTake>(take), RuleState());
        found = takes_.end() - 1;
    }
    RuleState& state = found->second;
    state.check(take.text, request.path, {}, request.files, cancel);
    if (!state.has_rule()) {
        fault = "the take does not compile";
        return nullptr;
    }
    return state.put(take.values, request.sources, request.around, Part::shown, cancel) ? &state : nullptr;
}

std::string PreviewWorker::understood() {
    insight::Known known;
    known.matrix = insight::shown_matrix(rule_.own());
    known.identity = known.matrix && known.matrix->is_identity();
    if (curves_.first != rule_.own().chain_ptr())
        curves_ = {rule_.own().chain_ptr(), insight::separable(rule_.own())};
    known.curves = curves_.second;
    return insight::in_short(known);
}

bool PreviewWorker::promised(const Around* around, std::vector<proof::Outcome>& into, std::string& fault,
                             const CancelToken& cancel, const std::function<void()>& came) {
    return !around || promise_.measure(rule_, *around, into, fault, cancel, came);
}

std::string PreviewWorker::amounts() const {
    const bool alone = rule_.whole().chain_ptr() == rule_.own().chain_ptr(); // said by `understood` then
    return alone ? std::string() : look::described(rule_.whole());
}

std::shared_ptr<const engine::BoundSources> PreviewWorker::sources(const subject::Subject& subject,
                                                                   const ImagePtr& file, int width, int height) {
    if (subject.sources().empty()) {
        static const auto none = std::make_shared<const engine::BoundSources>();
        return none;
    }
    const OfSources key{&subject.chain(), file.get(), bound_to(subject), width, height};
    return sources_
        .get(key,
             [&]() -> std::optional<KeptSources> {
                 const auto pictures = subject::pictures_for(subject, file.get(), width, height, stretched);
                 std::size_t bytes = 0;
                 for (const PicturePtr& picture : pictures)
                     bytes += picture ? bytes_of(*picture) : 0;
                 return KeptSources{
                     std::make_shared<const engine::BoundSources>(engine::bind_sources(subject.sources(), pictures)),
                     subject.chain_ptr(), subject.bindings(), file, bytes};
             })
        ->made;
}

std::optional<image::Picture> PreviewWorker::run(const subject::Subject& subject, const image::Picture& picture,
                                                 const ImagePtr& file, const CancelToken& cancel) {
    const auto bound = sources(subject, file, picture.width, picture.height);
    const engine::ProgramPtr program =
        subject.program(picture.space, picture.space, source_spaces_for(subject, picture.space), false, &cancel);
    const timeline::Stretch stretch("evaluate");
    return program ? engine::evaluate(*program, picture, subject.values(), cancel, nullptr, &pool_, bound->planes)
                   : std::nullopt;
}

PicturePtr PreviewWorker::ran(const subject::Subject& subject, const PicturePtr& picture, const ImagePtr& file,
                              const CancelToken& cancel) {
    const OfSubject key{subject.identity(), picture.get(), read_by(subject, file)};
    const std::optional<Kept> kept = results_.get(key, [&]() -> std::optional<Kept> {
        std::optional<image::Picture> made = run(subject, *picture, file, cancel);
        if (!made)
            return std::nullopt;
        return Kept{std::make_shared<const image::Picture>(std::move(*made)), picture, file};
    });
    return kept ? kept->made : nullptr;
}

PicturePtr PreviewWorker::seen_through(const subject::Subject& subject, const PicturePtr& picture, const ImagePtr& file,
                                       const CancelToken& cancel) {
    if (picture->pixels() <= kept_whole_)
        return ran(subject, picture, file, cancel);
    const engine::ProgramPtr program =
        subject.program(picture->space, picture->space, source_spaces_for(subject, picture->space), false, &cancel);
    if (!program)
        return nullptr;
    if (program->reads_neighbours()) // far more would be made around each band than in it
        return ran(subject, picture, file, cancel);
    const OfSubject key{subject.identity(), picture.get(), read_by(subject, file), "on demand"};
    return results_
        .get(key,
             [&]() -> std::optional<Kept> {
                 return Kept{
                     std::make_shared<const image::Picture>(engine::on_demand(
                         program, picture, subject.values(), sources(subject, file, picture->width, picture->height))),
                     picture, file};
             })
        ->made;
}

PicturePtr PreviewWorker::input_of(const CellJob& job) {
    if (job.picture)
        return job.picture;
    const OfTarget key{job.target, job.settings, has_numbers_of_rule(job) ? working_ : std::string()};
    return inputs_
        .get(key,
             [&]() -> std::optional<Kept> {
                 image::Picture picture = targets::make(*job.target, 0, job.settings);
                 if (has_numbers_of_rule(job))
                     picture.space = working_;
                 return Kept{std::make_shared<const image::Picture>(std::move(picture)), nullptr};
             })
        ->made;
}

PreviewWorker::Painted PreviewWorker::painted(const PicturePtr& picture, const Lens& through, const PicturePtr& other) {
    const OfScreen key{picture.get(), other.get(), &through, screen_.space, screen_.limits, screen_.surround};
    return *painted_.get(key, [&]() -> std::optional<Painted> {
        const timeline::Stretch stretch("colours of the screen");
        Painted made;
        made.image = shown(*picture, through, screen_, &made.outside, &views_, other.get());
        made.of = picture;
        made.other = other;
        return made;
    });
}

std::optional<subject::Subject> PreviewWorker::looking_back(const subject::Subject& subject,
                                                            const std::vector<RuleState::LookBack>& sources,
                                                            RuleState& rule, const PicturePtr& input,
                                                            const ImagePtr& file, const CancelToken& cancel) {
    if (sources.empty())
        return subject;
    subject::Bindings bindings = subject.bindings();
    for (const RuleState::LookBack& each : sources) {
        PicturePtr read = input;
        if (each.step >= 0)
            read = ran(rule.whole().part(0, static_cast<std::size_t>(each.step)), input, file, cancel);
        if (!read)
            return std::nullopt;
        if (each.channel >= 0) { // a single number: as it is in the picture's space
            image::Picture one = *read;
            const image::Plane plane = one.planes[static_cast<std::size_t>(each.channel)];
            one.planes = {plane ? plane : image::make_plane(image::Samples(one.pixels(), 1.0f)), one.planes[1],
                          one.planes[2], nullptr};
            read = std::make_shared<const image::Picture>(std::move(one));
        }
        bindings[each.source] = {read, {}, {}};
    }
    return subject.with_bindings(std::move(bindings));
}

std::optional<image::Picture> PreviewWorker::numbers(RuleState& rule, const Lens& lens, const PicturePtr& picture,
                                                     const ImagePtr& file, std::string& fault,
                                                     const CancelToken& cancel) {
    const image::Picture& input = *picture;
    const RuleState::Peek& peek = rule.peek(lens, input.space);
    fault = peek.fault;
    if (!peek.program)
        return std::nullopt;
    const auto of_peek_subject = looking_back(peek.subject, peek.looks_back, rule, picture, file, cancel);
    if (!of_peek_subject)
        return std::nullopt;
    const auto of_peek = sources(*of_peek_subject, file, input.width, input.height);
    if (!peek.inside)
        return readings::numbers_of(*peek.program, input, peek.subject.values(), of_peek->planes, cancel);
    const subject::Subject& before = rule.before();
    const auto of_before = sources(before, file, input.width, input.height);
    const engine::ProgramPtr program =
        before.program(input.space, rule.own().space(), source_spaces_for(before, input.space), false, &cancel);
    std::optional<image::Picture> inside = program
        ? engine::evaluate(*program, input, before.values(), cancel, nullptr, nullptr, of_before->planes)
        : std::nullopt;
    return inside ? readings::numbers_of(*peek.program, *inside, peek.subject.values(), of_peek->planes, cancel)
                  : std::nullopt;
}

PicturePtr PreviewWorker::peeked(RuleState& rule, const Lens& lens, const PicturePtr& input, const ImagePtr& file,
                                 std::string& fault, const CancelToken& cancel) {
    // Names of values are no part of a rule's identity: two texts may do the same and call it otherwise.
    const RuleState::Peek& peek = rule.peek(lens, input->space);
    fault = peek.fault;
    if (!peek.program)
        return nullptr;
    OfSubject key{peek.subject.identity(), input.get(), file.get(), lens.peeks.empty() ? lens.id : lens.peeks,
                  rule.before().identity()};
    key.lens += "\n" + rule.text();
    const std::optional<Kept> kept = numbers_.get(key, [&]() -> std::optional<Kept> {
        std::optional<image::Picture> made = numbers(rule, lens, input, file, fault, cancel);
        if (!made)
            return std::nullopt;
        return Kept{std::make_shared<const image::Picture>(std::move(*made)), input, file};
    });
    return kept ? kept->made : nullptr;
}

PicturePtr PreviewWorker::downscaled(const PicturePtr& picture, const CellJob& job, const CancelToken& cancel) {
    const QRect& region = job.region;
    const OfSize key{picture.get(), job.pixels.width(), job.pixels.height(), region.x(),
                     region.y(),    region.width(),     region.height()};
    const std::optional<Kept> kept = downscaled_.get(key, [&]() -> std::optional<Kept> {
        const timeline::Stretch stretch("reduce");
        Kept made{std::make_shared<const image::Picture>(
                      app::downscaled(*picture, job.pixels.width(), job.pixels.height(), region, cancel)),
                  picture};
        return cancel.cancelled() ? std::nullopt : std::optional(std::move(made));
    });
    return kept ? kept->made : nullptr;
}

std::optional<subject::Subject> PreviewWorker::seen_of(const RuleState& rule, const Lens& lens) {
    return lens.after_step > 0 ? rule.up_to(lens.after_step) : rule.whole();
}

bool PreviewWorker::paint_coarse(const CellJob& job, const Lens& through, RuleState& mine, const PicturePtr& input,
                                 CellResult& result, const CancelToken& cancel) {
    // Small first, then the rule: nearly the same, many times as fast. Nothing of it is remembered.
    const PicturePtr small = downscaled(input, affordable(job, rule_.whole().program()->operations()), cancel);
    if (!small)
        return false;
    const std::optional<subject::Subject> seen = seen_of(mine, through);
    std::optional<image::Picture> after = seen ? run(*seen, *small, job.file, cancel) : *small;
    std::optional<image::Picture> before = compares(job) ? run(against_.whole(), *small, job.file, cancel) : *small;
    if (!after || !before)
        return false;
    const Lens* by = &through;
    if (through.of_rule()) {
        std::optional<image::Picture> made = numbers(mine, through, small, job.file, result.fault, cancel);
        if (made)
            after = before = std::move(*made);
        else
            by = &lens("colour");
    }
    result.after = shown(*after, *by, screen_, &result.outside_after, &views_, &*before);
    if (compares(job) || through.of_rule()) {
        result.before = shown(*before, *by, screen_, &result.outside_before, &views_, &*before);
    } else {
        const Painted was = painted(small, through, through.compares ? small : nullptr);
        result.before = was.image;
        result.outside_before = was.outside;
    }
    return true;
}

std::optional<CellResult> PreviewWorker::cell(const PreviewRequest& request, const CellJob& asked, bool coarse,
                                              const CancelToken& cancel) {
    CellJob job = asked;
    const PicturePtr input = input_of(job);
    if (!QRect(0, 0, input->width, input->height)
             .contains(job.region)) // it was asked for a picture of another size: all of this one
        job.region = QRect();
    CellResult result;
    result.id = job.id;
    result.input = input;
    result.space = input->space;
    result.working = rule_.own().space();
    result.size = QSize(input->width, input->height);
    result.region = job.region.isNull() ? QRect(0, 0, input->width, input->height) : job.region;
    const Lens& through = lens(job.lens);
    // A cell may have a rule of its own: a take.
    RuleState* const taken = job.take ? of_take(request, *job.take, result.fault, cancel) : nullptr;
    if (cancel.cancelled())
        return std::nullopt;
    RuleState& mine = taken ? *taken : rule_;
    if (through.after_step > 0 && !mine.has_step(through.after_step))
        result.fault = "there is no step " + std::to_string(through.after_step);
    if (coarse && job.region.isNull() && job.pixels.width() < input->width && job.pixels.height() < input->height)
        return paint_coarse(job, through, mine, input, result, cancel) ? std::optional(std::move(result))
                                                                       : std::nullopt;
    const PicturePtr before = compares(job) ? seen_through(against_.whole(), input, job.file, cancel) : input;
    // Numbers, pins and readings of the cell are of what it shows: of a step, where that is chosen.
    const std::optional<subject::Subject> seen = seen_of(mine, through);
    const PicturePtr after = !before ? nullptr : seen ? seen_through(*seen, input, job.file, cancel) : input;
    if (!after)
        return std::nullopt;
    result.before_pixels = before;
    result.after_pixels = after;
    if (job.pixels.isEmpty())
        return result; // nothing of it is seen
    const auto side = [&](bool is_after) -> std::optional<Painted> {
        const PicturePtr& picture = is_after ? after : before;
        const auto small_through = [&](const PicturePtr& whole, const Lens& by,
                                       const PicturePtr& other) -> std::optional<Painted> {
            const PicturePtr small = downscaled(whole, job, cancel);
            const PicturePtr beside = small && other ? downscaled(other, job, cancel) : nullptr;
            return small && (beside || !other) ? std::optional(painted(small, by, beside)) : std::nullopt;
        };
        if (!through.of_rule())
            return small_through(picture, through, through.compares ? before : nullptr);
        std::string fault;
        // Only what the rule on the bench does not know is worth telling.
        RuleState& rule = is_after || !compares(job) ? mine : against_;
        const PicturePtr numbers = peeked(rule, through, input, job.file, is_after ? result.fault : fault, cancel);
        if (numbers)
            return small_through(numbers, through, nullptr);
        if (cancel.cancelled())
            return std::nullopt;
        return small_through(picture, lens("colour"), nullptr);
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

std::optional<proof::Outcome> PreviewWorker::proved(std::size_t index, const lang::ProofLine& line,
                                                    const CancelToken& cancel) {
    const subject::Subject& own = rule_.own();
    const proof::Function* const function = proof::find(line.function);
    OfProof key{&own.chain(), index, own.values(), bound_to(own)};
    if (function && function->at_defaults) // measured once for a rule
        key.values.clear();
    OfProof of_all = key; // what is bounded at every value needs no other
    of_all.values.clear();
    if (const KeptOutcome* const known = proofs_.find(of_all); known && known->made.bounded_values)
        return known->made;
    const std::optional<KeptOutcome> kept = proofs_.get(key, [&]() -> std::optional<KeptOutcome> {
        const std::vector<std::vector<double>> settings = {own.values()};
        std::optional<proof::Outcome> outcome = proof::check(own, line, settings, cancel);
        if (!outcome)
            return std::nullopt;
        return KeptOutcome{std::move(*outcome), own.chain_ptr(), own.bindings()};
    });
    if (kept && kept->made.bounded_values)
        proofs_.keep(of_all, *kept);
    return kept ? std::optional(kept->made) : std::nullopt;
}

} // namespace kasuri::app
