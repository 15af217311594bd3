// What is found out about a rule while it is written: the matrix it is, the trace of a pixel, completion, weights from wishes.
#include "document/mix_place.hpp"
#include "engine/reference.hpp"
#include "insight/affine.hpp"
#include "insight/solve.hpp"
#include "lang/assist.hpp"
#include "lang/check.hpp"
#include "proof/proof.hpp"

#include <benchmark/benchmark.h>
#include <fstream>
#include <random>
#include <sstream>

using namespace kasuri;

namespace {

std::string filter(const char* name) {
    std::ifstream file(std::string(KASURI_SOURCE_DIR "/data/filters/") + name + ".kasuri");
    std::stringstream text;
    text << file.rdbuf();
    return text.str();
}

const char* const dyes = "param meet = 0.5 in 0 .. 1\nparam warm = 0.1 in -1 .. 1\nlet shared = 0.5 * g + 0.5 * b\nout.g = mix(g, shared, meet)\nout.b = mix(b, shared, meet)\n"
                         "out.rgb = mat3(1, 0.2, 0,  0, 1, 0.1,  0.1, 0, 1) * out.rgb + vec3(0.01, 0, 0)\nout.r += warm * (luminance(rgb) - r)\n";

lang::Rule rule_of(const std::string& text) { return lang::check(text, proof::vocabulary()).rule; }

void matrix_recognised(benchmark::State& state) {
    const lang::Rule rule = rule_of(dyes);
    const std::vector<double> values = {0.5, 0.1};
    for (auto _ : state)
        benchmark::DoNotOptimize(insight::affine(rule, values));
}

void pixel_traced(benchmark::State& state) {
    const lang::Rule rule = rule_of(filter("indigo-over-madder"));
    const std::vector<double> values = {0.5, 0.2};
    engine::ReferencePixel pixel;
    pixel.rgba = {0.4, 0.3, 0.2, 1};
    for (auto _ : state)
        benchmark::DoNotOptimize(engine::reference_trace(rule, values, pixel));
}

void word_completed(benchmark::State& state) {
    const std::string text = filter("indigo-over-madder") + "out.r = sa";
    for (auto _ : state)
        benchmark::DoNotOptimize(lang::completions(text, text.size(), proof::vocabulary()));
}

void wishes_solved(benchmark::State& state) {
    std::mt19937 random(1);
    std::uniform_real_distribution<double> number(0, 1);
    std::vector<insight::Wish> wishes(24);
    for (insight::Wish& wish : wishes)
        for (std::size_t c = 0; c < 3; ++c) {
            wish.from[c] = number(random);
            wish.to[c] = number(random);
        }
    for (auto _ : state)
        benchmark::DoNotOptimize(insight::solve(wishes, {false, true, {0.2126, 0.7152, 0.0722}}));
}

} // namespace

BENCHMARK(matrix_recognised)->Name("insight: the matrix that a rule is")->Unit(benchmark::kMicrosecond);
BENCHMARK(pixel_traced)->Name("insight: every part of a rule at a pixel")->Unit(benchmark::kMicrosecond);
BENCHMARK(word_completed)->Name("insight: completion of a word")->Unit(benchmark::kMicrosecond);
BENCHMARK(wishes_solved)->Name("insight: weights from 24 wishes")->Unit(benchmark::kMicrosecond);
