// OpenCV's nearest equivalents, one thread, packed float pictures. Only where it is installed.
#include "common.hpp"

#include <benchmark/benchmark.h>

#ifdef KASURI_OPENCV
#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>

namespace kasuri::bench {
namespace {

cv::Mat packed() {
    const image::Picture& p = picture();
    cv::Mat made(p.height, p.width, CV_32FC3);
    for (std::size_t i = 0; i < p.pixels(); ++i) {
        const auto c = p.at(i);
        made.ptr<float>()[3 * i] = c[0];
        made.ptr<float>()[3 * i + 1] = c[1];
        made.ptr<float>()[3 * i + 2] = c[2];
    }
    return made;
}

/// (c): to HSV, hue and saturation changed, back.
void hsv(benchmark::State& state) {
    cv::setNumThreads(1);
    const cv::Mat from = packed();
    cv::Mat there, edited, back;
    for (auto _ : state) {
        cv::cvtColor(from, there, cv::COLOR_RGB2HSV);
        cv::multiply(there, cv::Scalar(1, 0.8, 1), edited);
        cv::add(edited, cv::Scalar(20, 0, 0), edited);
        cv::cvtColor(edited, back, cv::COLOR_HSV2RGB);
        benchmark::ClobberMemory();
    }
}

/// (d): linear RGB to L*a*b*, two edits, back. Without the mask, which it has no single call for.
void lab(benchmark::State& state) {
    cv::setNumThreads(1);
    const cv::Mat from = packed();
    cv::Mat there, edited, back;
    for (auto _ : state) {
        cv::cvtColor(from, there, cv::COLOR_LRGB2Lab);
        cv::multiply(there, cv::Scalar(1, 1.2, 1), edited);
        cv::add(edited, cv::Scalar(0, 0, 4), edited);
        cv::cvtColor(edited, back, cv::COLOR_Lab2LRGB);
        benchmark::ClobberMemory();
    }
}

void blur(benchmark::State& state) {
    cv::setNumThreads(1);
    const image::Picture& p = picture();
    const cv::Mat from(p.height, p.width, CV_32FC1, const_cast<float*>(p.planes[2]->data()));
    cv::Mat to;
    for (auto _ : state) {
        cv::GaussianBlur(from, to, {}, static_cast<double>(state.range(0)), 0, cv::BORDER_REPLICATE);
        benchmark::ClobberMemory();
    }
}

} // namespace

void register_opencv() {
    benchmark::RegisterBenchmark("c/opencv", hsv)->Unit(benchmark::kMillisecond)->UseRealTime();
    benchmark::RegisterBenchmark("d/opencv", lab)->Unit(benchmark::kMillisecond)->UseRealTime();
    benchmark::RegisterBenchmark("opencv_blur", blur)->Arg(5)->Arg(20)->Arg(50)->Unit(benchmark::kMillisecond)->UseRealTime();
}

} // namespace kasuri::bench
#else
namespace kasuri::bench {
void register_opencv() {}
} // namespace kasuri::bench
#endif
