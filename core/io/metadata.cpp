#include "io/metadata.hpp"

#include "io/picture_file.hpp"

#include <algorithm>
#include <cstring>

namespace kasuri::io {
namespace {

constexpr std::size_t longest = 16u << 20; ///< bytes of one attribute: previews and profiles, not pictures

/// Said by the writer itself, or no longer true of what is written.
bool is_of_the_file(std::string_view name) {
    constexpr std::string_view prefixes[] = {"oiio:", "openexr:", "tiff:", "png:", "kasuri:", "ICCProfile", "icc:"};
    constexpr std::string_view names[] = {
        "compression", "planarconfig",  "chromaticities", "Exif:ColorSpace", "bitspersample",
        "type",        "textureformat", "wrapmodes",      "averagecolor",    "constantcolor",
        "fovcot",      "tiles", // of textures with levels, which are not written
        "name",        "version",       "chunkCount",     "lineOrder",       "CompressionQuality"};
    return std::any_of(std::begin(prefixes), std::end(prefixes),
                       [&](std::string_view p) { return name.starts_with(p); }) ||
        std::find(std::begin(names), std::end(names), name) != std::end(names);
}

image::Depth depth_of(OIIO::TypeDesc type) {
    return type.basetype == OIIO::TypeDesc::HALF ? image::Depth::half
        : type.basetype == OIIO::TypeDesc::FLOAT ? image::Depth::float32
        : type.basetype == OIIO::TypeDesc::UINT8 ? image::Depth::uint8
                                                 : image::Depth::uint16;
}

OIIO::TypeDesc type_of(image::Depth depth) {
    switch (depth) {
    case image::Depth::uint8: return OIIO::TypeDesc::UINT8;
    case image::Depth::uint16: return OIIO::TypeDesc::UINT16;
    case image::Depth::half: return OIIO::TypeDesc::HALF;
    case image::Depth::float32: break;
    }
    return OIIO::TypeDesc::FLOAT;
}

} // namespace

void keep_metadata(image::Image& image, const OIIO::ImageSpec& spec) {
    image.window = {spec.x, spec.y, spec.full_x, spec.full_y, spec.full_width, spec.full_height};
    for (std::size_t c = 0; c < spec.channelformats.size() && c < image.channels.size(); ++c)
        image.channels[c].depth = depth_of(spec.channelformats[c]);
    for (const OIIO::ParamValue& each : spec.extra_attribs) {
        const OIIO::TypeDesc type = each.type();
        if (is_of_the_file(each.name().string()) || type.size() == 0 || type.size() > longest)
            continue;
        image::Attribute kept{each.name().string(), type.c_str(), {}, {}};
        const auto* data = static_cast<const unsigned char*>(each.data());
        if (type.basetype == OIIO::TypeDesc::STRING) {
            const auto* texts = static_cast<const OIIO::ustring*>(each.data());
            for (std::size_t i = 0; i < type.numelements() * type.aggregate; ++i)
                kept.texts.push_back(texts[i].string());
        } else if (type.basetype == OIIO::TypeDesc::PTR) {
            continue;
        } else {
            kept.data.assign(data, data + type.size());
        }
        image.attributes.push_back(std::move(kept));
    }
}

void write_metadata(OIIO::ImageSpec& spec, const image::Image& image, bool windows) {
    const image::Window& window = image.window;
    if (windows && window.full_width > 0 && window.full_height > 0) {
        spec.x = window.x;
        spec.y = window.y;
        spec.full_x = window.full_x;
        spec.full_y = window.full_y;
        spec.full_width = window.full_width;
        spec.full_height = window.full_height;
    }
    for (const image::Attribute& each : image.attributes) {
        const OIIO::TypeDesc type(each.type);
        if (!each.texts.empty()) {
            std::vector<const char*> texts;
            for (const std::string& text : each.texts)
                texts.push_back(text.c_str());
            spec.attribute(each.name, type, texts.data());
        } else if (each.data.size() == type.size() && type.size() > 0) {
            spec.attribute(each.name, type, each.data.data());
        }
    }
    const bool own = std::any_of(image.channels.begin(), image.channels.end(),
                                 [](const image::Channel& c) { return c.depth.has_value(); });
    if (own && spec.format != OIIO::TypeDesc::UINT8 && spec.format != OIIO::TypeDesc::UINT16 &&
        windows) { // of our formats it is the same one
        spec.channelformats.clear();
        for (const image::Channel& channel : image.channels)
            spec.channelformats.push_back(channel.depth && *channel.depth != image::Depth::uint8 &&
                                                  *channel.depth != image::Depth::uint16
                                              ? type_of(*channel.depth)
                                              : spec.format);
    }
}

std::string attribute_text(const image::Attribute& attribute) {
    constexpr std::size_t most = 200;
    std::string text;
    if (!attribute.texts.empty()) {
        for (const std::string& each : attribute.texts)
            text += (text.empty() ? "" : ", ") + each;
    } else if (const OIIO::TypeDesc type(attribute.type); attribute.data.size() == type.size() && type.size() > 0) {
        text = OIIO::ParamValue(attribute.name, type, 1, attribute.data.data()).get_string();
    }
    for (char& c : text)
        c = static_cast<unsigned char>(c) < 0x20 ? ' ' : c;
    if (text.size() <= most)
        return text;
    std::size_t end = most; // not within a letter of several bytes
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80)
        --end;
    return text.substr(0, end) + " ...";
}

} // namespace kasuri::io
