// The pages of docs/ that say what the program does are what the program does.
#include "cli/driver.hpp"

#include <sstream>

using namespace kasuri::test;

namespace {

std::string page(const std::string& name) {
    std::ifstream in(std::string(KASURI_SOURCE_DIR) + "/" + name, std::ios::binary);
    REQUIRE(in);
    return {std::istreambuf_iterator<char>(in), {}};
}

/// What a shell in the folder of our filters says to a line, as somebody sees it who tries it.
std::string tried(const Folder& folder, const std::string& line) {
    const std::string programs = std::filesystem::path(KASURI_CLI).parent_path().string();
    const std::string script = folder.write(
        "line.sh", "cd '" KASURI_SOURCE_DIR "/data/filters'\nPATH='" + programs + "':$PATH\n" + line + "\n");
    (void)!std::system(("sh " + script + " >" + folder.file("out") + " 2>/dev/null").c_str());
    return folder.read("out");
}

} // namespace

TEST_CASE("every example of the documentation says what it really says", "[cli][documentation]") {
    Folder folder;
    int examples = 0;
    for (const char* name : {"docs/language.md", "docs/writing.md", "README.md"}) {
        std::istringstream lines(page(name));
        bool inside = false;
        std::string command, expected;
        const auto finish = [&] {
            if (command.empty())
                return;
            INFO(name << ": " << command);
            CHECK(tried(folder, command) == expected);
            ++examples;
            command.clear();
            expected.clear();
        };
        for (std::string line; std::getline(lines, line);)
            if (line == "```console") {
                inside = true;
            } else if (inside && line == "```") {
                finish();
                inside = false;
            } else if (inside && line.starts_with("$ ")) {
                finish();
                command = line.substr(2);
            } else if (inside) {
                expected += line + "\n";
            }
    }
    CHECK(examples >= 40);
}

TEST_CASE("the pages that are made from the tables are those of this program", "[cli][documentation]") {
    Folder folder;
    // When one differs: kasuri-cli docs PAGE > docs/PAGE.md, and read the difference.
    CHECK((cli(folder, "docs builtins").out == page("docs/builtins.md")));
    CHECK((cli(folder, "docs colour").out == page("docs/colour.md")));
    CHECK((cli(folder, "docs errors").out == page("docs/errors.md")));
    CHECK(cli(folder, "docs prelude").out == page("data/prelude.kasuri"));
    CHECK(cli(folder, "docs nothing").exit == 2);
}

TEST_CASE("the manual page and the completion know every command and its options", "[cli]") {
    Folder folder;
    const std::string man = cli(folder, "docs man").out, completion = cli(folder, "docs completion").out;
    for (const char* command : {"eval", "render", "bake", "check", "explain", "diff", "glsl", "format", "picture",
                                "target", "measure", "solve", "docs", "demo"}) {
        INFO(command);
        CHECK(man.find(std::string(".SS \"") + command) != std::string::npos);
        CHECK((completion.find(std::string("        ") + command + ") options=\"") != std::string::npos ||
               completion.find(std::string("        ") + command + "|") != std::string::npos));
    }
    CHECK(man.find("\\-\\-junit") != std::string::npos);
    // bash itself completes with it.
    folder.write("completion", completion);
    const auto completed = [&](const std::string& words, int at) {
        const std::string script = ". " + folder.file("completion") + "; COMP_WORDS=(" + words +
            "); COMP_CWORD=" + std::to_string(at) + "; _kasuri_cli; printf '%s\\n' \"${COMPREPLY[@]}\"";
        folder.write("script", script);
        return std::system(("bash " + folder.file("script") + " > " + folder.file("said")).c_str()) == 0
            ? folder.read("said")
            : std::string("failed");
    };
    CHECK(completed("kasuri-cli che", 1) == "check\n");
    CHECK(completed("kasuri-cli check --jun", 2) == "--junit\n");
    CHECK(completed("kasuri-cli check --set k=1 --pre", 4) == "--preset\n");
    CHECK(completed("kasuri-cli inf", 1) == "info\n"); // the other name of picture
    CHECK(completed("kasuri-cli info --js", 2) == "--json\n");
    CHECK(man.find("Also called info.") != std::string::npos);
    CHECK(completed("kasuri-cli check " + folder.file("comple"), 2) == folder.file("completion") + "\n");
    // And the page is one that the formatter understands, where there is one.
    folder.write("page.1", man);
    if (std::system("command -v groff > /dev/null") == 0) {
        CHECK(
            std::system(("groff -man -Tascii -ww " + folder.file("page.1") + " > /dev/null 2> " + folder.file("faults"))
                            .c_str()) == 0);
        CHECK(folder.read("faults").empty());
    }
}
