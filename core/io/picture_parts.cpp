#include "io/picture_parts.hpp"

#include "base/memory.hpp"
#include "base/said.hpp"
#include "io/declared.hpp"
#include "io/metadata.hpp"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace kasuri::io {
using image::Alpha;
using image::Channel;
using image::Depth;
using image::Image;
using image::Part;

bool is_alpha_name(std::string_view name) {
    const auto dot = name.rfind('.');
    std::string last(dot == std::string_view::npos ? name : name.substr(dot + 1));
    std::transform(last.begin(), last.end(), last.begin(), [](unsigned char c) { return std::tolower(c); });
    return last == "a" || last == "alpha";
}

Depth picture_depth(const wire::Header& header) {
    std::vector<Depth> all = header.depths.empty() ? std::vector<Depth>{header.depth} : header.depths;
    std::erase(all, Depth::uint32);
    if (all.empty())
        return Depth::float32;
    const bool alike = std::all_of(all.begin(), all.end(), [&](Depth depth) { return depth == all.front(); });
    return alike || header.depth == Depth::uint32 ? all.front() : header.depth;
}

namespace {

/// Kinds whose reader gives the numbers as they are stored, straight, without a word of it.
bool says_nothing_of_alpha(std::string_view format) { return format == "dpx" || format == "jpeg2000"; }

Depth depth_of(const wire::Header& header, std::size_t channel) {
    return channel < header.depths.size() ? header.depths[channel] : header.depth;
}

/// The numbers of all channels of the part that is next.
Result<std::vector<image::Plane>> read_planes(PictureSource& source) {
    const wire::Header& header = source.header();
    const std::size_t channels = header.channels.size(), wide = static_cast<std::size_t>(header.width);
    std::vector<image::PlaneGatherer> gathered;
    try {
        // Memory that nothing was written into yet is not taken: a header may promise more than the file holds.
        for (std::size_t c = 0; c < channels; ++c)
            gathered.emplace_back(depth_of(header, c), wide * static_cast<std::size_t>(header.height));
        const Status whole = source.read([&](int begin, int end, const float* band) {
            for (std::size_t c = 0; c < channels; ++c)
                gathered[c].put(band + c, static_cast<std::size_t>(end - begin) * wide, channels);
        });
        if (!whole)
            return whole.error();
    } catch (const std::bad_alloc&) {
        return no_memory("");
    }
    std::vector<image::Plane> planes;
    for (image::PlaneGatherer& each : gathered)
        planes.push_back(std::move(each).plane());
    return planes;
}

std::string channel_name(const wire::Header& header, std::size_t channel) {
    return !header.channels[channel].empty() ? header.channels[channel] : fmt::format("channel{}", channel);
}

/// How a part is stored.
Part part_of(const wire::Header& header) {
    Part part;
    part.name = header.text("oiio:subimagename");
    part.compression = header.text("compression");
    if (const image::Attribute* level = header.find("openexr:dwaCompressionLevel"); level &&
        level->shown.find_first_not_of("0123456789.") == std::string::npos && part.compression.starts_with("dwa"))
        part.compression += ":" + level->shown;
    part.tile_width = header.tile_width;
    part.tile_height = header.tile_height;
    part.window = header.window;
    return part;
}

void note_levels(const wire::Header& header, Image& image) {
    if (header.whole("oiio:levels", 0) != 0)
        image.notes.push_back(said("it holds smaller copies of itself (mip levels), which are left out"));
}

/// A part of another size, as it came.
Status keep_as_it_came(PictureSource& source, Part& part) {
    const wire::Header header = source.header();
    Result<std::vector<image::Plane>> planes = read_planes(source);
    if (!planes)
        return planes.error();
    part.width = header.width;
    part.height = header.height;
    for (std::size_t c = 0; c < header.channels.size(); ++c)
        part.channels.push_back({channel_name(header, c), planes.value()[c], depth_of(header, c)});
    return {};
}

} // namespace

Status read_channels(PictureSource& source, Image& image) {
    const wire::Header header = source.header();
    const int number = std::max(0, static_cast<int>(image.parts.size()) - 1);
    const std::string prefix = number > 0 ? image.parts.back().name + "." : std::string();
    Result<std::vector<image::Plane>> planes = read_planes(source);
    if (!planes)
        return planes.error();
    for (std::size_t c = 0; c < header.channels.size(); ++c) {
        const std::string own = channel_name(header, c);
        const bool as_it_is = prefix.empty() || own.starts_with(prefix);
        const std::string name = as_it_is ? own : prefix + own;
        if (!as_it_is)
            image.parts.back().prefixed = true;
        const Depth depth = depth_of(header, c);
        Channel channel{name, planes.value()[c], {}, number};
        if (depth == Depth::uint32) {
            channel.depth = depth;
            image.ids.push_back(std::move(channel));
            continue;
        }
        if (image.find(name))
            continue;
        if (depth != image.depth)
            channel.depth = depth;
        image.channels.push_back(std::move(channel));
        if (is_alpha_name(name))
            image.alpha = header.whole("oiio:UnassociatedAlpha", 0) != 0 || says_nothing_of_alpha(header.format)
                ? Alpha::straight
                : Alpha::premultiplied;
    }
    return {};
}

