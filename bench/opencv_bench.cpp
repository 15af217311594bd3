// OpenCV's nearest equivalents, one thread, packed float pictures. Only where it is installed.
#include "common.hpp"

#include <benchmark/benchmark.h>

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

/// (d): linear RGB to L*a*b*, two edits, back, laid over the original with a smoothstep of green.
void lab(benchmark::State& state) {
    cv::setNumThreads(1);
    const cv::Mat from = packed();
    cv::Mat there, edited, back, t, bend, rest, laid;
    for (auto _ : state) {
        cv::cvtColor(from, there, cv::COLOR_LRGB2Lab);
        cv::multiply(there, cv::Scalar(1, 1.2, 1), edited);
        cv::add(edited, cv::Scalar(0, 0, 4), edited);
        cv::cvtColor(edited, back, cv::COLOR_Lab2LRGB);
        cv::extractChannel(from, t, 1);
        t.convertTo(t, CV_32F, 2, -0.2); // (g - 0.1) / 0.5
        cv::min(t, 1.0, t);
        cv::max(t, 0.0, t);
        t.convertTo(bend, CV_32F, -2, 3);
        cv::multiply(bend, t, bend);
        cv::multiply(bend, t, t); // t t (3 - 2 t)
        t.convertTo(rest, CV_32F, -1, 1);
        cv::blendLinear(from, back, rest, t, laid);
        benchmark::ClobberMemory();
    }
}

void blur(benchmark::State& state) {
    cv::setNumThreads(1);
    const image::Picture& p = picture();
    const cv::Mat from(p.height, p.width, CV_32FC1, const_cast<float*>(p.planes[2]->floats().data()));
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
    benchmark::RegisterBenchmark("opencv_blur", blur)
        ->Arg(5)
        ->Arg(20)
        ->Arg(50)
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
}

} // namespace kasuri::bench
