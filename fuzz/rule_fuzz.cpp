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

void compare(const lang::Rule& rule, const std::string& text, const float (&in)[4][pixels], const double (&exact)[4][pixels],
             const double (&allowed)[4][pixels], bool rewrite, bool fuse) {
    engine::CompileOptions options;
    options.rewrite = rewrite;
    options.fuse = fuse;
    const engine::ProgramPtr program = engine::compile(rule, options);
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters)
        values.push_back(p.value);
    float out[4][pixels];
    float* const sinks[] = {out[0], out[1], out[2], out[3]};
    engine::run(*program, {static_cast<int>(pixels), 1, {in[0], in[1], in[2], in[3]}, {}}, values, std::span<float* const>(sinks));
    for (std::size_t c = 0; c < 4; ++c)
        for (std::size_t i = 0; i < pixels; ++i)
            // Where the reference itself is beyond floats or no number, nothing is promised to a digit.
            if (std::isfinite(exact[c][i]) && std::fabs(exact[c][i]) < 1e6 && !(std::fabs(static_cast<double>(out[c][i]) - exact[c][i]) <= allowed[c][i])) {
                std::fprintf(stderr, "%s\nchannel %zu of (%.9g %.9g %.9g %.9g): %.9g instead of %.9g (allowed %.3g; rewrite %d fuse %d %s)\n%s", text.c_str(), c,
                             static_cast<double>(in[0][i]), static_cast<double>(in[1][i]), static_cast<double>(in[2][i]), static_cast<double>(in[3][i]),
                             static_cast<double>(out[c][i]), exact[c][i], allowed[c][i], rewrite, fuse, engine::instruction_set(), program->printed().c_str());
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
    const double step = std::nextafter(1.0f, 2.0f) - 1.0;
    std::vector<engine::ReferencePixel> colours(pixels);
    for (std::size_t i = 0; i < pixels; ++i)
        for (std::size_t c = 0; c < 4; ++c) {
            in[c][i] = spread(bytes.more);
            colours[i].rgba[c] = static_cast<double>(in[c][i]);
        }
    std::vector<double> largest;
    const auto right = engine::reference_picture(rule, values, static_cast<int>(pixels), colours, &largest);
    double most[4][pixels] = {};
    // Where a rule magnifies what comes in, as much as it magnifies the last bits, each way.
    for (const double way : {1.0, -1.0})
        for (unsigned signs = 0; signs < 4; ++signs) {
            std::vector<engine::ReferencePixel> near = colours;
            for (engine::ReferencePixel& pixel : near)
                for (std::size_t c = 0; c < 4; ++c)
                    pixel.rgba[c] *= 1 + way * 4 * step * ((signs >> (c % 2)) & 1 ? 1 : -1);
            std::vector<double> shaken = values;
            for (double& value : shaken)
                value *= 1 + way * 2 * step;
            const auto other = engine::reference_picture(rule, shaken, static_cast<int>(pixels), near);
            for (std::size_t i = 0; i < pixels; ++i)
                for (std::size_t c = 0; c < 4; ++c)
                    most[c][i] = std::max(most[c][i], std::fabs(other[i][c] - right[i][c]));
        }
    for (std::size_t i = 0; i < pixels; ++i)
        for (std::size_t c = 0; c < 4; ++c) {
            exact[c][i] = right[i][c];
            allowed[c][i] = 5e-6 * std::max(1.0, largest[i] / 4) + 8 * most[c][i];
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
