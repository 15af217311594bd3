#pragma once
#include "ir/graph.hpp"

#include <span>
#include <string>
#include <vector>

namespace kasuri::ir {

/// For every node whether one of `outputs` is computed from it, neighbourhoods and their sizes included.
std::vector<bool> needed_by(const Graph& graph, std::span<const NodeId> outputs);

/// The neighbourhood that an input node reads; null for every other node.
const Stage* stage_of(const Graph& graph, const Node& node);

/// What the graph computes, as a name of 32 digits (base/digest.hpp): equal for graphs that do the same operations on
/// the same inputs, numbers and external conversions, also in another run of the program.
std::string digest_of(const Graph& graph, std::span<const NodeId> outputs);

} // namespace kasuri::ir
