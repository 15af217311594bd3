#pragma once
#include "ir/graph.hpp"

#include <array>
#include <optional>
#include <span>
#include <string_view>

namespace kasuri::ir {

using Args = std::array<NodeId, 3>;

/// One equation that holds for every float, NaN and infinities included (a zero may change its sign).
struct Rewrite {
    std::string_view equation;                                      ///< as documentation, and as the name in tests
    Op op;                                                          ///< the operation on the left-hand side
    std::optional<NodeId> (*apply)(Graph& graph, const Args& args); ///< nothing if it does not match
};

/// All rewrites, in the order in which they are tried.
std::span<const Rewrite> rewrites();

/// The right-hand side of the first rewrite that matches.
std::optional<NodeId> simplified(Graph& graph, Op op, const Args& args);

} // namespace kasuri::ir
