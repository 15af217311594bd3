// Signals as they are carried: narrow-range codes, and what a display makes of them.
#include "builtins/code_values.hpp"
#include "colour/transfer.hpp"

#include <algorithm>
#include <numbers>

namespace kasuri::builtins {
namespace {

/// One kind of narrow-range code: signal 0 and 1 of 8 bits are `zero` and `zero + span`, and 2^(bits - 8) times that.
struct Narrow {
    std::string_view encode, decode, doc_encode, doc_decode;
    double zero, span;
    std::vector<Case> there, back;
};

constexpr std::string_view narrow_source = "ITU-R BT.709-6, items 5.4 and 5.6; BT.2020-2, Table 5; BT.2100-2, Table 9";

void add(Rows& table, const Narrow& row) {
    const double zero = row.zero, span = row.span;
    table.componentwise(
        row.encode, {"x", "bits"}, row.doc_encode, narrow_source, row.there,
        [zero, span](const double* x) {
            return std::isnan(x[1]) ? not_a_number : (span * x[0] + zero) * std::exp2(bits_of(x[1]) - 8) / levels(x[1]);
        },
        [zero, span](Graph& g, const NodeId* x) {
            const NodeId one_of_8 = g.div(g.make(Op::exp2, g.sub(bits_of(g, x[1]), g.constant(8))), levels(g, x[1]));
            return g.mul(g.add(g.mul(g.constant(span), x[0]), g.constant(zero)), one_of_8);
        });
    table
        .componentwise(
            row.decode, {"x", "bits"}, row.doc_decode, narrow_source, row.back,
            [zero, span](const double* x) {
                return std::isnan(x[1]) ? not_a_number
                                        : (x[0] * levels(x[1]) * std::exp2(8 - bits_of(x[1])) - zero) / span;
            },
            [zero, span](Graph& g, const NodeId* x) {
                const NodeId in_8 = g.mul(levels(g, x[1]), g.make(Op::exp2, g.sub(g.constant(8), bits_of(g, x[1]))));
                return g.mul(g.sub(g.mul(x[0], in_8), g.constant(zero)), g.constant(1 / span));
            })
        .tolerance = 2e-5;
}

/// ITU-R BT.1886, Annex 1: L = a max(V + b, 0)^2.4.
struct Display1886 {
    double a, b;
    Display1886(double white, double black) {
        const double top = std::pow(std::fmax(white, 0), 1 / 2.4), low = std::pow(std::fmax(black, 0), 1 / 2.4);
        a = std::pow(top - low, 2.4);
        b = low / (top - low);
    }
};
struct LoweredDisplay1886 {
    NodeId a, b;
    LoweredDisplay1886(Graph& g, NodeId white, NodeId black) {
        const auto root = [&](NodeId x) {
            return g.make(Op::pow, g.make(Op::max, x, g.constant(0)), g.constant(1 / 2.4));
        };
        const NodeId low = root(black), room = g.sub(root(white), low);
        a = g.make(Op::pow, room, g.constant(2.4));
        b = g.div(low, room);
    }
};

/// The weights of luminance in the system gamma of HLG, rounded as the standard has them (ITU-R BT.2100-2, Table 5).
constexpr colour::Triple hlg_weights = {0.2627, 0.6780, 0.0593};

/// More of the signal than any display's black takes, so that there is always a way back.
constexpr double most_lift = 0.9;

double hlg_lift(double peak, double gamma, double black) {
    return minimum(std::sqrt(3 * std::pow(maximum(black, 0) / peak, 1 / gamma)), most_lift);
}
NodeId hlg_lift(Graph& g, NodeId peak, NodeId gamma, NodeId black) {
    const NodeId share = g.div(g.make(Op::max, black, g.constant(0)), peak);
    const NodeId lift = g.make(Op::sqrt, g.mul(g.constant(3), g.make(Op::pow, share, g.div(g.constant(1), gamma))));
    return g.make(Op::min, lift, g.constant(most_lift));
}
NodeId hlg_sum(Graph& g, const std::array<NodeId, 3>& c) {
    return g.add(g.add(g.mul(g.constant(hlg_weights[0]), c[0]), g.mul(g.constant(hlg_weights[1]), c[1])),
                 g.mul(g.constant(hlg_weights[2]), c[2]));
}

void add_hlg(Rows& table) {
    const lang::Slot fixed = per_picture(float_type), colour_slot = exactly(vec3_type);
    const colour::Transfer* const curve = colour::find_transfer("hlg");
    table
        .typed(
            "hlg_gamma", {"peak"}, {fixed}, exactly(float_type),
            "The system gamma that HLG has on a display of this peak in cd/m2: 1.2 + 0.42 log10(peak / 1000) from 400 "
            "to 2000, and outside of them 1.2 * 1.111^log2(peak / 1000), which does not quite meet it.",
            "ITU-R BT.2100-2, Table 5, notes 5e and 5f", {{{1000}, 1.2}, {{2000}, 1.2 + 0.42 * std::log10(2.0)}},
            [](Shape, const double* const* x, double* r) {
                const double peak = *x[0];
                *r = peak >= 400 && peak <= 2000 ? 1.2 + 0.42 * std::log10(peak / 1000)
                                                 : 1.2 * std::pow(1.111, std::log2(peak / 1000));
            },
            [](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
                const NodeId stops = g.make(Op::log2, g.mul(*x[0], g.constant(1.0 / 1000)));
                const NodeId usual =
                    g.add(g.constant(1.2), g.mul(g.constant(0.42 * std::numbers::ln2 / std::numbers::ln10), stops));
                const NodeId wide =
                    g.mul(g.constant(1.2), g.make(Op::exp2, g.mul(g.constant(std::log2(1.111)), stops)));
                const NodeId low = g.less(*x[0], g.constant(400)), high = g.less(g.constant(2000), *x[0]);
                *r = g.select(low, wide, g.select(high, wide, usual));
            })
        .jumps = true;
    constexpr std::string_view source = "ITU-R BT.2100-2, Table 5, with the black of note 5i";
    Builtin& there = table.typed(
        "hlg_display", {"signal", "peak", "gamma", "black"}, {colour_slot, fixed, fixed, fixed}, colour_slot,
        "HLG's r, g, b signal (0 to 1, BT.2020 primaries) to the light of a display in cd/m2: with its peak, its "
        "system "
        "gamma (see hlg_gamma) and its black. What has no luminance is black.",
        source, {{{1, 1, 1, 1000, 1.2, 0}, 1000}, {{0, 0, 0, 1000, 1.2, 0}, 0}},
        [curve](Shape, const double* const* x, double* r) {
            const double peak = *x[1], gamma = *x[2], lift = hlg_lift(peak, gamma, *x[3]);
            double light[3], y = 0;
            for (int i = 0; i < 3; ++i) {
                light[i] = curve->decode(maximum(0, (1 - lift) * x[0][i] + lift));
                y += hlg_weights[static_cast<std::size_t>(i)] * light[i];
            }
            for (int i = 0; i < 3; ++i)
                r[i] = y <= 0 ? 0 : peak * std::pow(y, gamma - 1) * light[i];
        },
        [curve](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            const NodeId peak = *x[1], gamma = *x[2], lift = hlg_lift(g, peak, gamma, *x[3]);
            std::array<NodeId, 3> light{};
            for (std::size_t i = 0; i < 3; ++i)
                light[i] = curve->lower_decode(
                    g, g.make(Op::max, g.constant(0), g.add(g.mul(g.sub(g.constant(1), lift), x[0][i]), lift)));
            const NodeId y = hlg_sum(g, light), dark = g.less_equal(y, g.constant(0));
            const NodeId by = g.mul(peak, g.make(Op::pow, y, g.sub(gamma, g.constant(1))));
            for (std::size_t i = 0; i < 3; ++i)
                r[i] = g.select(dark, g.constant(0), g.mul(by, light[i]));
        });
    there.tolerance = 5e-5;
    there.jumps = true;
    Builtin& back = table.typed(
        "hlg_signal", {"light", "peak", "gamma", "black"}, {colour_slot, fixed, fixed, fixed}, colour_slot,
        "The way back from hlg_display with the same numbers: light of a display in cd/m2 to HLG's signal.", source,
        {{{1000, 1000, 1000, 1000, 1.2, 0}, 1}, {{0, 0, 0, 1000, 1.2, 0}, 0}},
        [curve](Shape, const double* const* x, double* r) {
            const double peak = *x[1], gamma = *x[2], lift = hlg_lift(peak, gamma, *x[3]);
            double y = 0;
            for (int i = 0; i < 3; ++i)
                y += hlg_weights[static_cast<std::size_t>(i)] * x[0][i] / peak;
            for (int i = 0; i < 3; ++i) {
                const double light = y <= 0 ? 0 : std::pow(y, (1 - gamma) / gamma) * x[0][i] / peak;
                r[i] = (curve->encode(light) - lift) / (1 - lift);
            }
        },
        [curve](Graph& g, Shape, const NodeId* const* x, NodeId* r) {
            const NodeId peak = *x[1], gamma = *x[2], lift = hlg_lift(g, peak, gamma, *x[3]), one = g.constant(1);
            std::array<NodeId, 3> share{};
            for (std::size_t i = 0; i < 3; ++i)
                share[i] = g.div(x[0][i], peak);
            const NodeId y = hlg_sum(g, share), dark = g.less_equal(y, g.constant(0));
            const NodeId by = g.make(Op::pow, y, g.div(g.sub(one, gamma), gamma));
            for (std::size_t i = 0; i < 3; ++i) {
                const NodeId light = g.select(dark, g.constant(0), g.mul(by, share[i]));
                r[i] = g.div(g.sub(curve->lower_encode(g, light), lift), g.sub(one, lift));
            }
        });
    back.tolerance = 5e-5;
    back.jumps = true;
}

} // namespace

std::vector<Builtin> video() {
    Rows table;
    add(table,
        {"narrow_encode",
         "narrow_decode",
         "A signal from 0 to 1 (r, g, b or luma) as a narrow-range code of so many bits, black at 16 and white at 235 "
         "of 8, written as a share of the largest code. It is not rounded: quantise does that.",
         "A narrow-range code of so many bits, a share of the largest code as pictures hold it, as a signal: black "
         "(16 of 8 bits) becomes 0 and white (235) 1. What is beyond goes on.",
         16,
         219,
         {{{0, 8}, 16.0 / 255}, {{1, 10}, 940.0 / 1023}},
         {{{235.0 / 255, 8}, 1}, {{64.0 / 1023, 10}, 0}}});
    add(table,
        {"narrow_difference_encode",
         "narrow_difference_decode",
         "A colour difference cb or cr from -0.5 to 0.5 as a narrow-range code of so many bits, none at 128 and the "
         "ends at 16 and 240 of 8, written as a share of the largest code.",
         "A narrow-range code of cb or cr of so many bits, a share of the largest code, as a difference from -0.5 to "
         "0.5.",
         128,
         224,
         {{{0, 8}, 128.0 / 255}, {{0.5, 10}, 960.0 / 1023}},
         {{{240.0 / 255, 8}, 0.5}, {{512.0 / 1023, 10}, 0}}});

    const lang::Slot fixed = per_picture(float_type);
    Builtin& there = table.typed(
        "bt1886_display", {"signal", "white", "black"}, {lang::gen, fixed, fixed}, lang::gen,
        "The light in cd/m2 that BT.1886's display makes of a signal, with the white and the black it is set to: "
        "bt1886_display(rgb, 100, 0.05).",
        "ITU-R BT.1886, Annex 1",
        {{{1, 100, 0.1}, 100}, {{0, 100, 0.1}, 0.1}, {{0.5, 100, 0}, 100 * std::pow(0.5, 2.4)}},
        [](Shape shape, const double* const* x, double* r) {
            const Display1886 display(*x[1], *x[2]);
            for (int i = 0; i < shape.width; ++i)
                r[i] = display.a * std::pow(maximum(x[0][i] + display.b, 0), 2.4);
        },
        [](Graph& g, Shape shape, const NodeId* const* x, NodeId* r) {
            const LoweredDisplay1886 display(g, *x[1], *x[2]);
            for (int i = 0; i < shape.width; ++i)
                r[i] =
                    g.mul(display.a,
                          g.make(Op::pow, g.make(Op::max, g.add(x[0][i], display.b), g.constant(0)), g.constant(2.4)));
        });
    there.tolerance = 2e-4; // a black that is nearly the white magnifies rounding without bound
    there.jumps = true;
    Builtin& back = table.typed(
        "bt1886_signal", {"light", "white", "black"}, {lang::gen, fixed, fixed}, lang::gen,
        "The way back from bt1886_display: the signal that makes so much light, in cd/m2. Below the black there is "
        "none.",
        "ITU-R BT.1886, Annex 1", {{{100, 100, 0.1}, 1}, {{0.1, 100, 0.1}, 0}},
        [](Shape shape, const double* const* x, double* r) {
            const Display1886 display(*x[1], *x[2]);
            for (int i = 0; i < shape.width; ++i)
                r[i] = std::pow(maximum(x[0][i], 0) / display.a, 1 / 2.4) - display.b;
        },
        [](Graph& g, Shape shape, const NodeId* const* x, NodeId* r) {
            const LoweredDisplay1886 display(g, *x[1], *x[2]);
            for (int i = 0; i < shape.width; ++i)
                r[i] = g.sub(
                    g.make(Op::pow, g.div(g.make(Op::max, x[0][i], g.constant(0)), display.a), g.constant(1 / 2.4)),
                    display.b);
        });
    back.tolerance = 2e-4;
    back.jumps = true;
    add_hlg(table);
    return std::move(table.rows);
}

} // namespace kasuri::builtins
