#include "handover/cube.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <numeric>

namespace kasuri::handover {

using Rgb = std::array<double, 3>;

namespace {

/// Cell and place in it of a colour.
struct Located {
    std::array<int, 3> cell{};
    Rgb into{};
};
Located locate(const Lut& lut, const Rgb& rgb) {
    Located place;
    for (std::size_t i = 0; i < 3; ++i) {
        const double at = std::clamp((rgb[i] - lut.low) / (lut.high - lut.low), 0.0, 1.0) * (lut.size - 1);
        place.cell[i] = std::min(static_cast<int>(at), lut.size - 2);
        place.into[i] = at - place.cell[i];
    }
    return place;
}

const std::array<float, 3>& corner(const Lut& lut, const std::array<int, 3>& cell, int r, int g, int b) {
    const auto at = [](int i) { return static_cast<std::size_t>(i); };
    return lut.colours[(at(cell[2] + b) * at(lut.size) + at(cell[1] + g)) * at(lut.size) + at(cell[0] + r)];
}

/// Colours strictly inside the cells, spread evenly over the domain by a low-discrepancy sequence
/// (additive recurrence with powers of 1 / 1.2207440846, the root of x^4 = x + 1), then greys.
image::Picture error_samples(double low, double high) {
    constexpr int spread = 60000, greys = 4000;
    constexpr double step[3] = {0.8191725133961645, 0.6710436067037893, 0.5497004779019703};
    return image::generated(spread + greys, 1, [&](int i, int) {
        Rgb at{};
        for (std::size_t c = 0; c < 3; ++c)
            at[c] = low + (high - low) * (i < spread ? std::fmod(0.5 + step[c] * (i + 1), 1.0) : (i - spread + 0.5) / greys);
        return at;
    });
}

std::array<engine::PlaneView, 4> planes_of(const image::Picture& picture) {
    return {picture.planes[0]->data(), picture.planes[1]->data(), picture.planes[2]->data(), {}};
}

std::string one_line(std::string text) {
    std::replace_if(text.begin(), text.end(), [](char c) { return c == '\n' || c == '\r' || c == '"'; }, ' ');
    return text;
}

} // namespace

Rgb trilinear(const Lut& lut, const Rgb& rgb) {
    const Located p = locate(lut, rgb);
    Rgb sum{};
    for (int k = 0; k < 8; ++k) {
        const int r = k & 1, g = k >> 1 & 1, b = k >> 2;
        const double weight = (r ? p.into[0] : 1 - p.into[0]) * (g ? p.into[1] : 1 - p.into[1]) * (b ? p.into[2] : 1 - p.into[2]);
        const auto& colour = corner(lut, p.cell, r, g, b);
        for (std::size_t i = 0; i < 3; ++i)
            sum[i] += weight * colour[i];
    }
    return sum;
}

/// Walks from the low to the high corner of the cell along its axes, largest fraction first: the six
/// tetrahedra around the neutral diagonal (J. M. Kasson et al., J. Electronic Imaging 4 (3), 1995).
Rgb tetrahedral(const Lut& lut, const Rgb& rgb) {
    const Located p = locate(lut, rgb);
    std::array<std::size_t, 3> order = {0, 1, 2};
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return p.into[a] > p.into[b]; });
    std::array<int, 3> at = {0, 0, 0};
    Rgb sum{};
    double before = 1;
    for (std::size_t step = 0; step <= 3; ++step) {
        const double after = step < 3 ? p.into[order[step]] : 0;
        const auto& colour = corner(lut, p.cell, at[0], at[1], at[2]);
        for (std::size_t i = 0; i < 3; ++i)
            sum[i] += (before - after) * colour[i];
        before = after;
        if (step < 3)
            at[order[step]] = 1;
    }
    return sum;
}

