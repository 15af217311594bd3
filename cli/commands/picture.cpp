#include "command.hpp"
#include "common.hpp"
#include "io/picture_file.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

std::string_view word(image::Depth depth) {
    switch (depth) {
    case image::Depth::uint8: return "8-bit whole numbers";
    case image::Depth::uint16: return "16-bit whole numbers";
    case image::Depth::half: return "half floats";
    case image::Depth::float32: break;
    }
    return "floats";
}

std::string_view word(image::Alpha alpha) {
    return alpha == image::Alpha::none ? "none" : alpha == image::Alpha::straight ? "straight" : "premultiplied";
}

int run(const std::vector<std::string>& files) {
    int exit = Exit::good;
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
        fmt::print("{}: {} x {}, {}\nspace: {} ({})\nalpha: {}\nchannels: {}\n", file, image.width, image.height, word(image.depth), image.space, image.space_from,
                   word(image.alpha), fmt::join(channels, " "));
        for (const std::string& note : image.notes)
            fmt::print("note: {}\n", note);
    }
    return exit;
}

} // namespace

extern const Command picture_command;
const Command picture_command = {
    "picture", "Tell what a picture file holds: size, numbers, space and how it is known, alpha, channels",
    [](CLI::App& app) -> std::function<int()> {
        auto files = std::make_shared<std::vector<std::string>>();
        app.add_option("FILE", *files, "Picture files")->required();
        return [files] { return run(*files); };
    },
    "info"};

} // namespace kasuri::cli
