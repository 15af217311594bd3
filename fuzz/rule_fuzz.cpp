// Random well-typed rules: the tiles against the double reference, with and without rewrites and fusing, on every
// instruction set.
#include "engine/evaluate.hpp"
#include "engine/kernels.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "lang/check.hpp"
#include "proof/proof.hpp"
#include "support/random_rule.hpp"

#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <random>

using namespace kasuri;

namespace {

/// The fuzzer's bytes first, then numbers that follow from them.
struct Bytes {
    const std::uint8_t* data;
    std::size_t size;
    std::mt19937 more;
    unsigned operator()() {
        if (size == 0)
            return static_cast<unsigned>(more());
        const unsigned value = *data;
        ++data;
        --size;
        return value * 2654435761u >> 7;
    }
};

constexpr std::size_t pixels = 19;

void compare(const lang::Rule& rule, const std::string& text, const float (&in)[4][pixels],
             const double (&exact)[4][pixels], const double (&allowed)[4][pixels], bool rewrite, bool fuse) {
    engine::CompileOptions options;
    options.rewrite = rewrite;
    options.fuse = fuse;
    const engine::ProgramPtr program = engine::compile(rule, options);
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters)
        values.push_back(p.value);
    float out[4][pixels];
    float* const sinks[] = {out[0], out[1], out[2], out[3]};
    engine::run(*program, {static_cast<int>(pixels), 1, {in[0], in[1], in[2], in[3]}, {}}, values,
                std::span<float* const>(sinks));
    for (std::size_t c = 0; c < 4; ++c)
        for (std::size_t i = 0; i < pixels; ++i)
            // Where the reference itself is beyond floats or no number, nothing is promised to a digit.
            if (std::isfinite(exact[c][i]) && std::fabs(exact[c][i]) < 1e6 &&
                !(std::fabs(static_cast<double>(out[c][i]) - exact[c][i]) <= allowed[c][i])) {
                std::fprintf(stderr,
                             "%s\nchannel %zu of (%.9g %.9g %.9g %.9g): %.9g instead of %.9g (allowed %.3g; rewrite %d "
                             "fuse %d %s)\n%s",
                             text.c_str(), c, static_cast<double>(in[0][i]), static_cast<double>(in[1][i]),
                             static_cast<double>(in[2][i]), static_cast<double>(in[3][i]),
                             static_cast<double>(out[c][i]), exact[c][i], allowed[c][i], rewrite, fuse,
                             engine::instruction_set(), program->printed().c_str());
                std::abort();
            }
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    std::seed_seq seed(data, data + size);
    Bytes bytes{data, size, std::mt19937(seed)};
    const std::string text = test::RandomRule<Bytes>(bytes).text();
    const lang::Checked checked = lang::check(text, proof::vocabulary());
    if (!checked.ok) {
        std::fprintf(stderr, "%s\n%s\n", text.c_str(), lang::rendered(checked.diagnostics[0], text, "rule").c_str());
        std::abort();
    }
    const lang::Rule& rule = checked.rule;
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters)
        values.push_back(p.value);
    std::uniform_real_distribution<float> spread(-1, 4);
    float in[4][pixels];
    double exact[4][pixels], allowed[4][pixels];
    std::vector<engine::ReferencePixel> colours(pixels);
    for (std::size_t i = 0; i < pixels; ++i)
        for (std::size_t c = 0; c < 4; ++c) {
            in[c][i] = spread(bytes.more);
            colours[i].rgba[c] = static_cast<double>(in[c][i]);
        }
    const auto right = engine::reference_picture(rule, values, static_cast<int>(pixels), colours);
    // Inside a model's conversion, which the noise below does not reach, what one channel loses is a share of the
    // brightest.
    const std::string body = text.substr(text.find("\nlet v0"));
    const auto has = [&body](const char* word) { return body.find(word) != std::string::npos; };
    const bool models = has("dyed(") || has("rinsed(") || has("soaked(") || has("delta_e") || has("hold hue");
    for (std::size_t i = 0; i < pixels; ++i)
        for (std::size_t c = 0; c < 4; ++c) {
            exact[c][i] = right[i][c];
            const double brightest =
                std::max({1.0, std::fabs(right[i][0]), std::fabs(right[i][1]), std::fabs(right[i][2])});
            allowed[c][i] = models ? 3e-5 * brightest : 5e-6 * std::max(1.0, std::fabs(right[i][c]) / 4);
        }
    // Where a rule magnifies rounding, as much as that of four ulps at every step.
    for (unsigned run = 0; run < 6; ++run) {
        const engine::ReferenceNoise noise{4 * 1.2e-7, 1e-7, run + 1};
        const auto other = engine::reference_picture(rule, values, static_cast<int>(pixels), colours, &noise);
        for (std::size_t i = 0; i < pixels; ++i)
            for (std::size_t c = 0; c < 4; ++c)
                allowed[c][i] = std::max(allowed[c][i], 4 * std::fabs(other[i][c] - right[i][c]));
    }
    static const std::vector<std::string> sets = engine::instruction_sets();
    for (const std::string& set : sets) {
        engine::choose_instruction_set(set);
        compare(rule, text, in, exact, allowed, true, true);
        compare(rule, text, in, exact, allowed, false, true);
        compare(rule, text, in, exact, allowed, true, false);
    }
    return 0;
}