Result<Baked> bake(const lang::Rule& rule, std::span<const double> values, const BakeOptions& options,
                   const CancelToken& cancel) {
    if (std::find(std::begin(lut_sizes), std::end(lut_sizes), options.size) == std::end(lut_sizes))
        return Error{fmt::format("a table of {} points a side is not offered", options.size), "", "Choose 17, 33 or 65."};
    if (!(options.low < options.high) || !std::isfinite(options.low) || !std::isfinite(options.high))
        return Error{"the domain is empty", "", "Give the lower end first, such as 0 and 1."};
    engine::CompileOptions compile_options;
    compile_options.colour_only = true;
    const engine::ProgramPtr program = engine::compile(rule, compile_options);
    if (program->reads_position())
        return Error{"the rule depends on the place in the picture (pos, pixel, aspect or extent), which a LUT cannot hold", rule.title,
                     "Render pictures instead, or take the place out of the rule."};
    if (program->reads_neighbours())
        return Error{"the rule looks at neighbouring pixels (blur, sharpen, dilate or erode), which a LUT cannot hold", rule.title,
                     "Render pictures instead, or take the neighbours out of the rule."};
    if (program->reads_sources())
        return Error{"the rule reads further pictures, which a LUT cannot hold", rule.title, "Render pictures instead."};
    Baked baked;
    baked.reads_alpha = program->reads(ir::Input::a);
    baked.lut.size = options.size;
    baked.lut.low = options.low;
    baked.lut.high = options.high;
    std::vector<double> levels;
    for (int i = 0; i < options.size; ++i)
        levels.push_back(options.low + (options.high - options.low) * i / (options.size - 1));
    const auto count = static_cast<std::size_t>(options.size);
    const image::Picture points = image::generated(options.size * options.size, options.size, [&](int x, int b) {
        return Rgb{levels[static_cast<std::size_t>(x) % count], levels[static_cast<std::size_t>(x) / count], levels[static_cast<std::size_t>(b)]};
    });
    const auto through = [&](const image::Picture& picture) -> std::optional<std::array<std::vector<float>, 3>> {
        std::array<std::vector<float>, 3> out;
        for (auto& plane : out)
            plane.resize(picture.pixels());
        float* const outputs[3] = {out[0].data(), out[1].data(), out[2].data()};
        if (!engine::run(*program, {picture.width, picture.height, planes_of(picture)}, values, std::span<float* const>(outputs), cancel))
            return std::nullopt;
        return out;
    };
    const auto table = through(points);
    const image::Picture samples = error_samples(options.low, options.high);
    const auto truth = table ? through(samples) : std::nullopt;
    if (!truth)
        return Error{"called off", "", ""};
    for (std::size_t i = 0; i < points.pixels(); ++i) {
        baked.lut.colours.push_back({(*table)[0][i], (*table)[1][i], (*table)[2][i]});
        for (const float value : baked.lut.colours.back())
            if (!std::isfinite(value)) {
                ++baked.not_finite;
                break;
            }
    }
    baked.samples = samples.pixels();
    for (std::size_t i = 0; i < baked.samples; ++i) {
        const auto in = samples.at(i);
        const Rgb at = {in[0], in[1], in[2]};
        const auto compare = [&](LutError& error, const Rgb& got) {
            double difference = 0;
            for (std::size_t c = 0; c < 3; ++c)
                difference = std::max(difference, std::fabs(got[c] - (*truth)[c][i]));
            error.mean += difference / static_cast<double>(baked.samples);
            if (difference > error.largest) {
                error.largest = difference;
                error.worst = {in[0], in[1], in[2]};
            }
        };
        compare(baked.trilinear, trilinear(baked.lut, at));
        compare(baked.tetrahedral, tetrahedral(baked.lut, at));
    }
    return baked;
}

Status write_cube(const std::filesystem::path& path, const lang::Rule& rule, std::span<const double> values, const Baked& baked) {
    if (baked.not_finite > 0)
        return Error{fmt::format("{} of the table's colours are NaN or infinite, which a LUT cannot hold", baked.not_finite),
                     path.string(), "See the proof \"no NaN or infinity\" for where they are born, or narrow the domain."};
    const std::string title = one_line(rule.title.empty() ? "Kasuri rule" : rule.title);
    std::string text = fmt::format("TITLE \"{}\"\n", title);
    text += fmt::format("# Kasuri filter: numbers in and out are {}, domain {} to {}\n",
                        engine::working_space(rule), number_text(baked.lut.low, 9), number_text(baked.lut.high, 9));
    for (std::size_t i = 0; i < rule.parameters.size(); ++i)
        text += fmt::format("# {} = {}\n", rule.parameters[i].name, number_text(values[i], 9));
    text += fmt::format("# error against the rule on {} colours: trilinear mean {} largest {}, tetrahedral mean {} largest {}\n",
                        baked.samples, number_text(baked.trilinear.mean, 3), number_text(baked.trilinear.largest, 3),
                        number_text(baked.tetrahedral.mean, 3), number_text(baked.tetrahedral.largest, 3));
    if (baked.reads_alpha)
        text += "# the rule reads alpha; this table holds it for alpha 1\n";
    text += fmt::format("LUT_3D_SIZE {}\n", baked.lut.size);
    text += fmt::format("DOMAIN_MIN {0} {0} {0}\nDOMAIN_MAX {1} {1} {1}\n", number_text(baked.lut.low, 9), number_text(baked.lut.high, 9));
    for (const auto& colour : baked.lut.colours)
        text += fmt::format("{:.9g} {:.9g} {:.9g}\n", colour[0], colour[1], colour[2]);
    return write_file(path, text);
}

} // namespace kasuri::handover
