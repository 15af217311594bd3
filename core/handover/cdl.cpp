#include "handover/cdl.hpp"

#include "insight/algebra.hpp"

#include "base/text.hpp"
#include "engine/evaluate.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::handover {
namespace {

using Triple = std::array<double, 3>;
constexpr Triple luma = {0.2126, 0.7152, 0.0722}; // ASC CDL 1.2, 3.2: those of BT.709
constexpr double same = 1e-9, near = 1e-5;
constexpr int ramp_points = 257;

/// M = saturation * gains: in every column the two numbers off the diagonal are gain * (1 - saturation) * weight of
/// their column, and what the diagonal has more is gain * saturation.
std::optional<io::Cdl> of_matrix(const insight::Affine& map) {
    io::Cdl cdl;
    const auto& m = map.matrix;
    std::optional<double> saturation;
    for (std::size_t j = 0; j < 3; ++j) {
        const std::size_t a = (j + 1) % 3, b = (j + 2) % 3;
        if (std::fabs(m[a][j] - m[b][j]) > same)
            return std::nullopt;
        const double whole = m[j][j] - m[a][j];
        if (std::fabs(whole) < same)
            return std::nullopt; // no saturation at all: gains are lost
        const double found = luma[j] / (luma[j] + m[a][j] / whole);
        if (saturation && std::fabs(*saturation - found) > 1e-7)
            return std::nullopt;
        saturation = found;
        cdl.slope[j] = whole / found;
    }
    if (!(*saturation > 0) || std::any_of(cdl.slope.begin(), cdl.slope.end(), [](double s) { return s < 0; }))
        return std::nullopt;
    cdl.saturation = std::fabs(*saturation - 1) < 1e-12 ? 1 : *saturation;
    // The offset comes before the saturation: what it is after it is taken back.
    const double y = luma[0] * map.offset[0] + luma[1] * map.offset[1] + luma[2] * map.offset[2];
    for (std::size_t c = 0; c < 3; ++c)
        cdl.offset[c] = y + (map.offset[c] - y) / cdl.saturation;
    return cdl;
}

/// Slope, offset and exponent of (x * slope + offset) ^ power through three points of a rising curve above 0, whose
/// middle is in the middle: the exponent is the one for which y^(1/p) is a straight line.
std::optional<Triple> of_curve(double x0, double x1, double first, double middle, double last) {
    if (!(first >= 0 && middle > first && last > middle))
        return std::nullopt;
    const auto bend = [&](double p) {
        return 2 * std::pow(middle, 1 / p) - std::pow(first, 1 / p) - std::pow(last, 1 / p);
    };
    double low = 0.05, high = 20;
    if ((bend(low) > 0) == (bend(high) > 0))
        return std::nullopt;
    const bool rising = bend(high) > 0;
    for (int i = 0; i < 200; ++i) {
        const double p = 0.5 * (low + high);
        ((bend(p) > 0) == rising ? high : low) = p;
    }
    const double p = 0.5 * (low + high), from = std::pow(first, 1 / p),
                 slope = (std::pow(last, 1 / p) - from) / (x1 - x0);
    return Triple{slope, from - slope * x0, p};
}

} // namespace

std::optional<AsCdl> cdl_of(const subject::Subject& subject, std::string_view space) {
    const subject::Subject fixed = subject.fixed().between(space, space);
    if (const auto matrix = insight::shown_matrix(fixed)) {
        std::optional<io::Cdl> cdl = of_matrix(*matrix);
        return cdl ? std::optional(AsCdl{std::move(*cdl), true, 0}) : std::nullopt;
    }
    if (!subject.sources().empty() || !insight::separable(fixed))
        return std::nullopt;
    const engine::ProgramPtr program = subject.program(space, space);
    const image::Picture ramp = image::generated(ramp_points, 1, [](int x, int) {
        const double at = static_cast<double>(x) / (ramp_points - 1);
        return Triple{at, at, at};
    });
    const auto made = engine::evaluate(*program, ramp, subject.values());
    if (!made)
        return std::nullopt;
    AsCdl found;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto at = [&](int x) { return static_cast<double>(made->at(x, 0)[c]); };
        int first = 0; // where the standard does not clamp
        while (first < ramp_points / 2 && at(first) < 0)
            ++first;
        first += (ramp_points - 1 - first) % 2; // so that there is a middle
        const auto place = [](int x) { return static_cast<double>(x) / (ramp_points - 1); };
        const auto curve = of_curve(place(first), 1, at(first), at((first + ramp_points - 1) / 2), at(ramp_points - 1));
        if (!curve)
            return std::nullopt;
        found.cdl.slope[c] = (*curve)[0];
        found.cdl.offset[c] = (*curve)[1];
        found.cdl.power[c] = (*curve)[2];
        for (int x = first; x < ramp_points; ++x)
            found.largest =
                std::max(found.largest,
                         std::fabs(at(x) - std::pow(std::max(0.0, (*curve)[0] * place(x) + (*curve)[1]), (*curve)[2])));
    }
    return found.largest <= near ? std::optional(found) : std::nullopt;
}

std::string filter_of(const io::Cdl& cdl, const std::string& title, std::string_view space) {
    const auto numbers = [](const Triple& x) {
        return fmt::format("vec3({}, {}, {})", number_text(x[0], 9), number_text(x[1], 9), number_text(x[2], 9));
    };
    std::string plain = title;
    std::replace_if(
        plain.begin(), plain.end(), [](unsigned char c) { return c == '"' || c == '\\' || c < 0x20; }, ' ');
    const auto widest = [](const Triple& x, double usual) {
        return number_text(std::max({usual, x[0], x[1], x[2]}), 9);
    };
    const auto lowest = [](const Triple& x, double usual) {
        return number_text(std::min({usual, x[0], x[1], x[2]}), 9);
    };
    std::string text = fmt::format("filter \"{}\"\nnote   \"A colour decision list: slope, offset, power, then "
                                   "saturation, without clamps.\"\ntags   \"cdl\"\n\nworking {}\n",
                                   plain, space);
    text += fmt::format("param slope      = {} in 0 .. {} \"Gain of each channel\"\n", numbers(cdl.slope),
                        widest(cdl.slope, 4));
    text += fmt::format("param offset     = {} in {} .. {} \"What is added to each channel\"\n", numbers(cdl.offset),
                        lowest(cdl.offset, -1), widest(cdl.offset, 1));
    text += fmt::format("param power      = {} in 0 .. {} \"Exponent of each channel\"\n", numbers(cdl.power),
                        widest(cdl.power, 4));
    text += fmt::format("param saturation = {} in 0 .. {}\n\n", number_text(cdl.saturation, 9),
                        number_text(std::max(4.0, cdl.saturation), 9));
    text += "let c = slope_offset_power(rgb, slope, offset, power)\n"
            "let y = dot(c, vec3(0.2126, 0.7152, 0.0722))\n"
            "out.rgb = saturation == 1 ? c : mix(vec3(y), c, saturation)\n\n"
            "proof \"no NaN or infinity\" : finite\n";
    return text;
}

} // namespace kasuri::handover
