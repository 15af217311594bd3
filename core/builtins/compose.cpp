// W3C Compositing and Blending Level 1, chapter 9.1: the Porter-Duff operators. Colours are straight, so what the
// recommendation writes for premultiplied ones is divided by the resulting alpha; where that is 0 the colour is 0.
#include "builtins/row.hpp"

namespace kasuri::builtins {
namespace {

/// Shares of source and backdrop: constant + slope * alpha of the other one.
struct Shares {
    std::string_view name, doc;
    int source, source_slope;     ///< Fa = source + source_slope * alpha of the backdrop
    int backdrop, backdrop_slope; ///< Fb = backdrop + backdrop_slope * alpha of the source
};
constexpr Shares operators[] = {
    {"compose_clear", "Nothing.", 0, 0, 0, 0},
    {"compose_copy", "The source alone.", 1, 0, 0, 0},
    {"compose_destination", "The backdrop alone.", 0, 0, 1, 0},
    {"compose_source_over", "The source over the backdrop.", 1, 0, 1, -1},
    {"compose_destination_over", "The backdrop over the source.", 1, -1, 1, 0},
    {"compose_source_in", "The source where the backdrop is.", 0, 1, 0, 0},
    {"compose_destination_in", "The backdrop where the source is.", 0, 0, 0, 1},
    {"compose_source_out", "The source where the backdrop is not.", 1, -1, 0, 0},
    {"compose_destination_out", "The backdrop where the source is not.", 0, 0, 1, -1},
    {"compose_source_atop", "The source where the backdrop is, over it.", 0, 1, 1, -1},
    {"compose_destination_atop", "The backdrop where the source is, over it.", 1, -1, 0, 1},
    {"compose_xor", "Either where the other is not.", 1, -1, 1, -1},
};
constexpr std::string_view source = "W3C Compositing and Blending Level 1, 9.1";

double share(int constant, int slope, double alpha) { return constant + slope * alpha; }
NodeId share(Graph& g, int constant, int slope, NodeId alpha) {
    return slope == 0 ? g.constant(constant) : g.add(g.constant(constant), g.mul(g.constant(slope), alpha));
}

template <std::size_t which>
void reference(Shape, const double* const* x, double* r) {
    constexpr Shares o = operators[which];
    const double *b = x[0], *s = x[1];
    const double of_source = s[3] * share(o.source, o.source_slope, b[3]);
    const double of_backdrop = b[3] * share(o.backdrop, o.backdrop_slope, s[3]);
    r[3] = of_source + of_backdrop;
    for (int i = 0; i < 3; ++i)
        r[i] = r[3] == 0 ? 0 : (of_source * s[i] + of_backdrop * b[i]) / r[3];
}
template <std::size_t which>
void lowering(Graph& g, Shape, const NodeId* const* x, NodeId* r) {
    constexpr Shares o = operators[which];
    const NodeId *b = x[0], *s = x[1];
    const NodeId of_source = g.mul(s[3], share(g, o.source, o.source_slope, b[3]));
    const NodeId of_backdrop = g.mul(b[3], share(g, o.backdrop, o.backdrop_slope, s[3]));
    r[3] = g.add(of_source, of_backdrop);
    const NodeId nothing = g.equal(r[3], g.constant(0));
    for (int i = 0; i < 3; ++i)
        r[i] = g.select(nothing, g.constant(0), g.div(g.add(g.mul(of_source, s[i]), g.mul(of_backdrop, b[i])), r[3]));
}

template <std::size_t... which>
void add_all(Rows& table, std::index_sequence<which...>) {
    const lang::Slot layer = exactly(vec4_type);
    const auto add = [&](std::size_t i, auto evaluate, auto lower) {
        // Worked by hand for a backdrop (0.2, -, -) of alpha 0.5 and a source (0.8, -, -) of alpha 0.25.
        const Shares& o = operators[i];
        const double s = 0.25 * (o.source + o.source_slope * 0.5), b = 0.5 * (o.backdrop + o.backdrop_slope * 0.25);
        Builtin& row = table.typed(
            o.name, {"backdrop", "source"}, {layer, layer}, layer, o.doc, source,
            {{{0.2, 0, 0, 0.5, 0.8, 0, 0, 0.25}, s + b == 0 ? 0 : (s * 0.8 + b * 0.2) / (s + b)}}, evaluate, lower);
        row.tolerance = 1e-2; // a resulting alpha near 0 magnifies rounding without bound
        row.jumps = true;
    };
    (add(which, reference<which>, lowering<which>), ...);
}

} // namespace

std::vector<Builtin> compose() {
    Rows table;
    add_all(table, std::make_index_sequence<std::size(operators)>());
    const lang::Slot layer = exactly(vec4_type);
    Builtin& lighter = table.typed(
        "compose_lighter", {"backdrop", "source"}, {layer, layer}, layer,
        "The sum of both, of colour times alpha and of alpha, each at most 1.", source,
        {{{0.2, 0, 0, 0.5, 0.8, 0, 0, 0.25}, 0.3 / 0.75}},
        [](Shape, const double* const* x, double* r) {
            r[3] = minimum(1, x[0][3] + x[1][3]);
            for (int i = 0; i < 3; ++i)
                r[i] = r[3] == 0 ? 0 : minimum(1, x[0][i] * x[0][3] + x[1][i] * x[1][3]) / r[3];
        },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            const NodeId one = g.constant(1);
            r[3] = g.min(one, g.add(x[0][3], x[1][3]));
            const NodeId nothing = g.equal(r[3], g.constant(0));
            for (int i = 0; i < 3; ++i)
                r[i] = g.select(nothing, g.constant(0),
                                g.div(g.min(one, g.add(g.mul(x[0][i], x[0][3]), g.mul(x[1][i], x[1][3]))), r[3]));
        });
    lighter.tolerance = 1e-2;
    lighter.jumps = true;
    return std::move(table.rows);
}

} // namespace kasuri::builtins
