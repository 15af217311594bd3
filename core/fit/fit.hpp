#pragma once
#include "fit/family.hpp"
#include "fit/pairs.hpp"

#include <functional>

namespace kasuri::fit {

struct Options {
    std::vector<std::string> families{}; ///< names; empty: all
    std::vector<std::string> spaces{};   ///< working spaces to try; empty: as each family says
    /// Only rules of which algebra shows that every grey comes out as it went in.
    bool keep_greys = false;
    /// Differences count as the eye sees them, in OKLab, not as numbers.
    bool by_eye = false;
    /// What every rule keeps, by a last statement that is fitted through: the luminance of each colour; the sum of its
    /// numbers; the hue of one colour, which is given in the pairs' space.
    bool keep_luminance = false, keep_sums = false;
    std::optional<std::array<double, 3>> hold_hue{};
    std::size_t fitted = 4096; ///< pairs that are fitted, at most; the others are for measuring
    /// How close counts as the same: differences below it are no worse than none. 0: what six digits and single
    /// precision leave, or what the noise is where pairs are noisy.
    double close = 0;
};

/// How far a rule is from what came out, on pairs that were not fitted (on all of them, where there are few).
struct Errors {
    double rms = 0, largest = 0;                                  ///< of channels, in the numbers of the pairs
    std::array<float, 3> at{};                                    ///< the colour that went in where it is largest
    double delta_e_mean = 0, delta_e_95 = 0, delta_e_largest = 0; ///< CIEDE2000
    std::array<float, 3> delta_e_at{};
    std::size_t pairs = 0;
};

/// A family fitted in a working space, with its numbers rounded as far as that costs nothing.
struct Candidate {
    const Family* family = nullptr;
    std::string working{};
    bool clamped = false; ///< its last line keeps numbers in 0 .. 1, as the source does
    std::vector<double> values{};
    std::string body{}; ///< its statements: parameters first, without filter, note and working
    Errors errors{};    ///< measured on those statements
    double bits = 0;    ///< description length: of the numbers, and of what is left (docs/fitting.md)
};

struct Found {
    std::vector<Candidate> candidates{}; ///< from few numbers to many
    std::size_t best = 0;                ///< the shortest description
    std::size_t fitted = 0;              ///< pairs
    double close = 0;                    ///< what counted as the same
    /// Of pairs of two pictures whose colours before are nearly equal: how many of them came out so differently that no
    /// function of a colour explains it, 0 to 1.
    double unexplained = 0;
};

/// Fits every family and measures it. `came` is told of each as it comes, in any thread but one at a time. Errors:
/// nothing to fit, it was called off.
Result<Found> fit(const Pairs& pairs, const Options& options = {}, const CancelToken& cancel = {},
                  const std::function<void(const Candidate&)>& came = {});

/// How many fits that is: every family in every space that it is tried in.
std::size_t tries(const Pairs& pairs, const Options& options = {});

/// Candidates that are closer (by mean CIEDE2000) than all with fewer numbers, and the marked one: indices, from simple
/// to exact.
std::vector<std::size_t> simple_to_exact(const Found& found);

/// The whole text of the rule: title, where it comes from, strength, and proofs that it gives what was measured at some
/// of the colours.
std::string rule_text(const Candidate& candidate, const Pairs& pairs);

// Parts of it, for tests and benches.

/// Mean CIEDE2000 of what was made from what came out, over some thousand of the pairs.
double mean_delta_e(const Pairs& pairs, const Planes& made);

/// Share of the pairs with a near neighbour whose results are apart by more than noise explains; 0 where the noise is
/// not known.
struct Repeats {
    double unexplained = 0;
    std::size_t compared = 0;
};
Repeats repeats(const Pairs& pairs);

/// Bits that it takes to say `values` numbers and what they leave of `numbers` channels: values * log2(numbers) / 2 +
/// numbers * log2(rms / close), the latter not below 0. Source: G. Schwarz, Estimating the Dimension of a Model, 1978;
/// J. Rissanen, Modeling by shortest data description, 1978 (both from memory).
double description_length(std::size_t values, std::size_t numbers, double rms, double close);

} // namespace kasuri::fit
