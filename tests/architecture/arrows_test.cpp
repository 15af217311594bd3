// The #include lines of the code against the arrows that docs/architecture.md draws.
#include "support/support.hpp"

#include <map>
#include <regex>
#include <set>

namespace fs = std::filesystem;
using namespace kasuri::test;

namespace {

using Arrows = std::map<std::string, std::set<std::string>>;

/// Lines like "engine -> builtins, image" between the arrow marks of the document.
Arrows drawn() {
    const std::string text = content_of(KASURI_SOURCE_DIR "/docs/architecture.md");
    const std::size_t begin = text.find("```arrows\n"), end = text.find("```", begin + 10);
    REQUIRE(begin != std::string::npos);
    std::istringstream lines(text.substr(begin + 10, end - begin - 10));
    Arrows arrows;
    std::string line;
    while (std::getline(lines, line)) {
        const std::size_t arrow = line.find("->");
        std::string from = line.substr(0, arrow);
        from.erase(from.find_last_not_of(' ') + 1);
        arrows[from];
        if (arrow == std::string::npos)
            continue;
        std::istringstream targets(line.substr(arrow + 2));
        std::string to;
        while (std::getline(targets, to, ',')) {
            to.erase(0, to.find_first_not_of(' '));
            arrows[from].insert(to);
        }
    }
    return arrows;
}

/// "core/ir/graph.hpp" -> "ir"; "app/model/x.cpp" -> "app/model"; "app/widgets/look/x.cpp" -> "app/widgets/look";
/// "cli/..." -> "cli".
std::string folder_of(const fs::path& file) {
    auto part = file.begin();
    const std::string first = (part++)->string();
    if (first == "cli" || first == "helpers")
        return first;
    const std::string second = (part++)->string();
    return first == "core" ? second : second == "widgets" ? "app/widgets/" + part->string() : "app/" + second;
}

/// The folder that an `#include "..."` names.
std::string included_folder(const std::string& path) {
    const std::string first = path.substr(0, path.find('/'));
    return first == "model" || first == "widgets" ? folder_of("app/" + path) : first;
}

/// All folders that may be included from `from`: along any number of arrows.
std::set<std::string> reachable(const Arrows& arrows, const std::string& from) {
    std::set<std::string> all = {from};
    std::vector<std::string> open = {from};
    while (!open.empty()) {
        const std::string at = open.back();
        open.pop_back();
        for (const std::string& to : arrows.at(at))
            if (all.insert(to).second)
                open.push_back(to);
    }
    return all;
}

} // namespace

TEST_CASE("includes follow the arrows of docs/architecture.md", "[architecture]") {
    const Arrows arrows = drawn();
    const std::regex include("^#include \"([^\"]+)\"");
    int includes = 0;
    for (const char* top : {"core", "app", "cli", "helpers"})
        for (const auto& entry : fs::recursive_directory_iterator(fs::path(KASURI_SOURCE_DIR) / top)) {
            const std::string ending = entry.path().extension().string();
            if (ending != ".cpp" && ending != ".hpp")
                continue;
            const fs::path file = fs::relative(entry.path(), KASURI_SOURCE_DIR);
            if (file == "app/main.cpp")
                continue; // puts the program together
            const std::string from = folder_of(file);
            INFO(file.string());
            REQUIRE(arrows.contains(from));
            const std::set<std::string> allowed = reachable(arrows, from);
            std::istringstream lines(content_of(entry.path()));
            std::string line;
            while (std::getline(lines, line)) {
                std::smatch match;
                if (!std::regex_search(line, match, include))
                    continue;
                const std::string path = match[1];
                const bool own = (from == "cli" && fs::exists(fs::path(KASURI_SOURCE_DIR) / "cli" / path)) ||
                    (from == "helpers" &&
                     (fs::exists(fs::path(KASURI_SOURCE_DIR) / "helpers" / path) ||
                      fs::exists(entry.path().parent_path() / path)));
                const std::string to = own ? from : included_folder(path);
                INFO(line);
                CHECK(allowed.contains(to));
                ++includes;
            }
        }
    CHECK(includes > 200); // the check did look at something
}

TEST_CASE("the arrows have no cycle", "[architecture]") {
    const Arrows arrows = drawn();
    for (const auto& [from, to] : arrows)
        for (const std::string& next : to) {
            INFO(from << " -> " << next);
            REQUIRE(arrows.contains(next));
            CHECK_FALSE(reachable(arrows, next).contains(from));
        }
}

TEST_CASE("core knows no Qt, the models know no widgets, only a helper knows OpenImageIO", "[architecture]") {
    for (const auto& entry : fs::recursive_directory_iterator(KASURI_SOURCE_DIR)) {
        const std::string file = fs::relative(entry.path(), KASURI_SOURCE_DIR).string();
        if (file.starts_with("build") || file.starts_with(".git") || !entry.is_regular_file())
            continue;
        const bool core = file.starts_with("core/"), model = file.starts_with("app/model/");
        if (!core && !model && !file.starts_with("cli/"))
            continue;
        const std::string text = content_of(entry.path());
        INFO(file);
        if (core)
            CHECK(text.find("#include <Q") == std::string::npos);
        if (model)
            CHECK(text.find("#include <QWidget>") == std::string::npos);
        CHECK(text.find("#include <OpenImageIO") == std::string::npos);
    }
}

