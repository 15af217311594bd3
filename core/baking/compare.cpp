#include "baking/compare.hpp"

#include "builtins/builtin.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "lang/check.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::baking {
namespace {

/// CIEDE2000 between two lists of colours of a space, by the engine.
std::optional<std::vector<float>> differences(const Colours& a, const Colours& b, const std::string& space,
                                              const CancelToken& cancel) {
    lang::CheckOptions with;
    with.print = "delta_e_2000(lab(rgb), lab(other))";
    const std::string text = fmt::format("working {}\nsource other : vec3\n", space);
    const lang::Checked checked = lang::check(text, builtins::vocabulary(), with);
    if (!checked.ok)
        return std::nullopt; // a space whose name a rule cannot write
    engine::CompileOptions options;
    options.print = true;
    const engine::ProgramPtr program = engine::compile(checked.rule, options);
    std::vector<float> made(a[0].size());
    float* const outputs[1] = {made.data()};
    const engine::Source source{static_cast<int>(made.size()),
                                1,
                                {a[0].data(), a[1].data(), a[2].data(), {}},
                                {b[0].data(), b[1].data(), b[2].data()}};
    if (!engine::run(*program, source, {}, std::span<float* const>(outputs), cancel))
        return std::nullopt;
    return made;
}

void summarise(std::vector<float> errors, const image::Picture& samples, double& mean, double& most, double& largest,
               std::array<float, 3>& worst) {
    double sum = 0;
    std::size_t count = 0;
    for (std::size_t i = 0; i < errors.size(); ++i) {
        float& e = errors[i];
        if (!std::isfinite(e)) {
            e = 0;
            continue;
        }
        sum += static_cast<double>(e);
        ++count;
        if (static_cast<double>(e) > largest) {
            largest = static_cast<double>(e);
            const auto in = samples.at(i);
            worst = {in[0], in[1], in[2]};
        }
    }
    mean = count > 0 ? sum / static_cast<double>(count) : 0;
    const auto at = errors.begin() + static_cast<std::ptrdiff_t>(0.999 * static_cast<double>(errors.size() - 1));
    std::nth_element(errors.begin(), at, errors.end());
    most = static_cast<double>(*at);
}

/// Why single colours are not enough for it.
std::optional<Error> refused(const subject::Subject& subject, const engine::Program& program) {
    const char* const needs = program.reads_position() ? "the place in the picture"
        : program.reads_neighbours()                   ? "neighbouring pixels"
                                                       : nullptr;
    if (!needs)
        return std::nullopt;
    return Error{said("depends on {}, so it cannot be compared colour by colour", needs), subject.title(),
                 "Render pictures with both and compare those."};
}

} // namespace

image::Picture samples_in(const Lut& lut) {
    constexpr int spread = 60000, greys = 4000;
    constexpr double step[3] = {0.8191725133961645, 0.6710436067037893, 0.5497004779019703};
    return image::generated(spread + greys, 1, [&](int i, int) {
        std::array<double, 3> at{};
        for (std::size_t c = 0; c < 3; ++c)
            at[c] = value_at(lut, i < spread ? std::fmod(0.5 + step[c] * (i + 1), 1.0) : (i - spread + 0.5) / greys);
        return at;
    });
}

std::optional<Colours> colours_through(const engine::Program& program, const image::Picture& picture,
                                       std::span<const double> values, const CancelToken& cancel,
                                       std::span<const float> sources) {
    Colours out;
    for (auto& plane : out)
        plane.resize(picture.pixels());
    float* const outputs[3] = {out[0].data(), out[1].data(), out[2].data()};
    const engine::Source source{picture.width,
                                picture.height,
                                {engine::view_of(picture.planes[0]),
                                 engine::view_of(picture.planes[1]),
                                 engine::view_of(picture.planes[2]),
                                 {}},
                                subject::constant_planes(sources)};
    if (!engine::run(program, source, values, std::span<float* const>(outputs), cancel))
        return std::nullopt;
    return out;
}

