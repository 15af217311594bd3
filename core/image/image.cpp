#include "image/image.hpp"

#include <algorithm>
#include <cctype>
#include <cstring>

namespace kasuri::image {
namespace {

struct Named {
    std::string_view layer;
    std::string_view channel;
};
Named parted(std::string_view name) {
    const auto dot = name.rfind('.');
    if (dot == std::string_view::npos)
        return {"", name};
    return {name.substr(0, dot), name.substr(dot + 1)};
}

bool same_word(std::string_view a, std::string_view b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](unsigned char x, unsigned char y) { return std::tolower(x) == std::tolower(y); });
}

/// Index of the layer's channel with one of two names (letter, word), any case; -1 if there is none.
int find_channel(const Image& image, std::string_view layer, std::string_view letter, std::string_view word) {
    for (std::size_t i = 0; i < image.channels.size(); ++i) {
        const Named named = parted(image.channels[i].name);
        if (named.layer == layer && (same_word(named.channel, letter) || same_word(named.channel, word)))
            return static_cast<int>(i);
    }
    return -1;
}

struct Places {
    std::array<int, 3> rgb = {-1, -1, -1};
    int alpha = -1;
    bool colour() const { return rgb[0] >= 0 && rgb[1] >= 0 && rgb[2] >= 0; }
};
Places places(const Image& image, std::string_view layer) {
    return {{find_channel(image, layer, "R", "red"), find_channel(image, layer, "G", "green"),
             find_channel(image, layer, "B", "blue")},
            find_channel(image, layer, "A", "alpha")};
}

/// The first channel of a layer that is not its alpha; -1: there is none.
int single_channel(const Image& image, std::string_view layer) {
    const int alpha = places(image, layer).alpha;
    for (std::size_t i = 0; i < image.channels.size(); ++i)
        if (parted(image.channels[i].name).layer == layer && static_cast<int>(i) != alpha)
            return static_cast<int>(i);
    return -1;
}

/// The channel that covers a layer: its own alpha, else, of a layer that is a colour, the file's; -1: there is none.
int alpha_of(const Image& image, std::string_view layer, const Places& found) {
    if (found.alpha >= 0 || layer.empty() || !found.colour() || image.alpha == Alpha::none)
        return found.alpha;
    return places(image, "").alpha;
}

/// The part that a layer is of.
int part_of(const Image& image, const Places& found, int single) {
    const int first = found.rgb[0] >= 0 ? found.rgb[0] : single >= 0 ? single : found.alpha;
    return first >= 0 ? image.channels[static_cast<std::size_t>(first)].part : 0;
}

constexpr std::size_t piece = 2048; ///< numbers that stay in the nearest cache

/// Whether dividing by it would change nothing.
bool covers_or_not(const Plane& alpha) {
    std::array<float, piece> room;
    for (std::size_t first = 0; first < alpha->size(); first += piece) {
        const std::size_t count = std::min(piece, alpha->size() - first);
        const float* const a = alpha->numbers(first, count, room.data());
        if (!std::all_of(a, a + count, [](float x) { return x == 0 || x == 1; }))
            return false;
    }
    return true;
}

Plane divided(const Plane& plane, const Plane& alpha) {
    Samples values(plane->size());
    std::array<float, piece> of_plane, of_alpha;
    for (std::size_t first = 0; first < values.size(); first += piece) {
        const std::size_t count = std::min(piece, values.size() - first);
        const float* const c = plane->numbers(first, count, of_plane.data());
        const float* const a = alpha->numbers(first, count, of_alpha.data());
        for (std::size_t i = 0; i < count; ++i)
            values[first + i] = a[i] != 0 && a[i] != 1 ? c[i] / a[i] : c[i];
    }
    return make_plane(std::move(values));
}

} // namespace

const Channel* Image::find(std::string_view name) const {
    const auto found = std::find_if(channels.begin(), channels.end(), [&](const Channel& c) { return c.name == name; });
    return found == channels.end() ? nullptr : &*found;
}

std::vector<std::string> layers(const Image& image) {
    std::vector<std::string> names;
    for (const Channel& channel : image.channels) {
        const std::string layer(parted(channel.name).layer);
        if (std::find(names.begin(), names.end(), layer) == names.end())
            names.push_back(layer);
    }
    return names;
}

