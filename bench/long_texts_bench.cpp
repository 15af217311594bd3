// What is done with a text at a keystroke, for texts of 100 to 20 000 statements: the time for each statement says
// whether it stays linear.
#include "common.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "insight/affine.hpp"
#include "insight/algebra.hpp"
#include "lang/assist.hpp"
#include "subject/subject.hpp"

#include <benchmark/benchmark.h>

using namespace kasuri;

namespace {

/// So many statements, each of which reads the one before and a channel: nothing of it can be left out.
std::string chain(std::int64_t statements) {
    std::string text = "let a0 = r\n";
    for (std::int64_t i = 1; i < statements - 1; ++i)
        text += "let a" + std::to_string(i) + " = a" + std::to_string(i - 1) + " * 0.999 + g * 0.0001\n";
    return text + "out.r = a" + std::to_string(statements - 2) + "\n";
}

/// The time a statement took, beside the time of all of it.
void each(benchmark::State& state) {
    state.counters["us_per_statement"] =
        benchmark::Counter(static_cast<double>(state.range(0)) * 1e-6,
                           benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}

void checked(benchmark::State& state) {
    const std::string text = chain(state.range(0));
    for (auto _ : state)
        benchmark::DoNotOptimize(lang::check(text, proof::vocabulary()));
    each(state);
}

void compiled(benchmark::State& state) {
    const lang::Rule rule = bench::rule_of(chain(state.range(0)));
    for (auto _ : state)
        benchmark::DoNotOptimize(engine::compile(rule));
    each(state);
}

void traced(benchmark::State& state) {
    const lang::Rule rule = bench::rule_of(chain(state.range(0)));
    engine::ReferencePixel pixel;
    pixel.rgba = {0.4, 0.3, 0.2, 1};
    for (auto _ : state)
        benchmark::DoNotOptimize(engine::reference_trace(rule, {}, pixel));
    each(state);
}

void completed(benchmark::State& state) {
    const std::string text = chain(state.range(0)) + "out.g = sa";
    for (auto _ : state)
        benchmark::DoNotOptimize(lang::completions(text, text.size(), proof::vocabulary()));
    each(state);
}

void matrix(benchmark::State& state) {
    const lang::Rule rule = bench::rule_of(chain(state.range(0)));
    for (auto _ : state)
        benchmark::DoNotOptimize(insight::affine(rule, {}));
    each(state);
}

void algebra(benchmark::State& state) {
    const subject::Subject subject(bench::rule_of(chain(state.range(0))));
    for (auto _ : state)
        benchmark::DoNotOptimize(insight::shown_matrix(subject));
    each(state);
}

void separable(benchmark::State& state) {
    const subject::Subject subject(bench::rule_of(chain(state.range(0))));
    for (auto _ : state)
        benchmark::DoNotOptimize(insight::separable(subject));
    each(state);
}

void previewed(benchmark::State& state) {
    const engine::ProgramPtr program = engine::compile(bench::rule_of(chain(state.range(0))));
    const image::Picture small = bench::picture_of(400, 225); // a cell
    for (auto _ : state)
        benchmark::DoNotOptimize(engine::evaluate(*program, small, {}));
    each(state);
}

const int registered = [] {
    for (const auto& [name, function] : std::initializer_list<std::pair<const char*, void (*)(benchmark::State&)>>{
             {"long/check", checked},
             {"long/compile", compiled},
             {"long/values of a pixel", traced},
             {"long/completion", completed},
             {"long/matrix", matrix},
             {"long/algebra", algebra},
             {"long/separable", separable},
             {"long/preview of 400x225", previewed}})
        benchmark::RegisterBenchmark(name, function)
            ->Arg(100)
            ->Arg(1000)
            ->Arg(5000)
            ->Arg(20000)
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
    return 0;
}();

} // namespace
