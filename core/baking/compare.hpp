#pragma once
#include "baking/bake.hpp"
#include "image/image.hpp"
#include "subject/further.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::baking {

/// How far numbers may differ and still count as the same: |a - b| <= absolute + relative * max(|a|, |b|).
struct Within {
    double absolute = 1e-5, relative = 0;
};
/// NaN is the same as NaN, an infinity as itself, and as nothing else.
bool same_number(double a, double b, const Within& within);

/// How far apart two things are that can be handed over: rules, looks, LUTs.
struct Comparison {
    LutError error;                  ///< of the second against the first; with CIEDE2000
    std::size_t samples = 0;         ///< on so many colours
    std::size_t beyond = 0;          ///< of them, where a channel differs by more than it may
    std::size_t not_finite = 0;      ///< of them, where one alone is NaN or infinite
    std::string space;               ///< in which both were looked at: that of the first
    std::vector<std::string> varied; ///< further pictures that there are none of: taken to be this and that
};

/// Compares them on colours of low .. high in every channel, spread evenly, and greys, at their values. Refuses what
/// reads coordinates, neighbours: there are none to read. Further pictures are as in subject/further.hpp.
Result<Comparison> compare(const subject::Subject& first, const subject::Subject& second, double low = 0,
                           double high = 1, const CancelToken& cancel = {}, const Within& within = {});

// What baking and comparing share.

using Colours = std::array<std::vector<float>, 3>;

/// Colours strictly inside the cells of a table, spread evenly along its axes by a low-discrepancy sequence (additive
/// recurrence with powers of 1 / 1.2207440846, the root of x^4 = x + 1), then greys.
image::Picture samples_in(const Lut& lut);
/// What a program of three outputs makes of them. Nothing if called off.
std::optional<Colours> colours_through(const engine::Program& program, const image::Picture& picture,
                                       std::span<const double> values, const CancelToken& cancel,
                                       std::span<const float> sources = {});
/// Differences of `got` from `truth`; `delta_e_in`: the space in which to measure CIEDE2000 too, if any. What is not
/// finite counts for nothing here.
bool sum_up(LutError& error, const image::Picture& samples, const Colours& truth, const Colours& got,
            const std::string* delta_e_in, const CancelToken& cancel);

} // namespace kasuri::baking
