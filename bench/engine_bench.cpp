// Times of the core. Read the ratios to memcpy and to the hand-written code of the same run (bench/ratios.py prints
// them): absolute times drift by tens of per cent here.
#include "baking/bake.hpp"
#include "base/parallel.hpp"
#include "common.hpp"
#include "engine/evaluate.hpp"
#include "engine/kernels.hpp"
#include "engine/lower.hpp"
#include "engine/neighbourhood.hpp"
#include "engine/on_demand.hpp"
#include "engine/reference.hpp"
#include "handwritten.hpp"
#include "look_of_five.hpp"

#include <benchmark/benchmark.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <thread>

using namespace kasuri;

namespace kasuri::bench {
void register_ocio();
void register_opencv();
} // namespace kasuri::bench

namespace {

void copy(benchmark::State& state) {
    const std::size_t count = bench::picture().pixels();
    std::vector<float> to(4 * count); // the whole picture, so that it does not stay in the cache
    for (auto _ : state) {
        for (std::size_t c = 0; c < 4; ++c)
            std::memcpy(to.data() + c * count, bench::picture().planes[c]->floats().data(), count * sizeof(float));
        benchmark::DoNotOptimize(to.data());
        benchmark::ClobberMemory();
    }
}

/// What the window does: alpha that is left alone is not copied.
struct Run {
    engine::ProgramPtr program;
    std::array<std::vector<float>, 4> out;
    std::array<float*, 4> outputs{};
    engine::Source source;

    std::vector<double> values;

    Run(const std::string& text, const image::Picture& picture)
        : Run(engine::compile(bench::rule_of(text)), {}, picture) {}
    /// A whole look.
    Run(const subject::Subject& subject, const image::Picture& picture)
        : Run(subject.program("rec709-linear", "rec709-linear", {}), subject.values(), picture) {}
    Run(engine::ProgramPtr made, std::vector<double> at, const image::Picture& picture)
        : program(std::move(made)), source{picture.width, picture.height, {}, {}}, values(std::move(at)) {
        for (std::size_t c = 0; c < 4; ++c) {
            source.planes[c] = picture.planes[c]->floats().data();
            if (program->passes_through(c))
                continue;
            out[c].resize(picture.pixels());
            outputs[c] = out[c].data();
        }
    }
    void go() { engine::run(*program, source, values, std::span<float* const>(outputs)); }
};

/// What is evaluated: a rule's text, or a look.
template <class What>
void evaluate(benchmark::State& state, const What& what, int threads,
              const image::Picture& picture = bench::picture()) {
    Run run(what, picture);
    limit_threads(threads);
    for (auto _ : state)
        run.go();
    limit_threads(0);
    state.counters["operations"] = static_cast<double>(run.program->operations());
    state.counters["registers"] = run.program->registers();
    state.SetLabel(engine::instruction_set());
}

bench::HandWritten by_hand_of(char workload) {
    return workload < 'f' ? bench::handwritten(workload) : bench::handwritten_second(workload);
}

void by_hand(benchmark::State& state, char workload) {
    const image::Picture& p = bench::picture_of(workload);
    std::array<std::vector<float>, 3> out;
    for (auto& plane : out)
        plane.resize(p.pixels());
    const bench::HandWritten work = by_hand_of(workload);
    for (auto _ : state) {
        work({p.planes[0]->floats().data(), p.planes[1]->floats().data(), p.planes[2]->floats().data()},
             {out[0].data(), out[1].data(), out[2].data()}, p.pixels());
        benchmark::ClobberMemory();
    }
}

/// The two must compute the same, or the ratio says nothing.
template <class What>
bool same_results(char workload, const What& what) {
    const image::Picture& p = bench::picture_of(workload);
    Run run(what, p);
    run.go();
    std::array<std::vector<float>, 3> out;
    for (auto& plane : out)
        plane.resize(p.pixels());
    by_hand_of(workload)({p.planes[0]->floats().data(), p.planes[1]->floats().data(), p.planes[2]->floats().data()},
                         {out[0].data(), out[1].data(), out[2].data()}, p.pixels());
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < p.pixels(); ++i)
            most = std::max(most, static_cast<double>(std::fabs(out[c][i] - run.out[c][i])));
    std::fprintf(stderr, "workload %c: largest difference from the hand-written code %.2g\n", workload, most);
    return most < 2e-4; // hues near grey, lightness near black: rounding is magnified there, in both
}

/// The largest error of the engine against the double reference, over a share of the picture's pixels.
void report_error(char workload) {
    const lang::Rule rule = bench::rule_of(bench::workload(workload));
    const image::Picture& picture = bench::picture_of(workload);
    Run run(bench::workload(workload), picture);
    run.go();
    double most = 0;
    for (std::size_t i = 0; i < picture.pixels(); i += 101) {
        const auto c = picture.at(i);
        engine::ReferencePixel pixel;
        for (std::size_t k = 0; k < 4; ++k)
            pixel.rgba[k] = static_cast<double>(c[k]);
        const auto exact = engine::reference(rule, {}, pixel);
        for (std::size_t k = 0; k < 3; ++k)
            most = std::max(most, std::fabs(static_cast<double>(run.out[k][i]) - exact[k]));
    }
    std::fprintf(stderr, "workload %c: largest error against the double reference %.2g\n", workload, most);
}

