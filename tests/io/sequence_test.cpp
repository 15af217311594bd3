#include "io/sequence.hpp"
#include "support/support.hpp"

#include <fstream>

using namespace kasuri;

namespace {

struct Frames {
    std::filesystem::path folder =
        std::filesystem::temp_directory_path() / ("kasuri-frames-" + std::to_string(std::random_device{}()));
    explicit Frames(std::initializer_list<const char*> names) {
        std::filesystem::create_directories(folder);
        for (const char* name : names)
            std::ofstream(folder / name) << "x";
    }
    ~Frames() { std::filesystem::remove_all(folder); }
    std::vector<int> numbers(const char* name) const {
        std::vector<int> made;
        for (const auto& frame : io::sequence_of(folder / name).frames)
            made.push_back(frame.number);
        return made;
    }
};

} // namespace

TEST_CASE("numbered files that belong together, in their order, with gaps", "[io]") {
    const Frames files{"river.0002.exr", "river.0001.exr",  "river.0010.exr",  "river.0001.png", "riverbed.0001.exr",
                       "river.exr",      "plate2_v3.7.tif", "plate2_v3.8.tif", "plate3_v3.7.tif"};
    CHECK(files.numbers("river.0002.exr") == std::vector<int>{1, 2, 10});
    const io::Sequence river = io::sequence_of(files.folder / "river.0002.exr");
    CHECK(river.at == 1);
    CHECK(river.frames[2].path == files.folder / "river.0010.exr");
    CHECK(files.numbers("plate2_v3.7.tif") == std::vector<int>{7, 8});
    CHECK(files.numbers("river.exr").empty());
    CHECK(files.numbers("river.0001.png").empty()); // alone
    CHECK(files.numbers("no_such_folder/a.1.exr").empty());
}

TEST_CASE("numbers with and without zeros, and numbers that are too long", "[io]") {
    const Frames files{"a1.exr", "a2.exr", "a002.exr", "a99999999999999999999.exr", "12.exr", "13.exr"};
    CHECK(files.numbers("a1.exr") == std::vector<int>{1, 2});
    CHECK(io::sequence_of(files.folder / "a1.exr").frames[1].path.filename() == "a2.exr");
    CHECK(files.numbers("a99999999999999999999.exr").empty());
    CHECK(files.numbers("12.exr") == std::vector<int>{12, 13});
}
