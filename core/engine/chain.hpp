#pragma once
#include "engine/lower.hpp"
#include "engine/reference.hpp"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace kasuri::engine {

/// One rule of several that work one after the other, and how its result is laid over what came in. Blending and opacity work on the
/// numbers of the rule's working space.
struct ChainStep {
    const lang::Rule& rule;
    std::string_view blend = "normal";  ///< a blend mode of the language, without blend_; there is one (`is_blend`)
    const lang::Rule* mask = nullptr;   ///< its print expression, a float of what comes in, in the same working space; null: 1 everywhere
    bool mask_inverted = false;
};

/// Whether there is such a blend mode.
bool is_blend(std::string_view name);

/// How many numbers a chain's parameters are: those of each step in order, and behind them its opacity from 0 to 1.
std::size_t chain_parameters(std::span<const ChainStep> steps);

/// The whole chain as one graph, and as one program of four outputs: no pictures in between but where a step looks at neighbours.
std::vector<ir::NodeId> lower_chain(std::span<const ChainStep> steps, ir::Graph& graph, const CompileOptions& options);
ProgramPtr compile_chain(std::span<const ChainStep> steps, const CompileOptions& options = {});

/// The double-precision truth of it for one pixel, whose numbers are of `in_space`, as what comes out. Shares nothing with the graph.
std::array<double, 4> reference_chain(std::span<const ChainStep> steps, std::span<const double> parameters, std::string_view in_space, const ReferencePixel& pixel);

} // namespace kasuri::engine
