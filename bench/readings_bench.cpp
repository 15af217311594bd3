// Readings of a picture of 1920 x 1080: every pixel is counted. To be compared with one copy of the picture in the same
// run.
#include "readings/reading.hpp"
#include "targets/demo.hpp"

#include <benchmark/benchmark.h>

using namespace kasuri;

namespace {

const image::Picture& cloths() {
    static const image::Picture picture = *image::picture_of(targets::demo_pictures().front().make(), "");
    return picture;
}

void measured(benchmark::State& state, const char* name) {
    const readings::Reading& reading = *readings::find(name);
    readings::Views views;
    readings::Order subject;
    subject.pictures = {&cloths()};
    subject.rule = [](const image::Picture& picture) { return std::optional(picture); };
    subject.settings = completed(reading.settings, {});
    subject.views = &views;
    for (auto _ : state)
        benchmark::DoNotOptimize(reading.measure(subject));
}

} // namespace

#define KASURI_READING(NAME)                                                                                           \
    BENCHMARK_CAPTURE(measured, NAME, #NAME)->Name("reading " #NAME)->Unit(benchmark::kMillisecond)->UseRealTime()
KASURI_READING(waveform);
KASURI_READING(parade);
KASURI_READING(histogram);
KASURI_READING(vectorscope);
KASURI_READING(ab);
KASURI_READING(chromaticity);
KASURI_READING(cut);
KASURI_READING(response);
KASURI_READING(hue_map);
KASURI_READING(solid);
KASURI_READING(cloud);
