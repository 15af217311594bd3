// Times of the core. Read the ratios to memcpy of the same run: absolute times drift by tens of per cent here.
#include "base/parallel.hpp"
#include "engine/evaluate.hpp"
#include "engine/kernels.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "handover/cube.hpp"
#include "lang/check.hpp"
#include "proof/proof.hpp"
#include "workloads.hpp"

#include <benchmark/benchmark.h>

#include <cstring>
#include <string>

using namespace kasuri;

namespace {

constexpr int width = 1920, height = 1080;

const image::Picture& picture() {
    static const image::Picture made = [] {
        image::Picture p = image::generated(width, height, [](int x, int y) {
            return std::array<double, 3>{x / 1920.0, y / 1080.0, ((x * 7 + y * 13) % 256) / 255.0};
        });
        p.planes[3] = image::make_plane(std::vector<float>(p.pixels(), 1.0f));
        return p;
    }();
    return made;
}

lang::Rule rule_of(const std::string& text) { return lang::check(text, proof::vocabulary()).rule; }

/// `text` with every whole word `from` (not a component, not a function) written as `to`.
std::string renamed(const std::string& text, const std::string& from, const std::string& to) {
    const auto part_of_word = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; };
    std::string result;
    for (std::size_t k = 0; k < text.size(); ++k) {
        const std::size_t after = k + from.size();
        const bool before_ok = k == 0 || !(part_of_word(text[k - 1]) || text[k - 1] == '.');
        const bool after_ok = after >= text.size() || !(part_of_word(text[after]) || text[after] == '(');
        if (before_ok && after_ok && text.compare(k, from.size(), from) == 0) {
            result += to;
            k = after - 1;
        } else {
            result += text[k];
        }
    }
    return result;
}

/// (e): b, c and d one after the other, each reading what the one before it wrote.
std::string all_in_one() {
    std::string text;
    for (std::size_t i = 1; i < 4; ++i) {
        std::string part = bench::workloads[i].rule;
        for (const char* name : {"d", "m", "c", "x", "f", "l", "a1", "b1", "fy", "k", "q", "back"})
            part = renamed(part, name, std::string(name) + "_" + std::to_string(i));
        if (i > 1)
            for (const char* input : {"rgb", "r", "g", "b"})
                part = renamed(part, input, std::string("out.") + input);
        text += part;
    }
    return text;
}

void copy(benchmark::State& state) {
    const std::size_t count = picture().pixels();
    std::vector<float> to(4 * count); // the whole picture, so that it does not stay in the cache
    for (auto _ : state) {
        for (std::size_t c = 0; c < 4; ++c)
            std::memcpy(to.data() + c * count, picture().planes[c]->data(), count * sizeof(float));
        benchmark::DoNotOptimize(to.data());
        benchmark::ClobberMemory();
    }
}

void evaluate(benchmark::State& state, const std::string& text, int threads) {
    const lang::Rule rule = rule_of(text);
    const engine::ProgramPtr program = engine::compile(rule);
    std::array<std::vector<float>, 4> out;
    std::array<float*, 4> outputs{};
    engine::Source source{width, height, {}};
    for (std::size_t c = 0; c < 4; ++c) {
        out[c].resize(picture().pixels());
        outputs[c] = out[c].data();
        source.planes[c] = picture().planes[c]->data();
    }
    limit_threads(threads);
    for (auto _ : state)
        engine::run(*program, source, {}, std::span<float* const>(outputs));
    limit_threads(0);
    state.counters["operations"] = static_cast<double>(program->instructions().size());
    state.counters["registers"] = program->registers();
    state.SetLabel(engine::instruction_set());
}

void tree_walker(benchmark::State& state, const std::string& text) {
    const lang::Rule rule = rule_of(text);
    constexpr std::size_t pixels = 20000; // slow: a share of the picture
    for (auto _ : state)
        for (std::size_t i = 0; i < pixels; ++i) {
            const auto c = picture().at(i * 100);
            engine::ReferencePixel pixel;
            for (std::size_t k = 0; k < 4; ++k)
                pixel.rgba[k] = static_cast<double>(c[k]);
            benchmark::DoNotOptimize(engine::reference(rule, {}, pixel));
        }
    state.counters["x_of_picture"] = static_cast<double>(picture().pixels()) / pixels;
}

void text_to_runnable(benchmark::State& state, const std::string& text) {
    proof::vocabulary();
    for (auto _ : state)
        benchmark::DoNotOptimize(engine::compile(lang::check(text, proof::vocabulary()).rule));
}

void bake(benchmark::State& state) {
    const lang::Rule rule = rule_of(bench::workloads[2].rule);
    for (auto _ : state)
        benchmark::DoNotOptimize(handover::bake(rule, {}, {static_cast<int>(state.range(0)), 0, 1}));
}

} // namespace

int main(int argc, char** argv) {
    benchmark::RegisterBenchmark("memcpy", copy)->Unit(benchmark::kMillisecond);
    std::vector<std::pair<std::string, std::string>> rules;
    for (const bench::Workload& workload : bench::workloads)
        rules.emplace_back(workload.name, workload.rule);
    rules.emplace_back("e_all_in_one", all_in_one());
    for (const auto& [name, text] : rules) {
        const lang::Checked checked = lang::check(text, proof::vocabulary());
        for (const lang::Diagnostic& d : checked.diagnostics)
            if (d.severity == lang::Severity::error) {
                std::fprintf(stderr, "%s\n", lang::rendered(d, text, name).c_str());
                return 1;
            }
        benchmark::RegisterBenchmark((name + "/one_thread").c_str(), [text = text](benchmark::State& s) { evaluate(s, text, 1); })->Unit(benchmark::kMillisecond)->UseRealTime();
        benchmark::RegisterBenchmark((name + "/all_threads").c_str(), [text = text](benchmark::State& s) { evaluate(s, text, 0); })->Unit(benchmark::kMillisecond)->UseRealTime();
        benchmark::RegisterBenchmark((name + "/tree_walker").c_str(), [text = text](benchmark::State& s) { tree_walker(s, text); })->Unit(benchmark::kMillisecond);
        benchmark::RegisterBenchmark((name + "/text_to_runnable").c_str(), [text = text](benchmark::State& s) { text_to_runnable(s, text); })->Unit(benchmark::kMicrosecond);
    }
    benchmark::RegisterBenchmark("bake", bake)->Arg(17)->Arg(33)->Arg(65)->Unit(benchmark::kMillisecond)->UseRealTime();
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
