// What is said of files that cannot be read or written: docs/trouble.md is the list, and every line of it is made to
// happen here. What, where (the user's own name for it) and what to do, in one line.
#include "cli/driver.hpp"

#include <functional>
#include <map>
#include <sys/stat.h>
#include <unistd.h>
#include <vector>

using namespace kasuri::test;

namespace {

struct Row {
    std::string cause, sentence;
    int exit = 0;
};

/// The rows of the tables in docs/trouble.md.
std::vector<Row> listed() {
    std::ifstream in(KASURI_SOURCE_DIR "/docs/trouble.md");
    std::vector<Row> rows;
    for (std::string line; std::getline(in, line);) {
        if (!line.starts_with("| ") || line.starts_with("| What") || line.starts_with("| ---"))
            continue;
        std::vector<std::string> cells;
        for (std::size_t at = 2; at < line.size();) {
            const std::size_t end = line.find(" | ", at);
            cells.push_back(line.substr(at, end == std::string::npos ? line.size() - 2 - at : end - at));
            at = end == std::string::npos ? line.size() : end + 3;
        }
        REQUIRE(cells.size() == 3);
        rows.push_back({cells[0], cells[1], std::stoi(cells[2])});
    }
    return rows;
}

/// A command, with FILE for the file that is spoken of. Its name is given back.
struct Scene {
    std::string command;
    std::string file;
};

/// A command as somebody who may do nothing: root may do everything.
bool can_be_nobody() {
    return ::geteuid() == 0 &&
        std::system((std::string("setpriv --reuid 65534 --regid 65534 --clear-groups ") + KASURI_CLI +
                     " --version >/dev/null 2>&1")
                        .c_str()) == 0;
}

class Scenes {
public:
    explicit Scenes(const Folder& folder) : folder_(folder) {
        rule_ = folder.write("a.kasuri", "out.g = b\n");
        picture_ = folder.file("a.exr");
        REQUIRE(cli(folder, "target dye_chart -o " + picture_).exit == 0);
        ::chmod(folder.path.c_str(), 0777);
    }

