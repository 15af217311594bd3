#pragma once
#include "lang/rule.hpp"

#include <array>
#include <optional>
#include <span>
#include <vector>

namespace kasuri::engine {

/// One pixel as a rule sees it, in double precision.
struct ReferencePixel {
    std::array<double, 4> rgba = {0, 0, 0, 1};
    std::array<double, 2> pixel = {0, 0};
    std::array<double, 2> pos = {0.5, 0.5};
    double aspect = 1;
    std::array<double, 2> extent = {1, 1};
    std::vector<double> sources{}; ///< channels of the rule's own further pictures, in its order
    /// Of the rule's space: the picture as it came in (nothing: rgba), and for each source what an earlier step made.
    std::optional<std::array<double, 4>> original{};
    std::vector<std::array<double, 4>> read{};
    std::optional<std::array<double, 4>> out{}; ///< what out is before the first statement; nothing: rgba
};

/// The truth that the fast path is held to: walks the typed tree in double precision with the reference
/// functions of the builtin rows. Shares no code with lowering, rewrites, scheduling, kernels or passes.
/// Returns the four components of out, in the rule's working space. A pixel by itself is its own neighbourhood.
std::array<double, 4> reference(const lang::Rule& rule, std::span<const double> parameters,
                                const ReferencePixel& pixel);

/// The components of the rule's print expression.
std::vector<double> reference_print(const lang::Rule& rule, std::span<const double> parameters,
                                    const ReferencePixel& pixel);

/// A part of the rule and what it comes to, one pixel. In the order of the text: a part stands before its own parts,
/// which are one deeper; steps are at depth 0, with the span of the whole statement. Insides of functions are left out.
struct TraceNode {
    Span span;
    std::size_t step = 0; ///< of Rule::steps
    int depth = 0;
    lang::Type type;
    std::vector<double> value;
    /// A number that is NaN or infinite comes into the world here: all parts of this one are finite.
    bool born = false;
};

/// Every sub-expression of the rule at one pixel. The value at depth 0 is what the step writes.
std::vector<TraceNode> reference_trace(const lang::Rule& rule, std::span<const double> parameters,
                                       const ReferencePixel& pixel);

/// Every value on the way is moved up or down, by chance, by so much: Monte Carlo arithmetic (Parker 1997). What comes
/// out of several runs scatters as much as the rule magnifies the rounding of floats.
struct ReferenceNoise {
    double relative = 0;
    double absolute = 0;
    unsigned seed = 0;
};

/// A whole picture, with neighbourhoods: pixels row by row, width * height of them. Exact and slow: a blur is the
/// full convolution, a disc is looked through pixel by pixel.
std::vector<std::array<double, 4>> reference_picture(const lang::Rule& rule, std::span<const double> parameters,
                                                     int width, std::span<const ReferencePixel> pixels,
                                                     const ReferenceNoise* noise = nullptr);

} // namespace kasuri::engine
