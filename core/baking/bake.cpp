#include "baking/bake.hpp"
#include "baking/compare.hpp"
#include "base/parallel.hpp"
#include "engine/evaluate.hpp"
#include "insight/algebra.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::baking {

using Rgb = std::array<double, 3>;

namespace {

constexpr double shape_per_unit = 16; ///< of a domain: half of the points of 0 .. 16 stand below 1
constexpr std::size_t grain = 2048;

template <class Read>
bool measure(LutError& error, const image::Picture& samples, const Colours& truth, const std::string* delta_e_in,
             Read read, const CancelToken& cancel) {
    const std::size_t count = samples.pixels();
    Colours got;
    for (auto& plane : got)
        plane.resize(count);
    const bool whole = parallel_ranges(count, grain, cancel, [&](std::size_t first, std::size_t last) {
        for (std::size_t i = first; i < last; ++i) {
            const auto in = samples.at(i);
            const Rgb made =
                read(Rgb{static_cast<double>(in[0]), static_cast<double>(in[1]), static_cast<double>(in[2])});
            for (std::size_t c = 0; c < 3; ++c)
                got[c][i] = static_cast<float>(made[c]);
        }
    });
    return whole && sum_up(error, samples, truth, got, delta_e_in, cancel);
}

} // namespace

Result<Baked> bake(const subject::Subject& subject, const BakeOptions& options, const CancelToken& cancel) {
    if (std::find(std::begin(lut_sizes), std::end(lut_sizes), options.size) == std::end(lut_sizes))
        return Error{said("a table of {} points a side is not offered", options.size), "",
                     said("Choose one of {}.", fmt::join(lut_sizes, ", "))};
    if (!(options.low < options.high) || !std::isfinite(options.low) || !std::isfinite(options.high))
        return Error{"the domain is empty", "", "Give the lower end first, such as 0 and 1."};
    const std::string in = options.in_space.empty() ? subject.in_space() : options.in_space,
                      out = options.out_space.empty() ? subject.out_space() : options.out_space;
    const engine::ProgramPtr program = subject.program(in, out, {}, true);
    const std::string what = translated(subject.noun());
    const subject::Subject fixed = subject.fixed().between(in, out);
    if (program->reads_position())
        return Error{
            said("the {} depends on the place in the picture (pos, pixel, aspect or extent), which a LUT cannot hold",
                 what),
            subject.title(), "Render pictures instead, or take the place out of it."};
    if (program->reads_neighbours())
        return Error{
            said("the {} looks at neighbouring pixels (blur, sharpen, dilate or erode), which a LUT cannot hold", what),
            subject.title(), "Render pictures instead, or take the neighbours out of it."};
    if (program->reads_sources())
        return Error{said("the {} reads further pictures, which a LUT cannot hold", what), subject.title(),
                     "Render pictures instead."};
    const std::vector<double>& values = subject.values();
    Baked baked;
    baked.in_space = in;
    baked.out_space = out;
    baked.reads_alpha = program->reads(ir::Input::a);
    baked.lut = {options.size,
                 options.low,
                 options.high,
                 {},
                 options.shaped ? shape_per_unit * (options.high - options.low) : 0};
    std::vector<double> levels;
    for (int i = 0; i < options.size; ++i)
        levels.push_back(value_at(baked.lut, static_cast<double>(i) / (options.size - 1)));
    levels.back() = options.high; // exactly, whatever rounding made of it
    const auto count = static_cast<std::size_t>(options.size);
    const image::Picture points = image::generated(options.size * options.size, options.size, [&](int x, int b) {
        return Rgb{levels[static_cast<std::size_t>(x) % count], levels[static_cast<std::size_t>(x) / count],
                   levels[static_cast<std::size_t>(b)]};
    });
    const auto table = colours_through(*program, points, values, cancel);
    const image::Picture samples = samples_in(baked.lut);
    const auto truth = table ? colours_through(*program, samples, values, cancel) : std::nullopt;
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
    baked.matrix = insight::shown_matrix(fixed);
    if (!baked.matrix && insight::separable(fixed)) {
        const image::Picture ramp = image::generated(curve_points, 1, [&](int x, int) {
            const double at = options.low + (options.high - options.low) * x / (curve_points - 1);
            return Rgb{at, at, at};
        });
        if (const auto along = colours_through(*program, ramp, values, cancel)) {
            Curves curves{options.low, options.high, {}};
            for (std::size_t i = 0; i < ramp.pixels(); ++i)
                curves.points.push_back({(*along)[0][i], (*along)[1][i], (*along)[2][i]});
            baked.curves = std::move(curves);
        }
    }
    const std::string* const delta_e = options.delta_e ? &baked.out_space : nullptr;
    const bool whole = (!options.trilinear ||
                        measure(
                            baked.trilinear, samples, *truth, delta_e,
                            [&](const Rgb& at) { return trilinear(baked.lut, at); }, cancel)) &&
        measure(
                           baked.tetrahedral, samples, *truth, delta_e,
                           [&](const Rgb& at) { return tetrahedral(baked.lut, at); }, cancel) &&
        (!baked.curves ||
         measure(
             baked.by_curves, samples, *truth, delta_e, [&](const Rgb& at) { return read_curves(*baked.curves, at); },
             cancel));
    if (!whole)
        return Error{"called off", "", ""};
    return baked;
}

bool near_enough(const Baked& baked, const Wished& wished) {
    const LutError& error = baked.curves ? baked.by_curves : baked.tetrahedral;
    return baked.not_finite == 0 &&
        (baked.matrix ||
         ((!wished.difference || error.largest <= *wished.difference) &&
          (!wished.delta_e || error.delta_e_largest <= *wished.delta_e)));
}

Result<Baked> bake_for(const subject::Subject& subject, BakeOptions options, const Wished& wished,
                       const CancelToken& cancel) {
    options.delta_e = options.delta_e || wished.delta_e;
    for (const int size : lut_sizes) {
        options.size = size;
        Result<Baked> baked = bake(subject, options, cancel);
        if (!baked || near_enough(baked.value(), wished) || size == std::end(lut_sizes)[-1])
            return baked;
    }
    return Error{"there is no size", "", ""};
}

} // namespace kasuri::baking