void tree_walker(benchmark::State& state, const std::string& text) {
    const lang::Rule rule = bench::rule_of(text);
    constexpr std::size_t pixels = 20000; // slow: a share of the picture
    for (auto _ : state)
        for (std::size_t i = 0; i < pixels; ++i) {
            const auto c = bench::picture().at(i * 100);
            engine::ReferencePixel pixel;
            for (std::size_t k = 0; k < 4; ++k)
                pixel.rgba[k] = static_cast<double>(c[k]);
            benchmark::DoNotOptimize(engine::reference(rule, {}, pixel));
        }
    state.counters["x_of_picture"] = static_cast<double>(bench::picture().pixels()) / pixels;
}

void text_to_runnable(benchmark::State& state, const std::string& text) {
    proof::vocabulary();
    for (auto _ : state)
        benchmark::DoNotOptimize(engine::compile(lang::check(text, proof::vocabulary()).rule));
}

void bake(benchmark::State& state) {
    const lang::Rule rule = bench::rule_of(bench::workloads[2].rule);
    for (auto _ : state)
        benchmark::DoNotOptimize(baking::bake(rule, {static_cast<int>(state.range(0)), 0, 1}));
}

/// A pixel of a picture that is made on demand, as a readout asks for it.
void on_demand(benchmark::State& state) {
    const auto picture = std::make_shared<const image::Picture>(bench::picture());
    const image::Picture made = engine::on_demand(engine::compile(bench::rule_of(bench::workloads[3].rule)), picture,
                                                  {}, std::make_shared<const engine::BoundSources>());
    int at = 0;
    for (auto _ : state) {
        at = (at + 997) % picture->width;
        benchmark::DoNotOptimize(made.at(at, at / 2));
    }
}

void blur(benchmark::State& state) {
    const image::Picture& p = bench::picture();
    std::vector<float> out(p.pixels());
    limit_threads(1);
    for (auto _ : state)
        engine::filter_neighbourhood(ir::Neighbour::blur, static_cast<double>(state.range(0)), p.width, p.height,
                                     p.planes[2]->floats().data(), out.data(), {});
    limit_threads(0);
}

/// From calling work off until it has stopped, at whatever point of it. All cores; the argument is the picture's
/// height.
void cancel(benchmark::State& state, const std::string& text) {
    const int height = static_cast<int>(state.range(0));
    const image::Picture p = bench::picture_of(height * 16 / 9, height);
    const engine::ProgramPtr program = engine::compile(bench::rule_of(text));
    const image::PlanePool pool; // as the window has one: giving 400 MB back to the system takes 10 ms by itself
    double longest = 0;
    int point = 0, early = 0;
    for (auto _ : state) {
        CancelToken token;
        std::chrono::steady_clock::time_point called;
        std::atomic<bool> running{false};
        std::thread caller([&] {
            while (!running)
                std::this_thread::yield();
            std::this_thread::sleep_for(std::chrono::milliseconds(3 + 7 * (point++ % 5)));
            called = std::chrono::steady_clock::now();
            token.cancel();
        });
        running = true;
        const auto result = engine::evaluate(*program, p, {}, token, nullptr, &pool);
        const auto ended = std::chrono::steady_clock::now();
        caller.join();
        const double seconds = std::max(0.0, std::chrono::duration<double>(ended - called).count());
        early += result ? 1 : 0; // it was through before
        longest = std::max(longest, seconds);
        state.SetIterationTime(result ? 0 : seconds);
    }
    state.counters["longest_ms"] = longest * 1e3;
    state.counters["finished_before"] = early;
}

