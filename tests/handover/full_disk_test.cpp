// A disk that is full, stood in for by a limit on the size of files: writes fail half-way, also for root.
#include "base/file.hpp"
#include "document/filter_file.hpp"
#include "handover/cube.hpp"
#include "io/picture_file.hpp"
#include "support/support.hpp"

#include <csignal>
#include <sys/resource.h>

using namespace kasuri;
using namespace kasuri::test;

namespace {

/// While it lives, no file can grow beyond `bytes`: not one of this process, and not one of those that write for it.
class FullDisk {
public:
    explicit FullDisk(rlim_t bytes) {
        handler_ = std::signal(SIGXFSZ, SIG_IGN);
        ::getrlimit(RLIMIT_FSIZE, &before_);
        limit({bytes, before_.rlim_max});
    }
    ~FullDisk() {
        limit(before_);
        std::signal(SIGXFSZ, handler_);
    }

private:
    static void limit(const rlimit& size) {
        ::setrlimit(RLIMIT_FSIZE, &size);
        for (const int child : children())
            ::prlimit(child, RLIMIT_FSIZE, &size, nullptr);
    }
    rlimit before_{};
    void (*handler_)(int) = nullptr;
};

image::Image noisy_picture() {
    // Noise does not compress: the file is larger than the limit.
    std::mt19937 random(5);
    std::uniform_real_distribution<double> spread(0, 1);
    image::Image image = image::image_of(image::generated(200, 200, [&](int, int) {
        return std::array<double, 3>{spread(random), spread(random), spread(random)};
    }));
    image.depth = image::Depth::float32;
    return image;
}

std::ptrdiff_t files_in(const TemporaryFolder& folder) {
    return std::distance(std::filesystem::directory_iterator(folder.path), std::filesystem::directory_iterator());
}

} // namespace

TEST_CASE("a full disk: a filter that cannot be saved whole leaves the old one", "[full]") {
    TemporaryFolder folder;
    const auto path = folder / "a.kasuri";
    REQUIRE(document::save_filter(path, "out.g = b\n"));
    {
        const FullDisk full(1000);
        const Status saved = document::save_filter(path, std::string(100000, ' '));
        REQUIRE_FALSE(saved);
        CHECK(saved.error().what.find("cannot write all of the file") != std::string::npos);
        CHECK_FALSE(saved.error().remedy.empty());
    }
    CHECK(content_of(path) == "out.g = b\n");
    CHECK(files_in(folder) == 1);
}

TEST_CASE("a full disk: a LUT that cannot be written whole leaves the old one", "[full]") {
    TemporaryFolder folder;
    const auto path = folder / "a.cube";
    write(path, "old");
    const lang::Rule rule = good_rule("out.g = b");
    const auto baked = baking::bake(rule, {17, 0, 1});
    {
        const FullDisk full(1000);
        CHECK_FALSE(handover::write_lut(path, rule, baked.value()));
    }
    CHECK(content_of(path) == "old");
    CHECK(files_in(folder) == 1);
}

TEST_CASE("a full disk: a picture that cannot be written whole leaves the old one", "[full]") {
    const image::Image image = noisy_picture();
    for (const char* name : {"a.png", "a.tif", "a.exr"}) {
        INFO(name);
        TemporaryFolder folder;
        write(folder / name, "old");
        {
            const FullDisk full(20000);
            const auto saved = io::save(folder / name, image);
            REQUIRE_FALSE(saved);
            CHECK_FALSE(saved.error().what.empty());
        }
        CHECK(content_of(folder / name) == "old");
        CHECK(files_in(folder) == 1);
        REQUIRE(io::save(folder / name, image)); // and with room it goes
    }
}

TEST_CASE("a place where nobody may write is an error for everybody", "[full]") {
    CHECK_FALSE(write_file("/proc/kasuri-test.kasuri", "out.g = b"));
    CHECK_FALSE(io::save("/proc/kasuri-test.png", noisy_picture()));
    CHECK_FALSE(io::save("/proc/kasuri-test.exr", noisy_picture()));
}