bool sum_up(LutError& error, const image::Picture& samples, const Colours& truth, const Colours& got,
            const std::string* delta_e_in, const CancelToken& cancel) {
    std::vector<float> errors(samples.pixels());
    for (std::size_t i = 0; i < errors.size(); ++i)
        errors[i] = std::max({std::fabs(got[0][i] - truth[0][i]), std::fabs(got[1][i] - truth[1][i]),
                              std::fabs(got[2][i] - truth[2][i])});
    summarise(std::move(errors), samples, error.mean, error.most, error.largest, error.worst);
    if (!delta_e_in)
        return !cancel.cancelled();
    if (auto far = differences(truth, got, *delta_e_in, cancel))
        summarise(std::move(*far), samples, error.delta_e_mean, error.delta_e_most, error.delta_e_largest,
                  error.delta_e_worst);
    return !cancel.cancelled();
}

bool same_number(double a, double b, const Within& within) {
    if (a == b || (std::isnan(a) && std::isnan(b)))
        return true;
    return std::isfinite(a) && std::isfinite(b) &&
        std::fabs(a - b) <= within.absolute + within.relative * std::max(std::fabs(a), std::fabs(b));
}

Result<Comparison> compare(const subject::Subject& first, const subject::Subject& second, double low, double high,
                           const CancelToken& cancel, const Within& within) {
    if (!(low < high) || !std::isfinite(low) || !std::isfinite(high))
        return Error{"the domain is empty", "", "Give the lower end first, such as 0 and 1."};
    Comparison made;
    made.space = first.space();
    // Sources of one name are one picture: that of the first, if it has one.
    subject::Bindings bindings = second.bindings();
    for (const auto& [name, bound] : first.bindings())
        bindings[name] = bound;
    const subject::Subject one = first.with_bindings(bindings), other = second.with_bindings(bindings);
    const engine::ProgramPtr a = one.program(made.space, made.space, subject::source_spaces(one), true),
                             b = other.program(made.space, made.space, subject::source_spaces(other), true);
    if (const auto why = refused(first, *a))
        return *why;
    if (const auto why = refused(second, *b))
        return *why;
    image::Picture samples = samples_in({2, low, high, {}});
    std::optional<Colours> truth, got;
    const auto of_one = subject::source_settings(one), of_other = subject::source_settings(other);
    const std::size_t variations = std::max(of_one.size(), of_other.size());
    for (std::size_t k = 0; k < variations; ++k) {
        auto x = colours_through(*a, samples, first.values(), cancel, of_one[std::min(k, of_one.size() - 1)]),
             y = colours_through(*b, samples, second.values(), cancel, of_other[std::min(k, of_other.size() - 1)]);
        if (!x || !y)
            return Error{"called off", "", ""};
        if (!truth) {
            truth = std::move(x);
            got = std::move(y);
            continue;
        }
        for (std::size_t c = 0; c < 3; ++c) {
            (*truth)[c].insert((*truth)[c].end(), (*x)[c].begin(), (*x)[c].end());
            (*got)[c].insert((*got)[c].end(), (*y)[c].begin(), (*y)[c].end());
        }
    }
    if (variations > 1) { // the same colours again and again
        const image::Picture once = samples;
        const auto pixels = static_cast<int>(once.pixels());
        samples = image::generated(pixels * static_cast<int>(variations), 1, [&](int i, int) {
            const auto at = once.at(static_cast<std::size_t>(i % pixels));
            return std::array{at[0], at[1], at[2]};
        });
    }
    made.varied = subject::unbound(one);
    for (std::string& name : subject::unbound(other))
        if (std::find(made.varied.begin(), made.varied.end(), name) == made.varied.end())
            made.varied.push_back(std::move(name));
    if (!sum_up(made.error, samples, *truth, *got, &made.space, cancel))
        return Error{"called off", "", ""};
    made.samples = samples.pixels();
    const auto finite = [](const Colours& colours, std::size_t i) {
        return std::isfinite(colours[0][i]) && std::isfinite(colours[1][i]) && std::isfinite(colours[2][i]);
    };
    for (std::size_t i = 0; i < made.samples; ++i) {
        made.not_finite += finite(*truth, i) != finite(*got, i) ? 1 : 0;
        bool same = true;
        for (std::size_t c = 0; c < 3; ++c)
            same = same && same_number(static_cast<double>((*truth)[c][i]), static_cast<double>((*got)[c][i]), within);
        made.beyond += same ? 0 : 1;
    }
    return made;
}

} // namespace kasuri::baking
