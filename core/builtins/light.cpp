#include "builtins/row.hpp"

#include <algorithm>

namespace kasuri::builtins {
namespace {

double weighted(const double* c, const colour::Triple& by) { return by[0] * c[0] + by[1] * c[1] + by[2] * c[2]; }
NodeId weighted(Graph& g, const NodeId* c, const colour::Triple& by) {
    return g.add(g.add(g.mul(g.constant(by[0]), c[0]), g.mul(g.constant(by[1]), c[1])), g.mul(g.constant(by[2]), c[2]));
}

constexpr std::string_view luminance_source =
    "CIE 15:2018, Y of linear light; weights of the working space's primaries and white by SMPTE RP 177";

} // namespace

std::vector<Builtin> light() {
    Rows table;
    const lang::Slot colour_slot = exactly(vec3_type), number = exactly(float_type);
    Builtin& luminance = table.add(
        "luminance", {"colour"},
        "Luminance Y of a colour of the working space: the weighted sum of its linear light. A display-encoded working "
        "space is decoded first. The same as xyz( ).y.",
        luminance_source, {{{1, 1, 1}, 1}, {{0, 1, 0}, 0.71516867876775593}});
    luminance.form = Form::of_space;
    luminance.takes = {colour_slot};
    luminance.gives = number;
    luminance.space_reference = [](const colour::Space& space, const double* const* x, double* r) {
        const colour::Triple linear = light_of(space, {x[0][0], x[0][1], x[0][2]});
        *r = weighted(linear.data(), luminance_weights(space));
    };
    luminance.space_lowering = [](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
        const std::array<NodeId, 3> linear = lower_light_of(g, space, {x[0][0], x[0][1], x[0][2]});
        *r = weighted(g, linear.data(), luminance_weights(space));
    };

    Builtin& with_luminance =
        table.add("with_luminance", {"colour", "y"},
                  "The colour scaled, in linear light, to the luminance y. Where its own luminance is 0 or negative, "
                  "light is added to "
                  "all three channels alike instead, so black becomes the grey of that luminance.",
                  "own definition, as its line says", {{{0.5, 0.5, 0.5, 0.25}, 0.25}, {{0, 0, 0, 0.5}, 0.5}});
    with_luminance.form = Form::of_space;
    with_luminance.takes = {colour_slot, number};
    with_luminance.gives = colour_slot;
    with_luminance.tolerance = 2e-5;
    with_luminance.space_reference = [](const colour::Space& space, const double* const* x, double* r) {
        colour::Triple linear = light_of(space, {x[0][0], x[0][1], x[0][2]});
        const double own = weighted(linear.data(), luminance_weights(space));
        for (double& channel : linear)
            channel = own <= 0 ? channel + (*x[1] - own) : channel * (*x[1] / own);
        linear = numbers_of(space, linear);
        std::copy(linear.begin(), linear.end(), r);
    };
    with_luminance.space_lowering = [](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
        std::array<NodeId, 3> linear = lower_light_of(g, space, {x[0][0], x[0][1], x[0][2]});
        const NodeId own = weighted(g, linear.data(), luminance_weights(space));
        const NodeId dark = g.less_equal(own, g.constant(0));
        const NodeId factor = g.div(*x[1], own), missing = g.sub(*x[1], own);
        for (NodeId& channel : linear)
            channel = g.select(dark, g.add(channel, missing), g.mul(channel, factor));
        linear = lower_numbers_of(g, space, linear);
        std::copy(linear.begin(), linear.end(), r);
    };

    table.of_space(
        "luma", {"colour"}, {colour_slot}, number,
        "Luma Y' of a colour of the working space: the weighted sum of its numbers as they are, which is right for "
        "display-encoded ones. With BT.709's primaries 0.2126 r + 0.7152 g + 0.0722 b, with BT.2020's 0.2627 r + "
        "0.6780 g + 0.0593 b, rounded as the standards have it; with others the weights of luminance.",
        "ITU-R BT.709-6, item 3.2; ITU-R BT.2020-2, Table 4", {{{1, 0, 0}, 0.2126}, {{1, 1, 1}, 1}},
        [](const colour::Space& space, const double* const* x, double* r) { *r = weighted(x[0], luma_weights(space)); },
        [](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
            *r = weighted(g, x[0], luma_weights(space));
        });
    table.typed(
        "average", {"colour"}, {colour_slot}, number, "(r + g + b) / 3.", "by definition", {{{1, 2, 6}, 3}},
        [](Shape, const double* const* x, double* r) { *r = (x[0][0] + x[0][1] + x[0][2]) / 3; },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            *r = g.mul(g.add(g.add(x[0][0], x[0][1]), x[0][2]), g.constant(1.0 / 3));
        });
    table
        .typed(
            "mono", {"colour", "weights"}, {colour_slot, colour_slot}, number,
            "Weighted sum of the channels, the weights divided by their sum, so that greys stay: mono(rgb, vec3(3, 6, "
            "1)).",
            "by definition", {{{1, 2, 5, 1, 2, 1}, 2.5}, {{1, 2, 5, 0, 0, 7}, 5}},
            [](Shape, const double* const* x, double* r) {
                *r = (x[0][0] * x[1][0] + x[0][1] * x[1][1] + x[0][2] * x[1][2]) / (x[1][0] + x[1][1] + x[1][2]);
            },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
                const NodeId by = g.div(g.constant(1), g.add(g.add(x[1][0], x[1][1]), x[1][2]));
                *r = g.add(g.add(g.mul(g.mul(x[1][0], by), x[0][0]), g.mul(g.mul(x[1][1], by), x[0][1])),
                           g.mul(g.mul(x[1][2], by), x[0][2]));
            })
        .tolerance = 2e-2; // weights that nearly cancel magnify rounding without bound
    return std::move(table.rows);
}

} // namespace kasuri::builtins
