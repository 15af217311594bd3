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

void seen(const colour::Space& space, const double* colour, const Matrix3& matrix, double* r) {
    using colour::operator*;
    const Triple light = matrix * colour::converted({colour[0], colour[1], colour[2]}, space, display());
    const Triple made = colour::converted(light, display(), space);
    std::copy(made.begin(), made.end(), r);
}

/// `weight(i, j)` makes a node.
template <class Weight>
void lower_seen(Graph& g, const colour::Space& space, const NodeId* colour, Weight&& weight, NodeId* r) {
    const auto light = colour::lower_converted(g, {colour[0], colour[1], colour[2]}, space, display());
    std::array<NodeId, 3> made{};
    for (std::size_t i = 0; i < 3; ++i)
        made[i] =
            g.add(g.add(g.mul(weight(i, 0), light[0]), g.mul(weight(i, 1), light[1])), g.mul(weight(i, 2), light[2]));
    made = colour::lower_converted(g, made, display(), space);
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
                seen(space, x[0], colour::seen_by(*who, x[1][0]), r);
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
                lower_seen(g, space, x[0], weight, r);
            });
        made.jumps = true;
    }
    for (const colour::Dichromat& row : colour::dichromats()) {
        const Matrix3* const matrix = &row.seen;
        table.of_space(
            row.name, {"colour"}, {exactly(vec3_type)}, exactly(vec3_type),
            "As the colour is seen by others. " + std::string(row.doc) +
                " Black, white and blue stay; the published way to bring all results into range first is left out.",
            "Vi\u00e9not, Brettel and Mollon 1999, Color Research and Application 24(4), 243",
            {{{0.5, 0.5, 0.5}, 0.5}, {{0, 0, 1}, 0}},
            [matrix](const colour::Space& space, const double* const* x, double* r) { seen(space, x[0], *matrix, r); },
            [matrix](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                lower_seen(
                    g, space, x[0], [&](std::size_t i, std::size_t j) { return g.constant((*matrix)[i][j]); }, r);
            });
    }
    return std::move(table.rows);
}

} // namespace kasuri::builtins
