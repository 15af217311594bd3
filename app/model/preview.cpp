#include "model/preview.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "engine/sources.hpp"
#include "model/display.hpp"

#include <algorithm>
#include <chrono>
#include <tuple>

namespace kasuri::app {
namespace {

using Clock = std::chrono::steady_clock;
double milliseconds(Clock::time_point from) { return std::chrono::duration<double, std::milli>(Clock::now() - from).count(); }

constexpr double patience_ms = 250;
constexpr const char* strip_names[] = {"grey_ramp", "saturation_ramp", "hue_sweep"};
constexpr int response_samples = 600;

} // namespace

/// The state that outlives a request: the last good rule, its programs, what was evaluated with it.
class Preview::Worker {
public:
    /// Checks the text if it is another one. Returns whether it was.
    bool check(const std::string& text, const std::filesystem::path& path) {
        const std::uint64_t spaces = colour::spaces_generation();
        if (checked_ && text == text_ && path == path_ && spaces == spaces_)
            return false;
        if (spaces != spaces_) { // another colour config: names may mean something else
            shown_before_.clear();
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
            good_ = checked_;
            programs_.clear();
            sources_.clear();
            forget_after();
            program("");
        }
        check_ms_ = milliseconds(from);
        return true;
    }
    const CheckedPtr& last_checked() const { return checked_; }
    bool has_rule() const { return good_ != nullptr; }
    const lang::Rule& rule() const { return good_->rule; }

    void set_values(std::vector<double> values) {
        if (values == values_)
            return;
        values_ = std::move(values);
        forget_after();
    }
    const std::vector<double>& values() const { return values_; }

    /// The program for pictures of a space; "" is the rule's own.
    const engine::Program& program(const std::string& space) {
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

    /// Null if called off.
    std::shared_ptr<SheetResult> sheet(const PreviewRequest& request, bool fresh, const CancelToken& cancel) {
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
        if (request.strip_pixels > 0)
            for (const char* name : strip_names) {
                StripResult strip{targets::find(name), {}, {}};
                strip.before = targets::make(*strip.target, request.strip_pixels);
                strip.before.space = working;
                if (!run(program(""), strip.before, strip.after, cancel))
                    return nullptr;
                result->strips.push_back(std::move(strip));
            }
        const image::Picture greys = image::generated(response_samples, 1, [](int x, int) {
            const double in = -0.1 + 1.4 * x / (response_samples - 1);
            return std::array<double, 3>{in, in, in};
        });
        image::Picture answer;
        if (!run(program(""), greys, answer, cancel))
            return nullptr;
        result->response = scopes::response(greys, answer);
        for (const CellJob& job : request.cells)
            if (job.pixels.width() > 0 && job.pixels.height() > 0) {
                std::optional<CellResult> cell = this->cell(job, working, cancel);
                if (!cell)
                    return nullptr;
                result->cells.push_back(std::move(*cell));
            }
        result->missing_sources = missing_sources(request);
        forget_unused(request);
        return result;
    }

private:
    using Shown = std::tuple<std::string, std::string, int, int>; ///< key, lens, size
    using Size = std::tuple<std::string, int, int>;               ///< key, size
    struct Painted {
        QImage image;
        double outside = 0;
    };

    using ImagePtr = std::shared_ptr<const image::Image>;

    /// The rule's sources as layers of a file: taken apart once for a rule, not at every change of a value.
    const engine::BoundSources& sources_in(const ImagePtr& file) {
        const auto found = sources_.find(file);
        if (found != sources_.end())
            return found->second;
        std::vector<PicturePtr> pictures;
        for (const lang::SourceInput& source : rule().sources)
            pictures.push_back(file ? engine::source_in(*file, source.name) : nullptr);
        return sources_[file] = engine::bind_sources(rule(), pictures);
    }

    /// Those that some picture on the sheet does not have, or all if there is no picture.
    std::vector<std::string> missing_sources(const PreviewRequest& request) {
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

    bool run(const engine::Program& program, const image::Picture& before, image::Picture& after, const CancelToken& cancel,
             const ImagePtr& file = nullptr) {
        const engine::BoundSources& bound = sources_in(file);
        std::optional<image::Picture> made = engine::evaluate(program, before, values_, cancel, nullptr, &pool_, bound.planes);
        if (made)
            after = std::move(*made);
        return made.has_value();
    }

    std::optional<CellResult> cell(const CellJob& job, const std::string& working, const CancelToken& cancel) {
        const std::string key = job.target ? job.source + "|" + working : job.source;
        PicturePtr before = job.picture;
        if (!before) {
            PicturePtr& made = generated_[key];
            if (!made) {
                image::Picture picture = targets::make(*job.target, 0);
                picture.space = working;
                made = std::make_shared<const image::Picture>(std::move(picture));
            }
            before = made;
        }
        PicturePtr& after = after_[key];
        if (!after) {
            image::Picture picture;
            if (!run(program(job.target ? "" : before->space), *before, picture, cancel, job.file))
                return std::nullopt;
            after = std::make_shared<const image::Picture>(std::move(picture));
        }
        CellResult result;
        result.id = job.id;
        result.space = before->space;
        result.working = working;
        result.before_pixels = before;
        result.after_pixels = after;
        const Shown shape{key, job.lens, job.pixels.width(), job.pixels.height()};
        const auto image = [&](std::map<Shown, Painted>& cache, std::map<Size, image::Picture>& small_cache, const image::Picture& picture) {
            Painted& entry = cache[shape];
            if (entry.image.isNull())
                entry.image = shown(small(small_cache, key, job.pixels, picture), lens(job.lens), screen_, &entry.outside);
            return entry;
        };
        const Painted was = image(shown_before_, small_before_, *before), is = image(shown_after_, small_after_, *after);
        result.before = was.image;
        result.outside_before = was.outside;
        result.after = is.image;
        result.outside_after = is.outside;
        return result;
    }

    void forget_unused(const PreviewRequest& request) {
        std::erase_if(sources_, [&](const auto& entry) {
            return entry.first && std::none_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) { return job.file == entry.first; });
        });
        const auto unused = [&](const std::string& key, int width) {
            return std::none_of(request.cells.begin(), request.cells.end(), [&](const CellJob& job) {
                return key.starts_with(job.source) && width == job.pixels.width();
            });
        };
        std::erase_if(shown_before_, [&](const auto& entry) { return unused(std::get<0>(entry.first), std::get<2>(entry.first)); });
        std::erase_if(small_before_, [&](const auto& entry) { return unused(std::get<0>(entry.first), std::get<1>(entry.first)); });
    }

