#include "handover/cdl.hpp"

#include "base/text.hpp"
#include "engine/chain.hpp"
#include "insight/algebra.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <random>
#include <vector>

namespace kasuri::handover {
namespace {

using Triple = std::array<double, 3>;
constexpr Triple luma = {0.2126, 0.7152, 0.0722}; // ASC CDL 1.2, 3.2: those of BT.709
constexpr double same = 1e-9, near = 1e-5;
constexpr int ramp_points = 257, tried = 2000;

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

/// What a subject makes of colours of a space, in double precision.
struct Maker {
    const subject::Subject& subject;
    std::string space;

    Triple operator()(const Triple& colour) const {
        engine::ReferencePixel pixel;
        pixel.rgba = {colour[0], colour[1], colour[2], 1};
        const auto made = engine::reference_chain(subject.steps(), subject.values(), space, pixel);
        return {made[0], made[1], made[2]};
    }
};

double luma_of(const Triple& x) { return luma[0] * x[0] + luma[1] * x[1] + luma[2] * x[2]; }

constexpr Triple first_middle = {0.42, 0.38, 0.45};
constexpr double moved_by = 0.11;

/// From the way the other channels follow when one alone goes in: they move by (1 - saturation) of what luma moves by.
std::optional<double> saturation_at(const Maker& made, const Triple& middle) {
    const Triple from = made(middle);
    std::optional<double> found;
    for (std::size_t j = 0; j < 3; ++j) {
        Triple moved = middle;
        moved[j] += moved_by;
        const Triple to = made(moved);
        const double by = luma_of(to) - luma_of(from);
        if (!(std::fabs(by) > 1e-6))
            return std::nullopt;
        for (std::size_t i = 0; i < 3; ++i) {
            if (i == j)
                continue;
            const double s = 1 - (to[i] - from[i]) / by;
            if (!std::isfinite(s) || (found && std::fabs(*found - s) > 1e-6))
                return std::nullopt;
            if (!found)
                found = s;
        }
    }
    return found && *found > 1e-6 ? found : std::nullopt;
}

/// A colour around which nothing is clamped, if there is one: it and those beside it come out well inside of 0 .. 1.
Triple middle_of(const Maker& made) {
    const auto inside = [&](const Triple& colour) {
        const Triple out = made(colour);
        return std::all_of(out.begin(), out.end(), [](double v) { return v > 0.02 && v < 0.98; });
    };
    std::mt19937 random(3);
    Triple middle = first_middle;
    for (int i = 0; i < tried; ++i) {
        bool all = inside(middle);
        for (std::size_t j = 0; j < 3 && all; ++j) {
            Triple moved = middle;
            moved[j] += moved_by;
            all = inside(moved);
        }
        if (all)
            return middle;
        for (double& x : middle)
            x = 0.05 + 0.8 * static_cast<double>(random()) / 4294967296.0;
    }
    return first_middle;
}

/// As it was typed, if so few decimals say the same.
double plain(double x) {
    for (int decimals = 0; decimals < 9; ++decimals) {
        const double by = std::pow(10, decimals), cut = std::round(x * by) / by;
        if (std::fabs(cut - x) <= 3e-9 * std::max(1.0, std::fabs(x)))
            return cut;
    }
    return x;
}

/// Slope, offset and power of a channel, from the longest stretch where its curve rises. `inside`: only where all
/// channels come out between 0 and 1, so that nothing can be clamped.
std::optional<Triple> channel_of(const Maker& made, const Triple& middle, double saturation, std::size_t channel,
                                 bool inside) {
    std::vector<double> values;
    const auto place = [](int x) { return static_cast<double>(x) / (ramp_points - 1); };
    for (int x = 0; x < ramp_points; ++x) {
        Triple colour = middle;
        colour[channel] = place(x);
        const Triple out = made(colour);
        const double y = luma_of(out);
        const bool counts =
            !inside || std::all_of(out.begin(), out.end(), [](double v) { return v > same && v < 1 - same; });
        values.push_back(counts ? y + (out[channel] - y) / saturation : -1);
    }
    int first = 0, last = 0;
    const auto at = [&](int x) { return values[static_cast<std::size_t>(x)]; };
    for (int begin = 0; begin + 1 < ramp_points;) {
        int end = begin;
        while (end + 1 < ramp_points && at(end) > same && at(end + 1) > at(end))
            ++end;
        if (end - begin > last - first) {
            first = begin;
            last = end;
        }
        begin = std::max(end, begin + 1);
    }
    last -= 2;                  // the last one that rises may have been cut off on the way
    last -= (last - first) % 2; // so that there is a middle
    if (last - first < 8)
        return std::nullopt;
    return of_curve(place(first), place(last), at(first), at((first + last) / 2), at(last));
}

/// The largest difference from the formulas; above_0: of colours of which no base is below 0.
double difference(const Maker& made, const io::Cdl& cdl, CdlForm form) {
    std::mt19937 random(1);
    double most = 0;
    for (int i = 0; i < tried; ++i) {
        Triple colour{};
        bool counts = true;
        for (std::size_t c = 0; c < 3; ++c) {
            colour[c] = -0.25 + 1.5 * static_cast<double>(random()) / 4294967296.0;
            counts = counts && (form != CdlForm::above_0 || colour[c] * cdl.slope[c] + cdl.offset[c] >= 0);
        }
        if (!counts)
            continue;
        const Triple is = made(colour), wanted = applied(cdl, form, colour);
        for (std::size_t c = 0; c < 3; ++c) {
            const double d = std::fabs(is[c] - wanted[c]);
            most = std::isfinite(d) ? std::max(most, d) : 1e30;
        }
    }
    return most;
}

} // namespace

std::array<double, 3> applied(const io::Cdl& cdl, CdlForm form, const std::array<double, 3>& colour) {
    const auto kept = [&](double x) { return form == CdlForm::clamped ? std::clamp(x, 0.0, 1.0) : x; };
    Triple made{};
    for (std::size_t c = 0; c < 3; ++c) {
        const double base = kept(colour[c] * cdl.slope[c] + cdl.offset[c]);
        made[c] = base < 0 ? base : std::pow(base, cdl.power[c]);
    }
    const double y = luma_of(made);
    for (double& x : made)
        x = kept(y + cdl.saturation * (x - y));
    return made;
}

std::optional<AsCdl> cdl_of(const subject::Subject& subject, std::string_view space) {
    const std::string in = space.empty() ? subject.space() : std::string(space);
    const engine::ProgramPtr program = subject.program(in, in);
    if (!subject.sources().empty() || program->reads_position() || program->reads_neighbours())
        return std::nullopt;
    if (const auto matrix = insight::shown_matrix(subject.fixed().between(in, in))) {
        std::optional<io::Cdl> cdl = of_matrix(*matrix);
        for (std::size_t c = 0; cdl && c < 3; ++c) {
            cdl->slope[c] = plain(cdl->slope[c]);
            cdl->offset[c] = plain(cdl->offset[c]);
        }
        if (cdl)
            cdl->saturation = plain(cdl->saturation);
        return cdl ? std::optional(AsCdl{std::move(*cdl), CdlForm::open, true, 0}) : std::nullopt;
    }
    const Maker made{subject, in};
    const Triple middle = middle_of(made);
    const auto saturation = saturation_at(made, middle);
    if (!saturation)
        return std::nullopt;
    AsCdl found;
    found.cdl.saturation = plain(*saturation);
    for (std::size_t c = 0; c < 3; ++c) {
        auto curve = channel_of(made, middle, found.cdl.saturation, c, true);
        if (!curve)
            curve = channel_of(made, middle, found.cdl.saturation, c, false);
        if (!curve)
            return std::nullopt;
        found.cdl.slope[c] = plain((*curve)[0]);
        found.cdl.offset[c] = plain((*curve)[1]);
        found.cdl.power[c] = plain((*curve)[2]);
    }
    for (const CdlForm form : {CdlForm::open, CdlForm::clamped, CdlForm::above_0}) {
        found.form = form;
        found.largest = difference(made, found.cdl, form);
        found.exact = found.largest <= same;
        if (found.largest <= near)
            return found;
    }
    return std::nullopt;
}

std::string filter_of(const io::Cdl& cdl, const std::string& title, std::string_view space, bool clamped) {
    const auto numbers = [](const Triple& x) {
        return fmt::format("vec3({}, {}, {})", number_text(x[0], 9), number_text(x[1], 9), number_text(x[2], 9));
    };
    std::string plain_title = title;
    std::replace_if(
        plain_title.begin(), plain_title.end(), [](unsigned char c) { return c == '"' || c == '\\' || c < 0x20; }, ' ');
    const auto widest = [](const Triple& x, double usual) {
        return number_text(std::max({usual, x[0], x[1], x[2]}), 9);
    };
    const auto lowest = [](const Triple& x, double usual) {
        return number_text(std::min({usual, x[0], x[1], x[2]}), 9);
    };
    std::string text =
        fmt::format("filter \"{}\"\nnote   \"A colour decision list (ASC CDL 1.2): slope, offset, power, "
                    "then saturation.\"\ntags   \"cdl\"\n\nworking {}\n",
                    plain_title, space);
    text += fmt::format("param slope      = {} in 0 .. {} \"Gain of each channel\"\n", numbers(cdl.slope),
                        widest(cdl.slope, 4));
    text += fmt::format("param offset     = {} in {} .. {} \"What is added to each channel\"\n", numbers(cdl.offset),
                        lowest(cdl.offset, -1), widest(cdl.offset, 1));
    text += fmt::format("param power      = {} in 0 .. {} \"Exponent of each channel\"\n", numbers(cdl.power),
                        widest(cdl.power, 4));
    text += fmt::format("param saturation = {} in 0 .. {}\n", number_text(cdl.saturation, 9),
                        number_text(std::max(4.0, cdl.saturation), 9));
    text +=
        fmt::format("param clamped    = {} \"Kept in 0 .. 1 before the power and at the end, as the standard's first "
                    "form has it\"\n\n",
                    clamped);
    // Without clamps a base below 0 stays as it is: it has no power.
    text += "fn powered(base : float, power : float) = base < 0 ? base : pow(base, power)\n"
            "let open = rgb * slope + offset\n"
            "let base = clamped ? clamp(open, 0, 1) : open\n"
            "let c = vec3(powered(base.r, power.r), powered(base.g, power.g), powered(base.b, power.b))\n"
            "let y = dot(c, vec3(0.2126, 0.7152, 0.0722))\n"
            "let saturated = saturation == 1 ? c : mix(vec3(y), c, saturation)\n"
            "out.rgb = clamped ? clamp(saturated, 0, 1) : saturated\n\n"
            "proof \"no NaN or infinity\" : finite\n";
    return text;
}

} // namespace kasuri::handover
