// Whatever a file does to a library, the one who asked lives on: the helpers that read pictures and try LUTs, with
// stand-ins that die, hang, talk nonsense or ask for more than there is.
#include "io/config.hpp"
#include "io/helper.hpp"
#include "io/lut_file.hpp"
#include "io/picture_file.hpp"
#include "io/picture_process.hpp"
#include "io/stretch.hpp"
#include "support/support.hpp"
#include "wire/link.hpp"

#include <csignal>
#include <sys/stat.h>
#include <thread>

using namespace kasuri;
using namespace kasuri::test;
using wire::Message;

namespace {

/// In place of a helper: a shell script.
class StandIn {
public:
    StandIn(io::Task task, const std::string& script, std::chrono::milliseconds patience = std::chrono::seconds(20))
        : task_(task) {
        write(folder_ / "helper", "#!/bin/sh\n" + script + "\n");
        std::filesystem::permissions(folder_ / "helper", std::filesystem::perms::owner_all);
        io::use_helper(task, folder_ / "helper", patience);
    }
    ~StandIn() { io::use_helper(task_); }

private:
    TemporaryFolder folder_;
    io::Task task_;
};

image::Image small_picture() {
    return image::image_of(image::generated(40, 30, [](int x, int y) {
        return std::array<double, 3>{x / 40.0, y / 30.0, 0.5};
    }));
}

} // namespace

TEST_CASE("a library that dies of a picture is told as an error of that picture, and the next one is read",
          "[io][helper]") {
    const TemporaryFolder folder;
    const auto file = folder / "a.exr";
    REQUIRE(io::save(file, small_picture()));
    struct Case {
        const char* script;
        const char* expected;
    };
    for (const Case& each : {Case{"kill -SEGV $$", "signal 11"},
                             {"exit 0", "it ended"},
                             {"kill -KILL $$", "signal 9"},
                             {"printf '\\004\\000\\000\\000abcd' >&3; sleep 5", "what nobody understands"},
                             {"printf '\\377\\377\\377\\377' >&3; sleep 5", "what nobody understands"}}) {
        INFO(each.script);
        const StandIn helper(io::Task::pictures, each.script);
        const auto read = io::load(file);
        REQUIRE_FALSE(read);
        INFO(read.error().text());
        CHECK(read.error().where == file.string());
        CHECK(read.error().what.find("could not cope with it") != std::string::npos);
        CHECK(read.error().what.find(each.expected) != std::string::npos);
    }
    CHECK(io::load(file));
}

TEST_CASE("a library that does not come back is left after a while", "[io][helper]") {
    const TemporaryFolder folder;
    const auto file = folder / "a.exr";
    REQUIRE(io::save(file, small_picture()));
    io::use_helper(io::Task::pictures);
    const std::size_t others = children().size();
    {
        const StandIn helper(io::Task::pictures, "exec sleep 100", std::chrono::milliseconds(1000));
        const auto read = io::load(file);
        REQUIRE_FALSE(read);
        CHECK(read.error().what.find("it said nothing for 1 seconds") != std::string::npos);
    }
    CHECK(children().size() == others);
    CHECK(io::load(file));
}

TEST_CASE("a helper that is not there, or no program, is said", "[io][helper]") {
    const TemporaryFolder folder;
    write(folder / "none", "no program");
    write(folder / "a.exr", "no picture");
    io::use_helper(io::Task::pictures, folder / "none");
    const auto read = io::load(folder / "a.exr");
    io::use_helper(io::Task::pictures);
    REQUIRE_FALSE(read);
    CHECK(read.error().text().find("cannot be started (Permission denied)") != std::string::npos);
    CHECK(read.error().where == (folder / "a.exr").string());
}

TEST_CASE("what is written while the library dies leaves the old file and no temporary", "[io][helper]") {
    const TemporaryFolder folder;
    const auto file = folder / "a.png";
    REQUIRE(io::save(file, small_picture()));
    const std::string before = content_of(file);
    {
        const StandIn helper(io::Task::pictures, "kill -ABRT $$");
        const auto saved = io::save(file, small_picture());
        REQUIRE_FALSE(saved);
        CHECK(saved.error().what.find("signal 6") != std::string::npos);
    }
    CHECK(content_of(file) == before);
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), std::filesystem::directory_iterator()) == 1);
}

