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
