#include "headers.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::helpers {
namespace {

constexpr std::size_t longest = 16u << 20; ///< bytes of one attribute: previews and profiles, not pictures

image::Depth depth_of(const OIIO::TypeDesc& type) {
    switch (type.basetype) {
    case OIIO::TypeDesc::UINT8:
    case OIIO::TypeDesc::INT8: return image::Depth::uint8;
    case OIIO::TypeDesc::HALF: return image::Depth::half;
    case OIIO::TypeDesc::FLOAT:
    case OIIO::TypeDesc::DOUBLE: return image::Depth::float32;
    case OIIO::TypeDesc::UINT32: return image::Depth::uint32;
    default: return image::Depth::uint16;
    }
}

OIIO::TypeDesc type_of(image::Depth depth) {
    switch (depth) {
    case image::Depth::uint8: return OIIO::TypeDesc::UINT8;
    case image::Depth::uint16: return OIIO::TypeDesc::UINT16;
    case image::Depth::half: return OIIO::TypeDesc::HALF;
    case image::Depth::uint32: return OIIO::TypeDesc::UINT32;
    case image::Depth::float32: break;
    }
    return OIIO::TypeDesc::FLOAT;
}

/// A value for people, in a line; long ones are cut short.
std::string shown(const OIIO::ParamValue& value, const std::vector<std::string>& texts) {
    constexpr std::size_t most = 200;
    std::string text;
    for (const std::string& each : texts)
        text += (text.empty() ? "" : ", ") + each;
    if (texts.empty())
        text = value.get_string();
    for (char& c : text)
        c = static_cast<unsigned char>(c) < 0x20 ? ' ' : c;
    if (text.size() <= most)
        return text;
    std::size_t end = most; // not within a letter of several bytes
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80)
        --end;
    return text.substr(0, end) + " ...";
}

/// About so many bytes are read at a time, in whole rows of tiles.
int rows_at_a_time(const OIIO::ImageSpec& spec) {
    constexpr double bytes = 16 << 20;
    const double row = 4.0 * spec.width * spec.nchannels;
    const int unit = spec.tile_height > 0 ? spec.tile_height : 64; // of compressed blocks of rows
    const double units = std::max(1.0, std::floor(bytes / row / unit));
    return static_cast<int>(std::min(units * unit, static_cast<double>(std::max(spec.height, 1))));
}

} // namespace

wire::Header header_of(const OIIO::ImageInput& input, const OIIO::ImageSpec& spec) {
    wire::Header made;
    made.format = input.format_name();
    made.width = spec.width;
    made.height = spec.height;
    made.layers = spec.depth;
    made.deep = spec.deep;
    made.window = {spec.x, spec.y, spec.full_x, spec.full_y, spec.full_width, spec.full_height};
    made.channels = spec.channelnames;
    made.channels.resize(static_cast<std::size_t>(std::max(spec.nchannels, 0)));
    // Only an EXR's whole numbers of 32 bits name something; others are fine steps of a picture.
    const bool names = made.format == "openexr";
    const auto depth = [&](const OIIO::TypeDesc& type) {
        const image::Depth found = depth_of(type);
        return found == image::Depth::uint32 && !names ? image::Depth::uint16 : found;
    };
    made.depth = depth(spec.format);
    for (const OIIO::TypeDesc& type : spec.channelformats)
        made.depths.push_back(depth(type));
    if (names) {
        made.tile_width = spec.tile_width;
        made.tile_height = spec.tile_height;
    }
    made.rows = spec.width > 0 && spec.nchannels > 0 ? rows_at_a_time(spec) : 1;
    for (const OIIO::ParamValue& each : spec.extra_attribs) {
        const OIIO::TypeDesc type = each.type();
        if (type.size() == 0 || type.size() > longest || type.basetype == OIIO::TypeDesc::PTR)
            continue;
        image::Attribute kept{each.name().string(), type.c_str(), {}, {}, {}};
        const auto* data = static_cast<const unsigned char*>(each.data());
        if (type.basetype == OIIO::TypeDesc::STRING) {
            const auto* texts = static_cast<const OIIO::ustring*>(each.data());
            for (std::size_t i = 0; i < type.numelements() * type.aggregate; ++i)
                kept.texts.push_back(texts[i].string());
        } else {
            kept.data.assign(data, data + type.size());
        }
        kept.shown = shown(each, kept.texts);
        made.attributes.push_back(std::move(kept));
    }
    return made;
}

OIIO::ImageSpec spec_of(const wire::Header& header) {
    OIIO::ImageSpec spec(header.width, header.height, static_cast<int>(header.channels.size()), type_of(header.depth));
    spec.channelnames = header.channels;
    if (header.tile_width > 0 && header.tile_height > 0) {
        spec.tile_width = header.tile_width;
        spec.tile_height = header.tile_height;
        spec.tile_depth = 1;
    }
    spec.alpha_channel = header.alpha;
    if (const image::Window& window = header.window; window.full_width > 0 && window.full_height > 0) {
        spec.x = window.x;
        spec.y = window.y;
        spec.full_x = window.full_x;
        spec.full_y = window.full_y;
        spec.full_width = window.full_width;
        spec.full_height = window.full_height;
    }
    for (const image::Depth depth : header.depths)
        spec.channelformats.push_back(type_of(depth));
    for (const image::Attribute& each : header.attributes) {
        const OIIO::TypeDesc type = each.type == "rational2i" // which the library writes, and does not read
            ? OIIO::TypeDesc(OIIO::TypeDesc::INT, OIIO::TypeDesc::VEC2, OIIO::TypeDesc::RATIONAL)
            : OIIO::TypeDesc(each.type);
        if (!each.texts.empty()) {
            std::vector<const char*> texts;
            for (const std::string& text : each.texts)
                texts.push_back(text.c_str());
            if (texts.size() == type.numelements() * type.aggregate)
                spec.attribute(each.name, type, texts.data());
        } else if (each.data.size() == type.size() && type.size() > 0) {
            spec.attribute(each.name, type, each.data.data());
        }
    }
    return spec;
}

} // namespace kasuri::helpers
