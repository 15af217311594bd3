#pragma once
#include "colour/triple.hpp"
#include "ir/graph.hpp"

#include <array>
#include <span>
#include <string_view>

namespace kasuri::colour {

/// One component of a colour model, as the language and the lenses name it.
struct Component {
    std::string_view name;
    std::string_view meaning; ///< with unit and usual range
    double low = 0;           ///< usual range, for display
    double high = 1;
    bool cyclic = false;      ///< high is the same colour as low
};

using NodeTriple = std::array<ir::NodeId, 3>;

/// A colour model: its names, its double-precision reference, and its lowering to the graph (the
/// fast path). The two conversions of each direction are written independently of each other.
struct Model {
    std::string_view name;
    std::string_view doc;
    std::string_view source; ///< the publication the formulas come from
    std::array<Component, 3> components;
    Triple (*from_rgb)(const Triple& rgb);
    Triple (*to_rgb)(const Triple& model);
    NodeTriple (*lower_from_rgb)(ir::Graph& graph, const NodeTriple& rgb);
    NodeTriple (*lower_to_rgb)(ir::Graph& graph, const NodeTriple& model);
};

/// Every model, one line each in models/table.cpp.
std::span<const Model* const> models();

} // namespace kasuri::colour
