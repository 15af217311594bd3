#include "base/parallel.hpp"
#include "builtins/builtin.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "handover/cube.hpp"
#include "lang/check.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::handover {

using Rgb = std::array<double, 3>;

namespace {

using Planes = std::array<std::vector<float>, 3>;

constexpr double shape_per_unit = 16; ///< of a domain: half of the points of 0 .. 16 stand below 1
constexpr std::size_t grain = 2048;

/// Colours strictly inside the cells, spread evenly along the table's axes by a low-discrepancy sequence
/// (additive recurrence with powers of 1 / 1.2207440846, the root of x^4 = x + 1), then greys.
image::Picture error_samples(const Lut& lut) {
    constexpr int spread = 60000, greys = 4000;
    constexpr double step[3] = {0.8191725133961645, 0.6710436067037893, 0.5497004779019703};
    return image::generated(spread + greys, 1, [&](int i, int) {
        Rgb at{};
        for (std::size_t c = 0; c < 3; ++c)
            at[c] = value_at(lut, i < spread ? std::fmod(0.5 + step[c] * (i + 1), 1.0) : (i - spread + 0.5) / greys);
        return at;
    });
}

std::optional<Planes> through(const engine::Program& program, const image::Picture& picture, std::span<const double> values, const CancelToken& cancel) {
    Planes out;
    for (auto& plane : out)
        plane.resize(picture.pixels());
    float* const outputs[3] = {out[0].data(), out[1].data(), out[2].data()};
    const engine::Source source{picture.width, picture.height, {picture.planes[0]->data(), picture.planes[1]->data(), picture.planes[2]->data(), {}}};
    if (!engine::run(program, source, values, std::span<float* const>(outputs), cancel))
        return std::nullopt;
    return out;
}

/// CIEDE2000 between two lists of colours of a space, by the engine.
std::optional<std::vector<float>> differences(const Planes& a, const Planes& b, const std::string& space, const CancelToken& cancel) {
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
    const engine::Source source{static_cast<int>(made.size()), 1, {a[0].data(), a[1].data(), a[2].data(), {}}, {b[0].data(), b[1].data(), b[2].data()}};
    if (!engine::run(*program, source, {}, std::span<float* const>(outputs), cancel))
        return std::nullopt;
    return made;
}

void summarise(std::vector<float> errors, const image::Picture& samples, double& mean, double& most, double& largest, std::array<float, 3>& worst) {
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

template <class Read>
bool measure(LutError& error, const image::Picture& samples, const Planes& truth, const std::string* delta_e_in, Read read, const CancelToken& cancel) {
    const std::size_t count = samples.pixels();
    Planes got;
    for (auto& plane : got)
        plane.resize(count);
    std::vector<float> errors(count);
    const bool whole = parallel_ranges(count, grain, cancel, [&](std::size_t first, std::size_t last) {
        for (std::size_t i = first; i < last; ++i) {
            const auto in = samples.at(i);
            const Rgb made = read(Rgb{static_cast<double>(in[0]), static_cast<double>(in[1]), static_cast<double>(in[2])});
            double difference = 0;
            for (std::size_t c = 0; c < 3; ++c) {
                got[c][i] = static_cast<float>(made[c]);
                difference = std::max(difference, std::fabs(made[c] - static_cast<double>(truth[c][i])));
            }
            errors[i] = static_cast<float>(difference);
        }
    });
    if (!whole)
        return false;
    summarise(std::move(errors), samples, error.mean, error.most, error.largest, error.worst);
    if (!delta_e_in)
        return true;
    auto far = differences(truth, got, *delta_e_in, cancel);
    if (far)
        summarise(std::move(*far), samples, error.delta_e_mean, error.delta_e_most, error.delta_e_largest, error.delta_e_worst);
    return !cancel.cancelled();
}

} // namespace

Result<Baked> bake(const Subject& subject, const BakeOptions& options, const CancelToken& cancel) {
    if (std::find(std::begin(lut_sizes), std::end(lut_sizes), options.size) == std::end(lut_sizes))
        return Error{fmt::format("a table of {} points a side is not offered", options.size), "", fmt::format("Choose one of {}.", fmt::join(lut_sizes, ", "))};
    if (!(options.low < options.high) || !std::isfinite(options.low) || !std::isfinite(options.high))
        return Error{"the domain is empty", "", "Give the lower end first, such as 0 and 1."};
    const std::string in = options.in_space.empty() ? subject.space : options.in_space, out = options.out_space.empty() ? subject.space : options.out_space;
    const engine::ProgramPtr program = compiled(subject, in, out, true);
    const char* const what = subject.is_look ? "look" : "rule";
    if (program->reads_position())
        return Error{fmt::format("the {} depends on the place in the picture (pos, pixel, aspect or extent), which a LUT cannot hold", what), subject.title,
                     "Render pictures instead, or take the place out of it."};
    if (program->reads_neighbours())
        return Error{fmt::format("the {} looks at neighbouring pixels (blur, sharpen, dilate or erode), which a LUT cannot hold", what), subject.title,
                     "Render pictures instead, or take the neighbours out of it."};
    if (program->reads_sources())
        return Error{fmt::format("the {} reads further pictures, which a LUT cannot hold", what), subject.title, "Render pictures instead."};
    const std::vector<double> values = subject.values();
    Baked baked;
    baked.in_space = in;
    baked.out_space = out;
    baked.reads_alpha = program->reads(ir::Input::a);
    baked.lut = {options.size, options.low, options.high, {}, options.shaped ? shape_per_unit * (options.high - options.low) : 0};
    std::vector<double> levels;
    for (int i = 0; i < options.size; ++i)
        levels.push_back(value_at(baked.lut, static_cast<double>(i) / (options.size - 1)));
    levels.back() = options.high; // exactly, whatever rounding made of it
    const auto count = static_cast<std::size_t>(options.size);
    const image::Picture points = image::generated(options.size * options.size, options.size, [&](int x, int b) {
        return Rgb{levels[static_cast<std::size_t>(x) % count], levels[static_cast<std::size_t>(x) / count], levels[static_cast<std::size_t>(b)]};
    });
    const auto table = through(*program, points, values, cancel);
    const image::Picture samples = error_samples(baked.lut);
    const auto truth = table ? through(*program, samples, values, cancel) : std::nullopt;
    if (!truth)
        return Error{"called off", "", ""};
    baked.lut.colours.resize(points.pixels());
    for (std::size_t i = 0; i < points.pixels(); ++i) {
        baked.lut.colours[i] = {(*table)[0][i], (*table)[1][i], (*table)[2][i]};
        const auto& colour = baked.lut.colours[i];
        if (!std::isfinite(colour[0]) || !std::isfinite(colour[1]) || !std::isfinite(colour[2]))
            ++baked.not_finite;
    }
    baked.samples = samples.pixels();
    baked.matrix = matrix_of(subject, in, out);
    if (!baked.matrix && is_curves(subject, in, out)) {
        const image::Picture ramp = image::generated(curve_points, 1, [&](int x, int) {
            const double at = options.low + (options.high - options.low) * x / (curve_points - 1);
            return Rgb{at, at, at};
        });
        if (const auto along = through(*program, ramp, values, cancel)) {
            Curves curves{options.low, options.high, {}};
            for (std::size_t i = 0; i < ramp.pixels(); ++i)
                curves.points.push_back({(*along)[0][i], (*along)[1][i], (*along)[2][i]});
            baked.curves = std::move(curves);
        }
    }
    const std::string* const delta_e = options.delta_e ? &baked.out_space : nullptr;
    const bool whole = measure(baked.trilinear, samples, *truth, delta_e, [&](const Rgb& at) { return trilinear(baked.lut, at); }, cancel) &&
                       measure(baked.tetrahedral, samples, *truth, delta_e, [&](const Rgb& at) { return tetrahedral(baked.lut, at); }, cancel) &&
                       (!baked.curves || measure(baked.by_curves, samples, *truth, delta_e, [&](const Rgb& at) { return read_curves(*baked.curves, at); }, cancel));
    if (!whole)
        return Error{"called off", "", ""};
    return baked;
}

Result<Baked> bake(const lang::Rule& rule, std::span<const double> values, const BakeOptions& options, const CancelToken& cancel) {
    return bake(subject_of(rule, values), options, cancel);
}

bool near_enough(const Baked& baked, const Wished& wished) {
    const LutError& error = baked.curves ? baked.by_curves : baked.tetrahedral;
    return baked.not_finite == 0 && (baked.matrix || ((!wished.difference || error.largest <= *wished.difference) && (!wished.delta_e || error.delta_e_largest <= *wished.delta_e)));
}

Result<Baked> bake_for(const Subject& subject, BakeOptions options, const Wished& wished, const CancelToken& cancel) {
    options.delta_e = options.delta_e || wished.delta_e;
    for (const int size : lut_sizes) {
        options.size = size;
        Result<Baked> baked = bake(subject, options, cancel);
        if (!baked || near_enough(baked.value(), wished) || size == std::end(lut_sizes)[-1])
            return baked;
    }
    return Error{"there is no size", "", ""};
}

} // namespace kasuri::handover
