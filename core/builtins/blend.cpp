// W3C Compositing and Blending Level 1, chapters 10.1 (separable) and 10.2 (non-separable): B(cb, cs) of a backdrop
// and a source. Its formulas are for 0..1; they go on outside as they stand, and its "= 1" is read as ">= 1" and its
// "= 0" as "<= 0", which is the same within.
#include "builtins/row.hpp"

namespace kasuri::builtins {
namespace {

constexpr std::string_view separable = "W3C Compositing and Blending Level 1, 10.1";
constexpr std::string_view whole_colours = "W3C Compositing and Blending Level 1, 10.2";
constexpr std::string_view common = "common practice, no source";

double dodge(double b, double s) { return b <= 0 ? 0 : s >= 1 ? 1 : minimum(1, b / (1 - s)); }
double burn(double b, double s) { return b >= 1 ? 1 : s <= 0 ? 0 : 1 - minimum(1, (1 - b) / s); }
double hard(double b, double s) { return s <= 0.5 ? b * 2 * s : 1 - (1 - b) * (1 - (2 * s - 1)); }
double soft(double b, double s) {
    if (s <= 0.5)
        return b - (1 - 2 * s) * b * (1 - b);
    const double d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : std::sqrt(b);
    return b + (2 * s - 1) * (d - b);
}
template <double (*mode)(double, double)>
double guarded(const double* x) {
    return std::isnan(x[0]) || std::isnan(x[1]) ? not_a_number : mode(x[0], x[1]);
}

NodeId keep_nan(Graph& g, NodeId result, NodeId b, NodeId s) {
    return g.select(g.make(Op::is_nan, b), b, g.select(g.make(Op::is_nan, s), s, result));
}
NodeId dodge(Graph& g, NodeId b, NodeId s) {
    const NodeId zero = g.constant(0), one = g.constant(1);
    return g.select(g.less_equal(b, zero), zero,
                    g.select(g.less_equal(one, s), one, g.min(one, g.div(b, g.sub(one, s)))));
}
NodeId burn(Graph& g, NodeId b, NodeId s) {
    const NodeId zero = g.constant(0), one = g.constant(1);
    return g.select(g.less_equal(one, b), one,
                    g.select(g.less_equal(s, zero), zero, g.sub(one, g.min(one, g.div(g.sub(one, b), s)))));
}
NodeId doubled(Graph& g, NodeId s) { return g.mul(g.constant(2), s); }
NodeId screen(Graph& g, NodeId b, NodeId s) {
    return g.sub(g.constant(1), g.mul(g.sub(g.constant(1), b), g.sub(g.constant(1), s)));
}
NodeId hard(Graph& g, NodeId b, NodeId s) {
    const NodeId twice = doubled(g, s);
    return g.select(g.less_equal(s, g.constant(0.5)), g.mul(b, twice), screen(g, b, g.sub(twice, g.constant(1))));
}
NodeId soft(Graph& g, NodeId b, NodeId s) {
    const NodeId one = g.constant(1);
    const NodeId lean = g.sub(doubled(g, s), one); // 2 s - 1
    const NodeId cubic = g.mul(g.add(g.mul(g.sub(g.mul(g.constant(16), b), g.constant(12)), b), g.constant(4)), b);
    const NodeId d = g.select(g.less_equal(b, g.constant(0.25)), cubic, g.make(Op::sqrt, b));
    return g.select(g.less_equal(s, g.constant(0.5)), g.add(b, g.mul(lean, g.mul(b, g.sub(one, b)))),
                    g.add(b, g.mul(lean, g.sub(d, b))));
}

// 10.2: the four helpers of the recommendation.
constexpr double lum_weights[3] = {0.3, 0.59, 0.11};
double lum(const double* c) { return lum_weights[0] * c[0] + lum_weights[1] * c[1] + lum_weights[2] * c[2]; }
double sat(const double* c) { return maximum(maximum(c[0], c[1]), c[2]) - minimum(minimum(c[0], c[1]), c[2]); }
void set_lum(const double* c, double to, double* r) {
    const double by = to - lum(c);
    for (int i = 0; i < 3; ++i)
        r[i] = c[i] + by;
    const double l = lum(r), low = minimum(minimum(r[0], r[1]), r[2]), high = maximum(maximum(r[0], r[1]), r[2]);
    if (low < 0)
        for (int i = 0; i < 3; ++i)
            r[i] = l + (r[i] - l) * l / (l - low);
    if (high > 1)
        for (int i = 0; i < 3; ++i)
            r[i] = l + (r[i] - l) * (1 - l) / (high - l);
}
void set_sat(const double* c, double to, double* r) {
    const double low = minimum(minimum(c[0], c[1]), c[2]), range = sat(c);
    for (int i = 0; i < 3; ++i)
        r[i] = range > 0 ? (c[i] - low) * to / range : range == 0 ? 0 : not_a_number;
}

NodeId lum(Graph& g, const NodeId* c) {
    return g.add(g.add(g.mul(g.constant(lum_weights[0]), c[0]), g.mul(g.constant(lum_weights[1]), c[1])),
                 g.mul(g.constant(lum_weights[2]), c[2]));
}
NodeId lowest(Graph& g, const NodeId* c) { return g.min(g.min(c[0], c[1]), c[2]); }
NodeId highest(Graph& g, const NodeId* c) { return g.max(g.max(c[0], c[1]), c[2]); }
NodeId sat(Graph& g, const NodeId* c) { return g.sub(highest(g, c), lowest(g, c)); }
void set_lum(Graph& g, const NodeId* c, NodeId to, NodeId* r) {
    const NodeId by = g.sub(to, lum(g, c));
    NodeId moved[3];
    for (int i = 0; i < 3; ++i)
        moved[i] = g.add(c[i], by);
    const NodeId l = lum(g, moved), low = lowest(g, moved), high = highest(g, moved);
    const NodeId below = g.less(low, g.constant(0)), above = g.less(g.constant(1), high);
    const NodeId lift = g.select(below, g.div(l, g.sub(l, low)), g.constant(1));
    const NodeId press = g.select(above, g.div(g.sub(g.constant(1), l), g.sub(high, l)), g.constant(1));
    for (int i = 0; i < 3; ++i) {
        const NodeId lifted = g.select(below, g.add(l, g.mul(g.sub(moved[i], l), lift)), moved[i]);
        r[i] = g.select(above, g.add(l, g.mul(g.sub(lifted, l), press)), lifted);
    }
}
void set_sat(Graph& g, const NodeId* c, NodeId to, NodeId* r) {
    const NodeId low = lowest(g, c), range = sat(g, c);
    const NodeId flat = g.equal(range, g.constant(0));
    for (int i = 0; i < 3; ++i)
        r[i] = g.select(flat, g.constant(0), g.div(g.mul(g.sub(c[i], low), to), range));
}

} // namespace

std::vector<Builtin> blend() {
    Rows table;
    const std::vector<std::string_view> layers = {"backdrop", "source"};
    const auto add = [&](std::string_view name, std::string_view doc, std::string_view source, std::vector<Case> cases,
                         double (*reference)(const double*), NodeId (*lowering)(Graph&, const NodeId*)) -> Builtin& {
        return table.componentwise(name, layers, doc, source, std::move(cases), reference, lowering);
    };
    add(
        "blend_normal", "The source.", separable, {{{0.25, 0.75}, 0.75}}, [](const double* x) { return x[1]; },
        [](Graph&, const NodeId* x) { return x[1]; });
    add(
        "blend_multiply", "Product: never lighter within 0..1.", separable, {{{0.5, 0.5}, 0.25}},
        [](const double* x) { return x[0] * x[1]; }, [](Graph& g, const NodeId* x) { return g.mul(x[0], x[1]); });
    add(
        "blend_screen", "Product of the complements, complemented: never darker within 0..1.", separable,
        {{{0.5, 0.5}, 0.75}}, [](const double* x) { return 1 - (1 - x[0]) * (1 - x[1]); },
        [](Graph& g, const NodeId* x) { return screen(g, x[0], x[1]); });
    add(
        "blend_overlay", "Multiplies dark and screens light backdrops.", separable,
        {{{0.25, 0.5}, 0.25}, {{0.75, 0.5}, 0.75}}, [](const double* x) { return hard(x[1], x[0]); },
        [](Graph& g, const NodeId* x) { return hard(g, x[1], x[0]); });
    add(
        "blend_darken", "The smaller one.", separable, {{{0.25, 0.5}, 0.25}},
        [](const double* x) { return minimum(x[0], x[1]); },
        [](Graph& g, const NodeId* x) { return g.min(x[0], x[1]); });
    add(
        "blend_lighten", "The larger one.", separable, {{{0.25, 0.5}, 0.5}},
        [](const double* x) { return maximum(x[0], x[1]); },
        [](Graph& g, const NodeId* x) { return g.max(x[0], x[1]); });
    add("blend_color_dodge", "Brightens the backdrop to show the source.", separable,
        {{{0.25, 0.5}, 0.5}, {{0, 1}, 0}, {{0.1, 1}, 1}}, guarded<dodge>,
        [](Graph& g, const NodeId* x) { return keep_nan(g, dodge(g, x[0], x[1]), x[0], x[1]); })
        .jumps = true;
    add("blend_color_burn", "Darkens the backdrop to show the source.", separable,
        {{{0.75, 0.5}, 0.5}, {{1, 0}, 1}, {{0.9, 0}, 0}}, guarded<burn>,
        [](Graph& g, const NodeId* x) { return keep_nan(g, burn(g, x[0], x[1]), x[0], x[1]); })
        .jumps = true;
    add("blend_hard_light", "Multiplies where the source is dark, screens where it is light.", separable,
        {{{0.5, 0.25}, 0.25}, {{0.5, 0.75}, 0.75}}, guarded<hard>,
        [](Graph& g, const NodeId* x) { return hard(g, x[0], x[1]); });
    add("blend_soft_light", "Darkens or lightens as a diffuse light would.", separable,
        {{{0.5, 0.25}, 0.375}, {{0.25, 1}, 0.5}}, guarded<soft>,
        [](Graph& g, const NodeId* x) { return soft(g, x[0], x[1]); });
    add(
        "blend_difference", "Distance of the two.", separable, {{{0.25, 0.75}, 0.5}},
        [](const double* x) { return std::fabs(x[0] - x[1]); },
        [](Graph& g, const NodeId* x) { return g.make(Op::abs, g.sub(x[0], x[1])); });
    add(
        "blend_exclusion", "Like difference, with less contrast.", separable, {{{0.5, 0.75}, 0.5}},
        [](const double* x) { return x[0] + x[1] - 2 * x[0] * x[1]; },
        [](Graph& g, const NodeId* x) { return g.sub(g.add(x[0], x[1]), doubled(g, g.mul(x[0], x[1]))); });

    const auto add_whole = [&](std::string_view name, std::string_view doc, std::string_view source,
                               std::vector<Case> cases, void (*reference)(Shape, const double* const*, double*),
                               void (*lowering)(Graph&, Shape, const NodeId* const*, NodeId*)) -> Builtin& {
        return table.typed(name, layers, {exactly(vec3_type), exactly(vec3_type)}, exactly(vec3_type), doc, source,
                           std::move(cases), reference, lowering);
    };
    add_whole(
        "blend_hue", "Hue of the source with saturation and luminosity of the backdrop.", whole_colours,
        {{{0.5, 0.5, 0.5, 1, 0, 0}, 0.5}},
        [](Shape, const double* const* x, double* r) {
            double c[3];
            set_sat(x[1], sat(x[0]), c);
            set_lum(c, lum(x[0]), r);
        },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            NodeId c[3];
            set_sat(g, x[1], sat(g, x[0]), c);
            set_lum(g, c, lum(g, x[0]), r);
        })
        .tolerance = 1e-3;
    add_whole(
        "blend_saturation", "Saturation of the source with hue and luminosity of the backdrop.", whole_colours,
        {{{1, 0, 0, 0.5, 0.5, 0.5}, 0.3}},
        [](Shape, const double* const* x, double* r) {
            double c[3];
            set_sat(x[0], sat(x[1]), c);
            set_lum(c, lum(x[0]), r);
        },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            NodeId c[3];
            set_sat(g, x[0], sat(g, x[1]), c);
            set_lum(g, c, lum(g, x[0]), r);
        })
        .tolerance = 1e-3;
    add_whole(
        "blend_color", "Hue and saturation of the source with the luminosity of the backdrop.", whole_colours,
        {{{0.5, 0.5, 0.5, 0.5, 0.5, 0.5}, 0.5}},
        [](Shape, const double* const* x, double* r) { set_lum(x[1], lum(x[0]), r); },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) { set_lum(g, x[1], lum(g, x[0]), r); })
        .tolerance = 1e-3;
    add_whole(
        "blend_luminosity", "Luminosity of the source with hue and saturation of the backdrop.", whole_colours,
        {{{0.25, 0.25, 0.25, 1, 1, 1}, 1}},
        [](Shape, const double* const* x, double* r) { set_lum(x[0], lum(x[1]), r); },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) { set_lum(g, x[0], lum(g, x[1]), r); })
        .tolerance = 1e-3;

    add(
        "blend_linear_burn", "backdrop + source - 1.", common, {{{0.75, 0.5}, 0.25}},
        [](const double* x) { return x[0] + x[1] - 1; },
        [](Graph& g, const NodeId* x) { return g.sub(g.add(x[0], x[1]), g.constant(1)); });
    add(
        "blend_linear_dodge", "backdrop + source.", common, {{{0.75, 0.5}, 1.25}},
        [](const double* x) { return x[0] + x[1]; }, [](Graph& g, const NodeId* x) { return g.add(x[0], x[1]); });
    add(
        "blend_subtract", "backdrop - source.", common, {{{0.75, 0.5}, 0.25}},
        [](const double* x) { return x[0] - x[1]; }, [](Graph& g, const NodeId* x) { return g.sub(x[0], x[1]); });
    add(
        "blend_divide", "backdrop / source.", common, {{{0.25, 0.5}, 0.5}}, [](const double* x) { return x[0] / x[1]; },
        [](Graph& g, const NodeId* x) { return g.div(x[0], x[1]); });
    add(
        "blend_vivid_light", "Burns where the source is dark, dodges where it is light.", common,
        {{{0.75, 0.25}, 0.5}, {{0.25, 0.75}, 0.5}},
        [](const double* x) {
            return std::isnan(x[0]) || std::isnan(x[1]) ? not_a_number
                : x[1] <= 0.5                           ? burn(x[0], 2 * x[1])
                                                        : dodge(x[0], 2 * x[1] - 1);
        },
        [](Graph& g, const NodeId* x) {
            const NodeId twice = doubled(g, x[1]);
            const NodeId made = g.select(g.less_equal(x[1], g.constant(0.5)), burn(g, x[0], twice),
                                         dodge(g, x[0], g.sub(twice, g.constant(1))));
            return keep_nan(g, made, x[0], x[1]);
        })
        .jumps = true;
    add(
        "blend_linear_light", "backdrop + 2 source - 1.", common, {{{0.5, 0.75}, 1}},
        [](const double* x) { return x[0] + 2 * x[1] - 1; },
        [](Graph& g, const NodeId* x) { return g.sub(g.add(x[0], doubled(g, x[1])), g.constant(1)); });
    add(
        "blend_pin_light", "Darkens where the source is dark, lightens where it is light.", common,
        {{{0.75, 0.25}, 0.5}, {{0.25, 0.75}, 0.5}},
        [](const double* x) {
            return std::isnan(x[1]) ? not_a_number
                : x[1] <= 0.5       ? minimum(x[0], 2 * x[1])
                                    : maximum(x[0], 2 * x[1] - 1);
        },
        [](Graph& g, const NodeId* x) {
            const NodeId twice = doubled(g, x[1]);
            return g.select(g.less_equal(x[1], g.constant(0.5)), g.min(x[0], twice),
                            g.max(x[0], g.sub(twice, g.constant(1))));
        });
    add(
        "blend_hard_mix", "1 where backdrop + source is 1 or more, else 0.", common,
        {{{0.5, 0.5}, 1}, {{0.25, 0.5}, 0}},
        [](const double* x) { return std::isnan(x[0] + x[1]) ? not_a_number
                                  : x[0] + x[1] >= 1         ? 1.0
                                                             : 0.0; },
        [](Graph& g, const NodeId* x) {
            const NodeId sum = g.add(x[0], x[1]);
            return g.select(g.less_equal(g.constant(1), sum), g.constant(1),
                            g.select(g.less(sum, g.constant(1)), g.constant(0), sum));
        })
        .jumps = true;
    add_whole(
        "blend_darker_color", "Of the two colours the one of lower luminosity; the backdrop if they are equal.", common,
        {{{0.25, 0, 0, 0.5, 0.5, 0.5}, 0.25}},
        [](Shape, const double* const* x, double* r) {
            for (int i = 0; i < 3; ++i)
                r[i] = lum(x[1]) < lum(x[0]) ? x[1][i] : x[0][i];
        },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            const NodeId darker = g.less(lum(g, x[1]), lum(g, x[0]));
            for (int i = 0; i < 3; ++i)
                r[i] = g.select(darker, x[1][i], x[0][i]);
        })
        .jumps = true;
    add_whole(
        "blend_lighter_color", "Of the two colours the one of higher luminosity; the backdrop if they are equal.",
        common, {{{0.25, 0, 0, 0.5, 0.5, 0.5}, 0.5}},
        [](Shape, const double* const* x, double* r) {
            for (int i = 0; i < 3; ++i)
                r[i] = lum(x[0]) < lum(x[1]) ? x[1][i] : x[0][i];
        },
        [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            const NodeId lighter = g.less(lum(g, x[0]), lum(g, x[1]));
            for (int i = 0; i < 3; ++i)
                r[i] = g.select(lighter, x[1][i], x[0][i]);
        })
        .jumps = true;
    return std::move(table.rows);
}

} // namespace kasuri::builtins
