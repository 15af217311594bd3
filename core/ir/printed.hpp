#pragma once
#include "ir/graph.hpp"

#include <span>
#include <string>

namespace kasuri::ir {

/// The nodes that `outputs` need, one a line: number, operation, operands; those that are not per pixel say so.
/// For `kasuri-cli explain` and tests.
std::string printed(const Graph& graph, std::span<const NodeId> outputs);

} // namespace kasuri::ir
