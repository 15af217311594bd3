#pragma once
#include "ir/graph.hpp"

namespace kasuri::ir {

using Slopes = std::array<NodeId, 3>; ///< of one value, along r, g and b

/// Forward-mode differentiation: how fast each of `of` changes with the inputs r, g, b of its pixel. New nodes are made
/// beside the old ones. Where a choice is made (select, min, max, a hue's sector) it is the slope of what was chosen;
/// rounding, comparisons and bits have slope 0. Neighbours are taken to change as the pixel does: the slope of a blur
/// is the blurred slope, that of a largest or smallest neighbour the pixel's own. An External is asked for central
/// differences. Source: A. Griewank, A. Walther, Evaluating Derivatives, 2nd ed., 3.1 (from memory).
std::vector<Slopes> derivatives(Graph& graph, std::span<const NodeId> of);

/// The same along any nodes, inputs or uniforms: a list for each of `of`, in the order of `along`. The size of a
/// neighbourhood counts as fixed.
std::vector<std::vector<NodeId>> derivatives(Graph& graph, std::span<const NodeId> of, std::span<const NodeId> along);

} // namespace kasuri::ir
