#include "command.hpp"
#include "common.hpp"
#include "io/picture_file.hpp"
#include "json.hpp"
#include "streams.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

using T = JsonType;
constexpr JsonField answer[] = {
    {"pictures", T::objects, "those that could be read"},
    {"pictures/file", T::text, "its name"},
    {"pictures/width", T::whole, "in pixels"},
    {"pictures/height", T::whole, "in pixels"},
    {"pictures/numbers", T::text, "what kind of numbers it holds"},
    {"pictures/space", T::text, "what they mean"},
    {"pictures/space-from", T::text, "how that is known"},
    {"pictures/alpha", T::text, "none, straight or premultiplied"},
    {"pictures/channels", T::texts, "their names"},
    {"pictures/layers", T::texts, "their names; empty: the one without a name"},
    {"pictures/notes", T::texts, "what was not as it should be"},
    {"pictures/attributes", T::words, "what else the file says, by its own names"},
    {"pictures/movie", T::object, "where it is in its movie", "of a frame of a movie"},
    {"pictures/movie/frame", T::whole, "from 0"},
    {"pictures/movie/frames", T::whole, "how many there are"},
    {"pictures/movie/rate", T::text, "frames in a second, as a fraction: 24000/1001"},
    {"pictures/movie/timecode", T::text, "of this frame; empty: it has none"},
    {"pictures/frame", T::object, "where it lies in a larger frame", "where it does not fill it"},
    {"pictures/frame/x", T::whole, "its left side, in pixels"},
    {"pictures/frame/y", T::whole, "its upper side, in pixels"},
    {"pictures/frame/full-x", T::whole, "the frame's left side"},
    {"pictures/frame/full-y", T::whole, "the frame's upper side"},
    {"pictures/frame/full-width", T::whole, "of the frame"},
    {"pictures/frame/full-height", T::whole, "of the frame"},
};

std::string_view word(image::Depth depth) {
    switch (depth) {
    case image::Depth::uint8: return "8-bit whole numbers";
    case image::Depth::uint16: return "16-bit whole numbers";
    case image::Depth::half: return "half floats";
    case image::Depth::uint32: return "32-bit whole numbers that name something";
    case image::Depth::float32: break;
    }
    return "floats";
}

std::string_view word(image::Alpha alpha) {
    return alpha == image::Alpha::none ? "none" : alpha == image::Alpha::straight ? "straight" : "premultiplied";
}

int run(std::vector<std::string> files, bool json) {
    if (const Status there = take_standard_input(files); !there)
        return complain(there.error());
    int exit = Exit::good;
    Json all = Json::array();
    for (const std::string& file : files) {
        const Result<image::Image> loaded = io::load(file);
        if (!loaded) {
            exit = complain(loaded.error());
            continue;
        }
        const image::Image& image = loaded.value();
        std::vector<std::string> channels;
        for (const image::Channel& channel : image.channels)
            channels.push_back(channel.name);
        const image::Window& window = image.window;
        const bool part = window.full_width > 0 &&
            (window.x != window.full_x || window.y != window.full_y || window.full_width != image.width ||
             window.full_height != image.height);
        if (json) {
            Json attributes = Json::object();
            for (const image::Attribute& each : image.attributes)
                attributes[each.name] = each.shown;
            all.push_back({{"file", told(file)},
                           {"width", image.width},
                           {"height", image.height},
                           {"numbers", word(image.depth)},
                           {"space", image.space},
                           {"space-from", image.space_from},
                           {"alpha", word(image.alpha)},
                           {"channels", channels},
                           {"layers", image::layers(image)},
                           {"notes", image.notes},
                           {"attributes", attributes}});
            if (const auto& place = image.movie)
                all.back()["movie"] = {{"frame", place->frame},
                                       {"frames", place->frames},
                                       {"rate", fmt::format("{}/{}", place->rate, place->per)},
                                       {"timecode", place->timecode}};
            if (part)
                all.back()["frame"] = {{"x", window.x},
                                       {"y", window.y},
                                       {"full-x", window.full_x},
                                       {"full-y", window.full_y},
                                       {"full-width", window.full_width},
                                       {"full-height", window.full_height}};
            continue;
        }
        fmt::print("{}: {} x {}, {}\nspace: {} ({})\nalpha: {}\nchannels: {}\n", file, image.width, image.height,
                   word(image.depth), image.space, image.space_from, word(image.alpha), fmt::join(channels, " "));
        if (part)
            fmt::print("lies at {}, {} in a frame of {} x {} from {}, {}\n", window.x, window.y, window.full_width,
                       window.full_height, window.full_x, window.full_y);
        if (const auto& place = image.movie)
            fmt::print("frame {} of {}{}\n", place->frame, place->frames,
                       place->rate > 0
                           ? fmt::format(", {:.6g} in a second", static_cast<double>(place->rate) / place->per)
                           : std::string());
        for (const image::Attribute& each : image.attributes)
            fmt::print("{}: {}\n", each.name, each.shown);
        for (const std::string& note : image.notes)
            fmt::print("note: {}\n", note);
    }
    return json ? print_json({{"pictures", all}}, exit) : exit;
}

} // namespace

extern const Command picture_command;
const Command picture_command = {
    "picture", "Tell what a picture file holds: size, numbers, space and how it is known, alpha, channels",
    [](Arguments& arguments) -> std::function<int()> {
        auto files = std::make_shared<std::vector<std::string>>();
        arguments.value("FILE", *files, "Picture files").required();
        auto json = std::make_shared<bool>(false);
        define_json(arguments, *json, {answer});
        return [files, json] { return run(*files, *json); };
    },
    "info"};

} // namespace kasuri::cli
