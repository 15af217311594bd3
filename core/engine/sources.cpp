#include "engine/sources.hpp"

#include <algorithm>

namespace kasuri::engine {

BoundSources bind_sources(const lang::Rule& rule, std::span<const std::shared_ptr<const image::Picture>> pictures) {
    return bind_sources(external_sources(rule), pictures);
}

BoundSources bind_sources(std::span<const lang::SourceInput> sources,
                          std::span<const std::shared_ptr<const image::Picture>> pictures) {
    BoundSources bound;
    for (std::size_t i = 0; i < sources.size(); ++i) {
        const image::Picture* picture = i < pictures.size() ? pictures[i].get() : nullptr;
        bound.spaces.push_back(picture ? picture->space : "");
        for (int c = 0; c < width(sources[i].type); ++c) {
            image::Plane plane = picture ? picture->planes[static_cast<std::size_t>(c)] : nullptr;
            if (picture && c == 3 && !plane)
                plane = image::make_plane(image::Samples(picture->pixels(), 1.0f));
            bound.planes.push_back(view_of(plane));
            bound.kept.push_back(std::move(plane));
        }
    }
    return bound;
}

std::vector<lang::SourceInput> external_sources(const lang::Rule& rule) {
    std::vector<lang::SourceInput> sources;
    std::copy_if(rule.sources.begin(), rule.sources.end(), std::back_inserter(sources), lang::is_external);
    return sources;
}

lang::Rule with_own_sources(lang::Rule rule) {
    for (lang::SourceInput& source : rule.sources) {
        source.reads = lang::SourceInput::Reads::own;
        source.channel = -1;
    }
    return rule;
}

std::shared_ptr<const image::Picture> source_in(const image::Image& image, std::string_view name) {
    const std::vector<std::string> layers = image::layers(image);
    if (std::find(layers.begin(), layers.end(), name) != layers.end())
        if (std::optional<image::Picture> picture = image::picture_of(image, name))
            return std::make_shared<const image::Picture>(std::move(*picture));
    if (const image::Channel* channel = image.find(name)) {
        image::Picture picture;
        picture.width = image.width;
        picture.height = image.height;
        picture.space = image.space;
        picture.planes = {channel->plane, channel->plane, channel->plane, nullptr};
        return std::make_shared<const image::Picture>(std::move(picture));
    }
    return nullptr;
}

} // namespace kasuri::engine
