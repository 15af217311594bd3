// The library's files: found, read without being checked, searched.
#include "document/library.hpp"
#include "document/look_file.hpp"
#include "support/support.hpp"

#include <algorithm>

using namespace kasuri;
using namespace kasuri::document;
using namespace kasuri::test;

TEST_CASE(
    "filters and looks are found below a folder, but other files, hidden ones and links that lead round are not found",
    "[library]") {
    const TemporaryFolder folder;
    std::filesystem::create_directories(folder / "dips/deep");
    write(folder / "one.kasuri", "out.r = g\n");
    write(folder / "dips/deep/two.kasuri", "");
    write(folder / "dips/river.kasurilook", look_text({}));
    write(folder / "dips/.hidden.kasuri", "");
    write(folder / "dips/notes.txt", "");
    std::filesystem::create_directory_symlink(folder.path, folder / "dips/round");
    const auto files = library_files(folder.path);
    REQUIRE(files.size() == 3);
    CHECK(std::is_sorted(files.begin(), files.end()));
    CHECK(library_files(folder / "nowhere").empty());
}

TEST_CASE("an entry has what the text says, and is found by it", "[library]") {
    const TemporaryFolder folder;
    write(folder / "dip.kasuri",
          "filter \"Second dip\"\nnote \"More dye.\"\ntags \"saturation, dye\"\nworking acescct  // log\npreset "
          "\"Once\" k = 1\npreset \"Twice\" k = 2\n"
          "// blur( is only said here\nparam k = 0 in 0 .. 2\nout.rgb = subtractive_saturation(rgb, k)\nproof \"p\" : "
          "finite\n");
    const LibraryEntry entry = library_entry(folder / "dip.kasuri");
    CHECK((entry.title == "Second dip" && entry.note == "More dye." && entry.working == "acescct" &&
           entry.fault.empty()));
    CHECK(entry.presets == std::vector<std::string>{"Once", "Twice"});
    CHECK(entry.calls == std::vector<std::string>{"subtractive_saturation"});
    for (const char* found :
         {"", "dip", "SECOND", "dye saturation", "subtractive", "acescct", "twice", " more  dye. ", "dip.kasuri"})
        CHECK(matches(entry, found));
    for (const char* not_found : {"blur", "dip blue", "x"})
        CHECK_FALSE(matches(entry, not_found));
    CHECK(same_file(entry));
    write(folder / "dip.kasuri", "out.r = g\n");
    CHECK_FALSE(same_file(entry));
    CHECK(library_entry(folder / "dip.kasuri").title == "dip");
    CHECK(free_name(folder / "dip.kasuri").filename() == "dip-2.kasuri");
}

TEST_CASE("what cannot be read is an entry with its fault", "[library]") {
    const TemporaryFolder folder;
    write(folder / "bytes.kasuri", "out.r = \xff\n");
    write(folder / "broken.kasurilook", "{");
    CHECK(library_entry(folder / "bytes.kasuri").fault.find("UTF-8") != std::string::npos);
    CHECK(library_entry(folder / "broken.kasurilook").fault.find("not a look") != std::string::npos);
    CHECK_FALSE(library_entry(folder / "gone.kasuri").fault.empty());
    Look look;
    look.title = "River";
    LookStep step;
    step.text = "filter \"Dip\"\nout.rgb = blur(rgb, 2)\n";
    look.steps = {step, step};
    REQUIRE(save_look(folder / "river.kasurilook", look));
    const LibraryEntry entry = library_entry(folder / "river.kasurilook");
    CHECK((entry.is_look && entry.steps == 2 && entry.title == "River"));
    CHECK((matches(entry, "dip") && matches(entry, "blur")));
}
