#include "streams.hpp"

#include "common.hpp"

#include <array>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <optional>

namespace kasuri::cli {
namespace fs = std::filesystem;
namespace {

/// A private folder, removed at the end.
class Folder {
public:
    Folder() {
        std::error_code code;
        std::string name = (fs::temp_directory_path(code) / "kasuri-stream-XXXXXX").string();
        if (!code && ::mkdtemp(name.data()))
            path_ = name;
    }
    ~Folder() {
        std::error_code code;
        if (!path_.empty())
            fs::remove_all(path_, code);
    }
    const fs::path& path() const { return path_; }

private:
    fs::path path_;
};

bool& there_is_one() {
    static bool made = false;
    return made;
}

const fs::path& folder() {
    static const Folder folder;
    there_is_one() = !folder.path().empty();
    return folder.path();
}

std::string& taken() {
    static std::string file;
    return file;
}

/// One row: what files of a kind begin with, `skip` bytes in.
struct Beginning {
    std::string_view bytes;
    std::size_t skip;
    const char* ending;
};
constexpr Beginning beginnings[] = {{"\x89PNG", 0, ".png"},
                                    {"v/1\x01", 0, ".exr"},
                                    {std::string_view("II*\0", 4), 0, ".tif"},
                                    {std::string_view("MM\0*", 4), 0, ".tif"},
                                    {"\xff\xd8\xff", 0, ".jpg"},
                                    {"SDPX", 0, ".dpx"},
                                    {"XPDS", 0, ".dpx"},
                                    {"WEBP", 8, ".webp"},
                                    {"jP  ", 4, ".jp2"},
                                    {"ftypavif", 4, ".avif"},
                                    {"#?", 0, ".hdr"},
                                    {"P6", 0, ".ppm"},
                                    {"P5", 0, ".ppm"},
                                    {"PF", 0, ".pfm"},
                                    {"Pf", 0, ".pfm"},
                                    {"PF", 0, ".pfm"},
                                    {"Pf", 0, ".pfm"}};

std::string kind_of(std::string_view begins) {
    for (const Beginning& row : beginnings)
        if (begins.size() >= row.skip && begins.substr(row.skip).starts_with(row.bytes))
            return row.ending;
    return {};
}

Error no_room(const std::string& where) {
    return {said("cannot be put into a file for the time being"), where,
            "Is there space in the folder for such files?"};
}

} // namespace

Result<std::string> standard_input(const std::string& ending) {
    constexpr const char* where = "standard input";
    if (!taken().empty())
        return Error{said("was asked for twice"), where, "Give one of them as a file."};
    std::vector<char> block(std::size_t{1} << 20);
    std::size_t count = std::fread(block.data(), 1, block.size(), stdin);
    const std::string kind = ending.empty() ? kind_of({block.data(), count}) : ending;
    if (count == 0)
        return Error{said("is empty"), where, ""};
    if (kind.empty())
        return Error{said("holds no kind of picture that is known by its first bytes"), where, "Give it as a file."};
    const fs::path file = folder() / ("standard input" + kind);
    taken() = file.string();
    std::FILE* const to = folder().empty() ? nullptr : std::fopen(file.c_str(), "wbx");
    bool good = to != nullptr;
    for (; good && count > 0; count = std::fread(block.data(), 1, block.size(), stdin))
        good = std::fwrite(block.data(), 1, count, to) == count;
    if (to && std::fclose(to) != 0)
        good = false;
    if (!good)
        return no_room(where);
    return file.string();
}

Status take_standard_input(std::vector<std::string>& files) {
    for (std::string& file : files)
        if (file == standard_stream) {
            auto made = standard_input();
            if (!made)
                return made.error();
            file = std::move(made.value());
        }
    return {};
}

Result<std::string> for_standard_output(const std::string& ending) {
    if (folder().empty())
        return no_room("standard output");
    return (folder() / ("standard output" + ending)).string();
}

Status to_standard_output(const std::string& file) {
    std::FILE* const from = std::fopen(file.c_str(), "rb");
    if (!from)
        return no_room("standard output");
    std::vector<char> block(std::size_t{1} << 20);
    for (std::size_t count = 0; (count = std::fread(block.data(), 1, block.size(), from)) > 0;)
        std::fwrite(block.data(), 1, count, stdout); // whether that could be written is told at the end
    std::fclose(from);
    return {};
}

std::string told(std::string message) {
    if (!there_is_one())
        return message;
    const std::string prefix = folder().string() + "/standard ";
    for (std::size_t at = 0; (at = message.find(prefix, at)) != std::string::npos;) {
        const std::size_t name = at + prefix.size() - std::string_view("standard ").size(),
                          dot = message.find('.', at + prefix.size());
        std::size_t end = dot;
        while (end != std::string::npos && end + 1 < message.size() &&
               std::isalnum(static_cast<unsigned char>(message[end + 1])))
            ++end;
        if (dot == std::string::npos)
            break;
        message = message.substr(0, at) + message.substr(name, dot - name) + message.substr(end + 1);
        at += dot - name;
    }
    return message;
}

} // namespace kasuri::cli
