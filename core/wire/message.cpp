#include "wire/message.hpp"

#include <algorithm>
#include <cstring>
#include <nlohmann/json.hpp>

namespace kasuri::wire {
namespace {

using Json = nlohmann::json;

Json bytes_of(const std::vector<unsigned char>& data) { return Json::binary(data); }

Json written(const Header& header) {
    Json attributes = Json::array();
    for (const image::Attribute& each : header.attributes)
        attributes.push_back({each.name, each.type, each.texts, bytes_of(each.data), each.shown});
    Json depths = Json::array();
    for (const image::Depth depth : header.depths)
        depths.push_back(static_cast<int>(depth));
    const image::Window& w = header.window;
    return {header.format,
            header.width,
            header.height,
            header.layers,
            header.deep,
            {w.x, w.y, w.full_x, w.full_y, w.full_width, w.full_height},
            header.channels,
            static_cast<int>(header.depth),
            depths,
            header.alpha,
            header.rows,
            attributes,
            header.tile_width,
            header.tile_height};
}

image::Depth depth_of(const Json& json) {
    const int value = json.get<int>();
    if (value < 0 || value > static_cast<int>(image::Depth::uint32))
        throw std::out_of_range("depth");
    return static_cast<image::Depth>(value);
}

Header header_of(const Json& json) {
    Header header;
    header.format = json.at(0).get<std::string>();
    header.width = json.at(1).get<int>();
    header.height = json.at(2).get<int>();
    header.layers = json.at(3).get<int>();
    header.deep = json.at(4).get<bool>();
    const auto w = json.at(5).get<std::array<int, 6>>();
    header.window = {w[0], w[1], w[2], w[3], w[4], w[5]};
    header.channels = json.at(6).get<std::vector<std::string>>();
    header.depth = depth_of(json.at(7));
    for (const Json& depth : json.at(8))
        header.depths.push_back(depth_of(depth));
    header.alpha = json.at(9).get<int>();
    header.rows = json.at(10).get<int>();
    for (const Json& each : json.at(11)) {
        const Json::binary_t& data = each.at(3).get_binary();
        header.attributes.push_back(
            {each.at(0).get<std::string>(), each.at(1).get<std::string>(), each.at(2).get<std::vector<std::string>>(),
             std::vector<unsigned char>(data.begin(), data.end()), each.at(4).get<std::string>()});
    }
    header.tile_width = json.at(12).get<int>();
    header.tile_height = json.at(13).get<int>();
    return header;
}

} // namespace

const image::Attribute* Header::find(std::string_view name) const {
    const auto found = std::find_if(attributes.begin(), attributes.end(),
                                    [&](const image::Attribute& each) { return each.name == name; });
    return found == attributes.end() ? nullptr : &*found;
}

int Header::whole(std::string_view name, int fallback) const {
    const image::Attribute* found = find(name);
    int value = fallback;
    if (found && (found->type == "int" || found->type == "uint") && found->data.size() == sizeof value)
        std::memcpy(&value, found->data.data(), sizeof value);
    return value;
}

std::string Header::text(std::string_view name) const {
    const image::Attribute* found = find(name);
    return found && found->texts.size() == 1 ? found->texts[0] : std::string();
}

void Header::set(const std::string& name, const std::string& text) {
    std::erase_if(attributes, [&](const image::Attribute& each) { return each.name == name; });
    attributes.push_back({name, "string", {text}, {}, {}});
}

void Header::set(const std::string& name, int value) { set(name, "int", &value, sizeof value); }

void Header::set(const std::string& name, const std::string& type, const void* data, std::size_t bytes) {
    std::erase_if(attributes, [&](const image::Attribute& each) { return each.name == name; });
    const auto* first = static_cast<const unsigned char*>(data);
    attributes.push_back({name, type, {}, std::vector<unsigned char>(first, first + bytes), {}});
}

std::string packed(const Message& message) {
    Json json = {static_cast<int>(message.kind), message.text, message.more, message.n};
    if (message.head)
        json.push_back(written(*message.head));
    for (const Header& part : message.more_parts)
        json.push_back(written(part));
    std::string bytes;
    Json::to_cbor(json, bytes);
    return bytes;
}

std::optional<Message> unpacked(std::string_view bytes) {
    try {
        const Json json = Json::from_cbor(bytes);
        Message message;
        const int kind = json.at(0).get<int>();
        if (kind < 0 || kind > static_cast<int>(Message::Kind::failed))
            return std::nullopt;
        message.kind = static_cast<Message::Kind>(kind);
        message.text = json.at(1).get<std::string>();
        message.more = json.at(2).get<std::string>();
        message.n = json.at(3).get<std::array<std::int64_t, 5>>();
        if (json.size() > 4)
            message.head = header_of(json.at(4));
        for (std::size_t i = 5; i < json.size(); ++i)
            message.more_parts.push_back(header_of(json.at(i)));
        return message;
    } catch (const std::exception&) {
        return std::nullopt;
    }
}

} // namespace kasuri::wire
