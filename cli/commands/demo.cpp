#include "targets/demo.hpp"
#include "command.hpp"
#include "common.hpp"
#include "io/picture_file.hpp"

#include <filesystem>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

int run(const std::string& folder) {
    std::error_code code;
    std::filesystem::create_directories(folder, code);
    if (code)
        return complain({"cannot make the folder: " + code.message(), folder, ""});
    for (const targets::DemoPicture& picture : targets::demo_pictures()) {
        const std::filesystem::path path = std::filesystem::path(folder) / (std::string(picture.name) + ".exr");
        if (const auto saved = io::save(path, picture.make()); !saved)
            return complain(saved.error());
        fmt::print("{}: {}\n", path.string(), picture.doc);
    }
    for (const targets::DemoSequence& sequence : targets::demo_sequences()) {
        const std::filesystem::path beside = std::filesystem::path(folder) / sequence.name;
        std::filesystem::create_directories(beside, code);
        if (code)
            return complain({"cannot make the folder: " + code.message(), beside.string(), ""});
        for (int frame = 0; frame < sequence.frames; ++frame)
            if (const auto saved =
                    io::save(beside / fmt::format("{}.{:04}.exr", sequence.name, frame + 1), sequence.make(frame));
                !saved)
                return complain(saved.error());
        fmt::print("{}: {}\n", beside.string(), sequence.doc);
    }
    return Exit::good;
}

} // namespace

extern const Command demo_command;
const Command demo_command = {"demo", "Write the pictures of the demo world",
                              [](Arguments& arguments) -> std::function<int()> {
                                  auto folder = std::make_shared<std::string>();
                                  arguments.value("FOLDER", *folder, "Where to; it is made if need be").required();
                                  return [folder] { return run(*folder); };
                              }};

} // namespace kasuri::cli
