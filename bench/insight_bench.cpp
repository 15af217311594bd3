// What is found out about a rule while it is written: the matrix it is, the trace of a pixel, completion, weights from
// wishes.
#include "document/mix_place.hpp"
#include "engine/evaluate.hpp"
#include "engine/reference.hpp"
#include "insight/affine.hpp"
#include "insight/algebra.hpp"
#include "insight/derivative.hpp"
#include "insight/solve.hpp"
#include "lang/assist.hpp"
#include "lang/check.hpp"
#include "proof/proof.hpp"

#include <benchmark/benchmark.h>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <map>
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

const char* const dyes = "param meet = 0.5 in 0 .. 1\nparam warm = 0.1 in -1 .. 1\nlet shared = 0.5 * g + 0.5 * "
                         "b\nout.g = mix(g, shared, meet)\nout.b = mix(b, shared, meet)\n"
                         "out.rgb = mat3(1, 0.2, 0,  0, 1, 0.1,  0.1, 0, 1) * out.rgb + vec3(0.01, 0, 0)\nout.r += "
                         "warm * (luminance(rgb) - r)\n";

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

/// A rule, its Jacobian (nine outputs) and its noise gain over one picture of 1920 x 1080: what matters is their ratio.
enum class What { rule, jacobian, noise };
void slopes_computed(benchmark::State& state, const char* text, What what) {
    const lang::Rule rule = rule_of(text == nullptr ? filter("held-madder") : std::string(text));
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters)
        values.push_back(p.value == 0 ? 0.5 * p.high : p.value);
    engine::CompileOptions options;
    options.colour_only = true;
    const engine::ProgramPtr program = what == What::rule ? engine::compile(rule, options)
        : what == What::jacobian                          ? insight::derivative(rule)
                                 : insight::measured(rule, *insight::find_measure("noise_gain"));
    constexpr int width = 1920, height = 1080;
    std::mt19937 random(1);
    std::uniform_real_distribution<float> number(0, 1);
    std::array<std::vector<float>, 3> in;
    for (auto& plane : in)
        for (int i = 0; i < width * height; ++i)
            plane.push_back(number(random));
    std::vector<std::vector<float>> out(program->outputs().size(), std::vector<float>(width * height));
    std::vector<float*> sinks;
    for (auto& plane : out)
        sinks.push_back(plane.data());
    engine::Source source{width, height, {}};
    for (std::size_t c = 0; c < 3; ++c)
        source.planes[c] = in[c].data();
    for (auto _ : state)
        engine::run(*program, source, values, std::span<float* const>(sinks));
    state.counters["operations"] = static_cast<double>(program->operations());
    state.counters["outputs"] = static_cast<double>(sinks.size());
}

void proofs_checked(benchmark::State& state, const char* name) {
    const lang::Rule rule = rule_of(filter(name));
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters)
        values.push_back(p.value);
    const std::vector<std::vector<double>> settings = {values};
    const subject::Subject subject(rule);
    for (auto _ : state)
        for (const proof::Function* function : proof::functions()) {
            if (function->compares)
                continue;
            lang::ProofLine line;
            line.function = function->name;
            benchmark::DoNotOptimize(proof::check(subject, line, settings));
        }
}

