// EXR is squeezed and unsqueezed by libdeflate (helpers/pictures/deflate.cpp): that it is, and that others read it.
#include "cli/driver.hpp"
#include "io/picture_file.hpp"

#include <cstring>

using namespace kasuri::test;

TEST_CASE("EXR goes through the faster deflate, and FFmpeg's own reader finds the same numbers", "[cli][exr]") {
    const Folder folder;
    REQUIRE(cli(folder, "target hue_sweep --width 256 --out " + folder.file("a.exr")).exit == 0);
    folder.write("half.kasuri", "out.rgb = rgb * vec3(0.5, 1, 2)\n");
    std::filesystem::create_directories(folder.path / "bindings");
    setenv("LD_DEBUG", "bindings", 1); // the dynamic linker says whose function OpenEXR found: ld.so(8)
    setenv("LD_DEBUG_OUTPUT", (folder.path / "bindings" / "of").c_str(), 1);
    const Ran ran =
        cli(folder, "render " + folder.file("half.kasuri") + " " + folder.file("a.exr") + " " + folder.file("b.exr"));
    unsetenv("LD_DEBUG");
    unsetenv("LD_DEBUG_OUTPUT");
    INFO(ran.err);
    REQUIRE(ran.exit == 0);
    int found = 0;
    for (const auto& entry : std::filesystem::directory_iterator(folder.path / "bindings")) {
        std::ifstream in(entry.path());
        for (std::string each; std::getline(in, each);)
            if (each.find("/libOpenEXR-") != std::string::npos &&
                each.find("/kasuri-pictures [0]: normal symbol") != std::string::npos)
                found += each.ends_with("`compress2'") || each.ends_with("`uncompress'") ? 1 : 0;
    }
    CHECK(found >= 2);

    const auto read = kasuri::io::load(folder.path / "b.exr");
    REQUIRE(read);
    const kasuri::image::Image& image = read.value();
    const std::string raw = folder.file("raw");
    REQUIRE(std::system(
                ("ffmpeg -v error -i " + folder.file("b.exr") + " -f rawvideo -pix_fmt gbrpf32le " + raw).c_str()) ==
            0);
    const std::string bytes = folder.read("raw");
    REQUIRE(bytes.size() == image.pixels() * 12);
    const char* const order[] = {"G", "B", "R"};
    for (std::size_t c = 0; c < 3; ++c) {
        const kasuri::image::Channel* const channel = image.find(order[c]);
        REQUIRE(channel);
        CHECK(std::memcmp(kasuri::image::as_floats(channel->plane)->floats().data(),
                          bytes.data() + c * image.pixels() * 4, image.pixels() * 4) == 0);
    }
}
