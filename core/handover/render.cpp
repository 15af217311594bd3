#include "handover/render.hpp"

#include "base/digest.hpp"
#include "colour/space.hpp"
#include "engine/evaluate.hpp"
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
    if (layer.empty())
        layer = image::usual_layer(image);
    if (std::find(layers.begin(), layers.end(), layer) == layers.end())
        return Error{said("there is no layer {}", layer), file.string(), said("It has {}.", named(layers))};
    return layer;
}

PicturePtr stretched(const PicturePtr& picture, int width, int height) {
    return std::make_shared<const image::Picture>(io::stretched(*picture, width, height));
}

Result<engine::BoundSources> sources_of(const subject::Subject& subject, const image::Image& image,
                                        const RenderJob& job, std::vector<std::string>& notes) {
    if (const std::vector<std::string> missing = subject::without_picture(subject, &image); !missing.empty())
        return Error{said("the {} reads the further picture {}, and there is no layer or channel of that name",
                          translated(subject.noun()), missing.front()),
                     job.in.string(), "Say which file it is."};
    for (const auto& [name, bound] : subject.bindings())
        if (bound.picture && (bound.picture->width != image.width || bound.picture->height != image.height))
            notes.push_back(said("{} for {} is {} x {} pixels: stretched to {} x {}", bound.label, name,
                                 bound.picture->width, bound.picture->height, image.width, image.height));
    return engine::bind_sources(subject.sources(),
                                subject::pictures_for(subject, &image, image.width, image.height, stretched));
}

/// A premultiplied pixel of alpha 0 is no colour that a rule could change: an offset would make light where nothing is.
/// Its light, if it has any, only follows into the other space.
void leave_uncovered(const image::Image& image, const image::Picture& given, image::Picture& after) {
    if (image.alpha != image::Alpha::premultiplied || !given.planes[3])
        return;
    const image::Picture before = image::as_floats(given);
    const image::Plane cover = image::as_floats(after.planes[3]);
    const colour::Space &from = *colour::find_space(before.space), &to = *colour::find_space(after.space);
    std::array<image::Samples, 3> planes = {after.planes[0]->copied(), after.planes[1]->copied(),
                                            after.planes[2]->copied()};
    for (std::size_t i = 0; i < before.pixels(); ++i) {
        if ((*before.planes[3])[i] != 0 || (cover && (*cover)[i] != 0))
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

std::string made_of(const subject::Subject& subject, const RenderJob& job) {
    Digest digest;
    digest.add(subject.identity());
    for (const std::string& text : {job.layer, job.in_space, job.out_space})
        digest.add(text);
    digest.add(static_cast<std::uint64_t>(job.depth ? 1 + static_cast<int>(*job.depth) : 0));
    return digest.text();
}

std::optional<image::Picture> applied(const subject::Subject& subject, const image::Picture& picture,
                                      const image::Image* file, const CancelToken& cancel) {
    const engine::BoundSources sources = engine::bind_sources(
        subject.sources(), subject::pictures_for(subject, file, picture.width, picture.height, stretched));
    std::optional<image::Picture> made =
        engine::evaluate(*subject.program(picture.space, picture.space, sources.spaces), picture, subject.values(),
                         cancel, nullptr, nullptr, sources.planes);
    if (made)
        made->space = picture.space;
    return made;
}

namespace {

/// Black, in floats: what is made of it is made of nothing.
Result<image::Image> blank(const RenderJob& job) {
    if (!job.in_space.empty() && !colour::find_space(job.in_space))
        return Error{said("there is no space {}", job.in_space), "", "See docs/colour.md for the list."};
    image::Image image = image::image_of(
        image::generated(job.blank_width, job.blank_height, [](int, int) { return std::array<double, 3>{}; }));
    image.space = job.in_space.empty() ? std::string(colour::default_space) : job.in_space;
    return image;
}

} // namespace

Result<Made> made_image(const subject::Subject& subject, const RenderJob& job, const CancelToken& cancel,
                        std::atomic<std::size_t>* done) {
    if (job.depth)
        if (const auto refused = io::refused_depth(job.out, *job.depth))
            return *refused;
    const Result<image::Image> loaded = job.blank_width > 0 ? blank(job) : io::load(job.in, job.in_space);
    return loaded ? made_image(subject, job, loaded.value(), cancel, done) : loaded.error();
}

Result<Made> made_image(const subject::Subject& subject, const RenderJob& job, const image::Image& image,
                        const CancelToken& cancel, std::atomic<std::size_t>* done) {
    const Result<std::string> layer = chosen_layer(image, job.layer, job.in);
    if (!layer)
        return layer.error();
    const std::optional<image::Picture> picture = image::picture_of(image, layer.value());
    if (!picture)
        return Error{"has no channel to work on", job.in.string(), ""};
    std::vector<std::string> notes = image.notes;
    const Result<engine::BoundSources> sources = sources_of(subject, image, job, notes);
    if (!sources)
        return sources.error();
    const std::string out_space =
        job.out_space.empty() ? io::space_of_ending(job.out, image.depth, image.space, job.depth) : job.out_space;
    const engine::ProgramPtr program = subject.program(picture->space, out_space, sources.value().spaces);
    const auto finished = [&](image::Image made) {
        made.made = made_of(subject, job);
        if (job.depth) {
            made.depth = *job.depth;
            for (image::Channel& channel : made.channels)
                channel.depth.reset();
        }
        return Made{std::move(made), std::move(notes)};
    };
    if (program->is_identity()) // also spares the division by alpha and back, which is not exact
        return finished(image);
    std::optional<image::Picture> result =
        engine::evaluate(*program, *picture, subject.values(), cancel, done, nullptr, sources.value().planes);
    if (!result)
        return Error{"called off", job.out.string(), "Nothing was written."};
    result->space = out_space;
    leave_uncovered(image, *picture, *result);
    // The other layers cannot follow into another space, so then only the worked one goes along.
    if (out_space == image.space)
        return finished(image::with_picture(image, layer.value(), *result));
    image::Image alone = image::image_of(*picture);
    if (alone.alpha != image::Alpha::none)
        alone.alpha = image.alpha;
    alone.depth = image.depth;
    alone.attributes = image.attributes;
    alone.window = image.window;
    alone.ids = image.ids;
    if (!image.parts.empty())
        alone.parts.assign(1, image.parts.front()); // how it is stored
    return finished(image::with_picture(alone, "", *result));
}

Result<io::SaveReport> render(const subject::Subject& subject, const RenderJob& job, const CancelToken& cancel,
                              std::atomic<std::size_t>* done) {
    Result<Made> made = made_image(subject, job, cancel, done);
    if (!made)
        return made.error();
    Result<io::SaveReport> report = io::save(job.out, made.value().image);
    if (report)
        report.value().notes.insert(report.value().notes.begin(), made.value().notes.begin(), made.value().notes.end());
    return report;
}

} // namespace kasuri::handover
