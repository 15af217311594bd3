// How far two colours are apart, each measure for colours of the working space and for the model it is defined on.
#include "builtins/model_types.hpp"
#include "builtins/row.hpp"
#include "colour/difference.hpp"

#include <set>

namespace kasuri::builtins {

std::vector<Builtin> measures() {
    Rows table;
    std::set<std::string_view> named;
    for (const colour::Difference& row : colour::differences()) {
        const colour::Difference* difference = &row;
        const lang::Slot own = exactly(type_of(row.model));
        const auto read = [](const double* x) { return colour::Triple{x[0], x[1], x[2]}; };
        const auto nodes = [](const NodeId* x) { return colour::NodeTriple{x[0], x[1], x[2]}; };
        if (named.insert(row.name).second) {
            Builtin& plain = table.of_space(
                row.name, {"x", "y"}, {exactly(vec3_type), exactly(vec3_type)}, exactly(float_type),
                std::string(row.doc) + " Of two colours of the working space, by way of " +
                    std::string(row.model.name) + ".",
                row.source, {{{0.5, 0.5, 0.5, 0.5, 0.5, 0.5}, 0}},
                [difference, read](const colour::Space& space, const double* const* x, double* r) {
                    *r = difference->of(colour::from_rgb(difference->model, space, read(x[0])),
                                        colour::from_rgb(difference->model, space, read(x[1])));
                },
                [difference, nodes](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                    *r = difference->lower(g, colour::lower_from_rgb(g, difference->model, space, nodes(x[0])),
                                           colour::lower_from_rgb(g, difference->model, space, nodes(x[1])));
                });
            plain.tolerance = row.name == "delta_e_2000" ? 2e-4 : 1e-4; // of units of which one can just be seen
            plain.jumps = row.name == "delta_e_2000";
        }
        Builtin& direct = table.typed(
            row.name, {"x", "y"}, {own, own}, exactly(float_type), row.doc, row.source, {{{50, 10, 10, 50, 10, 10}, 0}},
            [](Shape, const double* const*, double*) {}, [](Graph&, Shape, const NodeId* const*, NodeId*) {});
        direct.whole_reference = [difference, read](Shape, const double* const* x, double* r) {
            *r = difference->of(read(x[0]), read(x[1]));
        };
        direct.whole_lowering = [difference, nodes](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            *r = difference->lower(g, nodes(x[0]), nodes(x[1]));
        };
        direct.tolerance = 1e-4;
        direct.jumps = row.name == "delta_e_2000";
    }
    return std::move(table.rows);
}

} // namespace kasuri::builtins
