#pragma once
#include "baking/lut.hpp"
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "insight/affine.hpp"
#include "subject/subject.hpp"

#include <array>
#include <optional>
#include <string>

namespace kasuri::baking {

/// How far a table is from the rule itself, by one way of interpolation. Differences are in the numbers that go out, of
/// the channel that differs most; those of delta_e are CIEDE2000 (only where they were asked for).
struct LutError {
    double mean = 0;
    double most = 0; ///< 99.9 % of the colours are no further away
    double largest = 0;
    std::array<float, 3> worst{}; ///< the colour that comes in where it is largest
    double delta_e_mean = 0, delta_e_most = 0, delta_e_largest = 0;
    std::array<float, 3> delta_e_worst{};
};

struct Baked {
    Lut lut;
    LutError trilinear;
    LutError tetrahedral;
    std::optional<Curves>
        curves{}; ///< where the rule is three of them: they are written instead, where a format has them
    LutError by_curves{};
    std::optional<insight::Affine> matrix{}; ///< where it is one: nothing is nearer
    std::size_t samples = 0;                 ///< colours on which the errors were measured, off the table's own points
    bool reads_alpha = false;                ///< the rule's colour depends on alpha; the table holds it for alpha 1
    std::size_t not_finite = 0;              ///< entries that are NaN or infinite; they cannot be written
    std::string in_space, out_space;
};

struct BakeOptions {
    int size = 33;
    double low = 0;
    double high = 1;
    bool shaped = false;  ///< points closer where values are low, for wide domains; only some formats can say so
    bool delta_e = false; ///< measure that too
    std::string in_space{}, out_space{}; ///< of what comes in and goes out; empty: the subject's own
    bool trilinear = true;               ///< measure that way of reading, too; else its error stays 0
};

/// Tables that are written; 2 to 129 would be allowed by the format, these are what readers expect.
inline constexpr int lut_sizes[] = {9, 17, 33, 65, 129};
/// Points of a curve.
inline constexpr int curve_points = 4096;

/// Computes the table and measures its error. Refuses what reads coordinates, neighbours or further pictures.
Result<Baked> bake(const subject::Subject& subject, const BakeOptions& options, const CancelToken& cancel = {});

/// What a table must not be further away than: by the largest error, read tetrahedrally.
struct Wished {
    std::optional<double> difference{}, delta_e{};
};
/// The smallest table that is near enough; the largest one there is if none is, which its errors tell.
Result<Baked> bake_for(const subject::Subject& subject, BakeOptions options, const Wished& wished,
                       const CancelToken& cancel = {});
bool near_enough(const Baked& baked, const Wished& wished);

} // namespace kasuri::baking
