// White balance: chromatic adaptation between two whites.
#include "colour/adaptation.hpp"
#include "builtins/row.hpp"

#include <algorithm>

namespace kasuri::builtins {
namespace {

using colour::operator*;
using colour::inverse;

/// Linear light of the space to the cone-like responses of a method.
colour::Matrix3 responses(const colour::Adaptation& method, const colour::Space& space) {
    return colour::times(method.cones, to_xyz(space));
}

} // namespace

std::vector<Builtin> adaptation() {
    Rows table;
    for (const colour::Adaptation& row : colour::adaptations()) {
        const colour::Adaptation* method = &row;
        Builtin& made = table.of_space(
            "adapt_" + std::string(row.name), {"colour", "from", "to"},
            {exactly(vec3_type), per_picture(vec2_type), per_picture(vec2_type)}, exactly(vec3_type),
            "The colour as it would look the same under another white: `from` and `to` are chromaticities x, y of the "
            "two whites, "
            "as vec2(0.3127, 0.3290) for D65. " +
                std::string(row.doc),
            row.source, {{{0.5, 0.25, 0.125, 0.3127, 0.3290, 0.3127, 0.3290}, 0.5}},
            [method](const colour::Space& space, const double* const* x, double* r) {
                const colour::Matrix3 there = to_xyz(space);
                const colour::Triple light = light_of(space, {x[0][0], x[0][1], x[0][2]});
                const colour::Triple seen = numbers_of(
                    space,
                    inverse(there) *
                        (colour::adaptation(*method, {x[1][0], x[1][1]}, {x[2][0], x[2][1]}) * (there * light)));
                std::copy(seen.begin(), seen.end(), r);
            },
            [method](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                const colour::Matrix3 there = responses(*method, space), back = inverse(there);
                const auto response = [&](const NodeId* white, std::size_t k) {
                    const NodeId big_x = g.div(white[0], white[1]),
                                 big_z = g.div(g.sub(g.sub(g.constant(1), white[0]), white[1]), white[1]);
                    const auto& weights = method->cones[k];
                    return g.add(g.add(g.mul(g.constant(weights[0]), big_x), g.constant(weights[1])),
                                 g.mul(g.constant(weights[2]), big_z));
                };
                NodeId ratio[3];
                for (std::size_t k = 0; k < 3; ++k)
                    ratio[k] = g.div(response(x[2], k), response(x[1], k));
                const std::array<NodeId, 3> light = lower_light_of(g, space, {x[0][0], x[0][1], x[0][2]});
                std::array<NodeId, 3> seen{};
                for (std::size_t i = 0; i < 3; ++i) { // once per picture: the rows of the matrix
                    NodeId sum = g.constant(0);
                    for (std::size_t j = 0; j < 3; ++j) {
                        NodeId weight = g.constant(0);
                        for (std::size_t k = 0; k < 3; ++k)
                            weight = g.add(weight, g.mul(g.constant(back[i][k] * there[k][j]), ratio[k]));
                        sum = j == 0 ? g.mul(weight, light[0]) : g.add(sum, g.mul(weight, light[j]));
                    }
                    seen[i] = sum;
                }
                seen = lower_numbers_of(g, space, seen);
                std::copy(seen.begin(), seen.end(), r);
            });
        made.tolerance = 1e-3; // whites of y near 0 magnify rounding without bound
        made.jumps = true;
    }
    return std::move(table.rows);
}

} // namespace kasuri::builtins
