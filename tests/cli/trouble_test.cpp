// What goes wrong outside of a rule: full disks, pipes, devices, files that are none.
#include "base/text.hpp"
#include "cli/driver.hpp"

#include <sys/stat.h>
#include <vector>

using namespace kasuri::test;

namespace {

Ran into(const Folder& folder, const std::string& arguments, const std::string& out) {
    folder.write("stdin", "0.1,0.2,0.3\n");
    const int status = std::system((std::string(KASURI_CLI) + " " + arguments + " <" + folder.file("stdin") + " >" +
                                    out + " 2>" + folder.file("stderr"))
                                       .c_str());
    return {WEXITSTATUS(status), "", folder.read("stderr")};
}

} // namespace

TEST_CASE("a full disk behind standard output is an error of every command that writes there", "[cli][trouble]") {
    if (!std::filesystem::exists("/dev/full"))
        return;
    const Folder folder;
    const std::string rule = folder.write("a.kasuri", "out.g = b\n");
    for (const std::string& command :
         std::vector<std::string>{"check " + rule, "check --json " + rule, "explain " + rule, "explain --json " + rule,
                                  "eval " + rule, "eval --json " + rule, "glsl " + rule, "docs errors", "docs builtins",
                                  std::string("target"), "format --check " + folder.write("c.kasuri", "out.g=b\n"),
                                  "cdl " + folder.write("b.kasuri", "out.rgb = rgb * 2\n"), "measure response " + rule,
                                  "target grey_ramp --print"}) {
        INFO(command);
        const Ran ran = into(folder, command, "/dev/full");
        CHECK(ran.exit == 3);
        CHECK(ran.err.find("cannot write all of the output: No space left on device") != std::string::npos);
    }
    CHECK(into(folder, "check " + rule, "/dev/null").exit != 3);
}

TEST_CASE("pipes and devices are neither read as files nor replaced by them", "[cli][trouble]") {
    const Folder folder;
    const std::string rule = folder.write("a.kasuri", "out.g = b\n");
    const std::string pipe = folder.file("p.kasuri");
    REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
    for (const std::string& command : std::vector<std::string>{"check " + pipe, "eval " + pipe, "picture " + pipe,
                                                               "render " + rule + " " + pipe + " o.exr"}) {
        INFO(command);
        const Ran ran = cli(folder, command);
        CHECK(ran.exit == 3);
        CHECK(ran.err.find("a device or a pipe") != std::string::npos);
    }
    folder.write("uses.kasuri", "use \"p.kasuri\"\nout.r = g\n");
    CHECK(cli(folder, "check " + folder.file("uses.kasuri")).exit == 1);
    CHECK(cli(folder, "glsl " + rule + " -o /dev/null").exit == 0);
    CHECK(std::filesystem::is_character_file("/dev/null"));
    // Through a pipe all of it comes.
    const std::string out = folder.file("out.pipe");
    REQUIRE(::mkfifo(out.c_str(), 0600) == 0);
    REQUIRE(std::system(("cat " + out + " > " + folder.file("came") + " & " + KASURI_CLI + " glsl " + rule + " -o " +
                         out + "; wait")
                            .c_str()) == 0);
    CHECK(folder.read("came") == cli(folder, "glsl " + rule).out);
    CHECK(std::filesystem::is_fifo(out));
}

TEST_CASE("a config whose spaces go round in a circle is refused with the circle", "[cli][trouble]") {
    const Folder folder;
    const auto config = [&](const std::string& first, const std::string& second) {
        return folder.write(
            "round.ocio",
            "ocio_profile_version: 2\nroles:\n  scene_linear: lin\n  default: lin\ndisplays:\n  d:\n    - !<View> "
            "{name: v, colorspace: lin}\ncolorspaces:\n  - !<ColorSpace>\n    name: lin\n  - !<ColorSpace>\n    "
            "name: g\n    from_scene_reference: !<ColorSpaceTransform> {src: " +
                first +
                ", dst: lin}\n  - !<ColorSpace>\n    name: h\n    to_scene_reference: "
                "!<GroupTransform>\n      children:\n        - !<ColorSpaceTransform> {src: " +
                second + ", dst: lin}\n");
    };
    const std::string rule = folder.write("a.kasuri", "out.g = b\n");
    const auto said = [&](const std::string& first, const std::string& second) {
        return cli(folder, "--config " + config(first, second) + " eval " + rule, "0,0,0\n");
    };
    Ran ran = said("g", "lin");
    CHECK(ran.exit == 3);
    CHECK(ran.err.find("in a circle: g -> g") != std::string::npos);
    ran = said("h", "g");
    CHECK(ran.exit == 3);
    CHECK(ran.err.find("in a circle: ") != std::string::npos);
    CHECK(said("lin", "g").exit == 0); // a chain is none
}

TEST_CASE("a minus sign is standard input for what reads a rule, and standard output for what writes text",
          "[cli][trouble]") {
    const Folder folder;
    const std::string rule = "filter \"Piped\"\nout.g = b\nproof \"p\" : neutral\n";
    const std::string file = folder.write("a.kasuri", rule);
    CHECK(cli(folder, "check -", rule).out.find("pass") != std::string::npos);
    CHECK(cli(folder, "glsl - -o -", rule).out == cli(folder, "glsl " + file).out);
    CHECK(cli(folder, "explain -", rule).exit == 0);
    CHECK(cli(folder, "format -", "out.g=b\n").out == "out.g = b\n");
    CHECK(cli(folder, "format -", "out.g = b\n").out == "out.g = b\n");
    CHECK(cli(folder, "measure response " + file + " -o -").out == cli(folder, "measure response " + file).out);
    CHECK(cli(folder, "check --junit - " + file).out.find("<testsuites") != std::string::npos);
    CHECK(cli(folder, "eval -", rule).exit == 2);
    const Ran bad = cli(folder, "check -", "out.g = \xff\n");
    CHECK(bad.exit == 3);
    CHECK(bad.err.find("standard input: is not a text") != std::string::npos);
    CHECK_FALSE(std::filesystem::exists("-"));
    CHECK(cli(folder, "eval --print 'nobody' " + file, "0,0,0\n").exit == 1);
    const Ran wild = cli(folder, "check " + folder.write("w.kasuri", "out.r = \"\x1b[31m\n"));
    CHECK(wild.err.find('\x1b') == std::string::npos); // no escape sequence reaches the terminal
}

TEST_CASE("reports on a file whose name is no UTF-8 are UTF-8 all the same", "[cli][trouble]") {
    const Folder folder;
    const std::string rule = folder.write("b\xE9"
                                          "d.kasuri",
                                          "out.g = b\nproof \"kept\" : finite\n");
    CHECK(cli(folder, "check --quiet --junit " + folder.file("j.xml") + " '" + rule + "'").exit == 0);
    CHECK(cli(folder, "report '" + rule + "' -o " + folder.file("r.html")).exit == 0);
    const std::string json = cli(folder, "check --json '" + rule + "'").out;
    for (const std::string& text : {folder.read("j.xml"), folder.read("r.html"), json}) {
        REQUIRE(text.size() > 50);
        CHECK(kasuri::well_formed(text) == text);
        CHECK(text.find("b\xEF\xBF\xBD"
                        "d") != std::string::npos);
    }
}
