// Colours of the working space in every other one, and whether they are inside it.
#include "builtins/row.hpp"

#include <algorithm>

namespace kasuri::builtins {
namespace {

constexpr std::string_view source =
    "SMPTE RP 177 and the documents of the spaces; a different white by the Bradford transform";

std::string name_of(std::string_view prefix, const colour::Space& space) {
    std::string name = std::string(prefix) + std::string(space.name);
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
}

} // namespace

std::vector<Builtin> space_functions() {
    Rows table;
    const lang::Slot colour_slot = exactly(vec3_type);
    for (const colour::Space& row : colour::spaces()) {
        const colour::Space* other = &row;
        const double white = transfer_of(row).encode(row.white_level);
        const auto there = [other](const colour::Space& space, const double* const* x, double* r) {
            const colour::Triple made = colour::converted({x[0][0], x[0][1], x[0][2]}, space, *other);
            std::copy(made.begin(), made.end(), r);
        };
        const auto lower_there = [other](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
            const colour::NodeTriple made = colour::lower_converted(g, {x[0][0], x[0][1], x[0][2]}, space, *other);
            std::copy(made.begin(), made.end(), r);
        };
        Builtin& to = table.of_space(name_of("to_", row), {"colour"}, {colour_slot}, colour_slot,
                                     "A colour of the working space as numbers of " + std::string(row.name) + ". " +
                                         std::string(row.doc),
                                     source, {{{1, 1, 1}, white}}, there, lower_there);
        to.space = other;
        Builtin& from = table.of_space(
            name_of("from_", row), {"colour"}, {colour_slot}, colour_slot,
            "Numbers of " + std::string(row.name) + " as a colour of the working space.", source,
            {{{white, white, white}, 1}},
            [other](const colour::Space& space, const double* const* x, double* r) {
                const colour::Triple made = colour::converted({x[0][0], x[0][1], x[0][2]}, *other, space);
                std::copy(made.begin(), made.end(), r);
            },
            [other](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                const colour::NodeTriple made = colour::lower_converted(g, {x[0][0], x[0][1], x[0][2]}, *other, space);
                std::copy(made.begin(), made.end(), r);
            });
        from.space = other;
        Builtin& outside = table.of_space(
            name_of("outside_", row), {"colour"}, {colour_slot}, exactly(float_type),
            "How far a colour of the working space is outside 0..1 of " + std::string(row.name) +
                ": the most that a channel is below 0 or above 1 there, and 0 where it is inside.",
            "own definition, as its line says", {{{0.25, 0.25, 0.25}, 0}},
            [there](const colour::Space& space, const double* const* x, double* r) {
                double made[3];
                there(space, x, made);
                *r = 0;
                for (const double channel : made)
                    *r = std::isnan(channel) || std::isnan(*r) ? not_a_number
                                                               : std::fmax(*r, std::fmax(-channel, channel - 1));
            },
            [lower_there](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                NodeId made[3];
                lower_there(g, space, x, made);
                const NodeId high = g.max(g.max(made[0], made[1]), made[2]),
                             low = g.min(g.min(made[0], made[1]), made[2]);
                *r = g.max(g.max(g.sub(high, g.constant(1)), g.neg(low)), g.constant(0));
            });
        outside.space = other;
    }
    return std::move(table.rows);
}

} // namespace kasuri::builtins
