// (b) and (f) by OpenColorIO's CPU processor: the same steps, optimised by itself.
#include "common.hpp"

#include <benchmark/benchmark.h>
#include <OpenColorIO/OpenColorIO.h>

#include <cmath>
#include <cstdio>

namespace OCIO = OCIO_NAMESPACE;

namespace kasuri::bench {
namespace {

OCIO::ConstCPUProcessorRcPtr srgb_matrix_srgb() {
    const auto curve = [](OCIO::TransformDirection direction) {
        auto made = OCIO::ExponentWithLinearTransform::Create();
        const double gamma[4] = {2.4, 2.4, 2.4, 1}, offset[4] = {0.055, 0.055, 0.055, 0};
        made->setGamma(gamma);
        made->setOffset(offset);
        made->setDirection(direction);
        return made;
    };
    auto matrix = OCIO::MatrixTransform::Create();
    const double m[16] = {0.7, 0.2, 0.1, 0, 0.1, 0.8, 0.1, 0, 0.05, 0.15, 0.8, 0, 0, 0, 0, 1};
    matrix->setMatrix(m);
    auto group = OCIO::GroupTransform::Create();
    group->appendTransform(curve(OCIO::TRANSFORM_DIR_FORWARD));
    group->appendTransform(matrix);
    group->appendTransform(curve(OCIO::TRANSFORM_DIR_INVERSE));
    return OCIO::Config::CreateRaw()->getProcessor(group)->getDefaultCPUProcessor();
}

OCIO::ConstCPUProcessorRcPtr acescct_to_srgb() {
    auto group = OCIO::GroupTransform::Create();
    for (const char* style :
         {"ACEScct_to_ACES2065-1", "UTILITY - ACES-AP0_to_CIE-XYZ-D65_BFD", "DISPLAY - CIE-XYZ-D65_to_sRGB"}) {
        auto step = OCIO::BuiltinTransform::Create();
        step->setStyle(style);
        group->appendTransform(step);
    }
    return OCIO::Config::CreateRaw()->getProcessor(group)->getDefaultCPUProcessor();
}

/// Packed RGBA floats, which is what it is fastest with; in place, so that it does not pay for a second picture.
void ocio(benchmark::State& state, const OCIO::ConstCPUProcessorRcPtr& processor, const image::Picture& p) {
    std::vector<float> packed(4 * p.pixels());
    for (std::size_t i = 0; i < p.pixels(); ++i) {
        const auto c = p.at(i);
        std::copy(c.begin(), c.end(), packed.begin() + static_cast<std::ptrdiff_t>(4 * i));
    }
    const std::vector<float> original = packed;
    OCIO::PackedImageDesc desc(packed.data(), p.width, p.height, 4);
    OCIO::PackedImageDesc from(const_cast<float*>(original.data()), p.width, p.height, 4);
    for (auto _ : state) {
        processor->apply(from, desc);
        benchmark::ClobberMemory();
    }
}

} // namespace

void register_ocio() {
    benchmark::RegisterBenchmark("b/ocio", ocio, srgb_matrix_srgb(), picture())
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    benchmark::RegisterBenchmark("f/ocio", ocio, acescct_to_srgb(), encoded_picture())
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
}

} // namespace kasuri::bench
