#pragma once
#include "colour/model.hpp"
#include "lang/type.hpp"

namespace kasuri::engine {

/// `hold hue of wanted [in model]`: what becomes of `out`, where the rule has made `came` of the colour `wanted`. All
/// colours are turned by the angle that brings `came` back to the hue of `wanted`: about the axis r = g = b without a
/// model; in the plane of its second and third component, or by its hue. Neutrals stay, and nothing is turned where
/// either colour is neutral.
colour::Triple reference_held_hue(const colour::Space& space, const lang::ModelShape* model,
                                  const colour::Triple& wanted, const colour::Triple& came, const colour::Triple& out);
colour::NodeTriple held_hue(ir::Graph& graph, const colour::Space& space, const lang::ModelShape* shape,
                            const colour::NodeTriple& wanted, const colour::NodeTriple& came,
                            const colour::NodeTriple& out);

} // namespace kasuri::engine
