// How colours are seen by people who lack a cone, or have one that is shifted.
#include "colour/vision.hpp"
#include "builtins/row.hpp"
#include "colour/space.hpp"

#include <algorithm>

namespace kasuri::builtins {
namespace {

using colour::Matrix3;
using colour::Triple;

/// In whose light the tables are.
const colour::Space& display() { return *colour::find_space("rec709-linear"); }

/// `by` makes what is seen of linear light.
template <class By>
void seen(const colour::Space& space, const double* colour, By&& by, double* r) {
    const Triple made =
        colour::converted(by(colour::converted({colour[0], colour[1], colour[2]}, space, display())), display(), space);
    std::copy(made.begin(), made.end(), r);
}

/// A matrix whose weights `weight(i, j)` makes, times light.
template <class Weight>
std::array<NodeId, 3> weighted(Graph& g, const std::array<NodeId, 3>& light, Weight&& weight) {
    std::array<NodeId, 3> made{};
    for (std::size_t i = 0; i < 3; ++i)
        made[i] =
            g.add(g.add(g.mul(weight(i, 0), light[0]), g.mul(weight(i, 1), light[1])), g.mul(weight(i, 2), light[2]));
    return made;
}

template <class By>
void lower_seen(Graph& g, const colour::Space& space, const NodeId* colour, By&& by, NodeId* r) {
    const std::array<NodeId, 3> light = colour::lower_converted(g, {colour[0], colour[1], colour[2]}, space, display());
    const std::array<NodeId, 3> made = colour::lower_converted(g, by(light), display(), space);
    std::copy(made.begin(), made.end(), r);
}

} // namespace

std::vector<Builtin> vision() {
    Rows table;
    for (const colour::Deficiency& row : colour::deficiencies()) {
        const colour::Deficiency* const who = &row;
        Builtin& made = table.of_space(
            row.name, {"colour", "severity"}, {exactly(vec3_type), per_picture(float_type)}, exactly(vec3_type),
            "As the colour is seen by others, from 0 (like most people) to 1. " + std::string(row.doc),
            "Machado, Oliveira and Fernandes 2009, IEEE TVCG 15(6), 1291, table 1; between its rows by straight lines",
            {{{0.5, 0.5, 0.5, 1}, 0.5}, {{1, 0, 0, 1}, row.by_severity[10][0][0]}, {{0.25, 0.5, 0.75, 0}, 0.25}},
            [who](const colour::Space& space, const double* const* x, double* r) {
                using colour::operator*;
                seen(
                    space, x[0], [&](const Triple& light) { return colour::seen_by(*who, x[1][0]) * light; }, r);
            },
            [who](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                // Once per picture: how near the severity is to each row of the table.
                const NodeId place =
                    g.mul(g.constant(10), g.make(Op::min, g.make(Op::max, x[1][0], g.constant(0)), g.constant(1)));
                std::array<NodeId, 11> near{};
                for (std::size_t k = 0; k < near.size(); ++k)
                    near[k] =
                        g.make(Op::max, g.constant(0),
                               g.sub(g.constant(1), g.make(Op::abs, g.sub(place, g.constant(static_cast<double>(k))))));
                const auto weight = [&](std::size_t i, std::size_t j) {
                    NodeId sum = g.constant(0);
                    for (std::size_t k = 0; k < near.size(); ++k)
                        sum = g.add(sum, g.mul(g.constant(who->by_severity[k][i][j]), near[k]));
                    return sum;
                };
                lower_seen(
                    g, space, x[0], [&](const auto& light) { return weighted(g, light, weight); }, r);
            });
        made.jumps = true;
    }
    for (const colour::Dichromat& row : colour::dichromats()) {
        const colour::Dichromat* const who = &row;
        table
            .of_space(
                row.name, {"colour"}, {exactly(vec3_type)}, exactly(vec3_type),
                "As the colour is seen by others. " + std::string(row.doc), row.source, {{{0.5, 0.5, 0.5}, 0.5}},
                [who](const colour::Space& space, const double* const* x, double* r) {
                    seen(
                        space, x[0], [&](const Triple& light) { return colour::seen_by(*who, light); }, r);
                },
                [who](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                    const auto by = [&](const Matrix3& matrix, const std::array<NodeId, 3>& light) {
                        return weighted(g, light,
                                        [&](std::size_t i, std::size_t j) { return g.constant(matrix[i][j]); });
                    };
                    lower_seen(
                        g, space, x[0],
                        [&](const std::array<NodeId, 3>& light) {
                            std::array<NodeId, 3> made = by(who->seen, light);
                            if (who->side == Triple{})
                                return made;
                            NodeId side = g.mul(g.constant(who->side[0]), light[0]);
                            for (std::size_t j = 1; j < 3; ++j)
                                side = g.add(side, g.mul(g.constant(who->side[j]), light[j]));
                            const NodeId is_beyond = g.less(side, g.constant(0));
                            const std::array<NodeId, 3> beyond = by(who->beyond, light);
                            for (std::size_t i = 0; i < 3; ++i)
                                made[i] = g.select(is_beyond, beyond[i], made[i]);
                            return made;
                        },
                        r);
                })
            .tolerance = 2e-5;
    }
    const auto grey = [](const Triple& light) {
        const double y = colour::luminance(light);
        return Triple{y, y, y};
    };
    table.of_space(
        "achromat", {"colour"}, {exactly(vec3_type)}, exactly(vec3_type),
        "As the colour is seen without any cones that differ: the grey of its luminance.",
        "luminance as CIE 15:2018 has it; that it stands for monochromacy is common practice, no source",
        {{{0.5, 0.5, 0.5}, 0.5}, {{0, 1, 0}, 0.71516867876775593}},
        [grey](const colour::Space& space, const double* const* x, double* r) { seen(space, x[0], grey, r); },
        [](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
            const Triple weights = colour::luminance_weights(display());
            lower_seen(
                g, space, x[0],
                [&](const auto& light) {
                    return weighted(g, light, [&](std::size_t, std::size_t j) { return g.constant(weights[j]); });
                },
                r);
        });
    return std::move(table.rows);
}

} // namespace kasuri::builtins
