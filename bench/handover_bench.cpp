// Handing over: many frames through a look against reading and writing them alone; a table of 65 points; a library of
// 1000 filters.
#include "baking/bake.hpp"
#include "base/file.hpp"
#include "document/library.hpp"
#include "handover/batch.hpp"
#include "io/picture_file.hpp"
#include "look/make.hpp"
#include "look_of_five.hpp"

#include <benchmark/benchmark.h>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <fmt/format.h>

using namespace kasuri;

namespace {

namespace fs = std::filesystem;

/// A folder that is gone at the end.
struct Folder {
    fs::path path = fs::temp_directory_path() / "kasuri-handover-bench";
    Folder() { fs::create_directories(path / "in"); }
    ~Folder() {
        std::error_code ignored;
        fs::remove_all(path, ignored);
    }
};

/// Half floats of 1920 x 1080 with the detail of a photograph: shapes and grain.
void write_frames(const Folder& folder, int count) {
    const image::Picture picture = image::generated(1920, 1080, [](int x, int y) {
        const double grain = 0.02 * std::fmod(std::sin(x * 12.9898 + y * 78.233) * 43758.5453, 1.0);
        return std::array<double, 3>{0.5 + 0.4 * std::sin(x * 0.01) + grain, 0.4 + 0.3 * std::cos(y * 0.013) + grain,
                                     0.3 + 0.2 * std::sin((x + y) * 0.007) + grain};
    });
    image::Image image = image::image_of(picture);
    image.depth = image::Depth::half;
    for (int i = 1; i <= count; ++i)
        if (const auto saved = io::save(folder.path / fmt::format("in/f.{:04}.exr", i), image); !saved)
            std::abort();
}

void frames(benchmark::State& state, const subject::Subject& subject) {
    const Folder folder;
    const auto count = static_cast<int>(state.range(0));
    write_frames(folder, count);
    const auto items = handover::batch_items({{(folder.path / "in").string()}, (folder.path / "out/").string()});
    for (auto _ : state) {
        const handover::BatchReport report = handover::render_all(subject, items.value(), {}, {}, {});
        if (report.failed > 0)
            state.SkipWithError("a frame failed");
    }
    state.counters["frames/s"] =
        benchmark::Counter(static_cast<double>(count), benchmark::Counter::kIsIterationInvariantRate);
}

subject::Subject nothing() {
    document::Look look;
    document::LookStep step;
    step.text = "";
    look.steps = {step};
    return look::make(look, {}).value().subject;
}

void read_and_write(benchmark::State& state) { frames(state, nothing()); }
void look_of_five_steps(benchmark::State& state) { frames(state, bench::look_of_five()); }
BENCHMARK(read_and_write)->Arg(20)->Arg(100)->UseRealTime()->Unit(benchmark::kMillisecond);
BENCHMARK(look_of_five_steps)->Arg(20)->Arg(100)->UseRealTime()->Unit(benchmark::kMillisecond);

void bake_look(benchmark::State& state) {
    const subject::Subject subject = bench::look_of_five();
    for (auto _ : state)
        benchmark::DoNotOptimize(
            baking::bake(subject, {static_cast<int>(state.range(0)), 0, 1, false, state.range(1) != 0}));
}
BENCHMARK(bake_look)->Args({33, 0})->Args({65, 0})->Args({65, 1})->UseRealTime()->Unit(benchmark::kMillisecond);

void library_of_1000(benchmark::State& state) {
    const Folder folder;
    for (int i = 0; i < 1000; ++i)
        if (!write_file(
                folder.path / fmt::format("in/dip-{}.kasuri", i),
                fmt::format(
                    "filter \"Dip {}\"\nnote \"Made to be found.\"\ntags \"dye\"\n\nparam k = 0 in 0 .. 1\npreset "
                    "\"Full\" k = 1\nlet c = hsv(rgb)\nc.s *= 1 - k\nout.rgb = rgb(c)\nproof \"p\" : finite\n",
                    i)))
            std::abort();
    for (auto _ : state) {
        std::size_t found = 0;
        for (const fs::path& path : document::library_files(folder.path / "in"))
            found += document::matches(document::library_entry(path), "dip hsv") ? 1 : 0;
        if (found != 1000)
            state.SkipWithError("not all were found");
    }
}
BENCHMARK(library_of_1000)->UseRealTime()->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
