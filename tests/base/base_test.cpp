#include "base/file.hpp"
#include "base/parallel.hpp"
#include "base/text.hpp"
#include "support/support.hpp"

#include <atomic>
#include <sys/stat.h>
#include <thread>
#include <unistd.h>

using namespace kasuri;
using namespace kasuri::test;

TEST_CASE("what comes from a file reaches a terminal as one short line of text", "[base]") {
    CHECK(printable("Viénot 麻") == "Viénot 麻");
    CHECK(printable("\x1b[31mred\n") == "\\x1b[31mred\\x0a");
    CHECK(printable("\xff\xc2\x9b"
                    "31m\xe9") == "\\xff\\xc2\\x9b31m\\xe9");
    CHECK(printable("") == "");
    const std::string long_one = printable(std::string(1 << 20, 'x'));
    CHECK(long_one.size() == 403);
    CHECK(long_one.ends_with("..."));
}

TEST_CASE("edit distance counts insertions, deletions, replacements and neighbour swaps", "[base]") {
    CHECK(edit_distance("", "abc") == 3);
    CHECK(edit_distance("kitten", "sitting") == 3); // the usual worked example of Levenshtein's distance
    CHECK(edit_distance("claml", "clamp") == 1);
    CHECK(edit_distance("mxi", "mix") == 1);
}

TEST_CASE("suggestions come only for near words", "[base]") {
    const std::vector<std::string> known = {"smoothstep", "step", "mix", "r", "g"};
    CHECK(did_you_mean("smothstep", known) == "smoothstep");
    CHECK(did_you_mean("mx", known) == "mix");
    CHECK(did_you_mean("R", known) == "r");
    CHECK_FALSE(did_you_mean("q", known));
    CHECK_FALSE(did_you_mean("elephant", known));
    CHECK_FALSE(did_you_mean(std::string(1000, 'x'), known));
}

TEST_CASE("numbers are read and written in the C locale", "[base]") {
    CHECK(parse_number(" -1.5e-3 ") == -0.0015);
    CHECK(parse_number("+2") == 2.0);
    CHECK(std::isnan(*parse_number("nan")));
    CHECK(parse_number("-inf") == -std::numeric_limits<double>::infinity());
    CHECK_FALSE(parse_number("1,5"));
    CHECK_FALSE(parse_number("1.5x"));
    CHECK_FALSE(parse_number(""));
    CHECK(number_text(1.0 / 3, 9) == "0.333333333");
    CHECK(number_text(std::nan(""), 9) == "nan");
}

TEST_CASE("lines and columns count code points", "[base]") {
    const std::string text = "a\n\u00e9\u00e9x";
    const LineColumn place = line_column(text, text.find('x'));
    CHECK(place.line == 2);
    CHECK(place.column == 3);
}

TEST_CASE("a file is replaced whole or not at all", "[base][file]") {
    TemporaryFolder folder;
    const auto path = folder / "a.kasuri";
    REQUIRE(write_file(path, "first"));
    CHECK(content_of(path) == "first");
    // The writer fails half-way: the old content stays, nothing else is left in the folder.
    const Status failed = write_atomically(path, [](const std::filesystem::path& temporary) -> Status {
        write(temporary, "half");
        return Error{"no space", "", ""};
    });
    CHECK_FALSE(failed);
    CHECK(content_of(path) == "first");
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) == 1);
    REQUIRE(write_file(path, "second"));
    CHECK(content_of(path) == "second");
}

TEST_CASE("two writes of one file at the same time do not meet: the last to finish stays", "[base][file]") {
    TemporaryFolder folder;
    const auto path = folder / "note.txt";
    const Status outer = write_atomically(path, [&](const std::filesystem::path& temporary) -> Status {
        write(temporary, "first");
        CHECK(write_file(path, "second")); // as another thread would, in between
        CHECK(content_of(path) == "second");
        return {};
    });
    CHECK(outer);
    CHECK(content_of(path) == "first");
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) == 1);
}

TEST_CASE("permissions and links survive a save", "[base][file]") {
    TemporaryFolder folder;
    REQUIRE(write_file(folder / "real", "1"));
    ::chmod((folder / "real").c_str(), 0640);
    std::filesystem::create_symlink(folder / "real", folder / "link");
    REQUIRE(write_file(folder / "link", "2"));
    CHECK(std::filesystem::is_symlink(folder / "link"));
    CHECK(content_of(folder / "real") == "2");
    struct stat facts {};
    ::stat((folder / "real").c_str(), &facts);
    CHECK((facts.st_mode & 0777) == 0640);
}

TEST_CASE("files that cannot be read or written say why and lose nothing", "[base][file]") {
    TemporaryFolder folder;
    CHECK(read_file(folder / "none", 100).error().what == "there is no such file");
    CHECK(read_file(folder.path, 100).error().what == "this is a folder, not a file");
    write(folder / "long", std::string(200, 'x'));
    CHECK(read_file(folder / "long", 100).error().what == "the file is longer than 100 bytes");
    CHECK_FALSE(write_file(folder / "no/such/folder/x", "1"));
    CHECK_FALSE(write_file(folder.path, "1"));
    if (::geteuid() != 0) { // root may write anywhere
        ::chmod(folder.path.c_str(), 0555);
        CHECK_FALSE(write_file(folder / "x", "1"));
        CHECK(content_of(folder / "long").size() == 200);
    }
    // A device without any space: what a full disk answers.
    if (std::filesystem::exists("/dev/full")) {
        const Status full = write_atomically(folder / "long", [](const std::filesystem::path& temporary) -> Status {
            std::filesystem::remove(temporary);
            std::filesystem::create_symlink("/dev/full", temporary);
            std::ofstream out(temporary);
            out << "x" << std::flush;
            return out ? Status() : Status(Error{"cannot write all of the file", "", "Free some space."});
        });
        CHECK_FALSE(full);
        CHECK(content_of(folder / "long").size() == 200);
    }
}