    Scene of(const std::string& cause) {
        const std::string cube = "LUT_3D_SIZE 2\n0 0 0\n1 0 0\n0 1 0\n";
        const std::string closed = folder_.file("closed"), write_protected = folder_.file("protected");
        const std::map<std::string, std::function<Scene()>> all = {
            {"there is no file of that name", [&] { return asked("check FILE", folder_.file("none.kasuri")); }},
            {"it is a folder", [&] { return asked("picture FILE", folder("inside")); }},
            {"it is a pipe or a device",
             [&] {
                 const std::string pipe = folder_.file("pipe.kasuri");
                 ::mkfifo(pipe.c_str(), 0666);
                 ::chmod(pipe.c_str(), 0666);
                 return asked("eval FILE", pipe);
             }},
            {"the file may not be read",
             [&] { return asked("picture FILE", locked(folder_.write("mine.exr", "x"), 0)); }},
            {"the folder may not be looked into", [&] { return asked("check FILE", locked(folder("closed"), 0)); }},
            {"pictures of a folder that may not be looked into",
             [&] { return asked("render " + rule_ + " FILE " + folder_.file("made"), locked(folder("closed"), 0)); }},
            {"the folder may not be written into",
             [&] {
                 const std::string into = locked(folder("protected"), 0555);
                 return Scene{"bake " + rule_ + " " + into + "/a.cube", into};
             }},
            {"the file is write-protected",
             [&] { return asked("glsl " + rule_ + " -o FILE", locked(folder_.write("kept.glsl", "x"), 0444)); }},
            {"a folder without pictures",
             [&] { return asked("render " + rule_ + " FILE " + folder_.file("made"), folder("inside")); }},
            {"a folder without filters", [&] { return asked("check FILE", folder("inside")); }},
            {"a pattern that fits nothing",
             [&] {
                 return asked("render " + rule_ + " 'FILE' " + folder_.file("made"), folder_.file("none.####.exr"));
             }},
            {"no picture", [&] { return asked("picture FILE", folder_.write("text.exr", "no picture at all")); }},
            {"a picture that was cut short",
             [&] {
                 const std::string whole = folder_.read("a.exr");
                 return asked("picture FILE", folder_.write("short.exr", whole.substr(0, whole.size() / 2)));
             }},
            {"a LUT that was cut short", [&] { return asked("eval FILE", folder_.write("short.cube", cube)); }},
            {"a look that is no look", [&] { return asked("check FILE", folder_.write("a.kasurilook", "{}")); }},
            {"a look with a fault in its JSON",
             [&] {
                 return asked("check FILE", folder_.write("a.kasurilook", "{\"kasuri-look\": 1,\n \"steps\": [}"));
             }},
            {"a picture's ending that cannot be written",
             [&] { return asked("render " + rule_ + " " + picture_ + " FILE", folder_.file("a.gif")); }},
            {"no profile of a press",
             [&] {
                 return asked("print FILE " + rule_ + " " + picture_, folder_.write("text.icc", "no profile at all"));
             }},
            {"no movie", [&] { return asked("picture FILE", folder_.write("text.mov", "no movie at all")); }},
            {"a frame that a movie does not have",
             [&] {
                 REQUIRE(cli(folder_, "render " + rule_ + " " + picture_ + " " + folder_.file("one.mov")).exit == 0);
                 return Scene{"picture " + folder_.file("one.mov") + "@2", folder_.file("one.mov")};
             }},
            {"a movie's ending that cannot be written",
             [&] { return asked("render " + rule_ + " " + picture_ + " FILE", folder_.file("a.mp4")); }},
            {"a rule that makes NaN, as a LUT",
             [&] {
                 const std::string nan = folder_.write("nan.kasuri", "out.r = (r - r) / (r - r)\n");
                 return asked("bake " + nan + " FILE --size 9", folder_.file("nan.cube"));
             }},
            {"a colour config that is none",
             [&] { return asked("--config FILE eval " + rule_, folder_.write("a.ocio", "nothing")); }},
        };
        INFO(cause);
        REQUIRE(all.contains(cause));
        return all.at(cause)();
    }

private:
    static Scene asked(std::string command, const std::string& file) {
        command.replace(command.find("FILE"), 4, file);
        return {command, file};
    }
    std::string folder(const std::string& name) const {
        std::filesystem::create_directories(folder_.path / name);
        return folder_.file(name);
    }
    static std::string locked(const std::string& path, mode_t mode) {
        ::chmod(path.c_str(), mode);
        return path;
    }

    const Folder& folder_;
    std::string rule_, picture_;
};

} // namespace

TEST_CASE("what cannot be read or written is said as docs/trouble.md lists it", "[cli][trouble]") {
    const Folder folder;
    Scenes scenes(folder);
    const std::vector<Row> rows = listed();
    REQUIRE(rows.size() >= 15);
    const bool nobody = can_be_nobody();
    for (const Row& row : rows) {
        const Scene scene = scenes.of(row.cause);
        if (row.sentence.find("Permission denied") != std::string::npos && !nobody && ::geteuid() == 0)
            continue;
        const std::string as = nobody ? "setpriv --reuid 65534 --regid 65534 --clear-groups " : "";
        const int status = std::system(
            (as + KASURI_CLI + " " + scene.command + " </dev/null >/dev/null 2>" + folder.file("said")).c_str());
        std::string sentence = row.sentence;
        for (std::size_t at = 0; (at = sentence.find("FILE", at)) != std::string::npos; at += scene.file.size())
            sentence.replace(at, 4, scene.file);
        INFO(row.cause);
        INFO(scene.command);
        CHECK(folder.read("said") == "kasuri-cli: " + sentence + "\n");
        CHECK(WEXITSTATUS(status) == row.exit);
    }
    for (const auto& each : std::filesystem::directory_iterator(folder.path))
        ::chmod(each.path().c_str(), 0700);
}
