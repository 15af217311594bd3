// Many pictures at once: which, where to, in parts, again, and what happens when one is broken.
#include "handover/batch.hpp"
#include "io/picture_file.hpp"
#include "support/support.hpp"

#include <fmt/format.h>
#include <set>
#include <thread>

using namespace kasuri;
using namespace kasuri::handover;
using namespace kasuri::test;

namespace {

void picture(const std::filesystem::path& path, double red) {
    const image::Picture made = image::generated(16, 8, [&](int, int) {
        return std::array<double, 3>{red, 0.5, 0.25};
    });
    image::Image image = image::image_of(made);
    image.depth = path.extension() == ".exr" ? image::Depth::half : image::Depth::uint8;
    REQUIRE(io::save(path, image));
}

float red_of(const std::filesystem::path& path) { return image::picture_of(io::load(path).value(), "")->at(3)[0]; }

struct Frames10 {
    TemporaryFolder folder;
    Frames10() {
        std::filesystem::create_directories(folder / "in");
        for (int i = 1; i <= 10; ++i)
            picture(folder / fmt::format("in/river.{:04}.exr", i), 0.01 * i);
    }
    std::string path(const std::string& name) const { return (folder / name).string(); }
};

subject::Subject halved() { return good_rule("out.rgb = rgb * 0.5"); }

} // namespace

TEST_CASE("frames and parts are read as they are written", "[batch]") {
    const auto frames = read_frames("1-240, 300-310x5,7");
    REQUIRE((frames && frames->size() == 3));
    CHECK(((*frames)[0].contains(240) && !(*frames)[0].contains(241) && (*frames)[1].contains(305) &&
           !(*frames)[1].contains(304) && (*frames)[2].contains(7)));
    for (const char* wrong : {"", "a", "9-1", "1-", "1-9x0", "1,,2", "-3", "1-99999999999999999999"})
        CHECK_FALSE(read_frames(wrong));
    CHECK((read_part("3/8") && read_part("3/8")->part == 3 && read_part("3/8")->of == 8));
    for (const char* wrong : {"", "3", "0/8", "9/8", "a/b", "1/"})
        CHECK_FALSE(read_part(wrong));
}

TEST_CASE("files, folders, names with wildcards and frames go where they should", "[batch]") {
    const Frames10 f;
    const auto count = [&](BatchOrder order) {
        const auto items = batch_items(order);
        return items ? items.value().size() : 0;
    };
    CHECK(count({{f.path("in")}, f.path("out/")}) == 10);
    CHECK(count({{f.path("in/river.####.exr")}, f.path("out/")}) == 10);
    CHECK(count({{f.path("in/*.000?.exr")}, f.path("out/")}) == 9);
    CHECK(count({{f.path("in/river.0001.exr")}, f.path("one.png")}) == 1);
    CHECK(count({{f.path("in")}, f.path("out/"), "", {{3, 9, 2}}}) == 4);
    const auto renamed = batch_items({{f.path("in")}, f.path("out/dusk.######.exr"), "", {{7, 7}}});
    REQUIRE((renamed && renamed.value().size() == 1));
    CHECK(renamed.value()[0].out == f.path("out/dusk.000007.exr"));
    CHECK(batch_items({{f.path("in")}, f.path("out/"), ".png"}).value()[0].out == f.path("out/river.0001.png"));
    // What cannot be, says why.
    const auto why = [&](BatchOrder order) { return batch_items(order).error().what; };
    CHECK(why({{f.path("in")}, f.path("one.png")}).find("is one file, and there are 10") != std::string::npos);
    CHECK(why({{f.path("in")}, f.path("in/")}).find("written over") != std::string::npos);
    CHECK(why({{f.path("in"), f.path("in/river.0001.exr")}, f.path("out/")}).find("written twice") !=
          std::string::npos);
    CHECK(why({{f.path("*.tif")}, f.path("out/")}).find("fits no file") != std::string::npos);
    CHECK(why({{f.path("in")}, f.path("out/"), "", {{20, 30}}}).find("no picture is left") != std::string::npos);
    std::filesystem::create_directories(f.folder / "empty");
    CHECK(why({{f.path("empty")}, f.path("out/")}).find("no pictures in it") != std::string::npos);
}

