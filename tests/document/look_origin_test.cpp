// A look that came from anywhere reads nothing but what it holds.
#include "base/file.hpp"
#include "document/filter_file.hpp"
#include "document/look_file.hpp"
#include "document/look_text.hpp"
#include "look/make.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

namespace {

const std::string secret = "SECRETKEY abcdef\n";

/// A look in a folder of its own whose step uses a file beside another one.
std::filesystem::path look_that_asks(const TemporaryFolder& folder, const std::string& filter) {
    std::filesystem::create_directories(folder / "mine/below");
    std::filesystem::create_directories(folder / "secret");
    REQUIRE(write_file(folder / "secret/id_key", secret));
    REQUIRE(write_file(folder / "mine/below/id_key", "fn half(x) = x / 2\n"));
    const std::string text = R"({"kasuri-look": 1, "title": "t", "steps": [{"label": "", "filter": ")" + filter +
        R"(", "values": {}, "text": "use \"id_key\"\nout.r = g\n"}]})";
    REQUIRE(write_file(folder / "mine/asks.kasurilook", text));
    return folder / "mine/asks.kasurilook";
}

} // namespace

TEST_CASE("a look from anywhere takes in no file that it has no copy of", "[look][security]") {
    TemporaryFolder folder;
    for (const std::string& filter :
         {(folder / "secret/x.kasuri").string(), std::string("../secret/x.kasuri"), std::string("below/x.kasuri")}) {
        INFO(filter);
        Result<Look> look = load_look(look_that_asks(folder, filter));
        REQUIRE(look);
        for (const std::filesystem::path& relative_to : {folder / "mine", std::filesystem::path()}) {
            const auto read = used_by(look.value().steps[0], relative_to)("id_key");
            REQUIRE_FALSE(read);
            CHECK(read.error().what == "the look has no copy of it");
        }
        make_absolute(look.value(), folder / "mine"); // as the window has it
        CHECK(keep_used_files(look.value().steps[0]).empty());
        CHECK(look_text(look.value()).find("SECRETKEY") == std::string::npos);
    }
    // What it holds is read; what the user adds is taken in, and said.
    Result<Look> look = load_look(look_that_asks(folder, "below/x.kasuri"));
    look.value().steps[0].uses["id_key"] = "fn half(x) = x * 0.5\n";
    CHECK(used_by(look.value().steps[0], {})("id_key").value() == "fn half(x) = x * 0.5\n");
    REQUIRE(write_file(folder / "mine/below/x.kasuri", "use \"id_key\"\nout.r = half(g)\n"));
    Result<LookStep> added = step_from(folder / "mine/below/x.kasuri");
    REQUIRE(added);
    CHECK(keep_used_files(added.value()) == std::vector<std::string>{"id_key"});
    CHECK(added.value().uses["id_key"] == "fn half(x) = x / 2\n");
    // Bringing up to date is agreeing to that file.
    Result<LookStep> fresh = brought_up_to_date(look.value().steps[0], folder / "mine");
    REQUIRE(fresh);
    fresh.value().filter = (folder / "mine/below/x.kasuri").string(); // as the window has it
    CHECK(keep_used_files(fresh.value()) == std::vector<std::string>{"id_key"});
}

TEST_CASE("paths in a look that lead out of its folder are words, links included", "[look][security]") {
    TemporaryFolder folder;
    const auto opens = [&](const std::string& filter) {
        const Result<Look> look = load_look(look_that_asks(folder, filter));
        REQUIRE(look);
        const bool may = may_open_file(look.value().steps[0], folder / "mine");
        CHECK((state_of(look.value().steps[0], folder / "mine") == FilterState::none) == !may);
        return may;
    };
    CHECK(opens("below/x.kasuri"));
    CHECK(opens("below/../x.kasuri"));
    CHECK_FALSE(opens("../secret/x.kasuri"));
    CHECK_FALSE(opens((folder / "secret/x.kasuri").string()));
    std::filesystem::create_directory_symlink(folder / "secret", folder / "mine/link");
    CHECK_FALSE(opens("link/x.kasuri"));
    CHECK_FALSE(opens(""));
    Result<Look> nowhere = look_of(R"({"kasuri-look": 1, "steps": [{"filter": "a", "text": ""}]})", "text");
    REQUIRE(nowhere);
    CHECK_FALSE(may_open_file(nowhere.value().steps[0], folder.path)); // it came from no file
    // Equal steps are equal wherever they come from: a look that is saved and read again is the same.
    LookStep typed = nowhere.value().steps[0];
    typed.origin = {};
    CHECK(typed == nowhere.value().steps[0]);
    // The ending of a LUT is no path.
    for (const std::string lut : {"/../../x.cube", ".cube/x.cube", "..cube", "cube"})
        CHECK_FALSE(look_of(R"({"kasuri-look": 1, "steps": [{"lut": ")" + lut + R"(", "text": ""}]})", "text"));
}

TEST_CASE("a filter uses no file outside of its folder by a link, and a name with dots is one",
          "[document][security]") {
    TemporaryFolder folder;
    std::filesystem::create_directories(folder / "mine");
    std::filesystem::create_directories(folder / "secret");
    REQUIRE(write_file(folder / "secret/id_key", secret));
    REQUIRE(write_file(folder / "mine/a..b.kasuri", "fn f(x) = x\n"));
    std::filesystem::create_symlink(folder / "secret/id_key", folder / "mine/link.kasuri");
    std::filesystem::create_directory_symlink(folder / "secret", folder / "mine/way");
    const auto open = used_beside(folder / "mine/rule.kasuri");
    CHECK(open("a..b.kasuri"));
    for (const char* out : {"link.kasuri", "way/id_key", "../secret/id_key", "/etc/hostname", ""})
        CHECK(open(out).error().what == "names a file outside this filter's folder");
}
