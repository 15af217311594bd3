#pragma once
#include "base/cancel.hpp"
#include "base/result.hpp"
#include "engine/program.hpp"
#include "lang/rule.hpp"

#include <array>
#include <filesystem>
#include <span>
#include <string>
#include <vector>

namespace kasuri::handover {

/// A 3D table: size^3 colours, red fastest, over the same domain in every channel.
struct Lut {
    int size = 0;
    double low = 0;
    double high = 1;
    std::vector<std::array<float, 3>> colours;
};

/// How far a table is from the rule itself, in the numbers of the working space, by one way of interpolation.
struct LutError {
    double mean = 0;    ///< of the largest channel difference of a colour
    double largest = 0;
    std::array<float, 3> worst{}; ///< the colour that comes in where it is largest
};

struct Baked {
    Lut lut;
    LutError trilinear;
    LutError tetrahedral;
    std::size_t samples = 0; ///< colours on which the errors were measured, off the table's own points
    bool reads_alpha = false; ///< the rule's colour depends on alpha; the table holds it for alpha 1
    std::size_t not_finite = 0; ///< entries that are NaN or infinite; they cannot be written
};

struct BakeOptions {
    int size = 33;
    double low = 0;
    double high = 1;
};

/// Tables that are written; 2 to 129 would be allowed by the format, these are what readers expect.
inline constexpr int lut_sizes[] = {17, 33, 65};

/// Computes the table and measures its error. Refuses rules that read coordinates.
Result<Baked> bake(const lang::Rule& rule, std::span<const double> values, const BakeOptions& options,
                   const CancelToken& cancel = {});

/// Writes a .cube file (Cube LUT Specification 1.0) with the space, the domain and the error in comments.
Status write_cube(const std::filesystem::path& path, const lang::Rule& rule, std::span<const double> values, const Baked& baked);

/// The colour that the table gives, by either interpolation; what comes in is clamped to the domain.
std::array<double, 3> trilinear(const Lut& lut, const std::array<double, 3>& rgb);
std::array<double, 3> tetrahedral(const Lut& lut, const std::array<double, 3>& rgb);

} // namespace kasuri::handover