TEST_CASE("parts make all of it, each picture once", "[batch]") {
    const Frames10 f;
    std::set<std::filesystem::path> all;
    std::size_t together = 0;
    for (std::size_t part = 1; part <= 4; ++part) {
        const auto items = batch_items({{f.path("in")}, f.path("out/"), "", {}, {part, 4}});
        REQUIRE(items);
        together += items.value().size();
        for (const BatchItem& item : items.value())
            all.insert(item.out);
    }
    CHECK((together == 10 && all.size() == 10));
}

TEST_CASE("a sequence is rendered in parallel, goes on where it stopped, and one broken picture stops nothing",
          "[batch]") {
    const Frames10 f;
    write(f.folder / "in/river.0004.exr", "no picture");
    const auto items = batch_items({{f.path("in")}, f.path("out/deep/")});
    REQUIRE(items);
    std::size_t told = 0, last = 0;
    const auto tell = [&](const BatchEvent& event) {
        ++told;
        CHECK(event.done == ++last);
        CHECK(event.all == 10);
        if (event.what == BatchEvent::What::failed)
            CHECK(event.item.frame == 4);
    };
    const BatchReport report = render_all(halved(), items.value(), {}, {}, tell);
    CHECK((report.written == 9 && report.failed == 1 && told == 10));
    CHECK(static_cast<double>(red_of(f.folder / "out/deep/river.0006.exr")) == Approx(0.03).epsilon(0.001));
    CHECK_FALSE(std::filesystem::exists(f.folder / "out/deep/river.0004.exr"));
    for (const auto& entry : std::filesystem::directory_iterator(f.folder / "out/deep"))
        CHECK(entry.path().filename().string().starts_with("river.")); // no temporary is left
    // Again: what is there stays, what is missing or older is made.
    picture(f.folder / "in/river.0004.exr", 0.04);
    std::filesystem::last_write_time(f.folder / "out/deep/river.0002.exr",
                                     std::filesystem::last_write_time(f.folder / "in/river.0002.exr") -
                                         std::chrono::hours(1));
    BatchOptions resume;
    resume.resume = true;
    resume.jobs = 3;
    const BatchReport again = render_all(halved(), items.value(), resume, {}, {});
    CHECK((again.written == 2 && again.left == 8 && again.failed == 0));
    // Another rule, another depth: none of it is what would be written.
    CHECK(render_all(good_rule("out.rgb = rgb * 0.25"), items.value(), resume, {}, {}).written == 10);
    CHECK(render_all(good_rule("out.rgb = 0.25 * rgb"), items.value(), resume, {}, {}).left ==
          10); // the same by another text
    resume.job.depth = image::Depth::float32;
    CHECK(render_all(good_rule("out.rgb = rgb * 0.25"), items.value(), resume, {}, {}).written == 10);
}

TEST_CASE("work that is called off leaves whole files only", "[batch]") {
    const Frames10 f;
    const auto items = batch_items({{f.path("in")}, f.path("out/")});
    CancelToken cancel;
    BatchOptions one;
    one.jobs = 1;
    const BatchReport report = render_all(halved(), items.value(), one, cancel, [&](const BatchEvent& event) {
        if (event.done == 3)
            cancel.cancel();
    });
    CHECK((report.written == 3 && report.called_off == 7 && report.failed == 0));
    std::size_t files = 0;
    for (const auto& entry : std::filesystem::directory_iterator(f.folder / "out")) {
        ++files;
        CHECK(io::load(entry.path()));
    }
    CHECK(files == 3);
}