std::array<float, 4> Picture::kept_at(std::size_t index) const {
    std::array<float, 4> made{0, 0, 0, opaque};
    std::array<float*, 4> to{};
    const MadeOnDemand* source = nullptr;
    for (std::size_t c = 0; c < 4; ++c)
        if (planes[c] && planes[c]->on_demand()) { // all of them at once
            source = planes[c]->on_demand();
            to[c] = &made[c];
        } else if (planes[c])
            made[c] = (*planes[c])[index];
    if (source)
        source->make(index % source->width(), index / source->width(), 1, 1, to);
    return made;
}

Picture in_memory(const Picture& picture, const PlanePool* pool) {
    const MadeOnDemand* source = nullptr;
    for (const Plane& plane : picture.planes)
        if (plane && plane->on_demand())
            source = plane->on_demand();
    if (!source)
        return picture;
    std::array<Samples, 4> made;
    std::array<float*, 4> to{};
    for (std::size_t c = 0; c < 4; ++c)
        if (picture.planes[c] && picture.planes[c]->on_demand()) {
            made[c] = pool ? pool->take(picture.pixels()) : Samples(picture.pixels());
            to[c] = made[c].data();
        }
    source->make(0, 0, source->width(), source->height(), to);
    Picture result = picture;
    for (std::size_t c = 0; c < 4; ++c)
        if (to[c])
            result.planes[c] = pool ? pool->plane(std::move(made[c])) : make_plane(std::move(made[c]));
    return result;
}

Picture as_floats(const Picture& picture) {
    Picture made = in_memory(picture);
    for (std::size_t i = 0; i < 4; ++i) { // planes may be one
        const auto* const first = std::find(picture.planes.begin(), picture.planes.end(), picture.planes[i]);
        const auto known = static_cast<std::size_t>(first - picture.planes.begin());
        made.planes[i] = known < i ? made.planes[known] : as_floats(made.planes[i]);
    }
    return made;
}

bool same(const Picture& a, const Picture& b) {
    if (a.width != b.width || a.height != b.height || a.space != b.space)
        return false;
    const auto same_bits = [](const PlaneData& x, const PlaneData& y) {
        std::array<float, piece> of_x, of_y;
        for (std::size_t first = 0; first < x.size(); first += piece) {
            const std::size_t count = std::min(piece, x.size() - first);
            if (std::memcmp(x.numbers(first, count, of_x.data()), y.numbers(first, count, of_y.data()),
                            count * sizeof(float)) != 0)
                return false;
        }
        return true;
    };
    for (std::size_t i = 0; i < a.planes.size(); ++i)
        if (a.planes[i] != b.planes[i] && (!a.planes[i] || !b.planes[i] || !same_bits(*a.planes[i], *b.planes[i])))
            return false;
    return true;
}

std::string usual_layer(const Image& image) {
    const std::vector<std::string> names = layers(image);
    const auto has_colour = [&](const std::string& layer) { return places(image, layer).colour(); };
    const auto has_more_than_alpha = [&](const std::string& layer) { return single_channel(image, layer) >= 0; };
    for (const std::string& name : names)
        if (name.empty() && (has_colour(name) || has_more_than_alpha(name)))
            return name;
    if (const auto found = std::find_if(names.begin(), names.end(), has_colour); found != names.end())
        return *found;
    if (const auto found = std::find_if(names.begin(), names.end(), has_more_than_alpha); found != names.end())
        return *found;
    return names.empty() ? std::string() : names.front();
}

