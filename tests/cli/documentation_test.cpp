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
    const std::string script = folder.write("line.sh", "cd '" KASURI_SOURCE_DIR "/data/filters'\nPATH='" + programs + "':$PATH\n" + line + "\n");
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