    void forget_after() {
        after_.clear();
        shown_after_.clear();
        small_after_.clear();
    }

    /// A picture at the size of a cell: shared by all lenses of that size.
    const image::Picture& small(std::map<Size, image::Picture>& cache, const std::string& key, const QSize& size, const image::Picture& picture) {
        image::Picture& entry = cache[{key, size.width(), size.height()}];
        if (!entry.planes[0])
            entry = reduced(picture, size.width(), size.height());
        return entry;
    }

    image::PlanePool pool_;
    std::string text_;
    std::filesystem::path path_;
    CheckedPtr checked_, good_;
    double check_ms_ = 0;
    std::uint64_t spaces_ = 0;
    std::vector<double> values_;
    std::map<std::string, engine::ProgramPtr> programs_;
    std::map<ImagePtr, engine::BoundSources> sources_;
    std::map<std::string, PicturePtr> generated_, after_;
    std::map<Shown, Painted> shown_before_, shown_after_;
    Screen screen_;
    std::map<Size, image::Picture> small_before_, small_after_;
};

Preview::Preview(QObject* parent) : QObject(parent) {
    qRegisterMetaType<CheckedPtr>();
    qRegisterMetaType<SheetPtr>();
    qRegisterMetaType<ProofsPtr>();
    thread_ = std::thread([this] { loop(); });
}

Preview::~Preview() {
    {
        const std::lock_guard lock(mutex_);
        stop_ = true;
        current_.cancel();
    }
    wake_.notify_one();
    thread_.join();
}

std::uint64_t Preview::request(PreviewRequest request) {
    std::uint64_t generation = 0;
    {
        const std::lock_guard lock(mutex_);
        waiting_ = std::make_unique<PreviewRequest>(std::move(request));
        generation = ++generation_;
        if (proving_ || milliseconds(began_) > patience_ms)
            current_.cancel();
    }
    wake_.notify_one();
    return generation;
}

void Preview::loop() {
    Worker worker;
    while (true) {
        std::unique_ptr<PreviewRequest> request;
        std::uint64_t generation = 0;
        CancelToken cancel;
        {
            std::unique_lock lock(mutex_);
            wake_.wait(lock, [this] { return stop_ || waiting_; });
            if (stop_)
                return;
            request = std::move(waiting_);
            generation = generation_;
            current_ = cancel;
            proving_ = false;
            began_ = Clock::now();
        }
        const auto from = Clock::now();
        const bool fresh = worker.check(request->text, request->path);
        if (fresh)
            emit checked(request->text, worker.last_checked());
        if (!worker.has_rule())
            continue;
        worker.set_values(values_for(worker.rule(), request->values));
        const std::shared_ptr<SheetResult> sheet = worker.sheet(*request, fresh, cancel);
        if (!sheet)
            continue;
        sheet->generation = generation;
        sheet->total_ms = milliseconds(from);
        emit sheet_ready(sheet);
        {
            const std::lock_guard lock(mutex_);
            if (waiting_)
                continue; // newer work first; its proofs come after it
            proving_ = true;
        }
        auto proofs = std::make_shared<ProofsResult>();
        proofs->generation = generation;
        const std::vector<std::vector<double>> settings = {worker.values()};
        for (const lang::ProofLine& line : proof::lines_of(worker.rule())) {
            auto outcome = proof::check(worker.rule(), worker.program(""), line, settings, cancel);
            if (!outcome)
                break;
            proofs->outcomes.push_back(std::move(*outcome));
        }
        if (!cancel.cancelled())
            emit proofs_ready(proofs);
    }
}

} // namespace kasuri::app