TEST_CASE("devices and pipes are written into, never replaced", "[base][file]") {
    TemporaryFolder folder;
    const auto pipe = folder / "pipe.txt";
    REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
    std::string came;
    std::thread reader([&] {
        std::ifstream in(pipe);
        came.assign(std::istreambuf_iterator<char>(in), {});
    });
    const std::string all(300'000, 'x'); // more than a pipe holds at once
    CHECK(write_file(pipe, all));
    reader.join();
    CHECK(came == all);
    CHECK(std::filesystem::is_fifo(pipe));
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) == 1);
    if (std::filesystem::exists("/dev/null")) {
        CHECK(write_file("/dev/null", "gone"));
        CHECK(std::filesystem::is_character_file("/dev/null"));
        CHECK(write_file("/dev/full", "x").error().text().find("No space left") != std::string::npos);
    }
    // A reader that goes away is an error, and not the end of the program.
    std::thread hasty([&] { std::ifstream(pipe).get(); });
    const Status cut = write_file(pipe, all + all);
    hasty.join();
    CHECK_FALSE(cut);
}

TEST_CASE("what is no regular file is not read, and nothing waits for it", "[base][file]") {
    TemporaryFolder folder;
    const auto pipe = folder / "pipe.kasuri";
    REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
    CHECK(read_file(pipe, 100).error().what == "this is a device or a pipe, not a file");
    CHECK(read_file("/dev/zero", 100).error().what == "this is a device or a pipe, not a file");
    std::filesystem::create_symlink(pipe, folder / "link");
    CHECK_FALSE(readable_file(folder / "link"));
    CHECK(readable_file(folder / "none").error().what == "there is no such file");
    write(folder / "text", "1");
    CHECK(readable_file(folder / "text"));
    CHECK(readable_file(folder / "text" / "deeper").error().what == "there is no such file");
}

TEST_CASE("temporaries are short, hidden, nobody's guess, and a link to nowhere is followed", "[base][file]") {
    TemporaryFolder folder;
    std::vector<std::string> names;
    for (int i = 0; i < 2; ++i)
        REQUIRE(write_atomically(folder / "a.exr", [&](const std::filesystem::path& temporary) -> Status {
            names.push_back(temporary.filename().string());
            CHECK(is_temporary(temporary));
            CHECK(temporary.extension() == ".exr");
            CHECK(std::filesystem::file_size(temporary) == 0); // it is there, and ours
            return {};
        }));
    CHECK(names[0] != names[1]);
    CHECK_FALSE(is_temporary(folder / "a.exr"));
    const std::string longest(250, 'n'); // with five more it would be too long for a file system
    REQUIRE(write_file(folder / longest, "1"));
    REQUIRE(write_file(folder / longest, "2"));
    CHECK(content_of(folder / longest) == "2");
    std::filesystem::create_directory(folder / "real");
    std::filesystem::create_symlink("real/new.txt", folder / "link");
    REQUIRE(write_file(folder / "link", "through"));
    CHECK(std::filesystem::is_symlink(folder / "link"));
    CHECK(content_of(folder / "real/new.txt") == "through");
    std::filesystem::create_symlink("round", folder / "about");
    std::filesystem::create_symlink("about", folder / "round");
    CHECK(write_file(folder / "round", "1").error().what == "the link leads in a circle");
    std::filesystem::create_symlink("nowhere/x", folder / "lost");
    CHECK(write_file(folder / "lost", "1").error().what == "there is no folder to write to");
}

TEST_CASE("temporaries that were left behind go, those being written stay", "[base][file]") {
    TemporaryFolder folder;
    write(folder / ".kasuri-0011223344556677.part.exr", "left behind");
    write(folder / ".hidden.part.exr", "somebody's");
    REQUIRE(write_atomically(folder / "a.exr", [&](const std::filesystem::path& temporary) -> Status {
        CHECK(remove_stale_temporaries(folder.path) == 1);
        CHECK(std::filesystem::exists(temporary)); // ours
        return {};
    }));
    CHECK(std::filesystem::exists(folder / "a.exr"));
    CHECK(std::filesystem::exists(folder / ".hidden.part.exr"));
    CHECK_FALSE(std::filesystem::exists(folder / ".kasuri-0011223344556677.part.exr"));
    CHECK(remove_stale_temporaries(folder / "none") == 0);
}

TEST_CASE("parallel ranges cover everything once and stop when told", "[base]") {
    std::vector<std::atomic<int>> hits(1000);
    CHECK(parallel_ranges(1000, 7, {}, [&](std::size_t first, std::size_t last) {
        for (std::size_t i = first; i < last; ++i)
            ++hits[i];
    }));
    CHECK(std::all_of(hits.begin(), hits.end(), [](const auto& hit) { return hit == 1; }));
    CancelToken cancel;
    cancel.cancel();
    int ran = 0;
    CHECK_FALSE(parallel_ranges(1000, 7, cancel, [&](std::size_t, std::size_t) { ++ran; }));
    CHECK(ran == 0);
}
