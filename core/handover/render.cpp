#include "handover/render.hpp"
#include "handover/render_work.hpp"

#include "colour/space.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "engine/sources.hpp"
#include "io/stretch.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::handover {

namespace {

using PicturePtr = std::shared_ptr<const image::Picture>;

std::string named(const std::vector<std::string>& names) {
    return names.empty() ? "none" : fmt::format("{}", fmt::join(names, ", "));
}

/// The layer to work on: the one that is wanted, if there is one of that name.
Result<std::string> chosen_layer(const image::Image& image, std::string layer, const std::filesystem::path& file) {
    const std::vector<std::string> layers = image::layers(image);
    if (layer.empty() && std::find(layers.begin(), layers.end(), "") == layers.end() && !layers.empty())
        layer = layers.front();
    if (std::find(layers.begin(), layers.end(), layer) == layers.end())
        return Error{fmt::format("there is no layer {}", layer), file.string(),
                     fmt::format("It has {}.", named(layers))};
    return layer;
}

Result<PicturePtr> source_picture(const lang::SourceInput& source, const image::Image& image, const RenderJob& job,
                                  std::vector<std::string>& notes) {
    const auto given = std::find_if(job.sources.begin(), job.sources.end(),
                                    [&](const SourceFile& file) { return file.name == source.name; });
    if (given == job.sources.end()) {
        if (PicturePtr beside = engine::source_in(image, source.name))
            return beside;
        return Error{fmt::format("the rule reads the further picture {}, and there is no layer or channel of that name",
                                 source.name),
                     job.in.string(), "Say which file it is."};
    }
    const Result<image::Image> loaded = io::load(given->file);
    if (!loaded)
        return loaded.error();
    const Result<std::string> layer = chosen_layer(loaded.value(), given->layer, given->file);
    if (!layer)
        return layer.error();
    std::optional<image::Picture> picture = image::picture_of(loaded.value(), layer.value());
    if (!picture)
        return Error{"has no channel to read", given->file.string(), ""};
    if (picture->width != image.width || picture->height != image.height) {
        notes.push_back(fmt::format("{} for {} is {} x {} pixels: stretched to {} x {}",
                                    given->file.filename().string(), source.name, picture->width, picture->height,
                                    image.width, image.height));
        picture = io::stretched(*picture, image.width, image.height);
    }
    return std::make_shared<const image::Picture>(std::move(*picture));
}

Result<engine::BoundSources> sources_of(const RenderWork& work, const image::Image& image, const RenderJob& job,
                                        std::vector<std::string>& notes) {
    std::vector<std::string> names;
    for (const lang::SourceInput& source : work.sources)
        names.push_back(source.name);
    for (const SourceFile& file : job.sources)
        if (std::find(names.begin(), names.end(), file.name) == names.end())
            return Error{fmt::format("the rule has no source {}", file.name), file.file.string(),
                         fmt::format("It has: {}.", named(names))};
    std::vector<PicturePtr> pictures;
    for (const lang::SourceInput& source : work.sources) {
        Result<PicturePtr> picture = source_picture(source, image, job, notes);
        if (!picture)
            return picture.error();
        pictures.push_back(std::move(picture.value()));
    }
    return work.bind(pictures);
}

/// A premultiplied pixel of alpha 0 is no colour that a rule could change: an offset would make light where nothing is.
/// Its light, if it has any, only follows into the other space.
void leave_uncovered(const image::Image& image, const image::Picture& before, image::Picture& after) {
    if (image.alpha != image::Alpha::premultiplied || !before.planes[3])
        return;
    const colour::Space &from = *colour::find_space(before.space), &to = *colour::find_space(after.space);
    std::array<image::Samples, 3> planes = {*after.planes[0], *after.planes[1], *after.planes[2]};
    for (std::size_t i = 0; i < before.pixels(); ++i) {
        if ((*before.planes[3])[i] != 0 || (after.planes[3] && (*after.planes[3])[i] != 0))
            continue;
        const auto c = before.at(i);
        const colour::Triple made = colour::converted(
            {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])}, from, to);
        for (std::size_t k = 0; k < 3; ++k)
            planes[k][i] = &from == &to ? c[k] : static_cast<float>(made[k]);
    }
    for (std::size_t k = 0; k < 3; ++k)
        after.planes[k] = image::make_plane(std::move(planes[k]));
}

} // namespace

RenderWork work_of(const lang::Rule& rule, std::span<const double> values) {
    RenderWork work;
    work.sources = rule.sources;
    work.bind = [&rule](std::span<const PicturePtr> pictures) { return engine::bind_sources(rule, pictures); };
    work.compile = [&rule](const engine::CompileOptions& options) { return engine::compile(rule, options); };
    work.values.assign(values.begin(), values.end());
    return work;
}

Result<io::SaveReport> render(const lang::Rule& rule, std::span<const double> values, const RenderJob& job,
                              const CancelToken& cancel, std::atomic<std::size_t>* done) {
    return render(work_of(rule, values), job, cancel, done);
}

Result<io::SaveReport> render(const RenderWork& work, const RenderJob& job, const CancelToken& cancel,
                              std::atomic<std::size_t>* done) {
    if (job.depth)
        if (const auto refused = io::refused_depth(job.out, *job.depth))
            return *refused;
    const Result<image::Image> loaded = io::load(job.in, job.in_space);
    if (!loaded)
        return loaded.error();
    const image::Image& image = loaded.value();
    const Result<std::string> layer = chosen_layer(image, job.layer, job.in);
    if (!layer)
        return layer.error();
    const std::optional<image::Picture> picture = image::picture_of(image, layer.value());
    if (!picture)
        return Error{"has no channel to work on", job.in.string(), ""};
    std::vector<std::string> notes = image.notes;
    const Result<engine::BoundSources> sources = sources_of(work, image, job, notes);
    if (!sources)
        return sources.error();
    engine::CompileOptions options;
    const std::string out_space =
        job.out_space.empty() ? io::space_of_ending(job.out, image.depth, image.space, job.depth) : job.out_space;
    options.in_space = picture->space;
    options.out_space = out_space;
    options.source_spaces = sources.value().spaces;
    const engine::ProgramPtr program = work.compile(options);
    const auto save = [&](image::Image made) {
        if (job.depth) {
            made.depth = *job.depth;
            for (image::Channel& channel : made.channels)
                channel.depth.reset();
        }
        Result<io::SaveReport> report = io::save(job.out, made);
        if (report)
            report.value().notes.insert(report.value().notes.begin(), notes.begin(), notes.end());
        return report;
    };
    if (program->is_identity()) // also spares the division by alpha and back, which is not exact
        return save(image);
    std::optional<image::Picture> result =
        engine::evaluate(*program, *picture, work.values, cancel, done, nullptr, sources.value().planes);
    if (!result)
        return Error{"called off", job.out.string(), "Nothing was written."};
    result->space = out_space;
    leave_uncovered(image, *picture, *result);
    // The other layers cannot follow into another space, so then only the worked one goes along.
    if (out_space == image.space)
        return save(image::with_picture(image, layer.value(), *result));
    image::Image alone = image::image_of(*picture);
    if (alone.alpha != image::Alpha::none)
        alone.alpha = image.alpha;
    alone.depth = image.depth;
    alone.attributes = image.attributes;
    alone.window = image.window;
    alone = image::with_picture(alone, "", *result);
    return save(alone);
}

} // namespace kasuri::handover
