#pragma once
#include "ir/graph.hpp"

namespace kasuri::ir {

/// The matrix (by rows) times x, y, z. Where they are themselves the result of such a map, the two become one, worked
/// out in double precision; where that is the identity, what went in comes out. Where the rows have equal sums, equal
/// x, y, z give exactly equal results, so that greys stay grey to the bit.
std::array<NodeId, 3> linear_map(Graph& graph, const LinearMap::Matrix& matrix, const std::array<NodeId, 3>& x);

} // namespace kasuri::ir
