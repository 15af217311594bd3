// The examples of docs/embedding.md: what stands there is what is built, and does what it says. What the library shows
// to others, and what it needs.
#include "support/support.hpp"

#include <cstdio>
#include <fstream>
#include <set>
#include <sstream>

using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

std::string said_by(const std::string& command) {
    std::string all;
    FILE* pipe = ::popen(command.c_str(), "r");
    REQUIRE(pipe);
    std::array<char, 4096> block{};
    for (std::size_t count = 0; (count = std::fread(block.data(), 1, block.size(), pipe)) > 0;)
        all.append(block.data(), count);
    CHECK(::pclose(pipe) == 0);
    return all;
}

} // namespace

TEST_CASE("the examples of the page are the ones that are built, and run", "[library][examples]") {
    const std::string page = content_of(KASURI_SOURCE_DIR "/docs/embedding.md");
    for (const char* name : {"apply.c", "plates.cpp"}) {
        INFO(name);
        CHECK(page.find(content_of(std::string(KASURI_SOURCE_DIR "/library/examples/") + name)) != std::string::npos);
    }
    const std::string one = said_by(KASURI_EXAMPLE_APPLY);
    CHECK(one ==
          "0.5 0.5 0.5\n0.15 0.15 0.3\nred is 0.5 red + 0.5 green + 0 blue + 0\ngreys stay grey: holds, for all "
          "colours\n");
    CHECK(page.find(one) != std::string::npos);
    const std::string many =
        said_by(KASURI_EXAMPLE_PLATES " " KASURI_SOURCE_DIR "/data/looks/three-times-of-day.kasurilook");
    CHECK_THAT(many, Contains("Three times of day, in "));
    CHECK(std::count(many.begin(), many.end(), '\n') == 5);
}

TEST_CASE("what the header declares is what the library exports, and no window or picture library is in it",
          "[library]") {
    const std::string library = KASURI_LIBRARY, header = content_of(KASURI_SOURCE_DIR "/library/include/kasuri.h");
    std::set<std::string> exported, declared;
    std::istringstream lines(said_by("nm -D --defined-only " + library));
    for (std::string address, kind, name; lines >> address >> kind >> name;)
        if (kind != "A") // the version itself
            exported.insert(name);
    for (std::size_t at = 0; (at = header.find("KASURI_API ", at)) != std::string::npos; ++at) {
        const std::size_t bracket = header.find('(', at);
        const std::size_t name = header.rfind("kasuri_", bracket);
        if (name != std::string::npos && name > at && header.substr(at, bracket - at).find('\n') == std::string::npos)
            declared.insert(header.substr(name, bracket - name) + "@@KASURI_0");
    }
    CHECK(declared.size() > 40);
    CHECK(exported == declared);
    const std::string needs = said_by("objdump -p " + library + " | grep NEEDED");
    CHECK_THAT(needs, Contains("libtbb"));
    for (const char* no : {"Qt", "OpenImageIO", "libav", "opencv", "libGL"})
        CHECK_THAT(needs, !Contains(no));
}
