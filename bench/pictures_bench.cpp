// Reading and writing pictures by a process of its own (io/helper) against the picture library called here, in one run.
#include "io/helper.hpp"
#include "io/picture_file.hpp"
#include "pictures/oiio.hpp"

#include <benchmark/benchmark.h>
#include <cmath>
#include <cstdlib>
#include <filesystem>

using namespace kasuri;

namespace {

namespace fs = std::filesystem;

struct Kind {
    const char* name;
    image::Depth depth;
};
constexpr Kind kinds[] = {
    {"half.exr", image::Depth::half}, {"float.tif", image::Depth::float32}, {"8.png", image::Depth::uint8}};

image::Image photograph(image::Depth depth, int width, int height) {
    image::Image made = image::image_of(image::generated(width, height, [](int x, int y) {
        const double grain = 0.02 * std::fmod(std::sin(x * 12.9898 + y * 78.233) * 43758.5453, 1.0);
        return std::array<double, 3>{0.5 + 0.4 * std::sin(x * 0.01) + grain, 0.4 + 0.3 * std::cos(y * 0.013) + grain,
                                     0.3 + 0.2 * std::sin((x + y) * 0.007) + grain};
    }));
    made.depth = depth;
    made.space = depth == image::Depth::uint8 ? "srgb" : "rec709-linear";
    return made;
}

fs::path file_of(const Kind& kind) {
    const fs::path file = fs::temp_directory_path() / (std::string("kasuri-pictures-bench-") + kind.name);
    if (!fs::exists(file) && !io::save(file, photograph(kind.depth, 1920, 1080)))
        std::abort();
    return file;
}

void read_here(benchmark::State& state) {
    const fs::path file = file_of(kinds[state.range(0)]);
    for (auto _ : state) {
        const auto input = OIIO::ImageInput::open(file.string());
        const OIIO::ImageSpec spec = input->spec();
        const auto channels = static_cast<std::size_t>(spec.nchannels), wide = static_cast<std::size_t>(spec.width);
        std::vector<image::Samples> planes(channels);
        for (image::Samples& plane : planes)
            plane.resize(wide * static_cast<std::size_t>(spec.height));
        constexpr int rows = 640;
        image::Samples band(rows * wide * channels);
        for (int y = 0; y < spec.height; y += rows) {
            const int end = std::min(y + rows, spec.height);
            if (!input->read_scanlines(0, 0, y, end, 0, 0, spec.nchannels, OIIO::TypeDesc::FLOAT, band.data()))
                std::abort();
            const std::size_t first = static_cast<std::size_t>(y) * wide,
                              count = static_cast<std::size_t>(end - y) * wide;
            for (std::size_t c = 0; c < channels; ++c)
                for (std::size_t p = 0; p < count; ++p)
                    planes[c][first + p] = band[p * channels + c];
        }
        benchmark::DoNotOptimize(planes);
    }
    state.SetLabel(kinds[state.range(0)].name);
}

void read_by_helper(benchmark::State& state) {
    const fs::path file = file_of(kinds[state.range(0)]);
    for (auto _ : state) {
        auto image = io::load(file);
        if (!image)
            std::abort();
        benchmark::DoNotOptimize(image);
    }
    state.SetLabel(kinds[state.range(0)].name);
}

void first_read_with_its_start(benchmark::State& state) {
    const fs::path file = file_of(kinds[2]);
    for (auto _ : state) {
        io::use_helper(io::Task::pictures); // those that wait are ended
        if (!io::load(file))
            std::abort();
    }
}

BENCHMARK(read_here)->DenseRange(0, 2)->UseRealTime()->Unit(benchmark::kMillisecond);
BENCHMARK(read_by_helper)->DenseRange(0, 2)->UseRealTime()->Unit(benchmark::kMillisecond);
BENCHMARK(first_read_with_its_start)->UseRealTime()->Unit(benchmark::kMillisecond);

} // namespace
