#pragma once
#include <cstdint>
#include <span>
#include <string_view>

namespace kasuri::ir {

/// The closed set of scalar operations that a back end must know. Truth values are 0 and 1.
enum class Op : std::uint8_t {
    constant, ///< a number known when the rule is compiled
    uniform,  ///< one number per run: a parameter, or the aspect of the picture
    input,    ///< one number per pixel
    neg, abs, floor, ceil, trunc, round_even, sqrt, exp2, log2, sin, cos, logical_not, is_nan,
    add, sub, mul, div, min, max, pow, less, less_equal, equal, logical_and, logical_or,
    fma, select,
};

/// One row: how many operands, and its meaning in double precision (used to fold constants and for
/// uniform work; the reference evaluator has its own definitions and does not look here).
struct OpRow {
    Op op;
    std::string_view name;
    int arity;
    double (*fold)(double a, double b, double c); ///< null for leaves
};

std::span<const OpRow> op_table();
const OpRow& row(Op op);

} // namespace kasuri::ir