Status read_further_parts(PictureSource& source, Image& image) {
    constexpr int max_parts = 1000;
    const wire::Header first = source.header();
    if (first.format == "openexr") {
        const bool prefixed = !image.parts.empty() && image.parts.front().prefixed;
        image.parts.assign(1, part_of(first));
        image.parts.front().prefixed = prefixed;
        note_levels(first, image);
    }
    std::uint64_t values = image.pixels() * first.channels.size();
    int left_out = 0;
    for (int number = 1; number < max_parts; ++number) {
        const Result<bool> there = source.go_to(number);
        if (!there)
            return there.error();
        if (!there.value())
            break;
        const wire::Header header = source.header();
        const auto own = static_cast<std::uint64_t>(std::max(header.width, 0)) *
            static_cast<std::uint64_t>(std::max(header.height, 0)) * header.channels.size();
        values += own;
        if (own == 0 || header.deep || header.layers > 1 || values > max_values || header.format != "openexr") {
            ++left_out;
            continue;
        }
        const bool layer = header.width == first.width && header.height == first.height &&
            header.window.x == first.window.x && header.window.y == first.window.y;
        Part part = part_of(header);
        if (part.name.empty())
            part.name = fmt::format("part{}", number + 1);
        Image said_by_it;
        keep_metadata(said_by_it, header);
        part.attributes = std::move(said_by_it.attributes);
        note_levels(header, image);
        image.parts.push_back(std::move(part));
        if (const Status read = layer ? read_channels(source, image) : keep_as_it_came(source, image.parts.back());
            !read)
            return read;
    }
    if (left_out > 0)
        image.notes.push_back(said("{} further {} left out: only flat parts of an EXR are read", left_out,
                                   left_out == 1 ? said("picture in the file is") : said("pictures in the file are")));
    return {};
}

namespace {

/// Names without what Image put before them.
std::string name_in_file(const std::string& name, const Part& part) {
    const std::string prefix = part.name + ".";
    return part.prefixed && name.starts_with(prefix) ? name.substr(prefix.size()) : name;
}

/// Channels, their depths and alpha.
void set_channels(PartToWrite& made, const Part& part) {
    wire::Header& header = made.header;
    header.channels.clear();
    header.depths.clear();
    header.alpha = -1;
    const auto picture = [](const Channel* c) {
        return c->depth && *c->depth != Depth::uint8 && *c->depth != Depth::uint16;
    };
    const bool own = std::any_of(made.channels.begin(), made.channels.end(), picture);
    for (const Channel* channel : made.channels) {
        if (header.alpha < 0 && is_alpha_name(channel->name))
            header.alpha = static_cast<int>(header.channels.size());
        header.channels.push_back(name_in_file(channel->name, part));
        if (own)
            header.depths.push_back(picture(channel) ? *channel->depth : header.depth);
    }
}

void set_storage(wire::Header& header, const Part& part, bool& exact) {
    header.tile_width = part.tile_width;
    header.tile_height = part.tile_height;
    if (part.compression.empty())
        return;
    header.set("compression", part.compression);
    for (const char* lossy : {"b44", "dwa", "pxr24"})
        exact = exact && !part.compression.starts_with(lossy);
}

} // namespace

std::vector<PartToWrite> parts_to_write(const Image& image, const wire::Header& base, bool& exact) {
    std::vector<PartToWrite> all;
    if (base.format != "openexr") {
        PartToWrite one{base, {}};
        for (const Channel& channel : image.channels)
            one.channels.push_back(&channel);
        set_channels(one, {});
        one.header.depths.clear();
        all.push_back(std::move(one));
        return all;
    }
    const std::vector<Part> parts = image.parts.empty() ? std::vector<Part>(1) : image.parts;
    const int last = static_cast<int>(parts.size()) - 1;
    for (int number = 0; number <= last; ++number) {
        const Part& part = parts[static_cast<std::size_t>(number)];
        PartToWrite made{base, {}};
        const auto take = [&](const std::vector<Channel>& channels) {
            for (const Channel& channel : channels)
                if (std::clamp(channel.part, 0, last) == number)
                    made.channels.push_back(&channel);
        };
        take(image.channels);
        take(image.ids);
        wire::Header& header = made.header;
        if (number > 0) {
            std::erase_if(header.attributes, [&](const image::Attribute& each) {
                return std::find(image.attributes.begin(), image.attributes.end(), each) != image.attributes.end();
            });
            for (const image::Attribute& each : part.attributes) {
                std::erase_if(header.attributes, [&](const auto& other) { return other.name == each.name; });
                header.attributes.push_back(each);
            }
            header.window = part.window;
        }
        if (part.width > 0) { // in the place of what `take` found, which is nothing
            header.width = part.width;
            header.height = part.height;
            made.channels.clear();
            for (const Channel& channel : image.parts[static_cast<std::size_t>(number)].channels)
                made.channels.push_back(&channel);
            header.depth = made.channels.front()->depth.value_or(header.depth);
        }
        if (made.channels.empty())
            continue;
        if (!part.name.empty())
            header.set("oiio:subimagename", part.name);
        set_channels(made, part);
        set_storage(header, part, exact);
        all.push_back(std::move(made));
    }
    // The library writes all parts in rows or all in tiles.
    const bool tiles = std::all_of(all.begin(), all.end(), [](const auto& each) { return each.header.tile_width > 0; });
    for (PartToWrite& each : all)
        if (!tiles)
            each.header.tile_width = each.header.tile_height = 0;
    return all;
}

} // namespace kasuri::io
