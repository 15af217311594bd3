#pragma once
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "ir/external.hpp"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::engine {

/// One rule of several that work one after the other, or several that count as one, and how the result is laid over
/// what came in. Blending, opacity and mask work on the numbers of the step's space: the rule's working space, of
/// several that of the first.
struct ChainStep {
    const lang::Rule* rule = nullptr; ///< null: the steps `within`, of which there is one at least, or `external`
    std::vector<ChainStep> within{};
    const ir::External* external = nullptr; ///< somebody else's code: a LUT file
    std::string_view space{};               ///< of its numbers
    std::string_view blend = "normal";      ///< a blend mode of the language, without blend_; there is one (`is_blend`)
    const lang::Rule* mask =
        nullptr; ///< its print expression, a float of what comes in, in the same space; null: 1 everywhere
    bool mask_inverted = false;
    /// For each source of the rule, and of the mask, that reads an earlier step: which one, counted in the steps that
    /// this one stands among; `before_all`: what comes into the first of them. Other sources: any number.
    std::vector<int> rule_reads{}, mask_reads{};
    static constexpr int before_all = -1;
    /// The opacity is 1 and stays so: the result takes the place of what came in, and is not mixed with it. Then an
    /// infinity that the step has dealt with is gone, and a matrix is seen to be one.
    bool opaque = false;
};

/// The working space of a step's rule, or of the first within.
std::string_view space_of(const ChainStep& step);

/// The rules of a chain whose sources and parameters follow one another: each step's rule, or what is within it, then
/// its mask.
std::vector<const lang::Rule*> rules_of(std::span<const ChainStep> steps);

/// Whether there is such a blend mode.
bool is_blend(std::string_view name);

/// A rule and nothing else: no mask, no blend mode, no opacity.
bool is_plain(const ChainStep& step);

/// How many numbers a chain's parameters are: those of each step's rule (or of the steps within), and behind them its
/// opacity from 0 to 1, unless it is opaque.
std::size_t chain_parameters(std::span<const ChainStep> steps);

/// The whole chain as one graph, where one plain step is its rule (`lower`), print expressions and further ones
/// included; and as one program of four outputs: no pictures in between but where a step looks at neighbours. No nodes,
/// and null, if the options' work is called off. Puts the graph's digest, too, where one is given.
std::vector<ir::NodeId> lower_chain(std::span<const ChainStep> steps, ir::Graph& graph, const CompileOptions& options);
ProgramPtr compile_chain(std::span<const ChainStep> steps, const CompileOptions& options = {},
                         std::string* digest = nullptr);

/// The double-precision truth of it for one pixel, whose numbers are of `in_space`, as what comes out. Shares nothing
/// with the graph.
std::array<double, 4> reference_chain(std::span<const ChainStep> steps, std::span<const double> parameters,
                                      std::string_view in_space, const ReferencePixel& pixel);

} // namespace kasuri::engine