TEST_CASE("long work is never done in the pool that Qt paints with", "[architecture]") {
    int files = 0;
    for (const auto& entry : fs::recursive_directory_iterator(KASURI_SOURCE_DIR "/app"))
        if (entry.path().extension() == ".cpp" || entry.path().extension() == ".hpp") {
            INFO(entry.path());
            const std::string text = content_of(entry.path());
            CHECK(text.find("globalInstance()") == std::string::npos); // model/background.hpp instead
            CHECK(text.find("QtConcurrent") == std::string::npos);
            ++files;
        }
    CHECK(files > 100); // the check did look at something
}

TEST_CASE("whether a look or a filter by itself is on the bench is asked in the look's own rooms only",
          "[architecture]") {
    int asked = 0;
    for (const char* top : {"core", "app", "cli"})
        for (const auto& entry : fs::recursive_directory_iterator(fs::path(KASURI_SOURCE_DIR) / top)) {
            const std::string file = fs::relative(entry.path(), KASURI_SOURCE_DIR).string();
            if (!entry.is_regular_file() || content_of(entry.path()).find("is_look()") == std::string::npos)
                continue;
            INFO(file);
            CHECK((file.starts_with("app/widgets/look/") || file.starts_with("app/model/look_model.")));
            ++asked;
        }
    CHECK(asked > 0);
}

TEST_CASE("no script stands where the compiler looks for headers", "[architecture]") {
    // #include <compare> of the standard library found bench/compare: the standard's headers have no ending either.
    std::istringstream commands(content_of(KASURI_DEMO_DIR "/../compile_commands.json"));
    const std::regex asked("-(?:I|isystem) ?([^ \"]+)");
    std::set<std::string> folders;
    for (std::string line; std::getline(commands, line);)
        for (std::sregex_iterator at(line.begin(), line.end(), asked), end; at != end; ++at)
            if ((*at)[1].str().starts_with(KASURI_SOURCE_DIR))
                folders.insert((*at)[1].str());
    REQUIRE(folders.size() > 5);
    const std::set<std::string> known = {"COPYING"};
    for (const std::string& folder : folders)
        for (const auto& entry : fs::directory_iterator(folder)) {
            INFO(entry.path());
            CHECK((!entry.is_regular_file() || entry.path().has_extension() ||
                   known.contains(entry.path().filename().string())));
        }
}

TEST_CASE("every folder says what it is, and no file is too long", "[architecture]") {
    for (const char* top : {"core", "app/widgets"})
        for (const auto& entry : fs::directory_iterator(fs::path(KASURI_SOURCE_DIR) / top))
            if (entry.is_directory()) {
                INFO(entry.path().string());
                CHECK(fs::exists(entry.path() / "README.md"));
            }
    for (const char* top : {"core", "app", "cli", "helpers", "tests", "bench"})
        for (const auto& entry : fs::recursive_directory_iterator(fs::path(KASURI_SOURCE_DIR) / top)) {
            const std::string ending = entry.path().extension().string();
            if (ending != ".cpp" && ending != ".hpp")
                continue;
            const std::string text = content_of(entry.path());
            INFO(entry.path().string());
            CHECK(std::count(text.begin(), text.end(), '\n') <= 600);
        }
}

TEST_CASE("no name of a test holds a semicolon, at which ctest would part it and run nothing", "[architecture]") {
    int names = 0;
    for (const auto& entry : fs::recursive_directory_iterator(fs::path(KASURI_SOURCE_DIR) / "tests")) {
        if (entry.path().extension() != ".cpp")
            continue;
        const std::string text = content_of(entry.path());
        const std::regex named("TEST_CASE\\(\"([^\"]*)\"");
        for (std::sregex_iterator found(text.begin(), text.end(), named), end; found != end; ++found) {
            INFO(entry.path().string());
            CHECK((*found)[1].str().find(';') == std::string::npos);
            ++names;
        }
    }
    CHECK(names > 500);
}

TEST_CASE("every function in the headers of core says what it does", "[architecture]") {
    // At the margin, with round brackets, and neither a macro nor a comment nor the head of a type.
    const std::regex function(
        "^(\\[\\[nodiscard\\]\\] )?(inline |constexpr )?[A-Za-z_][A-Za-z_:<>,*& ]*[&*> ]([a-z_]+)\\(.*");
    int functions = 0;
    for (const auto& entry : fs::recursive_directory_iterator(fs::path(KASURI_SOURCE_DIR) / "core")) {
        const std::string name = entry.path().filename().string();
        if (!name.ends_with(".hpp") || name.ends_with("-inl.hpp"))
            continue;
        std::istringstream lines(content_of(entry.path()));
        bool documented = false; // by a comment above, or above what stands above without an empty line
        for (std::string line; std::getline(lines, line);) {
            documented = line.starts_with("//") || (documented && !line.empty());
            if (!std::regex_match(line, function) || line.starts_with("struct ") || line.starts_with("class "))
                continue;
            ++functions;
            INFO(entry.path().string() << ": " << line);
            CHECK((documented || line.find("///<") != std::string::npos));
        }
    }
    CHECK(functions > 300);
}

TEST_CASE("every rule in the documentation compiles", "[architecture]") {
    int rules = 0;
    for (const char* file : {"README.md", "docs/language.md", "docs/writing.md"}) {
        const std::string text = content_of(fs::path(KASURI_SOURCE_DIR) / file);
        std::size_t at = 0;
        while ((at = text.find("```kasuri\n", at)) != std::string::npos) {
            at += 10;
            const std::size_t end = text.find("```", at);
            good_rule(text.substr(at, end - at));
            at = end;
            ++rules;
        }
    }
    CHECK(rules >= 6);
}
