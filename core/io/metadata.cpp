#include "io/metadata.hpp"

#include <algorithm>
#include <iterator>
#include <string_view>

namespace kasuri::io {
namespace {

/// Said by the writer itself, or no longer true of what is written.
bool is_of_the_file(std::string_view name) {
    constexpr std::string_view prefixes[] = {
        "oiio:", "openexr:", "tiff:", "png:", "kasuri:", "movie:", "ICCProfile", "icc:"};
    constexpr std::string_view names[] = {
        "compression", "planarconfig",  "chromaticities", "Exif:ColorSpace", "bitspersample",
        "type",        "textureformat", "wrapmodes",      "averagecolor",    "constantcolor",
        "fovcot",      "tiles", // of textures with levels, which are not written
        "name",        "version",       "chunkCount",     "lineOrder",       "CompressionQuality"};
    return std::any_of(std::begin(prefixes), std::end(prefixes),
                       [&](std::string_view p) { return name.starts_with(p); }) ||
        std::find(std::begin(names), std::end(names), name) != std::end(names);
}

} // namespace

void keep_metadata(image::Image& image, const wire::Header& header) {
    image.window = header.window;
    for (std::size_t c = 0; c < header.depths.size() && c < image.channels.size(); ++c)
        image.channels[c].depth = header.depths[c];
    for (const image::Attribute& each : header.attributes)
        if (!is_of_the_file(each.name))
            image.attributes.push_back(each);
}

void write_metadata(wire::Header& header, const image::Image& image, bool windows) {
    if (windows)
        header.window = image.window;
    for (const image::Attribute& each : image.attributes) {
        std::erase_if(header.attributes, [&](const image::Attribute& other) { return other.name == each.name; });
        header.attributes.push_back(each);
    }
    const auto whole = [](image::Depth depth) { return depth == image::Depth::uint8 || depth == image::Depth::uint16; };
    const bool own = std::any_of(image.channels.begin(), image.channels.end(),
                                 [](const image::Channel& c) { return c.depth.has_value(); });
    if (own && !whole(header.depth) && windows) // of our formats it is the same one
        for (const image::Channel& channel : image.channels)
            header.depths.push_back(channel.depth && !whole(*channel.depth) ? *channel.depth : header.depth);
}

} // namespace kasuri::io