TEST_CASE("LUTs, lists and configs that the library dies of are errors", "[io][helper]") {
    const TemporaryFolder folder;
    write(folder / "a.cube", "LUT_3D_SIZE 2\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n0.875 1 1\n");
    write(folder / "a.cc",
          "<ColorCorrection id=\"a\"><SOPNode><Slope>2 1 1</Slope><Offset>0 0 0</Offset>"
          "<Power>1 1 1</Power></SOPNode></ColorCorrection>");
    write(folder / "a.ocio", "ocio_profile_version: 1\n");
    {
        const StandIn helper(io::Task::tables, "kill -SEGV $$");
        for (const Error& error : {io::read_lut(folder / "a.cube").error(), io::read_cdl(folder / "a.cc").error(),
                                   io::load_config(folder / "a.ocio").error()}) {
            INFO(error.text());
            CHECK(error.where.starts_with(folder.path.string()));
            CHECK(error.what.find("LUTs and colour configs could not cope with it (signal 11)") != std::string::npos);
        }
    }
    CHECK(io::read_lut(folder / "a.cube"));
    CHECK(io::read_cdl(folder / "a.cc"));
    const StandIn helper(io::Task::tables, "kill -SEGV $$");
    CHECK(io::read_lut(folder / "a.cube")); // it has been tried before
}

TEST_CASE("a helper that was ended while it waited is replaced, one that works is kept", "[io][helper]") {
    const TemporaryFolder folder;
    const auto file = folder / "a.exr";
    io::use_helper(io::Task::pictures);
    io::use_helper(io::Task::tables);
    REQUIRE(children().empty());
    REQUIRE(io::save(file, small_picture()));
    const std::vector<int> first = children();
    REQUIRE(first.size() == 1);
    REQUIRE(io::load(file));
    CHECK(children() == first);
    ::kill(first[0], SIGKILL);
    std::this_thread::sleep_for(std::chrono::milliseconds(100));
    const auto read = io::load(file);
    INFO((read ? std::string() : read.error().text()));
    REQUIRE(read);
    CHECK(children() != first);
    CHECK((*read.value().find("R")->plane)[7] == Approx(7 / 40.0).margin(1e-3));
}

TEST_CASE("signals that are meant for the program do not end what works for it, and nothing of its files is held on",
          "[io][helper]") {
    const TemporaryFolder folder;
    const auto file = folder / "a.exr";
    REQUIRE(io::save(file, small_picture()));
    for (const int child : children())
        for (const int signal : {SIGINT, SIGTERM, SIGHUP})
            ::kill(child, signal);
    std::this_thread::sleep_for(std::chrono::milliseconds(50));
    const std::vector<int> before = children();
    REQUIRE_FALSE(before.empty());
    CHECK(io::load(file));
    CHECK(children() == before);
    for (const int child : before) // standard streams, the socket, the memory: no file of ours, no lock
        for (const auto& open : std::filesystem::directory_iterator("/proc/" + std::to_string(child) + "/fd")) {
            std::error_code none;
            const std::string leads_to = std::filesystem::read_symlink(open.path(), none).string();
            INFO(leads_to);
            CHECK((leads_to == "/dev/null" || leads_to.starts_with("socket:") ||
                   leads_to.starts_with("/memfd:kasuri") || leads_to.starts_with("anon_inode") || leads_to.empty()));
        }
}

TEST_CASE("many pictures are read at once, each by a process of its own", "[io][helper]") {
    const TemporaryFolder folder;
    for (int i = 0; i < 6; ++i) {
        image::Image image = image::image_of(image::generated(300, 200, [i](int x, int y) {
            return std::array<double, 3>{i / 8.0, x / 512.0, y / 256.0};
        }));
        image.depth = image::Depth::float32;
        REQUIRE(io::save(folder / (std::to_string(i) + ".exr"), image));
    }
    std::atomic<int> right{0};
    std::vector<std::thread> threads;
    for (int i = 0; i < 6; ++i)
        threads.emplace_back([&, i] {
            for (int again = 0; again < 5; ++again) {
                const auto read = io::load(folder / (std::to_string(i) + ".exr"));
                if (!read)
                    continue;
                const auto picture = image::picture_of(read.value(), "");
                const auto c = picture->at(299, 199);
                right += c[0] == static_cast<float>(i / 8.0) && c[1] == static_cast<float>(299 / 512.0) &&
                    c[2] == static_cast<float>(199 / 256.0);
            }
        });
    for (std::thread& thread : threads)
        thread.join();
    CHECK(right == 30);
    CHECK(children().size() <= std::max(2u, std::thread::hardware_concurrency()));
}

