#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "subject/subject.hpp"

#include <array>
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace kasuri::fit {

using Planes = std::array<std::vector<float>, 3>; ///< r, g, b of many colours, of one length

/// What went in and what came out, colour by colour, in numbers of one space.
struct Pairs {
    std::string title{}; ///< for people: the file's name
    std::string space = "rec709-linear";
    Planes from, to;
    std::vector<float> weights{}; ///< of each pair, above 0; empty: all count 1
    /// Somebody measured or stored them: noise, rounding and pairs that are plainly wrong are to be expected, and a
    /// loss that bears them is used. Else differences are what is looked for, however small.
    bool noisy = false;
    /// Deviation of the noise in what came out, where it could be measured without knowing the rule; else 0.
    double noise = 0;

    /// How far what came out is unsure by itself, where that is known: means of pixels, digits of a table. What is
    /// closer counts as the same.
    double close = 0;

    std::size_t size() const { return from[0].size(); }
    void add(const std::array<float, 3>& before, const std::array<float, 3>& after, float weight = 1);
};

/// What a LUT, a rule or a look makes of a lattice of colours from `low` to `high` with `points` an axis: those of a
/// table of 33 points are met by 33 points, and what lies between them is left to whoever reads tables. Numbers are of
/// the subject's space. Errors: it reads the place, neighbours or other pictures.
Result<Pairs> pairs_of(const subject::Subject& subject, int points, double low, double high,
                       const CancelToken& cancel = {});

/// Two pictures of one size in the same space, pixel by pixel: pixels that are `unsure_ends` or less from 0 or 1 in a
/// channel (0: none) are left out (`clipped`), and where one colour is everywhere it counts no more than a rare one (at
/// most so many of each cell of a lattice). Pixels beside edges (`at_edges`) are left out as long as there are a
/// thousand others. Errors: sizes or spaces differ, nothing is left.
struct PicturePairs {
    Pairs pairs;
    std::size_t pixels = 0, clipped = 0, not_finite = 0, at_edges = 0;
};
Result<PicturePairs> pairs_of(const image::Picture& before, const image::Picture& after, double unsure_ends);

/// Columns of numbers, parted by commas, semicolons, tabs or spaces: r, g, b before, r, g, b after and, if there is a
/// seventh, a weight. Lines that begin with # and a first line of names are passed over. Errors name the line.
Result<Pairs> pairs_of(std::string_view table, const std::string& where);

} // namespace kasuri::fit
