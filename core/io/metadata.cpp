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
    for (const image::Attribute& each : header.attributes)
        if (!is_of_the_file(each.name) && !(each.name == "IPTC:Creator" && header.find("Artist"))) // written twice
            image.attributes.push_back(each);
}

void write_metadata(wire::Header& header, const image::Image& image, bool windows) {
    if (windows)
        header.window = image.window;
    for (const image::Attribute& each : image.attributes) {
        std::erase_if(header.attributes, [&](const image::Attribute& other) { return other.name == each.name; });
        header.attributes.push_back(each);
    }
}

} // namespace kasuri::io
