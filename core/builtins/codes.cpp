#include "builtins/code_values.hpp"

#include <algorithm>
#include <cstdint>
#include <utility>
#include <vector>

namespace kasuri::builtins {
namespace {

// A channel value stands for the whole number nearest to it among 0 .. 2^bits - 1, halves to the even one. Bit
// operations work on those numbers: values outside 0..1 count as 0 or 1, bits are rounded and kept within 1..24.

/// Reads x and the bit depth, applies `change` to the code and its largest value.
template <class Change>
double coded(double x, double bits, Change change) {
    if (std::isnan(x) || std::isnan(bits))
        return not_a_number;
    const double top = levels(bits);
    const auto code = static_cast<std::uint64_t>(std::nearbyint(std::fmin(std::fmax(x, 0), 1) * top));
    return static_cast<double>(change(code, static_cast<std::uint64_t>(top))) / top;
}

NodeId code(Graph& g, NodeId x, NodeId top) {
    if (const ir::CodeValue* known = g.code_of(x); known && known->top == top) // there and back would only round
        return known->inside ? known->whole : g.clamp(known->whole, g.constant(0), top);
    return g.make(Op::round_even, g.mul(g.clamp01(x), top));
}

/// What a result has to be NaN for: the arguments, or what those that are codes were NaN for themselves.
std::vector<NodeId> nan_of(const Graph& g, std::initializer_list<NodeId> arguments) {
    constexpr std::size_t most = 4; // more of them than arguments do not pay
    std::vector<NodeId> all;
    for (const NodeId argument : arguments) {
        const ir::CodeValue* known = g.code_of(argument);
        for (const NodeId of : known ? known->nan_of : std::vector{argument})
            if (g[of].op != Op::constant && std::find(all.begin(), all.end(), of) == all.end())
                all.push_back(of);
    }
    return all.size() <= most ? all : std::vector<NodeId>(arguments);
}

/// The code as a value again; NaN where an argument was, which whole numbers cannot hold.
NodeId value(Graph& g, NodeId made, NodeId top, std::initializer_list<NodeId> arguments) {
    std::vector<NodeId> of = nan_of(g, arguments);
    NodeId result = g.div(made, top);
    for (const NodeId each : of)
        result = g.select(g.make(Op::is_nan, each), each, result);
    g.remember_code(result, {made, top, true, std::move(of)});
    return result;
}

template <Op op>
NodeId bitwise(Graph& g, const NodeId* x) {
    const NodeId top = levels(g, x[2]);
    return value(g, g.make(op, code(g, x[0], top), code(g, x[1], top)), top, {x[0], x[1], x[2]});
}

double both(const double* x, std::uint64_t (*join)(std::uint64_t, std::uint64_t)) {
    if (std::isnan(x[1]))
        return not_a_number;
    const double top = levels(x[2]);
    const auto other = static_cast<std::uint64_t>(std::nearbyint(std::fmin(std::fmax(x[1], 0), 1) * top));
    return coded(x[0], x[2], [&](std::uint64_t c, std::uint64_t) { return join(c, other); });
}

constexpr std::string_view own = "own definition, as its line says; binary logic of ISO C17, 6.5";

} // namespace

std::vector<Builtin> codes() {
    Rows table;
    table
        .componentwise(
            "quantise", {"x", "bits"}, "The nearest of the 2^bits levels from 0 to 1; the same steps go on outside.",
            "by definition", {{{0.5, 1}, 0}, {{0.6, 1}, 1}, {{0.5, 8}, 128.0 / 255}, {{1.5, 2}, 4.0 / 3}},
            [](const double* x) {
                return std::isnan(x[1]) ? not_a_number : std::nearbyint(x[0] * levels(x[1])) / levels(x[1]);
            },
            [](Graph& g, const NodeId* x) {
                const NodeId top = levels(g, x[1]);
                const NodeId whole = g.make(Op::round_even, g.mul(x[0], top)), result = g.div(whole, top);
                g.remember_code(result, {whole, top, false, {x[0], x[1]}});
                return result;
            })
        .jumps = true;
    table
        .componentwise(
            "bit_and", {"x", "y", "bits"}, "Bits that both code values have.", own,
            {{{15.0 / 255, 60.0 / 255, 8}, 12.0 / 255}, {{2, -1, 8}, 0}},
            [](const double* x) { return both(x, [](std::uint64_t a, std::uint64_t b) { return a & b; }); },
            bitwise<Op::bit_and>)
        .jumps = true;
    table
        .componentwise(
            "bit_or", {"x", "y", "bits"}, "Bits that either code value has.", own,
            {{{15.0 / 255, 60.0 / 255, 8}, 63.0 / 255}},
            [](const double* x) { return both(x, [](std::uint64_t a, std::uint64_t b) { return a | b; }); },
            bitwise<Op::bit_or>)
        .jumps = true;
    table
        .componentwise(
            "bit_xor", {"x", "y", "bits"}, "Bits that one of the code values has, not both.", own,
            {{{15.0 / 255, 60.0 / 255, 8}, 51.0 / 255}},
            [](const double* x) { return both(x, [](std::uint64_t a, std::uint64_t b) { return a ^ b; }); },
            bitwise<Op::bit_xor>)
        .jumps = true;
    table
        .componentwise(
            "bit_not", {"x", "bits"}, "The bits that the code value has not.", own, {{{15.0 / 255, 8}, 240.0 / 255}},
            [](const double* x) {
                return coded(x[0], x[1], [](std::uint64_t c, std::uint64_t top) { return top - c; });
            },
            [](Graph& g, const NodeId* x) {
                const NodeId top = levels(g, x[1]);
                return value(g, g.sub(top, code(g, x[0], top)), top, {x[0], x[1]});
            })
        .jumps = true;
    table
        .componentwise(
            "bit_left", {"x", "places", "bits"},
            "The code value shifted up by whole places; what leaves at the top is lost.", own,
            {{{3.0 / 255, 2, 8}, 12.0 / 255}, {{192.0 / 255, 1, 8}, 128.0 / 255}},
            [](const double* x) {
                if (std::isnan(x[1]))
                    return not_a_number;
                const auto places = static_cast<unsigned>(std::fmin(std::fmax(std::nearbyint(x[1]), 0), 24));
                return coded(x[0], x[2], [&](std::uint64_t c, std::uint64_t top) { return (c << places) & top; });
            },
            [](Graph& g, const NodeId* x) {
                const NodeId bits = bits_of(g, x[2]), top = levels(g, x[2]);
                const NodeId places = g.clamp(g.make(Op::round_even, x[1]), g.constant(0), g.constant(24));
                // What stays is the code modulo 2^(bits - places); then it moves up. Nothing here leaves a float's 24
                // bits.
                const NodeId keeps = g.make(Op::exp2, g.max(g.sub(bits, places), g.constant(0)));
                const NodeId c = code(g, x[0], top);
                const NodeId rest = g.sub(c, g.mul(keeps, g.make(Op::floor, g.div(c, keeps))));
                return value(g, g.mul(rest, g.make(Op::exp2, places)), top, {x[0], x[1], x[2]});
            })
        .jumps = true;
    table
        .componentwise(
            "bit_right", {"x", "places", "bits"},
            "The code value shifted down by whole places; what leaves at the bottom is lost.", own,
            {{{12.0 / 255, 2, 8}, 3.0 / 255}, {{1, 4, 8}, 15.0 / 255}},
            [](const double* x) {
                if (std::isnan(x[1]))
                    return not_a_number;
                const auto places = static_cast<unsigned>(std::fmin(std::fmax(std::nearbyint(x[1]), 0), 24));
                return coded(x[0], x[2], [&](std::uint64_t c, std::uint64_t) { return c >> places; });
            },
            [](Graph& g, const NodeId* x) {
                const NodeId top = levels(g, x[2]);
                const NodeId places = g.clamp(g.make(Op::round_even, x[1]), g.constant(0), g.constant(24));
                return value(g, g.make(Op::floor, g.div(code(g, x[0], top), g.make(Op::exp2, places))), top,
                             {x[0], x[1], x[2]});
            })
        .jumps = true;
    return std::move(table.rows);
}

} // namespace kasuri::builtins