TEST_CASE("pictures larger than what is passed on at a time come back as they were", "[io][helper]") {
    const TemporaryFolder folder;
    std::mt19937 random(3);
    std::uniform_real_distribution<float> spread(-2, 5);
    image::Image image;
    image.width = 1700;
    image.height = 1111;
    for (const char* name : {"R", "G", "B", "A", "cloth.R", "depth"}) {
        image::Samples samples(image.pixels());
        for (float& value : samples)
            value = spread(random);
        image.channels.push_back({name, image::make_plane(std::move(samples))});
    }
    for (const char* ending : {".exr", ".tif"}) {
        INFO(ending);
        const auto file = folder / (std::string("large") + ending);
        REQUIRE(io::save(file, image));
        const auto read = io::load(file);
        REQUIRE(read);
        for (const image::Channel& channel : image.channels) {
            const image::Channel* again = read.value().find(channel.name);
            if (ending == std::string(".tif") && !again)
                again = &read.value().channels[static_cast<std::size_t>(&channel - image.channels.data())];
            REQUIRE(again);
            CHECK(*again->plane == *channel.plane);
        }
    }
}

TEST_CASE(
    "what does not come back as it was given was not written: every depth, orders of channels, numbers that are none",
    "[io][helper]") {
    const TemporaryFolder folder;
    std::mt19937 random(9);
    std::uniform_real_distribution<float> spread(-0.2f, 1.3f);
    for (const auto& [ending, depth] :
         std::vector<std::pair<std::string, image::Depth>>{{".png", image::Depth::uint8},
                                                           {".png", image::Depth::uint16},
                                                           {".tif", image::Depth::uint8},
                                                           {".tif", image::Depth::uint16},
                                                           {".tif", image::Depth::float32},
                                                           {".exr", image::Depth::half},
                                                           {".exr", image::Depth::float32}}) {
        image::Image image;
        image.width = 61;
        image.height = 70;
        image.depth = depth;
        image.alpha = image::Alpha::straight;
        for (const char* name : {"R", "G", "B", "A"}) {
            image::Samples samples(image.pixels());
            for (float& value : samples)
                value = spread(random);
            samples[7] = not_a_number;
            samples[8] = infinity;
            samples[9] = -0.0f;
            image.channels.push_back({name, image::make_plane(std::move(samples))});
        }
        if (ending == ".exr") {
            std::swap(image.channels[0], image.channels[2]);
            image.channels.push_back({"cloth.depth", image.channels[1].plane, image::Depth::float32});
        }
        const auto saved = io::save(folder / ("a" + ending), image);
        INFO(ending << " " << static_cast<int>(depth) << " " << (saved ? std::string() : saved.error().text()));
        CHECK(saved);
    }
}

TEST_CASE("who gives up in the middle of a picture leaves no answer behind for the next one", "[io][helper]") {
    const TemporaryFolder folder;
    image::Image image = image::image_of(image::generated(1500, 1400, [](int x, int y) {
        return std::array<double, 3>{x / 1500.0, y / 1400.0, 0.5};
    }));
    image.depth = image::Depth::float32;
    const auto file = folder / "a.exr";
    REQUIRE(io::save(file, image));
    {
        auto source = io::PictureSource::open(file);
        REQUIRE(source);
        CHECK_THROWS_AS(source.value().read([](int, int, const float*) { throw std::bad_alloc(); }), std::bad_alloc);
    }
    for (int i = 0; i < 3; ++i) {
        const auto read = io::load(file);
        INFO((read ? std::string() : read.error().text()));
        REQUIRE(read);
        CHECK((*read.value().find("R")->plane)[1499] == static_cast<float>(1499 / 1500.0));
    }
    wire::Header header = io::PictureSource::open(file).value().header();
    CHECK_THROWS_AS(io::write_picture(folder / "b.exr", {header}, "b.exr", true,
                                      [](std::size_t, int first, int, float*) {
                                          if (first > 0)
                                              throw std::bad_alloc();
                                      }),
                    std::bad_alloc);
    REQUIRE(io::load(file));
    REQUIRE(io::save(folder / "c.exr", small_picture()));
}

TEST_CASE("memory between programs that rests is given back, and can be used again", "[io][helper]") {
    kasuri::wire::Slots mine = kasuri::wire::Slots::made();
    REQUIRE(mine.arrange(std::size_t{8} << 20, 2, true));
    std::fill_n(mine.at(0), 4 << 20, 1.0f);
    const auto held = [&] { // pages that the system keeps for it: st_blocks is of 512 bytes (stat(2))
        struct stat about {};
        ::fstat(mine.descriptor(), &about);
        return about.st_blocks * 512;
    };
    CHECK(held() >= 16 << 20);
    mine.rest();
    CHECK(held() == 0);
    CHECK(mine.mapped() == std::size_t{16} << 20);
    CHECK(mine.at(1)[0] == 0);
    mine.at(1)[0] = 2;
    CHECK(mine.at(1)[0] == 2);
}