/// Megapixels: 0.25 to 33.
void pixels(benchmark::State& state) {
    const int height = static_cast<int>(state.range(0));
    const image::Picture p = bench::picture_of(height * 16 / 9, height);
    Run run(bench::workload('e'), p);
    limit_threads(1);
    for (auto _ : state)
        run.go();
    limit_threads(0);
    state.counters["Mpixel"] = static_cast<double>(p.pixels()) * 1e-6;
    state.counters["ns_per_pixel"] =
        benchmark::Counter(static_cast<double>(p.pixels()) * 1e-9,
                           benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}

/// A chain of `count` operations that nothing can fuse or fold.
void operations(benchmark::State& state) {
    std::string text = "let x = r\n";
    for (int i = 0; i < state.range(0); ++i)
        text += i % 2 == 0 ? "x = max(x, g * 0." + std::to_string(10 + i % 80) + ")\n" : "x = abs(x - b)\n";
    text += "out.r = x\n";
    Run run(text, bench::picture());
    limit_threads(1);
    for (auto _ : state)
        run.go();
    limit_threads(0);
    const double count = static_cast<double>(run.program->operations());
    state.counters["operations"] = count;
    state.counters["ms_per_operation"] =
        benchmark::Counter(count * 1e-3, benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}

} // namespace

int main(int argc, char** argv) {
    // --set=AVX2: the engine and what is written by hand with that instruction set, instead of the best.
    for (int i = 1; i < argc; ++i)
        if (const std::string argument = argv[i]; argument.rfind("--set=", 0) == 0) {
            const std::vector<std::string> sets = engine::instruction_sets();
            if (std::find(sets.begin(), sets.end(), argument.substr(6)) == sets.end()) {
                for (const std::string& set : sets)
                    std::fprintf(stderr, "there is --set=%s\n", set.c_str());
                return 1;
            }
            engine::choose_instruction_set(argument.substr(6));
            bench::choose_handwritten(argument.substr(6));
            std::rotate(argv + i, argv + i + 1, argv + argc);
            --argc;
            break;
        }
    benchmark::RegisterBenchmark("memcpy", copy)->Unit(benchmark::kMillisecond);
    for (const char which : {'a', 'b', 'c', 'd', 'e'}) {
        const std::string text = bench::workload(which), name(1, which);
        const lang::Checked checked = lang::check(text, proof::vocabulary());
        for (const lang::Diagnostic& d : checked.diagnostics)
            if (d.severity == lang::Severity::error) {
                std::fprintf(stderr, "%s\n", lang::rendered(d, text, name).c_str());
                return 1;
            }
        if (!same_results(which, text))
            return 1;
        report_error(which);
        benchmark::RegisterBenchmark((name + "/engine").c_str(), [text](benchmark::State& s) { evaluate(s, text, 1); })
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
        benchmark::RegisterBenchmark((name + "/by_hand").c_str(), [which](benchmark::State& s) { by_hand(s, which); })
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
        benchmark::RegisterBenchmark((name + "/two_threads").c_str(),
                                     [text](benchmark::State& s) { evaluate(s, text, 2); })
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
        benchmark::RegisterBenchmark((name + "/tree_walker").c_str(), [text](benchmark::State& s) {
            tree_walker(s, text);
        })->Unit(benchmark::kMillisecond);
        benchmark::RegisterBenchmark((name + "/text_to_runnable").c_str(), [text](benchmark::State& s) {
            text_to_runnable(s, text);
        })->Unit(benchmark::kMicrosecond);
    }
    report_error('f');
    benchmark::RegisterBenchmark(
        "f/engine", [](benchmark::State& s) { evaluate(s, bench::workload('f'), 1, bench::encoded_picture()); })
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    benchmark::RegisterBenchmark(
        "f/two_threads", [](benchmark::State& s) { evaluate(s, bench::workload('f'), 2, bench::encoded_picture()); })
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    for (const auto& second : bench::second_workloads) {
        const char which = second.letter;
        if (!same_results(which, bench::workload(which)))
            return 1;
        report_error(which);
        const std::string name(1, which);
        benchmark::RegisterBenchmark(
            (name + "/engine").c_str(),
            [which](benchmark::State& s) { evaluate(s, bench::workload(which), 1, bench::picture_of(which)); })
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
        benchmark::RegisterBenchmark((name + "/by_hand").c_str(), [which](benchmark::State& s) { by_hand(s, which); })
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
    }
    const subject::Subject look = bench::look_of_five();
    if (!same_results('j', look))
        return 1;
    benchmark::RegisterBenchmark("j/engine", [look](benchmark::State& s) { evaluate(s, look, 1); })
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    benchmark::RegisterBenchmark("j/by_hand", [](benchmark::State& s) { by_hand(s, 'j'); })
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    bench::register_ocio();
    bench::register_opencv();
    benchmark::RegisterBenchmark("pixel_on_demand", on_demand);
    benchmark::RegisterBenchmark("blur", blur)
        ->Arg(2)
        ->Arg(5)
        ->Arg(8)
        ->Arg(20)
        ->Arg(50)
        ->Arg(100)
        ->Arg(200)
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    benchmark::RegisterBenchmark("pixels", pixels)
        ->Arg(375)
        ->Arg(750)
        ->Arg(1080)
        ->Arg(2160)
        ->Arg(4320)
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    benchmark::RegisterBenchmark("operations", operations)
        ->Arg(10)
        ->Arg(50)
        ->Arg(200)
        ->Arg(800)
        ->Arg(2000)
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime();
    benchmark::RegisterBenchmark("bake", bake)->Arg(17)->Arg(33)->Arg(65)->Unit(benchmark::kMillisecond)->UseRealTime();
    for (const auto& [name, text] : {std::pair<std::string, std::string>{"e", bench::workload('e')},
                                     {"blur", "out.rgb = blur(rgb, 40)"},
                                     {"dilate", "out.rgb = dilate(rgb, 60)"}})
        benchmark::RegisterBenchmark(("cancel/" + name).c_str(),
                                     [text = text](benchmark::State& s) { cancel(s, text); })
            ->Arg(2160)
            ->Arg(4320)
            ->Unit(benchmark::kMillisecond)
            ->UseManualTime()
            ->Iterations(40);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
