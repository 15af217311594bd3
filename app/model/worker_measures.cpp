// What the worker measures of a state: readings, and how far a take is from the rule.
#include "base/timeline.hpp"
#include "model/lens.hpp"
#include "model/preview_worker.hpp"

#include <algorithm>
#include <array>
#include <limits>

namespace kasuri::app {

std::optional<readings::Apart> PreviewWorker::apart(const PicturePtr& first, const PicturePtr& second,
                                                    const CancelToken& cancel) {
    const std::optional<KeptApart> kept = apart_.get({first.get(), second.get()}, [&]() -> std::optional<KeptApart> {
        KeptApart made{readings::seen_apart(image::in_memory(*first), image::in_memory(*second), cancel), first,
                       second};
        return cancel.cancelled() ? std::nullopt : std::optional(std::move(made));
    });
    return kept ? kept->made : std::nullopt;
}

std::shared_ptr<ReadingsResult> PreviewWorker::readings(const PreviewRequest& request, const SheetResult& sheet,
                                                        const CancelToken& cancel) {
    auto result = std::make_shared<ReadingsResult>();
    std::optional<std::vector<MeasuredPtr>> before = measured(request, sheet, false, cancel);
    std::optional<std::vector<MeasuredPtr>> after = before ? measured(request, sheet, true, cancel) : std::nullopt;
    if (!after)
        return nullptr;
    for (std::size_t i = 0; i < request.readings.size(); ++i) {
        const ReadingJob& job = request.readings[i];
        result->readings.push_back({job.id, job.reading,
                                    job.reading->panels(completed(job.reading->settings, job.settings)), (*before)[i],
                                    (*after)[i]});
    }
    // Of all pixels, which takes many times as long as the sheet: it must not wait for that.
    for (const CellJob& job : request.cells)
        for (const CellResult& cell : sheet.cells) {
            if (!job.take || cell.id != job.id || !cell.after_pixels || !cell.fault.empty())
                continue;
            const PicturePtr input = input_of(job);
            const std::optional<subject::Subject> now = seen_of(rule_, lens(job.lens));
            const PicturePtr made = now ? ran(*now, input, job.file, cancel) : input;
            if (const auto far = made ? apart(made, cell.after_pixels, cancel) : std::nullopt)
                result->apart.emplace(job.id, *far);
            if (cancel.cancelled())
                return nullptr;
        }
    return result;
}

std::optional<std::vector<MeasuredPtr>> PreviewWorker::measured(const PreviewRequest& request, const SheetResult& sheet,
                                                                bool after, const CancelToken& cancel) {
    std::vector<OfReading> keys;
    std::vector<readings::Asked> asked; // what is not known, in one go: they may look at the same pictures
    std::vector<std::pair<OfReading, std::vector<PicturePtr>>> unknown;
    for (const ReadingJob& job : request.readings) {
        OfReading key{job.reading, job.settings, {job.line.x0, job.line.y0, job.line.x1, job.line.y1},
                      {},          {},           working_};
        std::vector<PicturePtr> pictures;
        if (job.reading->about == readings::About::pictures) {
            for (const int id : job.cells)
                for (const CellResult& cell : sheet.cells)
                    if (cell.id == id)
                        pictures.push_back(after ? cell.after_pixels : cell.before_pixels);
            for (const PicturePtr& picture : pictures)
                key.pictures.push_back(picture.get());
        } else {
            key.subject = after ? rule_.whole().identity() : compares() ? against_.whole().identity() : "as it comes";
        }
        keys.push_back(key);
        if (readings_.find(key) ||
            std::any_of(unknown.begin(), unknown.end(), [&](const auto& known) { return known.first == key; }))
            continue;
        readings::Order order;
        for (const image::Picture* picture : key.pictures)
            order.pictures.push_back(picture);
        order.rule = [&, after](const image::Picture& generated) -> std::optional<image::Picture> {
            if (!after && !compares())
                return generated;
            image::Picture picture = generated;
            picture.space = working_;
            return run(after ? rule_.whole() : against_.whole(), picture, nullptr, cancel);
        };
        order.working = working_;
        order.settings = completed(job.reading->settings, job.settings);
        order.line = job.line;
        order.views = &views_;
        order.cancel = cancel;
        asked.push_back({job.reading, std::move(order)});
        unknown.emplace_back(std::move(key), std::move(pictures));
    }
    if (!asked.empty()) {
        const timeline::Stretch stretch(after ? "readings after" : "readings before");
        std::optional<std::vector<readings::Measured>> made = readings::measured(asked);
        if (!made)
            return std::nullopt;
        for (std::size_t i = 0; i < made->size(); ++i)
            readings_.keep(unknown[i].first,
                           KeptReading{std::make_shared<const readings::Measured>(std::move((*made)[i])),
                                       std::move(unknown[i].second)});
    }
    std::vector<MeasuredPtr> all;
    for (const OfReading& key : keys)
        all.push_back(readings_.find(key)->made);
    return all;
}

std::optional<StripResult> PreviewWorker::over_time(const StripJob& job, const CancelToken& cancel) {
    StripResult strip;
    strip.id = job.id;
    strip.axis = {0, static_cast<double>(job.over_time->width), targets::Scale::linear, {}, ""};
    strip.frames = job.frames;
    const auto made = [&](const subject::Subject& subject) -> std::optional<image::Picture> {
        const engine::ProgramPtr program = subject.program();
        if (!program->reads_position() && !program->reads_neighbours() && subject.sources().empty())
            return run(subject, *job.over_time, nullptr, cancel);
        strip.needs_pictures = true;
        const float none = std::numeric_limits<float>::quiet_NaN();
        image::Picture unknown = image::generated(job.over_time->width, 1, [&](int, int) {
            return std::array<float, 3>{none, none, none};
        });
        unknown.space = job.over_time->space;
        return unknown;
    };
    std::optional<image::Picture> after = made(rule_.whole());
    std::optional<image::Picture> before = compares() ? made(against_.whole()) : *job.over_time;
    if (!after || !before)
        return std::nullopt;
    strip.after = std::move(*after);
    strip.before = std::move(*before);
    return strip;
}

} // namespace kasuri::app