/// All ready-made proofs of every shipped filter at its defaults, as the window asks for them: the filter and the proof
/// that take longest, each the shortest of all rounds, in milliseconds.
void shipped_proofs(benchmark::State& state) {
    using Clock = std::chrono::steady_clock;
    struct Row {
        std::string name;
        double filter = 1e9;
        std::map<std::string, double> proofs{};
    };
    std::vector<std::pair<subject::Subject, Row>> rows;
    for (const auto& entry : std::filesystem::directory_iterator(KASURI_SOURCE_DIR "/data/filters")) {
        const std::string name = entry.path().stem().string();
        rows.push_back({subject::Subject(rule_of(filter(name.c_str()))), {name}});
    }
    for (auto _ : state)
        for (auto& [subject, row] : rows) {
            const std::vector<std::vector<double>> settings = {subject.values()};
            double sum = 0;
            for (const proof::Function* function : proof::functions()) {
                if (function->compares || function->of_colours)
                    continue;
                lang::ProofLine line;
                line.function = function->name;
                const auto from = Clock::now();
                benchmark::DoNotOptimize(proof::check(subject, line, settings));
                const double took = std::chrono::duration<double, std::milli>(Clock::now() - from).count();
                double& least = row.proofs.try_emplace(line.function, took).first->second;
                least = std::min(least, took);
                sum += took;
            }
            row.filter = std::min(row.filter, sum);
        }
    const Row* slowest = nullptr;
    std::string proof;
    double longest = 0;
    for (const auto& [subject, row] : rows) {
        slowest = !slowest || row.filter > slowest->filter ? &row : slowest;
        for (const auto& [name, took] : row.proofs)
            if (took > longest) {
                longest = took;
                proof = row.name + ": " + name;
            }
    }
    if (!slowest)
        return state.SkipWithError("no filters");
    state.counters["slowest_filter_ms"] = slowest->filter;
    state.counters["slowest_proof_ms"] = longest;
    state.SetLabel(slowest->name + "; " + proof);
}

void greys_shown(benchmark::State& state, const char* name) {
    const subject::Subject rule = rule_of(filter(name));
    for (auto _ : state)
        benchmark::DoNotOptimize(insight::shown_neutral(rule));
}

const char* const hsv_rule = "let c = hsv(rgb)\nc.s *= 0.7\nc.v *= 1 - 0.3 * c.s\nout.rgb = rgb(c)";
const char* const curve_rule = "out.rgb = srgb_decode(srgb_encode(rgb) * 0.9 + 0.02)";

} // namespace

BENCHMARK_CAPTURE(slopes_computed, mix_rule, dyes, What::rule)
    ->Name("slopes: two dyes and a matrix, the rule itself")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, mix_slopes, dyes, What::jacobian)
    ->Name("slopes: two dyes and a matrix, Jacobian")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, hsv_rule, hsv_rule, What::rule)
    ->Name("slopes: hsv, the rule itself")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, hsv_slopes, hsv_rule, What::jacobian)
    ->Name("slopes: hsv, Jacobian")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, hsv_noise, hsv_rule, What::noise)
    ->Name("slopes: hsv, noise gain")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, curve_rule, curve_rule, What::rule)
    ->Name("slopes: curves there and back, the rule itself")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, curve_slopes, curve_rule, What::jacobian)
    ->Name("slopes: curves there and back, Jacobian")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, held_rule, nullptr, What::rule)
    ->Name("slopes: held madder, the rule itself")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(slopes_computed, held_slopes, nullptr, What::jacobian)
    ->Name("slopes: held madder, Jacobian")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(proofs_checked, indigo, "indigo-over-madder")
    ->Name("proofs: all ready-made ones, indigo over madder")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(proofs_checked, held, "held-madder")
    ->Name("proofs: all ready-made ones, held madder")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK_CAPTURE(proofs_checked, lantern, "lantern-glow")
    ->Name("proofs: all ready-made ones, lantern glow")
    ->Unit(benchmark::kMillisecond)
    ->UseRealTime();
BENCHMARK(shipped_proofs)->Name("proofs: all ready-made ones of all shipped filters")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(greys_shown, indigo, "indigo-over-madder")
    ->Name("insight: greys shown by algebra, indigo over madder")
    ->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(greys_shown, held, "held-madder")
    ->Name("insight: greys shown by algebra, held madder")
    ->Unit(benchmark::kMicrosecond);
BENCHMARK(matrix_recognised)->Name("insight: the matrix that a rule is")->Unit(benchmark::kMicrosecond);
BENCHMARK(pixel_traced)->Name("insight: every part of a rule at a pixel")->Unit(benchmark::kMicrosecond);
BENCHMARK(word_completed)->Name("insight: completion of a word")->Unit(benchmark::kMicrosecond);
BENCHMARK(wishes_solved)->Name("insight: weights from 24 wishes")->Unit(benchmark::kMicrosecond);
