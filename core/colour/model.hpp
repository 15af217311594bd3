#pragma once
#include "colour/frame.hpp"
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
    bool cyclic = false; ///< high is the same colour as low
};

using NodeTriple = std::array<ir::NodeId, 3>;

/// A colour model: its names, its double-precision reference, and its lowering to the graph (the
/// fast path). The two conversions of each direction are written independently of each other.
struct Model {
    std::string_view name;
    std::string_view doc;
    std::string_view source; ///< the publication the formulas come from
    std::array<Component, 3> components;
    const Frame* frame; ///< what `from` takes; null: r, g, b as they are, in whatever encoding
    Triple (*from)(const Triple& light);
    Triple (*to)(const Triple& model);
    NodeTriple (*lower_from)(ir::Graph& graph, const NodeTriple& light);
    NodeTriple (*lower_to)(ir::Graph& graph, const NodeTriple& model);
    bool hue_has_origin =
        false; ///< `lower_to` itself sees to it that what was not changed comes back, as long as the hue stays
};

/// Every model, one line each in models/table.cpp.
std::span<const Model* const> models();
const Model* find_model(std::string_view name);

/// r, g, b of the space as the model's numbers, and back: the double-precision truth.
Triple from_rgb(const Model& model, const Space& space, const Triple& rgb);
Triple to_rgb(const Model& model, const Space& space, const Triple& value);

/// The same as operations of a graph. The way back remembers: where none of the components of a colour have changed,
/// pixel by pixel, the very r, g, b come back.
NodeTriple lower_from_rgb(ir::Graph& graph, const Model& model, const Space& space, const NodeTriple& rgb);
NodeTriple lower_to_rgb(ir::Graph& graph, const Model& model, const Space& space, const NodeTriple& value);

} // namespace kasuri::colour
