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
    CHECK((cli(folder, "docs json").out == page("docs/json.md")));
    CHECK(cli(folder, "docs prelude").out == page("data/prelude.kasuri"));
    CHECK(cli(folder, "docs nothing").exit == 2);
}

TEST_CASE("the manual page knows every command and its options", "[cli]") {
    Folder folder;
    const std::string man = cli(folder, "docs man").out;
    for (const char* command : {"eval", "render", "bake", "check", "explain", "diff", "glsl", "format", "picture",
                                "target", "measure", "solve", "docs", "demo"}) {
        INFO(command);
        CHECK(man.find(std::string(".SS \"") + command) != std::string::npos);
    }
    CHECK(man.find("\\-\\-junit") != std::string::npos);
    CHECK(man.find("Also called info.") != std::string::npos);
    // And the page is one that the formatter understands, where there is one.
    folder.write("page.1", man);
    if (std::system("command -v groff > /dev/null") == 0) {
        CHECK(
            std::system(("groff -man -Tascii -ww " + folder.file("page.1") + " > /dev/null 2> " + folder.file("faults"))
                            .c_str()) == 0);
        CHECK(folder.read("faults").empty());
    }
}

TEST_CASE("what may stand in the place of a word is told to shells", "[cli][completion]") {
    Folder folder; // how three shells use it: shells.py
    const auto offered = [&](const std::string& words) {
        std::string all;
        std::istringstream lines(cli(folder, "complete -- " + words).out);
        for (std::string line; std::getline(lines, line);)
            all += line.substr(0, line.find('\t')) + "\n";
        return all;
    };
    CHECK(offered("che") == "check\n");
    CHECK(offered("inf") == "info\n"); // the other name of picture
    CHECK(offered("check --jun") == "--junit\n");
    CHECK(offered("check --set k=1 --pre") == "--preset\n");
    CHECK(offered("explain --stage t") == "tokens\ntree\ntypes\ntiles\n");
    CHECK(offered("bake a.kasuri b.cube --in-space acescc") == "acescc\nacescct\n");
    CHECK(offered("bake a.kasuri ''") == ":files\n");
    folder.write("a.kasuri",
                 "source cloth : vec3\nparam lift = 0 in 0 .. 1\nparam way = one_way of one_way, other_way\n"
                 "preset \"High up\" lift = 1\nout.rgb = rgb + lift + cloth\n");
    const std::string rule = folder.file("a.kasuri");
    CHECK(offered("eval " + rule + " --preset ''") == "High up\n");
    CHECK(offered("eval --preset '' " + rule + " --set l") == "lift=\n");
    CHECK(offered("eval " + rule + " --set way=o") == "way=one_way\nway=other_way\n");
    CHECK(offered("render " + rule + " --source c") == "cloth=\n");
    CHECK(offered("render " + rule + " --source cloth=target:hue_sw") == "cloth=target:hue_sweep\n:files\n");
    CHECK(offered("measure vec") == "vectorscope\n");
    CHECK(offered("nothing --x ''").empty());
    CHECK(offered("eval " + folder.file("gone.kasuri") + " --preset ''").empty());
}

TEST_CASE("the example for a build server finds what is wrong, and only that", "[cli][documentation]") {
    Folder folder;
    const std::string whole = page("docs/build-server.md");
    const std::size_t begin = whole.find("```sh\n#!/bin/sh") + 6, end = whole.find("```", begin);
    REQUIRE(end != std::string::npos);
    folder.write("check-filters", whole.substr(begin, end - begin));
    const auto checked = [&](const char* workflow) {
        const std::string programs = std::filesystem::path(KASURI_CLI).parent_path().string();
        const int status = std::system(("cd " + folder.file("repository") + " && GITHUB_ACTIONS=" + workflow +
                                        " PATH='" + programs + "':$PATH sh ../check-filters > ../said 2> ../faults")
                                           .c_str());
        return WEXITSTATUS(status);
    };
    folder.write("repository/good.kasuri", "out.rgb = rgb.gbr\n\nproof \"finite\" : finite\n");
    CHECK(checked("false") == 0);
    CHECK(folder.read("said").empty());
    CHECK(folder.read("faults").empty());
    folder.write("repository/below/wrong.kasuri", "out.r = luminanse(rgb)\n");
    folder.write("repository/odd.kasuri", "out.r=g\n");
    folder.write("repository/broken.kasuri", "out.r = g\n\nproof \"greys\" : neutral\n");
    folder.write("repository/less.kasuri", "out.r = g * 0.5\n\nproof \"greys\" : neutral\n");
    CHECK(checked("false") == 1);
    const std::string said = folder.read("said");
    CHECK(said.find("wrong.kasuri:1:9: error: K202 there is no function luminanse") != std::string::npos);
    CHECK(said.find("odd.kasuri: kasuri-cli format would change it") != std::string::npos);
    CHECK(said.find("less.kasuri: proof \"greys\" fails: 1.99") != std::string::npos);
    CHECK(said.find("good.kasuri") == std::string::npos);
    CHECK(folder.read("faults").empty());
    CHECK(checked("true") == 1);
    CHECK(folder.read("said").find("::error file=./below/wrong.kasuri,line=1,col=9::K202") != std::string::npos);
    const std::string junit = folder.read("repository/proofs.xml");
    CHECK(
        junit.find("<error type=\"K202\" message=\"the rule does not compile\">./below/wrong.kasuri:1:9: error K202") !=
        std::string::npos);
}