std::optional<Picture> picture_of(const Image& image, std::string_view layer) {
    const Places found = places(image, layer);
    Picture picture;
    picture.width = image.width;
    picture.height = image.height;
    picture.space = image.space;
    if (found.colour()) {
        for (std::size_t i = 0; i < 3; ++i)
            picture.planes[i] = image.channels[static_cast<std::size_t>(found.rgb[i])].plane;
    } else {
        // The first channel that is not alpha is shown as a neutral picture; alpha alone as itself.
        const int single = single_channel(image, layer), only = single >= 0 ? single : found.alpha;
        if (only < 0)
            return std::nullopt;
        const Plane& plane = image.channels[static_cast<std::size_t>(only)].plane;
        picture.planes = {plane, plane, plane, nullptr};
        if (only == found.alpha)
            return picture;
    }
    const int alpha = alpha_of(image, layer, found);
    if (alpha < 0)
        return picture;
    picture.planes[3] = image.channels[static_cast<std::size_t>(alpha)].plane;
    if (image.alpha == Alpha::premultiplied && !covers_or_not(picture.planes[3]))
        for (std::size_t i = 0; i < 3; ++i)
            picture.planes[i] = divided(picture.planes[i], picture.planes[3]);
    return picture;
}

Image with_picture(const Image& image, std::string_view layer, const Picture& picture) {
    Image result = image;
    result.space = picture.space;
    std::array<Plane, 3> rgb = {picture.planes[0], picture.planes[1], picture.planes[2]};
    const std::string prefix = layer.empty() ? "" : std::string(layer) + ".";
    const Places found = places(image, layer);
    const int alpha = alpha_of(image, layer, found);
    const Plane before = alpha >= 0 ? image.channels[static_cast<std::size_t>(alpha)].plane : nullptr;
    if (picture.planes[3] && image.alpha == Alpha::premultiplied) {
        const Plane cover = as_floats(picture.planes[3]), was = as_floats(before);
        for (Plane& plane : rgb) {
            Samples values = plane->copied();
            for (std::size_t i = 0; i < values.size(); ++i) {
                const float a = (*cover)[i];
                // Light that never had a cover was not divided either; what lost its cover is gone.
                if (a != 1 && !(a == 0 && was && (*was)[i] == 0))
                    values[i] *= a;
            }
            plane = make_plane(std::move(values));
        }
    }
    const int single = found.colour() ? -1 : single_channel(image, layer);
    if (found.colour()) {
        for (std::size_t i = 0; i < 3; ++i)
            result.channels[static_cast<std::size_t>(found.rgb[i])].plane = rgb[i];
    } else {
        // Three channels stand where the one was that was worked on; all others stay.
        const std::string_view names[] = {"R", "G", "B"};
        std::vector<Channel> made;
        for (std::size_t i = 0; i < 3; ++i)
            made.push_back({prefix + std::string(names[i]), rgb[i]});
        const int at = single >= 0 ? single : found.alpha >= 0 ? found.alpha : static_cast<int>(result.channels.size());
        if (single >= 0) {
            for (Channel& channel : made) {
                channel.depth = image.channels[static_cast<std::size_t>(single)].depth;
                channel.part = image.channels[static_cast<std::size_t>(single)].part;
            }
            result.channels.erase(result.channels.begin() + single);
        }
        result.channels.insert(result.channels.begin() +
                                   std::min<std::ptrdiff_t>(at, static_cast<std::ptrdiff_t>(result.channels.size())),
                               made.begin(), made.end());
    }
    const bool same_alpha =
        before && picture.planes[3] && (picture.planes[3] == before || *picture.planes[3] == *before);
    if (picture.planes[3] && !same_alpha) {
        if (result.alpha == Alpha::none)
            result.alpha = Alpha::straight;
        // A cover that several layers share stays as it is: this one gets its own.
        const std::string name = prefix + "A";
        const auto own = std::find_if(result.channels.begin(), result.channels.end(), [&](const Channel& c) {
            return found.alpha >= 0 && c.name == image.channels[static_cast<std::size_t>(found.alpha)].name;
        });
        if (own != result.channels.end())
            own->plane = picture.planes[3];
        else
            result.channels.push_back({name, picture.planes[3], {}, part_of(image, found, single)});
    }
    return result;
}

Image image_of(const Picture& picture) {
    Image image;
    image.width = picture.width;
    image.height = picture.height;
    image.space = picture.space;
    image.channels = {{"R", picture.planes[0]}, {"G", picture.planes[1]}, {"B", picture.planes[2]}};
    if (picture.planes[3]) {
        image.channels.push_back({"A", picture.planes[3]});
        image.alpha = Alpha::straight;
    }
    return image;
}

} // namespace kasuri::image
